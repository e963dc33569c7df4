/** The solid path as the rest of the core sees it: something that may be there, for what the sheet path cannot express. */
import type { Sheet } from '../element/sheet.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { Region } from '../mesh/region.ts';
import type { Placed } from '../setout/placed.ts';
import type { Loop } from '../mesh/arrangement.ts';
import { clip } from './clip.ts';
import type { Setting } from './setting.ts';

/**
 * Cuts openings through one skin of an element by solid booleans.
 * @param plain the skin without openings.
 * @param others what is cut at the same time from other sheets.
 * @returns the cut skin, its tags and texture kept.
 */
export type SolidPath = (
  plain: CutMesh,
  setting: Setting,
  openings: readonly Placed[],
  others?: readonly Sitting[],
) => CutMesh;

/** Openings as they are set out on a sheet. */
export interface Sitting {
  setting: Setting;
  openings: readonly Placed[];
}

let present: SolidPath | null = null;

/** Makes the solid path available (`@yard-arch/core/solid` does so once its library is loaded). */
export function provideSolidPath(path: SolidPath): void {
  present = path;
}

export function solidPath(): SolidPath | null {
  return present;
}

/** What openings leave of a sheet's outer face, for the drawing. */
export function faceLeft(sheet: Sheet, openings: readonly Placed[]): Region {
  const { outline } = sheet;
  const own: Loop = { xs: outline.xs, ys: outline.ys, count: outline.xs.length, next: outline.next };
  const taking = openings.filter(({ kind }) => kind !== 'boss' && kind !== 'imprint');
  const { loops } = clip(
    own,
    taking.map((o) => ({
      xs: o.outline.xs.map((x) => x + o.s),
      ys: o.outline.ys.map((y) => y + o.t),
      count: o.outline.count,
      next: o.outline.next,
    })),
    taking.map(({ kind }) => (kind === 'keep inside' ? 'keep' : 'void')),
  );
  const next: number[] = [];
  for (const loop of loops) {
    const first = next.length;
    loop.xs.forEach((_, i) => next.push(i + 1 === loop.xs.length ? first : first + i + 1));
  }
  return {
    count: next.length,
    xs: Float64Array.from(loops.flatMap((loop) => loop.xs)),
    ys: Float64Array.from(loops.flatMap((loop) => loop.ys)),
    next: Uint32Array.from(next),
  };
}
