/** Planning a cut: which openings stand clear, which meet each other or the sheet's edge, and what becomes of each. */
import type { Units } from '@yard-arch/document';
import Flatbush from 'flatbush';
import type { Sheet } from '../element/sheet.ts';
import { outlineArea } from '../profile/flatten.ts';
import { worded, type Placed } from '../setout/resolve.ts';
import { tolerance, TooTangled, type Loop } from './arrangement.ts';
import { clip, type Clipped, type Part } from './clip.ts';
import { outlinesBehind } from './group.ts';
import { reachOf } from './reach.ts';
import type { Grouping } from './skin.ts';
import { notCut, type OpeningStatus, type State } from './status.ts';

/** How openings are to be cut together, and what became of each, in the order given. Openings in no group are not cut. */
export interface Plan {
  grouping: Grouping;
  statuses: OpeningStatus[];
}

/** Plans the cut of openings (none of them blocked up) in a sheet. */
export function planCut(sheet: Sheet, openings: readonly Placed[], units: Units): Plan {
  const { outline } = sheet;
  const loop: Loop = { xs: outline.xs, ys: outline.ys, count: outline.xs.length, next: outline.next };
  const statuses = new Array<OpeningStatus>(openings.length);
  const plan: Plan = { grouping: { singles: [], groups: [], atEdge: [] }, statuses };
  const { clusters, atEdge, outside, crowded } = clustered(loop, openings);
  for (const k of crowded)
    statuses[k] = notCut(
      openings[k]!.id,
      `more than ${mostOver} other openings lie over it`,
      'Remove those that lie on top of each other, or move them apart.',
    );
  for (const k of outside) statuses[k] = outsideStatus(sheet, openings[k]!, units);
  const singles: number[] = [];
  const groups: number[][] = [];
  for (const cluster of clusters) {
    if (cluster.length === 1) {
      const k = cluster[0]!;
      singles.push(k);
      statuses[k] = {
        opening: openings[k]!.id,
        state: stateOf(openings[k]!),
        reason: null,
        mend: null,
        unitedWith: [],
        area: outlineArea(openings[k]!.outline),
      };
    } else
      for (const group of amongThemselves(sheet, cluster, openings, statuses))
        if (group.length === 1) singles.push(group[0]!);
        else groups.push(group);
  }
  plan.grouping = { singles, groups, atEdge: atTheEdge(sheet, loop, atEdge, openings, statuses, units) };
  return plan;
}

/** What an opening is said to be when nothing stands against it. */
function stateOf({ kind }: Placed): State {
  return kind === 'niche' || kind === 'niche to layer'
    ? 'niche'
    : kind === 'boss'
      ? 'boss'
      : kind === 'imprint'
        ? 'imprint'
        : 'cut';
}

function placedLoop({ outline, s, t }: Placed): Loop {
  return {
    xs: outline.xs.map((x) => x + s),
    ys: outline.ys.map((y) => y + t),
    count: outline.count,
    next: outline.next,
  };
}

/** How far sections reach beyond a profile, metres. */
function widestOf(sections: Placed['sections']): number {
  let most = 0;
  for (const section of [sections.sill, sections.head, sections['jamb-left'], sections['jamb-right']])
    for (const offset of section.offset) most = Math.max(most, offset);
  return most;
}

/** The most openings that may lie over one; how they cross each other takes work with every pair of them. */
const mostOver = 250;

/** Those that may meet an opening, from among those after it; null where there are too many. */
function neighboursOf(
  index: Flatbush,
  [left, low, right, high]: readonly [number, number, number, number],
  k: number,
): number[] | null {
  const found: number[] = [];
  try {
    index.search(left, low, right, high, (other) => {
      if (other > k && found.push(other) > mostOver) throw tooMany;
      return false;
    });
  } catch (error) {
    if (error !== tooMany) throw error;
    return null;
  }
  return found;
}
const tooMany = new Error('too many');

