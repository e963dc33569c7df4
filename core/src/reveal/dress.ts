/** Dressing: normals and texture coordinates for the patches of a placed tube, and their triangles. */
import type { LoopEdge } from './loop.ts';
import type { PlacedTube, Patch } from './place.ts';

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

interface Laid {
  /** Texture of the corner at startNear is (u, v); the edge's direction there is at this angle. */
  u: number;
  v: number;
  angle: number;
}

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
  const laid = new Array<Laid | undefined>(patches.length);
  const uvOf = (p: number, corner: number): [number, number] => {
    const at = laid[p]!;
    const [a, l] = [local.a[cornerStart[p]! + corner]!, local.l[cornerStart[p]! + corner]!];
    const [cos, sin] = [Math.cos(at.angle), Math.sin(at.angle)];
    return [at.u + a * cos + l * sin, at.v + a * sin - l * cos];
  };
  /** Lays a patch so that its start's side lies on a side that is already laid. */
  const layOn = (p: number, near: [number, number], far: [number, number], fallback: number): void => {
    const patch = patches[p]!;
    const c = cornerStart[p]! + patch.startFar;
    const [a, l] = [local.a[c]!, local.l[c]!];
    const [du, dv] = [far[0] - near[0], far[1] - near[1]];
    const angle = Math.hypot(du, dv) < same || Math.hypot(a, l) < same ? fallback : Math.atan2(dv, du) - Math.atan2(-l, a);
    laid[p] = { u: near[0], v: near[1], angle };
  };
  const layBack = (p: number, near: [number, number], far: [number, number], fallback: number): void => {
    const patch = patches[p]!;
    const [c, d] = [cornerStart[p]! + patch.endNear, cornerStart[p]! + patch.endFar];
    const [a, l] = [local.a[d]! - local.a[c]!, local.l[d]! - local.l[c]!];
    const [du, dv] = [far[0] - near[0], far[1] - near[1]];
    const angle = Math.hypot(du, dv) < same || Math.hypot(a, l) < same ? fallback : Math.atan2(dv, du) - Math.atan2(-l, a);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    laid[p] = { u: near[0] - (local.a[c]! * cos + local.l[c]! * sin), v: near[1] - (local.a[c]! * sin - local.l[c]! * cos), angle };
  };

  /** Lays the patches of one row of edges, given in order, from its start on, or from its end back. */
  const run = (list: readonly number[], from: [number, number], angle: number, backward: boolean): void => {
    if (!backward) {
      list.forEach((p, i) => {
        if (i === 0) laid[p] = { u: from[0], v: from[1], angle };
        else {
          const q = list[i - 1]!;
          layOn(p, uvOf(q, patches[q]!.endNear), uvOf(q, patches[q]!.endFar), laid[q]!.angle);
        }
      });
      return;
    }
    for (let i = list.length - 1; i >= 0; i--) {
      const p = list[i]!;
      const c = cornerStart[p]! + patches[p]!.endNear;
      if (i === list.length - 1) {
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
        laid[p] = { u: from[0] - (local.a[c]! * cos + local.l[c]! * sin), v: from[1] - (local.a[c]! * sin - local.l[c]! * cos), angle };
      } else {
        const q = list[i + 1]!;
        layBack(p, uvOf(q, patches[q]!.startNear), uvOf(q, patches[q]!.startFar), laid[q]!.angle);
      }
    }
  };
  const faceUv = (node: number): [number, number] => [placed.u[node]!, placed.v[node]!];
  const directionOf = (e: number): number => Math.atan2(tube.edges[e]!.dy, tube.edges[e]!.dx);
  /** Angle of the exact tangent at an edge's start or end. */
  const tangentOf = (e: number, atEnd: boolean): number => {
    const { chord } = tube.edges[e]!;
    if (!chord) return directionOf(e);
    return atEnd ? Math.atan2(chord.bx, -chord.by) : Math.atan2(chord.ax, -chord.ay);
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
    let onStart: [number, number] | null = null;
    for (let r = 0; r < depth; r++) {
      const forward = edges.slice(half).flatMap((k) => rows[k]![r] ?? []);
      const back = edges.slice(0, half).flatMap((k) => rows[k]![r] ?? []);
      let angle: number;
      if (half === 0) angle = tube.edges[before]!.chord || before === last ? tangentOf(first, false) : directionOf(before);
      else if (half === edges.length) angle = tube.edges[after]!.chord || after === first ? tangentOf(last, true) : directionOf(after);
      else angle = tangentOf(edges[half]!, false);
      const lead = forward[0] ?? back.at(-1);
      if (lead === undefined) continue;
      const patch = patches[lead]!;
      const atStart = forward.length > 0;
      onStart ??= faceUv(patch.nodes[atStart ? patch.startNear : patch.endNear]!);
      run(forward, onStart, angle, false);
      run(back, onStart, angle, true);
      onStart = uvOf(lead, atStart ? patch.startFar : patch.endFar);
    }
  }

  const triangles: number[] = [];
  const triangleStart = new Uint32Array(patches.length + 1);
  patches.forEach((patch, p) => {
    const first = cornerStart[p]!;
    const face = tube.faces[patch.face]!;
    const edge = tube.edges[face.edge]!;
    const rounded = edge.chord !== null || face.near !== face.far;
    patch.nodes.forEach((node, i) => {
      const c = first + i;
      const [u, v] = uvOf(p, i);
      uvs[2 * c] = u;
      uvs[2 * c + 1] = v;
      let normal: readonly [number, number, number] = [local.normal[3 * p]!, local.normal[3 * p + 1]!, local.normal[3 * p + 2]!];
      if (rounded && !edge.joint) normal = exactNormal(edge, patch, i, placed, local.a, first, face.near, face.far, frameAt(node), normal);
      normals.set(normal, 3 * c);
    });
    const from = triangles.length;
    cutUp(patch, first, local.a, local.l, triangles);
    if (edge.joint || !local.flat[p]) unfold(triangles, from, patch, first, placed, uvs);
    triangleStart[p + 1] = triangles.length / 3;
  });
  return { cornerStart, normals, uvs, triangleStart, triangles: Uint32Array.from(triangles) };
}

