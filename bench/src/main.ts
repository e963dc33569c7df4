/**
 * Times the cut against a solid-boolean library, and itself, side by side in one run and prints them as ratios; with --json as an array of
 * { name, ours_ms, reference_ms, ratio }. Each figure is the median of several rounds in which both take turns.
 */
import { cutPlainSolids, cutSolid, plainSolids, plainSolidsOf, solidLibrary } from '@yard-arch/core/solid';
import { cutModel, prove, surfaceOf } from '@yard-arch/core';
import { writeGlb } from '@yard-arch/core/format';
import { curvedFacade, facade, manyWindows } from '@yard-arch/demo';
import { manySided, windowedRoof } from './roofs.ts';
import type { ProjectDocument } from '@yard-arch/document';

interface Measure {
  name: string;
  ours_ms: number;
  reference_ms: number;
  ratio: number;
}

/** Without the measures at 5,000 openings, whose reference takes minutes. */
const quick = process.argv.includes('--quick');
const fineness = { segmentsPerHalfCircle: 24 };
const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

function timed(work: () => unknown): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** @param each how many of ours are timed before each of theirs, and after it. */
function sideBySide(
  name: string,
  { rounds, warm, each }: { rounds: number; warm: number; each: number },
  ours: () => unknown,
  reference: () => unknown,
): Measure {
  for (let i = 0; i < warm; i++) ours();
  const mine: number[] = [];
  const theirs: number[] = [];
  for (let i = 0; i < rounds; i++) {
    for (let k = 0; k < each; k++) mine.push(timed(ours));
    theirs.push(timed(reference));
    // What the reference leaves for the garbage collector is not ours to clear, and after a long one all of ours has gone cold: that goes untimed.
    for (let k = 0; k < (theirs.at(-1)! > 5000 ? 3 : 1); k++) ours();
    for (let k = 0; k < each; k++) mine.push(timed(ours));
  }
  const [ours_ms, reference_ms] = [median(mine), median(theirs)];
  console.error(`${name}: ${ours_ms.toFixed(1)} and ${reference_ms.toFixed(1)} ms`);
  return { name, ours_ms, reference_ms, ratio: ours_ms / reference_ms };
}

interface GlbJson {
  accessors: { count: number; componentType: number; type: string }[];
  meshes: { name?: string; primitives: { indices: number; attributes: Record<string, number> }[] }[];
  nodes: { name?: string; mesh?: number }[];
}

/** How many bytes the meshes of a GLB file hold, that of one node left out. */
function meshBytes(glb: Uint8Array, without: string): number {
  const length = new DataView(glb.buffer, glb.byteOffset).getUint32(12, true);
  const json = JSON.parse(new TextDecoder().decode(glb.subarray(20, 20 + length))) as GlbJson;
  const left = new Set(json.nodes.filter(({ name }) => name === without).map(({ mesh }) => mesh));
  const accessors = new Set<number>();
  json.meshes.forEach(({ primitives }, i) => {
    if (left.has(i)) return;
    for (const { indices, attributes } of primitives)
      for (const accessor of [indices, ...Object.values(attributes)]) accessors.add(accessor);
  });
  const figures: Record<string, number> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4 };
  const sizes: Record<number, number> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
  return [...accessors].reduce((sum, at) => {
    const { count, componentType, type } = json.accessors[at]!;
    return sum + count * figures[type]! * sizes[componentType]!;
  }, 0);
}

function moved(document: ProjectDocument, step: number): ProjectDocument {
  const opening = document.openings.o80!;
  return {
    ...document,
    openings: {
      ...document.openings,
      o80: { ...opening, along: { from: 'start', distance: opening.along.distance + 0.01 * (1 + (step % 7)) } },
    },
  };
}

const library = await solidLibrary();
const measures: Measure[] = [];

// The machine's speed drifts within seconds: beside a reference that takes most of a minute, ours is timed for many seconds too.
for (const [count, rounds, warm, each] of [
  [160, 7, 20, 4],
  [5000, 2, 8, 12],
] as const) {
  if (quick && count === 5000) continue;
  const document = facade(count);
  const cut = cutModel(document, undefined, fineness).cuts.get('facade')!;
  const proof = prove(cut.mesh);
  const solid = cutSolid(library, cut.sheet, cut.placed);
  if (!proof.closed || Math.abs(proof.volume - solid.volume) > 1e-6 * solid.volume)
    throw new Error(
      `The two cuts of ${count} openings are not the same solid: ${proof.volume} and ${solid.volume} m³.`,
    );
  measures.push(
    sideBySide(
      `cut ${count} arches: ours / solid booleans`,
      { rounds, warm, each },
      () => cutModel(document, undefined, fineness),
      () => cutSolid(library, cut.sheet, cut.placed),
    ),
  );
}

for (const [count, rounds, warm, each] of [
  [160, 3, 20, 4],
  [5000, 1, 8, 12],
] as const) {
  if (quick && count === 5000) continue;
  const document = curvedFacade(count);
  const cut = cutModel(document, undefined, fineness).cuts.get('facade')!;
  const proof = prove(cut.mesh);
  const solids = plainSolids(cut.sheet, cut.placed);
  // Faces that are not quite flat are divided otherwise by the two, so their volumes agree to that only.
  const solid = cutPlainSolids(library, solids);
  if (!proof.closed || cut.path !== 'sheet' || Math.abs(proof.volume - solid.volume) > 1e-4 * solid.volume)
    throw new Error(
      `The two cuts of ${count} curved openings are not the same solid: ${proof.volume} and ${solid.volume} m³.`,
    );
  measures.push(
    sideBySide(
      `cut ${count} checked arches, curved, 3 layers: ours / solid booleans`,
      { rounds, warm, each },
      () => cutModel(document, undefined, fineness),
      () => cutPlainSolids(library, solids),
    ),
  );
}

