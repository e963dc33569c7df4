/** Pattern files: one pattern with the materials that it names, to be taken from project to project. */
import { emptyDocument, readDocument } from './file.ts';
import { omit } from './omit.ts';
import type { Pattern } from './pattern-schema.ts';
import { Refused } from './refused.ts';
import type { Material } from './tables/materials.ts';
import type { KeptMesh } from './tables/meshes.ts';
import { formatVersion } from './versions/up-to-date.ts';

/** What a pattern file says it is. */
export const patternFormat = 'yard-arch-pattern';

/** A pattern with the materials that it names, without their pictures, and what is known of its meshes; their bytes, as base64 by their SHA-256, where the file is to stand alone. */
export interface PatternFile {
  format: typeof patternFormat;
  version: number;
  pattern: Pattern;
  materials: Record<string, Material>;
  meshes: Record<string, KeptMesh>;
  files?: Record<string, string>;
}

/** @param materials those that it names, as are meshes. */
export function patternFile(
  pattern: Pattern,
  materials: readonly Material[],
  meshes: readonly KeptMesh[] = [],
): PatternFile {
  return {
    format: patternFormat,
    version: formatVersion,
    pattern: omit(pattern, 'shelf'),
    materials: Object.fromEntries(
      materials.map((material): [string, Material] => [material.id, omit(material, 'pictures')]),
    ),
    meshes: Object.fromEntries(meshes.map((mesh) => [mesh.id, mesh])),
  };
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Reads a pattern file of any version: as a project of nothing but the pattern and its materials, so that what holds for projects
 * holds for it.
 * @throws Refused where it is none, or its figures are faulty.
 */
export function readPatternFile(value: unknown): PatternFile {
  if (!isObject(value) || value.format !== patternFormat)
    throw new Refused('This is no pattern file.', [{ path: 'format', reason: `must be "${patternFormat}"` }]);
  const { version, pattern, materials, meshes } = value;
  const id = isObject(pattern) && typeof pattern.id === 'string' ? pattern.id : 'pattern';
  const read = readDocument(
    JSON.stringify({
      ...emptyDocument('Pattern'),
      version,
      patterns: { [id]: pattern },
      materials: materials ?? {},
      meshes: meshes ?? {},
    }),
  );
  return patternFile(read.patterns[id]!, Object.values(read.materials), Object.values(read.meshes));
}
