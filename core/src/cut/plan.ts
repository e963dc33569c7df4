/** Planning a cut: which openings stand clear, which meet each other or the sheet's edge, and what becomes of each. */
import type { Units } from '@yard-arch/document';
import Flatbush from 'flatbush';
import type { Sheet } from '../element/sheet.ts';
import { outlineArea } from '../profile/flatten.ts';
import type { Placed } from '../setout/placed.ts';
import { tolerance, TooTangled, type Loop } from '../mesh/arrangement.ts';
import { holdsPoint } from '../mesh/region.ts';
import { clip } from './clip.ts';
import { atTheEdge } from './edge.ts';
import { reachOf } from './reach.ts';
import type { Grouping } from './skin.ts';
import { nanometre } from '../tolerances.ts';
import { outsideStatus, placedLoop, stateOf, tangled, withinOthers } from './said.ts';
import { notCut, type OpeningStatus, statusOf } from './status.ts';
import { fault } from '../finding.ts';

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
      fault(
        'too-many-over',
        `more than ${mostOver} other openings lie over it`,
        'Remove those that lie on top of each other, or move them apart.',
      ),
    );
  for (const k of outside) statuses[k] = outsideStatus(sheet, openings[k]!, units);
  const singles: number[] = [];
  const groups: number[][] = [];
  for (const cluster of clusters) {
    if (cluster.length === 1) {
      const k = cluster[0]!;
      singles.push(k);
      statuses[k] = statusOf({
        opening: openings[k]!.id,
        state: stateOf(openings[k]!),
        area: outlineArea(openings[k]!.outline),
      });
    } else if (cluster.reduce((sum, k) => sum + openings[k]!.outline.count, 0) > mostTogether)
      for (const k of cluster) statuses[k] = tooLongAChain(openings[k]!.id, cluster.length);
    else
      for (const group of amongThemselves(sheet, cluster, openings, statuses))
        if (group.length === 1) singles.push(group[0]!);
        else groups.push(group);
  }
  const near = atTheEdge(sheet, { outline: loop, cluster: atEdge }, openings, { statuses, units });
  plan.grouping = sheet.rim ? onRim({ singles, groups, near, openings, statuses }) : { singles, groups, atEdge: near };
  return plan;
}

/** Where others go on from a sheet's edges, what only comes near them is cut like all else; what runs over them, with all that it is united with, is told apart. */
function onRim({
  singles,
  groups,
  near,
  openings,
  statuses,
}: {
  singles: number[];
  groups: number[][];
  near: readonly number[];
  openings: readonly Placed[];
  statuses: readonly OpeningStatus[];
}): Grouping {
  const at = new Map(near.map((k) => [openings[k]!.id, k]));
  const left = new Set(near);
  const atEdge: number[] = [];
  for (const first of near) {
    if (!left.delete(first)) continue;
    const together = [first];
    for (let i = 0; i < together.length; i++)
      for (const id of statuses[together[i]!]!.unitedWith) {
        const other = at.get(id);
        if (other !== undefined && left.delete(other)) together.push(other);
      }
    const over = together.some((k) => statuses[k]!.findings.some(({ code }) => code === 'over-edge'));
    if (over) atEdge.push(...together);
    else if (together.length === 1) singles.push(first);
    else groups.push(together);
  }
  return { singles, groups, atEdge: atEdge.sort((a, b) => a - b) };
}

/** How far a section reaches beyond a profile, metres. */
const widestOf = ({ offset }: Placed['sections']['sill']): number => Math.max(0, ...offset);

