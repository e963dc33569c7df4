/** Exports: judged by the format's own validator, and read back. */
import { describe, expect, it } from '@jest/globals';
import { WebIO } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import { decode } from 'fast-png';
import { createRequire } from 'node:module';
import { drawPicture, writeGlb, writeObj } from '../src/format/index.ts';
import { cutModel, prove } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const validator = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes(bytes: Uint8Array): Promise<{ issues: { numErrors: number; numWarnings: number; messages: { code: string }[] } }>;
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
    const gltf = await new WebIO().registerExtensions([KHRTextureTransform]).readBinary(await writeGlb(document, model));
    const nodes = gltf.getRoot().listNodes();
    expect(nodes.map((node) => node.getName())).toEqual(['Courtyard wall', 'Quay wall']);
    expect(nodes[0]!.getExtras().openings).toEqual([
      { id: 'a', mark: 'A', pattern: 'Cart arch', state: 'notched' },
      { id: 'b', mark: 'B', pattern: 'Oculus', state: 'cut' },
    ]);
    const primitives = nodes[0]!.getMesh()!.listPrimitives();
    expect(primitives.map((p) => p.getMaterial()!.getName())).toEqual(['Brick', 'Stone']);
    const ys = Array.from(primitives[0]!.getAttribute('POSITION')!.getArray()! as Float32Array).filter((_, i) => i % 3 === 1);
    expect(Math.max(...ys)).toBeCloseTo(4, 6);
    expect(primitives.reduce((sum, p) => sum + p.getIndices()!.getCount() / 3, 0)).toBe(prove(model.cuts.get('w1')!.mesh).triangles);
  });
});

describe('OBJ', () => {
  it('has every polygon, enclosing the same volume', () => {
    const { obj, mtl } = writeObj(document, model, 'granary.mtl');
    const points: number[][] = [];
    let volume = 0;
    let faces = 0;
    for (const line of obj.split('\n')) {
      const [key, ...rest] = line.split(' ');
      if (key === 'v') points.push(rest.map(Number));
      if (key !== 'f') continue;
      faces += 1;
      const round = rest.map((corner) => points[Number(corner.split('/')[0]) - 1]!);
      const a = round[0]!;
      for (let i = 1; i + 1 < round.length; i++) {
        const [b, c] = [round[i]!, round[i + 1]!];
        volume +=
          (a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) + a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) + a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!)) / 6;
      }
    }
    const proofs = [...model.cuts.values()].map((cut) => prove(cut.mesh));
    expect(faces).toBe(proofs.reduce((sum, proof) => sum + Object.values(proof.polygonsBySides).reduce((a, b) => a + b, 0), 0));
    expect(volume).toBeCloseTo(
      proofs.reduce((sum, proof) => sum + proof.volume, 0),
      4,
    );
    expect(mtl).toContain('newmtl Stone');
    expect(obj).toContain('mtllib granary.mtl');
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
