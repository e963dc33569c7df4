/** A pattern's detail sheet as it is laid out: elevation, plan and section at one scale, and the chains of dimensions that stand by them. No page in it. */
import { meshIn, pointAt, seatOf, type Laid, type Study } from '@yard-arch/core';
import type { Infill, Pattern, ProjectDocument, Size } from '@yard-arch/document';
import { dimensionNames } from '@yard-arch/document';
import { changeInfill, changePattern, fieldAt, resize, withAt, type FigureChoice } from '@yard-arch/edit';

/** Where the drawings stand on the sheet, pixels, and how many pixels a metre is. */
export interface Layout {
  scale: number;
  /** Of the elevation: the middle of the opening's sill. */
  elevation: { x: number; y: number };
  /** Of the section: the outer face at the opening's sill. */
  section: { x: number; y: number };
  /** Of the plan: the outer face at the middle of the opening. */
  plan: { x: number; y: number };
  /** How far what is about the opening is drawn over the wall that is shown, pixels. */
  over: number;
  /** How much of the wall is drawn to either side of the opening, metres. */
  beside: number;
  /** How far a section through a slope reaches; null of what stands in a wall. */
  slope: Reach | null;
}

/** Room for dimensions beside and below the drawings, pixels. */
export const room = { left: 96, right: 26, top: 30, bottom: 46, between: 58, under: 100 };

/** How much of the wall about the opening is drawn, metres. */
export const margin = { beside: 0.32, above: 0.34, below: 0.26 };

/** How far a section reaches from the outer face at the sill, metres. */
export interface Reach {
  out: number;
  in: number;
  up: number;
  down: number;
}

/** Lays the drawings out on a sheet of so many pixels. */
export function layoutOf(study: Study, width: number, height: number): Layout {
  const { placed, cut } = study;
  const { out, over, aside } = farOf(placed, cut);
  const beside = margin.beside + aside;
  const { width: wide, height: high } = placed.profile;
  const thick = cut.sheet.thickness;
  // A section is as wide as the wall, with what stands out of it on both sides; one through a slope as it lies.
  const slope = slopeReach(study);
  const beyond = slope ?? { out: out + 0.15, in: thick + 0.15, up: high + margin.above, down: margin.below };
  const above = Math.max(high + margin.above + over, beyond.up);
  const plan = slope ? slopePlanDepth(study) : thick;
  const [across, up] = [
    wide + 2 * beside + beyond.out + beyond.in,
    above + margin.below + plan + 0.2 + (slope ? slopeFront : out),
  ];
  const scale = Math.max(
    20,
    Math.min(
      (width - room.left - room.right - room.between) / across,
      (height - room.top - room.bottom - room.under) / up,
      420,
    ),
  );
  const drawn = {
    x: across * scale + room.left + room.right + room.between,
    y: up * scale + room.top + room.bottom + room.under,
  };
  const left = Math.max(0, (width - drawn.x) / 2) + room.left;
  const top = Math.max(0, (height - drawn.y) / 2) + room.top;
  const middle = left + (beside + wide / 2) * scale;
  const sill = top + above * scale;
  return {
    scale,
    elevation: { x: middle, y: sill },
    section: { x: left + (wide + 2 * beside + beyond.out) * scale + room.between, y: sill },
    plan: { x: middle, y: sill + (margin.below + 0.1 + plan) * scale + room.under },
    over: over * scale,
    beside,
    slope,
  };
}

/** How far before the sill a plan of what stands on a slope begins, metres. */
export const slopeFront = 0.25;

/** How far in from the sill such a plan reaches, wherever it is taken, metres. */
export const slopePlanDepth = ({ placed, cut }: Study): number =>
  (placed.profile.height + 2 * cut.sheet.thickness) * Math.SQRT1_2 + 0.3;

/** The outer face at the sill, in space, of what is studied on a slope. */
export function sillOnSlope({ cut, standing, placed }: Study): readonly [number, number, number] | null {
  if (cut === standing) return null;
  const face = standing.faces?.find(({ face: name }) => name === placed.face);
  return face ? pointAt(face.sheet.chart, placed.s, placed.t, 0) : null;
}

/** How far the section through what stands on a slope reaches, with some of the slope about it; null of what stands in a wall. */
export function slopeReach(study: Study): Reach | null {
  const sill = sillOnSlope(study);
  if (!sill) return null;
  const { standing, placed } = study;
  const chart = standing.faces!.find(({ face }) => face === placed.face)!.sheet.chart;
  const reach: Reach = { out: 0, in: 0, up: 0, down: 0 };
  const hold = (y: number, z: number): void => {
    reach.out = Math.max(reach.out, sill[1] - y);
    reach.in = Math.max(reach.in, y - sill[1]);
    reach.up = Math.max(reach.up, z - sill[2]);
    reach.down = Math.max(reach.down, sill[2] - z);
  };
  const { t, profile, s } = placed;
  for (const at of [t - margin.below, t + profile.height + margin.above])
    for (const n of [0, study.cut.sheet.thickness]) hold(...(pointAt(chart, s, at, n).slice(1) as [number, number]));
  for (const { part, placement } of standing.parts) {
    const { points } = meshIn(placement, part.mesh);
    for (let i = 0; i < points.length; i += 3) hold(points[i + 1]!, points[i + 2]!);
  }
  return reach;
}

