/** Frames: members swept along an area's edges, plain or worked, and what they leave for what they hold. */
import type { Framing } from '@yard-arch/document';
import type { Side } from '../profile/profile.ts';
import type { SectionLine } from '../profile/section.ts';
import { jointed } from '../reveal/loop.ts';
import { makeTube, type Tube, type TubeFace } from '../reveal/tube.ts';
import { micrometre, nanometre, parallel, relative, rounding } from '../tolerances.ts';
import { newell } from '../vector.ts';
import { loopEdge, moved, type Area, type Moved, type Spot, type Strip } from './area.ts';
import { NotDivided } from './divide.ts';
import type { Point } from './facets.ts';
import type { Site } from './fillings.ts';
import { worked } from './moulding.ts';
import { facing, frame, side, type Range } from './solids.ts';
import { rounded } from '../tidy.ts';

/** An area, and from where to where through the depth something is in it: what a frame stands in, and what it leaves. */
export interface Held {
  area: Area;
  range: Range;
}

/** The section of a worked member: across its front first, over a depth of one, then through its depth. @throws NotDivided */
function sectionOf({ width, depth, moulding, rebate }: Framing): SectionLine {
  const edge = moulding ? worked(moulding) : null;
  const left = depth - (rebate?.depth ?? 0);
  if (edge && (edge.wide > width - micrometre || edge.deep > left + nanometre))
    throw new NotDivided('its moulding is larger than its frame has room for');
  if (rebate && (rebate.width > width - micrometre || left < micrometre))
    throw new NotDivided('its rebate is larger than its frame has room for');
  const points = [
    ...(edge
      ? edge.steps.map(({ n, in: inward, smooth }) => ({ n, offset: -(width - edge.wide) - inward, smooth }))
      : [{ n: 0, offset: -width, smooth: false }]),
    { n: left, offset: -width, smooth: false },
    ...(rebate
      ? [
          { n: left, offset: -(width - rebate.width), smooth: false },
          { n: depth, offset: -(width - rebate.width), smooth: false },
        ]
      : []),
  ];
  const turned =
    rebate?.from === 'front' ? points.map((point) => ({ ...point, n: depth - point.n })).reverse() : points;
  const kept = turned.filter(
    ({ n, offset }, i) =>
      i === 0 || n - turned[i - 1]!.n > nanometre || Math.abs(offset - turned[i - 1]!.offset) > nanometre,
  );
  return {
    n: [0, ...kept.map(({ n }) => 1 + n)],
    offset: [0, ...kept.map(({ offset }) => offset)],
    smooth: [false, ...kept.map(({ smooth }) => smooth)],
  };
}

const still: SectionLine = { n: [0, 1], offset: [0, 0], smooth: [false, false] };

/** Builds a frame along the sides of an area. @returns what it leaves. @throws NotDivided */
export function framed(
  site: Site,
  framing: Framing,
  { area: outer, range }: Held,
  { without = [], what }: { without?: readonly Side[] | undefined; what: string },
): Held {
  const by =
    (width: number) =>
    ({ side }: { side: Side | null }): number =>
      side && without.includes(side) ? 0 : -width;
  const within = moved(outer, by(framing.width));
  if (!within) throw new NotDivided(`it is too small for ${what}`);
  const { facets, front } = site;
  if (!framing.moulding && !framing.rebate) {
    const joined = withJoints(within, framing.joints);
    frame(facets, framing.material, { outer, within: joined, range });
    front.push(
      { kind: 'solid', loops: [outer.points, within.area.points], material: framing.material },
      ...jointLines(joined),
    );
    return { area: within.area, range };
  }
  const section = sectionOf(framing);
  const has = (side: Side | null): boolean => !side || !without.includes(side);
  workedFrame(site, framing.material, { area: outer, range }, { section, has, out: 0 });
  const rings = [...new Set(section.offset.slice(1).map(rounded))];
  const lines = linesOf(framing) ?? rings;
  let last: readonly Spot[] = outer.points;
  for (const offset of lines.sort((a, b) => b - a)) {
    const ring = moved(outer, by(-offset))?.area.points;
    if (!ring) continue;
    front.push({ kind: 'solid', loops: [last, ring], material: framing.material });
    last = ring;
  }
  const { rebate } = framing;
  if (!rebate) return { area: within.area, range };
  const held = moved(outer, by(framing.width - rebate.width));
  const { from, to } = range;
  return {
    area: held!.area,
    range:
      rebate.from === 'front'
        ? { from, to: from + rebate.depth, against: 'to', lip: rebate.width }
        : { from: to - rebate.depth, to, against: 'from', lip: rebate.width },
  };
}

