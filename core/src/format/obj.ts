/** OBJ with MTL (Wavefront, 1992): one object an element, faces by material, in metres, y up. */
import type { ProjectDocument } from '@yard-arch/document';
import { encode } from 'fast-png';
import { strToU8, zipSync } from 'fflate';
import type { Model } from '../model/model.ts';
import { textureOf } from '../texture/index.ts';
import { linearColour, surfacesOf } from './surfaces.ts';

export interface ObjFiles {
  obj: string;
  mtl: string;
  /** Images that the MTL names, as PNG, by file name. */
  images: Record<string, Uint8Array>;
}

/** A name that a line of the format can carry: no spaces, nothing that ends it. */
function word(name: string): string {
  return name.trim().replace(/[\s#\\]+/g, '_') || 'unnamed';
}

function figure(value: number): string {
  return String(Math.round(value * 1e7) / 1e7 + 0);
}

/**
 * Writes the model as OBJ and MTL.
 * @param mtlName file name of the MTL, which the OBJ refers to.
 */
export function writeObj(document: ProjectDocument, model: Model, mtlName: string): ObjFiles {
  const used = new Map<string, string>();
  const taken = new Set<string>();
  const materialName = (id: string): string => {
    const known = used.get(id);
    if (known) return known;
    let name = word(document.materials[id]!.name);
    while (taken.has(name)) name += '_';
    taken.add(name);
    used.set(id, name);
    return name;
  };
  const lines = [`# ${document.name.replace(/\s+/g, ' ')}, written by Yard Arch. Metres, y up.`, `mtllib ${mtlName}`];
  let before = 1;
  for (const cut of model.cuts.values()) {
    if (cut.mesh.triangles.length === 0) continue;
    lines.push(`o ${word(document.elements[cut.element]!.name)}`);
    for (const { material, positions, normals, uvs, polygons } of surfacesOf(cut)) {
      const count = positions.length / 3;
      for (let i = 0; i < count; i++) lines.push(`v ${figure(positions[3 * i]!)} ${figure(positions[3 * i + 1]!)} ${figure(positions[3 * i + 2]!)}`);
      // The format knows no scale of textures that all programs heed, so a textured material's coordinates count repeats of its image.
      const { texture, colour } = document.materials[material]!;
      const [w, h] = texture ? textureOf(texture, colour).metres : [1, 1];
      for (let i = 0; i < count; i++) lines.push(`vt ${figure(uvs[2 * i]! / w)} ${figure(uvs[2 * i + 1]! / h)}`);
      for (let i = 0; i < count; i++) lines.push(`vn ${figure(normals[3 * i]!)} ${figure(normals[3 * i + 1]!)} ${figure(normals[3 * i + 2]!)}`);
      lines.push(`usemtl ${materialName(material)}`);
      for (const polygon of polygons) lines.push(`f ${polygon.map((c) => Array(3).fill(before + c).join('/')).join(' ')}`);
      before += count;
    }
  }
  const images: Record<string, Uint8Array> = {};
  const mtl = [`# Materials of ${document.name.replace(/\s+/g, ' ')}`];
  for (const [id, name] of used) {
    const { colour, roughness, texture } = document.materials[id]!;
    mtl.push(`newmtl ${name}`, `Kd ${texture ? '1 1 1' : linearColour(colour).map(figure).join(' ')}`, 'Ks 0 0 0', `Pr ${figure(roughness)}`, 'd 1', 'illum 1');
    if (texture) {
      const { width, height, data } = textureOf(texture, colour);
      const file = `${mtlName.replace(/\.mtl$/i, '')}-${name}.png`;
      images[file] = encode({ width, height, data, channels: 3 });
      mtl.push(`map_Kd ${file}`);
    }
  }
  return { images, obj: `${lines.join('\n')}\n`, mtl: `${mtl.join('\n')}\n` };
}

/** The files as one ZIP, in pieces. */
export function* objPieces(document: ProjectDocument, model: Model, stem: string, onShare: (share: number) => void): Generator<Uint8Array> {
  const { obj, mtl, images } = writeObj(document, model, `${stem}.mtl`);
  onShare(0.5);
  yield zipSync({ [`${stem}.obj`]: strToU8(obj), [`${stem}.mtl`]: strToU8(mtl), ...images });
}
