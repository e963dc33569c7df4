/** Outlines drawn by hand: arcs go on smoothly, what is closed is what was drawn, and what cannot be cut is told. */
import { describe, expect, it } from '@jest/globals';
import { bulgeTo, closedRing, drawnTo, onGrid, placeAt, takeOutline, type ByHand } from '../src/drawing/index.ts';
import fc from 'fast-check';

const drawn = (...places: [x: number, y: number, arc?: boolean][]): ByHand =>
  places.reduce<ByHand>((points, [x, y, arc]) => drawnTo(points, { x, y }, arc ?? false) ?? points, []);

const take = (points: ByHand, arc = false) =>
  takeOutline({ rings: [closedRing(points, arc)!], open: [] }, 0, 1, (metres) => `${metres} m`);

/** How far two directions are apart, radians. */
const apart = (a: number, b: number): number => Math.abs(Math.atan2(Math.sin(a - b), Math.cos(a - b)));

const place = fc.record({
  x: fc.double({ min: -3, max: 3, noNaN: true }),
  y: fc.double({ min: -3, max: 3, noNaN: true }),
});

describe('an outline drawn by hand', () => {
  it('has arcs that begin in the direction in which the edge before ended', () => {
    fc.assert(
      fc.property(place, place, place, fc.double({ min: -2, max: 2, noNaN: true }), (a, b, c, bulge) => {
        fc.pre(Math.hypot(b.x - a.x, b.y - a.y) > 0.01 && Math.hypot(c.x - b.x, c.y - b.y) > 0.01);
        const chord = Math.atan2(b.y - a.y, b.x - a.x);
        const ended = chord + 2 * Math.atan(bulge);
        const own = bulgeTo([{ ...a, bulge }, b], c);
        const begins = Math.atan2(c.y - b.y, c.x - b.x) - 2 * Math.atan(own);
        // An arc that would be nearly the whole circle stops short of that.
        const turn = 4 * Math.abs(Math.atan(own));
        expect(turn).toBeLessThanOrEqual((345.001 * Math.PI) / 180);
        if (turn < (344.9 * Math.PI) / 180) expect(apart(begins, ended)).toBeLessThan(1e-6);
      }),
    );
  });

  it('is a circle of two half arcs, a stadium of lines and arcs, and a rectangle of lines', () => {
    const circle = closedRing(drawn([0, 0], [1, 0, true]), true)!;
    expect(circle.outline).toHaveLength(2);
    expect(circle.box).toEqual([0, -0.5, 1, 0.5].map((value) => expect.closeTo(value, 9)));
    const stadium = take(drawn([0.5, 0], [2, 0], [2, 1, true], [0.5, 1]), true);
    expect(stadium).toMatchObject({ reason: null, width: expect.closeTo(2.5, 9), height: expect.closeTo(1, 9) });
    const box = take(drawn([3, 3], [4.2, 3], [4.2, 5], [3, 5]));
    expect(box).toMatchObject({ reason: null, width: expect.closeTo(1.2, 9), height: expect.closeTo(2, 9) });
    expect(box.outline[0]).toMatchObject({ x: 0, y: 0 });
  });

  it('tells where it crosses itself, and closes to nothing where it encloses nothing', () => {
    const crossed = take(drawn([0, 0], [2, 1.5], [2, 0], [0, 1]));
    expect(crossed.reason).toMatch(/cross/);
    expect(crossed.crossing).not.toBeNull();
    expect(closedRing(drawn([0, 0], [1, 0]), false)).toBeNull();
    expect(closedRing([], false)).toBeNull();
    expect(drawnTo(drawn([0, 0], [1, 0]), { x: 1, y: 0 }, false)).toBeNull();
  });

  it('is drawn on by lengths and directions, on a grid, and in line with what is there', () => {
    const points = drawn([0, 0], [1.2, 0]);
    expect(placeAt(points, 0.5, 90)).toEqual({ x: expect.closeTo(1.2, 9), y: expect.closeTo(0.5, 9) });
    expect(onGrid(points, { x: 0.4567, y: 0.7712 }, 0.02)).toEqual({ x: 0.46, y: 0.77 });
    expect(onGrid(points, { x: 1.213, y: -0.011 }, 0.02)).toEqual({ x: 1.2, y: 0 });
  });
});
