/** Infill: a pattern's grammar built for one opening: what stands fast as one mesh, and each leaf as one that turns. */
import type { Dimensions, Field, Imported, Infill, Leaf, Pattern, Units } from '@yard-arch/document';
import { defaultFineness } from '../profile/flatten.ts';
import type { Side } from '../profile/profile.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { offsetAt, squareSections } from '../profile/section.ts';
import { outlineOf } from '../setout/outlined.ts';
import type { Placed } from '../setout/placed.ts';
import { nanometre } from '../tolerances.ts';
import { common } from './partition.ts';
import { areaOf, moved, type Area, type Spot } from './area.ts';
import { addBar } from './bars.ts';
import { dividedInto, NotDivided } from './divide.ts';
import { Facets, NoFacets } from './facets.ts';
import { amid, boarded, glaze, louvred, panel, perforated, type Site } from './fillings.ts';
import { framed, type Held } from './framing.ts';
import { handled, strapped } from './hardware.ts';
import { coverOf, hungIn, type Motion } from './leaf.ts';
import type { Front, PartMesh } from './part.ts';
import { prism, type Range } from './solids.ts';
import { imported } from './imported.ts';
import { fanned, inOrder, interlaced, latticed } from './strips.ts';
import { rounded } from '../tidy.ts';

/** Something of an infill as it is seen, told by its path in the infill: a frame or a bar, or a field with what it holds. */
export interface Laid {
  path: string;
  what: 'member' | 'field';
  kind: Field['kind'] | 'frame';
  /** Outlines, the first about the others; from the middle of the opening's width, metres. */
  loops: readonly (readonly Spot[])[];
}

export interface InfillPart {
  part: PartMesh;
  /** How it moves, from the outermost leaf that it hangs in to itself; not at all where it stands fast. */
  motions: readonly Motion[];
  /** Where the origin of its mesh is, in directions of the opening's: its hinge, so that it turns about its own origin; that of the opening where nothing is said. */
  about?: readonly [number, number, number];
}

/** What is built, solid by solid. */
interface Build {
  facets: Facets | null;
  /** What meshes are called by: all that they are made of. */
  key: string;
  parts: InfillPart[];
  front: Front[];
  /** Of the leaves within which it is built. */
  motions: readonly Motion[];
  /** How many leaves those are. */
  level: number;
  /** What is where, where that is asked for. */
  laid?: Laid[];
  /** Whether only that is wanted which is seen. */
  drawn?: boolean;
}

const still: ReadonlySet<string> = new Set(['angle', 'vary', 'slid']);
/** How far a leaf stands open is a turn of its mesh, not another mesh. */
const unturned = (name: string, value: unknown): unknown => (still.has(name) ? undefined : value);

/** What of an opening its infill depends on. */
export type Stands = Pick<Placed, 'outline' | 'profile' | 'sections' | 'depth' | 'layers'> & {
  pattern: Pick<Pattern, 'sections'>;
  /** How far it moves aside and up with every metre of depth. */
  drift?: readonly [number, number];
  /** Where what is so far from its middle on the face comes at a depth, where it narrows or widens with that. */
  narrowing?: (x: number, depth: number) => number;
  /** How far in the face is where shutters lie against it, on a curve. */
  ahead?: number;
  /** How far in goes what lies along its reveal, where that is not just as far as its infill's seat. */
  until?: number;
};

/** What of an infill is where as it is seen, outermost first; as far as it can be built. */
export function laidOut(infill: Infill, placed: Stands): Laid[] {
  const laid: Laid[] = [];
  infillOf(infill, placed, { laid });
  return laid;
}

/** What is wanted of an infill besides its meshes, or in place of them. */
interface Wanted {
  /** Takes what is where, as it is seen. */
  laid?: Laid[];
  /** Only how it is seen: its meshes are left empty. */
  drawn?: boolean;
}

