/** What single openings have otherwise: only they change, it is told, taken back, and made a pattern for all that are alike. */
import { describe, expect, it } from '@jest/globals';
import { cutModel } from '@yard-arch/core';
import { applyChangeSet, checkDocument, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { manyWindows } from '@yard-arch/demo';
import {
  override,
  overriddenAlike,
  ownIn,
  patternOfOverrides,
  shipped,
  takeBack,
  usesOfMaterial,
} from '../src/index.ts';

const applied = (document: ProjectDocument, changeSet: ChangeSet): ProjectDocument =>
  applyChangeSet(document, changeSet).document;

/** Four windows with all that is about them. */
function windows(): ProjectDocument {
  const document = manyWindows(4);
  document.patterns.casements = structuredClone(shipped.find(({ id }) => id === 'casements')!);
  return document;
}

const partsOf = (document: ProjectDocument, opening: string) =>
  cutModel(document)
    .cuts.get('wall')!
    .parts.filter((part) => part.opening === opening);
const materialsOf = (document: ProjectDocument, opening: string): Set<string> =>
  new Set(partsOf(document, opening).flatMap(({ part }) => part.mesh.runs.map(({ material }) => material)));

describe('overrides', () => {
  it('of parts, materials and handles change one opening, and no other', () => {
    const document = windows();
    const [first, second] = [document.openings.o1!, document.openings.o2!];
    const lintel = document.patterns.casements!.parts!.find(({ kind }) => kind === 'lintel')!;
    let next = applied(document, override(first, { without: [lintel.id] }, 'leave a part off'));
    next = applied(next, override(next.openings.o1!, { materials: { paint: 'green', glass: 'glass' } }, 'paint'));
    next = applied(next, override(next.openings.o1!, { handle: 'knob' }, 'change the handle of'));
    expect(next.openings.o1!.overrides).toEqual({
      without: [lintel.id],
      materials: { paint: 'green' },
      handle: 'knob',
    });
    expect(ownIn(next.openings.o1!)).toEqual(['parts that are off', 'materials', 'its handle']);
    expect(checkDocument(next)).toEqual(next);
    expect(usesOfMaterial(next, 'green')).toBe(usesOfMaterial(document, 'green') + 1);
    expect(partsOf(next, 'o1').some(({ part }) => part.name === 'lintel')).toBe(false);
    expect(partsOf(next, 'o2').some(({ part }) => part.name === 'lintel')).toBe(true);
    expect(materialsOf(next, 'o1').has('paint')).toBe(false);
    expect(materialsOf(next, 'o1').has('green')).toBe(true);
    expect(materialsOf(next, 'o2')).toEqual(materialsOf(document, 'o2'));
    // The wall has its room back where the lintel is off; its neighbour's parts are the very same meshes.
    expect(partsOf(next, 'o2').map(({ part }) => part.key)).toEqual(
      partsOf(document, second.id).map(({ part }) => part.key),
    );
  });

  it('leave the infill off, and are taken back', () => {
    const document = windows();
    const bare = applied(document, override(document.openings.o3!, { without: ['infill'] }, 'leave a part off'));
    expect(partsOf(bare, 'o3').some(({ part }) => part.name === 'infill' || part.name === 'leaf')).toBe(false);
    const back = applied(bare, takeBack(bare.openings.o3!));
    expect(back.openings.o3).toEqual(document.openings.o3);
    expect(ownIn(back.openings.o3!)).toEqual([]);
  });

  it('become a pattern, which all openings that are alike take', () => {
    const document = windows();
    let next = document;
    for (const id of ['o1', 'o4'])
      next = applied(next, override(next.openings[id]!, { materials: { paint: 'oak' } }, 'paint'));
    next = applied(next, override(next.openings.o2!, { handle: 'pull' }, 'change the handle of'));
    expect(overriddenAlike(next, next.openings.o1!).map(({ id }) => id)).toEqual(['o1', 'o4']);
    const { changeSet, id } = patternOfOverrides(next, next.openings.o1!);
    const made = applied(next, changeSet);
    expect(Object.values(made.openings).map(({ pattern }) => pattern)).toEqual([id, 'casements', 'casements', id]);
    expect(made.patterns[id]!.name).toBe('Pair of casements 2');
    expect(made.openings.o1!.overrides).toBeUndefined();
    expect(made.openings.o2!.overrides).toEqual({ handle: 'pull' });
    expect(materialsOf(made, 'o1')).toEqual(materialsOf(next, 'o1'));
    expect(checkDocument(made)).toEqual(made);
    expect(applied(made, applyChangeSet(next, changeSet).inverse)).toEqual(next);
  });

  it('name only materials that there are', () => {
    const document = windows();
    document.openings.o1!.overrides = { materials: { paint: 'gold' } };
    expect(() => checkDocument(document)).toThrow(/overrides\/materials\/paint/);
  });
});
