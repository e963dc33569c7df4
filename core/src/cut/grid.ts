/** Rows and columns: the lines by which a face is divided where it is to be meshed in quads, and what of them lies on it. */
import type { Sheet } from '../element/sheet.ts';
import { leadsInside } from '../mesh/face.ts';
import type { Region } from '../mesh/region.ts';
import type { FaceLines } from '../reveal/placed.ts';
import type { Placed } from '../setout/placed.ts';
import { micrometre as same, nanometre, relative } from '../tolerances.ts';

/**
 * The rows and columns of a sheet with openings: through heads, sills, jambs and springings, through the corners of the sheet, and through the points of arches: columns where an arch is flatter than 45°, rows
 * where it is steeper, so that it fans out to the square about it.
 */
export function linesFor(sheet: Sheet, openings: readonly Placed[]): FaceLines {
  const columns: number[] = [];
  const rows: number[] = [];
  const { xs, ys } = sheet.outline;
  for (let i = 0; i < xs.length; i++) {
    columns.push(xs[i]!);
    rows.push(ys[i]!);
  }
  for (const { outline, s, t } of openings)
    for (let i = 0; i < outline.count; i++) {
      const j = outline.next[i]!;
      const [x, y] = [s + outline.xs[i]!, t + outline.ys[i]!];
      const chord = outline.arcs[i];
      if (chord)
        (Math.abs(chord.ay) >= Math.abs(chord.ax) - relative ? columns : rows).push(
          Math.abs(chord.ay) >= Math.abs(chord.ax) - relative ? x : y,
        );
      else {
        const [dx, dy] = [Math.abs(outline.xs[j]! - outline.xs[i]!), Math.abs(outline.ys[j]! - outline.ys[i]!)];
        if (dx < same) columns.push(x);
        else if (dy < same) rows.push(y);
        else {
          columns.push(x);
          rows.push(y);
        }
      }
    }
  // On a bent chart the ribs are its columns.
  return { columns: sheet.chart.kind === 'bent' ? new Float64Array(0) : tidied(columns), rows: tidied(rows) };
}

function tidied(values: number[]): Float64Array {
  values.sort((a, b) => a - b);
  const out: number[] = [];
  for (const value of values) if (out.length === 0 || value - out.at(-1)! > same) out.push(value);
  return Float64Array.from(out);
}

/** Where rows and columns cross within a region, x and y by turns; not where they cross on its boundary. */
export function crossings(region: Region, { columns, rows }: FaceLines): number[] {
  const { count, xs, ys, next } = region;
  const out: number[] = [];
  if (columns.length === 0) return out;
  for (const y of rows) {
    // Where the row enters and leaves, looked at just above it, and what of it runs along the boundary.
    const cuts: number[] = [];
    const on: [number, number][] = [];
    for (let v = 0; v < count; v++) {
      const w = next[v]!;
      const [ay, by] = [ys[v]!, ys[w]!];
      if (Math.abs(ay - y) <= same && Math.abs(by - y) <= same)
        on.push([Math.min(xs[v]!, xs[w]!), Math.max(xs[v]!, xs[w]!)]);
      else if (Math.abs(ay - y) <= same) on.push([xs[v]!, xs[v]!]);
      if (ay > y + same / 2 !== by > y + same / 2)
        cuts.push(xs[v]! + ((y + same / 2 - ay) / (by - ay)) * (xs[w]! - xs[v]!));
    }
    cuts.sort((a, b) => a - b);
    for (let i = 0; i + 1 < cuts.length; i += 2)
      for (const x of columns) {
        if (x <= cuts[i]! + 2 * same || x >= cuts[i + 1]! - 2 * same) continue;
        if (on.some(([from, to]) => x >= from - 2 * same && x <= to + 2 * same)) continue;
        out.push(x, y);
      }
  }
  return out;
}

/** The line that a point lies on, rounding apart: one forced past it would leave a triangle without area; -1 where there is none. */
function lineAt(values: Float64Array, value: number): number {
  let [low, high] = [0, values.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle]! < value - nanometre) low = middle + 1;
    else high = middle;
  }
  return low < values.length && values[low]! <= value + nanometre ? low : -1;
}

/** The pieces of rows and columns between neighbouring points of a region that has been divided at them: pairs of points. */
export function gridLines(region: Region, { columns, rows }: FaceLines): number[] {
  const { count, xs, ys, next } = region;
  const before = new Uint32Array(count);
  for (let v = 0; v < count; v++) before[next[v]!] = v;
  const lines: number[] = [];
  const sets: { values: Float64Array; across: Float64Array; along: Float64Array; way: readonly [number, number] }[] = [
    { values: columns, across: xs, along: ys, way: [0, 1] },
    { values: rows, across: ys, along: xs, way: [1, 0] },
  ];
  for (const { values, across, along, way } of sets) {
    const on = Array.from(values, (): number[] => []);
    for (let v = 0; v < across.length; v++) {
      const i = lineAt(values, across[v]!);
      if (i >= 0) on[i]!.push(v);
    }
    for (const list of on) {
      list.sort((a, b) => along[a]! - along[b]!);
      for (let i = 0; i + 1 < list.length; i++) {
        const v = list[i]!;
        const w = list[i + 1]!;
        if (along[w]! - along[v]! < nanometre) continue;
        if (v < count && (next[v] === w || !leadsInside(region, before, v, way[0], way[1]))) continue;
        if (w < count && (next[w] === v || !leadsInside(region, before, w, -way[0], -way[1]))) continue;
        lines.push(v, w);
      }
    }
  }
  return lines;
}
