/** The gesture machine at work in the page: a library tells what the pointer does, Escape gives up, and figures can be typed meanwhile. */
import { useDrag } from '@use-gesture/react';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { beginsFigure, GestureMachine, type Gesture, type Press, type Spot, type Typing } from './gesture.ts';
import { useOnceAFrame } from './use-board.ts';

interface Board<Held> {
  /** What a press begins; null where it is all done by then. */
  press: (press: Press, held: Held) => Gesture | null;
  /** Where the pointer goes while nothing is held, once a frame. */
  hover?: (spot: Spot) => void;
  /** What figures mean while nothing is held. */
  typing?: () => Typing | null;
  /** Told when a gesture begins and when it has ended. */
  onGoing?: (going: boolean) => void;
}

/** Something to spread over what is pressed: `bind(held)`, where a press is told what it is of. */
type Bind<Held> = (held: Held) => ReturnType<ReturnType<typeof useDrag>>;

/** What goes on, as handlers for what is drawn and for keys. */
export interface Gestures<Held> {
  machine: GestureMachine;
  bind: Bind<Held>;
  onPointerMove: (event: { clientX: number; clientY: number; altKey: boolean }) => void;
  /** What has been typed of a figure, or null. */
  typed: string | null;
  typing: () => Typing | null;
  /** Takes a figure. @returns why not, or null. */
  take: (text: string) => string | null;
  /** Begins a figure with a key. @returns whether one can be typed. */
  type: (key: string) => boolean;
  /** Gives up what goes on, and what was typed. */
  giveUp: () => void;
}

/** @returns the machine for a board; one hook serves all boards. */
export function useGestures<Held = void>(board: Board<Held>): Gestures<Held> {
  const latest = useRef(board);
  useEffect(() => {
    latest.current = board;
  });
  const frames = useOnceAFrame();
  const machine = useMemo(
    () => new GestureMachine(frames, (going) => latest.current.onGoing?.(going)),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  useEffect(() => () => machine.giveUp(), [machine]);
  const { isTyping, ...typing } = useTyping(machine, () => latest.current.typing?.() ?? null);
  useKeys(machine, isTyping, typing);
  const pointer = usePointer({ machine, latest, isTyping, giveUp: typing.giveUp });
  return { machine, ...typing, ...pointer };
}

type Figures = Pick<Gestures<void>, 'typed' | 'typing' | 'take' | 'type' | 'giveUp'>;

/** Figures that are typed while something goes on, or while nothing is held. */
function useTyping(machine: GestureMachine, atRest: () => Typing | null): Figures & { isTyping: RefObject<boolean> } {
  const [typed, setTyped] = useState<string | null>(null);
  const isTyping = useRef(false);
  const setField = (text: string | null): void => {
    isTyping.current = text !== null;
    setTyped(text);
  };
  const typing = (): Typing | null => (machine.now ? (machine.moved && machine.now.typing?.()) || null : atRest());
  return {
    isTyping,
    typed,
    typing,
    giveUp: () => {
      setField(null);
      machine.giveUp();
    },
    type: (key) => {
      if (!beginsFigure(key)) return false;
      if (machine.moved && machine.now?.typed?.(key)) {
        machine.end();
        return true;
      }
      if (!typing()) return false;
      setField(key);
      return true;
    },
    take: (text) => {
      const fault = typing()?.take(text) ?? null;
      if (fault !== null) return fault;
      machine.end();
      setField(null);
      return null;
    },
  };
}

/** Keys while something is held: Escape gives it up, figures are typed. */
function useKeys(
  machine: GestureMachine,
  isTyping: RefObject<boolean>,
  { type, giveUp }: Pick<Figures, 'type' | 'giveUp'>,
): void {
  useEffect(() => {
    // Before what has the focus hears of it: a handle need not have it.
    const onKey = (event: KeyboardEvent): void => {
      if (!machine.now || isTyping.current) return;
      if (event.key === 'Escape') giveUp();
      else if (event.ctrlKey || event.metaKey || event.altKey || !type(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [machine]);
}

interface PointerWork<Held> {
  machine: GestureMachine;
  latest: RefObject<Board<Held>>;
  isTyping: RefObject<boolean>;
  giveUp: () => void;
}

/** What the pointer does: presses, moves what is held, and hovers where nothing is. */
function usePointer<Held>({
  machine,
  latest,
  isTyping,
  giveUp,
}: PointerWork<Held>): Pick<Gestures<Held>, 'bind' | 'onPointerMove'> {
  const hovers = useOnceAFrame();
  const bind = useDrag(
    ({ event, xy: [x, y], initial, intentional, altKey, shiftKey, ctrlKey, metaKey, args }) => {
      const spot = { x, y, free: altKey };
      if (event.type === 'pointerdown') {
        if (isTyping.current) return giveUp();
        const press = {
          ...spot,
          target: event.target as Element,
          middle: 'button' in event && event.button === 1,
          shift: shiftKey,
          control: ctrlKey || metaKey,
        };
        hovers.drop();
        const gesture = latest.current.press(press, args[0] as Held);
        if (gesture) machine.press(gesture);
        return;
      }
      if (isTyping.current || !machine.now) return;
      if (event.type === 'pointerup') return machine.release();
      if (event.type !== 'pointermove') return giveUp();
      if (intentional || Math.hypot(x - initial[0], y - initial[1]) >= threshold) machine.move(spot);
    },
    { threshold, triggerAllEvents: true, pointer: { capture: false, buttons: [1, 4], keys: false } },
  );
  return {
    bind: bind as Bind<Held>,
    onPointerMove: ({ clientX, clientY, altKey }) => {
      if (machine.now || isTyping.current) return;
      hovers.ask(() => latest.current.hover?.({ x: clientX, y: clientY, free: altKey }));
    },
  };
}

/** How far the pointer goes before a press is a drag, pixels. */
const threshold = 4;