/** How far in the lines of a moulding are, from the outer edge; null where all that its section has are seen. */
function linesOf({ moulding, width }: Framing): number[] | null {
  if (!moulding || moulding.kind === 'chamfered') return null;
  const { arrises, wide } = worked(moulding);
  return [...new Set(arrises.map((inward) => wide - width - inward))];
}

interface Sweep {
  section: SectionLine;
  /** Which sides have a member. */
  has: (side: Side | null) => boolean;
  /** How far out of the base its outer edge is: nothing for a frame within it, its width for one about it. */
  out: number;
}

/** A frame whose inner edges are worked: one closed solid, its section swept along every side and mitred at corners. */
function workedFrame(
  { facets }: Site,
  material: string,
  { area: base, range: { from, to } }: Held,
  { section: seen, has, out }: Sweep,
): void {
  const section: SectionLine = { ...seen, offset: seen.offset.map((offset) => offset + out) };
  const isStill = (side: Side | null): boolean => !has(side);
  const loop = jointed(base.points.map((_, i) => loopEdge(base, i, isStill(base.edges[i]!.side) ? still : section)));
  const depth = to - from;
  let tube: Tube;
  try {
    tube = makeTube([loop], { from: 0, to: 1 + depth }, [0, 1 + depth]);
  } catch {
    throw new NotDivided('it is too small for its frame');
  }
  facets.begin(material);
  const at = (node: number): Point => [tube.x[node]!, from + Math.max(0, tube.n[node]! - 1), tube.y[node]!];
  for (const face of tube.faces) {
    const edge = tube.edges[face.edge]!;
    if (edge.section !== section || edge.joint) continue;
    const points = face.nodes.map(at);
    if (flat(points)) continue;
    facing(facets, points, { way: wayOf(tube, face), grain: [edge.dx, 0, edge.dy], shaded: shadingOf(tube, face) });
  }
  const inner = section.offset.at(-1)!;
  const back = moved(base, ({ side }) => (isStill(side) ? 0 : out === 0 ? inner : out));
  const far = tube.far[0]!.nodes.map((node): Spot => [tube.x[node]!, tube.y[node]!]);
  if (!back || !alike(out === 0 ? back.area.points : base.points, far))
    throw new NotDivided('it has sides too short for its mouldings');
  for (const { points, along } of back.strips)
    facing(
      facets,
      points.map(([x, z]): Point => [x, to, z]),
      { way: [0, 1, 0], grain: [along[0], 0, along[1]] },
    );
  outerSides(facets, tube, section, { from, to });
  feet(facets, tube, section, { at, to });
}

/** The outer faces of all members. */
function outerSides(facets: Site['facets'], tube: Tube, section: SectionLine, range: Range): void {
  const { nodes, edges } = tube.near[0]!;
  nodes.forEach((node, i) => {
    const edge = tube.edges[edges[i]!]!;
    const next = nodes[(i + 1) % nodes.length]!;
    if (edge.joint || edge.section !== section) return;
    side(facets, { a: [tube.x[node]!, tube.y[node]!], b: [tube.x[next]!, tube.y[next]!] }, range, {
      outward: true,
      chord: edge.chord ?? undefined,
    });
  });
}

/** Builds a band with a worked inner edge about an area, along some of its sides. @throws NotDivided */
export function banded(site: Site, framing: Framing, along: readonly Side[], { area: inner, range }: Held): void {
  const section = sectionOf(framing);
  const has = (side: Side | null): boolean => side !== null && along.includes(side);
  workedFrame(site, framing.material, { area: inner, range }, { section, has, out: framing.width });
  let last: readonly Spot[] | null = null;
  const edge = framing.moulding && worked(framing.moulding);
  const lines = edge ? edge.arrises.map((inward) => edge.wide - inward) : [0];
  for (const offset of [framing.width, ...lines.sort((a, b) => b - a)]) {
    const ring = moved(inner, ({ side }) => (has(side) ? offset : 0))?.area.points;
    if (ring && last) site.front.push({ kind: 'solid', loops: [last, ring], material: framing.material });
    last = ring ?? last;
  }
}

