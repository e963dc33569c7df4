/**
 * Times the cut against a solid-boolean library, and itself, side by side in one run and prints them as ratios; with --json as an array of
 * { name, ours_ms, reference_ms, ratio }. Each figure is the median of several rounds in which both take turns.
 */
import { cutPlainSolids, cutSolid, plainSolids, solidLibrary } from '@yard-arch/core/solid';
import { cutModel, prove } from '@yard-arch/core';
import { curvedFacade, facade } from '@yard-arch/demo';
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
  rounds: number,
  warm: number,
  each: number,
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
      rounds,
      warm,
      each,
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
      rounds,
      warm,
      each,
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
      2,
      1,
      3,
      () => cutModel(c5000, undefined, fineness),
      () => cutModel(c500, undefined, fineness),
    ),
  );
}
measures.push(
  sideBySide(
    'growth: ours at 5,000 / ours at 500',
    5,
    2,
    3,
    () => cutModel(f5000, undefined, fineness),
    () => cutModel(f500, undefined, fineness),
  ),
);

if (!quick) {
  const f50000 = facade(50_000);
  measures.push(
    sideBySide(
      'growth: ours at 50,000 / ours at 5,000',
      2,
      1,
      1,
      () => cutModel(f50000, undefined, fineness),
      () => cutModel(f5000, undefined, fineness),
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
      15,
      // Dragging an opening makes hundreds of them.
      100,
      4,
      () => {
        model = cutModel(edits[step++ % edits.length]!, model, fineness);
      },
      () => cutModel(document, undefined, fineness),
    ),
  );
}

if (process.argv.includes('--json')) console.log(JSON.stringify(measures, null, 2));
else
  for (const { name, ours_ms, reference_ms, ratio } of measures)
    console.log(
      `${name.padEnd(62)} ${ours_ms.toFixed(2).padStart(10)} ms ${reference_ms.toFixed(2).padStart(10)} ms   ${ratio < 1 ? `1/${(1 / ratio).toFixed(1)}` : ratio.toFixed(2)}`,
    );
