/** The parts that an element's openings carry, in their places. */
import {
  isSetIn,
  type Dimensions,
  type Dormer,
  type Part,
  type Pattern,
  type SetIn,
  type Units,
} from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import seedrandom from 'seedrandom';
import type { Rigid } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import { across, fromBehind } from '../setout/across.ts';
import { defaultFineness } from '../profile/flatten.ts';
import { squareSections } from '../profile/section.ts';
import { outlineOf } from '../setout/outlined.ts';
import type { Placed } from '../setout/placed.ts';
import { infillFront, infillOf, type InfillPart } from './infill.ts';
import type { Motion } from './leaf.ts';
import type { Front, PartInstance, PartLeftOut, PartMesh } from './part.ts';
import type { Vector } from '../vector.ts';
import { guard, shutters } from './before.ts';
import {
  asShuttered,
  asStoodIn,
  carriedWith,
  placementOf,
  toldOnOutline,
  type Going,
  type OnOutline,
  type Stood,
} from './carried.ts';
import { betweenOpenings, runsIntoReveal, withinOpenings, type Clash } from './clashes.ts';
import { chimneyOf } from './chimney.ts';
import { dormerOf, dormerWindow } from './dormer.ts';
import { holdsPoint } from '../mesh/region.ts';
import { guarded } from './guarded.ts';
import { importedKey, importedPart } from './imported.ts';
import { alongReveal, type OnFace } from './along-reveal.ts';
import { lining } from './lining.ts';
import { lunetteOf } from './lunette.ts';
import { roomKey } from './room.ts';
import { letIn } from './set-in.ts';
import { sillBoard } from './sill-board.ts';
import { surround } from './surround.ts';
import { nanometre } from '../tolerances.ts';

export interface Parts {
  instances: PartInstance[];
  leftOut: PartLeftOut[];
  /** What stands where something else is. */
  clashes: Clash[];
}

/** What makes each kind of part that stands on the wall: its meshes, or why there are none. */
const makers: {
  [K in Exclude<Part, SetIn>['kind']]: (
    part: Extract<Part, { kind: K }>,
    placed: Stood,
    units: Units,
  ) => InfillPart[] | string;
} = {
  dormer: (part, placed, units) => {
    const made = dormerMade(part, placed, units);
    return typeof made === 'string' ? made : still(made.part);
  },
  chimney: (part, placed, units) => still(chimneyOf(part, placed, units)),
  lunette: (part, placed) => still(lunetteOf(part, placed)),
  'sill board': (part, placed) => still(sillBoard(part, placed)),
  surround: (part, placed) => still(surround(part, placed)),
  lining: (part, placed) => still(lining(part, placed)),
  guard: (part, placed) => still(guard(part, placed)),
  shutters,
  imported: (part, { profile: { width, height }, depth }) => still(importedPart(part, { width, height, depth })),
};

const still = (made: PartMesh | string): InfillPart[] | string =>
  typeof made === 'string' ? made : [{ part: made, motions: [] }];

/** Makes a part by its kind. */
function makeOf(part: Part, placed: Stood, units: Units): InfillPart[] | string {
  if (isSetIn(part)) return still(letIn(part, placed, units));
  return (makers[part.kind] as (part: Part, placed: Stood, units: Units) => InfillPart[] | string)(part, placed, units);
}

/** Meshes by their keys, so that all that are alike share one. */
const meshes = new LRUCache<string, PartMesh>({ max: 4096 });
/** Makes something once for an outline with its sections and whatever else it depends on, told by a key. */
function oncePer<T>(): (placed: Placed, key: string, make: () => T) => T {
  const known = new WeakMap<Placed['outline'], WeakMap<Placed['sections'], Map<string, T>>>();
  return ({ outline, sections }, key, make) => {
    let bySections = known.get(outline);
    if (!bySections) known.set(outline, (bySections = new WeakMap()));
    let byKey = bySections.get(sections);
    if (!byKey) bySections.set(sections, (byKey = new Map()));
    let made = byKey.get(key);
    if (made === undefined) byKey.set(key, (made = make()));
    return made;
  };
}

const texts = new WeakMap<object, string>();
/** An object as text, written once: very many openings are of one pattern. */
function textOf(value: object | undefined): string {
  if (!value) return '';
  let text = texts.get(value);
  if (text === undefined) texts.set(value, (text = JSON.stringify(value)));
  return text;
}

const partOnce = oncePer<readonly InfillPart[] | string>();
const infillOnce = oncePer<readonly InfillPart[] | string>();

/** Kinds that have to do with what stands in the opening, or with a board on its sill. */
const onBoards: ReadonlySet<Part['kind']> = new Set(['sill board', 'lining', 'surround']);

