/** From the region that is left of a face to the closed, tagged mesh of the element. */
import type { Sheet } from '../element/sheet.ts';
import type { Side } from '../profile/profile.ts';
import type { Placed } from '../setout/resolve.ts';
import { emptyMesh, type CutMesh, type Run } from './cut-mesh.ts';
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
  let corner = 0;

  const put = (s: number, t: number, n: number, dx: number, dy: number, dn: number, u: number, v: number, vertex: number): void => {
    const p = 3 * corner;
    positions[p] = ox + s * ax + t * ux + n * ix;
    positions[p + 1] = oy + s * ay + t * uy + n * iy;
    positions[p + 2] = oz + s * az + t * uz + n * iz;
    normals[p] = dx * ax + dy * ux + dn * ix;
    normals[p + 1] = dx * ay + dy * uy + dn * iy;
    normals[p + 2] = dx * az + dy * uz + dn * iz;
    uvs[2 * corner] = u;
    uvs[2 * corner + 1] = v;
    vertices[corner] = vertex;
    corner += 1;
  };

  const { xs, ys, next } = region;
  const { thickness, boundaries } = sheet;
  for (let v = 0; v < V; v++) put(xs[v]!, ys[v]!, 0, 0, 0, -1, xs[v]!, ys[v]!, v);
  const wrapped = 2 * sheet.length + thickness;
  for (let v = 0; v < V; v++) put(xs[v]!, ys[v]!, thickness, 0, 0, 1, wrapped - xs[v]!, ys[v]!, bands * V + v);
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
  for (const { operand, side, edges } of grouped(region, openings)) {
    const opening = operand === 0 ? null : openings[operand - 1]!;
    for (let band = 0; band < bands; band++) {
      const run: Run = {
        first: triangle,
        count: 2 * edges.length,
        element,
        opening: opening?.id ?? null,
        role: opening ? side : 'edge',
        layer: band,
        material: opening?.reveal ?? sheet.layers[band]!.material,
      };
      const near = boundaries[band]!;
      const far = boundaries[band + 1]!;
      for (const v of edges) {
        const w = next[v]!;
        const dx = xs[w]! - xs[v]!;
        const dy = ys[w]! - ys[v]!;
        const length = Math.hypot(dx, dy);
        // Out of the solid, which is on the edge's left.
        const outX = dy / length;
        const outY = -dx / length;
        let [vx, vy, wx, wy] = [outX, outY, outX, outY];
        const first = corner;
        const e = region.source[v]!;
        const arc = opening?.outline.curved[e] === 1 ? opening.outline : null;
        if (arc) {
          const cx = opening!.s + arc.cx[e]!;
          const cy = opening!.t + arc.cy[e]!;
          const rv = Math.hypot(cx - xs[v]!, cy - ys[v]!);
          const rw = Math.hypot(cx - xs[w]!, cy - ys[w]!);
          [vx, vy, wx, wy] = [(cx - xs[v]!) / rv, (cy - ys[v]!) / rv, (cx - xs[w]!) / rw, (cy - ys[w]!) / rw];
          const u = opening!.s + arc.u[e]!;
          const span = arc.vTo[e]! - arc.vFrom[e]!;
          const base = opening!.t + arc.vFrom[e]!;
          const atV = base + span * region.from[v]!;
          const atW = base + span * region.to[v]!;
          put(xs[w]!, ys[w]!, near, wx, wy, 0, u + near, atW, band * V + w);
          put(xs[v]!, ys[v]!, near, vx, vy, 0, u + near, atV, band * V + v);
          put(xs[v]!, ys[v]!, far, vx, vy, 0, u + far, atV, (band + 1) * V + v);
          put(xs[w]!, ys[w]!, far, wx, wy, 0, u + far, atW, (band + 1) * V + w);
        } else {
          put(xs[w]!, ys[w]!, near, wx, wy, 0, xs[w]! + near * outX, ys[w]! + near * outY, band * V + w);
          put(xs[v]!, ys[v]!, near, vx, vy, 0, xs[v]! + near * outX, ys[v]! + near * outY, band * V + v);
          put(xs[v]!, ys[v]!, far, vx, vy, 0, xs[v]! + far * outX, ys[v]! + far * outY, (band + 1) * V + v);
          put(xs[w]!, ys[w]!, far, wx, wy, 0, xs[w]! + far * outX, ys[w]! + far * outY, (band + 1) * V + w);
        }
        const p = 3 * triangle;
        triangles[p] = first;
        triangles[p + 1] = first + 1;
        triangles[p + 2] = first + 2;
        triangles[p + 3] = first;
        triangles[p + 4] = first + 2;
        triangles[p + 5] = first + 3;
        triangle += 2;
      }
      runs.push(run);
    }
  }
  return mesh;
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
