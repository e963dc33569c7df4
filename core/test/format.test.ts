/** Exports: judged by the format's own validator, and read back. */
import { describe, expect, it } from '@jest/globals';
import { WebIO } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import { decode } from 'fast-png';
import { createRequire } from 'node:module';
import { drawPicture, objFiles, objPieces, writeGlb } from '../src/format/index.ts';
import { demos, granary } from '@yard-arch/demo';
import { checkDocument, type ProjectDocument } from '@yard-arch/document';
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { cutModel, prove, reportOn } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const validator = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes(
    bytes: Uint8Array,
  ): Promise<{ issues: { numErrors: number; numWarnings: number; messages: { code: string }[] } }>;
};

const document = project(
  [wall(), wall({ id: 'w2', name: 'Quay wall', turn: 90, start: { x: 6, y: 0, z: 0 } })],
  [opening('a', 'arch', 1, 0), opening('b', 'oculus', 4, 2), opening('c', 'window', 2, 1, { element: 'w2' })],
);
const model = cutModel(document);

describe('GLB', () => {
  it('has nothing against it in the validator but textures still to come', async () => {
    const { issues } = await validator.validateBytes(await writeGlb(document, model));
    expect(issues).toMatchObject({ numErrors: 0, numWarnings: 0 });
    expect(new Set(issues.messages.map((message) => message.code))).toEqual(new Set(['UNUSED_OBJECT']));
  });

  it('has a named node an element, y up, its openings in extras, a primitive a material', async () => {
    const gltf = await new WebIO()
      .registerExtensions([KHRTextureTransform])
      .readBinary(await writeGlb(document, model));
    const nodes = gltf.getRoot().listNodes();
    expect(nodes.map((node) => node.getName())).toEqual(['Courtyard wall', 'Quay wall']);
    expect(nodes[0]!.getExtras()).toEqual({
      element: 'w1',
      'opening.a.mark': 'A',
      'opening.a.pattern': 'Cart arch',
      'opening.a.state': 'notched',
      'opening.b.mark': 'B',
      'opening.b.pattern': 'Oculus',
      'opening.b.state': 'cut',
    });
    const primitives = nodes[0]!.getMesh()!.listPrimitives();
    expect(primitives.map((p) => p.getMaterial()!.getName())).toEqual(['Brick', 'Stone']);
    const ys = Array.from(primitives[0]!.getAttribute('POSITION')!.getArray()! as Float32Array).filter(
      (_, i) => i % 3 === 1,
    );
    expect(Math.max(...ys)).toBeCloseTo(4, 6);
    expect(primitives.reduce((sum, p) => sum + p.getIndices()!.getCount() / 3, 0)).toBe(
      prove(model.cuts.get('w1')!.mesh).triangles,
    );
  });
});

interface ReadObj {
  points: number[][];
  faces: { corners: number[]; object: string; groups: string[]; material: string }[];
  comments: string[];
}

/** Reads an OBJ as a plain reader does. */
function readObj(text: string): ReadObj {
  const read: ReadObj = { points: [], faces: [], comments: [] };
  let [object, groups, material] = ['', [] as string[], ''];
  for (const line of text.split('\n')) {
    const [key, ...rest] = line.split(' ');
    if (key === 'v') read.points.push(rest.map(Number));
    else if (key === 'o') object = rest.join(' ');
    else if (key === 'g') groups = rest;
    else if (key === 'usemtl') material = rest.join(' ');
    else if (key === '#') read.comments.push(rest.join(' '));
    else if (key === 'f')
      read.faces.push({ corners: rest.map((corner) => Number(corner.split('/')[0]) - 1), object, groups, material });
  }
  return read;
}

const text = (files: ReturnType<typeof objFiles>, ending: string): string =>
  [...files.find(({ name }) => name.endsWith(ending))!.pieces].join('');
const written = (source: ProjectDocument, cut = cutModel(source)) => {
  // Pieces come once: they are kept.
  const files = objFiles(source, cut, 'granary').map(({ name, pieces }) => ({
    name,
    pieces: [...pieces],
  }));
  return { files, ...readObj(text(files, '.obj')) };
};

const sub = (a: number[], b: number[]): number[] => a.map((x, k) => x - b[k]!);
const cross = (a: number[], b: number[]): number[] => [
  a[1]! * b[2]! - a[2]! * b[1]!,
  a[2]! * b[0]! - a[0]! * b[2]!,
  a[0]! * b[1]! - a[1]! * b[0]!,
];
const dot = (a: number[], b: number[]): number => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;

