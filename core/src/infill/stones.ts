/** Stones let into the wall about an opening, as they are seen: lintels, arch rings, quoins and sills; and the room that each takes out of the wall. Metres, from the outline's own corner. */
import type { ArchRing, Lintel, Quoins, StoneSill } from '@yard-arch/document';
import type { Outline } from '../profile/flatten.ts';
import type { Placed } from '../setout/placed.ts';
import { micrometre, millimetre, relative } from '../tolerances.ts';
import { areaWithin, type Spot } from './area.ts';

/** One stone, or the mortar between two. */
export interface Stone {
  points: Spot[];
  /** Along which its texture runs. */
  along: Spot;
  material: string;
  /** How far it stands before the face; mortar lies behind it. */
  proud: number;
}

/** Stones, and the outline of the room that they take. */
export interface Setting {
  stones: Stone[];
  room: Spot[];
  /** The way out of the opening at each point of the room that lies on a curve. */
  outs?: (Spot | null)[];
}

/** How far mortar lies behind the face. */
const raked = 0.004;

/** What of an opening stones are set about. */
export type About = Pick<Placed, 'outline' | 'profile'>;

/** A run of edges of one outline, from point to point, with the way out of the opening at each. */
interface Chain {
  points: Spot[];
  out: Spot[];
}

/** The edges that are an opening's head, from right to left; null where they are not one run. */
function headOf({ count, xs, ys, next, side, arcs }: Outline): Chain | null {
  const heads = Array.from({ length: count }, (_, i) => i).filter((i) => side[i] === 'head');
  const before = new Set(heads.map((i) => next[i]!));
  const starts = heads.filter((i) => !before.has(i));
  if (starts.length !== 1) return null;
  const edges: [a: Spot, b: Spot, outA: Spot, outB: Spot][] = [];
  let v = starts[0]!;
  while (side[v] === 'head') {
    const w = next[v]!;
    const [a, b]: [Spot, Spot] = [
      [xs[v]!, ys[v]!],
      [xs[w]!, ys[w]!],
    ];
    const arc = arcs[v];
    const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const flat: Spot = [(b[1] - a[1]) / size, -(b[0] - a[0]) / size];
    edges.push([a, b, arc ? [-arc.ax, -arc.ay] : flat, arc ? [-arc.bx, -arc.by] : flat]);
    v = w;
    if (edges.length > count) return null;
  }
  const points = [edges[0]![0], ...edges.map(([, b]) => b)];
  const out = points.map((_, i): Spot => {
    const [one, other] = [edges[i - 1]?.[3], edges[i]?.[2]];
    if (!one || !other) return (one ?? other)!;
    // As long as to reach where both neighbours' outer lines meet.
    const [x, y] = [one[0] + other[0], one[1] + other[1]];
    const scale = 2 / (x * x + y * y);
    return [x * scale, y * scale];
  });
  return { points, out };
}

/** Whether a chain is one level line. */
const isLevel = ({ points }: Chain): boolean => points.every(([, y]) => Math.abs(y - points[0]![1]) < micrometre);

/** What of a room lies within the opening: enough that the two are one. */
function dipped(from: Spot, to: Spot, { profile: { width, height } }: About): Spot[] {
  const dip = 0.1 * Math.min(width, height);
  const way = Math.sign(to[0] - from[0]) || 1;
  return [from, [from[0] + way * dip, from[1] - dip], [to[0] - way * dip, to[1] - dip], to];
}

/** A lintel. @returns why there is none, in words to follow the opening's mark. */
export function lintelStones({ material, height, bearing, proud }: Lintel, about: About): Setting | string {
  const head = headOf(about.outline);
  if (!head || !isLevel(head)) return 'its head is not level, and carries no lintel';
  const [right, left] = [head.points[0]!, head.points.at(-1)!];
  const [x0, x1, z] = [left[0] - bearing, right[0] + bearing, left[1]];
  const points: Spot[] = [
    [x0, z],
    [x1, z],
    [x1, z + height],
    [x0, z + height],
  ];
  return {
    stones: [{ points, along: [1, 0], material, proud }],
    room: apart([...dipped(left, right, about), [x1, z], [x1, z + height], [x0, z + height], [x0, z]]),
  };
}

/** How much further than its height a ring may reach in a corner of its head. */
const sharpest = 3;

/** Where the joints of a level arch run to: so far below its head, as a share of its width. */
const levelMiddle = 0.87;

