/** Bays made of barrels, their bases, rows of them, and runs of openings about a dome. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { cutModel, prove } from '@yard-arch/core';
import { solidLibrary } from '@yard-arch/core/solid';
import { everyVault } from '@yard-arch/demo';
import { applyChangeSet, documentFaults, type Bay, type ProjectDocument, type Vault } from '@yard-arch/document';
import { aboutAxis, baseOf, bayOfBarrel, bayRows, changeElement, setBase } from '../src/index.ts';

const document = everyVault();
beforeAll(async () => {
  await solidLibrary();
});

const named = <T>(name: string, of: ProjectDocument = document): T =>
  Object.values(of.elements).find((element) => element.name === name) as T;
const sound = (of: ProjectDocument, id: string): number => {
  const cut = cutModel({ ...of, elements: { [id]: of.elements[id]! }, openings: {} }).cuts.get(id)!;
  expect(cut.fault).toBeNull();
  const proof = prove(cut.mesh);
  expect(proof.closed).toBe(true);
  return proof.volume;
};

describe('vaults', () => {
  it('of the document are sound, and all of it is as it may be', () => {
    expect(documentFaults(document).first).toEqual([]);
    const model = cutModel(document);
    for (const { mesh, fault } of model.cuts.values()) {
      expect(fault).toBeNull();
      expect(prove(mesh).closed).toBe(true);
    }
    for (const status of model.statuses.values()) expect(status.state).toBe('cut');
  });

  it('are made of a barrel, groin or cloister, over its own rectangle and undone again', () => {
    const barrel = named<Vault>('Barrel');
    for (const severies of ['groin', 'cloister'] as const) {
      const made = bayOfBarrel(document, barrel, severies);
      if ('reason' in made) throw new Error(made.reason);
      const { document: after, inverse } = applyChangeSet(document, made);
      const bay = after.elements[barrel.id] as Bay;
      expect(baseOf(bay)).toEqual({ over: 'rectangle', width: barrel.span, depth: barrel.length });
      sound(after, bay.id);
      expect(applyChangeSet(after, inverse).document).toEqual(document);
    }
  });

  it('stand over other bases, and in rows side by side that touch and do not overlap', () => {
    const bay = named<Bay>('Groin vault');
    const six = applyChangeSet(document, setBase(bay, { over: 'regular', sides: 6, long: 3 })).document;
    expect(baseOf(six.elements[bay.id] as Bay)).toEqual({ over: 'regular', sides: 6, long: 3 });
    const rows = bayRows(document, bay, 3, 2);
    if ('reason' in rows) throw new Error(rows.reason);
    const after = applyChangeSet(document, rows.changeSet).document;
    const group = Object.values(after.elements).filter((element) => element.group === bay.name);
    expect(group.map(({ start }) => [start.x - bay.start.x, start.y - bay.start.y]).sort()).toEqual(
      [
        [0, 0],
        [0, 5],
        [10, 0],
        [10, 5],
        [5, 0],
        [5, 5],
      ].sort(),
    );
    expect(bayRows(six, six.elements[bay.id] as Bay, 2, 1)).toMatchObject({ mend: /rectangle/ });
    expect(bayRows(document, bay, 1, 1)).toHaveProperty('reason');
  });

  it('of one side thicker than they are round say so, and come back', () => {
    const bay = named<Bay>('Groin vault');
    const high = applyChangeSet(document, changeElement<Bay>(bay, { rise: 3.4 }, 'raise')).document;
    const only = { ...high, elements: { [bay.id]: high.elements[bay.id]! }, openings: {} };
    expect(cutModel(only).cuts.get(bay.id)!.fault).toMatchObject({ code: 'no-vault' });
  });

  it('repeat an opening about the axis of a dome, or say why they would not fit', () => {
    const on = document.openings.o1!.element;
    const only: ProjectDocument = {
      ...document,
      elements: { [on]: document.elements[on]! },
      openings: { o1: document.openings.o1! },
    };
    const run = aboutAxis(only, only.openings.o1!, 6);
    if ('reason' in run) throw new Error(run.reason);
    const after = applyChangeSet(only, run.changeSet).document;
    const model = cutModel(after);
    expect([...model.statuses.values()].map(({ state }) => state)).toEqual(Array(6).fill('cut'));
    const { placed, sheet, mesh } = model.cuts.get(only.openings.o1!.element)!;
    const far = placed.map(({ s, t, profile }) =>
      Math.hypot(s + profile.width / 2 - sheet.length / 2, t + profile.height / 2 - sheet.height / 2),
    );
    for (const distance of far) expect(distance).toBeCloseTo(far[0]!, 6);
    expect(prove(mesh).closed).toBe(true);
    expect(aboutAxis(only, only.openings.o1!, 40)).toMatchObject({ reason: /run into one another/ });
  });
});