/** Where members end at a side that has none, their sections are seen. */
function feet(
  facets: Site['facets'],
  tube: Tube,
  section: SectionLine,
  { at, to }: { at: (node: number) => Point; to: number },
): void {
  tube.edges.forEach((edge, e) => {
    if (edge.joint) return jointFoot(facets, tube, e, at);
    if (edge.section === section) return;
    const bands = tube.faces.filter((face) => face.edge === e);
    const [before, after] = [tube.edges[tube.before[e]!]!, tube.edges[tube.after[e]!]!];
    const starts = bands.flatMap(({ nodes, startNear, startFar }) => nodes.slice(startNear, startFar + 1));
    const ends = bands.flatMap(({ nodes, endFar }) => [nodes[0]!, ...nodes.slice(endFar).reverse()]);
    for (const [path, beside] of [
      [starts, before],
      [ends, after],
    ] as const) {
      if (beside.section !== section) continue;
      const points = path.map(at);
      const [x, , z] = points[0]!;
      const polygon = [...points, [x, to, z] as Point].filter((point, i, all) => {
        const last = all[(i + all.length - 1) % all.length]!;
        return Math.hypot(point[0] - last[0], point[1] - last[1], point[2] - last[2]) > nanometre;
      });
      if (polygon.length > 2) facing(facets, polygon, { way: [edge.dy, 0, -edge.dx], grain: [0, 1, 0] });
    }
  });
}

/** Where a member runs on into a side that has none, its section is what the joint between the two sweeps. */
function jointFoot(facets: Site['facets'], tube: Tube, e: number, at: (node: number) => Point): void {
  const [before, after] = [tube.edges[tube.before[e]!]!, tube.edges[tube.after[e]!]!];
  if (before.section === after.section) return;
  const ends = after.section === still;
  const way: Point = ends ? [before.dx, 0, before.dy] : [-after.dx, 0, -after.dy];
  for (const face of tube.faces) {
    if (face.edge !== e) continue;
    const points = face.nodes.map(at);
    if (Math.hypot(...newell(points)) > rounding) facing(facets, points, { way, grain: [0, 1, 0] });
  }
}

/** Whether points span no face. */
function flat(points: readonly Point[]): boolean {
  const [a] = points;
  const seen = points.filter((point) => Math.hypot(point[0] - a![0], point[1] - a![1], point[2] - a![2]) > nanometre);
  return seen.length < 2;
}

/** Out of the solid: away from the member where its section runs into the wall, along the depth where it steps. */
function wayOf(tube: Tube, { edge, near, far }: TubeFace): Point {
  const { dx, dy } = tube.edges[edge]!;
  return normalAt([near[0] + far[0], near[1] + far[1]], [dy, -dx]);
}

/** The normal where a section runs in a direction of (depth, further out), beside an edge whose way out is told. */
const normalAt = ([n, out]: readonly [number, number], [x, z]: Spot): Point => [-n * x, out, -n * z];

function shadingOf(tube: Tube, face: TubeFace): Point[] | undefined {
  const { chord, dx, dy } = tube.edges[face.edge]!;
  const { nodes, startNear, startFar, endFar, near, far } = face;
  const straight = near[0] * far[0] + near[1] * far[1] > 1 - relative;
  // The front, which the section goes across before any depth, is flat.
  const isFront = tube.n[nodes[endFar]!]! <= 1 + rounding;
  if (isFront || (!chord && straight)) return undefined;
  const [from, to] = [tube.n[nodes[0]!]!, tube.n[nodes[endFar]!]!];
  const starts = new Set(nodes.slice(startNear, startFar + 1));
  return nodes.map((node): Point => {
    const share = to - from > nanometre ? (tube.n[node]! - from) / (to - from) : 0;
    const run = [near[0] + share * (far[0] - near[0]), near[1] + share * (far[1] - near[1])] as const;
    const out: Spot = chord ? (starts.has(node) ? [chord.ax, chord.ay] : [chord.bx, chord.by]) : [dy, -dx];
    const [x, y, z] = normalAt(run, out);
    const size = Math.hypot(x, y, z);
    return [x / size, y / size, z / size];
  });
}

