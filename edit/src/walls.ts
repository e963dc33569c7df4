/** Edits of walls in plan: drawn, moved by their ends or whole with the walls that meet them, bent, split, joined and reversed. What is on them keeps its intent. */
import {
  acrossTo,
  alongCourse,
  alongTo,
  arcBetween,
  bentTo,
  boxOf,
  courseOf,
  gripOffset,
  overTo,
  seenOn,
  sheetsOf,
  joinedWalls,
  resolveOpening,
  reversedWall,
  splitWall,
  tidy,
  withEnds,
  type Impossible,
  type Point,
} from '@yard-arch/core';
import {
  isInPlan,
  extentOf,
  newId,
  putting,
  removing,
  runsOf,
  type Change,
  type ChangeSet,
  type Element,
  type Opening,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { loosened } from './many.ts';
import { splitsOn } from './splits.ts';
import { parallel } from '@yard-arch/core';

/** Ends of walls nearer to each other than this are one corner, metres. */
const meets = 0.002;
const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < meets;

export const wallsOf = (document: ProjectDocument): Wall[] => Object.values(document.elements).filter(isInPlan);

/** The ends of walls that stand at a point. */
export function endsAt(document: ProjectDocument, point: Point): { wall: Wall; which: 'start' | 'end' }[] {
  return wallsOf(document).flatMap((wall) => {
    const course = courseOf(wall);
    return (['start', 'end'] as const).filter((which) => near(course[which], point)).map((which) => ({ wall, which }));
  });
}

/** Moves ends of walls to other points. @returns the change set, or why one of the walls cannot follow. */
function moveEnds(
  name: string,
  moves: ReadonlyMap<Wall, Partial<Record<'start' | 'end', Point>>>,
): ChangeSet | Impossible {
  const changes: Change[] = [];
  for (const [wall, to] of moves) {
    const course = courseOf(wall);
    const moved = withEnds(wall, to.start ?? course.start, to.end ?? course.end);
    if ('reason' in moved) return { ...moved, reason: `${wall.name}: ${moved.reason}` };
    changes.push(putting('elements', moved));
  }
  return edit(name, ...changes);
}

/** Moves a corner, with the ends of all walls that meet there. */
export function moveCorner(
  document: ProjectDocument,
  wall: Wall,
  which: 'start' | 'end',
  to: Point,
): ChangeSet | Impossible {
  const from = courseOf(wall)[which];
  const moves = new Map<Wall, Partial<Record<'start' | 'end', Point>>>([[wall, { [which]: to }]]);
  for (const other of endsAt(document, from)) moves.set(other.wall, { ...moves.get(other.wall), [other.which]: to });
  return moveEnds(`move the ${which} of ${wall.name}`, moves);
}

/** Moves elements by a way in plan; walls that meet a moved one at a corner, or are butted to it, follow with that end. */
export function moveElements(
  document: ProjectDocument,
  elements: readonly Element[],
  dx: number,
  dy: number,
): ChangeSet | Impossible {
  const own = new Set(elements.map(({ id }) => id));
  const changes: Change[] = elements.map((element) =>
    putting('elements', {
      ...element,
      start: { ...element.start, x: tidy(element.start.x + dx), y: tidy(element.start.y + dy) },
    }),
  );
  const moves = new Map<Wall, Partial<Record<'start' | 'end', Point>>>();
  for (const element of elements) {
    if (!isInPlan(element)) continue;
    const course = courseOf(element);
    for (const other of wallsOf(document)) {
      if (own.has(other.id)) continue;
      const theirs = courseOf(other);
      for (const which of ['start', 'end'] as const) {
        const point = theirs[which];
        if (
          near(point, course.start) ||
          near(point, course.end) ||
          (other.ends?.[which] === 'butted' && within(element, point))
        )
          moves.set(other, { ...moves.get(other), [which]: [point[0] + dx, point[1] + dy] });
      }
    }
  }
  const followed = moveEnds('', moves);
  if ('reason' in followed) return followed;
  return edit(
    `move ${elements.length === 1 ? elements[0]!.name : `${elements.length} elements`}`,
    ...changes,
    ...followed.changes,
  );
}

/** Whether a point lies in the body of a straight wall. */
function within(wall: Wall, [x, y]: Point): boolean {
  if (wall.sweep || wall.runs?.length) return false;
  const turn = (wall.turn * Math.PI) / 180;
  const [rx, ry] = [x - wall.start.x, y - wall.start.y];
  const s = rx * Math.cos(turn) + ry * Math.sin(turn);
  const n = -rx * Math.sin(turn) + ry * Math.cos(turn);
  const thickness = wall.layers.reduce((sum, layer) => sum + layer.thickness, 0);
  return s > -meets && s < wall.length + meets && n > -meets && n < thickness + meets;
}

/** Bends a wall to a sweep, its ends where they are. */
export function bend(wall: Wall, sweep: number): ChangeSet | Impossible {
  const bent = bentTo(wall, sweep);
  return 'reason' in bent
    ? bent
    : edit(`${sweep === 0 ? 'straighten' : 'bend'} ${wall.name}`, putting('elements', bent));
}

/** What a new wall is made like: its build-up, height and level. */
export interface Like {
  layers: Wall['layers'];
  height: number;
  z: number;
}

/** The wall that new ones are like: the one given, or the last one, or one of brick. */
export function likeOf(document: ProjectDocument, element: string | null): Like & { changes: Change[] } {
  const walls = wallsOf(document);
  const wall = walls.find(({ id }) => id === element) ?? walls.at(-1);
  if (wall) return { layers: wall.layers, height: wall.height, z: wall.start.z, changes: [] };
  const material = Object.keys(document.materials)[0];
  const changes: Change[] = material
    ? []
    : [
        putting('materials', {
          id: 'brick',
          name: 'Brick',
          colour: '#b97a5c',
          roughness: 0.9,
          texture: 'stretcher bond',
        }),
      ];
  return { layers: [{ thickness: 0.4, material: material ?? 'brick' }], height: 3.5, z: 0, changes };
}

/** Draws a wall between two points, as an arc where it has a sweep. Straight ones are mitred where others meet them, or butted where they end in one. */
export function drawWall(
  document: ProjectDocument,
  { from, to, sweep }: { from: Point; to: Point; sweep: number },
  like: Like & { changes: Change[] },
): { changeSet: ChangeSet; id: string } {
  const id = newId('w');
  const names = new Set(Object.values(document.elements).map(({ name }) => name));
  let n = wallsOf(document).length + 1;
  while (names.has(`Wall ${n}`)) n++;
  const wall: Wall = {
    id,
    kind: 'wall',
    name: `Wall ${n}`,
    start: { x: tidy(from[0]), y: tidy(from[1]), z: like.z },
    ...arcBetween(from, to, sweep),
    ...(Math.abs(sweep) > parallel
      ? { sweep }
      : { ends: { start: endFor(document, from), end: endFor(document, to) } }),
    height: like.height,
    top: { kind: 'level' },
    layers: like.layers,
  };
  return { id, changeSet: edit(`draw ${wall.name}`, ...like.changes, putting('elements', wall)) };
}

function endFor(document: ProjectDocument, point: Point): 'mitred' | 'butted' {
  return endsAt(document, point).length === 0 && wallsOf(document).some((wall) => within(wall, point))
    ? 'butted'
    : 'mitred';
}

/** Twice the area that a ring of walls encloses, counter-clockwise positive. */
function ringArea(walls: readonly Wall[]): number {
  let twice = 0;
  for (const wall of walls) {
    const { length } = extentOf(wall);
    const steps = wall.sweep || wall.runs?.length ? 12 : 1;
    for (let i = 0; i < steps; i++) {
      const [[x0, y0], [x1, y1]] = [
        alongCourse(wall, (length * i) / steps).at,
        alongCourse(wall, (length * (i + 1)) / steps).at,
      ];
      twice += x0 * y1 - x1 * y0;
    }
  }
  return twice;
}

/** Walls of a ring that was drawn clockwise, drawn the other way round along the same lines, so that their outer faces look outward; none where it was not. */
export function faceOutward(walls: readonly Wall[]): Change[] {
  if (ringArea(walls) >= 0) return [];
  return walls.map((wall) => {
    const { start, end } = courseOf(wall);
    const ends = wall.ends ? { start: wall.ends.end, end: wall.ends.start } : undefined;
    return putting('elements', {
      ...wall,
      start: { ...wall.start, x: tidy(end[0]), y: tidy(end[1]) },
      ...arcBetween(end, start, -(wall.sweep ?? 0)),
      ...(wall.sweep ? { sweep: -wall.sweep } : {}),
      ends,
    });
  });
}

/** Splits a wall at a distance along it. What stands beyond goes to the second wall, and keeps its place. */
export function split(
  document: ProjectDocument,
  wall: Wall,
  s: number,
): { changeSet: ChangeSet; id: string } | Impossible {
  const id = newId('w');
  const names = new Set(Object.values(document.elements).map(({ name }) => name));
  let n = 2;
  while (names.has(`${wall.name} ${n}`)) n++;
  const parts = splitWall(wall, s, id, `${wall.name} ${n}`);
  if ('reason' in parts) return parts;
  const changes: Change[] = parts.map((part) => putting('elements', splitsOn(wall, part)));
  const axes = new Set<string>();
  for (const axis of Object.values(document.axes))
    if (axis.element === wall.id && axis.along > s) {
      axes.add(axis.id);
      changes.push(putting('axes', { ...axis, element: id, along: tidy(axis.along - s) }));
    }
  const beyond = new Set<string>();
  const places = new Map<string, number>();
  const levels = new Map<string, number>();
  const own = Object.values(document.openings).filter((opening) => opening.element === wall.id);
  for (const opening of own) {
    const resolved = resolveOpening(document, opening);
    const box = 'outline' in resolved ? boxOf(seenOn(sheetsOf(document).of(wall.id)!, resolved, 'outer'), '') : null;
    if (box) places.set(opening.id, box.s + gripOffset(box, opening.grip)[0]);
    if (box) levels.set(opening.id, box.t + gripOffset(box, opening.grip)[1]);
    if (box ? box.s + box.width / 2 > s : opening.along.from === 'end') beyond.add(opening.id);
  }
  const datums = new Map(
    Object.values(document.datums)
      .filter((datum) => datum.element === wall.id)
      .map((datum) => [datum.id, { ...datum, id: newId('d'), element: id }]),
  );
  for (const [old, datum] of datums)
    if (own.some(({ id: of, up }) => beyond.has(of) && up.from === 'datum' && up.datum === old))
      changes.push(putting('datums', datum));
  const after = withElements(document, parts);
  for (const opening of own) {
    const second = beyond.has(opening.id);
    const at = places.get(opening.id) ?? opening.along.distance;
    const { along, up } = opening;
    let next = along;
    if (along.from === 'neighbour')
      next = beyond.has(along.opening) === second ? along : { from: 'start', distance: tidy(second ? at - s : at) };
    else if (along.from === 'axis')
      next = axes.has(along.axis) === second ? along : { from: 'start', distance: tidy(second ? at - s : at) };
    else if (along.from === 'end') next = second ? along : { from: 'end', distance: tidy(s - at) };
    else if (second) next = { from: 'start', distance: tidy(at - s) };
    else if (along.from !== 'start') next = { from: 'start', distance: tidy(at) };
    const low = up.from === 'neighbour' && beyond.has(up.opening) !== second ? levels.get(opening.id) : undefined;
    const level =
      low !== undefined
        ? { from: 'base' as const, distance: tidy(low) }
        : second && up.from === 'datum' && datums.has(up.datum)
          ? { ...up, datum: datums.get(up.datum)!.id }
          : second && up.from === 'top' && parts[1].height !== wall.height
            ? { ...up, distance: tidy(up.distance + parts[1].height - wall.height) }
            : up;
    const on = second ? id : wall.id;
    if (opening.face === 'inner') {
      const kept = innerKept(document, after, opening, { element: on, to: (outer) => (second ? outer - s : outer) });
      changes.push(putting('openings', { ...kept, up: level }));
    } else if (second || next !== along || level !== up)
      changes.push(putting('openings', { ...opening, element: on, along: next, up: level }));
  }
  return { id, changeSet: edit(`split ${wall.name}`, ...changes) };
}

/** Joins a wall with the one that begins where it ends; what is on both keeps its place. */
export function join(document: ProjectDocument, wall: Wall): ChangeSet | Impossible {
  const { end } = courseOf(wall);
  const next = endsAt(document, end).find((other) => other.which === 'start' && other.wall.id !== wall.id)?.wall;
  if (!next)
    return {
      reason: `no wall begins where ${wall.name} ends`,
      mend: 'Move one there, or reverse the one that ends there.',
    };
  if (wall.splits ?? next.splits)
    return {
      reason: `${(wall.splits ? wall : next).name} is split along a line`,
      mend: 'Take its splits away first.',
    };
  const one = joinedWalls(wall, next);
  if ('reason' in one) return one;
  const by = extentOf(wall).length;
  const changes: Change[] = [putting('elements', one)];
  const after = withElements(document, [one]);
  const placed = (opening: Opening): number | null => {
    const resolved = resolveOpening(document, opening);
    return 'outline' in resolved ? resolved.s + gripOffset(resolved.profile, opening.grip)[0] : null;
  };
  const names = new Set(
    Object.values(document.axes)
      .filter(({ element }) => element === wall.id)
      .map(({ name }) => name),
  );
  for (const axis of Object.values(document.axes))
    if (axis.element === next.id)
      changes.push(
        putting('axes', {
          ...axis,
          name: names.has(axis.name) ? `${axis.name}′` : axis.name,
          element: wall.id,
          along: tidy(axis.along + by),
        }),
      );
  for (const datum of Object.values(document.datums))
    if (datum.element === next.id) changes.push(putting('datums', { ...datum, element: wall.id }));
  for (const opening of Object.values(document.openings)) {
    const { along } = opening;
    if (opening.face === 'inner' && (opening.element === wall.id || opening.element === next.id)) {
      const shift = opening.element === next.id ? by : 0;
      const kept = innerKept(document, after, opening, { element: wall.id, to: (outer) => outer + shift });
      const { up } = opening;
      const raised =
        shift > 0 && up.from === 'top' ? { ...up, distance: tidy(up.distance + one.height - next.height) } : up;
      changes.push(putting('openings', { ...kept, up: raised }));
      continue;
    }
    const at = placed(opening);
    if (
      opening.element === wall.id &&
      (along.from === 'end' || along.from === 'middle' || along.from === 'fraction' || along.from === 'between') &&
      at !== null
    )
      changes.push(putting('openings', { ...opening, along: { from: 'start', distance: tidy(at) } }));
    if (opening.element === next.id)
      changes.push(
        putting('openings', {
          ...opening,
          element: wall.id,
          along:
            along.from === 'end' || along.from === 'axis' || along.from === 'neighbour'
              ? along
              : { from: 'start', distance: tidy((at ?? along.distance) + by) },
          up:
            opening.up.from === 'top'
              ? { ...opening.up, distance: tidy(opening.up.distance + one.height - next.height) }
              : opening.up,
        }),
      );
    else if (opening.further?.includes(next.id))
      changes.push(putting('openings', { ...opening, further: opening.further.filter((id) => id !== next.id) }));
  }
  return edit(`join ${wall.name} and ${next.name}`, ...changes, removing('elements', next.id));
}

/** Changes a wall's faces over. Openings and axes stay where they stand in space, measured from the other end. */
export function reverse(document: ProjectDocument, wall: Wall): ChangeSet | Impossible {
  const turnedRound = reversedWall(wall);
  if ('reason' in turnedRound) return turnedRound;
  const reversed = splitsOn(wall, turnedRound) as Wall;
  const long = acrossTo(wall, extentOf(wall).length);
  /** Where a point of the outer face is then. What is the inner face becomes the outer one, seen from the other side. */
  const turnedTo = (s: number): number => long - acrossTo(wall, s);
  const innerTo = (s: number): number => overTo(document, wall, s, 'outer');
  const axes = Object.values(document.axes)
    .filter(({ element }) => element === wall.id)
    .map((axis) => ({ ...axis, along: tidy(turnedTo(axis.along)) }));
  const over = { left: 'right', centre: 'centre', right: 'left' } as const;
  const openings = Object.values(document.openings)
    .filter(({ element }) => element === wall.id)
    .map((opening): Opening => {
      const { along, up } = opening;
      // Where the top is not as high at either end, what is measured from it is measured from the other one.
      const level = up.from === 'top' ? { ...up, distance: tidy(up.distance + reversed.height - wall.height) } : up;
      const back: Opening['along'] =
        along.from === 'start'
          ? { ...along, from: 'end' }
          : along.from === 'end'
            ? { ...along, from: 'start' }
            : along.from === 'fraction'
              ? { ...along, fraction: 1 - along.fraction, distance: 0 - along.distance }
              : along.from === 'neighbour'
                ? { ...along, edge: over[along.edge], distance: 0 - along.distance }
                : along.from === 'between'
                  ? { ...along, left: along.right, right: along.left, distance: 0 - along.distance }
                  : { ...along, distance: 0 - along.distance };
      return { ...opening, along: back, up: level, grip: { ...opening.grip, across: over[opening.grip.across] } };
    });
  const byId = <T extends { id: string }>(rows: readonly T[]): Record<string, T> =>
    Object.fromEntries(rows.map((row) => [row.id, row]));
  const after = {
    ...document,
    elements: { ...document.elements, [wall.id]: reversed },
    axes: { ...document.axes, ...byId(axes) },
    openings: { ...document.openings, ...byId(openings) },
  };
  return edit(
    `reverse ${wall.name}`,
    putting('elements', reversed),
    ...axes.map((axis) => putting('axes', axis)),
    ...inPlace(document, after, openings, ({ face }) => (face === 'inner' ? innerTo : turnedTo)).map((opening) =>
      putting('openings', opening),
    ),
  );
}

/** Openings of a wall that was reversed, with such distances that the middle of each stays in its place, whatever it is measured from: on a curve the faces are not as long as each other. */
function inPlace(
  before: ProjectDocument,
  after: ProjectDocument,
  openings: readonly Opening[],
  turnedTo: (opening: Opening) => (s: number) => number,
): Opening[] {
  const grips = openings.map((opening) => {
    const placed = resolveOpening(before, before.openings[opening.id]!);
    return 'outline' in placed
      ? turnedTo(opening)(placed.s + placed.profile.width / 2) -
          placed.profile.width / 2 +
          gripOffset(placed.profile, opening.grip)[0]
      : null;
  });
  // Each by itself first, so that what is measured from a neighbour finds that where it will be.
  const firm = { ...after, openings: { ...after.openings } };
  openings.forEach((opening, i) => {
    if (grips[i] !== null) firm.openings[opening.id] = { ...opening, along: { from: 'start', distance: grips[i]! } };
  });
  return openings.map((opening, i) =>
    grips[i] === null
      ? opening
      : {
          ...opening,
          along: alongTo(firm, firm.elements[opening.element]!, opening.along, { s: grips[i]!, face: opening.face }),
        },
  );
}

/** An opening on the inner face of a wall that has become another, measured so that it stays where it stands. @param to from a distance along the outer face before to that along it afterwards. */
function innerKept(
  before: ProjectDocument,
  after: ProjectDocument,
  opening: Opening,
  { element, to }: { element: string; to: (outer: number) => number },
): Opening {
  const placed = resolveOpening(before, opening);
  if (!('outline' in placed)) return { ...opening, element };
  const half = placed.profile.width / 2;
  const outer = to(overTo(before, before.elements[opening.element]!, placed.s + half, 'outer'));
  const s = overTo(after, after.elements[element]!, outer, 'inner') - half;
  const [dx] = gripOffset(placed.profile, opening.grip);
  return { ...opening, element, along: { from: 'start', distance: tidy(s + dx) } };
}

const withElements = (document: ProjectDocument, elements: readonly Element[]): ProjectDocument => ({
  ...document,
  elements: { ...document.elements, ...Object.fromEntries(elements.map((one) => [one.id, one])) },
});

/** Takes openings away that no longer fit. */
export function drop(document: ProjectDocument, openings: readonly Opening[]): ChangeSet {
  return edit(
    `take away ${openings
      .map(({ mark }) => mark)
      .slice(0, 3)
      .join(', ')}${openings.length > 3 ? '…' : ''}, which ${openings.length === 1 ? 'does' : 'do'} not fit`,
    ...loosened(document, openings),
    ...openings.map(({ id }) => removing('openings', id)),
  );
}

/** Whether a wall is one straight or curved run, which can be bent by hand. */
export const isSingle = (wall: Wall): boolean => runsOf(wall).length === 1;
