/** How a pattern from elsewhere is made a project’s own. */
import {
  infillMaterials,
  omit,
  partMaterials,
  putting,
  withMaterials,
  type Change,
  type Material,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';

/** The ids of all materials that a pattern names. */
export function materialsIn({ reveal, cut, parts = [], infill }: Pattern): string[] {
  return [
    ...new Set([
      ...(reveal.material ? [reveal.material] : []),
      ...Object.values(reveal.sides ?? {}),
      ...(cut?.kind === 'imprint' && cut.material ? [cut.material] : []),
      ...parts.flatMap((part) => partMaterials(part).map(([, material]) => material)),
      ...(infill ? infillMaterials(infill).map(([, material]) => material) : []),
    ]),
  ];
}

/** A pattern from elsewhere as this project is to have it: with materials of the same names, or those that it brings. */
export interface Taken {
  pattern: Pattern;
  changes: Change[];
}

/** Takes a pattern in, with the materials that it names; those that the project has by name are its own. @param id of the pattern in this project */
export function takenIn(
  document: ProjectDocument,
  pattern: Pattern,
  materials: Readonly<Record<string, Material>>,
  id: string,
): Taken {
  const to = new Map<string, string>();
  const changes: Change[] = [];
  const known = Object.values(document.materials);
  const used = new Set(Object.keys(document.materials));
  for (const named of materialsIn(pattern)) {
    const material = materials[named];
    if (!material) continue;
    const same = known.find(({ name }) => name.toLowerCase() === material.name.toLowerCase());
    if (same) {
      to.set(named, same.id);
      continue;
    }
    let free = material.id;
    for (let n = 2; used.has(free); n++) free = `${material.id}${n}`;
    used.add(free);
    to.set(named, free);
    changes.push(putting('materials', { ...omit(material, 'pictures'), id: free }));
  }
  return { pattern: { ...withMaterials(structuredClone(pattern), to), id }, changes };
}
