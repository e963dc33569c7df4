/** Proofs on a mesh: whether it is closed, clean and turned the right way, measured from the mesh alone. */
import type { CutMesh, Role } from './cut-mesh.ts';
import { halfEdgesOf, sameEdge, type HalfEdges } from './edges.ts';

export interface MeshProof {
  /** Edges used by one triangle only, or by two that run along it the same way. */
  openEdges: number;
  /** Edges used by more than two triangles. */
  nonManifoldEdges: number;
  /** Triangles with less than a square nanometre a metre of their longest side: collapsed ones. */
  collapsed: number;
  closed: boolean;
  /** Enclosed volume, cubic metres; negative when the mesh is inside out. */
  volume: number;
  /** Total area, and area by role, square metres. */
  area: number;
  areaByRole: Partial<Record<Role, number>>;
  triangles: number;
  /** Least height of any triangle over its longest side, metres. */
  thinnest: number;
  /** Area by material, square metres. */
  areaByMaterial: Record<string, number>;
  /** How many polygons have so many sides. */
  polygonsBySides: Record<number, number>;
  /** Least and greatest length of texture on a metre of surface, over all edges longer than a millimetre. */
  density: [number, number];
}

/** Proves a mesh. Volume is the sum over triangles of a · (b × c) / 6 (the divergence theorem), about the first vertex. */
export function prove(mesh: CutMesh): MeshProof {
  const { points, vertices, triangles } = mesh;
  const count = triangles.length / 3;

  const { openEdges, nonManifoldEdges } = faultsAt(halfEdgesOf(mesh));
  let volume = 0;
  let area = 0;
  let collapsed = 0;
  let thinnest = Infinity;
  const areas = new Float64Array(count);
  const [x0, y0, z0] = [points[0] ?? 0, points[1] ?? 0, points[2] ?? 0];
  for (let i = 0; i < count; i++) {
    const [p, q, r] = [3 * vertices[triangles[3 * i]!]!, 3 * vertices[triangles[3 * i + 1]!]!, 3 * vertices[triangles[3 * i + 2]!]!];
    const [ax, ay, az] = [points[p]! - x0, points[p + 1]! - y0, points[p + 2]! - z0];
    const [bx, by, bz] = [points[q]! - x0, points[q + 1]! - y0, points[q + 2]! - z0];
    const [cx, cy, cz] = [points[r]! - x0, points[r + 1]! - y0, points[r + 2]! - z0];
    volume += (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay);
    const ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az);
    const nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    const twice = Math.sqrt(nx * nx + ny * ny + nz * nz);
    areas[i] = twice / 2;
    area += twice / 2;
    const longest = Math.sqrt(
      Math.max(
        (bx - ax) ** 2 + (by - ay) ** 2 + (bz - az) ** 2,
        (cx - bx) ** 2 + (cy - by) ** 2 + (cz - bz) ** 2,
        (ax - cx) ** 2 + (ay - cy) ** 2 + (az - cz) ** 2,
      ),
    );
    const thin = longest > 0 ? twice / longest : 0;
    thinnest = Math.min(thinnest, thin);
    if (thin < 1e-9) collapsed += 1;
  }
  const areaByRole: Partial<Record<Role, number>> = {};
  const areaByMaterial: Record<string, number> = {};
  for (const run of mesh.runs) {
    let sum = 0;
    for (let i = run.first; i < run.first + run.count; i++) sum += areas[i]!;
    areaByRole[run.role] = (areaByRole[run.role] ?? 0) + sum;
    areaByMaterial[run.material] = (areaByMaterial[run.material] ?? 0) + sum;
  }
  const polygonsBySides: Record<number, number> = {};
  for (let p = 0; p + 1 < mesh.polygonStart.length; p++) {
    const sides = mesh.polygonStart[p + 1]! - mesh.polygonStart[p]!;
    polygonsBySides[sides] = (polygonsBySides[sides] ?? 0) + 1;
  }
  return {
    openEdges,
    nonManifoldEdges,
    collapsed,
    closed: openEdges === 0 && nonManifoldEdges === 0,
    volume,
    area,
    areaByRole,
    triangles: count,
    thinnest: count > 0 ? thinnest : 0,
    areaByMaterial,
    polygonsBySides,
    density: densityOf(mesh),
  };
}

/** How many edges are not used just once each way. */
function faultsAt(edges: HalfEdges): Pick<MeshProof, 'openEdges' | 'nonManifoldEdges'> {
  const { order, from } = edges;
  let [openEdges, nonManifoldEdges] = [0, 0];
  for (let i = 0; i < order.length; ) {
    const first = order[i]!;
    let [uses, onward] = [0, 0];
    for (; i < order.length && sameEdge(edges, first, order[i]!); i++) {
      uses += 1;
      if (from[order[i]!] === from[first]) onward += 1;
    }
    if (uses > 2) nonManifoldEdges += 1;
    else if (uses !== 2 || onward !== 1) openEdges += 1;
  }
  return { openEdges, nonManifoldEdges };
}

/** Least and greatest length of texture on a metre of surface. Edges of less than a millimetre say nothing: their texture is told in 32-bit figures. */
function densityOf({ points, vertices, uvs, triangles }: CutMesh): [number, number] {
  let [least, greatest] = [Infinity, 0];
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const a = triangles[i + k]!;
      const b = triangles[i + ((k + 1) % 3)]!;
      const [v, w] = [3 * vertices[a]!, 3 * vertices[b]!];
      const real = Math.sqrt((points[w]! - points[v]!) ** 2 + (points[w + 1]! - points[v + 1]!) ** 2 + (points[w + 2]! - points[v + 2]!) ** 2);
      if (real < 1e-3) continue;
      const drawn = Math.sqrt((uvs[2 * b]! - uvs[2 * a]!) ** 2 + (uvs[2 * b + 1]! - uvs[2 * a + 1]!) ** 2);
      least = Math.min(least, drawn / real);
      greatest = Math.max(greatest, drawn / real);
    }
  return greatest === 0 ? [1, 1] : [least, greatest];
}
