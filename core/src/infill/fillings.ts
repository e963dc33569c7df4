/** What a field is filled with, built from one depth to another: panes, panels, boards, louvres and perforated sheets. */
import type { Boards, Divided, Field, Glass, Louvres, Perforated } from '@yard-arch/document';
import { millimetre, nanometre, relative } from '../tolerances.ts';
import { extentOf, moved, type Area, type Spot } from './area.ts';
import { dividedInto, NotDivided } from './divide.ts';
import type { Facets, Point } from './facets.ts';
import type { Front } from './part.ts';
import { facing, prism, sides, type Range } from './solids.ts';

/** Where something is built and drawn. */
export interface Site {
  facets: Facets;
  front: Front[];
}

const upright: Point = [0, 0, 1];
const level: Point = [1, 0, 0];

/** A thickness in the middle of a range, or against what the range is against where it is deeper. */
export function amid({ from, to, against, lip }: Range, thickness: number): Range {
  const held = against && lip !== undefined ? { against, lip } : {};
  if (against && thickness > to - from)
    return against === 'from' ? { from, to: from + thickness, ...held } : { from: to - thickness, to, ...held };
  const middle = (from + to) / 2;
  return { from: middle - thickness / 2, to: middle + thickness / 2, ...held };
}

/** Panes, as far apart as their cavities. @throws NotDivided where they are more than the depth that they stand in */
export function glaze(
  { facets, front }: Site,
  { material, thickness, panes = 1, cavity = 0.016, sheet = false }: Glass,
  area: Area,
  range: Range,
): void {
  const depth = panes * thickness + (panes - 1) * cavity;
  if (panes > 1 && depth > range.to - range.from + nanometre)
    throw new NotDivided('its panes are deeper than what they stand in');
  const { from } = amid(range, Math.min(depth, range.to - range.from));
  const each = Math.min(thickness, range.to - range.from);
  for (let i = 0; i < panes; i++) {
    const near = from + i * (thickness + cavity);
    if (sheet) sheetAt(facets, material, area, near + each / 2);
    else prism(facets, material, { area, range: { from: near, to: near + each } });
  }
  front.push({ kind: 'glass', loops: [area.points], material });
}

/** A face alone, seen from the front. */
function sheetAt(facets: Facets, material: string, { points }: Area, y: number): void {
  facets.begin(material, 'sheet');
  facing(
    facets,
    points.map(([x, z]): Point => [x, y, z]),
    { way: [0, -1, 0], grain: level },
  );
}

/** A panel, raised or plain. @throws NotDivided where it is too small for its margin */
export function panel(
  { facets, front }: Site,
  { material, thickness, raised }: Extract<Field, { kind: 'panel' }>,
  area: Area,
  range: Range,
): void {
  front.push({ kind: 'solid', loops: [area.points], material });
  if (!raised) return prism(facets, material, { area, range: amid(range, Math.min(thickness, range.to - range.from)) });
  const whole = amid(range, thickness + 2 * raised.rise);
  const own = { from: whole.from + raised.rise, to: whole.to - raised.rise };
  const sloped = moved(area, () => -raised.margin);
  if (!sloped) throw new NotDivided('its panel is too small for the margin about its middle');
  facets.begin(material);
  for (const [at, out, way] of [
    [own.from, -raised.rise, -1],
    [own.to, raised.rise, 1],
  ] as const) {
    for (const { points, reach, along } of sloped.strips)
      facing(
        facets,
        points.map(([x, z], i): Point => [x, at + out * reach[i]!, z]),
        { way: [0, way, 0], grain: [along[0], 0, along[1]] },
      );
    facing(
      facets,
      sloped.area.points.map(([x, z]): Point => [x, at + out, z]),
      { way: [0, way, 0], grain: upright },
    );
  }
  sides(facets, area, own, true);
  front.push({ kind: 'solid', loops: [sloped.area.points], material });
}

/** Boards with open joints before a backing. @throws NotDivided */
export function boarded(
  { facets, front }: Site,
  { material, thickness, width, way, joint }: Boards,
  area: Area,
  range: Range,
): void {
  const { from, to } = amid(range, Math.min(thickness, range.to - range.from));
  const lights: Divided['lights'] = { kind: 'at most', size: width };
  const half = (from + to) / 2;
  const grain = way === 'upright' ? upright : level;
  const split: Divided = {
    kind: 'divided',
    way: way === 'upright' ? 'mullions' : 'transoms',
    ...(joint > nanometre ? { bar: { width: joint, depth: thickness, material } } : {}),
    lights,
    fields: [{ kind: 'empty' }],
  };
  for (const board of dividedInto(area, split).lights) {
    prism(facets, material, { area: board, range: { from, to: half } }, grain);
    front.push({ kind: 'solid', loops: [board.points], material });
  }
  prism(facets, material, { area, range: { from: half, to } }, grain);
}