const [f500, f5000] = [facade(500), facade(5000)];
if (!quick) {
  const [c500, c5000] = [curvedFacade(500), curvedFacade(5000)];
  measures.push(
    sideBySide(
      'growth, curved: ours at 5,000 / ours at 500',
      { rounds: 2, warm: 1, each: 3 },
      () => cutModel(c5000, undefined, fineness),
      () => cutModel(c500, undefined, fineness),
    ),
  );
}
measures.push(
  sideBySide(
    'growth: ours at 5,000 / ours at 500',
    { rounds: 5, warm: 2, each: 3 },
    () => cutModel(f5000, undefined, fineness),
    () => cutModel(f500, undefined, fineness),
  ),
);

if (!quick) {
  const f50000 = facade(50_000);
  measures.push(
    sideBySide(
      'growth: ours at 50,000 / ours at 5,000',
      { rounds: 2, warm: 1, each: 1 },
      () => cutModel(f50000, undefined, fineness),
      () => cutModel(f5000, undefined, fineness),
    ),
  );
}

// Equal parts are one mesh in the file, however many windows carry it: bytes, not milliseconds.
{
  const bytesOf = async (count: number): Promise<number> => {
    const document = manyWindows(count);
    const glb = await writeGlb(document, cutModel(document));
    return meshBytes(glb, document.elements.wall!.name);
  };
  const [many, few] = [await bytesOf(2000), await bytesOf(20)];
  console.error(`GLB, but for nodes and the wall: ${many} bytes for 2,000 filled windows, ${few} for 20`);
  measures.push({
    name: 'GLB of 2,000 filled windows / of 20, but for nodes and the wall',
    ours_ms: many,
    reference_ms: few,
    ratio: many / few,
  });
}

// A change of the pattern of 2,000 filled windows that leaves the wall as it is cut, and one that does not, beside the whole.
{
  const document = manyWindows(2000);
  let model = cutModel(document);
  const edits = Array.from({ length: 12 }, (_, i): ProjectDocument => {
    const pattern = document.patterns.casements!;
    return {
      ...document,
      patterns: { casements: { ...pattern, infill: { ...pattern.infill!, gap: 0.004 + 0.0005 * i } } },
    };
  });
  let step = 0;
  measures.push(
    sideBySide(
      'a pattern edit over 2,000 filled windows / cutting them anew',
      { rounds: 4, warm: 2, each: 2 },
      () => (model = cutModel(edits[step++ % edits.length]!, model)),
      () => cutModel(structuredClone(document)),
    ),
  );
}

for (const [name, make] of [
  ['', facade],
  [', curved, 3 layers', curvedFacade],
] as const) {
  const document = make(160);
  let model = cutModel(document, undefined, fineness);
  // The edit itself is not timed.
  const edits = Array.from({ length: 128 }, (_, step) => moved(document, step));
  let step = 0;
  measures.push(
    sideBySide(
      `re-cut after one of 160${name} moved / full cut`,
      { rounds: 15, warm: 100, each: 4 },
      () => {
        model = cutModel(edits[step++ % edits.length]!, model, fineness);
      },
      () => cutModel(document, undefined, fineness),
    ),
  );
}

// Roofs: the planes over an outline of many sides, beside the time that they may take; and one with many windows.
{
  const corners = manySided(50).map(([x, y]) => ({ x, y, strips: [{ from: 0, run: 1.2 }] }));
  for (let i = 0; i < 10; i++) surfaceOf([corners], -1);
  const ours = median(Array.from({ length: 15 }, () => timed(() => surfaceOf([corners], -1))));
  console.error(`hipped over 50 sides: ${ours.toFixed(1)} ms`);
  measures.push({ name: 'planes over 50 sides / 30 ms', ours_ms: ours, reference_ms: 30, ratio: ours / 30 });

  const document = windowedRoof(200);
  const cut = cutModel(document).cuts.get('roof')!;
  const bare = cutModel({ ...document, openings: {} }).cuts.get('roof')!;
  const solids = plainSolidsOf(
    bare.mesh,
    cut.faces!.map(({ face, sheet }) => ({ sheet, openings: cut.placed.filter((one) => one.face === face) })),
  );
  const solid = cutPlainSolids(library, solids);
  const proof = prove(cut.mesh);
  if (!proof.closed || cut.path !== 'sheet' || Math.abs(proof.volume - solid.volume) > 1e-5 * solid.volume)
    throw new Error(`The two cuts of the roof are not the same solid: ${proof.volume} and ${solid.volume} m³.`);
  // Copies, so that its planes are laid anew each time; making them is not timed.
  const copies = Array.from({ length: 128 }, () => structuredClone(document));
  measures.push(
    sideBySide(
      `a roof of ${cut.faces!.length} planes with 200 windows: ours / solid booleans`,
      { rounds: 12, warm: 20, each: 4 },
      () => cutModel(copies.pop() ?? structuredClone(document)),
      () => cutPlainSolids(library, solids),
    ),
  );
}

if (process.argv.includes('--json')) console.log(JSON.stringify(measures, null, 2));
else
  for (const { name, ours_ms, reference_ms, ratio } of measures)
    console.log(
      `${name.padEnd(62)} ${ours_ms.toFixed(2).padStart(10)} ms ${reference_ms.toFixed(2).padStart(10)} ms   ${ratio < 1 ? `1/${(1 / ratio).toFixed(1)}` : ratio.toFixed(2)}`,
    );
