/** Groups: openings that meet each other or the sheet's edge, as loops of moving edges through slabs of depth between which nothing begins or ends. */
import type { Sheet } from '../element/sheet.ts';
import { jointed, loopsOf, tangent, type EdgeLoop, type LoopEdge } from '../reveal/loop.ts';
import type { Side } from '../profile/profile.ts';
import { offsetAt, type SectionLine } from '../profile/section.ts';
import type { Placed } from '../setout/placed.ts';
import type { Loop } from '../mesh/arrangement.ts';
import { clip, type ClippedLoop, type Part } from './clip.ts';
import { nanometre as same, parallel } from '../tolerances.ts';

/** Raised where the sheet path cannot express what meets what; the solid path can. */
export class Inexpressible extends Error {}

/** A range of depth, metres, through which the same loops bound the solid. */
export interface Slab {
  from: number;
  to: number;
  loops: EdgeLoop[];
  /** Whether all about the loops is solid, as about openings that lie within the sheet. */
  within: boolean;
}

const shifted = new WeakMap<SectionLine, Map<number, SectionLine>>();

/** A section with its depths moved; the same object for the same question. */
export function shiftedSection(line: SectionLine, by: number): SectionLine {
  if (by === 0) return line;
  let known = shifted.get(line);
  if (!known) shifted.set(line, (known = new Map()));
  let made = known.get(by);
  if (!made) known.set(by, (made = { ...line, n: line.n.map((n) => n + by) }));
  return made;
}

/** An opening's sections at their depths in the element: a boss stands before the face. */
export function sectionsAt(opening: Placed): Readonly<Record<Side, SectionLine>> {
  if (opening.kind !== 'boss') return opening.sections;
  const { sections, depth } = opening;
  return {
    sill: shiftedSection(sections.sill, -depth),
    head: shiftedSection(sections.head, -depth),
    'jamb-left': shiftedSection(sections['jamb-left'], -depth),
    'jamb-right': shiftedSection(sections['jamb-right'], -depth),
  };
}

/** The range of depth in which an opening bounds the solid. */
export function rangeOf(opening: Placed): [number, number] {
  const from = opening.from ?? 0;
  return opening.kind === 'boss'
    ? [-opening.depth, 0]
    : opening.kind === 'imprint'
      ? [0, 0]
      : [from, from + opening.depth];
}

/** Moves an edge on the face. */
export function movedEdge(
  edge: LoopEdge,
  s: number,
  t: number,
  drift: readonly [number, number] | undefined,
): LoopEdge {
  return { ...edge, x: edge.x + s, y: edge.y + t, drift: drift ?? edge.drift };
}

/** The loops of an opening that stands clear of all others. */
export function loopsOfOpening(opening: Placed, operand: number, s: number, t: number): EdgeLoop[] {
  const raised = opening.kind === 'boss' || opening.kind === 'keep inside';
  return loopsOf(opening.outline, sectionsAt(opening), operand, raised).map((loop) =>
    loop.map((edge) => movedEdge(edge, s, t, opening.drift)),
  );
}

/** The loops of what an opening takes away or adds, as a solid of its own in its place. */
function asSolid(opening: Placed, operand: number): EdgeLoop[] {
  return loopsOf(opening.outline, sectionsAt(opening), operand, true).map((loop) =>
    loop.map((edge) => movedEdge(edge, opening.s, opening.t, opening.drift)),
  );
}

/** An opening's outlines at each depth at which its sections begin to run otherwise, where they lie; empty where it runs square through. */
export function outlinesBehind(opening: Placed): Loop[] {
  const own = asSolid(opening, 1);
  const edges = own.flat();
  const [from, to] = rangeOf(opening);
  return edges.every(still) ? [] : depthsOf(edges, from, to).map(({ n, side }) => ringAt(own, n, side));
}

