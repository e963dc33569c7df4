/** Made-up documents for tests: walls with openings, by hand and at random. */
import {
  emptyDocument,
  firstChoice,
  firstDimensions,
  profileShapes,
  type Element,
  type Opening,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Top,
  type Wall,
} from '@yard-arch/document';
import { expect } from '@jest/globals';
import fc from 'fast-check';
import { isDeepStrictEqual } from 'node:util';
import { sheetsOf, type CutMesh, type Fineness, type Sheet } from '../src/index.ts';

export function wall(over: Partial<Wall> = {}): Wall {
  return {
    id: 'w1',
    kind: 'wall',
    name: 'Courtyard wall',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: 6,
    height: 4,
    top: { kind: 'level' },
    layers: [{ thickness: 0.4, material: 'brick' }],
    ...over,
  };
}

export const patterns: Record<string, Pattern> = {
  window: {
    id: 'window',
    name: 'Loft light',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '1200 × 1500', dimensions: { width: 1.2, height: 1.5 } } },
    reveal: { material: null },
  },
  oculus: {
    id: 'oculus',
    name: 'Oculus',
    profile: { shape: 'circle' },
    sizes: { a: { id: 'a', name: '900', dimensions: { diameter: 0.9 } } },
    reveal: { material: null },
  },
  arch: {
    id: 'arch',
    name: 'Cart arch',
    profile: { shape: 'semicircular-arch' },
    sizes: { a: { id: 'a', name: '1500 × 2250', dimensions: { span: 1.5, height: 2.25 } } },
    reveal: { material: 'stone' },
  },
};

export function opening(id: string, pattern: string, s: number, t: number, over: Partial<Opening> = {}): Opening {
  return {
    id,
    mark: id.toUpperCase(),
    element: 'w1',
    pattern,
    size: 'a',
    along: { from: 'start', distance: s },
    up: { from: 'base', distance: t },
    grip: { across: 'left', level: 'sill' },
    blockedUp: false,
    ...over,
  };
}

export function project(
  walls: readonly Element[],
  openings: readonly Opening[] = [],
  more: Partial<ProjectDocument> = {},
): ProjectDocument {
  return {
    ...emptyDocument('Fennel Quay Granary'),
    elements: Object.fromEntries(walls.map((w) => [w.id, w])),
    patterns,
    openings: Object.fromEntries(openings.map((o) => [o.id, o])),
    materials: {
      brick: { id: 'brick', name: 'Brick', colour: '#c58562', roughness: 0.9 },
      stone: { id: 'stone', name: 'Stone', colour: '#d8cfba', roughness: 0.8 },
    },
    ...more,
  };
}

/** Lengths on a coarse grid now and off it now, so that edges often coincide and often just miss. */
function length(min: number, max: number): fc.Arbitrary<number> {
  return fc.oneof(
    fc.integer({ min: Math.ceil(min * 4), max: Math.floor(max * 4) }).map((n) => n / 4),
    fc.double({ min, max, noNaN: true }),
  );
}

/** A random project of one wall, of one to three layers, and up to a dozen openings on, off and over it, in sizes of their own. */
export const anyProject: fc.Arbitrary<ProjectDocument> = fc
  .record({
    length: length(0.5, 12),
    height: length(0.5, 6),
    turn: fc.oneof(fc.constantFrom(0, 90, 180, 270, -45), fc.double({ min: -360, max: 360, noNaN: true })),
    x: length(-50, 50),
    y: length(-50, 50),
    z: length(-3, 3),
    top: fc.oneof(
      fc.constant<Top>({ kind: 'level' }),
      length(0.5, 8).map((end): Top => ({ kind: 'raked', end })),
      fc
        .record({ apex: length(0.5, 8), at: fc.constantFrom(0.25, 0.5, 0.9) })
        .map((gable): Top => ({ kind: 'gabled', ...gable })),
      fc
        .array(fc.record({ at: fc.constantFrom(0.2, 0.25, 0.5, 0.75), height: length(0.5, 8) }), {
          minLength: 1,
          maxLength: 4,
        })
        .map((steps): Top => ({ kind: 'stepped', steps })),
    ),
    layers: fc.array(length(0.25, 0.5), { minLength: 1, maxLength: 3 }),
    openings: fc.array(
      fc.record({
        shape: fc.oneof(
          { weight: 2, arbitrary: fc.constantFrom('window', 'oculus', 'arch') },
          fc.constantFrom(...(Object.keys(profileShapes) as ProfileShape[])),
        ),
        s: length(-1, 12),
        t: fc.oneof(fc.constant(0), length(-1, 6)),
        width: length(0.25, 3),
        height: length(0.25, 3),
        blockedUp: fc.boolean(),
      }),
      { maxLength: 12 },
    ),
  })
  .map(({ layers, openings, x, y, z, ...rest }) => {
    const made: Record<string, Pattern> = {};
    const placed = openings.map((o, i) => {
      const [shape, dimensions] = sized(o.shape, o.width, o.height);
      made[`p${i}`] = {
        ...patterns.window!,
        id: `p${i}`,
        profile: firstChoice(shape),
        sizes: { a: { id: 'a', name: 'a', dimensions } },
      };
      return opening(`o${i}`, `p${i}`, o.s, o.t, { blockedUp: o.blockedUp && i % 4 === 0 });
    });
    return {
      ...project(
        [wall({ ...rest, start: { x, y, z }, layers: layers.map((thickness) => ({ thickness, material: 'brick' })) })],
        placed,
      ),
      patterns: made,
    };
  });

/** A shape with dimensions about as large as asked; other shapes than the first three are their first size, scaled. */
function sized(shape: string, width: number, height: number): [ProfileShape, Record<string, number>] {
  if (shape === 'window') return ['rectangle', { width, height }];
  if (shape === 'oculus') return ['circle', { diameter: width }];
  if (shape === 'arch') return ['semicircular-arch', { span: width, height: width / 2 + height }];
  const first = firstDimensions(shape as ProfileShape);
  return [
    shape as ProfileShape,
    Object.fromEntries(Object.entries(first).map(([name, value]) => [name, value * width])),
  ];
}

/** The sheet of an element that stands by itself. */
export const sheetOf = (element: Element, fineness?: Fineness): Sheet =>
  sheetsOf({ ...emptyDocument('Alone'), elements: { [element.id]: element } }, fineness).of(element.id)!;

/**
 * Whether two meshes are the very same, figure for figure. Node compares arrays of figures a hundred times faster than a matcher does, which
 * is left to tell how they differ.
 */
export function expectSameMesh(mesh: CutMesh, other: CutMesh): void {
  if (!isDeepStrictEqual(mesh, other)) expect(mesh).toEqual(other);
}
