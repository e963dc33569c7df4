/** Datums and axes: whatever is done to them, openings move with them or stay where they stand, and every edit can be undone to the letter. */
import { describe, expect, it } from '@jest/globals';
import { datumsOn, resolveOpening, type Placed } from '@yard-arch/core';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import {
  addAxis,
  addDatum,
  addElement,
  confineDatum,
  heldTo,
  type Line,
  moveLine,
  removeElement,
  removeLine,
  renameLine,
  standOn,
} from '@yard-arch/edit';
import fc from 'fast-check';

const document = granary();
const after = (changeSet: ChangeSet, before = document): ProjectDocument => applyChangeSet(before, changeSet).document;
const places = (d: ProjectDocument): Map<string, [number, number]> =>
  new Map(
    Object.values(d.openings).map((opening) => {
      const { s, t } = resolveOpening(d, opening) as Placed;
      return [opening.id, [s, t]];
    }),
  );
const lines: Line[] = [
  ...Object.values(document.datums).map((datum): Line => ({ kind: 'datum', datum })),
  ...Object.values(document.axes).map((axis): Line => ({ kind: 'axis', axis })),
];

describe('a setting-out line', () => {
  it('takes what is held to it along, and nothing else', () => {
    fc.assert(
      fc.property(fc.constantFrom(...lines), fc.integer({ min: -900, max: 900 }), (line, by) => {
        const held = new Set(heldTo(document, line).map(({ id }) => id));
        const moved = places(
          after(moveLine(document, line, (line.kind === 'datum' ? line.datum.level : line.axis.along) + by / 1000)),
        );
        for (const [id, [s, t]] of places(document)) {
          const [x, y] = moved.get(id)!;
          const [ds, dt] = held.has(id) ? (line.kind === 'axis' ? [by / 1000, 0] : [0, by / 1000]) : [0, 0];
          expect(x).toBeCloseTo(s + ds, 9);
          expect(y).toBeCloseTo(t + dt, 9);
        }
      }),
      { numRuns: 40 },
    );
    expect(lines.some((line) => heldTo(document, line).length > 3)).toBe(true);
  });

  it('takes along the elements that stand on it, which stay where they are when it goes', () => {
    const datum = Object.values(document.datums).find(({ element }) => element === null)!;
    const line: Line = { kind: 'datum', datum };
    const [first, second] = Object.values(document.elements);
    const stood = after(standOn(document, first!, datum.id));
    expect(stood.elements[first!.id]!.start).toEqual({ ...first!.start, z: datum.level });
    const raised = after(moveLine(stood, line, datum.level + 0.35), stood);
    expect(raised.elements[first!.id]!.start.z).toBeCloseTo(datum.level + 0.35, 9);
    expect(raised.elements[second!.id]).toEqual(second);
    // Put above it by hand it keeps that much.
    const above = { ...raised.elements[first!.id]!, start: { ...first!.start, z: datum.level + 0.85 } };
    const put = { ...raised, elements: { ...raised.elements, [first!.id]: above } };
    const again = after(moveLine(put, { kind: 'datum', datum: put.datums[datum.id]! }, datum.level), put);
    expect(again.elements[first!.id]!.start.z).toBeCloseTo(datum.level + 0.5, 9);
    const gone = after(removeLine(stood, line), stood);
    expect(gone.elements[first!.id]).toEqual({ ...first!, start: { ...first!.start, z: datum.level } });
    expect(after(standOn(stood, stood.elements[first!.id]!, null), stood).elements[first!.id]!.stands).toBeUndefined();
    // One that stood on a datum of an element that is removed stands by itself.
    const own = {
      ...document,
      datums: { ...document.datums, own: { id: 'own', name: 'Own', level: 1, element: second!.id } },
      elements: { ...document.elements, [first!.id]: { ...first!, stands: 'own' } },
    };
    const without = after(removeElement(own, second!), own);
    expect(without.elements[first!.id]!.stands).toBeUndefined();
  });

  it('leaves everything where it stands when it is removed or confined to one wall', () => {
    for (const line of lines) {
      const removed = after(removeLine(document, line));
      expect(heldTo(removed, line)).toEqual([]);
      expect([...places(removed)].map(([id, p]) => [id, p.map((x) => x.toFixed(9))])).toEqual(
        [...places(document)].map(([id, p]) => [id, p.map((x) => x.toFixed(9))]),
      );
      if (line.kind !== 'datum') continue;
      const confined = after(confineDatum(document, line.datum, 'courtyard'));
      for (const [id, [s, t]] of places(confined)) {
        expect(s).toBeCloseTo(places(document).get(id)![0], 9);
        expect(t).toBeCloseTo(places(document).get(id)![1], 9);
      }
      expect(heldTo(confined, line).every((opening) => opening.element === 'courtyard')).toBe(true);
    }
  });

  it('is added where there is most room, under a name of its own', () => {
    const { courtyard } = document.elements;
    const { changeSet, id } = addDatum(document, courtyard!);
    const next = after(changeSet);
    expect(next.datums[id]).toMatchObject({ name: 'Datum 1', element: null });
    expect(new Set(Object.values(next.datums).map(({ level }) => level)).size).toBe(Object.keys(next.datums).length);
    let many = document;
    for (let i = 0; i < 22; i++) many = after(addAxis(many, courtyard!).changeSet, many);
    const names = Object.values(many.axes)
      .filter((axis) => axis.element === 'courtyard')
      .map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    expect(names).toContain('Z');
  });

  it('has no levels on a slab', () => {
    const { changeSet, id } = addElement(document, 'slab');
    const next = after(changeSet);
    expect(datumsOn(next, next.elements[id]!)).toEqual([]);
    expect(datumsOn(next, next.elements.courtyard!).length).toBeGreaterThan(2);
  });

  it.each(
    lines.slice(0, 6).flatMap((line): [string, ChangeSet][] => [
      ['move', moveLine(document, line, 2.25)],
      ['rename', renameLine(line, 'Plinth')],
      ['remove', removeLine(document, line)],
    ]),
  )('can be undone to the letter: %s', (_, changeSet) => {
    const { document: next, inverse } = applyChangeSet(document, changeSet);
    expect(next).not.toEqual(document);
    expect(applyChangeSet(next, inverse).document).toEqual(document);
  });
});
