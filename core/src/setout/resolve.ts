/** Resolving: from an opening's intent to its place on the face of its element, or why it has none. */
import { LRUCache } from 'lru-cache';
import { fault, type Fault, type FindingCode } from '../finding.ts';
import {
  overridden,
  type Along,
  type Axis,
  type Datum,
  dimensionNames,
  type Dimensions,
  type Element,
  extentOf,
  faceLabel,
  isManyFaced,
  isShell,
  kindOf,
  type FaceName,
  formatLength,
  type Grip,
  isUpright,
  type Opening,
  parentsOf,
  type Pattern,
  type ProfileChoice,
  type ProjectDocument,
  row,
  type Units,
  unitsLabel,
  type Up,
  type Way,
} from '@yard-arch/document';
import { defaultFineness, finenessKey, flatten, type Fineness, type Outline } from '../profile/flatten.ts';
import type { Impossible, Profile, Side } from '../profile/profile.ts';
import { sectionLine, squareSection, type SectionLine } from '../profile/section.ts';
import { isImpossible, profileOf } from '../profile/shapes.ts';
import { tidy } from '../tidy.ts';
import type { Sheet } from '../element/sheet.ts';
import { finenessOf, sheetsOf } from '../element/sheets.ts';
import { turnedOver } from '../element/turned-over.ts';
import { courseHeightOf } from './courses.ts';
import { micrometre, nanometre } from '../tolerances.ts';

/** An opening in its place: its outline's lower left corner is at (s, t) on its element's face, metres. */
export interface Placed {
  id: string;
  element: string;
  /** The face on which it is told where it is, and its own where that is another; the outer one where nothing is said. */
  face?: FaceName;
  own?: FaceName;
  s: number;
  t: number;
  profile: Profile;
  outline: Outline;
  pattern: Pattern;
  /** Where it comes down on several planes: which of them alone it cuts. */
  planes?: readonly FaceName[];
  /** How steep the plane is on which it is, radians; none but on a roof's. */
  slope?: number;
  blockedUp: boolean;
  /** By how many degrees its leaves stand open, where it says otherwise than its pattern. */
  open?: number;
  /** By what share of their way those that slide have slid. */
  slid?: number;
  /** What it does. */
  kind: NonNullable<Pattern['cut']>['kind'];
  /** The depth at which it begins, metres, where that is not the outer face. */
  from?: number;
  /** How deep it cuts, or how high it is raised, metres; the element's thickness where it goes right through. */
  depth: number;
  /** How thick the layers are that it meets, from the face on which it is told. */
  layers?: readonly number[];
  /** How each side departs from square over that depth. */
  sections: Readonly<Record<Side, SectionLine>>;
  /** The outline in which something can stand in it, where it runs over its element’s edge. */
  clear?: Outline;
  /** How far its outline moves along and up with every metre of depth, where it is carried on skew. */
  drift?: readonly [number, number];
  /** Where it lies otherwise than it is set out, as on a dome seen from above: what its own directions across and up are there, and where the middle of its sill is. */
  leans?: readonly [number, number, number, number, number, number];
  /** The back of the barrel that it runs into, as far in and up as it comes before it. */
  flank?: readonly (readonly [number, number])[];
  /** The plane in which it is drawn and the way in which it is carried through a curved wall, where that is not square to the wall at its middle. */
  carrier?: Carrier;
}

/** A plane, and the way in which an outline drawn in it is carried: a point in plan (metres) that is the outline's middle, level unit vectors along it and the way, and the rise a metre of way. */
export interface Carrier {
  x: number;
  y: number;
  along: readonly [number, number];
  way: readonly [number, number];
  slope: number;
}

export function sameCarrier(a: Carrier | undefined, b: Carrier | undefined): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

/** An opening that could not be placed, why, and what would mend it. */
export interface Unplaced extends Fault {
  id: string;
  element: string;
}

