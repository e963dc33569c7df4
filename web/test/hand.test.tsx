/**
 * An outline drawn by hand, without a board: by places and by typed edges, taken back, and closed to what it encloses.
 * @jest-environment jsdom
 */
import { describe, expect, it } from '@jest/globals';
import { act, renderHook } from '@testing-library/react';
import fc from 'fast-check';
import { drawTyped, useHand, type Hand } from '../src/fields/hand.ts';
import { typedEdge } from '../src/fields/typed-edge.ts';

/** A hand, and what it is now. */
function drawing(): { now: () => Hand; does: (what: (hand: Hand) => void) => void } {
  const { result } = renderHook(useHand);
  return { now: () => result.current, does: (what) => act(() => what(result.current)) };
}

const area = (points: readonly { x: number; y: number }[]): number =>
  points.reduce((sum, a, i) => {
    const b = points[(i + 1) % points.length]!;
    return sum + (a.x * b.y - b.x * a.y) / 2;
  }, 0);

describe('an outline drawn by hand', () => {
  it('has edges as long and in such directions as they are typed', () => {
    const edge = fc.tuple(fc.integer({ min: 20, max: 4000 }), fc.integer({ min: -180, max: 180 }));
    fc.assert(
      fc.property(fc.array(edge, { minLength: 1, maxLength: 8 }), (edges) => {
        const { now, does } = drawing();
        does((hand) => hand.to({ x: 0, y: 0 }));
        for (const [length, degrees] of edges)
          does((hand) => expect(drawTyped(`${length}; ${degrees}°`, hand, 'mm')).toBeNull());
        const { points } = now();
        expect(points).toHaveLength(edges.length + 1);
        edges.forEach(([length, degrees], i) => {
          const [dx, dy] = [points[i + 1]!.x - points[i]!.x, points[i + 1]!.y - points[i]!.y];
          expect(Math.hypot(dx, dy)).toBeCloseTo(length / 1000, 9);
          expect(Math.cos(Math.atan2(dy, dx) - (degrees * Math.PI) / 180)).toBeCloseTo(1, 9);
        });
      }),
      { numRuns: 40 },
    );
  });

  it('encloses what its corners enclose once it is closed, and is drawn no further then', () => {
    const corner = fc.tuple(fc.integer({ min: 300, max: 3000 }), fc.double({ min: 0, max: 0.9, noNaN: true }));
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 9 }), (corners) => {
        const { now, does } = drawing();
        // About a middle, one after the other, so that it never crosses itself.
        const spots = corners.map(([far, share], i) => {
          const angle = (2 * Math.PI * (i + share)) / corners.length;
          return { x: (far / 1000) * Math.cos(angle), y: (far / 1000) * Math.sin(angle) };
        });
        for (const spot of spots) does((hand) => hand.to(spot));
        does((hand) => hand.close());
        const { closed } = now();
        const expected = Math.abs(area(spots));
        if (expected < 1e-3 || !closed) return;
        expect(closed.area).toBeCloseTo(expected, 9);
        does((hand) => hand.to({ x: 9, y: 9 }));
        expect(now().points).toHaveLength(spots.length);
      }),
      { numRuns: 60 },
    );
  });

  it('with an arc first is half a circle, which goes on smoothly', () => {
    const { now, does } = drawing();
    does((hand) => hand.to({ x: 0, y: 0 }));
    does((hand) => hand.setArc(true));
    does((hand) => hand.to({ x: 2, y: 0 }));
    expect(now().points[0]).toEqual({ x: 0, y: 0, bulge: 1 });
    does((hand) => hand.to({ x: 3, y: 1 }));
    // The first arc ends upright: a quarter to the right goes on from there.
    expect(now().points[1]!.bulge).toBeCloseTo(-Math.tan(Math.PI / 8), 9);
    // Straight up there is no arc.
    does((hand) => hand.back());
    does((hand) => hand.to({ x: 2, y: 2 }));
    expect(now().points[1]!.bulge).toBeUndefined();
    does((hand) => hand.setArc(false));
    does((hand) => hand.close());
    expect(now().closed).not.toBeNull();
  });

  it('is taken back step by step: first that it is closed, then its last edge', () => {
    const { now, does } = drawing();
    for (const [x, y] of [
      [0, 0],
      [1, 0],
      [1, 1],
    ] as const)
      does((hand) => hand.to({ x, y }));
    // The same place again is no edge.
    does((hand) => hand.to({ x: 1, y: 1 }));
    expect(now().points).toHaveLength(3);
    does((hand) => hand.close());
    expect(now().closed).not.toBeNull();
    does((hand) => hand.back());
    expect(now().closed).toBeNull();
    does((hand) => hand.back());
    expect(now().points).toEqual([
      { x: 0, y: 0 },
      { x: 1, y: 0 },
    ]);
    does((hand) => hand.back());
    does((hand) => hand.back());
    does((hand) => hand.back());
    expect(now().points).toEqual([]);
    does((hand) => hand.close());
    expect(now().closed).toBeNull();
  });
});

describe('an edge as it is typed', () => {
  it('goes where the pointer is, in steps of 15°, unless a direction is typed', () => {
    fc.assert(
      fc.property(fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }), (towards) => {
        const edge = typedEdge('1.4 m', 'mm', towards) as { length: number; degrees: number };
        expect(edge.length).toBeCloseTo(1.4, 12);
        expect(Math.abs(edge.degrees % 15)).toBe(0);
        expect(Math.abs(edge.degrees - (towards * 180) / Math.PI)).toBeLessThanOrEqual(7.5 + 1e-9);
        expect(typedEdge('1400; −90', 'mm', towards)).toEqual({ length: 1.4, degrees: -90 });
        expect(typedEdge('1400; 22,5°', 'mm', towards)).toEqual({ length: 1.4, degrees: 22.5 });
      }),
    );
  });

  it('says what to type where it is none', () => {
    for (const text of ['', 'x', '-5', '0', '; 90']) expect(typedEdge(text, 'mm', 0)).toMatch(/^Type a length/);
    for (const text of ['5; up', '5; 1;2x'.replace(';2x', 'x')]) expect(typedEdge(text, 'mm', 0)).toMatch(/direction/);
  });
});
