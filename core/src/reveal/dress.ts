/** Dressing: normals and texture coordinates for the patches of a placed tube, and their triangles. */
import type { LoopEdge } from './loop.ts';
import { cutUp } from './ears.ts';
import { cutsOf, localFrames } from './local-frames.ts';
import type { PlacedTube, Patch } from './patches.ts';
import { bandRounded, type Laying } from './rounded-band.ts';

const same = 1e-9;

/** Patches as they are drawn: corners with normals and texture, and triangles of corners. */
export interface Dressed {
  /** Corners of patch p are cornerStart[p] … cornerStart[p + 1] − 1, in the order of its nodes. */
  cornerStart: Uint32Array;
  normals: Float32Array;
  uvs: Float64Array;
  /** Triangles of patch p are triangleStart[p] … triangleStart[p + 1] − 1, three corners each. */
  triangleStart: Uint32Array;
  triangles: Uint32Array;
}

/** Directions of a node's frame: x, y, z of along, of up, and of inward, nine figures. */
export type FrameAt = (node: number) => readonly number[];

/** Where texture begins on rounded reveals, by edge. */
export type SeamOf = (edge: LoopEdge) => 'start' | 'crown' | 'end';

/**
 * Dresses a placed tube.
 *
 * Texture is unrolled: each patch is laid flat at true scale. A straight side goes on from the face's own (u, v) about the arris; patches that follow one another along a rounded side, or along a
 * straight one on a curved wall, are laid side by side from the seam on.
 */
