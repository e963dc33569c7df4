/** Loops of moving edges: what bounds the solid on a face, each edge knowing how it moves with the depth and whose it is. */
import type { Outline } from '../profile/flatten.ts';
import type { Side } from '../profile/profile.ts';
import type { SectionLine } from '../profile/section.ts';

/** One edge of a loop, the solid on its left. It stays parallel to itself; how far it moves is told by its section. */
export interface LoopEdge {
  /** Its start where its section's offset is 0, metres. */
  x: number;
  y: number;
  /** Unit direction; out of the solid is (dy, −dx). */
  dx: number;
  dy: number;
  /** Its length where all offsets are 0. */
  length: number;
  section: SectionLine;
  /** How far it moves along and up with every metre of depth besides. */
  drift: readonly [number, number];
  /** 1 where a positive offset moves it out of the solid, −1 where into it. */
  sense: 1 | -1;
  /** 0 for the sheet's own edges, k for opening k − 1. */
  operand: number;
  /** Its edge in that outline. */
  source: number;
  side: Side | null;
  /** Exact normals out of the solid at its start and end, where it is a chord of an arc. */
  chord: { ax: number; ay: number; bx: number; by: number } | null;
  /** Whether texture begins anew at its start. */
  seam: boolean;
  /** The way that its start goes with the depth in place of where its line meets that of the edge before it, as long as that is the one named here: [depth, x, y]. */
  way?: { after: number; at: readonly (readonly [number, number, number])[] };
  /** Whether it is only there to join two neighbours that move differently, and has no length of its own. */
  joint: boolean;
}

export type EdgeLoop = LoopEdge[];

/**
 * The loops of an outline whose sections differ by side.
 * @param solidInside whether the solid is within the outline, as of a boss, or about it, as of a void.
 */
export function loopsOf(
  outline: Outline,
  sections: Readonly<Record<Side, SectionLine>>,
  operand: number,
  solidInside: boolean,
): EdgeLoop[] {
  return outline.loops.map((first) => {
    const order: number[] = [];
    let v = first;
    do {
      order.push(v);
      v = outline.next[v]!;
    } while (v !== first);
    if (!solidInside) order.reverse();
    return jointed(order.map((e) => edgeOf(outline, e, sections[outline.side[e]!], { operand, solidInside })));
  });
}

const still = [0, 0] as const;

/** One edge of an outline as a loop's edge. */
export function edgeOf(
  outline: Outline,
  e: number,
  section: SectionLine,
  { operand, solidInside }: { operand: number; solidInside: boolean },
): LoopEdge {
  const { xs, ys, next, arcs, side } = outline;
  const f = next[e]!;
  const [from, to] = solidInside ? [e, f] : [f, e];
  const [vx, vy] = [xs[to]! - xs[from]!, ys[to]! - ys[from]!];
  const size = Math.hypot(vx, vy);
  const chord = arcs[e] ?? null;
  return {
    x: xs[from]!,
    y: ys[from]!,
    dx: vx / size,
    dy: vy / size,
    length: size,
    section,
    drift: still,
    sense: solidInside ? 1 : -1,
    operand,
    source: e,
    side: side[e]!,
    chord:
      chord &&
      (solidInside
        ? { ax: -chord.ax, ay: -chord.ay, bx: -chord.bx, by: -chord.by }
        : { ax: chord.bx, ay: chord.by, bx: chord.ax, by: chord.ay }),
    seam: solidInside ? (chord?.seam ?? false) : (arcs[f]?.seam ?? false),
    joint: false,
  };
}

/** Neighbours that turn by less than this cannot be mitred where they move differently: cosine of 20°. */
export const tangent = Math.cos((20 * Math.PI) / 180);

/** Puts a joint between neighbours that run on into one another but have different sections. */
export function jointed(loop: EdgeLoop): EdgeLoop {
  const out: EdgeLoop = [];
  loop.forEach((edge, i) => {
    const before = loop[(i + loop.length - 1) % loop.length]!;
    const turns = before.dx * edge.dx + before.dy * edge.dy;
    if (
      before !== edge &&
      before.operand === edge.operand &&
      turns > tangent &&
      before.section !== edge.section &&
      !alike(before, edge)
    ) {
      // Its direction is along the normal, so that both neighbours' ends slide on it.
      const [nx, ny] = [before.dy + edge.dy, -(before.dx + edge.dx)];
      const size = Math.hypot(nx, ny);
      out.push({ ...edge, dx: nx / size, dy: ny / size, length: 0, chord: null, seam: false, joint: true });
    }
    out.push(edge);
  });
  return out;
}

function alike(a: LoopEdge, b: LoopEdge): boolean {
  return (
    a.sense === b.sense &&
    a.section.n.length === b.section.n.length &&
    a.section.n.every((n, i) => n === b.section.n[i] && a.section.offset[i] === b.section.offset[i])
  );
}
