/** Gaps in a roof: where one plane ends higher above another than the roof is thick, so that it is open between them. */
import type { FaceName } from '@yard-arch/document';
import { millimetre } from '../tolerances.ts';
import { plus, scaled } from '../vector.ts';
import { heightAt } from './roof-check.ts';
import { isStep, planeName, type RoofBody } from './roof-sheets.ts';

/** Where one plane ends in the air above another. */
export interface RoofGap {
  upper: FaceName;
  lower: FaceName;
  /** How high it is open at the middle of their edge, metres. */
  high: number;
}

/** How far beyond an edge it is asked what is below it, metres. */
const beside = 1e-4;

const known = new WeakMap<RoofBody, RoofGap[]>();

/** The gaps of a roof, the highest of each two planes. */
export function gapsOf(body: RoofBody): RoofGap[] {
  let found = known.get(body);
  if (!found) known.set(body, (found = gapsAnew(body)));
  return found;
}

function gapsAnew({ roof, boundaries }: RoofBody): RoofGap[] {
  const surface = roof.surfaces[0]!;
  const thickness = boundaries.at(-1)!;
  const found = new Map<string, RoofGap>();
  for (const own of surface.planes) {
    if (own.run === 0) continue;
    const plumb = (thickness * Math.hypot(1, own.run)) / Math.abs(own.run);
    for (const { nodes, beyond } of own.rings)
      nodes.forEach((from, i) => {
        const to = nodes[(i + 1) % nodes.length]!;
        if (!isStep(surface, { beyond: beyond[i]!, from, to })) return;
        const [a, b] = [surface.nodes[from]!, surface.nodes[to]!];
        const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const out = scaled([b[1] - a[1], a[0] - b[0], 0], beside / size);
        const below = heightAt(surface, plus(scaled(plus(a, b), 0.5), out));
        const high = below && (a[2] + b[2]) / 2 - below.height - plumb;
        if (!below || high === null || high < millimetre) return;
        const gap = { upper: planeName(roof, own), lower: planeName(roof, below.plane), high };
        const key = `${gap.upper} ${gap.lower}`;
        if (high > (found.get(key)?.high ?? 0)) found.set(key, gap);
      });
  }
  return [...found.values()];
}
