/** What a GLB file says of itself, held against what it holds, before anything is made of it: a few figures could ask for more memory than there is. */
import { parseJson } from '@yard-arch/document';

interface Accessor {
  bufferView?: number;
  count?: number;
  type?: string;
  componentType?: number;
  sparse?: { count?: number };
}

interface Frame {
  accessors?: Accessor[];
  bufferViews?: { byteOffset?: number; byteLength?: number }[];
  nodes?: { children?: number[] }[];
}

const components: Record<string, number> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };
const bytesOf: Record<number, number> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };

/** The most nodes of a file, and the most within one another. */
const [mostNodes, deepest] = [50_000, 500];

/** Why a GLB file cannot be what it says that it is, or null. The JSON part is told in its second header, the binary part follows it (glTF 2.0, section 4.4). */
export function wrongInGlb(bytes: Uint8Array): string | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 20 || view.getUint32(0, true) !== 0x46546c67) return 'it does not begin as one';
  const length = view.getUint32(12, true);
  if (view.getUint32(16, true) !== 0x4e4f534a || 20 + length > bytes.length) return 'its first part is not whole';
  let frame: Frame;
  try {
    frame = parseJson(new TextDecoder().decode(bytes.subarray(20, 20 + length))) as Frame;
  } catch {
    return 'its first part is not JSON';
  }
  if (typeof frame !== 'object' || frame === null || Array.isArray(frame)) return 'its first part says nothing';
  return tooLarge(frame, Math.max(0, bytes.length - 28 - length)) ?? tooDeep(frame);
}

function tooLarge({ accessors = [], bufferViews = [] }: Frame, binary: number): string | null {
  const more = 'it says that it holds more than it does';
  for (const { byteOffset = 0, byteLength = 0 } of bufferViews)
    if (!(byteOffset >= 0 && byteLength >= 0 && byteOffset + byteLength <= binary)) return more;
  for (const { bufferView, count = 0, type = '', componentType = 0, sparse } of accessors) {
    const size = count * (components[type] ?? 1) * (bytesOf[componentType] ?? 1);
    // Without a view all are zeros, which need none of the file, but of the memory.
    const room = bufferView === undefined ? binary : (bufferViews[bufferView]?.byteLength ?? 0);
    if (!(count >= 0 && size <= room) || !((sparse?.count ?? 0) <= count)) return more;
  }
  return null;
}

function tooDeep({ nodes = [] }: Frame): string | null {
  if (nodes.length > mostNodes) return `it has more than ${mostNodes} nodes`;
  const depth = new Int32Array(nodes.length);
  const queue: number[] = [];
  const parents = new Int32Array(nodes.length);
  for (const { children = [] } of nodes) for (const child of children) if (nodes[child]) parents[child]! += 1;
  nodes.forEach((_, i) => parents[i] === 0 && queue.push(i));
  // From the roots on, each after all that hold it: what is never reached is in a ring.
  for (let at = 0; at < queue.length; at++)
    for (const child of nodes[queue[at]!]!.children ?? []) {
      if (!nodes[child]) return 'it has a node that is not in the file';
      depth[child] = Math.max(depth[child]!, depth[queue[at]!]! + 1);
      if (--parents[child]! === 0) queue.push(child);
    }
  return queue.length < nodes.length || depth.some((d) => d > deepest)
    ? 'it has too many nodes within one another'
    : null;
}
