/** Proofs on a mesh: whether it is closed, clean and turned the right way, measured from the mesh alone. */
import type { CutMesh, Role, Run } from './cut-mesh.ts';
import { halfEdgesOf, sameEdge, type HalfEdges } from './edges.ts';
import {
  leastAgreement,
  bentBothWays,
  collapsed as collapsedTriangle,
  folded,
  millimetre,
  noTexture,
  tellingArea,
} from '../tolerances.ts';

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
  /** Edges at which two triangles lie on each other, back to back: skins of no thickness, which are no part of a solid. */
  flaps: number;
  /** How many polygons have so many sides. */
  polygonsBySides: Record<number, number>;
  /** Area of triangles at whose corners a normal looks far elsewhere than they do, square metres: they are shaded as what they are not. */
  astrayNormals: number;
  /** Least and greatest length of texture on a metre of surface, over all edges longer than a millimetre, where the surface is flat or bends one way. */
  density: [number, number];
  /** The same where it bends both ways, as a rounded arris on an arch does: no flat picture lies on it without stretching. 1 and 1 where nothing does. */
  densityOnBent: [number, number];
}

/** Proves a mesh. Volume is the sum over triangles of a · (b × c) / 6 (the divergence theorem), about the first vertex. */
export function prove(mesh: CutMesh): MeshProof {
  const { points, vertices, triangles } = mesh;
  const count = triangles.length / 3;

  const edges = halfEdgesOf(mesh);
  const { openEdges, nonManifoldEdges } = faultsAt(edges);
  let volume = 0;
  let area = 0;
  let collapsed = 0;
  let thinnest = Infinity;
  const areas = new Float64Array(count);
  const [x0, y0, z0] = [points[0] ?? 0, points[1] ?? 0, points[2] ?? 0];
  for (let i = 0; i < count; i++) {
    const [p, q, r] = [
      3 * vertices[triangles[3 * i]!]!,
      3 * vertices[triangles[3 * i + 1]!]!,
      3 * vertices[triangles[3 * i + 2]!]!,
    ];
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
    if (thin < collapsedTriangle) collapsed += 1;
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
    flaps: flapsAt(edges, mesh),
    polygonsBySides,
    astrayNormals: astrayNormalsIn(mesh, areas),
    ...densitiesOf(mesh),
  };
}

/** Area of triangles one of whose normals is further from their own than any smooth surface has it. */
function astrayNormalsIn({ points, vertices, triangles, normals }: CutMesh, areas: Float64Array): number {
  let astray = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const [p, q, r] = corners.map((c) => 3 * vertices[c]!) as [number, number, number];
    const [ux, uy, uz] = [0, 1, 2].map((k) => points[q + k]! - points[p + k]!) as [number, number, number];
    const [vx, vy, vz] = [0, 1, 2].map((k) => points[r + k]! - points[p + k]!) as [number, number, number];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const least = leastAgreement * 2 * areas[i / 3]!;
    if (corners.some((c) => normals[3 * c]! * nx + normals[3 * c + 1]! * ny + normals[3 * c + 2]! * nz < least))
      astray += areas[i / 3]!;
  }
  return astray;
}

/** Whether a mesh is closed: every edge used just once each way. */
export function isClosed(mesh: CutMesh): boolean {
  const { openEdges, nonManifoldEdges } = faultsAt(halfEdgesOf(mesh));
  return openEdges === 0 && nonManifoldEdges === 0;
}

/** How many edges are not used just once each way by the triangles of their own layer: where layers are solids of their own, each is to be closed by itself. */
export function openEdgesByLayer(mesh: CutMesh): number {
  let open = 0;
  for (const layer of new Set(mesh.runs.map((run) => run.layer))) {
    const runs = mesh.runs.filter((run) => run.layer === layer);
    const triangles = new Uint32Array(3 * runs.reduce((sum, { count }) => sum + count, 0));
    let at = 0;
    for (const { first, count } of runs) {
      triangles.set(mesh.triangles.subarray(3 * first, 3 * (first + count)), at);
      at += 3 * count;
    }
    const { openEdges, nonManifoldEdges } = faultsAt(halfEdgesOf({ ...mesh, triangles }));
    open += openEdges + nonManifoldEdges;
  }
  return open;
}

/** Whether a mesh is closed, and nowhere lies on itself along an edge. */
export function isClean(mesh: CutMesh): boolean {
  const edges = halfEdgesOf(mesh);
  const { openEdges, nonManifoldEdges } = faultsAt(edges);
  return openEdges === 0 && nonManifoldEdges === 0 && flapsAt(edges, mesh) === 0;
}

