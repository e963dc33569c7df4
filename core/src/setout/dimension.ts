/** Dimension strings: the figures along a row of openings, pier by pier, as they stand on a drawing. */
import type { Box } from './box.ts';
import { micrometre as nothing } from '../tolerances.ts';

/** One figure of a string, from one tick to the next, metres. */
export interface Measure {
  from: number;
  to: number;
  kind: 'pier' | 'opening';
  /** The opening that it measures, or for a pier the openings on its two sides (null is the wall's own end). */
  opening: string | null;
  before: string | null;
  after: string | null;
}

/** How much of the lower of two openings must stand beside the other for them to be in one row. */
const beside = 0.3;

/** Openings that stand in one row with a given one: beside it for a good part of their height. Without one, the row in which most stand. */
export function rowOf(boxes: readonly Box[], chosen: Box | null): Box[] {
  const row = (box: Box): Box[] => {
    return boxes.filter((other) => {
      const shared = Math.min(box.t + box.height, other.t + other.height) - Math.max(box.t, other.t);
      return shared > beside * Math.min(box.height, other.height);
    });
  };
  if (chosen) return row(chosen);
  let most: Box[] = [];
  // Boxes at one level and of one height have the same row.
  const tried = new Set<string>();
  for (const box of boxes) {
    const level = `${box.t.toFixed(6)} ${box.height.toFixed(6)}`;
    if (tried.has(level)) continue;
    tried.add(level);
    const found = row(box);
    if (found.length > most.length) most = found;
  }
  return most;
}

/** The string along a row from the wall's start to its end: piers and openings in turn. Openings that overlap are measured together. */
export function stringAlong(row: readonly Box[], length: number): Measure[] {
  const sorted = [...row].sort((a, b) => a.s - b.s || a.width - b.width);
  const measures: Measure[] = [];
  let at = 0;
  let before: string | null = null;
  for (const box of sorted) {
    const from = Math.max(0, box.s);
    const to = Math.min(length, box.s + box.width);
    // Off the wall, or hidden behind one already measured.
    if (from >= length - nothing || to <= at + nothing) continue;
    if (from > at + nothing) measures.push({ from: at, to: from, kind: 'pier', opening: null, before, after: box.id });
    const start = Math.max(from, at);
    measures.push({ from: start, to, kind: 'opening', opening: box.id, before: null, after: null });
    at = to;
    before = box.id;
  }
  if (at < length - nothing) measures.push({ from: at, to: length, kind: 'pier', opening: null, before, after: null });
  return measures;
}
