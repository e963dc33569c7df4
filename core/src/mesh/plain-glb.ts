/** Plain GLB: triangles in metres, without anything that asks for more than a reader of core glTF 2.0. It is how meshes from outside are kept. */
import { parseJson } from '@yard-arch/document';
import { millimetre } from '../tolerances.ts';

/** A mesh as it is kept: z up, metres. */
export interface PlainMesh {
  /** x, y, z of each point. */
  points: Float64Array;
  /** Three points a triangle, counter-clockwise as seen from outside. */
  triangles: Uint32Array;
  /** Of which of its materials each triangle is. */
  slots: Uint8Array;
  /** What its materials are called. */
  materials: string[];
}

/** Raised where bytes are no plain GLB; the message follows a name. */
export class NotPlain extends Error {}

const [magic, jsonChunk, binaryChunk] = [0x46546c67, 0x4e4f534a, 0x004e4942];
const padded = (bytes: number): number => (bytes + 3) & ~3;

/** Writes a mesh: one node, a primitive for each material. */
export function writePlainGlb({ points, triangles, slots, materials }: PlainMesh): Uint8Array<ArrayBuffer> {
  const positions = new Float32Array(points.length);
  for (let i = 0; i < points.length; i += 3) {
    positions[i] = points[i]!;
    positions[i + 1] = points[i + 2]!;
    positions[i + 2] = 0 - points[i + 1]!;
  }
  const used = materials.map((_, slot) => slot).filter((slot) => slots.includes(slot));
  const indices = used.map((slot) => Uint32Array.from(triangles.filter((_, i) => slots[Math.floor(i / 3)] === slot)));
  let at = positions.byteLength;
  const views = [{ buffer: 0, byteOffset: 0, byteLength: at, target: 34962 }];
  for (const { byteLength } of indices) {
    views.push({ buffer: 0, byteOffset: at, byteLength, target: 34963 });
    at += byteLength;
  }
  const bound = (pick: (a: number, b: number) => number): number[] =>
    [0, 1, 2].map((axis) =>
      positions.reduce((so, value, i) => (i % 3 === axis ? pick(so, value) : so), positions[axis]!),
    );
  const json = {
    asset: { version: '2.0' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0 }],
    meshes: [{ primitives: used.map((slot, i) => ({ attributes: { POSITION: 0 }, indices: i + 1, material: slot })) }],
    materials: materials.map((name) => ({ name })),
    buffers: [{ byteLength: at }],
    bufferViews: views,
    accessors: [
      {
        bufferView: 0,
        componentType: 5126,
        count: positions.length / 3,
        type: 'VEC3',
        min: bound(Math.min),
        max: bound(Math.max),
      },
      ...indices.map((own, i) => ({ bufferView: i + 1, componentType: 5125, count: own.length, type: 'SCALAR' })),
    ],
  };
  return packed(new TextEncoder().encode(JSON.stringify(json)), [positions, ...indices], at);
}

function packed(text: Uint8Array, pieces: readonly ArrayBufferView[], binary: number): Uint8Array<ArrayBuffer> {
  const total = 28 + padded(text.length) + binary;
  const bytes = new Uint8Array(total);
  const view = new DataView(bytes.buffer);
  [magic, 2, total, padded(text.length), jsonChunk].forEach((value, i) => view.setUint32(4 * i, value, true));
  bytes.fill(0x20, 20, 20 + padded(text.length));
  bytes.set(text, 20);
  let at = 20 + padded(text.length);
  view.setUint32(at, binary, true);
  view.setUint32(at + 4, binaryChunk, true);
  at += 8;
  for (const { buffer, byteOffset, byteLength } of pieces) {
    bytes.set(new Uint8Array(buffer, byteOffset, byteLength), at);
    at += byteLength;
  }
  return bytes;
}