/** The volume that a reader finds who fans every face from its first corner, and the least share of a fan's triangle that faces as its face does. */
function fanned({ points, faces }: ReadObj): { volume: number; facing: number; strays: number } {
  let [volume, facing, strays] = [0, 1, 0];
  for (const { corners } of faces) {
    const round = corners.map((c) => points[c]!);
    const triangles = round.slice(2).map((c, i) => [round[0]!, round[i + 1]!, c] as const);
    const normals = triangles.map(([a, b, c]) => cross(sub(b, a), sub(c, a)));
    const sum = normals.reduce((x, n) => x.map((value, k) => value + n[k]!), [0, 0, 0]);
    const size = Math.hypot(...sum);
    triangles.forEach(([a, b, c], i) => {
      volume += dot(a, cross(b, c)) / 6;
      facing = Math.min(facing, dot(normals[i]!, sum) / size / (Math.hypot(...normals[i]!) || 1e-30));
    });
    const middle = round.reduce((x, p) => x.map((value, k) => value + p[k]! / round.length), [0, 0, 0]);
    for (const p of round) strays = Math.max(strays, Math.abs(dot(sub(p, middle), sum)) / size);
  }
  return { volume, facing, strays };
}

const readCase = (name: string): ProjectDocument =>
  checkDocument(JSON.parse(readFileSync(new URL(`./cases/${name}`, import.meta.url), 'utf8')));

describe('OBJ', () => {
  it('has every polygon, enclosing the same volume', () => {
    const { files, ...read } = written(document);
    const proofs = [...model.cuts.values()].map((cut) => prove(cut.mesh));
    const polygons = proofs.reduce(
      (sum, proof) => sum + Object.values(proof.polygonsBySides).reduce((a, b) => a + b, 0),
      0,
    );
    expect(read.faces.length).toBeGreaterThanOrEqual(polygons);
    expect(fanned(read).volume).toBeCloseTo(
      proofs.reduce((sum, proof) => sum + proof.volume, 0),
      4,
    );
    expect(text(files, '.mtl')).toContain('newmtl Stone');
    expect(text(files, '.obj')).toContain('mtllib granary.mtl');
  });

  it.each<[string, () => ProjectDocument]>([
    ['arches with checks', () => readCase('obj-concave-arch-check.json')],
    ['checks', () => readCase('obj-concave-check.json')],
    ['the granary', granary],
    ['every profile', demos.profiles!],
  ])('has only faces that are convex and flat: %s', (_, make) => {
    const source = make();
    const cut = cutModel(source);
    const { facing, strays, volume } = fanned(written(source, cut));
    expect(facing).toBeGreaterThan(0.999);
    expect(strays).toBeLessThan(1e-4);
    const whole = [...cut.cuts.values()]
      .flatMap(({ mesh, parts }) => [mesh, ...parts.map(({ part }) => part.mesh)])
      .reduce((sum, mesh) => sum + prove(mesh).volume, 0);
    expect(Math.abs(volume - whole)).toBeLessThan(1e-5 * Math.max(1, whole));
  });

  it('keeps elements and layers of one name apart, and tells openings', () => {
    const two = project(
      [
        wall({
          skins: 'layers',
          layers: [
            { thickness: 0.1, material: 'brick' },
            { thickness: 0.2, material: 'stone' },
          ],
        }),
        wall({ id: 'w2', start: { x: 0, y: 5, z: 0 } }),
      ],
      [opening('a', 'window', 1, 1), opening('b', 'window', 1, 1, { element: 'w2' })],
    );
    const { faces, comments } = written(two);
    expect([...new Set(faces.map(({ object }) => object))]).toEqual(['Courtyard_wall', 'Courtyard_wall_2']);
    const groups = new Set(faces.filter(({ object }) => object === 'Courtyard_wall').flatMap((face) => face.groups));
    expect(groups).toEqual(
      new Set([
        'Courtyard_wall_layer_1',
        'Courtyard_wall_layer_1_A',
        'Courtyard_wall_layer_2',
        'Courtyard_wall_layer_2_A',
      ]),
    );
    expect(comments).toContain('opening a: A, Loft light, cut');
    // Each layer by itself is closed.
    for (const layer of ['Courtyard_wall_layer_1', 'Courtyard_wall_layer_2']) {
      const edges = new Map<string, number>();
      for (const { corners, groups: own } of faces)
        if (own[0] === layer)
          corners.forEach((c, i) =>
            edges.set(
              [c, corners[(i + 1) % corners.length]!].sort((x, y) => x - y).join(),
              (edges.get([c, corners[(i + 1) % corners.length]!].sort((x, y) => x - y).join()) ?? 0) + 1,
            ),
          );
      expect(new Set(edges.values())).toEqual(new Set([2]));
    }
  });

  it('names files and materials so that none leads elsewhere and no two are alike', () => {
    const source = readCase('obj-material-traversal.json');
    const named = Object.values(source.materials).map((material, i) => ({
      ...material,
      name: ['a/../../outside', 'Brick/Stone', 'BRICK/stone', '100% #1', '..', 'C:\\con'][i] ?? material.name,
      texture: 'plaster' as const,
    }));
    const layers = named.map(({ id }) => ({ thickness: 0.1, material: id }));
    const hostile = {
      ...source,
      materials: Object.fromEntries(named.map((material) => [material.id, material])),
      elements: { w: { ...Object.values(source.elements)[0]!, id: 'w', name: '../x\\y', layers } },
    } as ProjectDocument;
    const { files } = written({ ...hostile, openings: {} });
    const names = files.map(({ name }) => name);
    expect(new Set(names.map((name) => name.toLowerCase())).size).toBe(names.length);
    for (const name of names) expect(name).toMatch(/^[\p{L}\p{N}_-][\p{L}\p{N}._-]*$/u);
    const mtl = text(files, '.mtl');
    const maps = [...mtl.matchAll(/^map_Kd (.*)$/gm)].map(([, name]) => name!);
    expect(maps.length).toBeGreaterThan(2);
    for (const name of maps) expect(names).toContain(name);
    // The ZIP holds just these.
    const zip = unzipSync(
      Buffer.concat([...objPieces(hostile, cutModel({ ...hostile, openings: {} }), 'granary', { onShare: () => {} })]),
    );
    expect(Object.keys(zip).sort()).toEqual(names.sort());
  });
});