/** What reaches out of the face by less is drawn in the margins; and what reaches by less over the wall that is shown, or beside it. */
const [little, least] = [0.5, 0.03];

/** How far what is about an opening reaches out before its face, and over and beside the wall that is shown about it. */
function farOf(
  { s, t, profile }: Study['placed'],
  { parts }: Study['cut'],
): { out: number; over: number; aside: number } {
  let [out, high, wide] = [0, 0, 0];
  const middle = s + profile.width / 2;
  for (const { part, placement } of parts) {
    const { points } = meshIn(placement, part.mesh);
    for (let i = 0; i < points.length; i += 3) {
      out = Math.max(out, 0 - points[i + 1]!);
      high = Math.max(high, points[i + 2]!);
      wide = Math.max(wide, Math.abs(points[i]! - middle));
    }
  }
  const over = high - (t + profile.height + margin.above);
  const aside = wide - (profile.width / 2 + margin.beside);
  return { out: out > little ? out : 0, over: over > least ? over : 0, aside: aside > least ? aside + 0.08 : 0 };
}

/** One span of a chain of dimensions, metres from the middle of the sill. */
export interface Span {
  from: number;
  to: number;
  edit: { what: string; label: string; choices: () => readonly FigureChoice[] } | null;
}

export interface Told {
  document: ProjectDocument;
  pattern: Pattern;
  size: Size;
}

const within = (loop: readonly (readonly [number, number])[], [x, y]: readonly [number, number]): boolean => {
  let inside = false;
  loop.forEach(([ax, ay], i) => {
    const [bx, by] = loop[(i + 1) % loop.length]!;
    if (ay > y !== by > y && x < ax + ((y - ay) * (bx - ax)) / (by - ay)) inside = !inside;
  });
  return inside;
};

/** Whether something laid out covers a place. */
const covers = ({ loops, kind }: Laid, at: readonly [number, number]): boolean =>
  within(loops[0]!, at) && !(kind === 'frame' && loops[1] && within(loops[1], at));

/** The innermost of what is laid out at a place; of fields alone where that is asked for. */
export function laidAt(laid: readonly Laid[], at: readonly [number, number], fields = false): Laid | null {
  for (let i = laid.length - 1; i >= 0; i--)
    if ((!fields || laid[i]!.what === 'field') && covers(laid[i]!, at)) return laid[i]!;
  return null;
}

/** The chain of members and lights that a line meets: level at a height, or upright at a place along. */
export function chainOf(all: readonly Laid[], axis: 0 | 1, at: number, told: Told): Span[] {
  // Small panes of a lattice are not measured one by one.
  const small = new Set(
    all.filter(({ kind, what }) => kind === 'lattice' && what === 'field').map(({ path }) => `${path}/`),
  );
  const laid = all.filter(({ path }) => ![...small].some((lattice) => path.startsWith(lattice)));
  const places: number[] = [];
  for (const { loops } of laid)
    for (const loop of loops)
      loop.forEach((a, i) => {
        const b = loop[(i + 1) % loop.length]!;
        const [p, q] = [a[1 - axis]!, b[1 - axis]!];
        if (p > at !== q > at) places.push(a[axis]! + ((at - p) * (b[axis]! - a[axis]!)) / (q - p));
      });
  places.sort((a, b) => a - b);
  const stops = places.filter((place, i) => i === 0 || place - places[i - 1]! > 1e-4);
  const spot = (value: number): readonly [number, number] => (axis === 0 ? [value, at] : [at, value]);
  const spans: Span[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const [from, to] = [stops[i]!, stops[i + 1]!];
    const found = laidAt(laid, spot((from + to) / 2));
    // Clearances are no dimension of their own.
    if (to - from > 0.008) spans.push({ from, to, edit: found ? editOf(found, axis, told) : null });
  }
  return spans;
}

/** How the width of a member that a chain meets is typed anew. */
function editOf({ what, path, kind }: Laid, axis: 0 | 1, { pattern }: Told): Span['edit'] {
  const { infill } = pattern;
  if (what !== 'member' || !infill) return null;
  if (kind === 'divided') {
    const parent = fieldAt(infill, path.replace(/\/bar$/, ''));
    if (!parent || parent.kind !== 'divided' || (parent.way === 'mullions') !== (axis === 0)) return null;
  } else if (kind !== 'frame') return null;
  const label =
    path === 'frame' ? 'Frame' : kind === 'frame' ? 'Frame of the leaf' : axis === 0 ? 'Mullion' : 'Transom';
  return {
    what: path,
    label,
    choices: () => [
      {
        label: 'for all sizes',
        apply: (value) =>
          changeInfill(pattern, withAt(infill, `${path}/width`, value), `change the ${label.toLowerCase()} of`),
      },
    ],
  };
}

