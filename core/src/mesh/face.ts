/** Faces: what is left of a face at one depth, triangulated so that every triangle keeps to one facet of a bent chart. */
import { orient } from './orient.ts';
import type { Region } from './region.ts';
import { triangulate } from './triangulate.ts';

/** Loops of vertices on a face, the solid on the left; x and y are developed there, metres. */
export class FaceLoops {
  readonly vertex: number[] = [];
  readonly xs: number[] = [];
  readonly ys: number[] = [];
  readonly next: number[] = [];

  /** Adds a loop. */
  add(vertices: readonly number[], xs: readonly number[], ys: readonly number[]): void {
    const first = this.vertex.length;
    const count = vertices.length;
    for (let i = 0; i < count; i++) {
      this.vertex.push(vertices[i]!);
      this.xs.push(xs[i]!);
      this.ys.push(ys[i]!);
      this.next.push(first + ((i + 1) % count));
    }
  }

  get region(): Region {
    return { count: this.vertex.length, xs: Float64Array.from(this.xs), ys: Float64Array.from(this.ys), next: Uint32Array.from(this.next) };
  }

  /** Whether two sets of loops have the same points, so that the triangles of one serve the other. */
  isLike(other: FaceLoops): boolean {
    const { xs, ys, next } = this;
    if (xs.length !== other.xs.length) return false;
    for (let i = 0; i < xs.length; i++) if (xs[i] !== other.xs[i] || ys[i] !== other.ys[i] || next[i] !== other.next[i]) return false;
    return true;
  }
}

/**
 * Triangles of a region, three of its vertices each, counter-clockwise.
 * @param ribs distances along at which the face is bent, from end to end, or null where it is flat.
 * @throws NotTriangulable
 */
export function triangulateFace(region: Region, ribs: Float64Array | null): Uint32Array {
  return triangulate(ribs && ribs.length > 2 ? { ...region, lines: ribLines(region, ribs) } : region);
}

/** Edges along the ribs, from each vertex on a rib above which the region goes on to the next vertex up. */
export function ribLines({ count, xs, ys, next }: Region, ribs: Float64Array): number[] {
  const at = new Map<number, number>();
  ribs.forEach((x, i) => at.set(x, i));
  const before = new Uint32Array(count);
  for (let v = 0; v < count; v++) before[next[v]!] = v;
  const onRib: number[][] = Array.from(ribs, () => []);
  for (let v = 0; v < count; v++) {
    const i = at.get(xs[v]!);
    if (i !== undefined && i > 0 && i + 1 < ribs.length) onRib[i]!.push(v);
  }
  const lines: number[] = [];
  for (const list of onRib) {
    list.sort((a, b) => ys[a]! - ys[b]!);
    for (let i = 0; i + 1 < list.length; i++) {
      const v = list[i]!;
      if (!opensUp(v)) continue;
      let j = i + 1;
      while (j < list.length && ys[list[j]!]! <= ys[v]!) j += 1;
      const w = list[j];
      if (w !== undefined && next[v] !== w && next[w] !== v) lines.push(v, w);
    }
  }
  return lines;

  /** Whether the way straight up from a vertex leads into the region: within the angle from the edge that leaves it round to the edge that comes in. */
  function opensUp(v: number): boolean {
    const [x, y] = [xs[v]!, ys[v]!];
    const [p, q] = [before[v]!, next[v]!];
    const up = (w: number): number => orient(x, y, xs[w]!, ys[w]!, x, y + 1);
    const convex = orient(xs[p]!, ys[p]!, x, y, xs[q]!, ys[q]!) > 0;
    const [leftOfNext, rightOfBefore] = [up(q) > 0, up(p) < 0];
    return convex ? leftOfNext && rightOfBefore : leftOfNext || rightOfBefore;
  }
}
