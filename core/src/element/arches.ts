/** Transverse arches under a barrel: rings that follow its soffit facet by facet, each a closed solid. Metres. */
import type { Arches } from '@yard-arch/document';
import { fault, type Fault } from '../finding.ts';
import type { Vector } from '../vector.ts';
import { deepest, pointAt } from './chart.ts';
import type { Trim } from './roof-trims.ts';
import type { Sheet } from './sheet.ts';

/** Why a barrel cannot have such arches; null where it can. */
export function archesFault({ chart, thickness, height }: Sheet, { count, width, depth }: Arches): Fault | null {
  if (count * width > height + 1e-9)
    return fault('arches-apart', 'its arches are wider than it is long', 'Make them fewer or narrower.');
  return chart.kind === 'bent' && deepest(chart) <= thickness + depth
    ? fault('arches-apart', 'its arches are as deep as its soffit is round', 'Make them less deep.')
    : null;
}

/** The arches of a barrel that has no fault. */
export function archesOf({ chart, thickness, height }: Sheet, { count, width, depth, material }: Arches): Trim[] {
  if (chart.kind !== 'bent') return [];
  const ribs = [...chart.s];
  return Array.from({ length: count }, (_, i) => {
    const from = count === 1 ? (height - width) / 2 : (i * (height - width)) / (count - 1);
    // For each rib: on the soffit and below it, at the arch's near side and at its far one.
    const points = ribs.flatMap((s): Vector[] =>
      [from, from + width].flatMap((t) => [pointAt(chart, s, t, thickness), pointAt(chart, s, t, thickness + depth)]),
    );
    const [top, low, farTop, farLow] = [0, 1, 2, 3] as const;
    const at = (rib: number, which: number): number => 4 * rib + which;
    const last = ribs.length - 1;
    const around = [
      [top, low],
      [low, farLow],
      [farLow, farTop],
      [farTop, top],
    ] as const;
    const polygons = [
      [top, farTop, farLow, low].map((which) => at(0, which)),
      [top, low, farLow, farTop].map((which) => at(last, which)),
      ...ribs.slice(1).flatMap((_, k) => around.map(([a, b]) => [at(k, a), at(k, b), at(k + 1, b), at(k + 1, a)])),
    ];
    return { points, polygons, material };
  });
}
