/** Meshes brought in to stand in openings: read, made of triangles, and put into the form in which they are kept. */
import { mostMeshBytes, mostMeshMaterials, mostMeshTriangles, type KeptMesh } from '@yard-arch/document';
import type { ForeignMaterial, ForeignMesh } from '../element/found-sheet.ts';
import { FaceLoops, triangulateFace } from '../mesh/face.ts';
import { meshFacts, readPlainGlb, welded, writePlainGlb, type MeshFacts, type PlainMesh } from '../mesh/plain-glb.ts';
import { cross, dot, minus, newell, type Vector } from '../vector.ts';
import { digestOf } from './picture-file.ts';
import { readMesh, Unreadable, type ForeignScale } from './read-mesh.ts';

export { Unreadable } from './read-mesh.ts';

/** A mesh that was read and can be taken in. */
export interface BroughtMesh {
  /** As it is kept. */
  bytes: Uint8Array<ArrayBuffer>;
  kept: KeptMesh;
  /** What the file says of its materials, in their order. */
  materials: ForeignMaterial[];
  /** Whether all its faces looked inward, and were turned. */
  turned: boolean;
}

/** Sizes beyond these are no part of an opening, metres. */
const [least, most] = [1e-3, 100];

/**
 * Reads a mesh from an OBJ or GLB file, to be kept.
 * @throws Unreadable with a message for whoever chose the file.
 */
export async function bringMesh(
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
  scale: ForeignScale,
): Promise<BroughtMesh> {
  const foreign = await readMesh(name, bytes, scale);
  const { materials = [] } = foreign;
  if (materials.length > mostMeshMaterials)
    throw new Unreadable(
      `“${name}” has ${materials.length} materials; at most ${mostMeshMaterials} can be told apart. Join some of them.`,
    );
  const enormous = (count: number): Unreadable =>
    new Unreadable(
      `“${name}” has ${count.toLocaleString('en')} faces, and at most ${mostMeshTriangles.toLocaleString('en')} can be taken in. Make it simpler where it came from.`,
    );
  if (foreign.polygons.length > mostMeshTriangles) throw enormous(foreign.polygons.length);
  const mesh = welded(plainOf(foreign));
  const triangles = mesh.slots.length;
  if (triangles === 0) throw new Unreadable(`“${name}” holds no faces.`);
  if (triangles > mostMeshTriangles) throw enormous(triangles);
  const facts = meshFacts(mesh);
  const size = Math.max(...facts.size);
  if (!(size >= least && size <= most))
    throw new Unreadable(
      `“${name}” is ${size < least ? 'less than a millimetre' : `${Math.round(size).toLocaleString('en')} m`} long. Is its unit another?`,
    );
  const turned = facts.openEdges === 0 && facts.volume < 0;
  return broughtOf(name, turned ? turnedOut(mesh) : mesh, facts, { materials, turned });
}

function broughtOf(
  name: string,
  mesh: PlainMesh,
  facts: MeshFacts,
  { materials, turned }: { materials: ForeignMaterial[]; turned: boolean },
): BroughtMesh {
  const bytes = writePlainGlb(mesh);
  const sha256 = digestOf(bytes);
  const called = name.replace(/\.\w+$/, '').slice(0, 80) || 'Mesh';
  return {
    bytes,
    kept: { id: sha256, name: called, sha256, ...keptFacts(bytes.length, mesh, facts) },
    materials,
    turned,
  };
}

/** Flat things have some depth, for whoever scales them. */
const thinnest = 1e-6;

const keptFacts = (
  bytes: number,
  { materials }: PlainMesh,
  { triangles, size, openEdges }: MeshFacts,
): Omit<KeptMesh, 'id' | 'name' | 'sha256'> => ({
  bytes,
  triangles,
  size: size.map((length) => Math.max(thinnest, Math.round(length * 1e6) / 1e6)) as [number, number, number],
  openEdges,
  materials,
});

/** What bytes that are to be kept as a mesh are, or why they cannot be. */
export function keptMeshFacts(bytes: Uint8Array): Omit<KeptMesh, 'id' | 'name'> | { reason: string; mend: string } {
  if (bytes.length > mostMeshBytes)
    return {
      reason: `it has ${Math.ceil(bytes.length / 1024 / 1024)} MB`,
      mend: 'Make it simpler where it came from.',
    };
  try {
    const mesh = welded(readPlainGlb(bytes));
    if (mesh.slots.length > mostMeshTriangles || mesh.materials.length > mostMeshMaterials)
      return { reason: 'it has too many faces or materials', mend: 'Make it simpler where it came from.' };
    return { sha256: digestOf(bytes), ...keptFacts(bytes.length, mesh, meshFacts(mesh)) };
  } catch (error) {
    return {
      reason: `it ${(error as Error).message}`,
      mend: 'Bring it in on a pattern’s page, which makes a plain one of it.',
    };
  }
}

function turnedOut(mesh: PlainMesh): PlainMesh {
  const triangles = mesh.triangles.slice();
  for (let i = 0; i < triangles.length; i += 3)
    [triangles[i + 1], triangles[i + 2]] = [triangles[i + 2]!, triangles[i + 1]!];
  return { ...mesh, triangles };
}

/** Polygons as triangles. */
function plainOf({ positions, polygons, slots = [], materials = [] }: ForeignMesh): PlainMesh {
  const triangles: number[] = [];
  const own: number[] = [];
  polygons.forEach((polygon, p) => {
    const three = polygon.length === 3 ? [0, 1, 2] : trianglesOf(polygon.map((v) => at(positions, v)));
    for (let i = 0; i < three.length; i++) triangles.push(polygon[three[i]!]!);
    for (let i = 0; i < three.length; i += 3) own.push(slots[p] ?? 0);
  });
  return {
    points: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    slots: Uint8Array.from(own),
    materials: materials.length > 0 ? materials.map(({ name }) => tidyName(name)) : ['Material'],
  };
}

/** A name as documents take it. */
const tidyName = (name: string): string =>
  name
    .replaceAll(/\p{Cc}/gu, ' ')
    .trim()
    .slice(0, 80) || 'Material';

const at = (positions: readonly number[], v: number): Vector => [
  positions[3 * v]!,
  positions[3 * v + 1]!,
  positions[3 * v + 2]!,
];

/** A polygon's triangles, by its places; seen along its normal, however hollow it is. */
function trianglesOf(points: readonly Vector[]): number[] {
  const normal = newell(points);
  const size = Math.hypot(...normal);
  if (points.length < 3 || !(size > 1e-16)) return [];
  const other: Vector = Math.abs(normal[2]) > 0.9 * size ? [1, 0, 0] : [0, 0, 1];
  const u = cross(other, normal);
  const v = cross(normal, u);
  const scale = [1 / Math.hypot(...u), 1 / Math.hypot(...v)];
  const face = new FaceLoops();
  const from = points[0]!;
  face.add(
    points.map((_, i) => i),
    points.map((point) => dot(minus(point, from), u) * scale[0]!),
    points.map((point) => dot(minus(point, from), v) * scale[1]!),
  );
  return [...triangulateFace(face.region, null)];
}