/** How a part goes with its opening. */
const goingOf = (part: Part): Going => (isSetIn(part) ? 'set in' : part.kind === 'surround' ? 'planted' : 'standing');

/** An opening as a part finds it: only what stands in the reveal has to find its room there, and what lies against the face where that is. */
function foundBy(part: Part, sheet: Sheet, placed: Placed): { stands: Stood; key: string } {
  if (part.kind === 'guard') return asStoodIn(sheet, placed);
  return part.kind === 'shutters' ? asShuttered(sheet, placed, part.lap) : { stands: placed, key: '' };
}

/** A part of an opening as it goes with it. @param on the face on which it stands @param own the one on which its opening is set out */
function partIn(part: Part, on: OnFace, own: OnFace, units: Units): readonly InfillPart[] | string {
  if (part.kind === 'lining' || part.kind === 'sill board')
    return alongReveal(part, on, own, (stands) => meshesOf(part, stands, units));
  const { sheet, placed } = on;
  const going = goingOf(part);
  const { stands, key } = foundBy(part, sheet, placed);
  return carriedWith(going, sheet, placed, meshesOf(part, stands, units, key));
}

const meshesOf = (part: Part, placed: Stood, units: Units, key = ''): readonly InfillPart[] | string =>
  partOnce(
    placed,
    `${textOf(part)}${importedKey(textOf(part))} ${key} ${placed.depth} ${placed.kind} ${textOf(placed.pattern.sections)} ${units} ${placed.slope ?? ''} ${placed.pattern.onSlope ?? ''} ${textOf(placed.flank)}${onBoards.has(part.kind) ? `${roomKey(placed)} ${placed.until}` : ''}`,
    () => guarded(part.kind, () => makeOf(part, placed, units)),
  );

/** Kinds that stand on a face and cannot follow a curved one. */
const flatOnly: ReadonlySet<Part['kind']> = new Set(['dormer', 'chimney', 'lunette']);

/** Whether a part stands on the face opposite to the one on which its opening is set out. */
const isBehind = (part: Part): boolean => 'behind' in part && part.behind === true;

/** Why a part cannot stand where it is to stand, before anything is made of it. */
function refusal(part: Part, sheet: Sheet, through: boolean): string | null {
  const { chart } = sheet;
  if (isBehind(part) && !through) return 'it does not go through to the face behind';
  return flatOnly.has(part.kind) && chart.kind !== 'flat' ? `its ${part.kind} stands on flat faces only` : null;
}

/**
 * The parts of an element's openings.
 * @param sheet of its outer face.
 * @param openings each as it is placed on its own face.
 * @param without why parts that are to be let in were not, by opening and part.
 * @param markOf what an opening is called.
 */
export function partsOf(
  sheet: Sheet,
  openings: readonly Placed[],
  units: Units,
  {
    without = new Map(),
    markOf = (opening) => opening,
  }: { without?: ReadonlyMap<string, string> | undefined; markOf?: ((opening: string) => string) | undefined },
): Parts {
  const parts: Parts = { instances: [], leftOut: [], clashes: [] };
  const inner = turnedOver(sheet).sheet;
  const faceOf = (placed: Placed): OnFace => ({ placed, sheet: placed.face === 'inner' ? inner : sheet });
  for (const own of openings) {
    fillIn(parts, own, faceOf(own).sheet);
    for (const part of own.pattern.parts ?? []) {
      const through = own.depth >= sheet.thickness - nanometre;
      const on = faceOf(isBehind(part) && through ? across(sheet, own) : own);
      const { placed } = on;
      const made =
        refusal(part, sheet, through) ??
        notLetIn(part, without.get(`${own.id} / ${part.id}`)) ??
        partIn(part, on, faceOf(own), units);
      if (typeof made === 'string') parts.leftOut.push({ opening: own.id, id: part.id, reason: made });
      else {
        tellClash(parts, on.sheet, placed, made);
        const placement = placementOf(on.sheet, placed);
        put(parts, placed, { made, placement, idOf: (i) => (i === 0 ? part.id : `${part.id} ${i}`) });
        if (part.kind === 'dormer') dormered(parts, part, { placed, sheet, placement, units });
      }
    }
  }
  parts.clashes.push(...withinOpenings(parts.instances), ...betweenOpenings(parts.instances, markOf));
  return parts;
}

interface OnPlane {
  placed: Placed;
  sheet: Sheet;
  placement: Rigid;
  units: Units;
}

