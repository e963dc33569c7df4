/**
 * Sides of openings and points of walls drawn out by their handles on the sheet, on either face: shown meanwhile, made when let go, given up, or typed.
 * @jest-environment jsdom
 */
import { afterEach, beforeAll, describe, expect, it } from '@jest/globals';
import { act } from '@testing-library/react';
import type { BoxSide } from '@yard-arch/core';
import { formatLength, type FaceName, type Wall } from '@yard-arch/document';
import { changeElement, wallHandles, withinOf, type WallHandle } from '@yard-arch/edit';
import type { EditedFigure } from '../src/boards/edited-figure.ts';
import type { Gesture } from '../src/boards/gesture.ts';
import { linesOf, onElement } from '../src/boards/sheet-data.ts';
import { SheetDesk, type Over } from '../src/sheet/gestures/desk.ts';
import { drawingSide, drawingWall } from '../src/sheet/gestures/drawn-out.ts';
import { useEditor } from '../src/state/state.ts';
import { commit } from '../src/state/store.ts';
import { asInBrowser, closed, opened, twoWalls, type Opened } from './opened.tsx';

beforeAll(asInBrowser);
afterEach(closed);

/** Pixels a metre. */
const scale = 50;

/** A sheet's desk without a sheet, and what was last shown over it and typed on it. */
function deskOf(open: Opened, id: string, face: FaceName) {
  const over: Partial<Over> = {};
  const figures: EditedFigure[] = [];
  const latest = () => {
    const committed = open.document();
    const element = committed.elements[id]!;
    return {
      svg: { current: { getBoundingClientRect: () => ({ left: 0, top: 0 }) } },
      element,
      face,
      committed,
      shown: onElement(committed, element, face, null),
      lines: linesOf(committed, element, face),
      view: { x: 0, y: 0, scale },
      setFigure: (figure: EditedFigure) => figures.push(figure),
      hold: () => {},
      candidate: null,
      over,
    };
  };
  const current = { get: latest };
  const desk = new SheetDesk(Object.defineProperty({}, 'current', current) as never, (change) =>
    Object.assign(over, change),
  );
  return { desk, over, figures };
}

/** Draws along a gesture to a place of the face, metres, and lets go unless it is said otherwise. */
function drawTo(gesture: Gesture, s: number, t: number, { free = false, drop = true } = {}): void {
  act(() => {
    gesture.begin?.();
    gesture.move!({ x: s * scale, y: -t * scale, free });
    if (drop) gesture.drop!();
  });
}

const open = (): Promise<Opened> => opened(twoWalls(), () => null);
const handleOf = (shown: Opened, id: string, face: FaceName, kind: WallHandle['kind']): WallHandle =>
  wallHandles(shown.wall(id), withinOf(shown.document(), shown.wall(id), face)).find((one) => one.kind === kind)!;