/** A length for a sentence, with its unit. */
export function worded(metres: number, units: Units): string {
  return units === 'ft-in' ? formatLength(metres, units) : `${formatLength(metres, units)} ${unitsLabel(units)}`;
}

/** How far the grip of a profile is from the lower left corner of its bounding rectangle, metres. Without a springing line the head stands for it. */
export function gripOffset(profile: Pick<Profile, 'width' | 'height' | 'springing'>, grip: Grip): [number, number] {
  const x = grip.across === 'left' ? 0 : grip.across === 'centre' ? profile.width / 2 : profile.width;
  const { height, springing } = profile;
  const y = { sill: 0, middle: height / 2, head: height, springing: springing ?? height }[grip.level];
  return [x, y];
}

/** Where an intent along an element leads, metres from its start; null when it names an axis or an opening that is gone, or leads back to itself. */
export function alongAt(
  document: ProjectDocument,
  element: Element,
  along: Along,
  face: FaceName = 'outer',
): number | null {
  const length = along.from === 'start' ? 0 : lengthOf(document, element, face);
  switch (along.from) {
    case 'start':
      return along.distance;
    case 'middle':
      return length / 2 + along.distance;
    case 'end':
      return length - along.distance;
    case 'axis': {
      const axis = row(document, 'axes', along.axis);
      return axis ? axisOn(document, element, axis.along, face) + along.distance : null;
    }
    case 'fraction':
      return length * along.fraction + along.distance;
    case 'neighbour': {
      const left = edgeOf(document, element, along.opening, face);
      return left && left.at + { left: 0, centre: left.width / 2, right: left.width }[along.edge] + along.distance;
    }
    case 'between': {
      const [before, after] = [
        along.left === null ? { at: 0, width: 0 } : edgeOf(document, element, along.left, face),
        along.right === null ? { at: length } : edgeOf(document, element, along.right, face),
      ];
      return before && after && (before.at + before.width + after.at) / 2 + along.distance;
    }
  }
}

/** Where an opening's left side is along its element, and how wide it is. */
interface Left {
  at: number;
  width: number;
}

/** Where an opening's sill is above its element's base, and how high its springing line and head are above that. */
interface Low {
  at: number;
  springing: number;
  height: number;
}

/** Places of openings that others are measured from; null where one has none. A document is never changed, so what was found of it stays. */
const lefts = new WeakMap<ProjectDocument, Map<string, Left | null>>();
const lows = new WeakMap<ProjectDocument, Map<string, Low | null>>();

/** The same as seen on a face, whichever the opening's own. */
function edgeOf(document: ProjectDocument, element: Element, id: string, face: FaceName): Left | null {
  const left = placeIn(lefts, document, id, {
    way: 'along',
    place: (opening, profile) => {
      const grip = alongAt(document, element, opening.along, opening.face);
      return grip === null ? null : { at: grip - gripOffset(profile, opening.grip)[0], width: profile.width };
    },
  });
  const own = row(document, 'openings', id)?.face ?? 'outer';
  if (!left || own === face) return left;
  if (!isSide(own) || !isSide(face)) return null;
  const [a, b] = [left.at + left.width, left.at].map((s) => overTo(document, element, s, face)) as [number, number];
  return { at: a, width: b - a };
}

/** A distance along the one face as one along the other. @param face the face to which it goes over. */
export function overTo(document: ProjectDocument, element: Element, s: number, face: FaceName): number {
  const sheet = sheetsOf(document).of(element.id);
  if (!sheet) return s;
  const over = turnedOver(sheet);
  return face === 'inner' ? over.toInner(s) : over.toOuter(s);
}

/** Whether a face is one of a sheet's two, and not one of many. */
const isSide = (face: FaceName): boolean => face === 'outer' || face === 'inner';

/** How long a face is for setting out, metres. */
export function lengthOf(document: ProjectDocument, element: Element, face: FaceName = 'outer'): number {
  return face === 'outer' && !isManyFaced(element) && !isShell(element)
    ? extentOf(element).length
    : (sheetsOf(document).on(element.id, face)?.length ?? 0);
}