/**
 * The exact normal at a corner: across the edge as the arc has it there, along the depth as the section has it. With tangent T along the edge and W along the section it is W × T.
 */
function exactNormal(
  edge: LoopEdge,
  patch: Patch,
  i: number,
  placed: PlacedTube,
  along: Float64Array,
  first: number,
  near: readonly [number, number],
  far: readonly [number, number],
  frame: readonly number[],
  flat: readonly [number, number, number],
): readonly [number, number, number] {
  let [ox, oy] = [edge.dy, -edge.dx];
  if (edge.chord) {
    const { ax, ay, bx, by } = edge.chord;
    const [s, e] = [along[first + patch.startNear]!, along[first + patch.endNear]!];
    const share = Math.abs(e - s) < same ? 0.5 : Math.max(0, Math.min(1, (along[first + i]! - s) / (e - s)));
    [ox, oy] = [ax + share * (bx - ax), ay + share * (by - ay)];
  }
  const n = placed.n[patch.nodes[i]!]!;
  const [n0, n1] = [placed.n[patch.nodes[patch.startNear]!]!, placed.n[patch.nodes[patch.startFar]!]!];
  const [dn, off] = Math.abs(n - n1) < Math.abs(n - n0) ? far : near;
  const d = off * edge.sense;
  const at = (k: number): [number, number] => [
    // T and W, component k.
    -oy * frame[k]! + ox * frame[3 + k]!,
    d * (ox * frame[k]! + oy * frame[3 + k]!) + dn * frame[6 + k]!,
  ];
  const [[tx, wx], [ty, wy], [tz, wz]] = [at(0), at(1), at(2)];
  const [x, y, z] = [wy * tz - wz * ty, wz * tx - wx * tz, wx * ty - wy * tx];
  const size = Math.hypot(x, y, z);
  if (size < 1e-12 || (x * flat[0] + y * flat[1] + z * flat[2]) / size < 0.3) return flat;
  return [x / size, y / size, z / size];
}