/** Stones over a head. @returns why there are none. */
export function ringStones(ring: ArchRing, about: About): Setting | string {
  const head = headOf(about.outline);
  if (!head) return 'its head is not one run, and carries no arch';
  if (isLevel(head)) levelled(head);
  else if (!head.out.every(([x, y]) => Math.hypot(x, y) <= sharpest))
    return 'its head comes to a point too sharp for an arch of stones';
  const { material, height, stones: count, joint, mortar, proud, keystone } = ring;
  const lengths = head.points.slice(1).map(([x, y], i) => Math.hypot(x - head.points[i]![0], y - head.points[i]![1]));
  const total = lengths.reduce((sum, one) => sum + one, 0);
  const each = (total - (count - 1) * joint) / count;
  if (each < 2 * millimetre) return 'its arch has more stones than its head has room for';
  if (keystone && count % 2 === 0) return 'its arch has an even number of stones, and none at the crown';
  const at = (along: number): { at: Spot; out: Spot } => placeOn(head, lengths, along);
  const outward = (along: number, rise: number): Spot => {
    const { at: spot, out } = at(along);
    return [spot[0] + rise * out[0], spot[1] + rise * out[1]];
  };
  const piece = (from: number, to: number, rise: number): Spot[] => {
    const stops = [from, ...cornersBetween(lengths, from, to), to];
    return [...stops.map((along) => outward(along, rise)), ...stops.map((along) => at(along).at).reverse()];
  };
  const stones: Stone[] = [];
  const outer: Spot[] = [];
  const outs: Spot[] = [];
  const onRoom = (along: number, rise: number): void => {
    outer.push(outward(along, rise));
    outs.push(at(along).out);
  };
  const crown = (count - 1) / 2;
  for (let i = 0; i < count; i++) {
    const [from, to] = [i * (each + joint), i * (each + joint) + each];
    const key = keystone && i === crown ? keystone : null;
    const rise = height + (key?.rise ?? 0);
    const points = piece(from, to, rise);
    const middle = at((from + to) / 2).out;
    stones.push({
      points,
      along: [-middle[1], middle[0]],
      material: key?.material ?? material,
      proud: proud + (key?.proud ?? 0),
    });
    const stops = [from, ...cornersBetween(lengths, from, to), to];
    for (const along of stops) onRoom(along, rise);
    if (i + 1 < count && joint > micrometre) {
      if (mortar)
        stones.push({
          points: piece(to, to + joint, height),
          along: middle,
          material: mortar,
          proud: -raked,
        });
      for (const along of [to, ...cornersBetween(lengths, to, to + joint), to + joint]) onRoom(along, height);
    }
  }
  if (stones.some(({ points }) => !sound(points))) return 'its arch is higher than the curve of its head allows';
  const [right, left] = [head.points[0]!, head.points.at(-1)!];
  const inner = dipped(left, right, about);
  const all = [...inner, ...outer];
  const curved: (Spot | null)[] = [...inner.map(() => null), ...(isLevel(head) ? outer.map(() => null) : outs)];
  const kept = all.map((spot, i) => {
    const next = all[(i + 1) % all.length]!;
    return Math.hypot(spot[0] - next[0], spot[1] - next[1]) > micrometre;
  });
  return { stones, room: all.filter((_, i) => kept[i]), outs: curved.filter((_, i) => kept[i]) };
}

/** Whether a stone's outline goes counter-clockwise all the way, its outer edge the same way as its inner one. */
function sound(points: readonly Spot[]): boolean {
  const half = points.length / 2;
  if (areaWithin(points) < micrometre) return false;
  for (let i = 0; i + 1 < half; i++) {
    const [a, b] = [points[i]!, points[i + 1]!];
    const [c, d] = [points[points.length - 1 - i]!, points[points.length - 2 - i]!];
    if ((b[0] - a[0]) * (d[0] - c[0]) + (b[1] - a[1]) * (d[1] - c[1]) < 0) return false;
  }
  return true;
}

/** A level head's ways out, all from one middle below. */
function levelled(head: Chain): void {
  const [right, left] = [head.points[0]!, head.points.at(-1)!];
  const middle: Spot = [(left[0] + right[0]) / 2, left[1] - levelMiddle * (right[0] - left[0])];
  head.out.forEach((_, i) => {
    const [x, y] = head.points[i]!;
    head.out[i] = [(x - middle[0]) / (y - middle[1]), 1];
  });
}