/** How high a face is, metres: as far up its slope as it reaches. */
const heightOf = (document: ProjectDocument, element: Element, face: FaceName): number =>
  isSide(face) && !isManyFaced(element) && !isShell(element)
    ? extentOf(element).height
    : (sheetsOf(document).on(element.id, face)?.height ?? 0);

/** How far up a face a level is, metres; null where that is no height on it. @param level metres above nothing */
export function levelOn(
  document: ProjectDocument,
  element: Element,
  level: number,
  face: FaceName = 'outer',
): number | null {
  if (isSide(face)) return level - element.start.z;
  const chart = sheetsOf(document).on(element.id, face)?.chart;
  return chart?.kind === 'flat' ? (level - chart.origin[2]) / chart.up[2] : null;
}

/** The same the other way: how far along the outer face something is that is there on a face. */
export const axisFrom = (document: ProjectDocument, element: Element, s: number, face: FaceName): number =>
  face === 'inner' ? overTo(document, element, s, 'outer') : s;

/** Where an axis is on a face. @param along metres along the outer one. */
export const axisOn = (document: ProjectDocument, element: Element, along: number, face: FaceName): number =>
  face === 'inner' ? overTo(document, element, along, face) : along;

const lowOf = (document: ProjectDocument, element: Element, id: string): Low | null =>
  placeIn(lows, document, id, {
    way: 'up',
    place: (opening, profile) => {
      const grip = upAt(document, element, opening.up, opening.face);
      return grip === null
        ? null
        : {
            at: grip - gripOffset(profile, opening.grip)[1],
            springing: profile.springing ?? profile.height,
            height: profile.height,
          };
    },
  });

/** The place of an opening that another is measured from. However long the chain of those that each is measured from, it is gone along once, from its far end: of a ring none has a place. */
function placeIn<T>(
  places: WeakMap<ProjectDocument, Map<string, T | null>>,
  document: ProjectDocument,
  id: string,
  { way, place }: { way: Way; place: (opening: Opening, profile: Profile) => T | null },
): T | null {
  let known = places.get(document);
  if (!known) places.set(document, (known = new Map<string, T | null>()));
  if (known.has(id)) return known.get(id)!;
  const waiting = [id];
  const begun = new Set<string>();
  while (waiting.length > 0) {
    const at = waiting.at(-1)!;
    const opening = row(document, 'openings', at);
    const parents = opening ? parentsOf(opening, way).filter((parent) => !known.has(parent) && !begun.has(parent)) : [];
    if (opening && !begun.has(at) && parents.length > 0) {
      begun.add(at);
      waiting.push(...parents);
      continue;
    }
    waiting.pop();
    if (known.has(at)) continue;
    const profile =
      opening && parentsOf(opening, way).every((parent) => known.has(parent))
        ? profileOfOpening(document, opening)
        : null;
    known.set(at, opening && profile ? place(opening, profile) : null);
  }
  return known.get(id)!;
}

/** An opening's dimensions: its own, or those of its size; undefined where its pattern has no such size. */
export function dimensionsOf(pattern: Pattern, opening: Pick<Opening, 'size' | 'own'>): Dimensions | undefined {
  return (
    opening.own ?? (Object.hasOwn(pattern.sizes, opening.size) ? pattern.sizes[opening.size]!.dimensions : undefined)
  );
}

/** The profile of an opening as it is dimensioned, or null when that makes none. */
export function profileOfOpening(
  document: ProjectDocument,
  opening: Pick<Opening, 'pattern' | 'size' | 'own'>,
): Profile | null {
  const pattern = row(document, 'patterns', opening.pattern);
  const dimensions = pattern && dimensionsOf(pattern, opening);
  if (!pattern || !dimensions || !fits(pattern, dimensions)) return null;
  const made = outlineOf(pattern.profile, dimensions, document.units, defaultFineness);
  return 'reason' in made ? null : made.profile;
}

