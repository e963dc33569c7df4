/** Budgets: how much a model would hold, told before any of it is begun, so that a small document cannot ask for endless work. */
import type { Element } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';

/** The most points that one element may hold, and a whole model; a point is about 200 bytes of mesh. */
export const [mostOfElement, mostOfModel] = [12_000_000, 14_000_000];

/** About how many points an element will hold once it is cut: the rims of its faces and openings, at every depth at which a reveal turns, for each skin. */
export function weightOf(element: Element, sheet: Sheet, resolved: readonly (Placed | Unplaced)[]): number {
  const skins = element.skins === 'layers' ? Math.max(1, element.layers.filter((layer) => !layer.cavity).length) : 1;
  const ribs = sheet.chart.kind === 'bent' ? sheet.chart.s.length : 0;
  let weight = 2 * skins * (sheet.outline.xs.length + 2 * ribs);
  for (const opening of resolved) {
    if (!('outline' in opening) || opening.blockedUp) continue;
    const rows = 2 * skins + Math.max(...Object.values(opening.sections).map((section) => section.n.length));
    const crossed =
      ribs === 0 || sheet.length === 0
        ? 0
        : Math.ceil((ribs * Math.min(opening.profile.width, sheet.length)) / sheet.length);
    weight += rows * (opening.outline.count + 4 * crossed);
  }
  return weight;
}

const inMillions = (points: number): string => `${(points / 1e6).toFixed(1)} million`;

/** The fault of an element that would hold too much, by itself or with what there is already; null where there is room. */
export function overBudget(weight: number, before: number): Sheet['fault'] {
  if (weight > mostOfElement)
    return {
      code: 'too-heavy',
      reason: `it would hold about ${inMillions(weight)} points, more than ${inMillions(mostOfElement)}`,
      mend: 'Set a coarser chord for the project’s arcs, or divide it into several.',
    };
  if (before + weight > mostOfModel)
    return {
      code: 'too-heavy',
      reason: `with it the project would hold about ${inMillions(before + weight)} points, more than ${inMillions(mostOfModel)}`,
      mend: 'Set a coarser chord for the project’s arcs, or divide the project.',
    };
  return null;
}
