/** Dragging a roof's outline on the plan: its corners and its edges, those of its courtyards too. */
import type { Point } from '@yard-arch/core';
import { formatLength, parseLength, type Roof } from '@yard-arch/document';
import { cornersAbout, moveOutlineCorner, moveOutlineEdge, outOf } from '@yard-arch/edit';
import type { Gesture, Press } from '../../boards/gesture.ts';
import { snapInPlan } from '../snap-plan.ts';
import type { Outcome, PlanDesk } from './desk.ts';
import { dragged, notALength } from './move.ts';

/** Drags a corner of a roof's outline; a figure typed meanwhile is the length of the edge that leads to it. */
export function movingCorner(desk: PlanDesk, roof: Roof, id: string): Gesture {
  const [before, from, after] = cornersAbout(roof, id);
  let to: Point | null = null;
  return dragged(desk, {
    move: (spot) => {
      const at = desk.on(spot);
      const snapped =
        inLine(desk, [before, after], at, spot.free) ??
        snapInPlan({ at, walls: desk.walls, from: null, reach: desk.reach, free: spot.free });
      to = snapped.at;
      const { units } = desk.now.document;
      const long = [before, after].map(([x, y]) => formatLength(Math.hypot(x - to![0], y - to![1]), units));
      const reason = [`edges of ${long.join(' and ')}`, snapped.reason].filter(Boolean).join(' · ');
      desk.show({ pointer: { ...snapped, reason } });
      desk.preview(moveOutlineCorner(roof, id, to));
    },
    made: () => to && moveOutlineCorner(roof, id, to),
    typing: () => ({
      label: 'Length of the edge that leads to it',
      hint: 'the corner before it stays',
      take: (text) => {
        const length = parseLength(text, desk.now.document.units);
        if (length === null) return notALength;
        const [ax, ay] = to ?? from;
        const way = Math.atan2(ay - before[1], ax - before[0]);
        desk.make(
          moveOutlineCorner(roof, id, [before[0] + length * Math.cos(way), before[1] + length * Math.sin(way)]),
        );
        return null;
      },
    }),
  });
}

/** A corner level with one of its neighbours, along x or y, where it is near to that. */
function inLine(
  { reach }: PlanDesk,
  neighbours: readonly Point[],
  at: Point,
  free: boolean,
): ReturnType<typeof snapInPlan> | null {
  if (free) return null;
  const out: [number, number] = [Math.round(at[0] * 100) / 100, Math.round(at[1] * 100) / 100];
  let guide: readonly [Point, Point] | null = null;
  for (const axis of [0, 1] as const)
    for (const near of neighbours)
      if (Math.abs(near[axis] - at[axis]) < reach) {
        out[axis] = near[axis];
        guide = [near, out];
      }
  return guide && { at: out, reason: 'in line with the next corner', guide };
}

/** Drags an edge of a roof's outline out or in, by half decimetres or freely; a figure typed meanwhile is how far. */
export function movingEdge(desk: PlanDesk, roof: Roof, id: string, press: Press): Gesture {
  const began = desk.on(press);
  const out = outOf(roof, id);
  let by: number | null = null;
  const made = (far: number): Outcome => moveOutlineEdge(roof, id, far);
  return dragged(desk, {
    move: (spot) => {
      const at = desk.on(spot);
      const step = spot.free ? 1000 : 20;
      const exact = (at[0] - began[0]) * out[0] + (at[1] - began[1]) * out[1];
      by = Math.round(exact * step) / step;
      const { units } = desk.now.document;
      desk.show({
        pointer: { at, reason: `${formatLength(Math.abs(by), units)} ${by < 0 ? 'in' : 'out'}`, guide: null },
      });
      desk.preview(made(by));
    },
    made: () => (by ? made(by) : null),
    typing: () => ({
      label: 'Move the edge by',
      hint: 'out; in where it is less than nothing',
      take: (text) => {
        const length = parseLength(text, desk.now.document.units);
        if (length === null) return notALength;
        desk.make(made(by !== null && by < 0 && length > 0 ? -length : length));
        return null;
      },
    }),
  });
}