function placeOn({ points, out }: Chain, lengths: readonly number[], along: number): { at: Spot; out: Spot } {
  let i = 0;
  let rest = along;
  while (i + 1 < lengths.length && rest > lengths[i]! * (1 + relative)) rest -= lengths[i++]!;
  const share = Math.max(0, Math.min(1, rest / lengths[i]!));
  const mixed = (a: Spot, b: Spot): Spot => [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
  return { at: mixed(points[i]!, points[i + 1]!), out: mixed(out[i]!, out[i + 1]!) };
}

/** Where a chain turns between two places along it. */
function cornersBetween(lengths: readonly number[], from: number, to: number): number[] {
  const found: number[] = [];
  let sum = 0;
  for (const length of lengths.slice(0, -1)) {
    sum += length;
    if (sum > from + micrometre && sum < to - micrometre) found.push(sum);
  }
  return found;
}

/** A polygon without points that are the same. */
const apart = (points: readonly Spot[]): Spot[] =>
  points.filter((spot, i) => {
    const next = points[(i + 1) % points.length]!;
    return Math.hypot(spot[0] - next[0], spot[1] - next[1]) > micrometre;
  });

/** An upright jamb from its foot to where it ends: where it is, and from where to where. */
function jambOf(
  { count, xs, ys, next, side, arcs }: Outline,
  which: 'jamb-left' | 'jamb-right',
): [x: number, low: number, high: number] | null {
  let [low, high, at] = [Infinity, -Infinity, NaN];
  for (let i = 0; i < count; i++) {
    const j = next[i]!;
    if (side[i] !== which || arcs[i] || Math.abs(xs[i]! - xs[j]!) > micrometre) continue;
    if (Number.isNaN(at)) at = xs[i]!;
    if (Math.abs(xs[i]! - at) > micrometre) return null;
    low = Math.min(low, ys[i]!, ys[j]!);
    high = Math.max(high, ys[i]!, ys[j]!);
  }
  return high - low > 10 * millimetre ? [at, low, high] : null;
}

/** Blocks along both jambs, as one setting for each. @returns why there are none. */
export function quoinStones(quoins: Quoins, about: About): Setting[] | string {
  const settings: Setting[] = [];
  for (const [which, away] of [
    ['jamb-left', -1],
    ['jamb-right', 1],
  ] as const) {
    const jamb = jambOf(about.outline, which);
    if (!jamb) return 'its jambs are not upright, and carry no quoins';
    settings.push(blocksOn(quoins, jamb, away, about));
  }
  return settings;
}

function blocksOn(
  { material, height, long, short, joint, mortar, proud }: Quoins,
  [x, low, high]: [number, number, number],
  away: 1 | -1,
  { profile: { width } }: About,
): Setting {
  const count = Math.max(1, Math.round((high - low + joint) / (height + joint)));
  const each = (high - low - (count - 1) * joint) / count;
  const rectangle = (reach: number, from: number, to: number): Spot[] => {
    const [x0, x1] = [x, x + away * reach].sort((a, b) => a - b) as [number, number];
    return [
      [x0, from],
      [x1, from],
      [x1, to],
      [x0, to],
    ];
  };
  const stones: Stone[] = [];
  const outer: Spot[] = [];
  for (let i = 0; i < count; i++) {
    const [from, to] = [low + i * (each + joint), low + i * (each + joint) + each];
    const reach = i % 2 === 0 ? long : short;
    stones.push({ points: rectangle(reach, from, to), along: [1, 0], material, proud });
    outer.push([x + away * reach, from], [x + away * reach, to]);
    if (i + 1 < count && joint > micrometre) {
      const least = Math.min(long, short);
      if (mortar)
        stones.push({ points: rectangle(least, to, to + joint), along: [1, 0], material: mortar, proud: -raked });
      outer.push([x + away * least, to], [x + away * least, to + joint]);
    }
  }
  const dip = 0.1 * width;
  const inner: Spot[] = [
    [x, high],
    [x - away * dip, high - Math.min(dip, (high - low) / 4)],
    [x - away * dip, low + Math.min(dip, (high - low) / 4)],
    [x, low],
  ];
  const room = apart([...outer, ...inner]);
  return { stones, room: away > 0 ? room : room.reverse() };
}

/** A sill's room and reach: from where to where along, ends included, and between the jambs; null where the foot is not level. */
export function sillRoom(
  { height, ends }: StoneSill,
  about: About,
): { room: Spot[]; span: [number, number]; foot: number } | string {
  const { count, xs, ys, next, side, arcs } = about.outline;
  let span: [number, number] | null = null;
  let foot = 0;
  for (let i = 0; i < count; i++) {
    const j = next[i]!;
    if (side[i] !== 'sill' || arcs[i] || Math.abs(ys[i]! - ys[j]!) > micrometre) continue;
    if (span && xs[j]! - xs[i]! < span[1] - span[0]) continue;
    span = [xs[i]!, xs[j]!];
    foot = ys[i]!;
  }
  if (!span || span[1] - span[0] < 10 * millimetre) return 'its foot is not level, and carries no sill of stone';
  const dip = 0.1 * Math.min(about.profile.width, about.profile.height);
  const [x0, x1] = [span[0] - ends, span[1] + ends];
  const room = apart([
    [x0, foot - height],
    [x1, foot - height],
    [x1, foot],
    [span[1], foot],
    [span[1] - dip, foot + dip],
    [span[0] + dip, foot + dip],
    [span[0], foot],
    [x0, foot],
  ]);
  return { room, span, foot };
}
