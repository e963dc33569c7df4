/**
 * Texture on a rounded arris that runs along a rounded side. It bends both ways, so that its faces, laid flat one by one, would break the texture at every chord. They are laid as bands along the
 * row that they run into instead, stretched by a little.
 */
import type { Patch } from './patches.ts';
import type { LaidPatches, Uv } from './laid.ts';
import { dot } from '../vector.ts';
import { hair, micrometre, nanometre as same } from '../tolerances.ts';

/** The texture may be stretched by this share along the side before it is broken instead: what is rounded by a fifth of the side's own radius runs on. */
const mostStretch = 0.2;
/** And along a straight side, which a wall bends but little. */
const mostAlongStraight = 0.01;

/**
 * Lays the rows of a rounded arris along a rounded side, or along a straight one that bends with a curved wall.
 * @param sides by edge of the side, in order: its rows of patches, by depth.
 */
export function bandRounded(sides: readonly (readonly (readonly number[])[])[], laying: LaidPatches): void {
  const { tube, patches, n } = laying.placed;
  const rows = Array.from({ length: Math.max(...sides.map((list) => list.length)) }, (_, r) =>
    sides.flatMap((list) => list[r] ?? []),
  );
  const depthOf = (p: number): number =>
    Math.abs(n[patches[p]!.nodes[patches[p]!.startFar]!]! - n[patches[p]!.nodes[patches[p]!.startNear]!]!);
  const widths = rows.map((row) => Math.max(0, ...row.map(depthOf)));
  const lead = widths.indexOf(Math.max(...widths));
  const faceOf = (p: number) => tube.faces[patches[p]!.face]!;
  const smoothly = (r: number): boolean => {
    const [before, after] = [rows[r]![0], rows[r + 1]![0]];
    return before !== undefined && after !== undefined && sameWay(faceOf(before).far, faceOf(after).near);
  };
  // What only goes on straight, as a splay into the next layer, lies at true scale as it is.
  const rounded = (r: number): boolean => rows[r]!.some((p) => !sameWay(faceOf(p).near, faceOf(p).far));
  for (let r = lead - 1; r >= 0 && smoothly(r) && rounded(r); r--)
    if (!band(rows[r]!, rows[r + 1]!, true, laying)) break;
  for (let r = lead + 1; r < rows.length && smoothly(r - 1) && rounded(r); r++)
    if (!band(rows[r]!, rows[r - 1]!, false, laying)) break;
}

/** The face of a chord: its ends on the joined side and on the free one, by node, and where the joined ones lie. */
interface Chord {
  patches: number[];
  joined: readonly [number, number];
  free: readonly [number, number];
  from: Uv;
  to: Uv;
  /** The way away from the joined side in texture, at its start and at its end: square to it, or to the mean of the two where the next chord goes on. */
  square: [Uv, Uv];
  /** Whether nothing goes on at its start and at its end, where it may be mitred. */
  ends: [boolean, boolean];
}

/**
 * Lays a row along another that is laid already.
 * @param outer whether the row lies before the other, which it joins by its far side.
 * @returns false, having laid nothing, where the two do not match or it would be stretched too far.
 */
function band(row: readonly number[], on: readonly number[], outer: boolean, laying: LaidPatches): boolean {
  const { patches } = laying.placed;
  const places = new Map<number, Uv>();
  for (const q of on)
    for (const corner of alongSide(patches[q]!, !outer))
      places.set(placeOf(q, patches[q]!.nodes[corner]!, laying.placed), laying.laidAt(q, corner));
  const chords = chordsOf(row, places, outer, laying.placed);
  if (!chords) return false;
  const laid = new Map<number, Uv>();
  /** What the chord before has laid, where it goes on smoothly: the next one takes that over. */
  let before = new Map<number, Uv>();
  for (const chord of chords) {
    if (chord.ends[0]) before = new Map();
    layChord(chord, { places, before, laid }, laying);
  }
  const most = isStraight(row, laying.placed) ? mostAlongStraight : mostStretch;
  if (!row.every((p) => isTrue(p, { laid, most }, laying))) return false;
  laying.put(laid);
  return true;
}