function alike(a: readonly Spot[], b: readonly Spot[]): boolean {
  const near = (p: Spot, q: Spot): boolean => Math.hypot(p[0] - q[0], p[1] - q[1]) < micrometre / 10;
  if (a.length !== b.length) return false;
  const shift = b.findIndex((point) => near(point, a[0]!));
  return shift >= 0 && a.every((point, i) => near(point, b[(i + shift) % b.length]!));
}

const isStile = (side: Side | null): boolean => side === 'jamb-left' || side === 'jamb-right';

/**
 * The strips of a frame whose members meet squarely at its corners: those that go through reach the outer edge, the others end at
 * them. Corners where either is too short stay mitred.
 */
function withJoints(within: Moved, joints: Framing['joints']): Moved {
  if (!joints || joints === 'mitred') return within;
  const strips: Strip[] = within.strips.map((strip) => ({ ...strip }));
  strips.forEach((ending, i) => {
    if (isStile(ending.side) !== (joints === 'rails through')) return;
    strips.forEach((through, k) => {
      if (i === k || isStile(through.side) === isStile(ending.side)) return;
      squared(strips, i, k);
    });
  });
  return { ...within, strips };
}

/** Gives the corner of one strip to its neighbour. */
function squared(strips: Strip[], ending: number, through: number): void {
  const [a, b] = [strips[ending]!, strips[through]!];
  const same = (p: Spot, q: Spot): boolean => Math.hypot(p[0] - q[0], p[1] - q[1]) < nanometre * 10;
  const shared = a.points.filter((point) => b.points.some((other) => same(point, other)));
  if (shared.length !== 2) return;
  const reachOf = (point: Spot): number => a.reach[a.points.indexOf(point)]!;
  const [outer, inner] = [...shared].sort((p, q) => reachOf(p) - reachOf(q)) as [Spot, Spot];
  // A corner is at the outer edge: what meets only further in, where an edge has vanished on the way, stays mitred.
  if (reachOf(outer) > relative) return;
  const turn = Math.abs(a.along[0] * b.along[1] - a.along[1] * b.along[0]);
  if (turn < 0.5) return;
  // Along the one that ends, from its outer corner, to where the inner edge of the other goes through.
  const at = a.points.indexOf(outer);
  const next = [a.points[(at + 1) % a.points.length]!, a.points[(at + a.points.length - 1) % a.points.length]!].find(
    (point) => !same(point, inner),
  );
  if (!next) return;
  const [ex, ey] = [next[0] - outer[0], next[1] - outer[1]];
  const cross = ex * b.along[1] - ey * b.along[0];
  const share = ((inner[0] - outer[0]) * b.along[1] - (inner[1] - outer[1]) * b.along[0]) / cross;
  if (!(share > parallel && share < 1 - parallel)) return;
  const corner: Spot = [outer[0] + share * ex, outer[1] + share * ey];
  strips[ending] = { ...a, points: a.points.map((point) => (point === outer ? corner : point)) };
  const from = b.points.findIndex((point) => same(point, outer));
  const to = b.points.findIndex((point) => same(point, inner));
  const ahead = (from + 1) % b.points.length === to;
  const points = [...b.points];
  const reach = [...b.reach];
  const place = ahead ? from + 1 : from;
  points.splice(place, 0, corner);
  reach.splice(place, 0, 0);
  strips[through] = { ...b, points, reach };
}

/** The lines of joints, where members meet at an angle. */
function jointLines({ strips }: Moved): { kind: 'joint'; loops: [Spot, Spot][] }[] {
  const lines: [Spot, Spot][] = [];
  strips.forEach((a, i) =>
    strips.slice(i + 1).forEach((b) => {
      if (Math.abs(a.along[0] * b.along[1] - a.along[1] * b.along[0]) < 0.3) return;
      const shared = a.points.filter((p) =>
        b.points.some((q) => Math.hypot(p[0] - q[0], p[1] - q[1]) < nanometre * 10),
      );
      if (shared.length >= 2) lines.push([shared[0]!, shared.at(-1)!]);
    }),
  );
  return lines.length > 0 ? [{ kind: 'joint', loops: lines }] : [];
}
