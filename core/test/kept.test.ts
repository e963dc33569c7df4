/** What is kept from the cut before: after any edit the model is the one that is cut anew. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { cutModel, type Model } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';

beforeAll(async () => {
  await solidLibrary();
});

/** All that a model says, but for which of its objects are the same. */
const told = (model: Model): unknown =>
  [...model.cuts].map(([id, { mesh, parts, statuses, sheet }]) => ({
    id,
    fault: sheet.fault,
    points: mesh.points,
    triangles: mesh.triangles,
    normals: mesh.normals,
    uvs: mesh.uvs,
    runs: mesh.runs,
    parts: parts.map(({ part, ...instance }) => ({ ...instance, name: part.name, points: part.mesh.points })),
    statuses,
  }));

const withOpening = (document: ProjectDocument, id: string, change: Partial<Opening>): ProjectDocument => ({
  ...document,
  openings: { ...document.openings, [id]: { ...document.openings[id]!, ...change } },
});

/** Cuts a document after another, and compares that with cutting it alone. */
function expectAsAnew(before: ProjectDocument, after: ProjectDocument): Model {
  const kept = cutModel(after, cutModel(before));
  expect(told(kept)).toEqual(told(cutModel(after)));
  return kept;
}

describe('what is kept after an edit', () => {
  it('of a roof: the hole goes with its window to another plane at the same figures', () => {
    const document = granary();
    const roofs = Object.values(document.elements).filter(({ kind }) => kind === 'roof');
    let moved = 0;
    for (const { id } of roofs) {
      const faces = [
        ...new Set(
          Object.values(document.openings).flatMap(({ element, face }) => (element === id && face ? [face] : [])),
        ),
      ];
      const opening = Object.values(document.openings).find(({ element, face }) => element === id && face)!;
      for (const face of [...faces, `e0`, 'e1', 'e2', 'e3'] as Opening['face'][]) {
        if (!opening || face === opening.face) continue;
        expectAsAnew(document, withOpening(document, opening.id, { face }));
        moved += 1;
      }
    }
    expect(moved).toBeGreaterThan(2);
  });

  it('of a clash: it is told by the new mark after a renaming', () => {
    const document = granary();
    const [a, b] = [document.openings.o1, document.openings.o2];
    // So close that the bands about the two lie in each other.
    const beside = (id: string, distance: number) => withOpening(document, id, { along: { from: 'start', distance } });
    const close = { ...document, openings: { ...beside('o1', 2).openings, o2: beside('o2', 3.13).openings.o2! } };
    const before = cutModel(close);
    const reasons = (model: Model): string => JSON.stringify(model.statuses.get(a!.id)!.findings);
    expect(reasons(before) + JSON.stringify(before.statuses.get(b!.id)!.findings)).toContain('runs into');
    const kept = expectAsAnew(
      close,
      withOpening(withOpening(close, a!.id, { mark: 'NEW-1' }), b!.id, { mark: 'NEW-2' }),
    );
    expect(reasons(kept) + JSON.stringify(kept.statuses.get(b!.id)!.findings)).toMatch(/NEW-[12]/);
  });

  it('of leaves that are opened: the hole is the very same, and its parts are others', () => {
    const document = granary();
    const before = cutModel(document);
    const id = [...before.cuts]
      .flatMap(([, { parts }]) => parts)
      .find(({ part }) => part.name.includes('leaf'))!.opening;
    const after = withOpening(document, id, { open: 33 });
    const kept = cutModel(after, before);
    const { element } = document.openings[id]!;
    expect(kept.cuts.get(element)!.mesh).toBe(before.cuts.get(element)!.mesh);
    expect(told(kept)).toEqual(told(cutModel(after)));
  });
});
