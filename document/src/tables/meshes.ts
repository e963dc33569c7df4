/** Meshes from outside: each kept once by what it holds, to stand in and about openings. */
import { z } from 'zod';
import { extent, id, name } from '../figures.ts';
import { sha256Schema } from './assets.ts';
import type { Table } from './table.ts';

/** The media type of meshes that are kept: plain glTF in one file, in metres, y up, of triangles only. */
export const meshType = 'model/gltf-binary';

/** The most bytes of a mesh, the most triangles, and the most materials. */
export const [mostMeshBytes, mostMeshTriangles, mostMeshMaterials] = [20 * 1024 * 1024, 200_000, 16];

const count = (least: number, most: number) =>
  z.int('must be a whole number').min(least, `must be at least ${least}`).max(most, `must be at most ${most}`);

export const meshSchema = z.strictObject({
  id,
  name,
  sha256: sha256Schema,
  bytes: count(1, mostMeshBytes),
  triangles: count(1, mostMeshTriangles),
  /** Its width, depth and height, metres. */
  size: z.tuple([extent, extent, extent], 'must be its width, depth and height'),
  /** Edges at which it is not closed. */
  openEdges: count(0, 3 * mostMeshTriangles),
  /** What its own materials are called, in their order. */
  materials: z
    .array(name)
    .min(1, 'must name at least one material')
    .max(mostMeshMaterials, `must name at most ${mostMeshMaterials} materials`),
});
/** A mesh that was brought in: what it is called, the SHA-256 of its bytes by which it is kept and named, and what it is like. */
export type KeptMesh = z.infer<typeof meshSchema>;

export const meshes: Table<typeof meshSchema> = {
  schema: meshSchema,
  singular: 'mesh',
  references: () => [],
  faults: (_, { id, sha256 }) =>
    id === sha256 ? [] : [{ path: 'id', reason: 'must be its SHA-256, by which patterns name it' }],
};