/** How far sections reach beyond an outline: to the left, down, to the right and up, metres. */
function reachBeyond({ outline, sections, drift, depth }: Placed): [number, number, number, number] {
  const { xs, ys, next, side, count } = outline;
  const far = { left: 0, low: 0, right: 0, high: 0 };
  let most = 0;
  let square = true;
  for (let i = 0; i < count; i++) {
    const offset = widestOf(sections[side[i]!]);
    most = Math.max(most, offset);
    const [dx, dy] = [xs[next[i]!]! - xs[i]!, ys[next[i]!]! - ys[i]!];
    // Upright and level sides move straight out; where any others are, corners go farther than either of their sides.
    if (Math.abs(dx) > nanometre && Math.abs(dy) > nanometre) square = false;
    else if (Math.abs(dx) > nanometre) far[dx > 0 ? 'low' : 'high'] = Math.max(far[dx > 0 ? 'low' : 'high'], offset);
    else far[dy > 0 ? 'right' : 'left'] = Math.max(far[dy > 0 ? 'right' : 'left'], offset);
  }
  const [a, b] = drift ? [drift[0] * depth, drift[1] * depth] : [0, 0];
  const { left, low, right, high } = square ? far : { left: most, low: most, right: most, high: most };
  return [left + Math.max(0, -a), low + Math.max(0, -b), right + Math.max(0, a), high + Math.max(0, b)];
}

const tooLongAChain = (id: string, count: number): OpeningStatus =>
  notCut(
    id,
    fault(
      'too-many-over',
      `it meets others that meet others, ${count} in one chain, more than can be cut together`,
      'Leave a pier between some of them, or set a coarser chord for the project’s arcs.',
    ),
  );

/** The most points that openings which meet one another in one chain may have together: to lay so many over each other takes some seconds. */
const mostTogether = 100_000;

/** The most openings that may lie over one; how they cross each other takes work with every pair of them. */
const mostOver = 250;

/** Those that may meet an opening, from among those after it; null where there are too many. */
function neighboursOf(
  index: Flatbush,
  [left, low, right, high]: readonly [number, number, number, number],
  k: number,
): number[] | null {
  const found: number[] = [];
  let met = 0;
  // Those before it count too: where all lie in one heap, looking on would take work with every pair.
  const tooMany = index.collides(
    left,
    low,
    right,
    high,
    (other) => ++met > 2 * mostOver || (other > k && found.push(other) > mostOver),
  );
  return tooMany ? null : found;
}

/** Sorts openings: those that meet the sheet's outline, those outside it, those that too many others lie over, and the rest in clusters of such as may meet each other. */
function clustered(
  outline: Loop,
  openings: readonly Placed[],
): { clusters: number[][]; atEdge: number[]; outside: number[]; crowded: number[] } {
  if (openings.length === 0) return { clusters: [], atEdge: [], outside: [], crowded: [] };
  const index = new Flatbush(openings.length);
  const boxes: (readonly [number, number, number, number])[] = [];
  const margins = new Map<Placed['sections'], Map<Placed['outline'], readonly [number, number, number, number]>>();
  for (const opening of openings) {
    const { s, t, profile, sections, outline: own } = opening;
    let byOutline = margins.get(sections);
    if (!byOutline) margins.set(sections, (byOutline = new Map()));
    let reach = byOutline.get(own);
    if (!reach || opening.drift) byOutline.set(own, (reach = reachBeyond(opening)));
    const [left, low, right, high] = reach;
    const gap = 2 * tolerance;
    boxes.push([s - left - gap, t - low - gap, s + profile.width + right + gap, t + profile.height + high + gap]);
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
      if (near({ ax, ay, bx, by }, boxes[k]!)) meets[k] = 1;
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
  { ax, ay, bx, by }: { ax: number; ay: number; bx: number; by: number },
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
  return holdsPoint({ ...outline, next: outline.next! }, x, y);
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
        fault(
          'not-clear',
          'a block through layers must stand clear of other openings',
          'Move it clear of them, or let it stand on the face only.',
        ),
      );
  for (const k of imprints)
    statuses[k] = notCut(
      openings[k]!.id,
      fault(
        'not-clear',
        'an imprint must stand clear of other openings',
        'Move it clear of them, or make it a shallow niche.',
      ),
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
      statuses[k] = statusOf({
        opening: openings[k]!.id,
        state: stateOf(openings[k]!),
        findings: report.shows ? [] : [withinOthers],
        unitedWith: report.with.map((other) => openings[rest[other - 1]!]!.id),
        area: report.area,
      });
    });
    return [rest];
  } catch (error) {
    if (!(error instanceof TooTangled)) throw error;
    for (const k of rest) statuses[k] = tangled(openings[k]!);
    return [];
  }
}
