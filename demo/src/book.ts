/** Every shipped pattern once, in walls of the quay's yard; and one wall of as many filled windows as are asked for. */
import { emptyDocument, omit, type Opening, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { profileOf, isImpossible } from '@yard-arch/core';
import { shipped, shippedMaterials } from '@yard-arch/edit';

/** How far apart openings stand, and how high walls are; metres. */
const [between, wallHeight, wallLength] = [1.5, 4.6, 22];

/** Makes the document of all shipped patterns, each in its first size. */
export function book(): ProjectDocument {
  const document = emptyDocument('Fennel Quay, every pattern');
  document.materials = structuredClone(shippedMaterials);
  let [row, from] = [0, between];
  let wall = addWall(document, row);
  shipped.forEach((pattern, i) => {
    const width = widthOf(pattern);
    if (from + width + between > wallLength) {
      wall = addWall(document, (row += 1));
      from = between;
    }
    document.patterns[pattern.id] = structuredClone(pattern);
    document.openings[`o${i + 1}`] = opening(`o${i + 1}`, `Q-${String(i + 1).padStart(2, '0')}`, wall, {
      pattern,
      along: from + width / 2,
    });
    from += width + between;
  });
  return document;
}

function widthOf(pattern: Pattern): number {
  const profile = profileOf(pattern.profile, Object.values(pattern.sizes)[0]!.dimensions);
  return isImpossible(profile) ? 1 : profile.width;
}

function addWall(document: ProjectDocument, row: number): string {
  const id = `row${row + 1}`;
  document.elements[id] = {
    id,
    kind: 'wall',
    name: `Yard wall ${row + 1}`,
    start: { x: 0, y: 0 - 6 * row, z: 0 },
    turn: 0,
    length: wallLength,
    height: wallHeight,
    top: { kind: 'level' },
    layers: [{ thickness: 0.35, material: 'brick' }],
  };
  return id;
}

function opening(
  id: string,
  mark: string,
  element: string,
  { pattern, along }: { pattern: Pattern; along: number },
): Opening {
  return {
    id,
    mark,
    element,
    pattern: pattern.id,
    size: 's1',
    along: { from: 'start', distance: Math.round(along * 1000) / 1000 },
    up: { from: 'base', distance: pattern.onFloor ? 0 : 0.9 },
    grip: { across: 'centre', level: 'sill' },
    blockedUp: false,
  };
}

/** A wall of so many windows that are alike, casements and all, in rows of four times as many columns. */
export function manyWindows(count: number): ProjectDocument {
  const pattern = shipped.find(({ id }) => id === 'casements')!;
  const plain = omit(structuredClone(pattern), 'parts');
  const document = emptyDocument(`${count} windows`);
  document.materials = structuredClone(shippedMaterials);
  document.patterns = { casements: plain };
  const columns = Math.ceil(Math.sqrt(count * 4));
  document.elements.wall = {
    id: 'wall',
    kind: 'wall',
    name: 'Quay front',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: 2.2 * columns,
    height: 2.6 * Math.ceil(count / columns) + 0.4,
    top: { kind: 'level' },
    layers: [{ thickness: 0.35, material: 'brick' }],
  };
  for (let i = 0; i < count; i++) {
    const id = `o${i + 1}`;
    document.openings[id] = {
      ...opening(id, `W-${i + 1}`, 'wall', { pattern, along: 1.1 + 2.2 * (i % columns) }),
      up: { from: 'base', distance: 0.9 + 2.6 * Math.floor(i / columns) },
    };
  }
  return document;
}