/** How a dimension of the size is typed anew; null where the profile has none of that name. */
export function sizeEdit({ document, pattern, size }: Told, names: readonly string[], label: string): Span['edit'] {
  const name = names.find((one) => dimensionNames(pattern.profile.shape).includes(one));
  if (name === undefined) return null;
  return {
    what: name,
    label,
    choices: () => [
      {
        label: 'of this size',
        apply: (value) => resize(document, pattern, size, { ...size.dimensions, [name]: value }),
      },
    ],
  };
}

/** The chain below the section: where the infill stands, and how deep it and the wall are; from the outer face. */
export function depthChain({ placed, cut }: Study, { pattern }: Told): Span[] {
  const { infill } = pattern;
  const thick = cut.sheet.thickness;
  if (!infill) return [{ from: 0, to: thick, edit: null }];
  const seat = seatOf(infill, placed);
  if (typeof seat === 'string') return [{ from: 0, to: thick, edit: null }];
  const { from: front, to: back } = seat;
  const set = (path: string, what: string): Span['edit'] => ({
    what: path,
    label: what,
    choices: () => [
      {
        label: 'for all sizes',
        apply: (value) => changeInfill(pattern, withAt(infill, path, value), `change the ${what.toLowerCase()} of`),
      },
    ],
  });
  const spans: Span[] = [
    { from: 0, to: front, edit: infill.seat.from === 'outer' ? set('seat/depth', 'Seat') : null },
    { from: front, to: back, edit: set('frame/depth', 'Depth of the frame') },
    { from: back, to: thick, edit: infill.seat.from === 'inner' ? set('seat/depth', 'Seat') : null },
  ];
  return spans.filter(({ from, to }) => to - from > 0.003);
}

/** A division whose members can be dragged: the path of its field, and what it divides. */
export interface Division {
  path: string;
  way: 'mullions' | 'transoms';
  /** From where to where its field reaches, along or up. */
  reach: [number, number];
  /** Where its members stand, from there. */
  places: number[];
  /** Which of them is held. */
  index: number;
}

/** The division whose bar is at a place; null where none is. */
export function divisionAt(laid: readonly Laid[], infill: Infill, at: readonly [number, number]): Division | null {
  const bar = laidAt(laid, at);
  if (bar?.what !== 'member' || bar.kind !== 'divided') return null;
  const path = bar.path.replace(/\/bar$/, '');
  const field = fieldAt(infill, path);
  const held = laid.filter((one) => one.path === path && covers(one, at)).at(-1);
  if (field?.kind !== 'divided' || !held) return null;
  const axis = field.way === 'mullions' ? 0 : 1;
  const reachOf = ({ loops }: Laid): [number, number] => {
    const values = loops[0]!.map((point) => point[axis]!);
    return [Math.min(...values), Math.max(...values)];
  };
  const reach = reachOf(held);
  const bars = laid.filter(
    (one) => one.path === bar.path && one.loops[0]!.every(([x, y]) => within(grown(held.loops[0]!), [x, y])),
  );
  const places = bars.map((one) => (reachOf(one)[0] + reachOf(one)[1]) / 2 - reach[0]);
  return { path, way: field.way, reach, places, index: bars.indexOf(bar) };
}

/** A loop a little larger, so that what ends on it is within it. */
function grown(loop: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const [x, y] = [0, 1].map((k) => loop.reduce((sum, point) => sum + point[k]!, 0) / loop.length) as [number, number];
  return loop.map(([px, py]) => [x + (px - x) * 1.002, y + (py - y) * 1.002]);
}

/** A pattern whose division has one member elsewhere: all are kept where they stand, from the left or from below. */
export function movedDivision(pattern: Pattern, { path, places, index }: Division, to: number): Pattern {
  const infill = pattern.infill!;
  const field = fieldAt(infill, path);
  if (field?.kind !== 'divided') return pattern;
  const round = (value: number): number => Math.round(value * 1000) / 1000;
  const { lights } = field;
  const kept = lights.kind === 'at' && lights.places.length === places.length ? lights.places : null;
  const next = places.map((place, i) => {
    const value = i === index ? to : place;
    return kept && i !== index ? kept[i]! : { from: 'start' as const, value: round(value) };
  });
  return { ...pattern, infill: withAt(infill, `${path}/lights`, { kind: 'at', places: next }) };
}

/** The edit that a dragged division is. */
export const divisionEdit = (pattern: Pattern, next: Pattern) =>
  changePattern(pattern, { infill: next.infill }, 'move a division of');
