/** Meshes from outside: read, kept, and fitted into openings along each axis. */
import { describe, expect, it } from '@jest/globals';
import { facade } from '@yard-arch/demo';
import { applyChangeSet, putting, type Fit, type Imported, type ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import { createRequire } from 'node:module';
import {
  bringMesh,
  keptMeshFacts,
  readProjectFile,
  Unreadable,
  writeGlb,
  writeProjectFile,
} from '../src/format/index.ts';
import {
  cutModel,
  learnMesh,
  meshFacts,
  NotPlain,
  profileOf,
  readPlainGlb,
  welded,
  writePlainGlb,
  type Model,
  type PlainMesh,
  type Profile,
} from '../src/index.ts';

const { validateBytes } = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes: (bytes: Uint8Array) => Promise<{ issues: { numErrors: number } }>;
};

const encoded = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
const metres = { unit: 1, up: 'z' } as const;

/** A box as OBJ, from one corner to another. */
const box = ([w, d, h]: readonly number[], [x, y, z]: readonly number[] = [0, 0, 0], skip = -1): string => {
  const points = [0, 1].flatMap((k) =>
    [0, 1].flatMap((j) => [0, 1].map((i) => [x! + i * w!, y! + j * d!, z! + k * h!])),
  );
  const faces = [
    [1, 3, 4, 2],
    [5, 6, 8, 7],
    [1, 2, 6, 5],
    [3, 7, 8, 4],
    [1, 5, 7, 3],
    [2, 4, 8, 6],
  ].filter((_, i) => i !== skip);
  return [...points.map((p) => `v ${p.join(' ')}`), 'usemtl Brass', ...faces.map((f) => `f ${f.join(' ')}`)].join('\n');
};

const keep: Fit = { rule: 'keep', at: 'start' };

/** A facade whose openings carry a mesh, and nothing else. */
function carrying(kept: Awaited<ReturnType<typeof bringMesh>>['kept'], fits: Partial<Imported>): ProjectDocument {
  const document = facade(2);
  const pattern = document.patterns[Object.values(document.openings)[0]!.pattern]!;
  const [material] = Object.keys(document.materials);
  const imported: Imported = {
    kind: 'imported',
    mesh: kept.id,
    materials: [material!],
    across: keep,
    through: keep,
    up: keep,
    ...fits,
  };
  return applyChangeSet(document, {
    name: 'carry',
    changes: [
      putting('meshes', kept),
      putting('patterns', { ...pattern, infill: undefined, parts: [{ id: 'q1', ...imported }] }),
    ],
  }).document;
}

describe('a mesh that is brought in', () => {
  it('is kept as plain GLB that is valid, and read back as it was', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.integer({ min: 1, max: 3000 }), { minLength: 6, maxLength: 6 }), async (mm) => {
        const sizes = mm.map((value) => value / 1000);
        const { bytes, kept, turned } = await bringMesh(
          'block.obj',
          encoded(box(sizes.slice(0, 3), sizes.slice(3))),
          metres,
        );
        expect(turned).toBe(false);
        expect(kept).toMatchObject({ name: 'block', triangles: 12, openEdges: 0, materials: ['Brass'] });
        kept.size.forEach((size, i) => expect(size).toBeCloseTo(sizes[i]!, 5));
        const facts = meshFacts(welded(readPlainGlb(bytes)));
        expect(facts.volume).toBeCloseTo(sizes[0]! * sizes[1]! * sizes[2]!, 4);
        const { issues } = await validateBytes(bytes);
        expect(issues.numErrors).toBe(0);
        expect({ ...keptMeshFacts(bytes), id: kept.id, name: kept.name }).toEqual(kept);
      }),
      { numRuns: 12 },
    );
  });

  it('tells at how many edges it is open, and turns faces that all look inward', async () => {
    const open = await bringMesh('open.obj', encoded(box([1, 1, 1], [0, 0, 0], 1)), metres);
    expect(open.kept.openEdges).toBe(4);
    const inside = box([1, 1, 1]).replaceAll(/^f (.*)$/gm, (_, f: string) => `f ${f.split(' ').reverse().join(' ')}`);
    const { turned, bytes } = await bringMesh('inside.obj', encoded(inside), metres);
    expect(turned).toBe(true);
    expect(meshFacts(readPlainGlb(bytes)).volume).toBeCloseTo(1, 6);
  });

  it('may be one of our own exports', async () => {
    const document = facade(2);
    const bytes = (await writeGlb(document, cutModel(document))).slice();
    const { kept } = await bringMesh('facade.glb', bytes, metres);
    expect(kept.openEdges).toBe(0);
    expect(kept.materials).toContain(Object.values(document.materials)[0]!.name);
  });

  it.each([
    ['of kilometres', 'far.obj', box([4000, 1, 1]), 'Is its unit another?'],
    ['of nothing', 'none.obj', 'v 0 0 0', 'no faces'],
    ['that is no mesh', 'a.stl', 'solid', 'neither an OBJ nor a GLB'],
  ])('%s is refused in words', async (_, name, text, said) => {
    await expect(bringMesh(name, encoded(text), metres)).rejects.toThrow(Unreadable);
    await expect(bringMesh(name, encoded(text), metres)).rejects.toThrow(said);
  });

  it('is not trusted: bytes that were changed anywhere are read as something plain, or refused', () => {
    const mesh: PlainMesh = {
      points: Float64Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1]),
      triangles: Uint32Array.from([0, 2, 1, 0, 1, 3, 1, 2, 3, 0, 3, 2]),
      slots: Uint8Array.from([0, 0, 0, 0]),
      materials: ['Iron'],
    };
    const bytes = writePlainGlb(mesh);
    fc.assert(
      fc.property(fc.nat(bytes.length - 1), fc.nat(255), fc.nat(bytes.length), (at, value, end) => {
        const wrong = bytes.slice(0, Math.max(at + 1, end));
        wrong[at] = value;
        try {
          const { points, triangles } = readPlainGlb(wrong);
          expect(Math.max(...triangles) * 3).toBeLessThan(points.length);
        } catch (error) {
          expect(error).toBeInstanceOf(NotPlain);
        }
      }),
      { numRuns: 400 },
    );
  });
});

