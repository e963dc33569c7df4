/** The gesture machine: each gesture ends in exactly one way, and is followed once a frame. */
import { describe, expect, it } from '@jest/globals';
import { beginsFigure, GestureMachine, type Frames, type Gesture } from '../src/boards/gesture.ts';
import { panning } from '../src/boards/pan.ts';

/** Frames that come when they are told to. */
function frames(): Frames & { come: () => void } {
  let waiting: (() => void) | null = null;
  const flush = (): void => {
    const work = waiting;
    waiting = null;
    work?.();
  };
  return { ask: (work) => void (waiting = work), drop: () => void (waiting = null), flush, come: flush };
}

function told(): { log: string[]; gesture: Gesture } {
  const log: string[] = [];
  return {
    log,
    gesture: {
      begin: () => log.push('begin'),
      move: ({ x }) => log.push(`move ${x}`),
      drop: () => log.push('drop'),
      giveUp: () => log.push('give up'),
      click: () => log.push('click'),
    },
  };
}
const spot = (x: number) => ({ x, y: 0, free: false });

describe('a gesture', () => {
  it('let go where it went down is a click', () => {
    const { log, gesture } = told();
    const machine = new GestureMachine(frames());
    machine.press(gesture);
    machine.release();
    expect(log).toEqual(['click']);
    expect(machine.now).toBeNull();
  });

  it('is followed once a frame, and dropped where it was let go', () => {
    const { log, gesture } = told();
    const clock = frames();
    const machine = new GestureMachine(clock);
    machine.press(gesture);
    machine.move(spot(1));
    machine.move(spot(2));
    clock.come();
    machine.move(spot(3));
    machine.release();
    clock.come();
    expect(log).toEqual(['begin', 'move 2', 'move 3', 'drop']);
  });

  it('given up is neither clicked nor dropped, and followed no more', () => {
    const { log, gesture } = told();
    const clock = frames();
    const machine = new GestureMachine(clock);
    machine.press(gesture);
    machine.move(spot(1));
    machine.giveUp();
    clock.come();
    machine.release();
    expect(log).toEqual(['begin', 'give up']);
  });

  it('is given up by the next press, and that one goes on', () => {
    const [first, second] = [told(), told()];
    const going: boolean[] = [];
    const machine = new GestureMachine(frames(), (now) => going.push(now));
    machine.press(first.gesture);
    machine.press(second.gesture);
    machine.release();
    expect([first.log, second.log]).toEqual([['give up'], ['click']]);
    expect(going).toEqual([true, false, true, false]);
  });

  it('done in another way ends without a word', () => {
    const { log, gesture } = told();
    const machine = new GestureMachine(frames());
    machine.press(gesture);
    machine.move(spot(1));
    machine.end();
    machine.release();
    expect(log).toEqual(['begin']);
  });

  it('begins a figure by a digit, a sign or a point alone', () => {
    expect(['1', '-', '.'].every(beginsFigure)).toBe(true);
    expect(['a', 'Enter', 'F1', ' '].some(beginsFigure)).toBe(false);
  });
});

describe('panning', () => {
  it('follows the pointer and stays where it was, however it ends', () => {
    const seen: number[] = [];
    const done: number[] = [];
    const pan = panning({ x: 10, y: 0, scale: 2 }, spot(100), {
      to: ({ x }) => seen.push(x),
      done: ({ x }) => done.push(x),
    });
    pan.giveUp?.();
    expect(done).toEqual([]);
    pan.move?.(spot(130));
    pan.giveUp?.();
    expect([seen, done]).toEqual([[40], [40]]);
  });
});
