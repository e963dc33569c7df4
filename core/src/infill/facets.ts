/** Facets: flat polygons in space put together to a closed mesh, vertices shared where they meet. */
import { MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { FaceLoops, triangulateFace } from '../mesh/face.ts';
import { fewTriangles } from '../mesh/few.ts';
import { relative } from '../tolerances.ts';
import { cross, dot, minus, newell, type Vector } from '../vector.ts';

export type Point = Vector;

export class Facets {
  private readonly builder = new MeshBuilder('');
  private readonly vertices = new Map<string, number>();

  constructor(material: string) {
    this.begin(material);
  }

  /** Goes on with a solid of its own, of a material: it shares no vertices with those before, though it touch them. @param role “sheet” where it is none, but a face alone */
  begin(material: string, role: 'part' | 'sheet' = 'part'): void {
    this.vertices.clear();
    this.builder.begin({ opening: null, role, layer: 0, material });
  }

  /** Goes on with the same solid in another material: what touches stays joined. */
  goOn(material: string): void {
    this.builder.begin({ opening: null, role: 'part', layer: 0, material });
  }

  private vertex([x, y, z]: Point): number {
    const key = `${Math.round(x * 1e8)} ${Math.round(y * 1e8)} ${Math.round(z * 1e8)}`;
    let vertex = this.vertices.get(key);
    if (vertex === undefined) {
      this.vertices.set(key, (vertex = this.builder.takeVertices(1)));
      this.builder.put(vertex, x, y, z);
    }
    return vertex;
  }

  /** Adds a flat face with round or other holes: the first loop goes round it, the others run the other way round. All are counter-clockwise and clockwise as seen from outside. */
  addHoled(loops: readonly (readonly Point[])[], grain: Point): void {
    const normal = unit(newell(loops[0]!));
    const u = inPlane(grain, normal);
    const v = cross(normal, u);
    const face = new FaceLoops();
    const corners: number[] = [];
    for (const points of loops) {
      const flat = points.map((point) => minus(point, loops[0]![0]!));
      face.add(
        points.map((point) => this.vertex(point)),
        flat.map((point) => dot(point, u)),
        flat.map((point) => dot(point, v)),
      );
      for (const point of points)
        corners.push(
          this.builder.corner(
            this.vertex(point),
            ...(normal as [number, number, number]),
            dot(point, u),
            dot(point, v),
          ),
        );
    }
    const triangles = triangulateFace(face.region, null);
    for (let i = 0; i < triangles.length; i += 3) {
      const three = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!].map((k) => corners[k]!);
      this.builder.triangle(three[0]!, three[1]!, three[2]!);
      this.builder.polygon(three);
    }
  }

  /**
   * Adds a flat polygon, counter-clockwise as seen from outside; it may be hollow, but not cross itself.
   * @param grain the direction along which its texture runs, as far as its plane has it.
   * @param shaded normals at its points, where it stands for a piece of something round.
   */
  add(points: readonly Point[], grain: Point, shaded?: readonly Point[]): void {
    const normal = unit(newell(points));
    const u = inPlane(grain, normal);
    const v = cross(normal, u);
    const vertices = points.map((point) => this.vertex(point));
    const flat = points.map((point) => [dot(minus(point, points[0]!), u), dot(minus(point, points[0]!), v)] as const);
    const corners = points.map((point, i) =>
      this.builder.corner(
        vertices[i]!,
        ...((shaded?.[i] ?? normal) as [number, number, number]),
        dot(point, u),
        dot(point, v),
      ),
    );
    const triangles = triangulated(vertices, flat);
    const whole = points.length === 4 && triangles.length === 6;
    for (let i = 0; i < triangles.length; i += 3) {
      const three = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!].map((k) => corners[k]!);
      this.builder.triangle(three[0]!, three[1]!, three[2]!);
      if (!whole) this.builder.polygon(three);
    }
    if (whole) this.builder.polygon(corners);
  }

  finish(): CutMesh {
    return this.builder.finish();
  }
}

type Flat = readonly (readonly [number, number])[];

function triangulated(vertices: readonly number[], flat: Flat): ArrayLike<number> {
  const [xs, ys] = [flat.map(([x]) => x), flat.map(([, y]) => y)];
  const few = vertices.length === 3 ? [0, 1, 2] : fewTriangles(xs, ys);
  if (few) return few;
  const face = new FaceLoops();
  face.add(vertices, xs, ys);
  return triangulateFace(face.region, null);
}

/** A direction as a plane has it: without what leads out of it; where nothing is left, any in the plane. */
function inPlane(way: Point, normal: Point): Point {
  for (const [x, y, z] of [way, [1, 0, 0], [0, 0, 1]] as const) {
    const out = dot([x, y, z], normal);
    const left: Point = [x - out * normal[0], y - out * normal[1], z - out * normal[2]];
    if (Math.hypot(...left) > relative) return unit(left);
  }
  return [0, 1, 0];
}

function unit(vector: Point): Point {
  const size = Math.hypot(...vector);
  return [vector[0] / size + 0, vector[1] / size + 0, vector[2] / size + 0];
}

/** Takes what would be built, and builds nothing: where something is only drawn as it is seen. */
export class NoFacets extends Facets {
  override begin(): void {}
  override goOn(): void {}
  override add(): void {}
  override addHoled(): void {}
}
