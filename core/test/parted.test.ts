/** Splitting closed meshes: by planes and chains of lines, against the solids that a library splits; both sides together are the whole. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ProjectDocument } from '@yard-arch/document';
import { everyRoof, granary } from '@yard-arch/demo';
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { cutModel, prove, type CutMesh } from '../src/index.ts';
import { chainCurtain, planeCurtain, type Curtain } from '../src/mesh/curtain.ts';
import { partedClosed } from '../src/mesh/parted.ts';
import { solidLibrary } from '../src/cut/solid.ts';

let kernel: ManifoldToplevel;
const meshes: { name: string; one: CutMesh; layered: CutMesh }[] = [];

beforeAll(async () => {
  kernel = await solidLibrary();
  for (const document of [granary(), everyRoof()]) {
    const [one, layered] = (['one', 'layers'] as const).map((skins) =>
      cutModel({
        ...document,
        elements: Object.fromEntries(
          Object.entries(document.elements).map(([id, element]) => [
            id,
            { ...element, skins, layers: element.layers.map((layer) => ({ ...layer, cavity: undefined })) },
          ]),
        ),
      } as ProjectDocument),
    );
    for (const [id, { mesh }] of one!.cuts)
      meshes.push({ name: document.elements[id]!.name, one: mesh, layered: layered!.cuts.get(id)!.mesh });
  }
}, 120_000);

const volume = (mesh: CutMesh | null): number => (mesh ? prove(mesh).volume : 0);

function boxOf({ points }: CutMesh): { min: number[]; max: number[] } {
  const [min, max] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  points.forEach((x, i) => {
    min[i % 3] = Math.min(min[i % 3]!, x);
    max[i % 3] = Math.max(max[i % 3]!, x);
  });
  return { min, max };
}

function solidOf({ points, vertices, triangles }: CutMesh, origin: readonly number[]): Manifold {
  return new kernel.Manifold(
    new kernel.Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(points, (x, i) => x - origin[i % 3]!),
      triVerts: Uint32Array.from(triangles, (c) => vertices[c]!),
    }),
  );
}

const closing = { materialOf: (layer: number): string => `layer ${layer}` };
const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });

/** Both sides of a curtain, proved; and the volume of what is kept. */
function sides(mesh: CutMesh, there: Curtain, back: Curtain, layered?: CutMesh): number | null {
  const both = [there, back].map((curtain) => partedClosed(mesh, curtain, { ...closing, layered }));
  if (both.includes(null)) {
    // Where an edge comes to lie in the curtain the application moves it by a hair.
    unsplit += 1;
    return null;
  }
  const [kept, other] = both.map((made) => made!.mesh);
  for (const side of [kept, other])
    if (side) {
      asked += 1;
      const shown = new Set(side.runs.filter(({ material }) => /^layer/.test(material)).map(({ layer }) => layer));
      if (shown.size > 1) inLayers += 1;
    }
  expect(volume(kept!) + volume(other!)).toBeCloseTo(volume(mesh), 4);
  return volume(kept!);
}
let [asked, inLayers, unsplit] = [0, 0, 0];

/** A place within a mesh's box. */
function within(mesh: CutMesh, shares: readonly number[]): [number, number, number] {
  const { min, max } = boxOf(mesh);
  return shares.map((s, k) => min[k]! + s * (max[k]! - min[k]!)) as [number, number, number];
}

const rounds = Number(process.env.PARTED_ROUNDS ?? 60);

