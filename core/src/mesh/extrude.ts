/** From the region that is left of a face to the closed, tagged mesh of the element. */
import type { Sheet } from '../element/sheet.ts';
import type { Side } from '../profile/profile.ts';
import type { Placed } from '../setout/resolve.ts';
import { emptyMesh, type CutMesh } from './cut-mesh.ts';
import type { Region } from './region.ts';
import { triangulate } from './triangulate.ts';

const sides: Side[] = ['sill', 'jamb-right', 'head', 'jamb-left'];
const sideNumber: Record<Side, number> = { sill: 0, 'jamb-right': 1, head: 2, 'jamb-left': 3 };

/**
 * Makes the mesh: the region's triangles on the outer and inner face, and a quad (two triangles) for each edge of it and each
 * layer. Vertices are shared along every edge, so the mesh is closed by construction.
 *
 * Texture: on the outer face (u, v) = (s, t). Whatever is bent back from the face at an edge runs on there as though unfolded
 * about it, so a point at depth n behind a straight edge has the edge's (s, t) + n × the direction out of the solid; the chords of an arc are
 * unrolled one after the other. The inner face runs on from the wall's end: (2 × length + thickness − s, t).
 * @param openings by operand: operand k of the region is openings[k − 1].
 * @throws NotTriangulable
 */