/** Lays the triangles of a patch that is not quite flat side by side at true scale, beginning with the first as it lies. */
function unfold(triangles: readonly number[], from: number, patch: Patch, first: number, placed: PlacedTube, uvs: Float64Array): void {
  const at = (c: number): number[] => {
    const v = 3 * patch.nodes[c - first]!;
    return [placed.positions[v]!, placed.positions[v + 1]!, placed.positions[v + 2]!];
  };
  const far = (p: number, q: number): number => Math.hypot(...at(p).map((x, k) => x - at(q)[k]!));
  const laid = new Set<number>();
  const put = (p: number, q: number, r: number): void => {
    // r lies so far from p and q, on the right of the way from p to q in texture, as the first triangle has it.
    const [d, a, b] = [far(p, q), far(p, r), far(q, r)];
    const [px, py, qx, qy] = [uvs[2 * p]!, uvs[2 * p + 1]!, uvs[2 * q]!, uvs[2 * q + 1]!];
    const x = (a * a - b * b + d * d) / (2 * d);
    const y = Math.sqrt(Math.max(0, a * a - x * x));
    const [ex, ey] = [(qx - px) / d, (qy - py) / d];
    uvs[2 * r] = px + ex * x + ey * y;
    uvs[2 * r + 1] = py + ey * x - ex * y;
  };
  for (let round = 0; round < patch.nodes.length && laid.size < patch.nodes.length; round++)
    for (let i = from; i < triangles.length; i += 3) {
      const own = triangles.slice(i, i + 3);
      if (laid.size === 0) {
        const [p, q] = own as [number, number, number];
        // The first edge keeps its direction and takes its true length.
        const [dx, dy] = [uvs[2 * q]! - uvs[2 * p]!, uvs[2 * q + 1]! - uvs[2 * p + 1]!];
        const scale = far(p, q) / (Math.hypot(dx, dy) || 1);
        uvs[2 * q] = uvs[2 * p]! + dx * scale;
        uvs[2 * q + 1] = uvs[2 * p + 1]! + dy * scale;
        laid.add(p).add(q);
      }
      const free = own.filter((c) => !laid.has(c));
      if (free.length !== 1) continue;
      const k = own.indexOf(free[0]!);
      put(own[(k + 1) % 3]!, own[(k + 2) % 3]!, free[0]!);
      laid.add(free[0]!);
    }
}

interface LocalFrames {
  /** By corner: how far along the edge, and how far down the section, from the patch's startNear. */
  a: Float64Array;
  l: Float64Array;
  /** By patch: its normal. */
  normal: Float64Array;
  /** By patch: whether all its corners lie in its plane, to a micrometre. */
  flat: Uint8Array;
}

/** Each patch in its own plane. */
function localFrames(placed: PlacedTube): LocalFrames {
  const { patches, positions } = placed;
  const corners = patches.reduce((sum, patch) => sum + patch.nodes.length, 0);
  const out: LocalFrames = { a: new Float64Array(corners), l: new Float64Array(corners), normal: new Float64Array(3 * patches.length), flat: new Uint8Array(patches.length).fill(1) };
  let c = 0;
  patches.forEach((patch, p) => {
    const { nodes } = patch;
    const o = 3 * nodes[patch.startNear]!;
    const [ox, oy, oz] = [positions[o]!, positions[o + 1]!, positions[o + 2]!];
    // The normal by Newell's method, about the origin corner.
    let [nx, ny, nz] = [0, 0, 0];
    let before = 3 * nodes.at(-1)!;
    for (const v of nodes) {
      const at = 3 * v;
      const [ax, ay, az] = [positions[before]! - ox, positions[before + 1]! - oy, positions[before + 2]! - oz];
      const [bx, by, bz] = [positions[at]! - ox, positions[at + 1]! - oy, positions[at + 2]! - oz];
      nx += ay * bz - az * by;
      ny += az * bx - ax * bz;
      nz += ax * by - ay * bx;
      before = at;
    }
    const size = Math.hypot(nx, ny, nz) || 1;
    nx /= size;
    ny /= size;
    nz /= size;
    out.normal.set([nx, ny, nz], 3 * p);
    // Along the edge, by its longer end.
    let [ex, ey, ez] = [0, 0, 0];
    for (const [from, to] of [
      [patch.startNear, patch.endNear],
      [patch.startFar, patch.endFar],
    ] as const) {
      const [i, j] = [3 * nodes[from]!, 3 * nodes[to]!];
      const d = [positions[j]! - positions[i]!, positions[j + 1]! - positions[i + 1]!, positions[j + 2]! - positions[i + 2]!] as const;
      if (Math.hypot(...d) > Math.hypot(ex, ey, ez)) [ex, ey, ez] = d;
    }
    const inPlane = ex * nx + ey * ny + ez * nz;
    ex -= inPlane * nx;
    ey -= inPlane * ny;
    ez -= inPlane * nz;
    const long = Math.hypot(ex, ey, ez) || 1;
    ex /= long;
    ey /= long;
    ez /= long;
    // The face is seen with the edge's end first, so the section runs along e × n.
    const [fx, fy, fz] = [ey * nz - ez * ny, ez * nx - ex * nz, ex * ny - ey * nx];
    for (const v of nodes) {
      const at = 3 * v;
      const [x, y, z] = [positions[at]! - ox, positions[at + 1]! - oy, positions[at + 2]! - oz];
      out.a[c] = x * ex + y * ey + z * ez;
      out.l[c] = x * fx + y * fy + z * fz;
      if (Math.abs(x * nx + y * ny + z * nz) > 1e-6) out.flat[p] = 0;
      c += 1;
    }
  });
  return out;
}

