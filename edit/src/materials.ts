/** Materials: made, changed and removed. */
import { newId, putting, removing, type ChangeSet, type Material, type ProjectDocument } from '@yard-arch/document';
import { edit } from './make.ts';

/** A new material, in the colour and texture of plaster to begin with. */
export function addMaterial(document: ProjectDocument): ChangeSet {
  const names = new Set(Object.values(document.materials).map((material) => material.name));
  let n = names.size + 1;
  while (names.has(`Material ${n}`)) n++;
  return edit(
    `add Material ${n}`,
    putting('materials', {
      id: newId('m'),
      name: `Material ${n}`,
      colour: '#d8d2c4',
      roughness: 0.9,
      texture: 'plaster',
    }),
  );
}

export function changeMaterial(material: Material, over: Partial<Material>, what: string): ChangeSet {
  return edit(`${what} ${material.name}`, putting('materials', { ...material, ...over }));
}

export function removeMaterial(material: Material): ChangeSet {
  return edit(`remove ${material.name}`, removing('materials', material.id));
}

/** How many layers, reveals and imprints are of a material. */
export function usesOfMaterial(document: ProjectDocument, id: string): number {
  let count = 0;
  for (const { layers } of Object.values(document.elements))
    for (const layer of layers) if (layer.material === id) count += 1;
  for (const { reveal, cut } of Object.values(document.patterns)) {
    if (reveal.material === id) count += 1;
    for (const side of Object.values(reveal.sides ?? {})) if (side === id) count += 1;
    if (cut?.kind === 'imprint' && cut.material === id) count += 1;
  }
  return count;
}
