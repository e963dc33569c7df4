/** Faces all of whose openings change with their pattern: divided as they were before, and yet as they are from nothing. */
import { describe, expect, it } from '@jest/globals';
import { curvedFacade, facade, manyWindows } from '@yard-arch/demo';
import { withChanges, type Dimensions, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { cutModel, prove } from '../src/index.ts';

/** A project whose first pattern has a figure of its only size otherwise. */
function changed(document: ProjectDocument, figure: string, by: number): ProjectDocument {
  const [pattern] = Object.values(document.patterns);
  const [size] = Object.values(pattern!.sizes);
  const dimensions = {
    ...size!.dimensions,
    [figure]: size!.dimensions[figure as keyof Dimensions]! + by,
  } as Dimensions;
  const value: Pattern = { ...pattern!, sizes: { [size!.id]: { ...size!, dimensions } } };
  return withChanges(document, [{ op: 'put', table: 'patterns', value }]);
}

describe.each([
  ['an arcade', facade(160), 'span'],
  ['a curved arcade', curvedFacade(60), 'span'],
  ['a wall of windows', manyWindows(160), 'width'],
])('%s', (_, document, across) => {
  it.each([
    ['a little higher', 'height', 0.01],
    ['far higher', 'height', 0.6],
    ['lower', 'height', -0.4],
    ['wider', across, 0.3],
    ['narrower', across, -0.25],
  ])('%s is what is cut from nothing', (_, figure, by) => {
    const after = changed(document, figure, by);
    const again = cutModel(after, cutModel(document));
    const anew = cutModel(structuredClone(after));
    expect(again.cuts.size).toBeGreaterThan(0);
    for (const [id, { mesh }] of again.cuts) {
      const other = anew.cuts.get(id)!.mesh;
      for (const column of ['points', 'vertices', 'triangles', 'normals', 'uvs'] as const)
        expect(mesh[column]).toEqual(other[column]);
      expect(prove(mesh).closed).toBe(true);
    }
  });
});
