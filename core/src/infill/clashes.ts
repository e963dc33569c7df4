/** What runs into what: leaves into the reveal as they stand open, and what one opening carries into what another does. */
import Flatbush from 'flatbush';
import type { Rigid } from '../element/chart.ts';
import { offsetAt } from '../profile/section.ts';
import { millimetre } from '../tolerances.ts';
import type { OnOutline } from './carried.ts';
import type { Placed } from '../setout/placed.ts';
import { areaOf, holds, moved, type Area } from './area.ts';
import { alikeCrossing, boxed, boxedElement, overlapping, put, type ElementAsCut } from './crossing.ts';
import { centred, type InfillPart, type Stands } from './infill.ts';
import type { PartInstance } from './part.ts';

/** Something that stands where something else is; in words to follow the opening's mark. */
export interface Clash {
  opening: string;
  reason: string;
  mend: string;
}

/** What stands in a wall by less than this only touches it. */
const grace = 2 * millimetre;
/** The reveal is looked at in so many slices of its depth, and a leaf along the edges of no more than so many of its triangles. */
const [slices, mostTriangles] = [16, 400];
/** At these shares of each edge. */
const shares = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875];

const known = new WeakMap<InfillPart, WeakMap<Placed['outline'], WeakMap<Placed['sections'], Map<string, boolean>>>>();

/** How a leaf has moved, in words for a key; and where points of it are on the outline of its opening, where that is not as it stands. */
interface Moves {
  moves: string;
  told?: OnOutline | undefined;
}

/** Whether a leaf that has moved stands in the reveal of its opening. @param stands where it has moved to, from the opening's own directions */
export function runsIntoReveal(leaf: InfillPart, stands: Rigid, placed: Stands, { moves, told }: Moves): boolean {
  let byOutline = known.get(leaf);
  if (!byOutline) known.set(leaf, (byOutline = new WeakMap()));
  let bySections = byOutline.get(placed.outline);
  if (!bySections) byOutline.set(placed.outline, (bySections = new WeakMap()));
  let byMoves = bySections.get(placed.sections);
  if (!byMoves) bySections.set(placed.sections, (byMoves = new Map()));
  const key = `${moves} ${placed.depth} ${told?.key ?? ''}`;
  let found = byMoves.get(key);
  if (found === undefined) byMoves.set(key, (found = isInReveal(leaf, stands, placed, told)));
  return found;
}

function isInReveal({ part: { mesh } }: InfillPart, stands: Rigid, placed: Stands, told: Moves['told']): boolean {
  const outline = areaOf(placed.outline);
  if (!outline) return false;
  const own = centred(outline, placed.profile.width / 2);
  const areas = new Map<number, Area | null>();
  const areaAt = (depth: number): Area | null => {
    const slice = Math.floor((depth / placed.depth) * slices);
    let area = areas.get(slice);
    if (area === undefined) {
      const at = ((slice + 0.5) / slices) * placed.depth;
      areas.set(
        slice,
        (area = moved(own, ({ side }) => offsetAt(placed.sections[side!], at, 1) + grace)?.area ?? null),
      );
    }
    return area;
  };
  const { points, vertices, triangles } = mesh;
  const step = 3 * Math.max(1, Math.ceil(triangles.length / 3 / mostTriangles));
  for (let i = 0; i < triangles.length; i += step)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [3 * vertices[triangles[i + k]!]!, 3 * vertices[triangles[i + ((k + 1) % 3)]!]!];
      for (const share of shares) {
        const along = (axis: number): number => points[a + axis]! * (1 - share) + points[b + axis]! * share;
        const stood = put(stands, along(0), along(1), along(2));
        const at = told ? told.at(stood) : stood;
        if (at[1] < grace || at[1] > placed.depth - grace) continue;
        const area = areaAt(at[1]);
        if (area && !holds(area.points, [at[0], at[2]])) return true;
      }
    }
  return false;
}

/** Parts of different openings of one element that stand in each other, each told once of the first. */
export function betweenOpenings(instances: readonly PartInstance[], markOf: (opening: string) => string): Clash[] {
  if (new Set(instances.map(({ opening }) => opening)).size < 2) return [];
  const all = instances.map(boxed);
  const index = new Flatbush(all.length);
  for (const { low, high } of all) index.add(low[0], low[1], high[0], high[1]);
  index.finish();
  const found: Clash[] = [];
  const told = new Set<string>();
  all.forEach((one, i) => {
    for (const j of index.search(one.low[0], one.low[1], one.high[0], one.high[1], (k) => k > i)) {
      const other = all[j]!;
      const [a, b] = [one.instance, other.instance];
      const pair = `${a.opening} ${b.opening}`;
      if (a.opening === b.opening || told.has(pair) || !overlapping(one, other) || !alikeCrossing(one, other)) continue;
      told.add(pair);
      found.push({
        opening: a.opening,
        reason: `its ${a.part.name} runs into the ${b.part.name} of ${markOf(b.opening)}`,
        mend: 'Move them apart, make one of them smaller, or let one go without that part.',
      });
    }
  });
  return found;
}

/** Parts that stand in other elements than their opening's, each opening and element told once. @param nameOf what an element is called */
export function intoOthers(
  instances: readonly PartInstance[],
  others: readonly ElementAsCut[],
  nameOf: (element: string) => string,
): Clash[] {
  const found: Clash[] = [];
  const told = new Set<string>();
  const around = others.filter(({ mesh }) => mesh.triangles.length > 0).map(boxedElement);
  for (const one of instances.map(boxed))
    for (const other of around) {
      const { element } = other.instance;
      const { opening, part } = one.instance;
      if (element === one.instance.element || told.has(`${opening} ${element}`) || !overlapping(one, other)) continue;
      if (!alikeCrossing(one, other)) continue;
      told.add(`${opening} ${element}`);
      found.push({
        opening,
        reason: `its ${part.name} runs into “${nameOf(element)}”`,
        mend: 'Move one of them, make what stands there smaller, or open less what opens.',
      });
    }
  return found;
}

/** What of an opening a part is: its infill with all leaves, a dormer or its window, or one of the parts of its pattern with all that belongs to that. */
const partOf = ({ id }: PartInstance): string =>
  id === 'infill' || id.startsWith('leaf ') ? 'infill' : id.replace(/ window \d+$/, ' window').replace(/ \d+$/, '');

/** Parts of one opening that stand in each other, each pair told once; leaves as they stand open. */
export function withinOpenings(instances: readonly PartInstance[]): Clash[] {
  const byOpening = new Map<string, PartInstance[]>();
  for (const one of instances) {
    const list = byOpening.get(one.opening);
    if (list) list.push(one);
    else byOpening.set(one.opening, [one]);
  }
  return [...byOpening].flatMap(([opening, own]) => {
    if (new Set(own.map(partOf)).size < 2) return [];
    const all = own.map(boxed);
    const told = new Set<string>();
    all.forEach((one, i) =>
      all.slice(i + 1).forEach((other) => {
        const [a, b] = [one.instance, other.instance];
        const words = `its ${a.part.name} runs into its ${b.part.name}`;
        if (partOf(a) === partOf(b) || told.has(words) || !overlapping(one, other) || !alikeCrossing(one, other))
          return;
        told.add(words);
      }),
    );
    return [...told].map((reason): Clash => ({
      opening,
      reason,
      mend: 'Change the figures of one of them, or open less what opens.',
    }));
  });
}