/** A sheet's own edges. */
export function loopsOfSheet(sheet: Sheet): EdgeLoop[] {
  const { outline, thickness } = sheet;
  const square: SectionLine = { n: [0, thickness], offset: [0, 0], smooth: [false, false] };
  return outline.loops.map((first) => {
    const loop: EdgeLoop = [];
    let v = first;
    do {
      loop.push(sheetEdge(sheet, v, outline.sections[v] ?? square));
      v = outline.next[v]!;
    } while (v !== first);
    const { ways } = outline;
    if (!ways) return loop;
    return loop.map((edge, i) => {
      const at = ways[edge.source];
      return at ? { ...edge, way: { after: loop.at(i - 1)!.source, at } } : edge;
    });
  });
}

/** The same for all, so that edges in one line are known to stay in it. */
const unmoved = [0, 0] as const;

function sheetEdge({ outline }: Sheet, v: number, section: SectionLine): LoopEdge {
  const w = outline.next[v]!;
  const [vx, vy] = [outline.xs[w]! - outline.xs[v]!, outline.ys[w]! - outline.ys[v]!];
  const size = Math.hypot(vx, vy);
  return {
    x: outline.xs[v]!,
    y: outline.ys[v]!,
    dx: vx / size,
    dy: vy / size,
    length: size,
    section,
    drift: unmoved,
    sense: 1,
    operand: 0,
    source: v,
    side: null,
    chord: outline.chords[v] ?? null,
    seam: false,
    joint: false,
  };
}

/**
 * The slabs of a group between two depths (metres), outermost first. Where bosses stand before the face, slabs begin before it.
 * @param members openings with their operands.
 * @throws TooTangled, Inexpressible
 */
export function slabsOf(
  sheet: Sheet,
  { members, atEdge }: { members: readonly { opening: Placed; operand: number }[]; atEdge: boolean },
  { from, to }: { from: number; to: number },
): Slab[] {
  const depths = new Set([from, to]);
  for (const { opening } of members) {
    const [a, b] = rangeOf(opening);
    if (opening.kind === 'boss') {
      if (from <= same) depths.add(a);
    } else for (const n of [a, b]) if (n > from + same && n < to - same) depths.add(n);
  }
  const order = [...depths].sort((a, b) => a - b);
  const slabs: Slab[] = [];
  for (let i = 0; i + 1 < order.length; i++)
    slabs.push(slab(sheet, { members, atEdge }, { from: order[i]!, to: order[i + 1]! }));
  return slabs;
}

function slab(
  sheet: Sheet,
  { members, atEdge }: { members: readonly { opening: Placed; operand: number }[]; atEdge: boolean },
  { from, to }: { from: number; to: number },
): Slab {
  const before = to <= same;
  const active = members.filter(({ opening }) => {
    const [a, b] = rangeOf(opening);
    if (opening.kind === 'imprint') return false;
    if (opening.kind === 'boss') return before && a <= from + same;
    return before ? opening.kind !== 'keep inside' : b >= to - same && a <= from + same;
  });
  const sheetLoops = atEdge ? loopsOfSheet(sheet) : [];
  const middle = (from + to) / 2;
  const lists: LoopEdge[][] = [sheetLoops.flat()];
  const loops: Loop[] = [];
  const rings: EdgeLoop[][] = [];
  const parts: Part[] = [];
  const sheetLoop = atEdge ? ringAt(sheetLoops, middle, 1) : null;
  for (const { opening, operand } of active) {
    const own = asSolid(opening, operand);
    lists.push(own.flat());
    rings.push(own);
    loops.push(ringAt(own, middle, 1));
    parts.push(opening.kind === 'boss' ? 'raised' : opening.kind === 'keep inside' ? 'keep' : 'void');
  }
  const raised = parts.includes('raised');
  if (active.length === 0) return { from, to, loops: sheetLoops, within: !atEdge && !before };
  const clipped = clip(sheetLoop, loops, parts);
  if (!lists.flat().every(still)) {
    // Whatever moves with the depth must meet the same neighbours all the way through.
    const wanted = signature(clipped.loops, lists);
    for (const { n, side } of depthsOf(lists.flat(), from, to)) {
      const here = clip(
        atEdge ? ringAt(sheetLoops, n, side) : null,
        rings.map((own) => ringAt(own, n, side)),
        parts,
      );
      if (signature(here.loops, lists) !== wanted) throw new Inexpressible();
    }
  }
  const made = clipped.loops.map((loop) =>
    composite(
      loop.xs.map((x, i) => {
        const k = loop.operand[i]!;
        return { edge: lists[k]![loop.source[i]!]!, reversed: k > 0 && parts[k - 1] === 'void', x, y: loop.ys[i]! };
      }),
      middle,
    ),
  );
  return { from, to, loops: made, within: !atEdge && !raised && !parts.includes('keep') };
}

