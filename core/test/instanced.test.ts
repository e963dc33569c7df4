/** The GLB of instances says the same as the other: each part in the same place, in one node for each mesh. */
import { describe, expect, it } from '@jest/globals';
import { WebIO, type Node } from '@gltf-transform/core';
import { EXTMeshGPUInstancing, KHRTextureTransform, type InstancedMesh } from '@gltf-transform/extensions';
import { demos } from '@yard-arch/demo';
import { createRequire } from 'node:module';
import fc from 'fast-check';
import { glbPieces, quaternionOf } from '../src/format/glb.ts';
import { noAssets } from '../src/format/project-file.ts';
import { cutModel } from '../src/index.ts';
import { cross, type Vector } from '../src/vector.ts';

const { validateBytes } = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes: (bytes: Uint8Array) => Promise<{ issues: { numErrors: number } }>;
};

const whole = (pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> => new Uint8Array(Buffer.concat(pieces));

/** A vector turned by a quaternion. */
function turned([x, y, z, w]: readonly number[], v: Vector): number[] {
  const u: Vector = [x!, y!, z!];
  const t = cross(u, v).map((value) => 2 * value) as unknown as Vector;
  const c = cross(u, t);
  return [0, 1, 2].map((k) => v[k]! + w! * t[k]! + c[k]!);
}

describe('a turn', () => {
  it('is the same as a quaternion', () => {
    const unit = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(unit, unit, unit, unit, (x, y, z, w) => {
        const size = Math.hypot(x, y, z, w);
        if (size < 0.01) return;
        const q = [x, y, z, w].map((value) => value / size);
        const columns = (
          [
            [1, 0, 0],
            [0, 1, 0],
            [0, 0, 1],
          ] as const
        ).map((axis) => turned(q, axis) as unknown as Vector);
        const found = quaternionOf(columns[0]!, columns[1]!, columns[2]!);
        expect(Math.abs(found.reduce((sum, value, i) => sum + value * q[i]!, 0))).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('a GLB of instances', () => {
  it.each(['windows-20', 'book'])(
    'of %s has every part where the other has it, is valid, and no larger',
    async (name) => {
      const document = demos[name]!();
      const model = cutModel(document);
      const bytes = [whole(await glbPieces(document, model)), whole(await glbPieces(document, model, noAssets, true))];
      const io = new WebIO().registerExtensions([KHRTextureTransform, EXTMeshGPUInstancing]);
      /** By mesh, where its corner and the ends of its axes come to lie. */
      const places = async (file: Uint8Array<ArrayBuffer>): Promise<[string, number[]][]> => {
        const found: [string, number[]][] = [];
        const visit = (node: Node): void => {
          const batch = node.getExtension<InstancedMesh>('EXT_mesh_gpu_instancing');
          const mesh = node.getMesh()?.getName();
          const m = node.getWorldMatrix();
          if (batch) {
            const [at, turn] = ['TRANSLATION', 'ROTATION'].map((semantic) => batch.getAttribute(semantic)!);
            for (let i = 0; i < at!.getCount(); i++) {
              const [t, q] = [at!.getElement(i, []), turn!.getElement(i, [])];
              const axes = (
                [
                  [1, 0, 0],
                  [0, 1, 0],
                  [0, 0, 1],
                ] as const
              ).flatMap((axis) => turned(q, axis));
              found.push([mesh!, [...axes, t[0]! + m[12], t[1]! + m[13], t[2]! + m[14]]]);
            }
          } else if (node.getExtras().part !== undefined)
            found.push([mesh!, [m[0], m[1], m[2], m[4], m[5], m[6], m[8], m[9], m[10], m[12], m[13], m[14]]]);
        };
        (await io.readBinary(file)).getRoot().getDefaultScene()!.traverse(visit);
        return found;
      };
      const [each, instances] = [await places(bytes[0]!), await places(bytes[1]!)];
      expect(each.length).toBeGreaterThan(19);
      expect(instances).toHaveLength(each.length);
      const near = ([a, p]: (typeof each)[number], [b, q]: (typeof each)[number]): boolean =>
        a === b && p.every((value, k) => Math.abs(value - q[k]!) < 1e-4);
      expect(each.filter((one) => !instances.some((other) => near(one, other)))).toEqual([]);
      expect((await validateBytes(bytes[1]!)).issues.numErrors).toBe(0);
      expect(bytes[1]!.length).toBeLessThanOrEqual(bytes[0]!.length);
    },
  );
});
