/** Meshes from outside: taken into a project with their materials, to stand in a field or about openings. */
import {
  newId,
  putting,
  type Change,
  type Imported,
  type KeptMesh,
  type Material,
  type ProjectDocument,
} from '@yard-arch/document';

/** What a file says of a material. */
export interface SaidMaterial {
  name: string;
  /** As #rrggbb. */
  colour?: string;
  roughness?: number;
  opacity?: number;
}

/** A mesh as something that stands in a box: it keeps its size, on the foot and in the middle. */
const standing = {
  across: { rule: 'keep', at: 'middle' },
  through: { rule: 'keep', at: 'middle' },
  up: { rule: 'keep', at: 'start' },
} as const;

/** Takes a mesh into a project. Materials of the same name are the project's own; others come with it. @returns what it is as a field, and the changes that go with it */
export function taking(
  document: ProjectDocument,
  kept: KeptMesh,
  said: readonly SaidMaterial[] = [],
): { imported: Imported; changes: Change[] } {
  const changes: Change[] = document.meshes[kept.id] ? [] : [putting('meshes', kept)];
  const own = Object.values(document.materials);
  const materials = kept.materials.map((name, i) => {
    const known = own.find((material) => material.name === name);
    if (known) return known.id;
    const { colour = '#b9b4a8', roughness = 0.7, opacity } = said[i] ?? {};
    const made: Material = { id: newId('m'), name, colour, roughness, ...(opacity === undefined ? {} : { opacity }) };
    own.push(made);
    changes.push(putting('materials', made));
    return made.id;
  });
  return { imported: { kind: 'imported', mesh: kept.id, materials, ...structuredClone(standing) }, changes };
}