/** Whether dimensions are those that a pattern's shape needs. */
function fits(pattern: Pattern, dimensions: Dimensions): boolean {
  return dimensionNames(pattern.profile.shape).every((name) => Object.hasOwn(dimensions, name));
}

/** Where an intent up an element leads, metres above its base; null when it names a datum that is gone. */
export function upAt(document: ProjectDocument, element: Element, up: Up, face: FaceName = 'outer'): number | null {
  switch (up.from) {
    case 'base':
      return up.distance;
    case 'top':
      return heightOf(document, element, face) - up.distance;
    case 'datum': {
      const datum = row(document, 'datums', up.datum);
      const t = datum && levelOn(document, element, datum.level, face);
      return t === null || t === undefined ? null : t + up.distance;
    }
    case 'neighbour': {
      const low = lowOf(document, element, up.opening);
      return low && low.at + { sill: 0, springing: low.springing, head: low.height }[up.edge] + up.distance;
    }
    case 'course':
      return onCourse(courseOn(document, element, face), up.distance);
  }
}

/** Height of a course of a face's masonry, metres; null where it has none. */
export function courseOn(document: ProjectDocument, element: Element, face: FaceName = 'outer'): number | null {
  const layer = element.layers.at(face === 'inner' ? -1 : 0)!;
  return courseHeightOf(row(document, 'materials', layer.material)?.texture);
}

/** The nearest course to a height. */
function onCourse(course: number | null, t: number): number {
  return course === null ? t : tidy(Math.round(t / course) * course);
}

/** The same intent with the distance that leads to `s` metres from the element's start. */
export function alongTo(
  document: ProjectDocument,
  element: Element,
  along: Along,
  { s, face }: { s: number; face?: FaceName | undefined },
): Along {
  const origin = alongAt(document, element, { ...along, distance: 0 }, face) ?? 0;
  return { ...along, distance: tidy(along.from === 'end' ? origin - s : s - origin) };
}

/** The same intent with the distance that leads to `t` metres above the element's base. */
export function upTo(
  document: ProjectDocument,
  element: Element,
  up: Up,
  { t, face }: { t: number; face?: FaceName | undefined },
): Up {
  // What does not lie on a course is held to none.
  if (up.from === 'course')
    return Math.abs(onCourse(courseOn(document, element, face), t) - t) < micrometre
      ? { from: 'course', distance: tidy(t) }
      : { from: 'base', distance: tidy(t) };
  const origin = upAt(document, element, { ...up, distance: 0 }, face) ?? 0;
  return { ...up, distance: tidy(up.from === 'top' ? origin - t : t - origin) };
}

type Outlined = { profile: Profile; outline: Outline } | Impossible;
const kept = new LRUCache<string, Outlined>({ max: 4096 });

/** The same by the very choice and dimensions, which all openings of a size share: what is asked last is mostly asked again. */
const lastOutlines = new WeakMap<ProfileChoice, WeakMap<Dimensions, { key: number; units: Units; made: Outlined }>>();

/** Profile and outline of a pattern's choice with dimensions; the same object for the same question, for as long as it is among the last ones asked. */
export function outlineOf(choice: ProfileChoice, dimensions: Dimensions, units: Units, fineness: Fineness): Outlined {
  const fine = finenessKey(fineness);
  let byDimensions = lastOutlines.get(choice);
  if (!byDimensions) lastOutlines.set(choice, (byDimensions = new WeakMap()));
  const last = byDimensions.get(dimensions);
  if (last && last.key === fine && last.units === units) return last.made;
  const made = outlineByText(choice, dimensions, units, fineness);
  byDimensions.set(dimensions, { key: fine, units, made });
  return made;
}

