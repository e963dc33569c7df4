/** Dressing: normals and texture coordinates for the patches of a placed tube, and their triangles. */
import type { LoopEdge } from './loop.ts';
import { cutUp } from './ears.ts';
import { cutsOf, localFrames } from './local-frames.ts';
import type { PlacedTube, Patch } from './patches.ts';
import { LaidPatches, type Uv } from './laid.ts';
import { bandRounded } from './rounded-band.ts';
import type { Tube, TubeFace } from './tube.ts';
import { leastAgreement, nanometre as same, rounding } from '../tolerances.ts';

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
  const { tube, patches } = placed;
  const cornerStart = new Uint32Array(patches.length + 1);
  patches.forEach((patch, p) => (cornerStart[p + 1] = cornerStart[p]! + patch.nodes.length));
  const local = localFrames(placed);
  const cuts = cutsOf(placed, local, cornerStart);
  const laid = new LaidPatches(placed, local, cornerStart);
  const rows = rowsOf(placed);
  const done = new Uint8Array(tube.edges.length);
  for (let e = 0; e < tube.edges.length; e++) {
    if (done[e] || rows[e]!.length === 0) continue;
    if (!tube.edges[e]!.chord) {
      done[e] = 1;
      layStraight(laid, rows[e]!, directionOf(tube, e), tube.edges[e]!);
      continue;
    }
    const edges = chordsWith(tube, e);
    for (const k of edges) done[k] = 1;
    layRounded(laid, edges, rows, seamOf(tube.edges[e]!));
  }
  return drawn(laid, cuts, frameAt);
}

/** The patches of each edge in rows, by the depth at which they begin. */
function rowsOf({ tube, patches, patchStart }: PlacedTube): number[][][] {
  return tube.edges.map((_, e) => {
    const list: number[][] = [];
    let face = -1;
    for (let p = patchStart[e]!; p < patchStart[e + 1]!; p++) {
      if (patches[p]!.face !== face) {
        list.push([]);
        face = patches[p]!.face;
      }
      list.at(-1)!.push(p);
    }
    return list;
  });
}

const directionOf = (tube: Tube, e: number): Uv => [tube.edges[e]!.dx, tube.edges[e]!.dy];

/** The exact tangent at an edge's start or end. */
function tangentOf(tube: Tube, e: number, atEnd: boolean): Uv {
  const { chord } = tube.edges[e]!;
  if (!chord) return directionOf(tube, e);
  const [x, y] = atEnd ? [-chord.by, chord.bx] : [-chord.ay, chord.ax];
  const size = Math.hypot(x, y);
  return [x / size, y / size];
}

/** Where a side's texture begins: with the face's own about the arris; of a tube that begins further in, where it has come to by then along its section. */
function beginning(laid: LaidPatches, node: number, [x, y]: Uv, { section: { n, offset } }: LoopEdge): Uv {
  const [u, v] = laid.faceUv(node);
  const depth = laid.placed.n[node] ?? 0;
  if (!(depth > same)) return [u, v];
  let [gone, wider] = [0, offset[0] ?? 0];
  for (let i = 1; i < n.length && n[i - 1]! < depth - same; i++) {
    const share = n[i]! - n[i - 1]! > same ? Math.min(1, (depth - n[i - 1]!) / (n[i]! - n[i - 1]!)) : 1;
    const [deeper, further] = [share * (n[i]! - n[i - 1]!), share * (offset[i]! - offset[i - 1]!)];
    gone += Math.hypot(deeper, further);
    wider += further;
  }
  return [u + (gone + wider) * y, v - (gone + wider) * x];
}

/** A straight side: its rows one below the other, from the face's own texture on. */
function layStraight(laid: LaidPatches, rows: readonly (readonly number[])[], way: Uv, edge: LoopEdge): void {
  const { patches } = laid.placed;
  let from: Uv | null = null;
  for (const row of rows) {
    const first = row[0]!;
    from ??= beginning(laid, patches[first]!.nodes[patches[first]!.startNear]!, way, edge);
    laid.run(row, from, way, false);
    from = laid.uvOf(first, patches[first]!.startFar);
  }
  if (rows.some((row) => row.length > 1)) bandRounded([rows], laid);
}

