/** Settings: the skin of a sheet that pieces are made in, and what of openings and layers lies in it. */
import { developedAt } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import type { FaceLines } from '../reveal/placed.ts';
import type { Placed } from '../setout/placed.ts';
import { rangeOf } from './group.ts';
import { nanometre as same } from '../tolerances.ts';

/** One closed solid of a sheet: from one depth to another, metres. `whole` where it is all layers together, whose faces are divided where layers meet. */
export interface Skin {
  from: number;
  to: number;
  whole: boolean;
}

/** What pieces are made in: one skin of a sheet. */
export interface Setting {
  sheet: Sheet;
  skin: Skin;
  lines: FaceLines | null;
  /** Ribs of a bent chart as it is developed at a depth; null on a flat one. */
  ribsAt: (n: number) => Float64Array | null;
}

export function settingOf(sheet: Sheet, skin: Skin, lines: FaceLines | null): Setting {
  const known = new Map<number, Float64Array>();
  return {
    sheet,
    skin,
    lines,
    ribsAt: (n) => {
      if (sheet.chart.kind === 'flat') return null;
      let ribs = known.get(n);
      if (!ribs) known.set(n, (ribs = developedAt(sheet.chart, n)));
      return ribs;
    },
  };
}

/** The range of an opening within a skin, or null where it does not reach it. */
export function rangeWithin(opening: Placed, { from, to }: Skin): [number, number] | null {
  const [a, b] = rangeOf(opening);
  if (opening.kind === 'boss') return from <= same ? [a, b] : null;
  if (opening.kind === 'imprint') return from <= same ? [0, 0] : null;
  return b > from + same && a < to - same ? [Math.max(a, from), Math.min(b, to)] : null;
}

/** The layer at a depth. */
export function layerAt(sheet: Sheet, n: number): number {
  let layer = 0;
  while (layer + 1 < sheet.layers.length && sheet.boundaries[layer + 1]! < n) layer += 1;
  return layer;
}
