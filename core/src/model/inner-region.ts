/** What is left of an element's inner face, for the drawing of it: along as it is seen from within. */
import { faceLeft } from '../cut/solid-path.ts';
import { developedAt } from '../element/chart.ts';
import { turnedOver } from '../element/turned-over.ts';
import type { Region } from '../mesh/region.ts';
import { across } from '../setout/across.ts';
import type { ElementCut } from './cut-element.ts';

export function innerRegion({ sheet, skins, placed, statuses }: ElementCut): Region {
  const over = turnedOver(sheet);
  const region = skins.at(-1)?.inner.region;
  if (!region) {
    const cut = new Set(
      statuses.filter(({ state }) => state !== 'not cut' && state !== 'blocked up').map(({ opening }) => opening),
    );
    const seen = placed.filter(({ id }) => cut.has(id)).map((one) => across(sheet, one));
    return faceLeft(
      over.sheet,
      seen.filter(({ from }) => !from),
    );
  }
  const { chart, thickness } = sheet;
  if (chart.kind === 'flat') return { ...region, xs: region.xs.map(over.toInner) };
  // There it is told by how far it is along the chords.
  const ribs = developedAt(chart, thickness);
  const last = ribs.length - 2;
  let f = 0;
  return {
    ...region,
    xs: region.xs.map((x) => {
      while (f < last && x > ribs[f + 1]!) f += 1;
      while (f > 0 && x < ribs[f]!) f -= 1;
      const share = (x - ribs[f]!) / (ribs[f + 1]! - ribs[f]!);
      return over.toInner(chart.s[f]! + share * (chart.s[f + 1]! - chart.s[f]!));
    }),
  };
}