interface Frame {
  extensionsRequired?: unknown[];
  scene?: number;
  scenes?: { nodes?: number[] }[];
  nodes?: {
    mesh?: number;
    children?: unknown[];
    matrix?: unknown;
    translation?: unknown;
    rotation?: unknown;
    scale?: unknown;
  }[];
  meshes?: {
    primitives?: { attributes?: { POSITION?: number }; indices?: number; material?: number; mode?: number }[];
  }[];
  materials?: { name?: unknown }[];
  bufferViews?: { byteOffset?: number; byteLength?: number; byteStride?: number }[];
  accessors?: {
    bufferView?: number;
    byteOffset?: number;
    componentType?: number;
    count?: number;
    type?: string;
    sparse?: unknown;
  }[];
}

/** Reads what `writePlainGlb` writes, trusting nothing. @throws NotPlain */
export function readPlainGlb(bytes: Uint8Array): PlainMesh {
  const { frame, binary } = partsOf(bytes);
  if (frame.extensionsRequired?.length) throw new NotPlain('needs extensions of glTF to be read');
  const { nodes = [], meshes = [], materials = [] } = frame;
  const roots = frame.scenes?.[frame.scene ?? 0]?.nodes ?? [];
  const points: number[] = [];
  const triangles: number[] = [];
  const slots: number[] = [];
  for (const root of roots) {
    const node = nodes[root];
    if (!node || node.children?.length || node.matrix || node.translation || node.rotation || node.scale)
      throw new NotPlain('has nodes that are moved or stand in one another');
    for (const { attributes, indices, material = 0, mode = 4 } of meshes[node.mesh ?? -1]?.primitives ?? []) {
      if (mode !== 4) throw new NotPlain('holds something else than triangles');
      const first = points.length / 3;
      const own = floats(frame, binary, attributes?.POSITION);
      // From y up to z up.
      for (let i = 0; i < own.length; i += 3) points.push(own[i]!, 0 - own[i + 2]!, own[i + 1]!);
      const corners = whole(frame, binary, indices, own.length / 3);
      for (const corner of corners) {
        if (corner >= own.length / 3) throw new NotPlain('has a face with a corner that is not in it');
        triangles.push(first + corner);
      }
      for (let i = 0; i < corners.length; i += 3) slots.push(Math.min(material, Math.max(0, materials.length - 1)));
    }
  }
  if (triangles.length === 0) throw new NotPlain('holds no triangles');
  if (!points.every(Number.isFinite)) throw new NotPlain('has points whose figures cannot be read');
  return {
    points: Float64Array.from(points),
    triangles: Uint32Array.from(triangles),
    slots: Uint8Array.from(slots),
    materials:
      materials.length > 0
        ? materials.map(({ name }, i) => (typeof name === 'string' && name ? name : `Material ${i + 1}`))
        : ['Material'],
  };
}

function partsOf(bytes: Uint8Array): { frame: Frame; binary: DataView } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 28 || view.getUint32(0, true) !== magic || view.getUint32(4, true) !== 2)
    throw new NotPlain('is no GLB');
  const length = view.getUint32(12, true);
  const rest = 20 + length;
  if (view.getUint32(16, true) !== jsonChunk || rest + 8 > bytes.length) throw new NotPlain('is cut off');
  const size = view.getUint32(rest, true);
  if (view.getUint32(rest + 4, true) !== binaryChunk || rest + 8 + size > bytes.length)
    throw new NotPlain('is cut off');
  let frame: unknown;
  try {
    frame = parseJson(new TextDecoder().decode(bytes.subarray(20, rest)));
  } catch (error) {
    throw new NotPlain('does not say what it holds', { cause: error });
  }
  if (typeof frame !== 'object' || frame === null) throw new NotPlain('does not say what it holds');
  return { frame, binary: new DataView(view.buffer, view.byteOffset + rest + 8, size) };
}

/** An accessor's figures, one row of so many after another. */
function rowsOf(
  { accessors = [], bufferViews = [] }: Frame,
  binary: DataView,
  which: number | undefined,
  size: number,
): { offset: number; count: number; stride: number; type: number } {
  const accessor = accessors[which ?? -1];
  const held = bufferViews[accessor?.bufferView ?? -1];
  if (!accessor || !held || accessor.sparse) throw new NotPlain('holds figures that are not plain');
  const { count = 0, byteOffset = 0, componentType = 0 } = accessor;
  const width = size * ({ 5121: 1, 5123: 2, 5125: 4, 5126: 4 } as Record<number, number>)[componentType]!;
  const { byteOffset: from = 0, byteLength = 0, byteStride = width } = held;
  const fits =
    count > 0 && byteOffset + (count - 1) * byteStride + width <= byteLength && from + byteLength <= binary.byteLength;
  if (!fits || !(byteStride >= width) || byteOffset < 0 || from < 0)
    throw new NotPlain('says that it holds more than it does');
  return { offset: from + byteOffset, count, stride: byteStride, type: componentType };
}

