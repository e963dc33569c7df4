/** The gesture machine: what is done with the pointer held down, the same on the sheet, on the plan and in the model. */

/** Where the pointer is, pixels in the window, and whether nothing shall pull it. */
export interface Spot {
  x: number;
  y: number;
  free: boolean;
}

/** Where it went down, on what, and with which keys held. */
export interface Press extends Spot {
  target: Element;
  /** Of the pointer: the wheel or middle one pans everywhere. */
  middle: boolean;
  shift: boolean;
  control: boolean;
}

/** What figures typed meanwhile mean. */
export interface Typing {
  label: string;
  hint: string;
  /** @returns why they cannot be taken, or null. */
  take: (text: string) => string | null;
}

/** One thing that is done by pressing, dragging and letting go. What it shows meanwhile is its own affair. */
export interface Gesture {
  /** The pointer has left where it went down: before that it may be but a click. */
  begin?: () => void;
  move?: (spot: Spot) => void;
  /** Let go after it has moved. */
  drop?: () => void;
  /** Given up; also what becomes of it where a click does nothing. */
  giveUp?: () => void;
  /** Let go where it went down. */
  click?: () => void;
  typing?: () => Typing | null;
  /** Takes the first key of a figure elsewhere than in the board's own field. @returns whether it did, which ends it. */
  typed?: (key: string) => boolean;
}

/** Does the last of what it was asked once a frame. */
export interface Frames {
  ask: (work: () => void) => void;
  drop: () => void;
  flush: () => void;
}

/** Holds the gesture that goes on, and sees that each ends in exactly one way. */
export class GestureMachine {
  private held: { gesture: Gesture; moved: boolean } | null = null;

  constructor(
    private readonly frames: Frames,
    /** Told when one begins and when it has ended. */
    private readonly told: (going: boolean) => void = () => {},
  ) {}

  get now(): Gesture | null {
    return this.held?.gesture ?? null;
  }

  /** Whether what goes on is more than a click. */
  get moved(): boolean {
    return this.held?.moved ?? false;
  }

  press(gesture: Gesture): void {
    this.giveUp();
    this.held = { gesture, moved: false };
    this.told(true);
  }

  move(spot: Spot): void {
    const { held } = this;
    if (!held) return;
    if (!held.moved) held.gesture.begin?.();
    held.moved = true;
    this.frames.ask(() => held === this.held && held.gesture.move?.(spot));
  }

  release(): void {
    // It is let go where it is, not where it was at the last frame.
    this.frames.flush();
    const held = this.end();
    if (held?.moved) held.gesture.drop?.();
    else held?.gesture.click?.();
  }

  giveUp(): void {
    this.end()?.gesture.giveUp?.();
  }

  /** Ends what goes on without a word to it: it has been done in another way. */
  end(): { gesture: Gesture; moved: boolean } | null {
    const { held } = this;
    this.held = null;
    this.frames.drop();
    if (held) this.told(false);
    return held;
  }
}

/** Whether a key begins a figure. */
export const beginsFigure = (key: string): boolean => /^[\d.-]$/.test(key);
