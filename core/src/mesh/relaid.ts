/** Texture laid anew on a mesh whose shape has changed: unrolled triangle by triangle, so that it is at true scale again, and runs on where it did. */
import type { CutMesh } from './cut-mesh.ts';
import { nanometre, noTexture, sameDrawn, sameShade, scaled, scaleGrain } from '../tolerances.ts';

type Three = readonly [number, number, number];

/**
 * The same mesh with texture of some triangles laid flat at true scale. The largest of those that hang together keeps the direction of its texture and the place of
 * one corner; the others are laid beside it, each about the edge that it shares with one that is laid.
 * Exact where the surface can be unrolled; where one that bends both ways comes back to where it has been laid, it stays as it was laid first.
 * @param which by triangle: whether its texture was at true scale before, and so is to be again
 */
export function relaid(mesh: CutMesh, which: readonly boolean[]): CutMesh {
  const laying = new Laying(mesh);
  const count = mesh.triangles.length / 3;
  const seeds = Array.from({ length: count }, (_, t) => t).filter((t) => which[t]);
  const sizes = seeds.map((t) => laying.areaOf(t));
  const order = seeds.map((_, i) => i).sort((i, k) => sizes[k]! - sizes[i]!);
  for (const i of order) if (sizes[i]! > noTexture) laying.from(seeds[i]!, which);
  return { ...mesh, uvs: laying.uvs() };
}

/** Places in a texture: a vertex, how it is shaded, and where it is drawn. Corners that share all are one, so that texture runs on from face to face where the surface does. */
class Laying {
  /** Each corner's place. */
  private readonly places: Uint32Array;
  private readonly vertexOf: number[] = [];
  /** Where each place is drawn, in figures finer than those that are kept; as it was until it is laid. */
  private readonly u: number[] = [];
  private readonly v: number[] = [];
  private readonly laidPlace: Uint8Array;
  private readonly laidTriangle: Uint8Array;
  /** Triangles by the two places of an edge, the lower first. */
  private readonly beside = new Map<number, number[]>();

  constructor(private readonly mesh: CutMesh) {
    const { vertices, normals, uvs } = mesh;
    this.places = new Uint32Array(vertices.length);
    const known = new Map<string, number>();
    for (let corner = 0; corner < vertices.length; corner++) {
      const [u, v] = [uvs[2 * corner]!, uvs[2 * corner + 1]!];
      const shade = [0, 1, 2].map((k) => Math.round(normals[3 * corner + k]! / sameShade));
      const key = `${vertices[corner]!} ${Math.round(u / sameDrawn)} ${Math.round(v / sameDrawn)} ${shade.join(' ')}`;
      let place = known.get(key);
      if (place === undefined) {
        known.set(key, (place = this.vertexOf.length));
        this.vertexOf.push(vertices[corner]!);
        this.u.push(u);
        this.v.push(v);
      }
      this.places[corner] = place;
    }
    this.laidPlace = new Uint8Array(this.vertexOf.length);
    this.laidTriangle = new Uint8Array(mesh.triangles.length / 3);
    for (let t = 0; t < mesh.triangles.length / 3; t++)
      for (const [a, b] of this.edgesOf(t)) {
        const key = this.keyOf(a, b);
        const list = this.beside.get(key);
        if (list) list.push(t);
        else this.beside.set(key, [t]);
      }
  }

  private keyOf(a: number, b: number): number {
    return Math.min(a, b) * this.vertexOf.length + Math.max(a, b);
  }

  /** The texture of all corners, as it is laid now. */
  uvs(): Float32Array {
    const uvs = this.mesh.uvs.slice();
    this.places.forEach((place, corner) => {
      if (!this.laidPlace[place]) return;
      uvs[2 * corner] = this.u[place]!;
      uvs[2 * corner + 1] = this.v[place]!;
    });
    return uvs;
  }

  /** The places of a triangle's corners. */
  private cornersOf(t: number): Three {
    const { triangles } = this.mesh;
    return [0, 1, 2].map((k) => this.places[triangles[3 * t + k]!]!) as unknown as Three;
  }

  private edgesOf(t: number): (readonly [number, number])[] {
    const [a, b, c] = this.cornersOf(t);
    return [
      [a, b],
      [b, c],
      [c, a],
    ];
  }

  private to(a: number, b: number): Three {
    const { points } = this.mesh;
    const [p, q] = [3 * this.vertexOf[a]!, 3 * this.vertexOf[b]!];
    return [points[q]! - points[p]!, points[q + 1]! - points[p + 1]!, points[q + 2]! - points[p + 2]!];
  }