/** The chords of a row, in order; null where one does not lie on what is laid already. */
function chordsOf(
  row: readonly number[],
  places: ReadonlyMap<number, Uv>,
  outer: boolean,
  placed: LaidPatches['placed'],
): Chord[] | null {
  const { patches } = placed;
  const chords: Chord[] = [];
  // A straight side is bent by the wall's facets, of which each of its patches lies in one; a chord may be divided by rows and columns.
  const straight = isStraight(row, placed);
  for (let i = 0; i < row.length;) {
    const own: number[] = [row[i]!];
    while (!straight && i + own.length < row.length && patches[row[i + own.length]!]!.face === patches[row[i]!]!.face)
      own.push(row[i + own.length]!);
    i += own.length;
    const found = cornersOf(own, places, outer, placed);
    if (!found) return null;
    const { joined, free, from, to } = found;
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
    if (!(length > same)) return null;
    // The section runs to the right of the edge's way.
    const size = (outer ? -1 : 1) / length;
    const square: Uv = [size * (to[1] - from[1]), -size * (to[0] - from[0])];
    chords.push({ patches: own, joined, free, from, to, square: [square, square], ends: [true, true] });
  }
  // Where one ends and the next begins, half way between.
  for (let k = 0; k + 1 < chords.length; k++) {
    const [before, after] = [chords[k]!, chords[k + 1]!];
    if (before.joined[1] !== after.joined[0] || !goesOn(before.patches[0]!, after.patches[0]!, placed)) continue;
    before.square[1] = after.square[0] = unit(
      before.square[1][0] + after.square[0][0],
      before.square[1][1] + after.square[0][1],
    );
    before.ends[1] = after.ends[0] = false;
  }
  return chords;
}

/** The corners of a chord's face: where it lies on what is laid already, and opposite, where it is free. A facet's line may divide it along its way, too: its free side is the one that is farther off. */
function cornersOf(
  own: readonly number[],
  places: ReadonlyMap<number, Uv>,
  outer: boolean,
  { tube, patches, positions }: LaidPatches['placed'],
): Pick<Chord, 'joined' | 'free' | 'from' | 'to'> | null {
  const at = (p: Patch, side: 'near' | 'far', end: boolean): number =>
    p.nodes[side === 'near' ? (end ? p.endNear : p.startNear) : end ? p.endFar : p.startFar]!;
  const [on, off] = outer ? (['far', 'near'] as const) : (['near', 'far'] as const);
  const list = own.map((p) => patches[p]!);
  const placed = (v: number): number => placeOf(own[0]!, v, { tube, patches });
  const start = list.map((p) => at(p, on, false)).find((v) => places.has(placed(v)));
  const end = list.map((p) => at(p, on, true)).findLast((v) => places.has(placed(v)));
  if (start === undefined || end === undefined) return null;
  const farthest = (from: number, of: readonly number[]): number => {
    const away = (v: number): number =>
      Math.hypot(...[0, 1, 2].map((k) => positions[3 * v + k]! - positions[3 * from + k]!));
    return of.reduce((best, v) => (away(v) > away(best) ? v : best));
  };
  const whole = list.length === 1 || (start === at(list[0]!, on, false) && end === at(list.at(-1)!, on, true));
  const free = whole
    ? ([at(list[0]!, off, false), at(list.at(-1)!, off, true)] as const)
    : ([
        farthest(
          start,
          list.map((p) => at(p, off, false)),
        ),
        farthest(
          end,
          list.map((p) => at(p, off, true)),
        ),
      ] as const);
  return { joined: [start, end], free, from: places.get(placed(start))!, to: places.get(placed(end))! };
}

/** Whether a row is along a straight side. */
const isStraight = (row: readonly number[], { tube, patches }: LaidPatches['placed']): boolean =>
  !tube.edges[tube.faces[patches[row[0]!]!.face]!.edge]!.chord;

/** A node as it is on a patch's own edge: at an apex texture comes to it from either side, and lies elsewhere on each. */
const placeOf = (p: number, node: number, { tube, patches }: Pick<LaidPatches['placed'], 'tube' | 'patches'>): number =>
  tube.faces[patches[p]!.face]!.edge * 0x400000 + node;

/** Whether a side goes on smoothly from one patch to the next: an apex is mitred. */
function goesOn(p: number, q: number, { tube, patches }: LaidPatches['placed']): boolean {
  const [e, f] = [p, q].map((patch) => tube.faces[patches[patch]!.face]!.edge) as [number, number];
  const [before, after] = [tube.edges[e]!.chord, tube.edges[f]!.chord];
  if (e === f || !before || !after) return true;
  const size = Math.hypot(before.bx, before.by) * Math.hypot(after.ax, after.ay);
  return before.bx * after.ax + before.by * after.ay > 0.999 * size;
}