/** Puts a dormer's window in its front, and tells where its roof reaches over the plane's edges. */
function dormered(parts: Parts, dormer: Dormer, { placed, sheet, placement, units }: OnPlane): void {
  const slope = placed.slope ?? 0;
  const [cos, sin] = [Math.cos(slope), Math.sin(slope)];
  const { origin, x, y, z } = placement;
  const mixed = (a: number, b: number): Vector => [a * z[0] + b * y[0], a * z[1] + b * y[1], a * z[2] + b * y[2]];
  const [inward, upright] = [mixed(cos, sin), mixed(sin, 0 - cos)];
  const window = dormerWindow(dormer, placed);
  if (window?.placed.pattern.infill) {
    const { infill } = window.placed.pattern;
    const [, d, h] = window.at;
    const stands: Rigid = {
      origin: [0, 1, 2].map((k) => origin[k]! + d * inward[k]! + h * upright[k]!) as unknown as Vector,
      x,
      y: inward,
      z: upright,
    };
    const made = windowOnce(
      window.placed,
      `${textOf(infill)}${importedKey(textOf(infill))} ${window.placed.depth}`,
      () => guarded('infill', () => infillOf(infill, window.placed)),
    );
    if (typeof made === 'string')
      parts.leftOut.push({ opening: placed.id, id: dormer.id, reason: `its dormer’s window: ${made}` });
    else put(parts, window.placed, { made, placement: stands, idOf: (i) => `${dormer.id} window ${i}` });
  }
  const solids = dormerMade(dormer, placed, units);
  if (typeof solids === 'string') return;
  const region = { ...sheet.outline, count: sheet.outline.xs.length };
  const over = solids.reach.some(
    ([px, pd]) => pd > 0 && !holdsPoint(region, placed.s + placed.profile.width / 2 + px, placed.t + pd / cos - 1e-6),
  );
  if (over)
    parts.clashes.push({
      opening: placed.id,
      reason: 'its dormer reaches over the plane’s edge, a ridge, hip or verge',
      mend: 'Move it down or aside, make it lower or narrower, or give its roof more pitch than the plane leaves it.',
    });
}

const dormerOnce = oncePer<ReturnType<typeof dormerOf>>();

/** A dormer with how far it reaches, made once for all that are alike. */
const dormerMade = (dormer: Dormer, placed: Placed, units: Units): ReturnType<typeof dormerOf> =>
  dormerOnce(placed, `${textOf(dormer)} ${placed.slope ?? ''} ${units}`, () => dormerOf(dormer, placed, units));

const windowOnce = oncePer<readonly InfillPart[] | string>();

const notLetIn = ({ kind }: Part, why: string | undefined): string | null => (why ? `its ${kind} ${why}` : null);

/** Puts what was made for an opening in its place, what moves as far as it has moved. */
function put(
  parts: Parts,
  placed: Placed,
  { made, placement, idOf }: { made: readonly InfillPart[]; placement: Rigid; idOf: (i: number) => string },
): void {
  made.forEach(({ part, motions, about }, i) =>
    parts.instances.push({
      part: shared(part),
      element: placed.element,
      opening: placed.id,
      id: idOf(i),
      face: placed.face ?? 'outer',
      placement: from(
        motions.reduce((shut, motion) => shifted(shut, motion, amountOf(placed, motion)), placement),
        about,
      ),
    }),
  );
}

/** Where leaves stand that have not moved: in the opening's own directions. */
const shut: Rigid = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** Whether a leaf runs into the reveal as it stands. @param told where a point of it is on the outline */
const clashes = (made: readonly InfillPart[], placed: Placed, told?: () => OnOutline): boolean =>
  made.some((one) => {
    const amounts = one.motions.map((motion) => amountOf(placed, motion));
    if (amounts.every((amount) => amount === 0) || one.motions.some(({ kind }) => kind === 'slide')) return false;
    const stands = one.motions.reduce((so, motion, i) => shifted(so, motion, amounts[i]!), shut);
    return runsIntoReveal(one, from(stands, one.about), placed, { moves: amounts.join(), told: told?.() });
  });

/** Tells of leaves that run into the reveal. @param sheet of the face on which the opening is told */
function tellClash(parts: Parts, sheet: Sheet, placed: Placed, made: readonly InfillPart[]): void {
  if (clashes(made, placed, () => toldOnOutline(sheet, placed)))
    parts.clashes.push({ opening: placed.id, ...intoReveal(made) });
}

function intoReveal(made: readonly InfillPart[]): { reason: string; mend: string } {
  const { name } = made.at(-1)!.part;
  if (name === 'shutter')
    return { reason: 'its shutters run into the wall as they stand open', mend: 'Open them less.' };
  return {
    reason: `its ${name} runs into the reveal as it stands open`,
    mend: 'Open it less, seat the infill nearer to the face to which it opens, or let the reveal splay.',
  };
}