/** Where a level line crosses an area's edges, from the left. */
const crossingsOf = ({ points }: Area, z: number): number[] =>
  points
    .flatMap(([x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length]!;
      return y > z !== ny > z ? [x + ((z - y) * (nx - x)) / (ny - y)] : [];
    })
    .sort((a, b) => a - b);

/** From where to where an area reaches along, at every height between two: where it is narrowest. Null where there is nothing of it. */
export function spanBetween(area: Area, low: number, high: number): [number, number] | null {
  const { points } = area;
  const middle = (low + high) / 2;
  const crossings = (z: number): number[] => crossingsOf(area, z);
  const at = crossings(middle);
  if (at.length !== 2) return null;
  let [left, right] = at as [number, number];
  // Straight between corners: it is narrowest at an end or at a corner between.
  const heights = [low, high, ...points.map(([, y]) => y).filter((y) => y > low && y < high)];
  for (const z of heights)
    for (const off of [-nanometre * 10, nanometre * 10]) {
      if (z + off < low - nanometre * 20 || z + off > high + nanometre * 20) continue;
      const here = crossings(z + (z === low ? Math.abs(off) : z === high ? -Math.abs(off) : off));
      if (here.length !== 2) return null;
      left = Math.max(left, here[0]!);
      right = Math.min(right, here[1]!);
    }
  return right - left > millimetre ? [left, right] : null;
}

/** Ends that lean: how far along each is, left and right, at a lower and at an upper height. */
type Leaning = readonly [low: readonly [number, number], high: readonly [number, number]];

/** The ends of what fills an area between two heights, straight from the one to the other and clear of its edges all the way. Null where there is nothing of it. */
function leaningBetween(area: Area, low: number, high: number): Leaning | null {
  if (!spanBetween(area, low, high)) return null;
  const hair = nanometre * 10;
  const [foot, head] = [crossingsOf(area, low + hair), crossingsOf(area, high - hair)];
  const ends = [0, 1].map((end): [number, number] => {
    const way = end === 0 ? 1 : -1;
    const [a, b] = [foot[end]!, head[end]!];
    // Where the edge comes in between, both go in by as much.
    const most = area.points.reduce((so, [, z]) => {
      if (z <= low + hair || z >= high - hair) return so;
      const straight = a + ((b - a) * (z - low)) / (high - low);
      return [z - hair, z + hair].reduce(
        (far, at) => Math.max(far, way * (crossingsOf(area, at)[end]! - straight)),
        so,
      );
    }, 0);
    return [a + way * most, b + way * most];
  }) as [[number, number], [number, number]];
  const [[left, upperLeft], [right, upperRight]] = ends;
  const made: Leaning = [
    [left, right],
    [upperLeft, upperRight],
  ];
  return made.every(([from, to]) => to - from > millimetre) ? made : null;
}

