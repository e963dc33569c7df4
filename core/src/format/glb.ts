/** GLB (glTF 2.0, binary): one named node an element, or one for each of its layers where those are solids; a primitive for each material, openings named in flat extras. */
import { Document, Format, WebIO, type Material, type Mesh, type Node } from '@gltf-transform/core';
import { EXTMeshGPUInstancing, EXTTextureWebP, KHRTextureTransform } from '@gltf-transform/extensions';
import { grouped, sizeLabel, type Element, type ProjectDocument } from '@yard-arch/document';
import type { PartInstance, PartMesh } from '../infill/part.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { ElementCut } from '../model/cut-element.ts';
import type { Model } from '../model/model.ts';
import { imagesOf, type MaterialImage } from './images.ts';
import { originOf, type Point } from './local.ts';
import { Names } from './names.ts';
import { noAssets, type AssetSource } from './project-file.ts';
import { linearColour, solidsOf, surfaceOf, type Solid } from './surfaces.ts';

const nowhere: Point = [0, 0, 0];

/** A direction in the format's axes, y up. */
const columnOf = ([x, y, z]: Point): Point => [x, z, 0 - y];
const back = ([x, y, z]: Point): Point => [0 - x, 0 - y, 0 - z];

/** What is written, and the names that are given. */
class Writer {
  readonly gltf = new Document();
  private readonly buffer = this.gltf.createBuffer();
  private readonly transforms = this.gltf.createExtension(KHRTextureTransform);
  private webpMade: EXTTextureWebP | null = null;
  private readonly materials = new Map<string, Material>();
  private readonly materialNames = new Names((name) => name, ' ');
  private readonly nodeNames = new Names((name) => name, ' ');
  private readonly partNames = new Names((name) => name, ' ');
  private readonly partMeshes = new Map<PartMesh, Mesh>();

  constructor(
    private readonly document: ProjectDocument,
    model: Model,
    private readonly source: AssetSource,
    private readonly instanced: boolean,
  ) {
    const root = this.gltf.getRoot();
    root.getAsset().generator = 'Yard Arch';
    const scene = this.gltf.createScene(document.name);
    root.setDefaultScene(scene);
    for (const cut of model.cuts.values()) if (cut.mesh.triangles.length > 0) scene.addChild(this.node(cut));
  }

  private node(cut: ElementCut) {
    const element = this.document.elements[cut.element]!;
    const name = this.nodeNames.of(element.id, element.name);
    const origin = originOf([cut.mesh]);
    const node = this.gltf
      .createNode(name)
      .setTranslation([origin[0], origin[2], 0 - origin[1]])
      .setExtras(this.extras(cut));
    const numbers = new Uint32Array(cut.mesh.vertices.length);
    for (const solid of solidsOf(cut, element.skins === 'layers')) {
      const own =
        solid.layer === null
          ? name
          : this.nodeNames.of(`${element.id} ${solid.layer}`, this.layerName(element, name, solid.layer));
      const mesh = this.mesh(own, cut.mesh, solid, { origin, numbers });
      if (solid.layer === null) node.setMesh(mesh);
      else
        node.addChild(
          this.gltf
            .createNode(own)
            .setMesh(mesh)
            .setExtras({ element: element.id, layer: solid.layer + 1 }),
        );
    }
    if (this.instanced)
      for (const [part, all] of byMesh(cut.parts))
        node.addChild(all.length > 1 ? this.batch(part, all, origin) : this.partNode(all[0]!, origin));
    else for (const part of cut.parts) node.addChild(this.partNode(part, origin));
    return node;
  }

  /** A part's mesh, made once however many openings carry it. */
  private partMesh(part: PartMesh): Mesh {
    let mesh = this.partMeshes.get(part);
    if (!mesh) {
      const all: Solid = { layer: null, runs: part.mesh.runs };
      const name = this.partNames.of(part.key, part.name);
      mesh = this.mesh(name, part.mesh, all, { origin: nowhere, numbers: new Uint32Array(part.mesh.vertices.length) });
      this.partMeshes.set(part, mesh);
    }
    return mesh;
  }

  /** A part in its place, about the origin of its element's node. */
  private partNode({ part, opening, id, placement }: PartInstance, origin: Point): Node {
    const { openings, patterns, units } = this.document;
    const own = openings[opening];
    const pattern = own && patterns[own.pattern];
    const size = own && !own.own ? pattern?.sizes[own.size] : undefined;
    // So that whoever swaps or animates them finds all of one kind.
    const names = [pattern?.name, pattern && size && sizeLabel(pattern, size, units), own?.mark ?? opening, part.name];
    const [x, y, z] = placement.origin.map((value, k) => value - origin[k]!) as [number, number, number];
    return this.gltf
      .createNode(this.nodeNames.of(`${opening} ${id}`, names.filter(Boolean).join(' ')))
      .setMesh(this.partMesh(part))
      .setMatrix([
        ...columnOf(placement.x),
        0,
        ...columnOf(placement.z),
        0,
        ...columnOf(back(placement.y)),
        0,
        ...columnOf([x, y, z]),
        1,
      ])
      .setExtras({ opening, part: id, ...(own ? { pattern: own.pattern, size: own.size } : {}) });
  }