  areaOf(t: number): number {
    const [a, b, c] = this.cornersOf(t);
    return size(cross(this.to(a, b), this.to(a, c))) / 2;
  }

  /** Lays all triangles that hang together with one, and are to be. */
  from(seed: number, which: readonly boolean[]): void {
    if (this.laidTriangle[seed]) return;
    const mirrored = this.layFirst(seed);
    if (mirrored === null) return;
    const queue = [seed];
    for (const t of queue)
      for (const [a, b] of this.edgesOf(t))
        for (const next of this.beside.get(this.keyOf(a, b))!) {
          if (this.laidTriangle[next] || !which[next] || !this.layBeside(next, [a, b], mirrored)) continue;
          queue.push(next);
        }
  }

  private put(place: number, u: number, v: number): void {
    if (this.laidPlace[place]) return;
    this.laidPlace[place] = 1;
    this.u[place] = u;
    this.v[place] = v;
  }

  /** Lays a triangle as its texture runs. @returns whether that is mirrored; null where it has none. */
  private layFirst(t: number): 1 | -1 | null {
    const [a, b, c] = this.cornersOf(t);
    const [p, q] = [this.to(a, b), this.to(a, c)];
    const [du, dv] = [this.u[b]! - this.u[a]!, this.v[b]! - this.v[a]!];
    const [eu, ev] = [this.u[c]! - this.u[a]!, this.v[c]! - this.v[a]!];
    const turn = du * ev - eu * dv;
    const normal = cross(p, q);
    // Where u alone grows, in space.
    const along: Three = [0, 1, 2].map((k) => (ev * p[k]! - dv * q[k]!) / (turn || 1)) as unknown as Three;
    if (Math.abs(turn) < noTexture || size(along) < nanometre) return null;
    const mirrored = turn > 0 ? 1 : -1;
    const [x, y] = [unit(along), unit(cross(normal, along))];
    this.laidTriangle[t] = 1;
    const [u, v] = [this.u[a]!, this.v[a]!];
    this.put(a, u, v);
    this.put(b, u + dot(p, x), v + mirrored * dot(p, y));
    this.put(c, u + dot(q, x), v + mirrored * dot(q, y));
    return mirrored;
  }

  /** Lays a triangle about an edge that is laid. @returns false where the edge is too short to tell. */
  private layBeside(t: number, [a, b]: readonly [number, number], mirrored: 1 | -1): boolean {
    const corners = this.cornersOf(t);
    const c = corners.find((corner) => corner !== a && corner !== b)!;
    const edge = this.to(a, b);
    const length = size(edge);
    if (length < nanometre) return false;
    this.laidTriangle[t] = 1;
    const third = this.to(a, c);
    const [along, off] = [dot(third, edge) / length, size(cross(edge, third)) / length];
    // Whether it goes round a, b, c as it lies in the mesh.
    const onward = corners[(corners.indexOf(a) + 1) % 3] === b ? 1 : -1;
    const [du, dv] = [this.u[b]! - this.u[a]!, this.v[b]! - this.v[a]!];
    const drawn = Math.hypot(du, dv) || 1;
    const [x, y] = [du / drawn, dv / drawn];
    const way = onward * mirrored * off;
    this.put(c, this.u[a]! + along * x - way * y, this.v[a]! + along * y + way * x);
    return true;
  }
}

const dot = (a: Three, b: Three): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const size = (a: Three): number => Math.sqrt(dot(a, a));
const cross = (a: Three, b: Three): Three => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
function unit(a: Three): Three {
  const length = size(a);
  return [a[0] / length, a[1] / length, a[2] / length];
}

/** By triangle: whether its texture is at true scale, to a thousandth. */
export function atTrueScale({ points, vertices, triangles, uvs }: CutMesh): boolean[] {
  return Array.from({ length: triangles.length / 3 }, (_, t) =>
    [0, 1, 2].every((k) => {
      const [a, b] = [triangles[3 * t + k]!, triangles[3 * t + ((k + 1) % 3)]!];
      const [p, q] = [3 * vertices[a]!, 3 * vertices[b]!];
      const real = Math.hypot(
        points[q]! - points[p]!,
        points[q + 1]! - points[p + 1]!,
        points[q + 2]! - points[p + 2]!,
      );
      const drawn = Math.hypot(uvs[2 * b]! - uvs[2 * a]!, uvs[2 * b + 1]! - uvs[2 * a + 1]!);
      return Math.abs(drawn - real) < scaled * real + scaleGrain;
    }),
  );
}
