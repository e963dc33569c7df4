/** The mesh of a shell's skin: its two surfaces, and its sides divided where layers meet. */
import type { Layer } from '@yard-arch/document';
import type { Skin } from '../cut/setting.ts';
import { turnedOut } from '../element/chart.ts';
import { shellPoint, type ShellBody } from '../element/shell-sheets.ts';
import { MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { FaceLoops, triangulateFace } from '../mesh/face.ts';
import type { ShellPolygon } from '../shell/solid.ts';
import { cross, dot, minus, newell, type Vector } from '../vector.ts';
import { nanometre } from '../tolerances.ts';

/** One skin of a shell as a closed mesh. */
export function shellMesh(body: ShellBody, id: string, layers: readonly Layer[], { from, to }: Skin): CutMesh {
  const { shell, boundaries } = body;
  const writer = new Writer(body, id);
  const layerOf = (depth: number): number =>
    Math.max(
      0,
      boundaries.findLastIndex((boundary, i) => i < layers.length && boundary < depth - nanometre),
    );
  const [outer, inner] = [layerOf(from + 2 * nanometre), layerOf(to)];
  const run = (role: 'outer face' | 'inner face' | 'edge', layer: number) => ({
    opening: null,
    role,
    layer,
    material: layers[layer]!.material,
  });
  writer.builder.begin(run('outer face', outer));
  for (const polygon of shell.surface(from)) writer.add(polygon);
  writer.builder.begin(run('inner face', inner));
  for (const polygon of shell.surface(to))
    // Seen from below, what ran to the right runs to the left.
    writer.add(
      [...polygon]
        .reverse()
        .map(({ at, normal, uv: [u, v] }) => ({ at, normal: turnedRound(normal), uv: [0 - u, v] as const })),
    );
  const depths = [from, ...[...boundaries].filter((depth) => depth > from + nanometre && depth < to - nanometre), to];
  for (let i = 0; i + 1 < depths.length; i++) {
    writer.builder.begin(run('edge', layerOf(depths[i]! + 2 * nanometre)));
    for (const polygon of shell.sides(depths[i]!, depths[i + 1]!)) writer.add(polygon);
  }
  return writer.builder.finish();
}

/** What a shell carries, each a closed solid of its own. */
export function carriedMesh(body: ShellBody, id: string): CutMesh {
  const writer = new Writer(body, id);
  for (const { polygons, material } of body.shell.carried) {
    writer.builder.begin({ opening: null, role: 'part', layer: 0, material });
    for (const polygon of polygons) writer.add(polygon);
  }
  return writer.builder.finish();
}

const turnedRound = ([x, y, z]: Vector): Vector => [0 - x, 0 - y, 0 - z];

/** Writes polygons, those that meet sharing their vertices. */
class Writer {
  readonly builder: MeshBuilder;
  private readonly vertices = new Map<string, number>();

  constructor(
    private readonly body: ShellBody,
    id: string,
  ) {
    this.builder = new MeshBuilder(id);
  }

  private vertex(point: Vector): number {
    const key = point.map((x) => Math.round(x * 1e8)).join(' ');
    let vertex = this.vertices.get(key);
    if (vertex === undefined) {
      this.vertices.set(key, (vertex = this.builder.takeVertices(1)));
      this.builder.put(vertex, ...shellPoint(this.body, point));
    }
    return vertex;
  }

  add(polygon: ShellPolygon): void {
    const own = polygon.map(({ at, normal, uv }) =>
      this.builder.sharedCorner(this.vertex(at), ...turnedOut(this.body.frame, normal), ...uv),
    );
    const triangles = polygon.length === 3 ? [0, 1, 2] : within(polygon.map(({ at }) => at));
    for (let i = 0; i < triangles.length; i += 3) {
      const three = [own[triangles[i]!]!, own[triangles[i + 1]!]!, own[triangles[i + 2]!]!] as const;
      this.builder.triangle(...three);
      if (polygon.length !== 4) this.builder.polygon([...three]);
    }
    if (polygon.length === 4) this.builder.polygon(own);
  }
}

/** The triangles of a flat polygon. */
function within(points: readonly Vector[]): ArrayLike<number> {
  const long = newell(points);
  const size = Math.hypot(...long);
  const normal: Vector = [long[0] / size, long[1] / size, long[2] / size];
  const axis: Vector = Math.abs(normal[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const across = cross(axis, normal);
  const wide = Math.hypot(...across);
  const u: Vector = [across[0] / wide, across[1] / wide, across[2] / wide];
  const v = cross(normal, u);
  const flat = points.map((point) => minus(point, points[0]!));
  const face = new FaceLoops();
  face.add(
    points.map((_, i) => i),
    flat.map((point) => dot(point, u)),
    flat.map((point) => dot(point, v)),
  );
  return triangulateFace(face.region, null);
}
