/** The sheet path: cuts openings through a sheet in 2D and makes the region of its face that is left. */
import type { Units } from '@yard-arch/document';
import Flatbush from 'flatbush';
import type { Sheet } from '../element/sheet.ts';
import type { Region } from '../mesh/region.ts';
import { outlineArea } from '../profile/flatten.ts';
import { worded, type Placed } from '../setout/resolve.ts';
import { tolerance, TooTangled, type Loop } from './arrangement.ts';
import { clip, type Clipped, type ClippedLoop } from './clip.ts';
import { notCut, type OpeningStatus } from './status.ts';

/** What is left of a sheet's face, and what became of each opening, in the order given. */
export interface SheetCut {
  region: Region;
  statuses: OpeningStatus[];
}

const nothingLeft = 'with it nothing would be left of the wall';

/** Cuts openings (none of them blocked up) through a sheet. */
export function cutSheet(sheet: Sheet, openings: readonly Placed[], units: Units): SheetCut {
  const outline: Loop = { xs: sheet.outline.xs, ys: sheet.outline.ys, count: sheet.outline.xs.length };
  const { clusters, atEdge, outside } = clustered(outline, openings);
  const statuses = new Array<OpeningStatus>(openings.length);
  for (const k of outside) statuses[k] = outsideStatus(sheet, openings[k]!, units);

  const parts: Part[] = [];
  if (atEdge.length === 0) parts.push({ kind: 'sheet', loop: outline });
  else parts.push(...atTheEdge(sheet, outline, atEdge, openings, statuses, units));
  for (const cluster of clusters) {
    if (cluster.length === 1) {
      const k = cluster[0]!;
      parts.push({ kind: 'single', k });
      statuses[k] = {
        opening: openings[k]!.id,
        state: 'cut',
        reason: null,
        mend: null,
        unitedWith: [],
        area: outlineArea(openings[k]!.outline),
      };
    } else parts.push(...amongThemselves(cluster, openings, statuses));
  }
  return { region: regionOf(parts, sheet, openings), statuses };
}

type Part = { kind: 'sheet'; loop: Loop } | { kind: 'single'; k: number } | { kind: 'clipped'; loop: ClippedLoop; cluster: readonly number[] };

function placedLoop(opening: Placed): Loop {
  const { outline, s, t } = opening;
  return { xs: outline.xs.map((x) => x + s), ys: outline.ys.map((y) => y + t), count: outline.count };
}

/** Sorts openings: those that meet the sheet's outline, those outside it, and the rest in clusters of such as may meet each other. */
function clustered(outline: Loop, openings: readonly Placed[]): { clusters: number[][]; atEdge: number[]; outside: number[] } {
  if (openings.length === 0) return { clusters: [], atEdge: [], outside: [] };
  const margin = 2 * tolerance;
  const index = new Flatbush(openings.length);
  const box = (k: number): [number, number, number, number] => {
    const { s, t, profile } = openings[k]!;
    return [s - margin, t - margin, s + profile.width + margin, t + profile.height + margin];
  };
  for (let k = 0; k < openings.length; k++) index.add(...box(k));
  index.finish();

  const parent = Int32Array.from(openings, (_, k) => k);
  const root = (k: number): number => {
    while (parent[k] !== k) k = parent[k] = parent[parent[k]!]!;
    return k;
  };
  for (let k = 0; k < openings.length; k++)
    // Only the neighbours after k, so that each pair is looked at once.
    for (const other of index.search(...box(k), (j) => j > k)) parent[root(other)] = root(k);

  const meets = new Uint8Array(openings.length);
  for (let i = 0; i < outline.count; i++) {
    const j = (i + 1) % outline.count;
    const [ax, ay, bx, by] = [outline.xs[i]!, outline.ys[i]!, outline.xs[j]!, outline.ys[j]!];
    for (const k of index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by))) meets[k] = 1;
  }
  const members = new Map<number, number[]>();
  for (let k = 0; k < openings.length; k++) {
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
    else if (isInside(outline, openings[cluster[0]!]!)) clusters.push(cluster);
    else outside.push(...cluster);
  }
  atEdge.sort((a, b) => a - b);
  return { clusters, atEdge, outside };
}