/** The chords of a rounded side that one of them is of: from where it begins, or texture begins anew, to where it ends. */
function chordsWith(tube: Tube, e: number): number[] {
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
  return edges;
}

/** Which way texture goes where a rounded side begins to be laid. */
function wayAt(tube: Tube, edges: readonly number[], half: number): Uv {
  const [first, last] = [edges[0]!, edges.at(-1)!];
  const [before, after] = [tube.before[first]!, tube.after[last]!];
  if (half === 0)
    return tube.edges[before]!.chord || before === last ? tangentOf(tube, first, false) : directionOf(tube, before);
  if (half === edges.length)
    return tube.edges[after]!.chord || after === first ? tangentOf(tube, last, true) : directionOf(tube, after);
  return tangentOf(tube, edges[half]!, false);
}

/** A rounded side: laid both ways from its seam, row by row. */
function layRounded(
  laid: LaidPatches,
  edges: readonly number[],
  rows: readonly (readonly (readonly number[])[])[],
  seam: ReturnType<SeamOf>,
): void {
  const { tube, patches } = laid.placed;
  const half = seam === 'start' ? 0 : seam === 'end' ? edges.length : edges.length >> 1;
  const depth = Math.max(...edges.map((k) => rows[k]!.length));
  const way = wayAt(tube, edges, half);
  let onStart: Uv | null = null;
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
    onStart ??= beginning(laid, patch.nodes[atStart ? patch.startNear : patch.endNear]!, way, tube.edges[edges[0]!]!);
    laid.run(forward, onStart, way, false);
    laid.run(back, onStart, way, true);
    onStart = laid.uvOf(lead, atStart ? patch.startFar : patch.endFar);
  }
  bandRounded(
    edges.map((k) => rows[k]!),
    laid,
  );
}

/** Writes the corners of patches that are laid, and their triangles. */
function drawn(laid: LaidPatches, cuts: ReadonlyMap<number, readonly number[]>, frameAt: FrameAt): Dressed {
  const { placed, local, cornerStart } = laid;
  const { tube, patches } = placed;
  const C = cornerStart[patches.length]!;
  const normals = new Float32Array(3 * C);
  const uvs = new Float64Array(2 * C);
  const triangles: number[] = [];
  const triangleStart = new Uint32Array(patches.length + 1);
  for (let p = 0; p < patches.length; p++) {
    const patch = patches[p]!;
    const first = cornerStart[p]!;
    laid.write(p, uvs);
    const nx = local.normal[3 * p]!;
    const ny = local.normal[3 * p + 1]!;
    const nz = local.normal[3 * p + 2]!;
    for (let c = first; c < cornerStart[p + 1]!; c++) {
      normals[3 * c] = nx;
      normals[3 * c + 1] = ny;
      normals[3 * c + 2] = nz;
    }
    const face = tube.faces[patch.face]!;
    const edge = tube.edges[face.edge]!;
    if ((edge.chord !== null || face.near !== face.far) && !edge.joint)
      exactNormals(laid, { edge, face, patch, first }, frameAt, normals);
    const cut = cuts.get(p);
    if (cut) for (const c of cut) triangles.push(c);
    else cutUp(patch, first, local.a, local.l, triangles);
    triangleStart[p + 1] = triangles.length / 3;
  }
  return { cornerStart, normals, uvs, triangleStart, triangles: Uint32Array.from(triangles) };
}

interface DressedPatch {
  edge: LoopEdge;
  face: TubeFace;
  patch: Patch;
  /** Its first corner. */
  first: number;
}

/**
 * The exact normals at a patch's corners: across the edge as the arc has it there, along the depth as the section has it. With tangent T along the edge and W along the section the normal is W × T.
 * Where that strays far from the patch's own normal, which is there already, that stays.
 */
function exactNormals(
  { placed, local }: LaidPatches,
  { edge, face: { near, far }, patch, first }: DressedPatch,
  frameAt: FrameAt,
  normals: Float32Array,
): void {
  const along = local.a;
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
    if (size < rounding || (x * normals[c]! + y * normals[c + 1]! + z * normals[c + 2]!) / size < leastAgreement)
      continue;
    normals[c] = x / size;
    normals[c + 1] = y / size;
    normals[c + 2] = z / size;
  }
}