/** Whether an edge stays where it is through the depth. */
function still({ section, drift }: LoopEdge): boolean {
  return drift[0] === 0 && drift[1] === 0 && section.offset.every((o) => o === section.offset[0]);
}

/** The depths at which any edge begins to move otherwise, just before and just after, within a slab. */
function depthsOf(edges: readonly LoopEdge[], from: number, to: number): { n: number; side: -1 | 1 }[] {
  const depths = new Set([from, to]);
  for (const { section } of edges) for (const n of section.n) if (n > from + same && n < to - same) depths.add(n);
  return [...depths].flatMap((n): { n: number; side: -1 | 1 }[] => [
    ...(n > from + same ? [{ n, side: -1 as const }] : []),
    ...(n < to - same ? [{ n, side: 1 as const }] : []),
  ]);
}

/** Which edges follow which in a set of loops, joints left out; the same however the loops are written. */
function signature(loops: readonly ClippedLoop[], lists: readonly (readonly LoopEdge[])[]): string {
  return loops
    .map((loop) => {
      const edges = loop.operand
        .map((k, i) => (lists[k]![loop.source[i]!]!.joint ? '' : `${k}:${loop.source[i]!}`))
        .filter(Boolean);
      const least = edges.reduce((best, edge, i) => (edge < edges[best]! ? i : best), 0);
      return [...edges.slice(least), ...edges.slice(0, least)].join(' ');
    })
    .sort()
    .join(' | ');
}

/** Loops at a depth as one outline to be laid over others. */
function ringAt(loops: readonly EdgeLoop[], n: number, side: -1 | 1): Loop {
  const xs: number[] = [];
  const ys: number[] = [];
  const next: number[] = [];
  for (const loop of loops) {
    const first = xs.length;
    loop.forEach((edge, i) => {
      const before = loop[(i + loop.length - 1) % loop.length]!;
      const [x, y] = meet(
        { a: before, b: edge },
        { p: movedBy(before, n, side), q: movedBy(edge, n, side) },
        { x: edge.x, y: edge.y },
      );
      xs.push(x);
      ys.push(y);
      next.push(i + 1 === loop.length ? first : xs.length);
    });
  }
  return { xs: Float64Array.from(xs), ys: Float64Array.from(ys), count: xs.length, next: Uint32Array.from(next) };
}

/** How far an edge has moved out of the solid at a depth, metres. */
function movedBy(edge: LoopEdge, n: number, side: -1 | 1): number {
  return edge.sense * offsetAt(edge.section, n, side) + n * (edge.dy * edge.drift[0] - edge.dx * edge.drift[1]);
}

/** Where the lines of two edges meet that have moved out by so much from where they meet at (x, y). */
function meet(
  { a, b }: { a: LoopEdge; b: LoopEdge },
  { p, q }: { p: number; q: number },
  { x, y }: { x: number; y: number },
): [number, number] {
  if (p === 0 && q === 0) return [x, y];
  const [ax, ay, bx, by] = [a.dy, -a.dx, b.dy, -b.dx];
  const det = ax * by - ay * bx;
  const dot = ax * bx + ay * by;
  if (Math.abs(p - q) <= same && dot > -0.999)
    return [x + ((ax + bx) * p) / (1 + dot), y + ((ay + by) * p) / (1 + dot)];
  if (Math.abs(det) < parallel) return [x + ((ax + bx) * (p + q)) / 4, y + ((ay + by) * (p + q)) / 4];
  return [x + (p * by - q * ay) / det, y + (q * ax - p * bx) / det];
}