/** Lays all corners of a chord's patches: as far from the joined side as they are, above the place on it that divides it as they divide the face at their depth. */
function layChord(
  { patches: own, joined, free, from, to, square, ends }: Chord,
  { places, before, laid }: { places: ReadonlyMap<number, Uv>; before: Map<number, Uv>; laid: Map<number, Uv> },
  { placed, cornerStart }: LaidPatches,
): void {
  const { positions, patches } = placed;
  const away = (v: number): [number, number, number] =>
    [0, 1, 2].map((k) => positions[3 * v + k]! - positions[3 * joined[0] + k]!) as [number, number, number];
  const along = unit3(away(joined[1]));
  const [f0, f1] = [away(free[0]), away(free[1])];
  const lift = dot(f0, along);
  const up = unit3([f0[0] - lift * along[0], f0[1] - lift * along[1], f0[2] - lift * along[2]]);
  const end = dot(away(joined[1]), along);
  const [a0, a1] = [dot(f0, along), dot(f1, along)];
  const [w0, w1] = [dot(f0, up), dot(f1, up)];
  // A mitred end keeps its slant.
  const slanted = (k: 0 | 1, aside: number, wide: number): Uv => {
    if (!ends[k] || Math.abs(wide) < same) return square[k];
    const [x, y] = unit(to[0] - from[0], to[1] - from[1]);
    return [square[k][0] + (aside / wide) * x, square[k][1] + (aside / wide) * y];
  };
  const ways = [slanted(0, a0, w0), slanted(1, a1 - end, w1)] as const;
  const lie = (node: number): Uv => {
    const p = away(node);
    const [a, w] = [dot(p, along), dot(p, up)];
    // Of the face's width, taken first as that at the start, then as that where the corner stands.
    let share = 0;
    for (let round = 0; round < 2; round++) {
      const width = w0 + share * (w1 - w0);
      const deep = Math.abs(width) < same ? 0 : w / width;
      const [left, right] = [deep * a0, end + deep * (a1 - end)];
      share = Math.abs(right - left) < same ? 0 : Math.max(0, Math.min(1, (a - left) / (right - left)));
    }
    const [x, y] = between(ways[0], ways[1], share);
    return [from[0] + share * (to[0] - from[0]) + w * x, from[1] + share * (to[1] - from[1]) + w * y];
  };
  for (const p of own)
    patches[p]!.nodes.forEach((node, i) => {
      const at = places.get(placeOf(p, node, placed)) ?? before.get(node) ?? lie(node);
      before.set(node, at);
      laid.set(cornerStart[p]! + i, at);
    });
}

/** Whether a patch is laid at true scale, but for what may be stretched: all its corners as far apart as they are, those nearer than a tenth of a millimetre left out. */
function isTrue(
  p: number,
  { laid, most }: { laid: ReadonlyMap<number, Uv>; most: number },
  { local: { a, l }, cornerStart }: LaidPatches,
): boolean {
  for (let c = cornerStart[p]!; c < cornerStart[p + 1]!; c++)
    for (let d = c + 1; d < cornerStart[p + 1]!; d++) {
      const real = Math.hypot(a[d]! - a[c]!, l[d]! - l[c]!);
      const [p0, q0] = [laid.get(c)!, laid.get(d)!];
      if (real > hair && Math.abs(Math.hypot(q0[0] - p0[0], q0[1] - p0[1]) / real - 1) > most) return false;
    }
  return true;
}

/** The corners of a patch along its near or its far side, from the edge's start to its end. */
function alongSide({ nodes, startNear, endNear, startFar, endFar }: Patch, far: boolean): number[] {
  const [from, to, step] = far ? [startFar, endFar, 1] : [startNear, endNear, nodes.length - 1];
  const out = [from];
  while (out.at(-1) !== to && out.length < nodes.length) out.push((out.at(-1)! + step) % nodes.length);
  return out;
}

const sameWay = (a: readonly [number, number], b: readonly [number, number]): boolean =>
  Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]) < micrometre;
/** A way between two others, as long as they are. */
function between(a: Uv, b: Uv, share: number): Uv {
  const [p, q] = [Math.hypot(...a), Math.hypot(...b)];
  const [x, y] = unit(a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1]));
  const size = p + share * (q - p);
  return [size * x, size * y];
}
const unit = (x: number, y: number): Uv => [x / (Math.hypot(x, y) || 1), y / (Math.hypot(x, y) || 1)];
function unit3(p: readonly [number, number, number]): [number, number, number] {
  const size = Math.hypot(...p) || 1;
  return [p[0] / size, p[1] / size, p[2] / size];
}
