/** Materials: made, changed and removed. */
import {
  assetsIn,
  infillMaterials,
  partMaterials,
  newId,
  putting,
  removing,
  type Asset,
  type Change,
  type ChangeSet,
  type Material,
  type Pictures,
  type PictureSlot,
  type ProjectDocument,
} from '@yard-arch/document';
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

export function removeMaterial(document: ProjectDocument, material: Material): ChangeSet {
  return edit(`remove ${material.name}`, removing('materials', material.id), ...letGo(document, material, undefined));
}

/** How many layers, reveals and imprints are of a material. */
export function usesOfMaterial(document: ProjectDocument, id: string): number {
  let count = 0;
  for (const { layers, splits } of Object.values(document.elements)) {
    for (const layer of layers) if (layer.material === id) count += 1;
    for (const split of splits ?? []) if (split.material === id) count += 1;
  }
  for (const { reveal, cut, parts, infill } of Object.values(document.patterns)) {
    if (reveal.material === id) count += 1;
    for (const side of Object.values(reveal.sides ?? {})) if (side === id) count += 1;
    if (cut?.kind === 'imprint' && cut.material === id) count += 1;
    for (const part of parts ?? []) count += partMaterials(part).filter(([, material]) => material === id).length;
    if (infill) count += infillMaterials(infill).filter(([, material]) => material === id).length;
  }
  for (const { overrides } of Object.values(document.openings))
    count += Object.values(overrides?.materials ?? {}).filter((own) => own === id).length;
  return count;
}

/** Assets that a material had and that neither it nor another names any more. */
function letGo(document: ProjectDocument, material: Material, next: Pictures | undefined): Change[] {
  const others = Object.values(document.materials).filter(({ id }) => id !== material.id);
  const still = new Set([next, ...others.map(({ pictures }) => pictures)].flatMap(assetsIn));
  return [...new Set(assetsIn(material.pictures))].filter((id) => !still.has(id)).map((id) => removing('assets', id));
}

/** Gives a material a picture that the server keeps. The first is taken to show a metre's width of the surface. */
export function putPicture(
  document: ProjectDocument,
  material: Material,
  slot: PictureSlot,
  kept: Omit<Asset, 'id'>,
): ChangeSet {
  const known = Object.values(document.assets).find(({ sha256 }) => sha256 === kept.sha256);
  const asset: Asset = known ?? { ...kept, id: newId('a') };
  const whole = (metres: number): number => Math.round(metres * 1000) / 1000;
  const size = material.pictures ?? { width: 1, height: whole(kept.height / kept.width) };
  const pictures: Pictures = { ...size, [slot]: asset.id };
  return edit(
    `picture ${material.name}`,
    ...(known ? [] : [putting('assets', asset)]),
    putting('materials', { ...material, pictures }),
    ...letGo(document, material, pictures),
  );
}

/** Takes a picture off a material. */
export function dropPicture(document: ProjectDocument, material: Material, slot: PictureSlot): ChangeSet {
  const rest: Pictures = { ...material.pictures! };
  delete rest[slot];
  const pictures = assetsIn(rest).length > 0 ? rest : undefined;
  const next: Material = { ...material };
  if (pictures) next.pictures = pictures;
  else delete next.pictures;
  return edit(
    `take a picture off ${material.name}`,
    putting('materials', next),
    ...letGo(document, material, pictures),
  );
}