interface Piece {
  edge: LoopEdge;
  /** Whether the piece runs against its edge, as along a void. */
  reversed: boolean;
  /** Where it starts at the middle depth. */
  x: number;
  y: number;
}

/** A loop of pieces of edges, each clipped by its neighbours. */
function composite(all: readonly Piece[], middle: number): EdgeLoop {
  // Joints are left out here and put in again at the end: they stand where their neighbours would meet.
  const pieces = all.filter(({ edge }) => !edge.joint);
  const jointBefore = pieces.map((piece) => {
    const before = all[(all.indexOf(piece) + all.length - 1) % all.length]!.edge;
    return before.joint ? before : null;
  });
  const count = pieces.length;
  const directed = pieces.map(({ edge, reversed }): LoopEdge => {
    if (!reversed) return { ...edge };
    const { chord } = edge;
    return {
      ...edge,
      dx: -edge.dx,
      dy: -edge.dy,
      sense: edge.sense === 1 ? -1 : 1,
      chord: chord && { ax: -chord.bx, ay: -chord.by, bx: -chord.ax, by: -chord.ay },
      seam: false,
    };
  });
  const out = directed.map((edge, i): LoopEdge => {
    const before = directed[(i + count - 1) % count]!;
    const { x, y } = pieces[i]!;
    const [p, q] = [movedBy(before, middle, 1), movedBy(edge, middle, 1)];
    const joint = jointBefore[i];
    if (joint) return { ...edge, x: joint.x, y: joint.y };
    // Two sides of one outline that run on into each other meet in a joint, whether or not it shows at this depth.
    const own =
      before.operand === edge.operand &&
      before.section !== edge.section &&
      before.dx * edge.dx + before.dy * edge.dy > tangent;
    if (own && Math.abs(p - q) > same) throw new Inexpressible();
    if (p === 0 && q === 0) return { ...edge, x, y };
    // Back from where they meet at the middle depth to where they would with no offset.
    const det = before.dy * -edge.dx + before.dx * edge.dy;
    if (Math.abs(det) < parallel && Math.abs(p - q) > same) throw new Inexpressible();
    const [bx, by] = meet({ a: before, b: edge }, { p: -p, q: -q }, { x, y });
    return { ...edge, x: bx, y: by };
  });
  const lies = out.every((edge, i) => {
    const before = out[(i + count - 1) % count]!;
    return (
      Math.abs(before.dx * edge.dy - before.dy * edge.dx) > parallel ||
      jointBefore[i] ||
      (before.drift === edge.drift && (before.section === edge.section || squares(before.section, edge.section)))
    );
  });
  if (!lies) throw new Inexpressible();
  return jointed(clippedChords(out, pieces, middle));
}

function squares(...sections: SectionLine[]): boolean {
  return sections.every((section) => section.offset.every((o) => o === 0));
}

/** Gives each chord the normals at its clipped ends. */
function clippedChords(loop: EdgeLoop, pieces: readonly Piece[], middle: number): EdgeLoop {
  return loop.map((edge, i) => {
    if (!edge.chord) return edge;
    const { edge: whole, reversed } = pieces[i]!;
    const offset = movedBy(whole, middle, 1);
    const [ox, oy] = [whole.x + whole.dy * offset, whole.y - whole.dx * offset];
    const share = (x: number, y: number): number =>
      Math.max(0, Math.min(1, ((x - ox) * whole.dx + (y - oy) * whole.dy) / whole.length));
    const next = pieces[(i + 1) % pieces.length]!;
    let [a, b] = [share(pieces[i]!.x, pieces[i]!.y), share(next.x, next.y)];
    if (reversed) [a, b] = [1 - a, 1 - b];
    const { ax, ay, bx, by } = edge.chord;
    const at = (k: number): [number, number] => [ax + k * (bx - ax), ay + k * (by - ay)];
    const [[px, py], [qx, qy]] = [at(a), at(b)];
    return { ...edge, chord: { ax: px, ay: py, bx: qx, by: qy } };
  });
}
