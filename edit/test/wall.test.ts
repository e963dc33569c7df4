/** Edits of walls in plan: what stands on them keeps its intent, whatever is done, ten times in a row. */
import { describe, expect, it } from '@jest/globals';
import {
  alongAt,
  alongCourse,
  courseOf,
  cutModel,
  gripOffset,
  misfitsOn,
  pointAt,
  prove,
  resolveOpening,
  sheetsOf,
  upAt,
  type Placed,
  type Point,
} from '@yard-arch/core';
import { granaryWalls as granary } from '@yard-arch/demo';
import { applyChangeSet, emptyDocument, type ChangeSet, type ProjectDocument, type Wall } from '@yard-arch/document';
import {
  bend,
  changeElement,
  drawWall,
  drop,
  faceOutward,
  join,
  likeOf,
  moveCorner,
  moveElements,
  reverse,
  split,
  wallsOf,
} from '@yard-arch/edit';

const document = granary();
const done = (change: ChangeSet | { reason: string }, before: ProjectDocument): ProjectDocument => {
  if ('reason' in change) throw new Error(change.reason);
  return applyChangeSet(before, change).document;
};
const wall = (d: ProjectDocument, id: string): Wall => d.elements[id] as Wall;
/** Where an opening's middle stands in space, on the middle of the wall's thickness. */
const inSpace = (d: ProjectDocument, id: string): number[] => {
  const placed = resolveOpening(d, d.openings[id]!) as Placed;
  const { chart, thickness } = sheetsOf(d).of(placed.element)!;
  return [...pointAt(chart, placed.s + placed.profile.width / 2, placed.t, thickness / 2)];
};
const on = (d: ProjectDocument, element: string): string[] =>
  Object.values(d.openings)
    .filter((opening) => opening.element === element)
    .map(({ id }) => id);

/** Every opening's grip is where its intent says, and its intent is what it was. */
function keepsIntents(before: ProjectDocument, after: ProjectDocument): void {
  for (const opening of Object.values(before.openings)) {
    const now = after.openings[opening.id]!;
    expect(now).toEqual(opening);
    const element = after.elements[now.element]!;
    const placed = resolveOpening(after, now) as Placed;
    const [dx, dy] = gripOffset(placed.profile, now.grip);
    expect(placed.s + dx).toBeCloseTo(alongAt(after, element, now.along)!, 8);
    expect(placed.t + dy).toBeCloseTo(upAt(after, element, now.up)!, 8);
  }
}

