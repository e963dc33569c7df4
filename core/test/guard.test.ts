/** What nobody has foreseen: an element that fails shows its fault, and the rest of the model stands. */
import { describe, expect, it } from '@jest/globals';
import type { ProjectDocument } from '@yard-arch/document';
import { cutModel, prove, reportOn } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const document = project(
  [wall(), wall({ id: 'w2', name: 'Quay wall', start: { x: 20, y: 0, z: 0 } })],
  [opening('a', 'window', 1, 1), { ...opening('b', 'window', 1, 1), element: 'w2' }],
);

/** A value of which some field cannot be read. */
function broken<T extends object>(value: T, field: keyof T): T {
  return Object.defineProperty({ ...value }, field, {
    enumerable: true,
    get: () => {
      throw new Error('out of reach');
    },
  });
}

const spoiled = (over: Partial<ProjectDocument>): ProjectDocument => ({ ...document, ...over });

describe('a model', () => {
  it.each<[string, ProjectDocument]>([
    [
      'whose sheet cannot be made',
      spoiled({ elements: { ...document.elements, w2: broken(document.elements.w2!, 'layers') } }),
    ],
    [
      'whose texture cannot be read',
      spoiled({ elements: { ...document.elements, w2: broken(document.elements.w2!, 'mesh') } }),
    ],
  ])('stands but for an element %s', (_, bad) => {
    const model = cutModel(bad);
    expect(prove(model.cuts.get('w1')!.mesh)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
    expect(model.statuses.get('a')!.state).toBe('cut');
    const failed = model.cuts.get('w2')!;
    expect(failed.fault).toMatchObject({
      reason: expect.stringContaining('out of reach'),
      mend: expect.stringMatching(/Undo/),
    });
    expect(failed.mesh.triangles.length).toBe(0);
    expect(model.statuses.get('b')).toMatchObject({ state: 'not cut' });
    // The next edit is cut beside it.
    const moved = cutModel({ ...bad, openings: { ...bad.openings, a: opening('a', 'window', 2, 1) } }, model);
    expect(moved.statuses.get('a')!.state).toBe('cut');
  });

  it('stands but for an opening that cannot be placed', () => {
    const model = cutModel(spoiled({ openings: { ...document.openings, b: broken(document.openings.b!, 'grip') } }));
    expect(model.statuses.get('b')).toMatchObject({
      state: 'not cut',
      reason: expect.stringContaining('out of reach'),
    });
    expect([...model.cuts.values()].map(({ fault }) => fault)).toEqual([null, null]);
    expect(model.statuses.get('a')!.state).toBe('cut');
  });

  it('that is whole says so', () => {
    expect(reportOn(document, cutModel(document)).sound).toBe(true);
  });
});