describe('splitting', () => {
  it('by a plane leaves what a solid library leaves, closed, on either side', () => {
    fc.assert(
      fc.property(
        fc.nat(meshes.length - 1),
        fc.tuple(share, share, share),
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.constantFrom('any', 'level', 'upright'),
        (which, shares, angle, lean, how) => {
          const { one, layered } = meshes[which]!;
          const at = within(one, shares);
          const up = how === 'level' ? 1 : how === 'upright' ? 0 : lean;
          const flat = Math.sqrt(1 - up * up);
          const normal = [flat * Math.cos(angle), flat * Math.sin(angle), up] as const;
          const back = normal.map((n) => -n) as [number, number, number];
          const kept = sides(one, planeCurtain(at, normal), planeCurtain(at, back), layered);
          if (kept === null) return;
          const whole = solidOf(one, at);
          const half = whole.trimByPlane([...normal], 0);
          expect(kept).toBeCloseTo(half.volume(), 3);
          whole.delete();
          half.delete();
        },
      ),
      { numRuns: rounds, endOnFailure: true },
    );
    // Of most the layers are seen.
    expect(inLayers).toBeGreaterThan(asked / 3);
    expect(unsplit).toBeLessThan(1 + rounds / 50);
  });

  it('along a chain of lines in plan leaves what is to its left, closed at every fold', () => {
    let split = 0;
    fc.assert(
      fc.property(
        fc.nat(meshes.length - 1),
        fc.array(fc.tuple(share, share), { minLength: 3, maxLength: 5 }),
        (which, spots) => {
          const { one, layered } = meshes[which]!;
          const path = spots.map(([x, y]) => within(one, [x, y, 0]).slice(0, 2) as [number, number]);
          if (path.slice(1).some(([x, y], i) => Math.hypot(x - path[i]![0], y - path[i]![1]) < 0.01)) return;
          const [there, back] = [chainCurtain(path), chainCurtain([...path].reverse())];
          expect(back === null).toBe(there === null);
          if (!there || !back) return;
          split += 1;
          const kept = sides(one, there, back, layered);
          if (kept === null) return;
          const at = within(one, [0, 0, 0]);
          const prism = kernel.Manifold.extrude(leftOf(path, at), 1000).translate([0, 0, -500]);
          const whole = solidOf(one, at);
          const left = whole.intersect(prism);
          expect(kept).toBeCloseTo(left.volume(), 2);
          for (const solid of [prism, whole, left]) solid.delete();
        },
      ),
      { numRuns: rounds, endOnFailure: true },
    );
    expect(split).toBeGreaterThan(rounds / 10);
  });

  it('leaves a mesh as it is where the curtain is beside it, and nothing where it is on the other side', () => {
    const { one } = meshes[0]!;
    const { min } = boxOf(one);
    const beside = [min[0]! - 1, min[1]!, min[2]!] as [number, number, number];
    expect(partedClosed(one, planeCurtain(beside, [1, 0, 0]), closing)).toEqual({ mesh: one, cut: false });
    expect(partedClosed(one, planeCurtain(beside, [-1, 0, 0]), closing)!.mesh).toBeNull();
  });

  it('knows a chain that crosses itself, in its ends too, and one that goes straight back', () => {
    const chain = (...path: [number, number][]) => chainCurtain(path);
    expect(chain([0, 0], [4, 0], [4, 4], [2, -2])).toBeNull();
    expect(chain([0, 0], [4, 0], [4, 4], [2, 2])).toBeNull();
    expect(chain([0, 0], [4, 0], [2, 0])).toBeNull();
    expect(chain([0, 0], [4, 0], [4, 4])!.keeps(1, 1, 0)).toBe(true);
    expect(chain([0, 0], [4, 0], [4, 4])!.keeps(5, 1, 0)).toBe(false);
    expect(chain([4, 4], [4, 0], [0, 0])!.keeps(5, 1, 0)).toBe(true);
  });
});

/** What is to the left of a chain as a polygon about an origin, made in another way: its turns one after the other to corners far away. */
function leftOf(path: readonly [number, number][], [ox, oy]: readonly number[]): [number, number][] {
  const far = 500;
  const unit = ([ax, ay]: [number, number], [bx, by]: [number, number]): [number, number] => {
    const size = Math.hypot(bx - ax, by - ay);
    return [(bx - ax) / size, (by - ay) / size];
  };
  const [first, last] = [unit(path[0]!, path[1]!), unit(path.at(-2)!, path.at(-1)!)];
  const own = path.map(([x, y]): [number, number] => [x - ox!, y - oy!]);
  const [a, b] = [own[0]!, own.at(-1)!];
  const ends: [number, number][] = [
    [b[0] + far * last[0], b[1] + far * last[1]],
    [a[0] - far * first[0], a[1] - far * first[1]],
  ];
  const from = Math.atan2(ends[0]![1], ends[0]![0]);
  let to = Math.atan2(ends[1]![1], ends[1]![0]);
  if (to <= from) to += 2 * Math.PI;
  const round = Array.from({ length: 63 }, (_, i): [number, number] => {
    const angle = from + ((to - from) * (i + 1)) / 64;
    return [2 * far * Math.cos(angle), 2 * far * Math.sin(angle)];
  });
  return [...own, ends[0]!, ...round, ends[1]!];
}
