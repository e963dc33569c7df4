/** Faces: what is left of a face at one depth, triangulated so that every triangle keeps to one facet of a bent chart. */
import { orient } from './orient.ts';
import type { Region } from './region.ts';
import { triangulate } from './triangulate.ts';

/** Loops of vertices on a face, the solid on the left; x and y are developed there, metres. */
export class FaceLoops {
  private vertices = new Uint32Array(0);
  private x = new Float64Array(0);
  private y = new Float64Array(0);
  private following = new Uint32Array(0);
  count = 0;
  /** Whether two points may stand on one place, as where openings touch in a corner. */
  pinched = false;
  private frees = 0;
  private first = 0;
  private left = 0;

  /** Begins a loop of so many points. */
  open(count: number): void {
    this.first = this.count;
    this.left = count;
    if (this.count + count > this.vertices.length) this.reserve(Math.max(count, this.vertices.length));
  }

  /** Makes room for so many more points, so that nothing has to be copied as they come. */
  reserve(count: number): void {
    const room = this.count + count;
    if (room <= this.vertices.length) return;
    const more = <T extends Float64Array | Uint32Array>(array: T): T => {
      const made = new (array.constructor as new (length: number) => T)(room);
      made.set(array as never);
      return made;
    };
    this.vertices = more(this.vertices);
    this.x = more(this.x);
    this.y = more(this.y);
    this.following = more(this.following);
  }

  /** The next point of the loop that was begun. */
  point(vertex: number, x: number, y: number): void {
    const at = this.count++;
    this.vertices[at] = vertex;
    this.x[at] = x;
    this.y[at] = y;
    this.left -= 1;
    this.following[at] = this.left === 0 ? this.first : at + 1;
  }

  /** Adds a point that stands free within the face; after all loops. */
  free(vertex: number, x: number, y: number): void {
    const loops = this.count;
    this.open(1);
    this.point(vertex, x, y);
    this.count = loops + 1;
    this.frees += 1;
  }

  /** Adds a loop. */
  add(vertices: ArrayLike<number>, xs: ArrayLike<number>, ys: ArrayLike<number>): void {
    this.open(vertices.length);
    for (let i = 0; i < vertices.length; i++) this.point(vertices[i]!, xs[i]!, ys[i]!);
  }

  get vertex(): Uint32Array {
    return this.vertices.subarray(0, this.count);
  }

  get region(): Region {
    const { count } = this;
    const loops = count - this.frees;
    return {
      count: loops,
      xs: this.x.subarray(0, count),
      ys: this.y.subarray(0, count),
      next: this.following.subarray(0, loops),
      pinched: this.pinched,
    };
  }

  /** Whether two sets of loops have the same points, so that the triangles of one serve the other. */
  isLike(other: FaceLoops): boolean {
    if (this.count !== other.count) return false;
    for (let i = 0; i < this.count; i++)
      if (this.x[i] !== other.x[i] || this.y[i] !== other.y[i] || this.following[i] !== other.following[i])
        return false;
    return true;
  }
}

/**
 * Triangles of a region, three of its vertices each, counter-clockwise.
 * @param ribs distances along at which the face is bent, from end to end, or null where it is flat.
 * @param lines further edges that must be there, as pairs of points.
 * @throws NotTriangulable
 */
export function triangulateFace(region: Region, ribs: Float64Array | null, lines: readonly number[] = []): Uint32Array {
  const all = [...ribLines(region, ribs), ...lines];
  return triangulate(all.length > 0 ? { ...region, lines: all } : region);
}

/** Edges along the ribs, from each vertex on a rib above which the region goes on to the next vertex up; none where the face is flat. */
export function ribLines(region: Region, ribs: Float64Array | null): number[] {
  if (!ribs || ribs.length <= 2) return [];
  const { count, xs, ys, next } = region;
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
      if (!leadsInside(region, before, v, 0, 1)) continue;
      let j = i + 1;
      while (j < list.length && ys[list[j]!]! <= ys[v]!) j += 1;
      const w = list[j];
      if (w !== undefined && next[v] !== w && next[w] !== v) lines.push(v, w);
    }
  }
  return lines;
}

/**
 * Whether a way from a vertex of a region's boundary leads into the region: within the angle from the edge that leaves the vertex round to the edge that comes in.
 * @param before the vertex before each.
 */
export function leadsInside(
  { xs, ys, next }: Region,
  before: Uint32Array,
  v: number,
  wayX: number,
  wayY: number,
): boolean {
  const [x, y] = [xs[v]!, ys[v]!];
  const [p, q] = [before[v]!, next[v]!];
  const side = (w: number): number => orient(x, y, xs[w]!, ys[w]!, x + wayX, y + wayY);
  const convex = orient(xs[p]!, ys[p]!, x, y, xs[q]!, ys[q]!) > 0;
  const [leftOfNext, rightOfBefore] = [side(q) > 0, side(p) < 0];
  return convex ? leftOfNext && rightOfBefore : leftOfNext || rightOfBefore;
}