function outlineByText(choice: ProfileChoice, dimensions: Dimensions, units: Units, fineness: Fineness): Outlined {
  const key = JSON.stringify([choice, dimensions, units, fineness]);
  const known = kept.get(key);
  if (known) return known;
  const profile = profileOf(choice, dimensions, units);
  const made = isImpossible(profile) ? profile : { profile, outline: flatten(profile, fineness) };
  kept.set(key, made);
  return made;
}

const sides: Side[] = ['sill', 'jamb-right', 'head', 'jamb-left'];
type Sections = Readonly<Record<Side, SectionLine>> | Impossible;
const keptSections = new LRUCache<string, Sections>({ max: 4096 });
const lastSections = new WeakMap<Pattern, { depth: number; units: Units; slope: number | null; made: Sections }>();

/** The sections of a pattern's sides over a depth; the same object for the same question. */
function sectionsOf(pattern: Pattern, depth: number, units: Units, slope: number | null): Sections {
  const last = lastSections.get(pattern);
  if (last && last.depth === depth && last.units === units && last.slope === slope) return last.made;
  const made = sectionsByText(pattern, depth, units, slope);
  lastSections.set(pattern, { depth, units, slope, made });
  return made;
}

function sectionsByText(pattern: Pattern, depth: number, units: Units, slope: number | null): Sections {
  const sloping = slope !== null && !pattern.sections && (pattern.onSlope ?? 'level') === 'level';
  const key = JSON.stringify([pattern.sections, pattern.cut?.kind, depth, units, sloping && slope]);
  const found = keptSections.get(key);
  if (found) return found;
  const kind = pattern.cut?.kind ?? 'through';
  const use =
    kind === 'niche' || kind === 'niche to layer'
      ? 'niche'
      : kind === 'boss' || kind === 'keep inside'
        ? 'raised'
        : 'through';
  const made = {} as Record<Side, SectionLine>;
  const square = squareSection(depth);
  let outcome: Sections = made;
  const byText = new Map<string, SectionLine>();
  for (const side of sides) {
    const section = pattern.sections?.[side];
    if (!section) {
      made[side] = sloping ? slopedSection(side, depth, slope, square) : square;
      continue;
    }
    // Sides with one and the same section share it, so that neighbours are known to move alike.
    const text = JSON.stringify(section);
    const line = byText.get(text) ?? sectionLine(section, depth, use, (metres) => worded(metres, units));
    if ('reason' in line) {
      outcome = { reason: `${sideWords[side]}: ${line.reason}`, mend: line.mend };
      break;
    }
    byText.set(text, line);
    made[side] = line;
  }
  keptSections.set(key, outcome);
  return outcome;
}

/** How steep a face that is one of many rises, radians; null of any other, and where it lies level. */
function slopeOf(sheet: Sheet | null): number | null {
  const up = sheet?.face !== undefined && sheet.chart.kind === 'flat' ? sheet.chart.up[2] : 0;
  return up > 0 ? Math.asin(Math.min(1, up)) : null;
}

/** A side of a reveal in a slope whose head is level and whose sill is plumb: both draw away from the outline as they go in. */
function slopedSection(side: Side, depth: number, slope: number, square: SectionLine): SectionLine {
  const away = side === 'head' ? 1 / Math.tan(slope) : side === 'sill' ? Math.tan(slope) : 0;
  return away === 0 ? square : { n: [0, depth], offset: [0, away * depth], smooth: [false, false] };
}

/** What a side is called in a sentence. */
export const sideWords: Record<Side, string> = {
  sill: 'sill',
  head: 'head',
  'jamb-left': 'left jamb',
  'jamb-right': 'right jamb',
};