describe('far from the origin', () => {
  const far = readCase('far-10km-quads.json');
  const near = checkDocument({ ...far, elements: { w: { ...far.elements.w!, start: { x: 0, y: 0, z: 0 } } } });

  it('GLB loses nothing: the node carries the offset', async () => {
    const nodes = async (source: ProjectDocument) =>
      (await new WebIO().registerExtensions([KHRTextureTransform]).readBinary(await writeGlb(source, cutModel(source))))
        .getRoot()
        .listNodes();
    const [away, here] = [(await nodes(far))[0]!, (await nodes(near))[0]!];
    const [dx, dy, dz] = away.getTranslation();
    expect(Math.hypot(dx!, dz!)).toBeGreaterThan(14_000);
    const start = far.elements.w!.start;
    const exact = near.elements.w!.start;
    const at = (node: typeof away, i: number): number[] =>
      Array.from(
        node
          .getMesh()!
          .listPrimitives()[0]!
          .getAttribute('POSITION')!
          .getArray()!
          .slice(3 * i, 3 * i + 3),
      );
    for (let i = 0; i < 40; i++) {
      const [p, q] = [at(away, i), at(here, i)];
      expect(p[0]! + dx! - (start.x - exact.x)).toBeCloseTo(q[0]!, 5);
      expect(p[1]! + dy! - (start.z - exact.z)).toBeCloseTo(q[1]!, 5);
      expect(p[2]! + dz! + (start.y - exact.y)).toBeCloseTo(q[2]!, 5);
    }
  });

  it('OBJ says from where it was moved, in a comment and in a file of its own', () => {
    const { files, points, comments } = written(far);
    const { addToGetBack: back, movedBy } = JSON.parse(text(files, '.origin.json')) as {
      addToGetBack: number[];
      movedBy: number[];
    };
    expect(comments.some((comment) => comment.includes(`add ${back.join(' ')} to every vertex`))).toBe(true);
    expect(back.map((value, k) => value + movedBy[k]!)).toEqual([0, 0, 0]);
    expect(Math.max(...points.flat().map(Math.abs))).toBeLessThan(20);
    const here = written(near).points;
    points.slice(0, 50).forEach((p, i) => {
      expect(p[0]! + back[0]! - 10000.123).toBeCloseTo(here[i]![0]!, 5);
      expect(p[2]! + back[2]! - 10000.456).toBeCloseTo(here[i]![2]!, 5);
    });
    expect(written(near).files.some(({ name }) => name.endsWith('.json'))).toBe(false);
  });

  it('the report measures what is written', () => {
    const [element] = reportOn(far, cutModel(far)).elements;
    expect(element!.writtenError).toBeLessThan(1e-6);
    // Its rounded arris runs along an arch, and is stretched a little there.
    expect(element!.textureDensity[0]).toBeGreaterThan(0.99);
    expect(element!.textureDensity[1]).toBeLessThan(1.01);
    // A wall that is itself too long for 32-bit figures says so.
    const long = checkDocument({ ...near, elements: { w: { ...near.elements.w!, length: 60_000 } } });
    expect(reportOn(long, cutModel(long)).elements[0]!.writtenError).toBeGreaterThan(1e-4);
  });
});

describe('a picture', () => {
  it('shows the model before the ground, and openings through it', () => {
    const png = decode(drawPicture(document, model, { width: 160, height: 100 }));
    expect([png.width, png.height]).toEqual([160, 100]);
    const colours = new Set<string>();
    for (let i = 0; i < png.data.length; i += 3) colours.add([png.data[i], png.data[i + 1], png.data[i + 2]].join());
    expect(colours.size).toBeGreaterThan(20);
  });

  it('of an empty project is of empty ground', () => {
    const empty = project([], []);
    expect(decode(drawPicture(empty, cutModel(empty), { width: 40, height: 30 })).width).toBe(40);
  });
});
