/** Bays made of barrels, their bases, rows of them, and runs of openings about a dome. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { cutModel, prove } from '@yard-arch/core';
import fc from 'fast-check';
import { solidLibrary } from '@yard-arch/core/solid';
import { everyVault, granaryWalls } from '@yard-arch/demo';
import {
  applyChangeSet,
  emptyDocument,
  documentFaults,
  kinds,
  withChanges,
  type Bay,
  type ProjectDocument,
  type Vault,
  type Wall,
} from '@yard-arch/document';
import {
  aboutAxis,
  barrelEnds,
  baseOf,
  bayOfBarrel,
  bayRows,
  changeElement,
  doScript,
  floorIn,
  roomOf,
  setBase,
  vaultings,
  vaultBetween,
  vaultOver,
  wallsFacing,
  wallUpEnd,
} from '../src/index.ts';

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

describe('a floor', () => {
  it('is laid from inner face to inner face, at the foot of the walls or with a datum', () => {
    const walls = granaryWalls();
    const ring = Object.values(walls.elements).find(
      (element): element is Wall => element.kind === 'wall' && !('reason' in floorIn(walls, element)),
    )!;
    const laid = floorIn(walls, ring);
    if ('reason' in laid) throw new Error(laid.reason);
    const room = roomOf(walls, ring);
    const then = withChanges(walls, laid.changeSet.changes);
    const slab = then.elements[laid.id]!;
    expect(slab.start.z).toBe(ring.start.z);
    expect(sound(then, laid.id)).toBeCloseTo(0.25 * ('reason' in room ? NaN : areaOf(room.corners)), 6);
    const datum = { id: 'lvl', name: 'First floor', level: 3.1, element: null };
    const levels = { ...walls, datums: { lvl: datum } };
    const upper = floorIn(levels, ring, 'lvl');
    if ('reason' in upper) throw new Error(upper.reason);
    expect(withChanges(levels, upper.changeSet.changes).elements[upper.id]).toMatchObject({
      name: 'Floor, First floor',
      stands: 'lvl',
      start: { z: 3.1 },
    });
    expect(floorIn(walls, slab)).toMatchObject({ reason: /within a ring of walls/ });
  });
});

const areaOf = (points: readonly (readonly [number, number])[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [u, v] = points[(i + 1) % points.length]!;
    return sum + (x * v - u * y) / 2;
  }, 0);

describe('vaults', () => {
  it('lose their transverse arches where they become bays, and walls under them stay under them', () => {
    const barrel = named<Vault>('With transverse arches');
    const { changeSet, id } = wallUpEnd(document, barrel, 'start');
    const walled = withChanges(document, changeSet.changes);
    const made = bayOfBarrel(walled, barrel, 'groin');
    if ('reason' in made) throw new Error(made.reason);
    const then = applyChangeSet(walled, made).document;
    expect(then.elements[barrel.id]).toMatchObject({ kind: 'bay' });
    expect(then.elements[barrel.id]).not.toHaveProperty('arches');
    expect(cutModel(then).cuts.get(id)!.fault).toBeNull();
  });

  it('are walled up at either end, from the floor of the walls beside them up to the soffit, and stay so', () => {
    const barrel = named<Vault>('Barrel');
    for (const which of ['start', 'end'] as const) {
      const { changeSet, id } = wallUpEnd(document, barrel, which);
      const then = withChanges(document, changeSet.changes);
      expect(documentFaults(then).first).toEqual([]);
      const standing = (of: ProjectDocument) => {
        const { cuts } = cutModel({
          ...of,
          elements: { [barrel.id]: of.elements[barrel.id]!, [id]: of.elements[id]! },
          openings: {},
        });
        expect([...cuts.values()].every(({ fault, mesh }) => fault === null && prove(mesh).closed)).toBe(true);
        return cuts.get(id)!.sheet.height;
      };
      const foot = (then.elements[id] as Wall).start.z;
      expect(standing(then)).toBeCloseTo(barrel.start.z - foot + barrel.rise, 2);
      // It follows when the barrel is lowered.
      const lower = withChanges(then, changeElement<Vault>(barrel, { rise: barrel.rise / 2 }, 'lower').changes);
      expect(standing(lower)).toBeCloseTo(barrel.start.z - foot + barrel.rise / 2, 2);
    }
    expect(barrelEnds({ ...barrel, turn: 0 })).toEqual({ start: 'south', end: 'north' });
    expect(barrelEnds({ ...barrel, turn: 90 })).toEqual({ start: 'east', end: 'west' });
  });

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

  it('are laid within a ring of walls, under their tops, and over a slab; or say why not', () => {
    const walls = granaryWalls();
    const gable = named<Wall>('East gable', walls);
    const room = roomOf(walls, gable);
    if ('reason' in room) throw new Error(room.reason);
    for (const as of vaultings) {
      const laid = vaultOver(walls, gable, as);
      if ('reason' in laid) throw new Error(laid.reason);
      const after = applyChangeSet(walls, laid.changeSet).document;
      sound(after, laid.id);
      const { mesh } = cutModel({ ...after, elements: { [laid.id]: after.elements[laid.id]! }, openings: {} }).cuts.get(
        laid.id,
      )!;
      const heights = mesh.points.filter((_, i) => i % 3 === 2);
      expect(Math.max(...heights)).toBeLessThan(room.top + 1e-3);
      if (as === 'barrel') continue;
      // A bay stands exactly within the walls' inner faces.
      const [xs, ys] = [0, 1].map((k) => [...mesh.points.filter((_, i) => i % 3 === k)]) as [number[], number[]];
      const reach = (values: readonly number[]): number[] => [Math.min(...values), Math.max(...values)];
      const corners = [0, 1].map((k) => reach(room.corners.map((corner) => corner[k]!)));
      expect([reach(xs), reach(ys)].flat().map((x) => Math.round(x * 1e6))).toEqual(
        corners.flat().map((x) => Math.round(x * 1e6)),
      );
    }
    expect(vaultOver(walls, named<Wall>('Gate wall', walls), 'groin')).toHaveProperty('reason');
    const { made } = doScript(walls, { do: [{ do: 'lay vault', element: 'East gable', as: 'groin' }] });
    expect(made[0]).toHaveLength(1);
    const slab = kinds.slab.fresh({ id: 's', name: 'Floor', start: { x: 0, y: 0, z: 3 }, turn: 30 }, 'brick');
    const floored = { ...document, elements: { s: slab }, openings: {} };
    const over = vaultOver(floored, slab, 'cloister');
    if ('reason' in over) throw new Error(over.reason);
    sound(applyChangeSet(floored, over.changeSet).document, over.id);
  });

  it('are laid between two walls alongside each other, whichever way these run, and fill what is between their faces', () => {
    const thick = fc.constantFrom(0.2, 0.35, 0.6);
    const setting = fc.record({
      long: fc.integer({ min: 20, max: 90 }).map((n) => n / 10),
      span: fc.integer({ min: 12, max: 70 }).map((n) => n / 10),
      turn: fc.integer({ min: -180, max: 180 }),
      sides: fc.tuple(
        fc.record({ thick, backward: fc.boolean(), more: fc.constantFrom(0, 1.5) }),
        fc.record({ thick, backward: fc.boolean(), more: fc.constantFrom(0, 0.75) }),
      ),
    });
    fc.assert(
      fc.property(setting, ({ long, span, turn, sides }) => {
        const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
        const at = (x: number, y: number) => ({ x: 40 + x * cos - y * sin, y: -12 + x * sin + y * cos, z: 0 });
        // One below and one above what is between; only one goes on beyond it to either side.
        const walls = sides.map((side, k): Wall => {
          const out = k === 0 ? -1 : 1;
          // Its body is on the left of its way: towards the gap its inner or its outer face looks.
          const onward = (k === 0) !== side.backward;
          const face = (k === 0 ? 0 : span) + (onward === (k === 0) ? out * side.thick : 0);
          const [from, to] = k === 0 ? [-side.more, long] : [0, long + side.more];
          return {
            ...kinds.wall.fresh(
              { id: `w${k}`, name: `Wall ${k}`, start: at(onward ? from : to, face), turn: onward ? turn : turn + 180 },
              'brick',
            ),
            length: to - from,
            height: 4 + k,
            layers: [{ thickness: side.thick, material: 'brick' }],
          };
        });
        const empty = emptyDocument('Quay store');
        empty.materials.brick = { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9 };
        const set = { ...empty, elements: Object.fromEntries(walls.map((one) => [one.id, one])) };
        expect(wallsFacing(set, walls[0]!).map(({ id }) => id)).toEqual(['w1']);
        const laid = vaultBetween(set, walls[0]!, walls[1]!);
        if ('reason' in laid) throw new Error(laid.reason);
        const after = applyChangeSet(set, laid.changeSet).document;
        const { mesh, fault } = cutModel(after).cuts.get(laid.id)!;
        expect([fault, prove(mesh).closed]).toEqual([null, true]);
        const [xs, ys, zs]: number[][] = [[], [], []];
        for (let i = 0; i < mesh.points.length; i += 3) {
          const [dx, dy] = [mesh.points[i]! - 40, mesh.points[i + 1]! + 12];
          xs!.push(dx * cos + dy * sin);
          ys!.push(dy * cos - dx * sin);
          zs!.push(mesh.points[i + 2]!);
        }
        // Its intrados springs from the walls' faces; what is about that reaches into them.
        expect(Math.min(...xs!)).toBeCloseTo(0, 5);
        expect(Math.max(...xs!)).toBeCloseTo(long, 5);
        expect(Math.min(...ys!) + Math.max(...ys!)).toBeCloseTo(span, 5);
        expect(Math.max(...zs!)).toBeLessThan(Math.max(4, span / 2 + 0.5) + 1e-6);
      }),
      { numRuns: 60 },
    );
    const only = emptyDocument('Quay store');
    const lone = kinds.wall.fresh({ id: 'a', name: 'A', start: { x: 0, y: 0, z: 0 }, turn: 0 }, 'brick');
    const square = { ...lone, id: 'b', name: 'B', turn: 90, start: { x: 0, y: 3, z: 0 } };
    expect(wallsFacing({ ...only, elements: { a: lone, b: square } }, lone)).toEqual([]);
    expect(vaultBetween(only, lone, square)).toHaveProperty('mend');
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