/** How deep a pattern cuts into a build-up (metres), or why it cannot. */
export function depthOf(pattern: Pattern, layers: Element['layers'], units: Units): number | Impossible {
  const thickness = layers.reduce((sum, layer) => sum + layer.thickness, 0);
  const cut = pattern.cut ?? { kind: 'through' as const };
  if (cut.kind === 'niche') {
    if (cut.depth >= thickness - nanometre)
      return {
        reason: `a niche ${worded(cut.depth, units)} deep goes through an element ${worded(thickness, units)} thick`,
        mend: `Make it less than ${worded(thickness, units)} deep, or let it cut through.`,
      };
    return cut.depth;
  }
  if (cut.kind === 'niche to layer') {
    if (cut.layers >= layers.length)
      return {
        reason: `it is to stop behind ${cut.layers} layer${cut.layers === 1 ? '' : 's'}, and the element has ${layers.length} in all`,
        mend:
          layers.length > 1
            ? `Let it stop behind ${layers.length - 1} at most, or cut through.`
            : 'Let it cut through, or to a depth.',
      };
    return layers.slice(0, cut.layers).reduce((sum, layer) => sum + layer.thickness, 0);
  }
  return cut.kind === 'boss' ? cut.height : thickness;
}

const resolved = new WeakMap<Opening, { from: readonly unknown[]; outcome: Placed | Unplaced }>();

/** Places one opening; the same object for the same question. */
export function resolveOpening(
  document: ProjectDocument,
  opening: Opening,
  fineness: Fineness = finenessOf(document),
): Placed | Unplaced {
  const { along, up } = opening;
  // What it is measured from another one by depends on more than can be compared cheaply.
  if (parentsOf(opening, 'along').length + parentsOf(opening, 'up').length > 0)
    return resolveAnew(document, opening, fineness);
  const from = [
    row(document, 'elements', opening.element),
    row(document, 'patterns', opening.pattern),
    along.from === 'axis' ? row(document, 'axes', along.axis) : null,
    up.from === 'datum' ? row(document, 'datums', up.datum) : null,
    up.from === 'course' ? document.materials : null,
    opening.face === undefined ? null : sheetsOf(document).on(opening.element, opening.face),
    document.units,
    finenessKey(fineness),
  ];
  const known = resolved.get(opening);
  if (known && known.from.every((value, i) => value === from[i])) return known.outcome;
  const outcome = resolveAnew(document, opening, fineness);
  resolved.set(opening, { from, outcome });
  return outcome;
}