  /** All of one mesh in one node, by EXT_mesh_gpu_instancing; which opening each is of stands in its extras, in their order. */
  private batch(part: PartMesh, all: readonly PartInstance[], origin: Point): Node {
    const instancing = this.gltf.createExtension(EXTMeshGPUInstancing).setRequired(true);
    const accessor = (type: 'VEC3' | 'VEC4', array: Float32Array<ArrayBuffer>) =>
      this.gltf.createAccessor().setType(type).setArray(array).setBuffer(this.buffer);
    const places = all.map(({ placement }) => {
      const [x, y, z] = placement.origin.map((value, k) => value - origin[k]!) as [number, number, number];
      return columnOf([x, y, z]);
    });
    const turns = all.map(({ placement: { x, y, z } }) => quaternionOf(columnOf(x), columnOf(z), columnOf(back(y))));
    return this.gltf
      .createNode(this.nodeNames.of(`${all[0]!.element} ${part.key}`, part.name))
      .setMesh(this.partMesh(part))
      .setExtension(
        'EXT_mesh_gpu_instancing',
        instancing
          .createInstancedMesh()
          .setAttribute('TRANSLATION', accessor('VEC3', Float32Array.from(places.flat())))
          .setAttribute('ROTATION', accessor('VEC4', Float32Array.from(turns.flat()))),
      )
      .setExtras({ openings: all.map(({ opening }) => opening).join(' ') });
  }

  private layerName({ layers }: Element, name: string, layer: number): string {
    return `${name}, layer ${layer + 1}, ${this.document.materials[layers[layer]?.material ?? '']?.name ?? 'block'}`;
  }

  private mesh(
    name: string,
    from: CutMesh,
    solid: Solid,
    { origin, numbers }: { origin: Point; numbers: Uint32Array<ArrayBuffer> },
  ): Mesh {
    const mesh = this.gltf.createMesh(name);
    for (const [material, runs] of grouped(solid.runs, (run) => run.material)) {
      const { positions, normals, uvs, indices } = surfaceOf(from, runs, origin, numbers);
      // The format's v runs down.
      for (let i = 1; i < uvs.length; i += 2) uvs[i] = -uvs[i]!;
      const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
        this.gltf
          .createAccessor()
          .setType(type)
          .setArray(array as Float32Array<ArrayBuffer>)
          .setBuffer(this.buffer);
      mesh.addPrimitive(
        this.gltf
          .createPrimitive()
          .setAttribute('POSITION', accessor('VEC3', positions))
          .setAttribute('NORMAL', accessor('VEC3', normals))
          .setAttribute('TEXCOORD_0', accessor('VEC2', uvs))
          .setIndices(accessor('SCALAR', indices))
          .setMaterial(this.material(material)),
      );
    }
    return mesh;
  }

  /** Openings as flat values, `opening.ID.mark` and so on: common readers stumble over nested ones. */
  private extras(cut: ElementCut): Record<string, string> {
    const extras: Record<string, string> = { element: cut.element };
    for (const { opening: id, state } of cut.statuses) {
      const { mark, pattern } = this.document.openings[id]!;
      extras[`opening.${id}.mark`] = mark;
      extras[`opening.${id}.pattern`] = this.document.patterns[pattern]?.name ?? '';
      extras[`opening.${id}.state`] = state;
    }
    return extras;
  }

  private material(id: string): Material {
    const known = this.materials.get(id);
    if (known) return known;
    const source = this.document.materials[id]!;
    const name = this.materialNames.of(id, source.name);
    const made = this.gltf
      .createMaterial(name)
      .setBaseColorFactor([...linearColour(source.colour), source.opacity ?? 1])
      .setRoughnessFactor(source.roughness)
      .setMetallicFactor(0);
    // What is seen through is seen from behind: panes may be single sheets.
    if (source.opacity !== undefined && source.opacity < 1) made.setAlphaMode('BLEND').setDoubleSided(true);
    const found = imagesOf(this.document, source, this.source);
    for (const image of found?.images ?? []) this.lay(made, name, image, found!.metres);
    this.materials.set(id, made);
    return made;
  }

  /** Only where there is such a picture does the file ask for it. */
  private get webp(): EXTTextureWebP {
    return (this.webpMade ??= this.gltf.createExtension(EXTTextureWebP));
  }