export function dress(placed: PlacedTube, frameAt: FrameAt, seamOf: SeamOf): Dressed {
  const { tube, patches, patchStart } = placed;
  const E = tube.edges.length;
  const cornerStart = new Uint32Array(patches.length + 1);
  patches.forEach((patch, p) => (cornerStart[p + 1] = cornerStart[p]! + patch.nodes.length));
  const C = cornerStart[patches.length]!;
  const normals = new Float32Array(3 * C);
  const uvs = new Float64Array(2 * C);
  const local = localFrames(placed);
  const cuts = cutsOf(placed, local, cornerStart);

  // The depth at which each patch of an edge begins, in order: rows of one edge.
  const rows: number[][][] = [];
  for (let e = 0; e < E; e++) {
    const list: number[][] = [];
    let face = -1;
    for (let p = patchStart[e]!; p < patchStart[e + 1]!; p++) {
      if (patches[p]!.face !== face) {
        list.push([]);
        face = patches[p]!.face;
      }
      list.at(-1)!.push(p);
    }
    rows.push(list);
  }
  // Where each patch is laid: texture at its startNear, and the way of its edge there, a unit vector.
  const laidU = new Float64Array(patches.length);
  const laidV = new Float64Array(patches.length);
  const laidCos = new Float64Array(patches.length);
  const laidSin = new Float64Array(patches.length);
  const uvOf = (p: number, corner: number): [number, number] => {
    const c = cornerStart[p]! + corner;
    const [a, l, cos, sin] = [local.a[c]!, local.l[c]!, laidCos[p]!, laidSin[p]!];
    return [laidU[p]! + a * cos + l * sin, laidV[p]! + a * sin - l * cos];
  };
  /** Lays a patch so that its corner stands at a place, its edge going a given way. */
  const lay = (p: number, corner: number, u: number, v: number, cos: number, sin: number): void => {
    const c = cornerStart[p]! + corner;
    laidU[p] = u - (local.a[c]! * cos + local.l[c]! * sin);
    laidV[p] = v - (local.a[c]! * sin - local.l[c]! * cos);
    laidCos[p] = cos;
    laidSin[p] = sin;
  };
  /** Lays a patch so that one of its sides, given by its corners, lies on a side of patch q, which is laid already. */
  const layOn = (p: number, near: number, far: number, q: number, onNear: number, onFar: number): void => {
    const [u, v] = uvOf(q, onNear);
    const [fu, fv] = uvOf(q, onFar);
    const [c, d] = [cornerStart[p]! + near, cornerStart[p]! + far];
    const [x, y] = [local.a[d]! - local.a[c]!, local.l[c]! - local.l[d]!];
    const [du, dv] = [fu - u, fv - v];
    // The turn that takes (x, y) to (du, dv).
    const [cos, sin] = [x * du + y * dv, x * dv - y * du];
    const size = Math.sqrt(cos * cos + sin * sin);
    if (du * du + dv * dv < same * same || x * x + y * y < same * same) lay(p, near, u, v, laidCos[q]!, laidSin[q]!);
    else lay(p, near, u, v, cos / size, sin / size);
  };

  /** Lays the patches of one row of edges, given in order, from its start on, or from its end back; the first of them goes a given way. */
  const run = (
    list: readonly number[],
    from: readonly [number, number],
    way: readonly [number, number],
    backward: boolean,
  ): void => {
    if (!backward)
      for (let i = 0; i < list.length; i++) {
        const p = list[i]!;
        const { startNear, startFar } = patches[p]!;
        if (i === 0) lay(p, startNear, from[0], from[1], way[0], way[1]);
        else layOn(p, startNear, startFar, list[i - 1]!, patches[list[i - 1]!]!.endNear, patches[list[i - 1]!]!.endFar);
      }
    else
      for (let i = list.length - 1; i >= 0; i--) {
        const p = list[i]!;
        const { endNear, endFar } = patches[p]!;
        if (i === list.length - 1) lay(p, endNear, from[0], from[1], way[0], way[1]);
        else layOn(p, endNear, endFar, list[i + 1]!, patches[list[i + 1]!]!.startNear, patches[list[i + 1]!]!.startFar);
      }
  };
  const faceUv = (node: number): [number, number] => [placed.u[node]!, placed.v[node]!];
  const directionOf = (e: number): [number, number] => [tube.edges[e]!.dx, tube.edges[e]!.dy];
  /** The exact tangent at an edge's start or end. */
  const tangentOf = (e: number, atEnd: boolean): [number, number] => {
    const { chord } = tube.edges[e]!;
    if (!chord) return directionOf(e);
    const [x, y] = atEnd ? [-chord.by, chord.bx] : [-chord.ay, chord.ax];
    const size = Math.hypot(x, y);
    return [x / size, y / size];
  };

  // Where corners are laid that lie in no plane with their patch.
  const bent = new Map<number, readonly [number, number]>();
  const laying: Laying = {
    placed,
    local,
    cornerStart,
    laidAt: (p, corner) => bent.get(cornerStart[p]! + corner) ?? uvOf(p, corner),
    put: (laid) => laid.forEach((uv, corner) => bent.set(corner, uv)),
  };

  const done = new Uint8Array(E);
  for (let e = 0; e < E; e++) {
    if (done[e] || rows[e]!.length === 0) continue;
    const edge = tube.edges[e]!;
    if (!edge.chord) {
      done[e] = 1;
      let from: [number, number] | null = null;
      for (const row of rows[e]!) {
        const first = row[0]!;
        from ??= faceUv(patches[first]!.nodes[patches[first]!.startNear]!);
        run(row, from, directionOf(e), false);
        from = uvOf(first, patches[first]!.startFar);
      }
      continue;
    }
    // A run of chords: from where a rounded side begins, or texture begins anew, to where it ends.
    let first = e;
    const goesOn = (k: number): boolean => {
      const here = tube.edges[k]!;
      const before = tube.edges[tube.before[k]!]!;
      return !here.seam && before.chord !== null && before.operand === here.operand && !before.joint;
    };
    while (goesOn(first) && tube.before[first] !== e) first = tube.before[first]!;
    if (goesOn(first)) first = e;
    const edges = [first];
    for (let k = tube.after[first]!; k !== first && tube.edges[k]!.chord && goesOn(k); k = tube.after[k]!)
      edges.push(k);
    for (const k of edges) done[k] = 1;
    const last = edges.at(-1)!;
    const [before, after] = [tube.before[first]!, tube.after[last]!];
    const seam = seamOf(edge);
    const half = seam === 'start' ? 0 : seam === 'end' ? edges.length : edges.length >> 1;
    const depth = Math.max(...edges.map((k) => rows[k]!.length));
    let way: [number, number];
    if (half === 0) way = tube.edges[before]!.chord || before === last ? tangentOf(first, false) : directionOf(before);
    else if (half === edges.length)
      way = tube.edges[after]!.chord || after === first ? tangentOf(last, true) : directionOf(after);
    else way = tangentOf(edges[half]!, false);
    let onStart: [number, number] | null = null;
    for (let r = 0; r < depth; r++) {
      const forward: number[] = [];
      const back: number[] = [];
      edges.forEach((k, i) => {
        const row = rows[k]![r];
        if (row) for (const p of row) (i < half ? back : forward).push(p);
      });
      const lead = forward[0] ?? back.at(-1);
      if (lead === undefined) continue;
      const patch = patches[lead]!;
      const atStart = forward.length > 0;
      onStart ??= faceUv(patch.nodes[atStart ? patch.startNear : patch.endNear]!);
      run(forward, onStart, way, false);
      run(back, onStart, way, true);
      onStart = uvOf(lead, atStart ? patch.startFar : patch.endFar);
    }
    bandRounded(
      edges.map((k) => rows[k]!),
      laying,
    );
  }

  const triangles: number[] = [];
  const triangleStart = new Uint32Array(patches.length + 1);
  for (let p = 0; p < patches.length; p++) {
    const patch = patches[p]!;
    const first = cornerStart[p]!;
    const count = patch.nodes.length;
    const face = tube.faces[patch.face]!;
    const edge = tube.edges[face.edge]!;
    const u = laidU[p]!;
    const v = laidV[p]!;
    const cos = laidCos[p]!;
    const sin = laidSin[p]!;
    const nx = local.normal[3 * p]!;
    const ny = local.normal[3 * p + 1]!;
    const nz = local.normal[3 * p + 2]!;
    for (let c = first; c < first + count; c++) {
      const a = local.a[c]!;
      const l = local.l[c]!;
      const own = bent.get(c);
      uvs[2 * c] = own ? own[0] : u + a * cos + l * sin;
      uvs[2 * c + 1] = own ? own[1] : v + a * sin - l * cos;
      normals[3 * c] = nx;
      normals[3 * c + 1] = ny;
      normals[3 * c + 2] = nz;
    }
    if ((edge.chord !== null || face.near !== face.far) && !edge.joint)
      exactNormals(edge, patch, placed, local.a, first, face.near, face.far, frameAt, normals);
    const cut = cuts.get(p);
    if (cut) for (const c of cut) triangles.push(c);
    else cutUp(patch, first, local.a, local.l, triangles);
    triangleStart[p + 1] = triangles.length / 3;
  }
  return { cornerStart, normals, uvs, triangleStart, triangles: Uint32Array.from(triangles) };
}