/** What stands in an opening, as it goes with it; or why it has none. @param sheet of the face on which the opening is told */
export function infillIn(sheet: Sheet, own: Placed): readonly InfillPart[] | string {
  const { infill, sections } = own.pattern;
  if (!infill) return [];
  const follows = infill.curve === 'follows';
  const { stands, key } = asStoodIn(sheet, own, follows);
  const flat = infillOnce(
    stands,
    `${textOf(infill)}${importedKey(textOf(infill))} ${textOf(sections)} ${own.depth} ${own.layers?.join() ?? ''} ${key}`,
    () => guarded('infill', () => infillOf(infill, stands)),
  );
  return carriedWith(follows ? 'planted' : 'standing', sheet, own, flat);
}

/** Puts an opening's infill in its place, each leaf turned about its hinges. */
function fillIn(parts: Parts, own: Placed, sheet: Sheet): void {
  const made = infillIn(sheet, own);
  if (typeof made === 'string') return void parts.leftOut.push({ opening: own.id, id: 'infill', reason: made });
  tellClash(parts, sheet, own, made);
  put(parts, own, { made, placement: placementOf(sheet, own), idOf: (i) => (i === 0 ? 'infill' : `leaf ${i}`) });
}

/**
 * How far a leaf has moved. What an opening says is said of its leaves, not of those that hang in them; else it is varied by
 * what it is, so that it is the same every time.
 */
export function amountOf({ id, open, slid }: Placed, { kind, by, vary, level, of }: Motion): number {
  const most = kind === 'turn' ? 180 : 1;
  const own = kind === 'turn' ? open : slid;
  if (own !== undefined && level === 0) return own;
  if (vary === 0) return by;
  return Math.max(0, Math.min(most, by + vary * (2 * seedrandom(`${id} ${of}`)() - 1)));
}

/** The mesh that all that are alike share. */
function shared(part: PartMesh): PartMesh {
  const known = meshes.get(part.key);
  if (!known) meshes.set(part.key, part);
  return known ?? part;
}

/** A placement whose origin is at a point in its own directions. */
function from(placement: Rigid, about: readonly [number, number, number] | undefined): Rigid {
  if (!about) return placement;
  const { origin, x, y, z } = placement;
  const at = (i: number): number => origin[i]! + x[i]! * about[0] + y[i]! * about[1] + z[i]! * about[2];
  return { ...placement, origin: [at(0), at(1), at(2)] };
}