/** Sorts openings: those that meet the sheet's outline, those outside it, those that too many others lie over, and the rest in clusters of such as may meet each other. */
function clustered(
  outline: Loop,
  openings: readonly Placed[],
): { clusters: number[][]; atEdge: number[]; outside: number[]; crowded: number[] } {
  if (openings.length === 0) return { clusters: [], atEdge: [], outside: [], crowded: [] };
  const index = new Flatbush(openings.length);
  const boxes: (readonly [number, number, number, number])[] = [];
  const margins = new Map<Placed['sections'], number>();
  for (const { s, t, profile, sections } of openings) {
    let margin = margins.get(sections);
    if (margin === undefined) margins.set(sections, (margin = 2 * tolerance + widestOf(sections)));
    boxes.push([s - margin, t - margin, s + profile.width + margin, t + profile.height + margin]);
  }
  for (const [left, low, right, high] of boxes) index.add(left, low, right, high);
  index.finish();

  const parent = Int32Array.from(openings, (_, k) => k);
  const root = (k: number): number => {
    while (parent[k] !== k) k = parent[k] = parent[parent[k]!]!;
    return k;
  };
  const crowded: number[] = [];
  const left = new Uint8Array(openings.length);
  for (let k = 0; k < openings.length; k++) {
    // Only the neighbours after k, so that each pair is looked at once.
    const neighbours = neighboursOf(index, boxes[k]!, k);
    if (neighbours === null) {
      crowded.push(k);
      left[k] = 1;
    } else for (const other of neighbours) parent[root(other)] = root(k);
  }

  const meets = new Uint8Array(openings.length);
  for (let i = 0; i < outline.count; i++) {
    const j = outline.next![i]!;
    const [ax, ay, bx, by] = [outline.xs[i]!, outline.ys[i]!, outline.xs[j]!, outline.ys[j]!];
    for (const k of index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by)))
      if (near(ax, ay, bx, by, boxes[k]!)) meets[k] = 1;
  }
  // What keeps only its inside is cut together with everything else.
  const keeps = openings.some((opening) => opening.kind === 'keep inside');
  const members = new Map<number, number[]>();
  for (let k = 0; k < openings.length; k++) {
    if (left[k]) continue;
    const r = root(k);
    const list = members.get(r);
    if (list) list.push(k);
    else members.set(r, [k]);
  }
  const clusters: number[][] = [];
  const atEdge: number[] = [];
  const outside: number[] = [];
  for (const cluster of members.values()) {
    if (cluster.some((k) => meets[k])) atEdge.push(...cluster);
    else if (!isInside(outline, openings[cluster[0]!]!)) outside.push(...cluster);
    else if (keeps) atEdge.push(...cluster);
    else clusters.push(cluster);
  }
  atEdge.sort((a, b) => a - b);
  return { clusters, atEdge, outside, crowded };
}

