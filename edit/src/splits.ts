/** Edits that split elements along a path in plan or by a plane: one side kept, or both as two elements, openings staying with their side. */
import {
  curtainOf,
  directionsAt,
  otherSide,
  parallel,
  pointAt,
  resolveOpening,
  sheetsOf,
  splitSide,
  splitInSpace,
  splitOn,
  tidy,
  type Impossible,
} from '@yard-arch/core';
import {
  applyChangeSet,
  newId,
  omit,
  putting,
  type Change,
  type ChangeSet,
  type Element,
  type Opening,
  type ProjectDocument,
  type Split,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { freed } from './many.ts';
import { marks } from './placing.ts';

/** Which side of a split is kept: the one that it keeps as it is told, the other one, or both as two elements. */
export type Keep = 'this' | 'other' | 'both';

const most = 24;

/**
 * Splits an element.
 * @param split as it lies in space.
 * @returns the change set, and of two elements the id of the second; or why it cannot be split so.
 */
export function splitElement(
  document: ProjectDocument,
  element: Element,
  split: Split,
  keep: Keep,
): { changeSet: ChangeSet; id: string | null } | Impossible {
  const splits = element.splits ?? [];
  if (splits.length >= most)
    return { reason: `${element.name} is split ${most} times already`, mend: 'Take one of its splits away first.' };
  if (!curtainOf(split))
    return {
      reason: 'the path crosses itself, or would where it goes on straight beyond its ends',
      mend: 'Draw it so that it, and its ends drawn out, never cross.',
    };
  const own = splitOn(keep === 'other' ? otherSide(split) : split, element);
  const first = { ...element, splits: [...splits, own] };
  if (keep !== 'both') return { id: null, changeSet: edit(`split ${element.name}`, putting('elements', first)) };
  const id = newId(element.kind.charAt(0));
  const names = new Set(Object.values(document.elements).map(({ name }) => name));
  let n = 2;
  while (names.has(`${element.name} ${n}`)) n++;
  const second = {
    ...element,
    id,
    name: `${element.name} ${n}`,
    splits: [...splits, splitOn(otherSide(split), element)],
  };
  return {
    id,
    changeSet: edit(
      `split ${element.name}`,
      putting('elements', first),
      putting('elements', second),
      ...sidesTaken(document, element, second.id, split),
    ),
  };
}

/** Openings go to the side that they lie on, and those across are there on both; what they are measured from goes with them. */
function sidesTaken(document: ProjectDocument, element: Element, second: string, split: Split): Change[] {
  const sheets = sheetsOf(document);
  const own = Object.values(document.openings).filter((opening) => opening.element === element.id);
  const [there, across] = [new Set<string>(), new Set<string>()];
  const [curtain, back] = [curtainOf(split)!, curtainOf(otherSide(split))!];
  for (const opening of own) {
    const placed = resolveOpening(document, opening);
    // Each on its own face: from inside it is counted from the other end.
    const sheet = sheets.on(element.id, opening.face);
    if (!('outline' in placed) || !sheet) continue;
    const side = splitSide(placed, sheet, [curtain]);
    if (side === 'off') there.add(opening.id);
    if (side !== 'across') continue;
    across.add(opening.id);
    // By where its middle is.
    const { s, t, profile } = placed;
    const [x, y] = [s + profile.width / 2, t + profile.height / 2];
    const spot = { count: 1, xs: Float64Array.of(x), ys: Float64Array.of(y) };
    if (splitSide({ s: 0, t: 0, outline: spot }, sheet, [back]) === 'kept') there.add(opening.id);
  }
  const moved = lines(
    document,
    element,
    second,
    own.filter(({ id }) => there.has(id) || across.has(id)),
  );
  const mark = marks(document);
  const openings = own.flatMap((opening): Change[] => {
    const goes = there.has(opening.id);
    // What is measured from one on the other side is let go.
    const base = freed(document, opening, (id) => there.has(id) !== goes);
    const made: Change[] = [];
    if (goes) made.push(putting('openings', { ...moved.carried(base), element: second }));
    else if (base !== opening) made.push(putting('openings', base));
    if (across.has(opening.id)) {
      const like = freed(document, opening, (id) => there.has(id) === goes);
      const pattern = document.patterns[opening.pattern];
      const on = goes ? element.id : second;
      const twin = { ...(goes ? like : moved.carried(like)), id: newId('o'), element: on };
      made.push(putting('openings', { ...twin, mark: pattern ? mark(pattern) : opening.mark }));
    }
    return made;
  });
  // What comes from elsewhere goes through both.
  const visitors = Object.values(document.openings)
    .filter((opening) => opening.element !== element.id && opening.further?.includes(element.id))
    .map((opening) => putting('openings', { ...opening, further: [...opening.further!, second] }));
  return [...moved.changes, ...openings, ...visitors];
}

/** Axes and datums that openings which go to a second element are measured from, made there too. */
function lines(
  document: ProjectDocument,
  element: Element,
  second: string,
  going: readonly Opening[],
): { changes: Change[]; carried: (opening: Opening) => Opening } {
  const changes: Change[] = [];
  const [axes, datums] = [new Map<string, string>(), new Map<string, string>()];
  for (const { along, up } of going) {
    const axis = along.from === 'axis' ? document.axes[along.axis] : undefined;
    if (axis && axis.element === element.id && !axes.has(axis.id)) {
      axes.set(axis.id, newId('a'));
      changes.push(putting('axes', { ...axis, id: axes.get(axis.id)!, element: second }));
    }
    const datum = up.from === 'datum' ? document.datums[up.datum] : undefined;
    if (datum && datum.element === element.id && !datums.has(datum.id)) {
      datums.set(datum.id, newId('d'));
      changes.push(putting('datums', { ...datum, id: datums.get(datum.id)!, element: second }));
    }
  }
  return {
    changes,
    carried: (opening) => ({
      ...opening,
      along:
        opening.along.from === 'axis' && axes.has(opening.along.axis)
          ? { ...opening.along, axis: axes.get(opening.along.axis)! }
          : opening.along,
      up:
        opening.up.from === 'datum' && datums.has(opening.up.datum)
          ? { ...opening.up, datum: datums.get(opening.up.datum)! }
          : opening.up,
    }),
  };
}

/** Gives a split other figures, as they lie in space; undefined takes it away. */
export function alterSplit(
  element: Element,
  which: number,
  split: Split | undefined,
  what = 'move a split of',
): ChangeSet {
  const splits = (element.splits ?? []).flatMap((own, i) =>
    i !== which ? [own] : split ? [splitOn(split, element)] : [],
  );
  const rest = omit(element, 'splits');
  return edit(
    `${split ? what : 'take a split from'} ${element.name}`,
    putting('elements', (splits.length > 0 ? { ...rest, splits } : rest) as Element),
  );
}

/** The splits of an element as another tells them that stands where it does: so that they stay where they are. */
export const splitsOn = (from: Element, to: Element): Element =>
  from.splits ? { ...to, splits: from.splits.map((split) => splitOn(splitInSpace(split, from), to)) } : to;

/** A line on one of an element's faces, from one place to another (metres along and up). */
export interface LineOnSheet {
  face: string;
  from: { s: number; t: number };
  to: { s: number; t: number };
}

/** Splits an element through its whole depth along a line on its sheet; what is to the left of it is this side. */
export function splitOnSheet(
  document: ProjectDocument,
  element: Element,
  { face, from, to }: LineOnSheet,
  keep: Keep,
): { changeSet: ChangeSet; id: string | null } | Impossible {
  const sheet = sheetsOf(document).on(element.id, face);
  if (!sheet) return { reason: `${element.name} has no such face`, mend: 'Turn its sheet to one that it has.' };
  const { chart } = sheet;
  const [a, b] = [pointAt(chart, from.s, from.t, 0), pointAt(chart, to.s, to.t, 0)];
  const { inward } = directionsAt(chart, (from.s + to.s) / 2);
  const [dx, dy, dz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const normal = [
    dy * inward[2] - dz * inward[1],
    dz * inward[0] - dx * inward[2],
    dx * inward[1] - dy * inward[0],
  ] as const;
  const size = Math.hypot(...normal);
  if (size < parallel) return { reason: 'the line has no length across the face', mend: 'Lay it over the face.' };
  const degrees = (radians: number): number => tidy((radians * 180) / Math.PI);
  const split: Split = {
    at: { x: tidy((a[0] + b[0]) / 2), y: tidy((a[1] + b[1]) / 2), z: tidy((a[2] + b[2]) / 2) },
    turn: degrees(Math.atan2(normal[1], normal[0])),
    tilt: degrees(Math.asin(Math.max(-1, Math.min(1, normal[2] / size)))),
  };
  return splitElement(document, element, split, keep);
}

/** An upright plane across the middle of an element, as it lies in space. */
export function planeAcross(document: ProjectDocument, element: Element): Split {
  const { chart, outline, thickness } = sheetsOf(document).of(element.id)!;
  const middle = (values: Float64Array): number => (Math.min(...values) + Math.max(...values)) / 2;
  const [x, y, z] = pointAt(chart, middle(outline.xs), middle(outline.ys), thickness / 2).map(tidy) as [
    number,
    number,
    number,
  ];
  return { at: { x, y, z }, turn: element.turn, tilt: 0 };
}

/** Keeps what a split takes away too, as an element of its own. */
export function keepBoth(
  document: ProjectDocument,
  element: Element,
  which: number,
): { changeSet: ChangeSet; id: string | null } | Impossible {
  const split = splitInSpace(element.splits![which]!, element);
  const without = applyChangeSet(document, alterSplit(element, which, undefined)).document;
  const made = splitElement(without, without.elements[element.id]!, split, 'both');
  return 'reason' in made
    ? made
    : { ...made, changeSet: { ...made.changeSet, name: `keep both sides of ${element.name}` } };
}