/** The infill of an opening, in directions of a part's own; or why it has none, in words to follow its mark. */
export function infillOf(infill: Infill, placed: Stands, { laid, drawn }: Wanted = {}): InfillPart[] | string {
  const range = seatOf(infill, placed);
  if (typeof range === 'string') return range;
  const { gap, frame: member, field } = infill;
  const { without = [] } = member;
  const own = clearOf(placed, range, gap);
  if (own === null) return 'its outline has islands, round which no frame is made';
  if (own === 'none') return 'its reveal leaves no room for its infill';
  const key = JSON.stringify([infill, own.points.flat().map(rounded), rounded(range.from)], unturned);
  const build: Build = {
    facets: null,
    key,
    parts: [],
    front: [],
    motions: [],
    level: 0,
    ...(laid ? { laid } : {}),
    ...(drawn ? { drawn } : {}),
  };
  try {
    const held = framed(siteOf(build, member.material), member, { area: own, range }, { without, what: 'its frame' });
    laid?.push({ path: 'frame', what: 'member', kind: 'frame', loops: [own.points, held.area.points] });
    fill(build, field, held, 'field');
  } catch (error) {
    if (error instanceof NotDivided) return error.message;
    throw error;
  }
  return [
    { part: { key, name: 'infill', mesh: build.facets!.finish(), front: build.front, within: true }, motions: [] },
    ...build.parts,
  ];
}

/** How the infill of a pattern is drawn in one of its sizes, as if it stood in a square reveal; or why there is none. */
export function infillFront(
  pattern: Pick<Pattern, 'profile' | 'infill'>,
  dimensions: Dimensions,
  units: Units,
): { front: readonly Front[] } | { reason: string } {
  const made = outlineOf(pattern.profile, dimensions, units, defaultFineness);
  if ('reason' in made || !pattern.infill) return { reason: 'reason' in made ? made.reason : 'it has no infill' };
  const infill = { ...pattern.infill, seat: { from: 'outer' as const, depth: 0 } };
  const sections = squareSections(infill.frame.depth);
  const parts = infillOf(infill, { ...made, sections, depth: infill.frame.depth, pattern: {} }, { drawn: true });
  if (typeof parts === 'string') return { reason: parts };
  return { front: parts.flatMap(({ part }) => part.front ?? []) };
}

/** Where a build goes on with something of a material. */
function siteOf(build: Build, material: string): Site {
  build.facets ??= build.drawn ? new NoFacets(material) : new Facets(material);
  return { facets: build.facets, front: build.front };
}

/** From where to where through the depth the frame stands, from the face that the opening is set out on; or why it stands nowhere. */
export function seatOf(
  { seat, frame: { depth } }: Infill,
  { depth: through, pattern, layers = [] }: Pick<Stands, 'depth' | 'pattern' | 'layers'>,
): Range | string {
  let from = seat.depth;
  if (seat.from === 'inner') from = through - seat.depth - depth;
  if (seat.from === 'check') {
    const checks = (['jamb-left', 'jamb-right', 'head'] as const).flatMap(
      (side) => pattern.sections?.[side]?.checks ?? [],
    );
    if (checks.length === 0) return 'its reveal has no check for its infill to stand behind';
    from += Math.min(...checks.map((check) => check.depth));
  }
  if (seat.from === 'layer') {
    const { layer = 1 } = seat;
    if (layer > Math.max(1, layers.length))
      return `its infill is to stand in layer ${layer}, and its wall has ${layers.length || 'no layers'}`;
    from += layers.slice(0, layer - 1).reduce((sum, thickness) => sum + thickness, 0);
  }
  if (from < -nanometre || from + depth > through + nanometre)
    return 'its infill does not fit into the depth of its reveal';
  return { from: Math.max(0, from), to: from + depth };
}

/**
 * What is clear in a reveal all the way between two depths, a gap away from its sides, seen from the middle of the opening's width. Where the opening moves aside on the way, that is what is clear at both depths.
 * @returns null of an outline with islands
 */