/** Blades across an area, each as long as it is where they are, their ends cut to its edges. @throws NotDivided */
export function louvred(
  { facets, front }: Site,
  { material, thickness, width, spacing, slope }: Louvres,
  area: Area,
  range: Range,
): void {
  const [low, high] = extentOf(area, 1);
  const angle = (slope * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  // As high as a blade is from edge to edge, and as deep.
  const tall = width * sin + thickness * cos;
  const deep = width * cos + thickness * sin;
  if (deep > range.to - range.from + nanometre) throw new NotDivided('its louvres are deeper than what they stand in');
  const count = Math.floor((high - low - tall) / spacing + relative) + 1;
  if (high - low < tall + millimetre || count < 1) throw new NotDivided('it is too low for a louvre');
  if (thickness / cos > spacing - nanometre && count > 1) throw new NotDivided('its louvres lie in one another');
  const free = (high - low - tall) / count;
  const middle = (range.from + range.to) / 2;
  for (let i = 0; i < count; i++) {
    const z = low + tall / 2 + (i + 0.5) * free;
    const [foot, head] = [z - tall / 2, z + tall / 2];
    const ends = leaningBetween(area, foot, head);
    if (!ends) continue;
    blade(facets, { material, ends, heights: [foot, head], middle, z, along: [cos, sin], width, thickness });
    const [[left, right], [upperLeft, upperRight]] = ends;
    const loop: Spot[] = [
      [left, foot],
      [right, foot],
      [upperRight, head],
      [upperLeft, head],
    ];
    front.push({ kind: 'solid', loops: [loop], material });
  }
}

interface Blade {
  material: string;
  ends: Leaning;
  /** Between which its ends lean. */
  heights: readonly [number, number];
  middle: number;
  z: number;
  /** Into the wall and up. */
  along: readonly [number, number];
  width: number;
  thickness: number;
}

function blade(
  facets: Facets,
  { material, ends: [low, high], heights: [foot, head], middle, z, along: [dy, dz], width, thickness }: Blade,
): void {
  const corner = (a: number, b: number): [number, number] => [
    middle + (a * width * dy) / 2 - (b * thickness * dz) / 2,
    z + (a * width * dz) / 2 + (b * thickness * dy) / 2,
  ];
  const section = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const leans = [0, 1].map((end) => (high[end]! - low[end]!) / (head - foot)) as [number, number];
  const at = (end: 0 | 1, [y, up]: readonly [number, number]): Point => [low[end] + leans[end] * (up - foot), y, up];
  facets.begin(material);
  const endOf = (end: 0 | 1): Point[] => section.map((one) => at(end, one));
  facing(facets, endOf(0), { way: [-1, 0, leans[0]], grain: upright });
  facing(facets, endOf(1), { way: [1, 0, 0 - leans[1]], grain: upright });
  section.forEach((one, i) => {
    const next = section[(i + 1) % section.length]!;
    facing(facets, [at(0, one), at(1, one), at(1, next), at(0, next)], {
      way: [0, next[1] - one[1], one[0] - next[0]],
      grain: level,
    });
  });
}

/** A polygon of (y, z), counter-clockwise as seen from the left, from one place along to another. */
export function extruded(
  facets: Facets,
  material: string,
  section: readonly [number, number][],
  [left, right]: readonly [number, number],
): void {
  facets.begin(material);
  const at = (x: number): Point[] => section.map(([y, z]): Point => [x, y, z]);
  facing(facets, at(left), { way: [-1, 0, 0], grain: upright });
  facing(facets, at(right), { way: [1, 0, 0], grain: upright });
  section.forEach(([y, z], i) => {
    const [ny, nz] = section[(i + 1) % section.length]!;
    facing(
      facets,
      [
        [left, y, z],
        [right, y, z],
        [right, ny, nz],
        [left, ny, nz],
      ],
      { way: [0, nz - z, y - ny], grain: level },
    );
  });
}

/** A rectangle from its reach along and up. */
export const box = ([left, right]: readonly [number, number], [low, high]: readonly [number, number]): Spot[] => [
  [left, low],
  [right, low],
  [right, high],
  [left, high],
];

/** The most holes that one sheet has. */
const mostHoles = 2000;
/** Sides of a hole. */
const holeSides = 12;

/** A sheet with holes in rows, as many as stand clear of its edges. @throws NotDivided */
export function perforated(
  { facets, front }: Site,
  { material, thickness, hole, pitch }: Perforated,
  area: Area,
  range: Range,
): void {
  if (pitch < hole + millimetre) throw new NotDivided('its holes run into one another');
  const { from, to } = amid(range, Math.min(thickness, range.to - range.from));
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const rise = pitch * Math.sqrt(0.75);
  if (((right - left) / pitch) * ((high - low) / rise) > mostHoles)
    throw new NotDivided(`it would have more than ${mostHoles} holes`);
  const clear = hole / 2 + Math.max(millimetre, (pitch - hole) / 2);
  const rows = Math.max(0, Math.floor((high - low - 2 * clear) / rise)) + 1;
  const holes: Spot[][] = [];
  for (let r = 0; r < rows; r++) {
    const z = (low + high) / 2 + (r - (rows - 1) / 2) * rise;
    const span = spanBetween(area, z - clear, z + clear);
    if (!span) continue;
    const [start, end] = [span[0] + clear, span[1] - clear];
    const middle = (left + right) / 2 + (r % 2 === 0 ? 0 : pitch / 2);
    for (let k = Math.ceil((start - middle) / pitch); middle + k * pitch <= end; k++)
      holes.push(round(middle + k * pitch, z, hole / 2));
  }
  facets.begin(material);
  for (const [y, outward] of [
    [from, -1],
    [to, 1],
  ] as const) {
    const loop = (points: readonly Spot[], reversed: boolean): Point[] => {
      const there = points.map(([x, z]): Point => [x, y, z]);
      return reversed ? there.reverse() : there;
    };
    // Seen from before the face counter-clockwise is as it is drawn.
    facets.addHoled([loop(area.points, outward > 0), ...holes.map((one) => loop(one, outward < 0))], level);
  }
  sides(facets, area, { from, to }, true);
  const within = holes.map((points): Area => ({ points, edges: points.map(() => ({ side: null, chord: null })) }));
  for (const one of within) sides(facets, one, { from, to }, false);
  front.push({ kind: 'solid', loops: [area.points, ...holes], material });
}

const round = (x: number, z: number, radius: number): Spot[] =>
  Array.from({ length: holeSides }, (_, i) => {
    const angle = (2 * Math.PI * i) / holeSides;
    return [x + radius * Math.cos(angle), z + radius * Math.sin(angle)];
  });