/** Whether a segment comes into a box: whether the box lies not wholly on one side of it. */
function near(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  [left, low, right, high]: readonly [number, number, number, number],
): boolean {
  const side = (x: number, y: number): number => (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  const [p, q, r, s] = [side(left, low), side(right, low), side(right, high), side(left, high)];
  return !((p > 0 && q > 0 && r > 0 && s > 0) || (p < 0 && q < 0 && r < 0 && s < 0));
}

/** Whether an opening that does not meet the outline lies within it: whether any one point of it does. */
function isInside(outline: Loop, opening: Placed): boolean {
  const x = opening.s + opening.outline.xs[0]!;
  const y = opening.t + opening.outline.ys[0]!;
  let inside = false;
  for (let i = 0; i < outline.count; i++) {
    const j = outline.next![i]!;
    const [xi, yi, xj, yj] = [outline.xs[i]!, outline.ys[i]!, outline.xs[j]!, outline.ys[j]!];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

function outsideStatus(
  { noun, larger, length, height }: Sheet,
  { id, s, t, profile }: Placed,
  units: Units,
): OpeningStatus {
  const ways: string[] = [];
  if (s >= length) ways.push(`${worded(s - length, units)} beyond its end`);
  else if (s + profile.width <= 0) ways.push(`${worded(-s - profile.width, units)} before its start`);
  if (t >= height) ways.push(`${worded(t - height, units)} above its top`);
  else if (t + profile.height <= 0) ways.push(`${worded(-t - profile.height, units)} below its base`);
  return notCut(
    id,
    `it lies off the ${noun}${ways.length > 0 ? `, ${ways.join(' and ')}` : ''}`,
    `Move it onto the ${noun}, or make the ${noun} ${larger}.`,
  );
}

function partOf({ kind }: Placed): Part {
  return kind === 'keep inside' ? 'keep' : kind === 'boss' || kind === 'imprint' ? 'raised' : 'void';
}

/** Clips what meets the edge, tells what became of it, and returns what is to be cut there. */
function atTheEdge(
  sheet: Sheet,
  outline: Loop,
  cluster: readonly number[],
  openings: readonly Placed[],
  statuses: OpeningStatus[],
  units: Units,
): number[] {
  if (cluster.length === 0) return [];
  const { noun } = sheet;
  const nothingLeft = `with it nothing would be left of the ${noun}`;
  let taken = [...cluster];
  const refused = (k: number, why: string, mend: string): void => {
    statuses[k] = notCut(openings[k]!.id, why, mend);
    taken = taken.filter((other) => other !== k);
  };
  for (const k of cluster)
    if (openings[k]!.kind === 'imprint' || openings[k]!.kind === 'boss')
      refuseUnclear(openings[k]!, refused.bind(null, k), noun);
  const clipAll = (): Clipped =>
    clip(
      outline,
      taken.map((k) => placedLoop(openings[k]!)),
      taken.map((k) => partOf(openings[k]!)),
    );
  let clipped: Clipped;
  try {
    clipped = clipAll();
    const tooLarge = taken.filter((k, i) => openings[k]!.kind === 'through' && !clipped.openings[i + 1]!.leaves);
    if (tooLarge.length > 0) {
      for (const k of tooLarge)
        refused(
          k,
          `${nothingLeft}: it is ${worded(openings[k]!.profile.width, units)} wide and ${worded(openings[k]!.profile.height, units)} high, ` +
            `the ${noun} ${worded(sheet.length, units)} long and ${worded(sheet.height, units)} high`,
          `Choose a smaller size, or make the ${noun} ${sheet.larger}.`,
        );
      clipped = clipAll();
    }
    const through = taken.filter((k) => openings[k]!.kind === 'through' || openings[k]!.kind === 'keep inside');
    const left =
      through.length === taken.length
        ? clipped.loops.length
        : clip(
            outline,
            through.map((k) => placedLoop(openings[k]!)),
            through.map((k) => partOf(openings[k]!)),
          ).loops.length;
    if (left === 0) {
      for (const k of through)
        refused(
          k,
          `${nothingLeft}: together with its neighbours it covers it all`,
          'Move or narrow some of them, or block them up.',
        );
      clipped = clipAll();
    }
  } catch (error) {
    if (!(error instanceof TooTangled)) throw error;
    for (const k of cluster) statuses[k] = tangled(openings[k]!);
    return [];
  }
  const order = [...taken];
  const cut: number[] = [];
  order.forEach((k, i) => {
    const report = clipped.openings[i + 1]!;
    const opening = openings[k]!;
    if (opening.kind === 'keep inside') {
      cut.push(k);
      statuses[k] = {
        opening: opening.id,
        state: 'cut',
        reason: 'only what lies within it is kept',
        mend: null,
        unitedWith: [],
        area: outlineArea(opening.outline),
      };
      return;
    }
    if (!report.inside) {
      const kept = order.some((other) => openings[other]!.kind === 'keep inside');
      statuses[k] = kept
        ? notCut(opening.id, `it lies where nothing is kept of the ${noun}`, 'Move it within the outline that is kept.')
        : outsideStatus(sheet, opening, units);
      return;
    }
    cut.push(k);
    const onFace = report.over.map((edge) => sheet.outline.names[edge]!);
    const over = [...new Set(onFace.length > 0 ? onFace : overBehind(sheet, outline, opening))];
    const told = [
      ...(over.length > 0
        ? [`runs over the ${over.join(' and the ')}${onFace.length > 0 ? '' : ' behind its profile'}`]
        : []),
      ...(report.shows ? [] : ['lies wholly within the openings that it is united with']),
    ];
    statuses[k] = {
      opening: opening.id,
      state: over.length > 0 && opening.kind === 'through' ? 'notched' : stateOf(opening),
      reason: told.length > 0 ? told.join('; ') : null,
      mend: null,
      unitedWith: report.with.map((other) => openings[order[other - 1]!]!.id),
      area: report.area,
    };
  });
  return cut;
}

/** The edges that an opening whose profile keeps clear of them runs over further in, where its sections make it wider. */
function overBehind(sheet: Sheet, outline: Loop, opening: Placed): string[] {
  return outlinesBehind(opening).flatMap((loop) =>
    clip(outline, [loop]).openings[1]!.over.map((edge) => sheet.outline.names[edge]!),
  );
}

function refuseUnclear(opening: Placed, refused: (why: string, mend: string) => void, noun: string): void {
  const what = opening.kind === 'boss' ? 'a boss' : 'an imprint';
  refused(
    `${what} must stand clear of the ${noun}’s edge, and of openings that run over it`,
    `Move it further onto the ${noun}, or make it smaller.`,
  );
}

/** Tells what became of openings that meet one another within the sheet. @returns those that are to be cut together, in sets. */
function amongThemselves(
  sheet: Sheet,
  cluster: readonly number[],
  openings: readonly Placed[],
  statuses: OpeningStatus[],
): number[][] {
  const block = (k: number): boolean => reachOf(openings[k]!, sheet) > 0;
  const imprints = cluster.filter((k) => openings[k]!.kind === 'imprint');
  for (const k of cluster)
    if (block(k))
      statuses[k] = notCut(
        openings[k]!.id,
        'a block through layers must stand clear of other openings',
        'Move it clear of them, or let it stand on the face only.',
      );
  for (const k of imprints)
    statuses[k] = notCut(
      openings[k]!.id,
      'an imprint must stand clear of other openings',
      'Move it clear of them, or make it a shallow niche.',
    );
  const rest = cluster.filter((k) => openings[k]!.kind !== 'imprint' && !block(k));
  if (rest.length === 0) return [];
  try {
    const clipped = clip(
      null,
      rest.map((k) => placedLoop(openings[k]!)),
    );
    rest.forEach((k, i) => {
      const report = clipped.openings[i + 1]!;
      statuses[k] = {
        opening: openings[k]!.id,
        state: stateOf(openings[k]!),
        reason: report.shows ? null : 'lies wholly within the openings that it is united with',
        mend: null,
        unitedWith: report.with.map((other) => openings[rest[other - 1]!]!.id),
        area: report.area,
      };
    });
    return [rest];
  } catch (error) {
    if (!(error instanceof TooTangled)) throw error;
    for (const k of rest) statuses[k] = tangled(openings[k]!);
    return [];
  }
}

function tangled(opening: Placed): OpeningStatus {
  return notCut(
    opening.id,
    'it lies on so many others that they cross in too many places',
    'Remove the openings that lie on one another, or block them up.',
  );
}
