/** Splitting elements: one side kept or both as two, openings with their side, all of it undone; and by script. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { cutModel, otherSide, prove, splitInSpace, splitOn, type Model } from '@yard-arch/core';
import { solidLibrary } from '@yard-arch/core/solid';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, type ProjectDocument, type Split } from '@yard-arch/document';
import fc from 'fast-check';
import { alterSplit, doScript, reverse, splitElement } from '../src/index.ts';

const document = granary();
let before: Model;
beforeAll(async () => {
  await solidLibrary();
  before = cutModel(document);
}, 60_000);

const named = (name: string, of: ProjectDocument = document) =>
  Object.values(of.elements).find((element) => element.name === name)!;
const volume = (model: Model, id: string): number => prove(model.cuts.get(id)!.mesh).volume;

function done(result: ReturnType<typeof splitElement>, of = document): { after: ProjectDocument; id: string | null } {
  if ('reason' in result) throw new Error(result.reason);
  const { document: after, inverse } = applyChangeSet(of, result.changeSet);
  expect(applyChangeSet(after, inverse).document).toEqual(of);
  return { after, id: result.id };
}

describe('splitting elements', () => {
  it('makes two of a wall along a line, whose openings stay on their side and in their place', () => {
    const wall = named('Courtyard wall');
    const split: Split = {
      path: [
        { x: 9.1, y: -30 },
        { x: 9.1, y: 40 },
      ],
    };
    const { after, id } = done(splitElement(document, wall, split, 'both'));
    const model = cutModel(after);
    expect(volume(model, wall.id) + volume(model, id!)).toBeCloseTo(volume(before, wall.id), 5);
    for (const cut of [model.cuts.get(wall.id)!, model.cuts.get(id!)!]) {
      expect(cut.fault).toBeNull();
      expect(prove(cut.mesh).closed).toBe(true);
    }
    const places = (of: Model, ids: string[]) =>
      new Map(
        ids.flatMap((one) => of.cuts.get(one)!.placed.map(({ id: opening, s, t }) => [opening, [s, t]] as const)),
      );
    const [was, is] = [places(before, [wall.id]), places(model, [wall.id, id!])];
    for (const [opening, [s, t]] of was) {
      expect(is.get(opening)![0]).toBeCloseTo(s!, 6);
      expect(is.get(opening)![1]).toBeCloseTo(t!, 6);
    }
    const sides = [wall.id, id!].map((one) => Object.values(after.openings).filter(({ element }) => element === one));
    expect(sides.every((side) => side.length > 0)).toBe(true);
    for (const side of sides)
      for (const { id: opening } of side) expect(model.statuses.get(opening)!.state).not.toBe('not cut');
  });

  it('takes along what is set out from inside, where it is counted from the other end', () => {
    const wall = named('Courtyard wall');
    const window = Object.values(document.openings).find(({ element }) => element === wall.id)!;
    // Two metres from the inner corner at the wall's end, on the right of the line.
    const inside = {
      ...window,
      id: 'inside',
      mark: 'I-1',
      face: 'inner',
      along: { from: 'start' as const, distance: 2 },
    };
    const only = { ...document, openings: { inside } };
    const line: Split = {
      path: [
        { x: 9.1, y: -30 },
        { x: 9.1, y: 40 },
      ],
    };
    const { after, id } = done(splitElement(only, wall, line, 'both'), only);
    expect(after.openings.inside!.element).toBe(id);
    expect(cutModel(after).statuses.get('inside')!.state).not.toBe('not cut');
  });

  it('keeps one side of a roof, says which openings are gone with the other, and gives them back with the split taken away', () => {
    const roof = named('Main roof');
    const middle = 0.5 * (document.elements[roof.id]!.start.x + 21);
    const split: Split = {
      path: [
        { x: middle, y: -50 },
        { x: middle, y: 50 },
      ],
      material: Object.keys(document.materials)[0]!,
    };
    const [left, right] = (['this', 'other'] as const).map(
      (keep) => done(splitElement(document, roof, split, keep)).after,
    );
    const [one, other] = [cutModel(left!), cutModel(right!)];
    expect(volume(one, roof.id) + volume(other, roof.id)).toBeCloseTo(volume(before, roof.id), 4);
    const off = (model: Model) =>
      [...model.statuses.values()].filter(({ findings }) => findings.some(({ code }) => code === 'parted-off')).length;
    expect(off(one) + off(other)).toBeGreaterThan(0);
    const back = applyChangeSet(left!, alterSplit(left!.elements[roof.id]!, 0, undefined)).document;
    expect(back).toEqual(document);
  });

  it('lets what lies across be cut in both, and tells of it; a sloping plane and a chain too', () => {
    const wall = named('Courtyard wall');
    const arch = document.openings.o4!;
    const at = before.cuts.get(wall.id)!.placed.find(({ id }) => id === arch.id)!;
    const x = wall.start.x + at.s + at.profile.width / 2;
    const { after, id } = done(
      splitElement(document, wall, { at: { x, y: wall.start.y, z: 0 }, turn: 180, tilt: 12 }, 'both'),
    );
    const model = cutModel(after);
    expect(model.statuses.get(arch.id)!.findings.map(({ code }) => code)).toContain('across-split');
    expect(volume(model, wall.id) + volume(model, id!)).toBeCloseTo(volume(before, wall.id), 5);
    const chain = {
      path: [
        { x: x - 3, y: -9 },
        { x: x - 3, y: 0.2 },
        { x: x + 2, y: 0.3 },
        { x: x + 2, y: 9 },
      ],
    };
    const halves = done(splitElement(document, wall, chain, 'both'));
    const both = cutModel(halves.after);
    expect(volume(both, wall.id) + volume(both, halves.id!)).toBeCloseTo(volume(before, wall.id), 5);
  });

  it('refuses a path that crosses itself, and tells where nothing is left', () => {
    const wall = named('Gate wall');
    const crossing = {
      path: [
        { x: 0, y: 0 },
        { x: 4, y: 0 },
        { x: 4, y: 4 },
        { x: 2, y: -2 },
      ],
    };
    expect(splitElement(document, wall, crossing, 'this')).toMatchObject({ reason: /crosses itself/ });
    const beside: Split = { at: { x: wall.start.x, y: wall.start.y, z: -5 }, turn: 0, tilt: -90 };
    const { after } = done(splitElement(document, wall, beside, 'this'));
    const cut = cutModel(after).cuts.get(wall.id)!;
    expect(cut.fault).toMatchObject({ code: 'split-away' });
    expect(cut.mesh.triangles).toHaveLength(0);
  });

  it('stays where it is when its wall is reversed, and is told the same way there and back', () => {
    const wall = named('Gate wall');
    const split: Split = {
      path: [
        { x: wall.start.x + 1, y: wall.start.y - 2 },
        { x: wall.start.x + 1.4, y: wall.start.y + 2 },
      ],
    };
    const { after } = done(splitElement(document, wall, split, 'this'));
    const once = cutModel(after);
    const turned = reverse(after, after.elements[wall.id] as never);
    if ('reason' in turned) throw new Error(turned.reason);
    const again = cutModel(applyChangeSet(after, turned).document);
    expect(volume(again, wall.id)).toBeCloseTo(volume(once, wall.id), 4);
    const figure = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(figure, figure, figure, fc.double({ min: -180, max: 180, noNaN: true }), (x, y, z, turn) => {
        const frame = { start: { x: y, y: z, z: x }, turn };
        const there = splitInSpace(splitOn({ at: { x, y, z }, turn: 30, tilt: 10 }, frame), frame);
        expect('at' in there && there.at.x).toBeCloseTo(x, 6);
        expect('at' in there && there.at.y).toBeCloseTo(y, 6);
        expect(otherSide(otherSide({ at: { x, y, z }, turn: 30, tilt: 10 }))).toEqual({
          at: { x, y, z },
          turn: 30,
          tilt: 10,
        });
      }),
    );
  });

  it('is done by a script too', () => {
    const { document: after } = doScript(document, {
      do: [{ do: 'split element', element: 'Gate wall', at: [0, 0, 1], turn: 0, tilt: -90, keep: 'both' }],
    });
    expect(named('Gate wall 2', after)).toBeDefined();
  });
});
