/** Dressing: normals and texture coordinates for the patches of a placed tube, and their triangles. */
import type { LoopEdge } from './loop.ts';
import { cutUp } from './ears.ts';
import { cutsOf, localFrames } from './local-frames.ts';
import type { PlacedTube, Patch } from './patches.ts';

const same = 1e-9;

/** A rounded arris on a rounded side bends both ways; its texture may be stretched by this share along the side before it is broken instead. */
const mostStretch = 0.03;

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
  const run = (list: readonly number[], from: readonly [number, number], way: readonly [number, number], backward: boolean): void => {
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
  const bent = new Map<number, [number, number]>();
  const laidAt = (p: number, corner: number): [number, number] => bent.get(cornerStart[p]! + corner) ?? uvOf(p, corner);
  const faceOf = (p: number) => tube.faces[patches[p]!.face]!;
  const depthOf = (p: number): number => Math.abs(placed.n[patches[p]!.nodes[patches[p]!.startFar]!]! - placed.n[patches[p]!.nodes[patches[p]!.startNear]!]!);
  /** Lays the rows of a rounded arris on a rounded side as a band along the row that they run into: they bend both ways, so that laid flat one by one they would break the texture at every chord. */
  const bandRounded = (sides: readonly (readonly number[][])[]): void => {
    const chains = Array.from({ length: Math.max(...sides.map((list) => list.length)) }, (_, r) => sides.flatMap((list) => list[r] ?? []));
    const widths = chains.map((row) => Math.max(0, ...row.map(depthOf)));
    const lead = widths.indexOf(Math.max(...widths));
    const smoothly = (r: number): boolean => {
      const [before, after] = [chains[r]![0], chains[r + 1]![0]];
      return before !== undefined && after !== undefined && sameWay(faceOf(before).far, faceOf(after).near);
    };
    for (let r = lead - 1; r >= 0 && smoothly(r); r--) if (!band(chains[r]!, chains[r + 1]!, true)) break;
    for (let r = lead + 1; r < chains.length && smoothly(r - 1); r++) if (!band(chains[r]!, chains[r - 1]!, false)) break;
  };
  /** Lays all corners of a patch between the two ends of its joined side and those of its free one. */
  const bend = (p: number, ends: readonly [number, [number, number]][], laid: Map<number, [number, number]>): void => {
    const [j0, j1, f0, f1] = ends as [[number, [number, number]], [number, [number, number]], [number, [number, number]], [number, [number, number]]];
    const { a, l } = local;
    const width = l[f0[0]]! - l[j0[0]]!;
    for (let c = cornerStart[p]!; c < cornerStart[p + 1]!; c++) {
      const deep = Math.abs(width) < same ? 0 : Math.max(0, Math.min(1, (l[c]! - l[j0[0]]!) / width));
      const [from, to] = [a[j0[0]]! + deep * (a[f0[0]]! - a[j0[0]]!), a[j1[0]]! + deep * (a[f1[0]]! - a[j1[0]]!)];
      const along = Math.abs(to - from) < same ? 0 : (a[c]! - from) / (to - from);
      const mixed = (k: 0 | 1): number => (1 - deep) * (j0[1][k] + along * (j1[1][k] - j0[1][k])) + deep * (f0[1][k] + along * (f1[1][k] - f0[1][k]));
      laid.set(c, [mixed(0), mixed(1)]);
    }
    // The ends are where they are, whatever rounding says.
    for (const [corner, uv] of ends) laid.set(corner, uv);
  };
  /** Whether a patch is laid at true scale, but for what may be stretched: all its corners as far apart as they are, those nearer than a tenth of a millimetre left out. */
  const isTrue = (p: number, laid: ReadonlyMap<number, readonly [number, number]>): boolean => {
    const { a, l } = local;
    for (let c = cornerStart[p]!; c < cornerStart[p + 1]!; c++)
      for (let d = c + 1; d < cornerStart[p + 1]!; d++) {
        const real = Math.hypot(a[d]! - a[c]!, l[d]! - l[c]!);
        const [p0, q0] = [laid.get(c)!, laid.get(d)!];
        if (real > 1e-4 && Math.abs(Math.hypot(q0[0] - p0[0], q0[1] - p0[1]) / real - 1) > mostStretch) return false;
      }
    return true;
  };
  /** The corners of a patch along its near or its far side, from the edge's start to its end. */
  const alongSide = (p: number, far: boolean): number[] => {
    const { nodes, startNear, endNear, startFar, endFar } = patches[p]!;
    const [from, to, step] = far ? [startFar, endFar, 1] : [startNear, endNear, nodes.length - 1];
    const out = [from];
    while (out.at(-1) !== to && out.length < nodes.length) out.push((out.at(-1)! + step) % nodes.length);
    return out;
  };
  /** @param outer whether the row lies before the one that is laid already, which it joins by its far side. @returns false, having laid nothing, where the two do not match or it would be stretched too far. */
  const band = (row: readonly number[], on: readonly number[], outer: boolean): boolean => {
    // Where the nodes between the rows are laid, in order.
    const line = on.flatMap((q) => alongSide(q, !outer).map((corner) => ({ node: patches[q]!.nodes[corner]!, uv: laidAt(q, corner) })));
    const made: [number, [number, number]][] = [];
    const joins: [number, [number, number]][] = [];
    let at = 0;
    for (const p of row) {
      const { nodes, startNear, endNear, startFar, endFar } = patches[p]!;
      const joined = alongSide(p, outer);
      const places: [number, [number, number]][] = [];
      for (const corner of joined) {
        while (at < line.length && line[at]!.node !== nodes[corner]) at += 1;
        if (at === line.length) return false;
        places.push([cornerStart[p]! + corner, line[at]!.uv]);
      }
      const [[first, [u0, v0]], [last, [u1, v1]]] = [places[0]!, places.at(-1)!];
      const free = outer ? [startNear, endNear] : [startFar, endFar];
      const [f0, f1] = [cornerStart[p]! + free[0]!, cornerStart[p]! + free[1]!];
      const length = Math.hypot(u1 - u0, v1 - v0);
      const { l } = local;
      if (!(length > same)) return false;
      // Square to the side that it joins, on the side on which it lies: the section runs to the right of the edge's way.
      const width = (outer ? -1 : 1) * Math.abs(l[f0]! - l[first]!);
      const [du, dv] = [(width * (v1 - v0)) / length, (-width * (u1 - u0)) / length];
      made.push([first, [u0, v0]], [last, [u1, v1]], [f0, [u0 + du, v0 + dv]], [f1, [u1 + du, v1 + dv]]);
      joins.push(...places);
    }
    joinAlong(made, row.length);
    const laid = new Map<number, [number, number]>();
    row.forEach((p, i) => bend(p, made.slice(4 * i, 4 * i + 4), laid));
    for (const [corner, uv] of joins) laid.set(corner, uv);
    if (!row.every((p) => isTrue(p, laid))) return false;
    for (const [corner, uv] of laid) bent.set(corner, uv);
    return true;
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
    for (let k = tube.after[first]!; k !== first && tube.edges[k]!.chord && goesOn(k); k = tube.after[k]!) edges.push(k);
    for (const k of edges) done[k] = 1;
    const last = edges.at(-1)!;
    const [before, after] = [tube.before[first]!, tube.after[last]!];
    const seam = seamOf(edge);
    const half = seam === 'start' ? 0 : seam === 'end' ? edges.length : edges.length >> 1;
    const depth = Math.max(...edges.map((k) => rows[k]!.length));
    let way: [number, number];
    if (half === 0) way = tube.edges[before]!.chord || before === last ? tangentOf(first, false) : directionOf(before);
    else if (half === edges.length) way = tube.edges[after]!.chord || after === first ? tangentOf(last, true) : directionOf(after);
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
    bandRounded(edges.map((k) => rows[k]!));
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
    if ((edge.chord !== null || face.near !== face.far) && !edge.joint) exactNormals(edge, patch, placed, local.a, first, face.near, face.far, frameAt, normals);
    const cut = cuts.get(p);
    if (cut) for (const c of cut) triangles.push(c);
    else cutUp(patch, first, local.a, local.l, triangles);
    triangleStart[p + 1] = triangles.length / 3;
  }
  return { cornerStart, normals, uvs, triangleStart, triangles: Uint32Array.from(triangles) };
}

const sameWay = (a: readonly [number, number], b: readonly [number, number]): boolean => Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]) < 1e-6;

/** Of patches side by side, four corners each, joined and free, the free ones as one row: where one ends and the next begins, half way between. */
function joinAlong(made: readonly [number, [number, number]][], count: number): void {
  for (let i = 0; i + 1 < count; i++) {
    const [end, start] = [made[4 * i + 3]![1], made[4 * (i + 1) + 2]![1]];
    const middle: [number, number] = [(end[0] + start[0]) / 2, (end[1] + start[1]) / 2];
    [end[0], end[1]] = middle;
    [start[0], start[1]] = middle;
  }
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