export function clearOf(placed: Stands, range: Range, gap = 0): Area | null | 'none' {
  const outline = areaOf(placed.outline);
  if (!outline) return null;
  const { drift: [dx, dz] = [0, 0], narrowing, profile } = placed;
  const whole = centred(outline, profile.width / 2);
  const own = narrowing ? narrowedBetween(whole, range, narrowing) : whole;
  const seated = moved(own, ({ side }) => narrowest(placed, side!, range) - gap);
  if (!seated) return 'none';
  if (dx === 0 && dz === 0) return seated.area;
  const at = (depth: number): Area => ({
    ...seated.area,
    points: seated.area.points.map(([x, z]): Spot => [x + dx * depth, z + dz * depth]),
  });
  return common(at(range.from), at(range.to)) ?? 'none';
}

/** An area as far as it is clear at both of two depths between which it narrows or widens. */
function narrowedBetween(
  { points, edges }: Area,
  { from, to }: Range,
  narrowing: (x: number, depth: number) => number,
): Area {
  return {
    points: points.map(([x, z]): Spot => {
      const [near, far] = [narrowing(x, from), narrowing(x, to)];
      return [x > 0 ? Math.min(near, far) : Math.max(near, far), z];
    }),
    edges,
  };
}

/** How much wider than the profile a side of the reveal is where it is narrowest between two depths. */
export function narrowest({ sections }: Stands, side: Side, { from, to }: Range): number {
  const section = sections[side];
  const inside = section.n.flatMap((n, i) => (n > from + nanometre && n < to - nanometre ? [section.offset[i]!] : []));
  return Math.min(offsetAt(section, from, 1), offsetAt(section, to, -1), ...inside);
}

/** An area seen from the middle of the opening's width. */
export const centred = ({ points, edges }: Area, middle: number): Area => ({
  points: points.map(([x, y]) => [x - middle, y] as const),
  edges,
});

/** Builds what a field holds. @param path of the field in its infill. @throws NotDivided */
function fill(build: Build, field: Field, held: Held, path: string): void {
  const { area, range } = held;
  build.laid?.push({ path, what: 'field', kind: field.kind, loops: [area.points] });
  switch (field.kind) {
    case 'empty':
      return;
    case 'glass':
      return glaze(siteOf(build, field.material), field, area, range);
    case 'panel':
      return panel(siteOf(build, field.material), field, area, range);
    case 'boards':
      return boarded(siteOf(build, field.material), field, area, range);
    case 'louvres':
      return louvred(siteOf(build, field.material), field, area, range);
    case 'perforated':
      return perforated(siteOf(build, field.material), field, area, range);
    case 'imported':
      return carry(build, field, area, range);
    case 'divided':
    case 'fan':
    case 'interlacing':
    case 'lattice':
      return partition(build, field, held, path);
    case 'leaf':
      return hang(build, field, held, path);
  }
}

/** A mesh from outside in the box of a field. @throws NotDivided */
function carry(build: Build, field: Imported, area: Area, { from, to }: Range): void {
  const { facets, front } = siteOf(build, field.materials[0]!);
  const [xs, zs] = [area.points.map(([x]) => x), area.points.map(([, z]) => z)];
  const box = [
    [Math.min(...xs), Math.max(...xs)],
    [from, to],
    [Math.min(...zs), Math.max(...zs)],
  ] as const;
  imported(facets, front, field, box);
}

/** Builds the bars that part a field, and fills its lights. @throws NotDivided */
function partition(build: Build, field: Parting, { area, range }: Held, path: string): void {
  const { bars, lights, which } = partedBy(field, area);
  const { bar, fields } = field;
  if (bar)
    for (const { area: piece, along } of bars) {
      const { facets, front } = siteOf(build, bar.material);
      front.push({ kind: 'solid', loops: [piece.points], material: bar.material });
      addBar({ facets }, bar, { area: piece, range: amid(range, bar.depth) }, along);
      build.laid?.push({ path: `${path}/bar`, what: 'member', kind: field.kind, loops: [piece.points] });
    }
  lights.forEach((light, i) => {
    const k = which(light, i) % fields.length;
    fill(build, fields[k]!, { area: light, range }, `${path}/fields/${k}`);
  });
}

type Parting = Extract<Field, { fields: Field[] }>;