function resolveAnew(document: ProjectDocument, opening: Opening, fineness: Fineness): Placed | Unplaced {
  const refuse = (code: FindingCode, reason: string, mend: string): Unplaced => ({
    id: opening.id,
    element: opening.element,
    ...fault(code, reason, mend),
  });
  const element = row(document, 'elements', opening.element);
  if (!element)
    return refuse(
      'element-gone',
      'its element was removed',
      'Bring the element back with undo, or remove this opening.',
    );
  const plain = row(document, 'patterns', opening.pattern);
  const pattern = plain && overridden(plain, opening.overrides);
  if (!pattern) return refuse('pattern-gone', 'its pattern was removed', 'Give it another pattern.');
  const dimensions = dimensionsOf(pattern, opening);
  if (!dimensions)
    return refuse('size-gone', `the pattern “${pattern.name}” no longer has its size`, 'Choose another size.');
  if (!fits(pattern, dimensions))
    return refuse(
      'other-dimensions',
      'its own dimensions are those of another shape',
      'Bring it back to its size, or type its dimensions again.',
    );
  const made = outlineOf(pattern.profile, dimensions, document.units, fineness);
  if ('reason' in made) return refuse('no-profile', made.reason, made.mend);
  const face = opening.face ?? 'outer';
  const kind = pattern.cut?.kind ?? 'through';
  const many = isManyFaced(element) || isShell(element);
  const sheet = many ? sheetsOf(document, fineness).on(element.id, face) : null;
  const faulty = many ? sheetsOf(document, fineness).of(element.id)?.fault : null;
  if (faulty)
    return refuse('element-faulty', `its ${kindOf(element).noun} cannot be made: ${faulty.reason}`, faulty.mend);
  if (many && !sheet)
    return refuse(
      'plane-gone',
      `the ${kindOf(element).noun} no longer has the plane that it is on`,
      'Bring the plane back, by making its edge eaves again, or set the opening out on another plane.',
    );
  if (many && face === 'outer' && kind !== 'through')
    return refuse(
      'wrong-face',
      `what is set out on a ${kindOf(element).noun} from above can only cut right through it`,
      'Set it out on one of its planes, or give it a pattern that cuts through.',
    );
  if (face === 'inner' && (kind === 'boss' || kind === 'imprint'))
    return refuse(
      'wrong-face',
      `${kind === 'boss' ? 'a boss' : 'an imprint'} stands on the ${faceLabel(element)} only`,
      `Set it out on the ${faceLabel(element)}, or give it a pattern that cuts.`,
    );
  const layers = face === 'inner' ? [...element.layers].reverse() : element.layers;
  const depth = many && face === 'outer' ? (sheet?.thickness ?? 0) : depthOf(pattern, layers, document.units);
  if (typeof depth !== 'number') return refuse('too-deep', depth.reason, depth.mend);
  const slope = slopeOf(sheet);
  const sections = sectionsOf(pattern, depth, document.units, slope);
  if ('reason' in sections) return refuse('no-section', (sections as Impossible).reason, (sections as Impossible).mend);
  const along = alongAt(document, element, opening.along, face);
  if (along === null)
    return parentsOf(opening, 'along').length > 0
      ? refuse(
          'neighbour-astray',
          'the opening that it is measured from has no place itself',
          'Mend that one, or place this from the start, the middle or the end.',
        )
      : refuse(
          'axis-gone',
          'the axis that it is held to was removed',
          'Place it from the start, the middle or the end.',
        );
  const up = upAt(document, element, opening.up, face);
  if (up === null)
    return opening.up.from === 'neighbour'
      ? refuse(
          'neighbour-astray',
          'the opening that its level is measured from has no place itself',
          'Mend that one, or place this from the base, the top or a datum.',
        )
      : refuse('datum-gone', 'the datum that it is held to was removed', 'Place it from the base or another datum.');
  const [dx, dy] = gripOffset(made.profile, opening.grip);
  const s = tidy(along - dx);
  const t = tidy(up - dy);
  if (!Number.isFinite(s) || !Number.isFinite(t))
    return refuse('no-place', 'its place is not a number', 'Type its distances again.');
  return {
    id: opening.id,
    element: element.id,
    ...(face === 'outer' ? {} : { face }),
    ...(slope === null ? {} : { slope }),
    ...(slope !== null && pattern.onSlope === 'plumb' ? { drift: [0, 0 - Math.tan(slope)] as const } : {}),
    s,
    t,
    profile: made.profile,
    outline: made.outline,
    pattern,
    blockedUp: opening.blockedUp,
    ...(opening.open === undefined ? {} : { open: opening.open }),
    ...(opening.slid === undefined ? {} : { slid: opening.slid }),
    ...(opening.planes && face === 'outer' ? { planes: opening.planes } : {}),
    kind,
    depth,
    ...(pattern.infill?.seat.from === 'layer' ? { layers: layers.map(({ thickness }) => thickness) } : {}),
    sections: sections as Readonly<Record<Side, SectionLine>>,
  };
}

/** The axes on a face; those of a sheet are on both of its sides. */
export const axesOn = (document: ProjectDocument, element: Element, face: FaceName = 'outer'): Axis[] =>
  Object.values(document.axes).filter(
    (axis) => axis.element === element.id && (isSide(face) ? axis.face === undefined : axis.face === face),
  );

/** The datums that can be used on an element: its own and the building's, where its face stands upright, so that a level is a height on it. */
export function datumsOn(document: ProjectDocument, element: Element, face: FaceName = 'outer'): Datum[] {
  if (isSide(face) && !isUpright(element)) return [];
  return Object.values(document.datums).filter((datum) => datum.element === null || datum.element === element.id);
}
