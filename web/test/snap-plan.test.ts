/** Drawing walls in plan: to what a point is drawn, and never farther than it may be. */
import { describe, expect, it } from '@jest/globals';
import { courseOf, type Point } from '@yard-arch/core';
import type { Wall } from '@yard-arch/document';
import fc from 'fast-check';
import { snapInPlan } from '../src/plan/snap-plan.ts';

const wall = (id: string, x: number, y: number, turn: number, length: number): Wall => ({
  id,
  kind: 'wall',
  name: `Wall ${id}`,
  start: { x, y, z: 0 },
  turn,
  length,
  height: 3,
  top: { kind: 'level' },
  layers: [{ thickness: 0.3, material: 'm' }],
});

const walls = [wall('a', 0, 0, 0, 8), wall('b', 8, 0, 90, 6), wall('c', -3, 2, 30, 4)];
const metres = fc.integer({ min: -12_000, max: 12_000 }).map((n) => n / 1000 + 0.0003);
const point: fc.Arbitrary<Point> = fc.tuple(metres, metres);
const reach = 0.2;
const apart = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
const ends = walls.flatMap((one) => {
  const { start, end } = courseOf(one);
  return [start, end];
});

describe('a point in plan', () => {
  it('is drawn to the nearest end of a wall within reach, and says whose', () => {
    expect(snapInPlan({ at: [7.9, 0.1], walls, from: null, reach, free: false })).toMatchObject({
      at: [8, 0],
      reason: expect.stringMatching(/^(end of Wall a|start of Wall b)$/),
      guide: null,
    });
    fc.assert(
      fc.property(point, (at) => {
        const near = Math.min(...ends.map((end) => apart(end, at)));
        const { at: to, reason } = snapInPlan({ at, walls, from: null, reach, free: false });
        if (near <= reach) expect(apart(to, at)).toBeCloseTo(near, 9);
        else expect(reason ?? '').not.toMatch(/^(start|end) of/);
      }),
    );
  });

  it('otherwise comes into line with ends, each way by itself, and into whole centimetres', () => {
    fc.assert(
      fc.property(point, (at) => {
        const { at: to, reason, guide } = snapInPlan({ at, walls, from: null, reach, free: false });
        for (const axis of [0, 1] as const) {
          const way = Math.abs(to[axis] - at[axis]);
          const inLine = ends.some((end) => end[axis] === to[axis]);
          expect(way).toBeLessThanOrEqual(inLine ? reach + 1e-9 : 0.005 + 1e-9);
        }
        expect(reason === null || guide !== null || /^(start|end) of/.test(reason)).toBe(true);
      }),
    );
  });

  it('drawn from another goes in whole steps of direction, as far as it was pulled', () => {
    fc.assert(
      fc.property(point, point, (from, at) => {
        fc.pre(apart(from, at) > 0.5 && ends.every((end) => apart(end, at) > reach));
        const { at: to, reason } = snapInPlan({ at, walls, from, reach, free: false });
        const turn = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
        expect(Math.abs(turn - 15 * Math.round(turn / 15))).toBeLessThan(0.05);
        expect(reason).toMatch(/^\d+°/);
        // As far along that direction as the pointer is, but for the reach.
        const along = (Math.round(turn / 15) * 15 * Math.PI) / 180;
        const pulled = (at[0] - from[0]) * Math.cos(along) + (at[1] - from[1]) * Math.sin(along);
        expect(Math.abs(apart(to, from) - pulled)).toBeLessThan(reach + 0.006);
      }),
    );
  });

  it('stands level with another end where it is drawn so far', () => {
    const drawn = snapInPlan({ at: [0.1, 5.93], walls: [walls[1]!], from: [0, 1], reach, free: false });
    expect(drawn.at).toEqual([0, 6]);
    expect(drawn.reason).toBe('90°, in line with the end of Wall b');
    expect(drawn.guide![0].map((figure) => Math.round(figure * 1e6) / 1e6)).toEqual([8, 6]);
  });

  it('is not drawn back to where it is drawn from', () => {
    const { at } = snapInPlan({ at: [0.15, 0.02], walls, from: [0, 0], reach, free: false });
    expect(at).not.toEqual([0, 0]);
  });

  it('held free is where the pointer is, to the millimetre', () => {
    fc.assert(
      fc.property(point, (at) => {
        const { at: to, reason } = snapInPlan({ at, walls, from: null, reach, free: true });
        expect(reason).toBeNull();
        expect(apart(to, at)).toBeLessThan(0.001);
      }),
    );
  });
});