describe('a mesh in an opening', () => {
  const size = [0.113, 0.071, 0.231] as const;
  const fit = fc.record({
    rule: fc.constantFrom<Fit['rule']>('keep', 'stretch', 'repeat'),
    at: fc.constantFrom<Fit['at']>('start', 'middle', 'end'),
  });

  it('keeps its size where it is pinned, is stretched from end to end, or repeated at equal spaces', async () => {
    const { bytes, kept } = await bringMesh('block.obj', encoded(box(size)), metres);
    learnMesh(kept.sha256, bytes);
    let model: Model | undefined;
    fc.assert(
      fc.property(fit, fit, fit, (across, through, up) => {
        const document = carrying(kept, { across, through, up });
        model = cutModel(document, model);
        const part = [...model.cuts.values()].flatMap(({ parts }) => parts).find(({ id }) => id === 'q1')!;
        const opening = document.openings[part.opening]!;
        const pattern = document.patterns[opening.pattern]!;
        const { width, height } = profileOf(pattern.profile, pattern.sizes[opening.size]!.dimensions, 'mm') as Profile;
        const thick = document.elements[part.element]!.layers.reduce((sum, { thickness }) => sum + thickness, 0);
        const { points } = part.part.mesh;
        const room = [width, thick, height];
        const start = [-width / 2, 0, 0];
        ([across, through, up] as const).forEach((one, axis) => {
          const own = [...new Set(points.filter((_, i) => i % 3 === axis).map((x) => Math.round(x * 1e6) / 1e6))].sort(
            (a, b) => a - b,
          );
          const [low, high] = [own[0]! - start[axis]!, own.at(-1)! - start[axis]!];
          if (one.rule === 'stretch')
            expect([low, high].map((x) => x.toFixed(4))).toEqual([0, room[axis]!].map((x) => x.toFixed(4)));
          else if (one.rule === 'keep') {
            const rest = room[axis]! - size[axis]!;
            expect(low).toBeCloseTo({ start: 0, middle: rest / 2, end: rest }[one.at], 4);
            expect(high - low).toBeCloseTo(size[axis]!, 4);
          } else {
            const count = Math.max(1, Math.floor(room[axis]! / size[axis]!));
            expect(own).toHaveLength(2 * count);
            if (count > 1) expect(low).toBeCloseTo(room[axis]! - high, 4);
          }
        });
      }),
      { numRuns: 60 },
    );
  });

  it('that is not here is told of, and stands once it has come', async () => {
    const { bytes, kept } = await bringMesh('late.obj', encoded(box([0.2, 0.05, 0.31])), metres);
    const document = carrying(kept, {});
    const told = (model: ReturnType<typeof cutModel>): string[] =>
      [...model.statuses.values()]
        .flatMap(({ findings }) => findings.map(({ reason }) => reason))
        .filter((reason) => reason.includes('not here'));
    expect(told(cutModel(document)).length).toBeGreaterThan(0);
    learnMesh(kept.sha256, bytes);
    const model = cutModel(document);
    expect(told(model)).toEqual([]);
    expect([...model.cuts.values()].flatMap(({ parts }) => parts).some(({ id }) => id === 'q1')).toBe(true);
  });

  it('goes with the project’s file, and one whose bytes are others is refused', async () => {
    const { bytes, kept } = await bringMesh('bracket.obj', encoded(box([0.2, 0.1, 0.4])), metres);
    const document = carrying(kept, {});
    const file = writeProjectFile(document, (sha256) => (sha256 === kept.sha256 ? bytes : null));
    expect(file.zip).toBe(true);
    const read = readProjectFile(file.bytes);
    expect(read.document).toEqual(document);
    expect(read.assets.get(kept.sha256)).toEqual(bytes);
    expect(() => writeProjectFile(document, () => null)).toThrow('bracket');
    const other = { ...document, meshes: { [kept.id]: { ...kept, triangles: 13 } } };
    expect(() => readProjectFile(writeProjectFile(other, () => bytes).bytes)).toThrow('its triangles are others');
  });
});