export function extrude(sheet: Sheet, region: Region, openings: readonly Placed[]): CutMesh {
  if (region.count === 0) return emptyMesh();
  const faces = triangulate(region);
  const bands = sheet.layers.length;
  const V = region.count;
  const corners = 2 * V + 4 * V * bands;
  const mesh: CutMesh = {
    positions: new Float64Array(3 * corners),
    normals: new Float32Array(3 * corners),
    uvs: new Float32Array(2 * corners),
    vertices: new Uint32Array(corners),
    vertexCount: V * (bands + 1),
    triangles: new Uint32Array(2 * faces.length + 6 * V * bands),
    runs: [],
  };
  const { positions, normals, uvs, vertices, triangles, runs } = mesh;
  const { origin, along, up, inward } = sheet.chart;
  const [ox, oy, oz] = origin;
  const [ax, ay, az] = along;
  const [ux, uy, uz] = up;
  const [ix, iy, iz] = inward;
  const { xs, ys, next } = region;
  const { thickness, boundaries } = sheet;

  const face = (first: number, n: number, facing: -1 | 1): void => {
    for (let v = 0; v < V; v++) {
      const x = xs[v]!;
      const y = ys[v]!;
      const p = 3 * (first + v);
      positions[p] = ox + x * ax + y * ux + n * ix;
      positions[p + 1] = oy + x * ay + y * uy + n * iy;
      positions[p + 2] = oz + x * az + y * uz + n * iz;
      normals[p] = facing * ix;
      normals[p + 1] = facing * iy;
      normals[p + 2] = facing * iz;
      uvs[2 * (first + v)] = facing < 0 ? x : 2 * sheet.length + thickness - x;
      uvs[2 * (first + v) + 1] = y;
      vertices[first + v] = facing < 0 ? v : bands * V + v;
    }
  };
  face(0, 0, -1);
  face(V, thickness, 1);
  triangles.set(faces);
  for (let i = 0; i < faces.length; i += 3) {
    triangles[faces.length + i] = V + faces[i]!;
    triangles[faces.length + i + 1] = V + faces[i + 2]!;
    triangles[faces.length + i + 2] = V + faces[i + 1]!;
  }
  const element = sheet.element;
  const half = faces.length / 3;
  runs.push({ first: 0, count: half, element, opening: null, role: 'outer face', layer: 0, material: sheet.layers[0]!.material });
  runs.push({ first: half, count: half, element, opening: null, role: 'inner face', layer: bands - 1, material: sheet.layers[bands - 1]!.material });

  let triangle = 2 * half;
  let corner = 2 * V;
  for (const { operand, side, edges } of grouped(region, openings)) {
    const opening = operand === 0 ? null : openings[operand - 1]!;
    for (let band = 0; band < bands; band++) {
      const near = boundaries[band]!;
      const far = boundaries[band + 1]!;
      runs.push({
        first: triangle,
        count: 2 * edges.length,
        element,
        opening: opening?.id ?? null,
        role: opening ? side : 'edge',
        layer: band,
        material: opening?.reveal ?? sheet.layers[band]!.material,
      });
      for (const v of edges) {
        quad(v, next[v]!, near, far, band * V, opening);
        const p = 3 * triangle;
        triangles[p] = corner;
        triangles[p + 1] = corner + 1;
        triangles[p + 2] = corner + 2;
        triangles[p + 3] = corner;
        triangles[p + 4] = corner + 2;
        triangles[p + 5] = corner + 3;
        triangle += 2;
        corner += 4;
      }
    }
  }
  return mesh;

  /** Four corners behind the edge from v to w: w and v at the near depth, v and w at the far one. */
  function quad(v: number, w: number, near: number, far: number, nearVertex: number, opening: Placed | null): void {
    const vx = xs[v]!;
    const vy = ys[v]!;
    const wx = xs[w]!;
    const wy = ys[w]!;
    const length = Math.sqrt((wx - vx) * (wx - vx) + (wy - vy) * (wy - vy));
    // Out of the solid, which is on the edge's left.
    const outX = (wy - vy) / length;
    const outY = (vx - wx) / length;
    const e = region.source[v]!;
    const arc = opening === null ? null : opening.outline.arcs[e]!;
    for (let k = 0; k < 4; k++) {
      const atW = k === 0 || k === 3;
      const x = atW ? wx : vx;
      const y = atW ? wy : vy;
      const n = k < 2 ? near : far;
      let dx = outX;
      let dy = outY;
      let tu = x + n * outX;
      let tv = y + n * outY;
      if (arc) {
        const at = atW ? region.to[v]! : region.from[v]!;
        const from = arc.from;
        const to = arc.to;
        dx = from.nx + (to.nx - from.nx) * at;
        dy = from.ny + (to.ny - from.ny) * at;
        const size = Math.sqrt(dx * dx + dy * dy);
        dx /= size;
        dy /= size;
        tu = opening!.s + from.u + (to.u - from.u) * at + n * arc.du;
        tv = opening!.t + from.v + (to.v - from.v) * at + n * arc.dv;
      }
      const c = corner + k;
      const p = 3 * c;
      positions[p] = ox + x * ax + y * ux + n * ix;
      positions[p + 1] = oy + x * ay + y * uy + n * iy;
      positions[p + 2] = oz + x * az + y * uz + n * iz;
      normals[p] = dx * ax + dy * ux;
      normals[p + 1] = dx * ay + dy * uy;
      normals[p + 2] = dx * az + dy * uz;
      uvs[2 * c] = tu;
      uvs[2 * c + 1] = tv;
      vertices[c] = nearVertex + (k < 2 ? 0 : V) + (atW ? w : v);
    }
  }
}

/** The region's edges by operand and side, in the order in which the openings come. */
function grouped(region: Region, openings: readonly Placed[]): { operand: number; side: Side; edges: number[] }[] {
  const groups = new Array<number[] | undefined>(4 * (openings.length + 1));
  for (let v = 0; v < region.count; v++) {
    const operand = region.operand[v]!;
    const side = operand === 0 ? 0 : sideNumber[openings[operand - 1]!.outline.side[region.source[v]!]!];
    const key = 4 * operand + side;
    const group = groups[key];
    if (group) group.push(v);
    else groups[key] = [v];
  }
  const found: { operand: number; side: Side; edges: number[] }[] = [];
  groups.forEach((edges, key) => {
    if (edges) found.push({ operand: key >> 2, side: sides[key & 3]!, edges });
  });
  return found;
}