  /** Lays a picture on a material. Coordinates stay metres; it is repeated at its own size. */
  private lay(
    made: Material,
    name: string,
    { slot, type, bytes }: MaterialImage,
    metres: readonly [number, number],
  ): void {
    if (type === 'image/webp') this.webp.setRequired(true);
    const texture = this.gltf
      .createTexture(slot === 'colour' ? name : `${name}, ${slot}`)
      .setMimeType(type)
      .setImage(bytes() as Uint8Array<ArrayBuffer>);
    const scale = this.transforms.createTransform().setScale([1 / metres[0], 1 / metres[1]]);
    // A picture goes before the plain figure, which it would be multiplied by.
    if (slot === 'colour')
      made.setBaseColorTexture(texture).setBaseColorFactor([1, 1, 1, made.getBaseColorFactor()[3]]);
    else if (slot === 'roughness') made.setMetallicRoughnessTexture(texture).setRoughnessFactor(1);
    else made.setNormalTexture(texture);
    const info =
      slot === 'colour'
        ? made.getBaseColorTextureInfo()
        : slot === 'roughness'
          ? made.getMetallicRoughnessTextureInfo()
          : made.getNormalTextureInfo();
    info!.setExtension('KHR_texture_transform', scale);
  }
}

function byMesh(parts: readonly PartInstance[]): Map<PartMesh, PartInstance[]> {
  const found = new Map<PartMesh, PartInstance[]>();
  for (const one of parts) {
    const list = found.get(one.part);
    if (list) list.push(one);
    else found.set(one.part, [one]);
  }
  return found;
}

/** The turn whose columns are given, as x, y, z, w. Source: Shepperd, "Quaternion from rotation matrix", 1978. */
export function quaternionOf(a: Point, b: Point, c: Point): [number, number, number, number] {
  // Four times the square of each, of which the largest is the surest.
  const squares = [1 + a[0] - b[1] - c[2], 1 - a[0] + b[1] - c[2], 1 - a[0] - b[1] + c[2], 1 + a[0] + b[1] + c[2]];
  const most = squares.indexOf(Math.max(...squares));
  const s = 2 * Math.sqrt(Math.max(0, squares[most]!));
  const [xy, xz, yz] = [a[1] + b[0], a[2] + c[0], b[2] + c[1]];
  const [wx, wy, wz] = [b[2] - c[1], c[0] - a[2], a[1] - b[0]];
  const rows: [number, number, number, number][] = [
    [(s * s) / 4, xy, xz, wx],
    [xy, (s * s) / 4, yz, wy],
    [xz, yz, (s * s) / 4, wz],
    [wx, wy, wz, (s * s) / 4],
  ];
  return rows[most]!.map((value) => value / s) as [number, number, number, number];
}

const [magic, jsonChunk, binaryChunk] = [0x46546c67, 0x4e4f534a, 0x004e4942];
const pieceSize = 4 * 1024 * 1024;

/**
 * Writes the model as GLB: metres, y up, texture coordinates in metres with v running down as the format wants. Elements far from the origin are written about a point near them, where their node stands.
 * @param instanced whether equal parts are written as instances of one node (EXT_mesh_gpu_instancing), rather than as a node each.
 * @returns the file in pieces of a few megabytes, so that a large one is not held twice.
 */
export async function glbPieces(
  document: ProjectDocument,
  model: Model,
  source: AssetSource = noAssets,
  instanced = false,
): Promise<Uint8Array[]> {
  const { gltf } = new Writer(document, model, source, instanced);
  const { json, resources } = await new WebIO()
    .registerExtensions([KHRTextureTransform, EXTTextureWebP, EXTMeshGPUInstancing])
    .writeJSON(gltf, { format: Format.GLB });
  const text = padded(new TextEncoder().encode(JSON.stringify(json)), 0x20);
  const binary = padded(Object.values(resources)[0] ?? new Uint8Array(0), 0);
  const parts = [text, ...(binary.length > 0 ? [binary] : [])];
  const length = 12 + parts.reduce((sum, part) => sum + 8 + part.length, 0);
  const words = (...values: number[]): Uint8Array => new Uint8Array(Uint32Array.from(values).buffer);
  const out = [words(magic, 2, length, text.length, jsonChunk), ...cutInPieces(text)];
  if (binary.length > 0) out.push(words(binary.length, binaryChunk), ...cutInPieces(binary));
  return out;
}

/** The same as one array. */
export async function writeGlb(
  document: ProjectDocument,
  model: Model,
  source: AssetSource = noAssets,
): Promise<Uint8Array<ArrayBuffer>> {
  const pieces = await glbPieces(document, model, source);
  const whole = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

function padded(bytes: Uint8Array, by: number): Uint8Array {
  const rest = (4 - (bytes.length % 4)) % 4;
  if (rest === 0) return bytes;
  const longer = new Uint8Array(bytes.length + rest).fill(by);
  longer.set(bytes);
  return longer;
}

function cutInPieces(bytes: Uint8Array): Uint8Array[] {
  return Array.from({ length: Math.ceil(bytes.length / pieceSize) }, (_, i) =>
    bytes.slice(i * pieceSize, (i + 1) * pieceSize),
  );
}
