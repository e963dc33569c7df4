/** GLB (glTF 2.0, binary): one named node an element, a primitive for each of its materials, its openings named in extras. */
import { Document, WebIO, type Material } from '@gltf-transform/core';
import type { ProjectDocument } from '@yard-arch/document';
import type { Model } from '../model/model.ts';
import { linearColour, surfacesOf } from './surfaces.ts';

/** Writes the model as GLB: metres, y up, texture coordinates in metres with v running down as the format wants. */
export async function writeGlb(document: ProjectDocument, model: Model): Promise<Uint8Array<ArrayBuffer>> {
  const gltf = new Document();
  gltf.getRoot().getAsset().generator = 'Yard Arch';
  const buffer = gltf.createBuffer();
  const scene = gltf.createScene(document.name);
  gltf.getRoot().setDefaultScene(scene);
  const materials = new Map<string, Material>();
  const materialOf = (id: string): Material => {
    const known = materials.get(id);
    if (known) return known;
    const source = document.materials[id]!;
    const made = gltf
      .createMaterial(source.name)
      .setBaseColorFactor([...linearColour(source.colour), 1])
      .setRoughnessFactor(source.roughness)
      .setMetallicFactor(0);
    materials.set(id, made);
    return made;
  };
  for (const cut of model.cuts.values()) {
    if (cut.mesh.triangles.length === 0) continue;
    const element = document.elements[cut.element]!;
    const mesh = gltf.createMesh(element.name);
    for (const surface of surfacesOf(cut)) {
      const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
        gltf
          .createAccessor()
          .setType(type)
          .setArray(array as Float32Array<ArrayBuffer>)
          .setBuffer(buffer);
      mesh.addPrimitive(
        gltf
          .createPrimitive()
          .setAttribute('POSITION', accessor('VEC3', surface.positions))
          .setAttribute('NORMAL', accessor('VEC3', surface.normals))
          .setAttribute(
            'TEXCOORD_0',
            accessor(
              'VEC2',
              surface.uvs.map((value, i) => (i % 2 === 1 ? 1 - value : value)),
            ),
          )
          .setIndices(accessor('SCALAR', surface.indices))
          .setMaterial(materialOf(surface.material)),
      );
    }
    const openings = cut.statuses.map((status) => {
      const opening = document.openings[status.opening]!;
      return { id: opening.id, mark: opening.mark, pattern: document.patterns[opening.pattern]?.name ?? null, state: status.state };
    });
    scene.addChild(gltf.createNode(element.name).setMesh(mesh).setExtras({ element: element.id, openings }));
  }
  return (await new WebIO().writeBinary(gltf)) as Uint8Array<ArrayBuffer>;
}
