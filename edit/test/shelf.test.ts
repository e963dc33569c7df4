/** Patterns that ship, and the shelf: taken in with their materials, told apart, followed and let go; in every size all of them can be built. */
import { describe, expect, it } from '@jest/globals';
import { prove, studyOf } from '@yard-arch/core';
import {
  applyChangeSet,
  checkDocument,
  emptyDocument,
  profileShapes,
  readPatternFile,
  type ChangeSet,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import {
  cutTie,
  fieldAt,
  fileOf,
  followShelf,
  materialsIn,
  shelfDifference,
  shipped,
  shippedMaterials,
  takeIn,
  takeShipped,
  tie,
  withAt,
} from '../src/index.ts';

const applied = (document: ProjectDocument, changeSet: ChangeSet): ProjectDocument =>
  applyChangeSet(document, changeSet).document;
const project = (): ProjectDocument => emptyDocument('Chapel');
const arch = shipped.find(({ id }) => id === 'fanlight')!;
const item = '6f6f6f6f-1111-4222-8333-444444444444';

describe('shipped patterns', () => {
  it('are of every profile, each with a name and tags of its own', () => {
    expect(shipped.length).toBeGreaterThanOrEqual(36);
    expect(new Set(shipped.map(({ name }) => name)).size).toBe(shipped.length);
    const shapes = new Set(shipped.map(({ profile }) => profile.shape));
    expect(Object.keys(profileShapes).filter((shape) => !shapes.has(shape as never))).toEqual([]);
    for (const pattern of shipped)
      for (const id of materialsIn(pattern))
        expect([pattern.id, id, id in shippedMaterials]).toEqual([pattern.id, id, true]);
  });

  it.each(shipped.map((pattern) => [pattern.id, pattern] as const))(
    '%s is built whole in all its sizes',
    (_, pattern) => {
      const document = { ...project(), materials: shippedMaterials, patterns: { [pattern.id]: pattern } };
      for (const size of Object.values(pattern.sizes)) {
        const study = studyOf({ document, pattern, size, layers: [{ thickness: 0.35, material: 'brick' }] });
        if (!('cut' in study)) throw new Error(study.reason);
        expect([size.id, study.reason]).toEqual([size.id, null]);
        expect(prove(study.cut.mesh).closed).toBe(true);
        for (const { part } of study.cut.parts) expect([part.name, prove(part.mesh).closed]).toEqual([part.name, true]);
      }
    },
  );

  it('come with their materials, those that the project has by name being its own', () => {
    const own = project();
    own.materials.pane = { ...shippedMaterials.glass!, id: 'pane', name: 'GLASS' };
    const { changeSet, id } = takeShipped(own, arch);
    const next = applied(own, changeSet);
    expect(checkDocument(next)).toEqual(next);
    expect(JSON.stringify(next.patterns[id]!.infill)).toContain('"material":"pane"');
    expect(next.materials.glass).toBeUndefined();
    // A second one of the name is told apart, and brings nothing again.
    const again = takeShipped(next, arch);
    const twice = applied(next, again.changeSet);
    expect(twice.patterns[again.id]!.name).toBe('Granary arch 2');
    expect(Object.keys(twice.materials)).toEqual(Object.keys(next.materials));
    expect(applied(next, applyChangeSet(own, changeSet).inverse)).toEqual(own);
  });
});

describe('the shelf', () => {
  const filled = (): { document: ProjectDocument; pattern: Pattern } => {
    const { changeSet, id } = takeShipped(project(), arch);
    const document = applied(project(), changeSet);
    return { document, pattern: document.patterns[id]! };
  };

  it('tells what following it would change, and does just that', () => {
    const { document, pattern } = filled();
    const file = readPatternFile(JSON.parse(JSON.stringify(fileOf(document, pattern))));
    const tied = applied(document, tie(pattern, { id: item, revision: 1 }));
    const mine = tied.patterns[pattern.id]!;
    expect(shelfDifference(tied, mine, { id: item, revision: 1, file })).toEqual([]);
    const size = Object.values(file.pattern.sizes)[0]!;
    const newer = {
      ...file,
      pattern: {
        ...file.pattern,
        infill: { ...file.pattern.infill!, gap: 0.01 },
        parts: [],
        sizes: {
          ...file.pattern.sizes,
          [size.id]: { ...size, dimensions: { ...size.dimensions, height: 2.3 } },
          more: { ...size, id: 'more', name: 'Tall', dimensions: { ...size.dimensions, height: 3 } },
        },
      },
      materials: { ...file.materials },
    };
    const kept = { id: item, revision: 4, file: newer };
    expect(shelfDifference(tied, mine, kept)).toEqual([
      'its infill',
      'the parts about it',
      expect.stringMatching(/1.300 × 2.100 becomes 1.300 × 2.300/),
      'a size more: Tall',
    ]);
    const after = applied(tied, followShelf(tied, mine, kept)).patterns[mine.id]!;
    expect(after).toMatchObject({ name: mine.name, infill: { gap: 0.01 }, shelf: { item, revision: 4 } });
    expect(Object.keys(after.sizes)).toEqual([...Object.keys(mine.sizes), 'more']);
    expect(applied(tied, cutTie(mine)).patterns[mine.id]!.shelf).toBeUndefined();
  });

  it('gives a pattern to another project under a name that is free there', () => {
    const { document, pattern } = filled();
    const { changeSet, id } = takeIn(document, fileOf(document, pattern), { id: item, revision: 2 });
    const next = applied(document, changeSet);
    expect(next.patterns[id]).toMatchObject({ name: 'Granary arch 2', shelf: { item, revision: 2 } });
    expect(fileOf(next, next.patterns[id]!).pattern.shelf).toBeUndefined();
    expect(checkDocument(next)).toEqual(next);
  });
});

describe('paths in an infill', () => {
  it('lead to fields, and put others there', () => {
    const infill = arch.infill!;
    expect(fieldAt(infill, 'field')!.kind).toBe('divided');
    expect(fieldAt(infill, 'field/fields/1')!.kind).toBe('fan');
    expect(fieldAt(infill, 'field/fields/7/field')).toBeNull();
    const next = withAt(infill, 'field/fields/1', { kind: 'empty' });
    expect(fieldAt(next, 'field/fields/1')).toEqual({ kind: 'empty' });
    expect(fieldAt(next, 'field/fields/0')).toBe(fieldAt(infill, 'field/fields/0'));
    expect(withAt(infill, 'frame/width', 0.1).frame).toEqual({ ...infill.frame, width: 0.1 });
  });
});