/** Whether an opening that does not meet the outline lies within it: whether any one point of it does. */
function isInside(outline: Loop, opening: Placed): boolean {
  const x = opening.s + opening.profile.width / 2;
  const y = opening.t + opening.profile.height / 2;
  let inside = false;
  for (let i = 0, j = outline.count - 1; i < outline.count; j = i++) {
    const [xi, yi, xj, yj] = [outline.xs[i]!, outline.ys[i]!, outline.xs[j]!, outline.ys[j]!];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

function outsideStatus(sheet: Sheet, { id, s, t, profile }: Placed, units: Units): OpeningStatus {
  const ways: string[] = [];
  if (s >= sheet.length) ways.push(`${worded(s - sheet.length, units)} beyond its end`);
  else if (s + profile.width <= 0) ways.push(`${worded(-s - profile.width, units)} before its start`);
  if (t >= sheet.height) ways.push(`${worded(t - sheet.height, units)} above its top`);
  else if (t + profile.height <= 0) ways.push(`${worded(-t - profile.height, units)} below its base`);
  return notCut(
    id,
    `it lies off the wall${ways.length > 0 ? `, ${ways.join(' and ')}` : ''}`,
    'Move it onto the wall, or make the wall longer or higher.',
  );
}

function atTheEdge(
  sheet: Sheet,
  outline: Loop,
  cluster: readonly number[],
  openings: readonly Placed[],
  statuses: OpeningStatus[],
  units: Units,
): Part[] {
  let taken = cluster;
  let clipped: Clipped;
  try {
    clipped = clip(
      outline,
      taken.map((k) => placedLoop(openings[k]!)),
    );
    const tooLarge = taken.filter((_, i) => !clipped.openings[i + 1]!.leaves);
    if (tooLarge.length > 0) {
      for (const k of tooLarge)
        statuses[k] = notCut(
          openings[k]!.id,
          `${nothingLeft}: it is ${worded(openings[k]!.profile.width, units)} wide and ${worded(openings[k]!.profile.height, units)} high, ` +
            `the wall ${worded(sheet.length, units)} long and ${worded(sheet.height, units)} high`,
          'Choose a smaller size, or make the wall longer or higher.',
        );
      taken = taken.filter((k) => !tooLarge.includes(k));
      clipped = clip(
        outline,
        taken.map((k) => placedLoop(openings[k]!)),
      );
    }
    if (clipped.loops.length === 0) {
      for (const k of taken)
        statuses[k] = notCut(
          openings[k]!.id,
          `${nothingLeft}: together with its neighbours it covers it all`,
          'Move or narrow some of them, or block them up.',
        );
      return [{ kind: 'sheet', loop: outline }];
    }
  } catch (error) {
    if (!(error instanceof TooTangled)) throw error;
    for (const k of cluster) statuses[k] = tangled(openings[k]!);
    return [{ kind: 'sheet', loop: outline }];
  }
  taken.forEach((k, i) => {
    const report = clipped.openings[i + 1]!;
    const opening = openings[k]!;
    if (!report.inside) {
      statuses[k] = outsideStatus(sheet, opening, units);
      return;
    }
    const over = report.over.map((edge) => sheet.outline.names[edge]!);
    const told = [
      ...(over.length > 0 ? [`runs over the ${over.join(' and the ')}`] : []),
      ...(report.shows ? [] : ['lies wholly within the openings that it is united with']),
    ];
    statuses[k] = {
      opening: opening.id,
      state: over.length > 0 ? 'notched' : 'cut',
      reason: told.length > 0 ? told.join('; ') : null,
      mend: null,
      unitedWith: report.with.map((other) => openings[taken[other - 1]!]!.id),
      area: report.area,
    };
  });
  return clipped.loops.map((loop) => ({ kind: 'clipped', loop, cluster: taken }));
}

function amongThemselves(cluster: readonly number[], openings: readonly Placed[], statuses: OpeningStatus[]): Part[] {
  try {
    const clipped = clip(
      null,
      cluster.map((k) => placedLoop(openings[k]!)),
    );
    cluster.forEach((k, i) => {
      const report = clipped.openings[i + 1]!;
      statuses[k] = {
        opening: openings[k]!.id,
        state: 'cut',
        reason: report.shows ? null : 'lies wholly within the openings that it is united with',
        mend: null,
        unitedWith: report.with.map((other) => openings[cluster[other - 1]!]!.id),
        area: report.area,
      };
    });
    return clipped.loops.map((loop) => ({ kind: 'clipped', loop, cluster }));
  } catch (error) {
    if (!(error instanceof TooTangled)) throw error;
    for (const k of cluster) statuses[k] = tangled(openings[k]!);
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

/** Puts the parts into one region: the sheet's own outline as it is, single openings backwards, clipped loops as they come. */
function regionOf(parts: readonly Part[], sheet: Sheet, openings: readonly Placed[]): Region {
  let count = 0;
  for (const part of parts) {
    if (part.kind === 'sheet') count += part.loop.count;
    else if (part.kind === 'single') count += openings[part.k]!.outline.count;
    else count += part.loop.xs.length;
  }
  const region: Region = {
    count,
    xs: new Float64Array(count),
    ys: new Float64Array(count),
    next: new Uint32Array(count),
    operand: new Int32Array(count),
    source: new Int32Array(count),
    from: new Float64Array(count),
    to: new Float64Array(count),
    pinched: parts.some((part) => part.kind === 'clipped'),
  };
  let at = 0;
  for (const part of parts) {
    const first = at;
    if (part.kind === 'sheet') {
      for (let i = 0; i < part.loop.count; i++, at++) {
        region.xs[at] = part.loop.xs[i]!;
        region.ys[at] = part.loop.ys[i]!;
        region.source[at] = i;
        region.to[at] = 1;
        region.next[at] = at + 1;
      }
    } else if (part.kind === 'single') {
      const { outline, s, t } = openings[part.k]!;
      for (let i = outline.count - 1; i >= 0; i--, at++) {
        const start = i + 1 === outline.count ? 0 : i + 1;
        region.xs[at] = s + outline.xs[start]!;
        region.ys[at] = t + outline.ys[start]!;
        region.operand[at] = part.k + 1;
        region.source[at] = i;
        region.from[at] = 1;
        region.next[at] = at + 1;
      }
    } else {
      const { loop, cluster } = part;
      for (let i = 0; i < loop.xs.length; i++, at++) {
        const j = (i + 1) % loop.xs.length;
        const local = loop.operand[i]!;
        const source = loop.source[i]!;
        region.xs[at] = loop.xs[i]!;
        region.ys[at] = loop.ys[i]!;
        region.operand[at] = local === 0 ? 0 : cluster[local - 1]! + 1;
        region.source[at] = source;
        region.next[at] = at + 1;
        const whole = local === 0 ? edgeOf(sheet.outline, source, 0, 0) : edgeOfOpening(openings[cluster[local - 1]!]!, source);
        region.from[at] = along(whole, loop.xs[i]!, loop.ys[i]!);
        region.to[at] = along(whole, loop.xs[j]!, loop.ys[j]!);
      }
    }
    if (at > first) region.next[at - 1] = first;
  }
  return region;
}

type Segment = [number, number, number, number];

function edgeOf(points: { xs: Float64Array; ys: Float64Array }, i: number, s: number, t: number): Segment {
  const j = (i + 1) % points.xs.length;
  return [points.xs[i]! + s, points.ys[i]! + t, points.xs[j]! + s, points.ys[j]! + t];
}

function edgeOfOpening(opening: Placed, i: number): Segment {
  return edgeOf(opening.outline, i, opening.s, opening.t);
}

/** Where on a segment a point of it is: 0 at its first end, 1 at its second. */
function along([ax, ay, bx, by]: Segment, x: number, y: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  return ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy);
}