/** A placement moved as a leaf moves, in its own directions. */
function shifted(shut: Rigid, { kind, at, along, times }: Motion, by: number): Rigid {
  if (by === 0) return shut;
  const { origin, x, y, z } = shut;
  const point = ([px, py, pz]: Vector, { x, y, z }: Omit<Rigid, 'origin'>): Vector =>
    [0, 1, 2].map((i) => x[i]! * px + y[i]! * py + z[i]! * pz) as unknown as Vector;
  if (kind === 'slide') {
    const gone = point(along, shut);
    return { ...shut, origin: [origin[0] + by * gone[0], origin[1] + by * gone[1], origin[2] + by * gone[2]] };
  }
  const upright = along[2] !== 0;
  const radians = ((upright ? along[2] : along[0]) * times * by * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const mixed = (a: Vector, p: number, b: Vector, q: number): Vector => [
    a[0] * p + b[0] * q,
    a[1] * p + b[1] * q,
    a[2] * p + b[2] * q,
  ];
  const turned = upright
    ? { x: mixed(x, cos, y, sin), y: mixed(y, cos, x, 0 - sin), z }
    : { x, y: mixed(y, cos, z, sin), z: mixed(z, cos, y, 0 - sin) };
  const [was, is] = [point(at, shut), point(at, turned)];
  return { ...turned, origin: [origin[0] + was[0] - is[0], origin[1] + was[1] - is[1], origin[2] + was[2] - is[2]] };
}

/** In what wall a pattern is drawn that stands in none. */
const drawnIn = 0.35;
/** How what is on the face behind stands to the one before, in that wall. */
const turned: Rigid = { origin: [0, drawnIn, 0], x: [-1, 0, 0], y: [0, -1, 0], z: [0, 0, 1] };

type Figured = Pick<Pattern, 'profile' | 'infill' | 'parts' | 'sections'>;

/** A pattern's opening in one of its sizes, as if in a plain wall; or why there is none. */
function standingAlone(pattern: Figured, dimensions: Dimensions, units: Units): Placed | string {
  const made = outlineOf(pattern.profile, dimensions, units, defaultFineness);
  if ('reason' in made) return made.reason;
  return {
    id: '',
    element: '',
    s: 0,
    t: 0,
    ...made,
    pattern: { id: '', name: '', sizes: {}, reveal: { material: null }, ...pattern },
    blockedUp: false,
    kind: 'through',
    depth: drawnIn,
    sections: squareSections(drawnIn),
    // What stands on a roof is drawn as on a plane of 45 degrees.
    slope: Math.PI / 4,
  };
}

/** A pattern as it is drawn, and what of it could not be. */
interface Picture {
  front: readonly Front[];
  reason: string | null;
}

/** How a pattern is drawn in one of its sizes, with what stands in and about it on its own face, as if in a plain wall; from the middle of its sill. */
export function patternPicture(pattern: Figured, dimensions: Dimensions, units: Units): Picture {
  const placed = standingAlone(pattern, dimensions, units);
  return typeof placed === 'string' ? { front: [], reason: placed } : pictureOf(placed, dimensions, units);
}

function pictureOf(placed: Placed, dimensions: Dimensions, units: Units): Picture {
  const { pattern } = placed;
  const front: Front[] = [];
  let reason: string | null = null;
  for (const part of pattern.parts ?? []) {
    // What is behind the face, and what runs from there into a vault, is not seen on it.
    if (isBehind(part) || part.kind === 'lunette') continue;
    const built = meshesOf(part, placed, units);
    if (typeof built === 'string') reason ??= built;
    else for (const one of built) front.push(...frontOf(one.part));
    if (part.kind === 'dormer' && typeof built !== 'string') front.push(...windowFront(part, placed));
  }
  const infill = pattern.infill && infillFront(pattern, dimensions, units);
  if (infill && 'reason' in infill) reason ??= infill.reason;
  // What stands on the wall hides what is let into it; what stands in the opening is seen whole.
  return { front: [...front, ...(infill && 'front' in infill ? infill.front : [])], reason };
}

/** How a pattern is drawn in one of its sizes, as its picture is, and what is wrong with it there: what could not be made, within or without, and what runs into what. */
export function patternFront(pattern: Figured, dimensions: Dimensions, units: Units): Picture {
  const placed = standingAlone(pattern, dimensions, units);
  if (typeof placed === 'string') return { front: [], reason: placed };
  const { front, reason } = pictureOf(placed, dimensions, units);
  return { front, reason: reason ?? wrongIn(placed, units) };
}

/** What is wrong with what stands in and about an opening that stands alone, from either face; null where nothing is. */
function wrongIn(placed: Placed, units: Units): string | null {
  const { infill, parts = [] } = placed.pattern;
  const stands: Parts = { instances: [], leftOut: [], clashes: [] };
  const fromWithin: Placed = { ...placed, outline: fromBehind(placed.outline), face: 'inner', own: 'outer' };
  for (const part of parts) {
    if (part.kind === 'lunette') continue;
    const behind = isBehind(part);
    const built = meshesOf(part, behind ? fromWithin : placed, units);
    if (typeof built === 'string') return built;
    put(stands, placed, { made: built, placement: behind ? turned : shut, idOf: () => part.id });
  }
  const stood = infill && infillOf(infill, placed);
  if (Array.isArray(stood)) {
    if (clashes(stood, placed)) return intoReveal(stood).reason;
    put(stands, placed, { made: stood, placement: shut, idOf: () => 'infill' });
  }
  return withinOpenings(stands.instances)[0]?.reason ?? null;
}

/** How the window in a dormer's front is drawn. */
function windowFront(dormer: Dormer, placed: Placed): Front[] {
  const window = dormerWindow(dormer, placed)?.placed;
  const made = window?.pattern.infill ? infillOf(window.pattern.infill, window) : [];
  return typeof made === 'string' ? [] : made.flatMap(({ part }) => part.front ?? []);
}

/** How a part is drawn as it is seen on its face; one without a drawing of its own as all that it covers. */
export function frontOf({ front, mesh: { points, runs } }: PartMesh): readonly Front[] {
  if (front) return front;
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ] as [[number, number], [number, number]];
  for (let i = 0; i < points.length; i += 3)
    [0, 2].forEach((axis, k) => {
      low[k] = Math.min(low[k]!, points[i + axis]!);
      high[k] = Math.max(high[k]!, points[i + axis]!);
    });
  return [
    {
      kind: 'solid',
      loops: [[low, [high[0], low[1]], high, [low[0], high[1]]]],
      ...(runs[0] ? { material: runs[0].material } : {}),
    },
  ];
}