/**
 * The exact normals at a patch's corners: across the edge as the arc has it there, along the depth as the section has it. With tangent T along the edge and W along the section the normal is W × T.
 * Where that strays far from the patch's own normal, which is there already, that stays.
 */
function exactNormals(
  edge: LoopEdge,
  patch: Patch,
  placed: PlacedTube,
  along: Float64Array,
  first: number,
  near: readonly [number, number],
  far: readonly [number, number],
  frameAt: FrameAt,
  normals: Float32Array,
): void {
  const { nodes } = patch;
  const n0 = placed.n[nodes[patch.startNear]!]!;
  const n1 = placed.n[nodes[patch.startFar]!]!;
  const s = along[first + patch.startNear]!;
  const e = along[first + patch.endNear]!;
  const { chord, sense } = edge;
  for (let i = 0; i < nodes.length; i++) {
    let ox = edge.dy;
    let oy = -edge.dx;
    if (chord) {
      const share = Math.abs(e - s) < same ? 0.5 : Math.max(0, Math.min(1, (along[first + i]! - s) / (e - s)));
      ox = chord.ax + share * (chord.bx - chord.ax);
      oy = chord.ay + share * (chord.by - chord.ay);
    }
    const node = nodes[i]!;
    const n = placed.n[node]!;
    const section = Math.abs(n - n1) < Math.abs(n - n0) ? far : near;
    const dn = section[0];
    const d = section[1] * sense;
    const frame = frameAt(node);
    const tx = -oy * frame[0]! + ox * frame[3]!;
    const ty = -oy * frame[1]! + ox * frame[4]!;
    const tz = -oy * frame[2]! + ox * frame[5]!;
    const wx = d * (ox * frame[0]! + oy * frame[3]!) + dn * frame[6]!;
    const wy = d * (ox * frame[1]! + oy * frame[4]!) + dn * frame[7]!;
    const wz = d * (ox * frame[2]! + oy * frame[5]!) + dn * frame[8]!;
    const x = wy * tz - wz * ty;
    const y = wz * tx - wx * tz;
    const z = wx * ty - wy * tx;
    const size = Math.sqrt(x * x + y * y + z * z);
    const c = 3 * (first + i);
    if (size < 1e-12 || (x * normals[c]! + y * normals[c + 1]! + z * normals[c + 2]!) / size < 0.3) continue;
    normals[c] = x / size;
    normals[c + 1] = y / size;
    normals[c + 2] = z / size;
  }
}