/** Triangles of a patch: ears cut off one by one, the roundest first, so that none is thinner than it must be. */
function cutUp(patch: Patch, first: number, a: Float64Array, l: Float64Array, out: number[]): void {
  const count = patch.nodes.length;
  if (count === 3) {
    out.push(first, first + 1, first + 2);
    return;
  }
  // In (a, l) the patch runs clockwise, since l points down the section.
  const x = (i: number): number => a[first + i]!;
  const y = (i: number): number => -l[first + i]!;
  const area = (i: number, j: number, k: number): number => (x(j) - x(i)) * (y(k) - y(i)) - (y(j) - y(i)) * (x(k) - x(i));
  const left = Array.from({ length: count }, (_, i) => i);
  let turn = 0;
  for (let i = 0; i < count; i++) turn += x(i) * y((i + 1) % count) - x((i + 1) % count) * y(i);
  const sign = turn >= 0 ? 1 : -1;
  let whole = Math.abs(turn);
  while (left.length > 3) {
    let best = -1;
    let roundest = -Infinity;
    for (let q = 0; q < left.length; q++) {
      const i = left[(q + left.length - 1) % left.length]!;
      const j = left[q]!;
      const k = left[(q + 1) % left.length]!;
      const twice = sign * area(i, j, k);
      const longest = Math.max((x(j) - x(i)) ** 2 + (y(j) - y(i)) ** 2, (x(k) - x(j)) ** 2 + (y(k) - y(j)) ** 2, (x(i) - x(k)) ** 2 + (y(i) - y(k)) ** 2);
      // What is left must not have all its corners in one line.
      if (twice <= 1e-12 * longest || whole - twice <= 1e-9 * longest) continue;
      let clear = true;
      for (const m of left)
        if (m !== i && m !== j && m !== k && sign * area(i, j, m) >= -1e-15 && sign * area(j, k, m) >= -1e-15 && sign * area(k, i, m) >= -1e-15) {
          clear = false;
          break;
        }
      if (!clear) continue;
      const roundness = left.length === 4 ? Math.min(twice / longest, rest(left, q)) : twice / longest;
      if (roundness > roundest + 1e-12) {
        roundest = roundness;
        best = q;
      }
    }
    if (best < 0) best = left.findIndex((_, q) => sign * area(left[(q + left.length - 1) % left.length]!, left[q]!, left[(q + 1) % left.length]!) > 0);
    if (best < 0) best = 0;
    const [i, j, k] = [left[(best + left.length - 1) % left.length]!, left[best]!, left[(best + 1) % left.length]!];
    out.push(first + i, first + j, first + k);
    whole -= Math.abs(area(i, j, k));
    left.splice(best, 1);
  }
  out.push(first + left[0]!, first + left[1]!, first + left[2]!);

  function rest(four: readonly number[], q: number): number {
    const [i, j, k] = four.filter((_, at) => at !== q) as [number, number, number];
    const longest = Math.max((x(j) - x(i)) ** 2 + (y(j) - y(i)) ** 2, (x(k) - x(j)) ** 2 + (y(k) - y(j)) ** 2, (x(i) - x(k)) ** 2 + (y(i) - y(k)) ** 2);
    return (sign * area(i, j, k)) / longest;
  }
}
