/** Edges at which more than two triangles meet. */
import { countOf, type FlatFace, type Making } from './plane-bounds.ts';
import { cross, dot, minus } from '../vector.ts';
import { nanometre } from '../tolerances.ts';

/** How often the edges of faces' triangles are run along, either way. */
class Uses {
  private readonly counts = new Map<number, number>();
  private readonly most: number;

  constructor(faces: readonly (readonly number[])[]) {
    this.most = countOf(faces);
    for (const triangles of faces)
      for (let i = 0; i < triangles.length; i += 3)
        for (let k = 0; k < 3; k++) this.add(triangles[i + k]!, triangles[i + ((k + 1) % 3)]!, 1);
  }

  private key(a: number, b: number): number {
    return a < b ? a * this.most + b : b * this.most + a;
  }

  of(a: number, b: number): number {
    return this.counts.get(this.key(a, b)) ?? 0;
  }

  add(a: number, b: number, more: number): void {
    this.counts.set(this.key(a, b), this.of(a, b) + more);
  }
}

/** Turns edges within faces that lie on an edge of others, where four triangles would meet: a vertex that is almost on a line between two others is cut off by both faces that it bounds. */
export function turnShared(made: readonly number[][], faces: readonly FlatFace[], { kept, point }: Making): void {
  const uses = new Uses(made);
  made.forEach((triangles, f) => {
    if (kept[f]) return;
    const { normal } = faces[f]!;
    // Both are to be triangles still.
    const turns = (p: number, q: number, r: number): boolean =>
      dot(cross(minus(point(q), point(p)), minus(point(r), point(p))), normal) > nanometre * nanometre;
    for (let i = 0; i < triangles.length; i += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b, c] = [0, 1, 2].map((j) => triangles[i + ((k + j) % 3)]!) as [number, number, number];
        if (uses.of(a, b) <= 2) continue;
        const across = acrossEdge(triangles, a, b);
        const d = across && triangles[across.other]!;
        if (!across || d === null || uses.of(c, d) > 0 || !turns(a, d, c) || !turns(d, b, c)) continue;
        triangles.splice(i, 3, a, d, c);
        triangles.splice(across.first, 3, d, b, c);
        uses.add(a, b, -2);
        uses.add(c, d, 2);
      }
  });
}

/** The triangle of a face that has an edge the other way round: where it begins, and where its third vertex is told. */
function acrossEdge(triangles: readonly number[], a: number, b: number): { first: number; other: number } | null {
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++)
      if (triangles[i + k] === b && triangles[i + ((k + 1) % 3)] === a) return { first: i, other: i + ((k + 2) % 3) };
  return null;
}