/** Bars and lights of a field that is parted, and which of its fields each light has, counted on. */
function partedBy(
  field: Parting,
  area: Area,
): { bars: { area: Area; along: Spot }[]; lights: Area[]; which: (light: Area, i: number) => number } {
  const inTurn = (_: Area, i: number): number => i;
  if (field.kind === 'divided') {
    const { bars, lights } = dividedInto(area, field);
    const along: Spot = field.way === 'mullions' ? [0, 1] : [1, 0];
    return { bars: bars.map((bar) => ({ area: bar, along })), lights, which: inTurn };
  }
  const found =
    field.kind === 'fan'
      ? fanned(area, field)
      : { ...(field.kind === 'lattice' ? latticed(area, field) : interlaced(area, field)), band: null };
  return {
    bars: found.bars.map(({ area: bar, strip }) => ({ area: bar, along: strip.along })),
    lights: inOrder(found.lights),
    which: found.band ?? inTurn,
  };
}

/** A leaf that stands by itself, with those that hang in it; what an opening says of its leaves is not said of it. @throws NotDivided */
export function builtLeaf(leaf: Leaf, held: Held, { key, name }: Pick<PartMesh, 'key' | 'name'>): InfillPart[] {
  const build: Build = { facets: null, key, parts: [], front: [], motions: [], level: 1 };
  hang(build, leaf, held, '');
  return build.parts.map(({ part: { key, mesh, front }, ...moves }) => ({
    part: { key, name, mesh, ...(front ? { front } : {}) },
    ...moves,
  }));
}

/** Builds a leaf, or those that fold: as meshes of their own where they move. @throws NotDivided */
function hang(build: Build, leaf: Leaf, { area, range }: Held, path: string): void {
  const all = hungIn(leaf, area, range, build.level);
  all.forEach(({ area: clear, range: depth, motions, mark }, i) => {
    const moves = motions.length > 0;
    const own: Build = moves
      ? {
          facets: null,
          key: `${build.key} leaf ${build.parts.length}`,
          parts: [],
          front: [],
          motions: [...build.motions, ...motions],
          level: build.level + 1,
          ...(build.laid ? { laid: build.laid } : {}),
          ...(build.drawn ? { drawn: true } : {}),
        }
      : build;
    const stands = { area: clear, range: depth };
    const held = framed(siteOf(own, leaf.frame.material), leaf.frame, stands, { what: 'its leaf' });
    own.laid?.push({ path: `${path}/frame`, what: 'member', kind: 'frame', loops: [clear.points, held.area.points] });
    fill(own, leaf.field, held, `${path}/field`);
    furnish(own, leaf, stands, i === all.length - 1);
    if (!moves) return;
    own.front.push({ kind: 'hung', loops: [mark] });
    const about = motions.at(-1)!.at;
    const mesh = seenFrom(own.facets!.finish(), about);
    const part = { key: own.key, name: 'leaf', mesh, front: own.front, within: true as const };
    build.parts.push({ part, motions: own.motions, about }, ...own.parts);
  });
}

/** A mesh whose origin is elsewhere. */
function seenFrom(mesh: CutMesh, [x, y, z]: readonly [number, number, number]): CutMesh {
  const points = mesh.points.slice();
  for (let i = 0; i < points.length; i += 3) {
    points[i]! -= x;
    points[i + 1]! -= y;
    points[i + 2]! -= z;
  }
  return { ...mesh, points };
}

/** Adds what is on a leaf. @param last whether it is the one that is taken hold of, where several fold */
function furnish(own: Build, leaf: Leaf, held: Held, last: boolean): void {
  const cover = coverOf(leaf, held.area, held.range);
  if (cover) {
    const { facets, front } = siteOf(own, leaf.cover!.material);
    prism(facets, leaf.cover!.material, { area: cover.area, range: cover.range });
    front.push({ kind: 'solid', loops: [cover.area.points], material: leaf.cover!.material });
  }
  if (leaf.straps) strapped(siteOf(own, leaf.straps.material), leaf.straps, leaf, held);
  if (leaf.handle && last) handled(siteOf(own, leaf.handle.material), leaf.handle, leaf, held);
}
