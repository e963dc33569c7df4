/** Following the wall: every intent and grip, and that the distance asked back is the distance given. */
import { describe, expect, it } from '@jest/globals';
import type { Along, Grip, ProjectDocument, Up, Wall } from '@yard-arch/document';
import fc from 'fast-check';
import { alongAt, alongTo, gripOffset, pointAt, resolveOpening, upAt, upTo, type Placed } from '../src/index.ts';
import { opening, project, wall, sheetOf } from './sample.ts';

const lines: Partial<ProjectDocument> = {
  datums: { d: { id: 'd', name: 'First sill', level: 3, element: null } },
  axes: { x: { id: 'x', name: 'B', element: 'w1', along: 4 } },
};
const alongs: Along[] = [
  { from: 'start', distance: 0 },
  { from: 'middle', distance: 0 },
  { from: 'end', distance: 0 },
  { from: 'axis', axis: 'x', distance: 0 },
];
const ups: Up[] = [
  { from: 'base', distance: 0 },
  { from: 'top', distance: 0 },
  { from: 'datum', datum: 'd', distance: 0 },
];
const grips: Grip[] = (['left', 'centre', 'right'] as const).flatMap((across) =>
  (['sill', 'middle', 'head', 'springing'] as const).map((level) => ({ across, level })),
);

const anyWall = fc.record({
  length: fc.double({ min: 1, max: 50, noNaN: true }),
  height: fc.double({ min: 1, max: 20, noNaN: true }),
  z: fc.double({ min: -5, max: 5, noNaN: true }),
});
const made = ({ length, height, z }: { length: number; height: number; z: number }): Wall =>
  wall({ length, height, start: { x: 0, y: 0, z } });

describe('an intent', () => {
  it('asked for the distance to a place leads to that place', () => {
    fc.assert(
      fc.property(
        anyWall,
        fc.constantFrom(...alongs),
        fc.constantFrom(...ups),
        fc.double({ min: -10, max: 60, noNaN: true }),
        (size, along, up, at) => {
          const element = made(size);
          const document = project([element], [], lines);
          expect(alongAt(document, element, alongTo(document, element, along, { s: at }))).toBeCloseTo(at, 8);
          expect(upAt(document, element, upTo(document, element, up, { t: at }))).toBeCloseTo(at, 8);
        },
      ),
    );
  });

  it('keeps its distance from what it is measured from, whatever becomes of the wall', () => {
    fc.assert(
      fc.property(anyWall, anyWall, fc.double({ min: -2, max: 2, noNaN: true }), (before, after, distance) => {
        for (const along of alongs) {
          const intent = { ...along, distance };
          const [a, b] = [made(before), made(after)].map(
            (element) =>
              alongAt(project([element], [], lines), element, intent)! -
              alongAt(project([element], [], lines), element, along)!,
          );
          expect(a).toBeCloseTo(b!, 9);
        }
      }),
    );
  });

  it.each(grips)('held by its $level $across puts that point there', (grip) => {
    const document = project([wall()], [opening('a', 'arch', 2, 1.2, { grip })]);
    const placed = resolveOpening(document, document.openings.a!) as Placed;
    const [dx, dy] = gripOffset(placed.profile, grip);
    expect(placed.s + dx).toBeCloseTo(2, 9);
    expect(placed.t + dy).toBeCloseTo(1.2, 9);
  });

  it('to an axis or a datum that is gone says so, and what to do', () => {
    const document = project(
      [wall()],
      [
        opening('a', 'arch', 0, 0, { along: { from: 'axis', axis: 'gone', distance: 0 } }),
        opening('b', 'arch', 0, 0, { up: { from: 'datum', datum: 'gone', distance: 0 } }),
      ],
    );
    expect(resolveOpening(document, document.openings.a!)).toMatchObject({
      reason: expect.stringMatching(/axis .* removed/),
    });
    expect(resolveOpening(document, document.openings.b!)).toMatchObject({
      reason: expect.stringMatching(/datum .* removed/),
    });
  });
});

describe('a chart', () => {
  it('is square, of true length, and turned outward to the right of the wall’s way', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -360, max: 360, noNaN: true }),
        fc.double({ min: 0, max: 9, noNaN: true }),
        fc.double({ min: 0, max: 9, noNaN: true }),
        (turn, s, t) => {
          const { chart } = sheetOf(wall({ turn }));
          if (chart.kind !== 'flat') throw new Error('a straight wall has a flat chart');
          const { along, up, inward } = chart;
          const cross = [
            along[1] * up[2] - along[2] * up[1],
            along[2] * up[0] - along[0] * up[2],
            along[0] * up[1] - along[1] * up[0],
          ];
          cross.forEach((value, k) => expect(value).toBeCloseTo(-inward[k]!, 12));
          const [x, y, z] = pointAt(chart, s, t, 0);
          expect(Math.hypot(x, y)).toBeCloseTo(s, 9);
          expect(z).toBeCloseTo(t, 12);
        },
      ),
    );
  });

  it('is exact at quarter turns', () => {
    expect(pointAt(sheetOf(wall({ turn: 90 })).chart, 5, 2, 0.4)).toEqual([-0.4, 5, 2]);
    expect(pointAt(sheetOf(wall({ turn: -90 })).chart, 5, 2, 0.4)).toEqual([0.4, -5, 2]);
    expect(pointAt(sheetOf(wall({ turn: 180 })).chart, 5, 2, 0)).toEqual([-5, 0, 2]);
  });
});
