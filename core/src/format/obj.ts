/** OBJ with MTL (Wavefront, 1992): one object an element, faces by material, in metres, y up. */
import type { ProjectDocument } from '@yard-arch/document';
import type { Model } from '../model/model.ts';
import { linearColour, surfacesOf } from './surfaces.ts';

export interface ObjFiles {
  obj: string;
  mtl: string;
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
    for (const { material, positions, normals, uvs, indices } of surfacesOf(cut)) {
      const count = positions.length / 3;
      for (let i = 0; i < count; i++) lines.push(`v ${figure(positions[3 * i]!)} ${figure(positions[3 * i + 1]!)} ${figure(positions[3 * i + 2]!)}`);
      for (let i = 0; i < count; i++) lines.push(`vt ${figure(uvs[2 * i]!)} ${figure(uvs[2 * i + 1]!)}`);
      for (let i = 0; i < count; i++) lines.push(`vn ${figure(normals[3 * i]!)} ${figure(normals[3 * i + 1]!)} ${figure(normals[3 * i + 2]!)}`);
      lines.push(`usemtl ${materialName(material)}`);
      for (let i = 0; i < indices.length; i += 3)
        lines.push(`f ${[0, 1, 2].map((k) => Array(3).fill(before + indices[i + k]!).join('/')).join(' ')}`);
      before += count;
    }
  }
  const mtl = [`# Materials of ${document.name.replace(/\s+/g, ' ')}`];
  for (const [id, name] of used) {
    const { colour, roughness } = document.materials[id]!;
    mtl.push(`newmtl ${name}`, `Kd ${linearColour(colour).map(figure).join(' ')}`, 'Ks 0 0 0', `Pr ${figure(roughness)}`, 'd 1', 'illum 1');
  }
  return { obj: `${lines.join('\n')}\n`, mtl: `${mtl.join('\n')}\n` };
}
