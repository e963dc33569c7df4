/** Meshes from outside: what OBJ and GLB files hold, as points and polygons, in metres with z up. */
import { Logger, WebIO, type Material } from '@gltf-transform/core';
import ObjFile from 'obj-file-parser';
import { wrongInGlb } from './glb-bounds.ts';
import type { ForeignMaterial, ForeignMesh } from '../element/found-sheet.ts';

/** How a file's figures are meant, where its format does not say so. */
export interface ForeignScale {
  /** Metres that one of the file's units is. */
  unit: number;
  up: 'y' | 'z';
}

/** The longest line of an OBJ file, in characters: a face of many thousand corners. */
const mostOfLine = 1_000_000;

/** Raised where a file cannot be read as what its name says. */
export class Unreadable extends Error {}

/**
 * Reads a mesh from a file.
 * @param name the file's name, whose ending says the format: .obj or .glb. GLB is always in metres, y up.
 * @throws Unreadable with a message for whoever chose the file.
 */
export async function readMesh(
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
  scale: ForeignScale,
): Promise<ForeignMesh> {
  const ending = /\.([^.]+)$/.exec(name)?.[1]?.toLowerCase();
  let mesh: ForeignMesh;
  if (ending === 'obj') mesh = turned(readObj(name, new TextDecoder().decode(bytes)), scale);
  else if (ending === 'glb') mesh = turned(await readGlb(name, bytes), { unit: 1, up: 'y' });
  else throw new Unreadable(`“${name}” is neither an OBJ nor a GLB file. Save the sheet as one of these.`);
  if (mesh.polygons.length === 0) throw new Unreadable(`“${name}” holds no faces.`);
  if (!mesh.positions.every(Number.isFinite))
    throw new Unreadable(`“${name}” has points whose figures cannot be read.`);
  return mesh;
}

function turned({ positions, polygons, ...rest }: ForeignMesh, { unit, up }: ForeignScale): ForeignMesh {
  const out: number[] = [];
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i]! * unit, positions[i + 1]! * unit, positions[i + 2]! * unit];
    out.push(...(up === 'y' ? [x, -z, y] : [x, y, z]));
  }
  return { ...rest, positions: out, polygons };
}

function readObj(name: string, text: string): ForeignMesh {
  if (longestLine(text) > mostOfLine)
    throw new Unreadable(`“${name}” cannot be read as OBJ: it holds a line of more than ${mostOfLine} characters.`);
  // Points are numbered through the whole file, whatever objects and groups it is divided into; only points and faces matter here.
  const lines = text
    .replace(/\\\r?\n/g, ' ')
    .split('\n')
    .filter((line) => /^\s*(v|f|usemtl)\s/.test(line));
  let parsed;
  try {
    parsed = new ObjFile(lines.join('\n')).parse();
  } catch (error) {
    throw new Unreadable(
      `“${name}” cannot be read as OBJ: ${String(error instanceof Error ? error.message : error).replace(/(undefined|NaN)+$/, '')}.`,
    );
  }
  const model = parsed.models[0];
  const positions = (model?.vertices ?? []).flatMap(({ x, y, z }) => [x, y, z]);
  const polygons = (model?.faces ?? []).map(({ vertices }) => vertices.map(({ vertexIndex }) => vertexIndex - 1));
  if (polygons.some((polygon) => polygon.some((v) => !(v >= 0 && 3 * v < positions.length))))
    throw new Unreadable(`“${name}” has a face with a corner that is not in the file.`);
  const names = [...new Set((model?.faces ?? []).map(({ material }) => material))];
  return {
    positions,
    polygons,
    slots: (model?.faces ?? []).map(({ material }) => names.indexOf(material)),
    materials: names.map((called) => ({ name: called || 'Material' })),
  };
}

function longestLine(text: string): number {
  let most = 0;
  for (let at = 0; at < text.length;) {
    const end = text.indexOf('\n', at);
    most = Math.max(most, (end < 0 ? text.length : end) - at);
    if (end < 0) break;
    at = end + 1;
  }
  return most;
}

async function readGlb(name: string, bytes: Uint8Array<ArrayBuffer>): Promise<ForeignMesh> {
  const wrong = wrongInGlb(bytes);
  if (wrong) throw new Unreadable(`“${name}” cannot be read as GLB: ${wrong}.`);
  let document;
  try {
    // What a material says is of no account here.
    document = await new WebIO().setLogger(new Logger(Logger.Verbosity.SILENT)).readBinary(bytes);
  } catch (error) {
    throw new Unreadable(`“${name}” cannot be read as GLB: ${error instanceof Error ? error.message : String(error)}`);
  }
  const positions: number[] = [];
  const polygons: number[][] = [];
  const slots: number[] = [];
  const materials = new Map<Material | null, number>();
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  scene?.traverse((node) => {
    const m = node.getWorldMatrix();
    // A mirrored node turns the fronts of its faces to the back.
    const mirrored =
      m[0] * (m[5] * m[10] - m[6] * m[9]) - m[4] * (m[1] * m[10] - m[2] * m[9]) + m[8] * (m[1] * m[6] - m[2] * m[5]) <
      0;
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const points = primitive.getAttribute('POSITION');
      if (!points || primitive.getMode() !== 4) continue;
      const own = primitive.getMaterial();
      const slot = materials.get(own) ?? materials.size;
      materials.set(own, slot);
      const first = positions.length / 3;
      const at: number[] = [];
      for (let i = 0; i < points.getCount(); i++) {
        const [x, y, z] = points.getElement(i, at) as [number, number, number];
        for (const k of [0, 1, 2]) positions.push(m[k]! * x + m[4 + k]! * y + m[8 + k]! * z + m[12 + k]!);
      }
      // Nothing here is trusted: what the file says may not be so.
      const indices = primitive.getIndices()?.getArray() ?? Array.from({ length: points.getCount() }, (_, i) => i);
      for (let i = 0; i + 2 < indices.length; i += 3) {
        const [a, b, c] = [first + indices[i]!, first + indices[i + 1]!, first + indices[i + 2]!];
        if (Math.max(a, b, c) >= first + points.getCount())
          throw new Unreadable(`“${name}” has a face with a corner that is not in the file.`);
        polygons.push(mirrored ? [a, c, b] : [a, b, c]);
        slots.push(slot);
      }
    }
  });
  return { positions, polygons, slots, materials: [...materials.keys()].map(saidOf) };
}

/** What a GLB says of a material. Colours there are linear (glTF 2.0, section 3.9.2). */
function saidOf(material: Material | null): ForeignMaterial {
  if (!material) return { name: 'Material' };
  const [r, g, b, opacity] = material.getBaseColorFactor();
  const sent = (linear: number): string => {
    const value = linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
    return Math.round(255 * Math.min(1, Math.max(0, value)))
      .toString(16)
      .padStart(2, '0');
  };
  return {
    name: material.getName() || 'Material',
    colour: `#${sent(r)}${sent(g)}${sent(b)}`,
    roughness: Math.min(1, Math.max(0, material.getRoughnessFactor())),
    ...(material.getAlphaMode() === 'BLEND' && opacity < 1 ? { opacity: Math.max(0.02, opacity) } : {}),
  };
}
