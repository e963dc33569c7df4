/** Roofs that are timed: planes over many sides, and a roof of twelve planes with many windows that stand clear. */
import { holdsPoint, sheetsOf, type Sheet } from '@yard-arch/core';
import { emptyDocument, kinds, likeEdges, type ProjectDocument } from '@yard-arch/document';

type Corner = readonly [x: number, y: number];

/** The corners of an outline of so many sides, in and out by turns. */
export function manySided(count: number): Corner[] {
  return Array.from({ length: count }, (_, i): Corner => {
    const angle = (2 * Math.PI * i) / count;
    const reach = i % 2 === 0 ? 14 : 10 + (i % 5);
    return [reach * Math.cos(angle), reach * Math.sin(angle)];
  });
}

const tee: Corner[] = [
  [3, 0],
  [27, 0],
  [30, 3],
  [30, 9],
  [27, 12],
  [20, 12],
  [20, 24],
  [17, 27],
  [13, 27],
  [10, 24],
  [10, 12],
  [0, 12],
];
const [wide, high, margin] = [0.3, 0.4, 0.1];

/** A roof of twelve planes with so many windows, in rows on its planes, all of them clear of its edges. */
export function windowedRoof(count: number): ProjectDocument {
  const document = emptyDocument('Quay hall');
  document.materials.slate = { id: 'slate', name: 'Slate', colour: '#69737c', roughness: 0.7 };
  document.elements.roof = {
    ...kinds.roof.fresh({ id: 'roof', name: 'Roof', start: { x: 0, y: 0, z: 6 }, turn: 0 }, 'slate'),
    edges: likeEdges(
      tee.map(([x, y]) => ({ x, y })),
      { pitch: 35, over: 0.4 },
    ),
  };
  document.patterns.light = {
    id: 'light',
    name: 'Roof light',
    profile: { shape: 'rectangle' },
    sizes: { a: { id: 'a', name: '', dimensions: { width: wide, height: high } } },
    reveal: { material: null },
  };
  let made = 0;
  const { planes } = sheetsOf(document).body('roof')!;
  for (const { sheet, face } of planes)
    for (let t = 0.4; t + high < sheet.height; t += 1.1)
      for (let s = 0.4; s + wide < sheet.length && made < count; s += 0.6) {
        if (!isClear(sheet, s, t)) continue;
        const id = `o${++made}`;
        document.openings[id] = {
          id,
          mark: `L-${made}`,
          element: 'roof',
          face,
          pattern: 'light',
          size: 'a',
          along: { from: 'start', distance: s },
          up: { from: 'base', distance: t },
          grip: { across: 'left', level: 'sill' },
          blockedUp: false,
        };
      }
  if (made < count) throw new Error(`There is room for ${made} windows only.`);
  return document;
}

/** Whether a window and what its reveal takes behind it lie within a plane. */
function isClear({ outline: { xs, ys, next }, thickness }: Sheet, s: number, t: number): boolean {
  const reach = 2 * thickness + margin;
  return [s - margin, s + wide + margin].every((x) =>
    [t - reach, t + high + reach].every((y) => holdsPoint({ count: xs.length, xs, ys, next }, x, y)),
  );
}