describe('walls in plan', () => {
  it('take all intents through ten edits in a row, and stay closed', () => {
    const edits: ((d: ProjectDocument) => ChangeSet | { reason: string })[] = [
      (d) => moveCorner(d, wall(d, 'courtyard'), 'end', [21, 0]),
      (d) => moveElements(d, [wall(d, 'quay')], 0, 0.6),
      (d) => bend(wall(d, 'gate'), 30),
      (d) =>
        changeElement(
          wall(d, 'courtyard'),
          {
            layers: [
              { thickness: 0.5, material: 'brick' },
              { thickness: 0.02, material: 'plaster' },
            ],
          },
          'thicken',
        ),
      (d) => moveElements(d, [wall(d, 'drum')], 1, 1),
      (d) => moveCorner(d, wall(d, 'west'), 'end', [-0.4, -0.3]),
      (d) => changeElement(wall(d, 'courtyard'), { height: 9 }, 'heighten'),
      (d) => bend(wall(d, 'gate'), 0),
      (d) => changeElement(wall(d, 'shed-front'), { turn: 88 }, 'turn'),
      (d) => moveElements(d, [wall(d, 'east'), wall(d, 'west')], 0.25, 0),
    ];
    let now = document;
    for (const make of edits) {
      now = done(make(now), now);
      keepsIntents(document, now);
    }
    for (const cut of cutModel(now).cuts.values())
      expect(prove(cut.mesh)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
  });

  it('that meet at a corner move with it', () => {
    const now = done(moveCorner(document, wall(document, 'courtyard'), 'end', [20, -1]), document);
    expect(courseOf(wall(now, 'courtyard')).end.map((v) => Number(v.toFixed(6)))).toEqual([20, -1]);
    expect(courseOf(wall(now, 'east')).start).toEqual([20, -1]);
    expect(courseOf(wall(now, 'east')).end.map((v) => Number(v.toFixed(6)))).toEqual([19.2, 9.6]);
  });

  it('split and joined again leave everything where it stood', () => {
    const places = on(document, 'courtyard').map((id) => inSpace(document, id));
    const parts = split(document, wall(document, 'courtyard'), 8.3);
    if ('reason' in parts) throw new Error(parts.reason);
    const two = done(parts.changeSet, document);
    expect(on(two, 'courtyard').length + on(two, parts.id).length).toBe(places.length);
    on(document, 'courtyard').forEach((id, i) =>
      inSpace(two, id).forEach((value, k) => expect(value).toBeCloseTo(places[i]![k]!, 6)),
    );
    expect(two.openings.o14!.along).toMatchObject({ from: 'axis' });
    const one = done(join(two, wall(two, 'courtyard')), two);
    expect(one.elements[parts.id]).toBeUndefined();
    on(document, 'courtyard').forEach((id, i) =>
      inSpace(one, id).forEach((value, k) => expect(value).toBeCloseTo(places[i]![k]!, 6)),
    );
  });

  it('reversed keep what is on them in its place', () => {
    const over = done(reverse(document, wall(document, 'courtyard')), document);
    on(document, 'courtyard').forEach((id) =>
      inSpace(over, id).forEach((value, k) => expect(value).toBeCloseTo(inSpace(document, id)[k]!, 6)),
    );
    expect(over.openings.o8!.along).toMatchObject({ from: 'axis', axis: 'courtyard-a' });
  });

  it('reversed round a curve keep the middle of all that is on them in its place, whatever it is measured from', () => {
    const drum = wallsOf(document).find(({ sweep }) => sweep)!;
    const here = on(document, drum.id);
    expect(here.length).toBeGreaterThan(3);
    const over = done(reverse(document, drum), document);
    here.forEach((id) => {
      inSpace(over, id).forEach((value, k) => expect(Math.abs(value - inSpace(document, id)[k]!)).toBeLessThan(0.003));
      expect(over.openings[id]!.along.from).toBe(
        { start: 'end', end: 'start' }[document.openings[id]!.along.from as string] ??
          document.openings[id]!.along.from,
      );
    });
  });

  it('reversed about corners and under a raked top keep what is on them in its place', () => {
    let now = done(
      changeElement(
        {
          ...wall(document, 'courtyard'),
          runs: [{ turn: 60, length: 5 }],
          top: { kind: 'raked', end: 9.4 },
          ends: undefined,
        },
        {},
        'bend round',
      ),
      document,
    );
    const here = on(now, 'courtyard');
    const [first, second] = here as [string, string];
    now = {
      ...now,
      openings: {
        ...now.openings,
        [first]: { ...now.openings[first]!, up: { from: 'top', distance: 5 } },
        [second]: { ...now.openings[second]!, along: { from: 'end', distance: 2.5 } },
      },
    };
    const over = done(reverse(now, wall(now, 'courtyard')), now);
    expect(wall(over, 'courtyard')).toMatchObject({
      height: 9.4,
      top: { kind: 'raked', end: 8.4 },
      runs: [{ turn: -60 }],
    });
    // Square through the wall from the middle of each on its outer face.
    const square = (d: ProjectDocument, id: string, deep: number): number[] => {
      const placed = resolveOpening(d, d.openings[id]!) as Placed;
      const { at, angle } = alongCourse(wall(d, 'courtyard'), placed.s + placed.profile.width / 2);
      const way = (angle * Math.PI) / 180;
      return [at[0] - deep * Math.sin(way), at[1] + deep * Math.cos(way), placed.t];
    };
    const { thickness } = sheetsOf(now).of('courtyard')!;
    here.forEach((id) =>
      square(over, id, 0).forEach((value, k) => expect(value).toBeCloseTo(square(now, id, thickness)[k]!, 6)),
    );
  });

  it('drawn as a ring close, and look outward whichever way they were drawn', () => {
    for (const ring of [
      [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      [
        [0, 0],
        [0, 4],
        [6, 4],
        [6, 0],
      ],
    ] as Point[][]) {
      let now = emptyDocument('Lamp store');
      ring.forEach((from, i) => {
        now = done(drawWall(now, { from, to: ring[(i + 1) % 4]!, sweep: 0 }, likeOf(now, null)).changeSet, now);
      });
      const changes = faceOutward(wallsOf(now));
      if (changes.length > 0) now = done({ name: 'outward', changes }, now);
      for (const w of wallsOf(now)) {
        const { chart, joins } = sheetsOf(now).of(w.id)!;
        const [x, y] = pointAt(chart, w.length / 2, 0, 0);
        const [ix, iy] = pointAt(chart, w.length / 2, 0, 0.2);
        expect(Math.hypot(ix - 3, iy - 2)).toBeLessThan(Math.hypot(x - 3, y - 2));
        expect(joins.map(({ reason }) => reason)).toEqual([
          expect.stringContaining('start mitred'),
          expect.stringContaining('end mitred'),
        ]);
      }
      const { cuts } = cutModel(now);
      let volume = 0;
      for (const cut of cuts.values()) {
        const proof = prove(cut.mesh);
        expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
        volume += proof.volume;
      }
      expect(volume).toBeCloseTo((6 * 4 - 5.2 * 3.2) * 3.5, 6);
    }
  });

  it('too short for their openings say which do not fit, and offer ways that mend it', () => {
    const short = done(changeElement(wall(document, 'courtyard'), { length: 17 }, 'shorten'), document);
    const misfits = misfitsOn(short, short.elements.courtyard!);
    expect(misfits.map(({ opening }) => opening.mark).sort()).toEqual(['G-07', 'G-14', 'G-21']);
    for (const misfit of misfits) {
      expect(misfit.beyond).toBe('the end');
      const slid = {
        ...short,
        openings: {
          ...short.openings,
          [misfit.opening.id]: {
            ...misfit.opening,
            along: { from: 'start' as const, distance: misfit.slid!.s + misfit.placed.profile.width / 2 },
          },
        },
      };
      expect(misfitsOn(slid, slid.elements.courtyard!).map(({ opening }) => opening.id)).not.toContain(
        misfit.opening.id,
      );
    }
    expect(
      misfitsOn(
        done(
          drop(
            short,
            misfits.map(({ opening }) => opening),
          ),
          short,
        ),
        short.elements.courtyard!,
      ),
    ).toEqual([]);
    const low = done(changeElement(wall(document, 'courtyard'), { height: 5 }, 'lower'), document);
    expect(misfitsOn(low, low.elements.courtyard!).every(({ beyond }) => beyond === 'the top')).toBe(true);
    const door = misfitsOn(
      done(changeElement(wall(document, 'east'), { length: 2.5 }, 'shorten'), document),
      wall(done(changeElement(wall(document, 'east'), { length: 2.5 }, 'shorten'), document), 'east'),
    ).find(({ opening }) => opening.mark === 'W-22');
    expect(door!.smaller).toMatchObject({ own: { width: 1.1, height: 2.3 } });
  });
});
