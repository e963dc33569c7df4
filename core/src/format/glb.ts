/** GLB (glTF 2.0, binary): one named node an element, a primitive for each of its materials, its openings named in extras. */
import { Document, WebIO, type Material } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import type { ProjectDocument } from '@yard-arch/document';
import type { Model } from '../model/model.ts';
import { encode } from 'fast-png';
import { textureOf } from '../texture/index.ts';
import { linearColour, surfacesOf } from './surfaces.ts';

/** Writes the model as GLB: metres, y up, texture coordinates in metres with v running down as the format wants. */
export async function writeGlb(document: ProjectDocument, model: Model): Promise<Uint8Array<ArrayBuffer>> {
  const gltf = new Document();
  gltf.getRoot().getAsset().generator = 'Yard Arch';
  const buffer = gltf.createBuffer();
  const scene = gltf.createScene(document.name);
  gltf.getRoot().setDefaultScene(scene);
  const transforms = gltf.createExtension(KHRTextureTransform);
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
    if (source.texture) {
      const { width, height, data, metres } = textureOf(source.texture, source.colour);
      const image = gltf.createTexture(source.name).setMimeType('image/png').setImage(encode({ width, height, data, channels: 3 }) as Uint8Array<ArrayBuffer>);
      made.setBaseColorTexture(image).setBaseColorFactor([1, 1, 1, 1]);
      // Coordinates stay metres; the image is repeated at its own size.
      const info = made.getBaseColorTextureInfo()!;
      info.setExtension('KHR_texture_transform', transforms.createTransform().setScale([1 / metres[0], 1 / metres[1]]));
    }
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
              surface.uvs.map((value, i) => (i % 2 === 1 ? -value : value)),
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
  return (await new WebIO().registerExtensions([KHRTextureTransform]).writeBinary(gltf)) as Uint8Array<ArrayBuffer>;
}

/** The same in pieces, so that a large file is never held twice. */
export async function glbPieces(document: ProjectDocument, model: Model): Promise<Uint8Array[]> {
  const whole = await writeGlb(document, model);
  return pieces(whole);
}

const pieceSize = 4 * 1024 * 1024;

function pieces(bytes: Uint8Array): Uint8Array[] {
  return Array.from({ length: Math.ceil(bytes.length / pieceSize) }, (_, i) => bytes.slice(i * pieceSize, (i + 1) * pieceSize));
}