function floats(frame: Frame, binary: DataView, which: number | undefined): number[] {
  const { offset, count, stride, type } = rowsOf(frame, binary, which, 3);
  if (type !== 5126) throw new NotPlain('holds figures that are not plain');
  const out: number[] = [];
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 3; k++) out.push(binary.getFloat32(offset + i * stride + 4 * k, true));
  return out;
}

function whole(frame: Frame, binary: DataView, which: number | undefined, points: number): number[] {
  if (which === undefined) return Array.from({ length: points - (points % 3) }, (_, i) => i);
  const { offset, count, stride, type } = rowsOf(frame, binary, which, 1);
  const out: number[] = [];
  for (let i = 0; i + 2 < count; i += 3)
    for (let k = i; k < i + 3; k++) {
      const at = offset + k * stride;
      out.push(
        type === 5125 ? binary.getUint32(at, true) : type === 5123 ? binary.getUint16(at, true) : binary.getUint8(at),
      );
    }
  return out;
}

/** Points nearer than this are one where a mesh is brought in. */
const grain = millimetre / 1000;

/** A mesh with its points that are one made one, and without triangles that are nothing. */
export function welded({ points, triangles, slots, materials }: PlainMesh): PlainMesh {
  const known = new Map<string, number>();
  const kept: number[] = [];
  const of = Uint32Array.from({ length: points.length / 3 }, (_, i) => {
    const at = [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!];
    const key = at.map((value) => Math.round(value / grain)).join(' ');
    let index = known.get(key);
    if (index === undefined) {
      known.set(key, (index = kept.length / 3));
      kept.push(...at);
    }
    return index;
  });
  const corners: number[] = [];
  const own: number[] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [of[triangles[i]!]!, of[triangles[i + 1]!]!, of[triangles[i + 2]!]!];
    if (a === b || b === c || a === c) continue;
    corners.push(a, b, c);
    own.push(slots[i / 3]!);
  }
  return {
    points: Float64Array.from(kept),
    triangles: Uint32Array.from(corners),
    slots: Uint8Array.from(own),
    materials,
  };
}

/** What is told of a mesh before it is taken. */
export interface MeshFacts {
  triangles: number;
  /** Its width, depth and height, metres. */
  size: [number, number, number];
  /** Edges that are not where exactly two triangles meet, running against each other. */
  openEdges: number;
  /** What it encloses, cubic metres; less than nothing where its faces look inward. */
  volume: number;
  low: [number, number, number];
}

export function meshFacts({ points, triangles }: PlainMesh): MeshFacts {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  points.forEach((value, i) => {
    low[i % 3] = Math.min(low[i % 3]!, value);
    high[i % 3] = Math.max(high[i % 3]!, value);
  });
  const edges = new Map<number, number>();
  const count = points.length / 3;
  let volume = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const)
      edges.set(from * count + to, (edges.get(from * count + to) ?? 0) + 1);
    const p = (v: number): [number, number, number] => [
      points[3 * v]! - low[0],
      points[3 * v + 1]! - low[1],
      points[3 * v + 2]! - low[2],
    ];
    const [[ax, ay, az], [bx, by, bz], [cx, cy, cz]] = [p(a), p(b), p(c)];
    volume += (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
  }
  let openEdges = 0;
  for (const [edge, times] of edges) {
    const [from, to] = [Math.floor(edge / count), edge % count];
    if (times !== 1 || edges.get(to * count + from) !== 1) openEdges++;
  }
  return {
    triangles: triangles.length / 3,
    size: [high[0] - low[0], high[1] - low[1], high[2] - low[2]],
    openEdges,
    volume,
    low,
  };
}