describe.each(['outer', 'inner'] as const)('on the %s face', (face) => {
  it.each(['start', 'end'] as const)('a wall’s %s is drawn out, and its length told as it is seen', async (kind) => {
    const shown = await open();
    const { desk, over } = deskOf(shown, 'courtyard', face);
    const before = shown.wall('courtyard');
    const handle = handleOf(shown, 'courtyard', face, kind);
    const out = handle.s > 1 ? 0.6 : -0.6;
    const gesture = drawingWall(desk, before, handle);
    const { length } = linesOf(shown.document(), before, face);
    drawTo(gesture, handle.s + out, 3, { drop: false });
    expect(over.drawnOut!.text).toContain(`length ${formatLength(length + 0.6, 'mm')}`);
    // What is at the left is where distances begin: the wall is drawn anew only when it is let go.
    expect(useEditor.getState().draft === null).toBe(handle.s < 1);
    act(() => gesture.drop!());
    expect(over.drawnOut).toBeNull();
    expect(shown.wall('courtyard').length).toBeCloseTo(before.length + 0.6, 6);
    // The end that was not drawn stands where it stood.
    const { start } = shown.wall('courtyard');
    expect(start.x).toBeCloseTo(kind === 'start' ? before.start.x - 0.6 : before.start.x, 6);
  });

  it('a wall’s top is drawn up, and given up again', async () => {
    const shown = await open();
    const { desk } = deskOf(shown, 'courtyard', face);
    const before = shown.wall('courtyard');
    const gesture = drawingWall(desk, before, handleOf(shown, 'courtyard', face, 'top'));
    drawTo(gesture, 4, before.height + 0.5, { drop: false });
    expect((useEditor.getState().draft!.elements.courtyard as Wall).height).toBeCloseTo(before.height + 0.5, 9);
    act(() => gesture.giveUp!());
    expect(useEditor.getState().draft).toBeNull();
    expect(shown.wall('courtyard')).toBe(before);
  });

  it('a figure typed meanwhile makes it as long as was typed', async () => {
    const shown = await open();
    const { desk, figures } = deskOf(shown, 'courtyard', face);
    const before = shown.wall('courtyard');
    const handle = handleOf(shown, 'courtyard', face, 'end');
    const gesture = drawingWall(desk, before, handle);
    drawTo(gesture, handle.s + 0.1, 2, { drop: false });
    act(() => void gesture.typed!('2'));
    const [figure] = figures;
    expect(figure).toMatchObject({ what: 'length', text: '2' });
    const outcome = figure!.choices[0]!.apply(20);
    if ('reason' in outcome) throw new Error(outcome.reason);
    act(() => void commit(outcome));
    expect(linesOf(shown.document(), shown.wall('courtyard'), face).length).toBeCloseTo(20, 6);
  });

  it('an apex goes where it is drawn, and over the middle of the wall where it is near to it', async () => {
    const shown = await open();
    const wall = shown.wall('quay');
    act(() => void commit(changeElement(wall, { top: { kind: 'gabled', apex: wall.height + 2, at: 0.3 } }, 'gable')));
    const { desk, over } = deskOf(shown, 'quay', face);
    const gabled = shown.wall('quay');
    const middle = linesOf(shown.document(), gabled, face).length / 2;
    const gesture = drawingWall(desk, gabled, handleOf(shown, 'quay', face, 'apex'));
    drawTo(gesture, middle + 0.1, gabled.height + 3, { drop: false });
    expect(over.drawnOut!.text).toContain('over the middle of the wall');
    act(() => gesture.drop!());
    const { top } = shown.wall('quay');
    expect(top).toMatchObject({ kind: 'gabled', apex: expect.closeTo(gabled.height + 3, 6) });
    expect(top.kind === 'gabled' && top.at).toBeCloseTo(0.5, 3);
  });
});

describe('a side of an opening', () => {
  const draw = async (id: string, side: BoxSide, by: number, free = false) => {
    const shown = await open();
    const { desk, figures } = deskOf(shown, 'courtyard', 'outer');
    const box = desk.now.shown.boxes.find((one) => one.id === id)!;
    const gesture = drawingSide(desk, shown.opening(id), box, side)!;
    const at = { left: box.s, right: box.s + box.width, sill: box.t, head: box.t + box.height, springing: box.t }[side];
    const along = side === 'left' || side === 'right';
    drawTo(gesture, along ? at + by : box.s, along ? box.t : at + by, { free });
    return { shown, box, figures, after: () => desk.now.shown.boxes.find((one) => one.id === id)! };
  };

  it('asks whom the new dimension is for, where others are of its size', async () => {
    const { figures, shown, box } = await draw('o10', 'right', 0.173, true);
    const [figure] = figures;
    expect(figure!.choices.length).toBeGreaterThan(1);
    expect(figure!.value).toBeCloseTo(box.width + 0.173, 3);
    // Nothing is made before it is answered.
    expect(shown.server.edits).toHaveLength(0);
  });

  it('for this one alone leaves the opposite side, and the others, as they are', async () => {
    const { figures, shown, box, after } = await draw('o10', 'left', -0.2, true);
    const before = shown.document();
    const alone = figures[0]!.choices.find(({ label }) => /alone|this one/i.test(label))!;
    const outcome = alone.apply(figures[0]!.value);
    if ('reason' in outcome) throw new Error(outcome.reason);
    act(() => void commit(outcome));
    expect(after().s).toBeCloseTo(box.s - 0.2, 3);
    expect(after().s + after().width).toBeCloseTo(box.s + box.width, 9);
    for (const { id } of Object.values(before.openings))
      if (id !== 'o10') expect(shown.opening(id)).toEqual(before.openings[id]);
  });
});