/** How many edges are not used just once each way. */
function faultsAt(edges: HalfEdges): Pick<MeshProof, 'openEdges' | 'nonManifoldEdges'> {
  const { order, from } = edges;
  let [openEdges, nonManifoldEdges] = [0, 0];
  for (let i = 0; i < order.length;) {
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

/** How many edges have two triangles on each other. */
function flapsAt(edges: HalfEdges, mesh: CutMesh): number {
  const { order } = edges;
  let flaps = 0;
  for (let i = 0; i + 1 < order.length; i++)
    if (
      sameEdge(edges, order[i]!, order[i + 1]!) &&
      isFlap(mesh, Math.floor(order[i]! / 3), Math.floor(order[i + 1]! / 3))
    )
      flaps += 1;
  return flaps;
}

/** Whether two triangles face each other's way back: their normals are opposite, to a hair. */
function isFlap({ points, vertices, triangles }: CutMesh, p: number, q: number): boolean {
  const normal = (t: number): [number, number, number] => {
    const [a, b, c] = [
      3 * vertices[triangles[3 * t]!]!,
      3 * vertices[triangles[3 * t + 1]!]!,
      3 * vertices[triangles[3 * t + 2]!]!,
    ];
    const [ux, uy, uz] = [points[b]! - points[a]!, points[b + 1]! - points[a + 1]!, points[b + 2]! - points[a + 2]!];
    const [vx, vy, vz] = [points[c]! - points[a]!, points[c + 1]! - points[a + 1]!, points[c + 2]! - points[a + 2]!];
    return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  };
  const [[ax, ay, az], [bx, by, bz]] = [normal(p), normal(q)];
  const dot = ax * bx + ay * by + az * bz;
  if (dot >= 0) return false;
  const size = Math.sqrt((ax * ax + ay * ay + az * az) * (bx * bx + by * by + bz * bz));
  // Of collapsed triangles nothing can be said.
  if (size < noTexture) return false;
  return Math.hypot(ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx) < folded * size;
}

/** How many triangles of some runs have their texture the wrong way round: seen from outside, u does not run to the left of v. */
export function mirroredIn({ triangles, uvs, runs }: CutMesh, of: (run: Run) => boolean): number {
  let count = 0;
  for (const run of runs) {
    if (!of(run)) continue;
    for (let i = 3 * run.first; i < 3 * (run.first + run.count); i += 3) {
      const [a, b, c] = [2 * triangles[i]!, 2 * triangles[i + 1]!, 2 * triangles[i + 2]!];
      const area =
        ((uvs[b]! - uvs[a]!) * (uvs[c + 1]! - uvs[a + 1]!) - (uvs[c]! - uvs[a]!) * (uvs[b + 1]! - uvs[a + 1]!)) / 2;
      if (area < -tellingArea && area < -roundedArea(uvs, [a, b, c])) count += 1;
    }
  }
  return count;
}

/** How much of a triangle's texture area (square metres) rounding to 32 bits may make, or take. */
function roundedArea(uvs: Float32Array, corners: readonly number[]): number {
  const us = corners.map((at) => uvs[at]!);
  const vs = corners.map((at) => uvs[at + 1]!);
  const size = Math.max(Math.max(...us) - Math.min(...us), Math.max(...vs) - Math.min(...vs));
  return size * Math.max(...us.map(Math.abs), ...vs.map(Math.abs)) * 2 ** -23;
}

/** Least and greatest length of texture on a metre of surface, on what is flat or bends one way, and on what bends both. Edges of less than a millimetre say nothing: their texture is told in 32-bit figures. */
function densitiesOf(mesh: CutMesh): Pick<MeshProof, 'density' | 'densityOnBent'> {
  const { points, vertices, uvs, triangles } = mesh;
  const found = { plain: [Infinity, 0] as [number, number], bent: [Infinity, 0] as [number, number] };
  const onBent = cornersOnBent(mesh);
  for (let i = 0; i < triangles.length; i += 3) {
    const isBent = onBent[triangles[i]!] || onBent[triangles[i + 1]!] || onBent[triangles[i + 2]!];
    const range = isBent ? found.bent : found.plain;
    for (let k = 0; k < 3; k++) {
      const a = triangles[i + k]!;
      const b = triangles[i + ((k + 1) % 3)]!;
      const [v, w] = [3 * vertices[a]!, 3 * vertices[b]!];
      const real = Math.sqrt(
        (points[w]! - points[v]!) ** 2 +
          (points[w + 1]! - points[v + 1]!) ** 2 +
          (points[w + 2]! - points[v + 2]!) ** 2,
      );
      if (real < millimetre) continue;
      const drawn = Math.sqrt((uvs[2 * b]! - uvs[2 * a]!) ** 2 + (uvs[2 * b + 1]! - uvs[2 * a + 1]!) ** 2);
      range[0] = Math.min(range[0], drawn / real);
      range[1] = Math.max(range[1], drawn / real);
    }
  }
  const told = (range: [number, number]): [number, number] => (range[1] === 0 ? [1, 1] : range);
  return { density: told(found.plain), densityOnBent: told(found.bent) };
}

/** Corners of surfaces that bend both ways: where the normals at a triangle's corners point to the corners of a triangle, and not to places on one great circle. Slivers beside such triangles tell nothing by themselves. */
function cornersOnBent({ normals, triangles, vertices }: CutMesh): Uint8Array {
  const onBent = new Uint8Array(vertices.length);
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const [x, y, z] = [normals[3 * a]!, normals[3 * a + 1]!, normals[3 * a + 2]!];
    const [px, py, pz] = [normals[3 * b]! - x, normals[3 * b + 1]! - y, normals[3 * b + 2]! - z];
    if (px === 0 && py === 0 && pz === 0) continue;
    const [qx, qy, qz] = [normals[3 * c]! - x, normals[3 * c + 1]! - y, normals[3 * c + 2]! - z];
    const spanned = x * (py * qz - pz * qy) + y * (pz * qx - px * qz) + z * (px * qy - py * qx);
    if (Math.abs(spanned) > bentBothWays) onBent[a] = onBent[b] = onBent[c] = 1;
  }
  return onBent;
}
