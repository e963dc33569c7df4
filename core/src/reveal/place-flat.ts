/** Placing a tube on a flat chart. */
import { pointAt, type Chart } from '../element/chart.ts';
import { intoPatches, type PlacedTube } from './patches.ts';
import { begin, Splits, within, type FaceLines } from './placed.ts';
import type { Tube } from './tube.ts';
import { nanometre as same } from '../tolerances.ts';

/** Places a tube on a flat chart, at its own coordinates. */
export function placeFlat(tube: Tube, chart: Chart, lines: FaceLines | null): PlacedTube {
  const placed = begin(tube);
  for (let v = 0; v < tube.x.length; v++) {
    placed.positions.push(...pointAt(chart, tube.x[v]!, tube.y[v]!, tube.n[v]!));
    placed.u.push(tube.x[v]!);
    placed.v.push(tube.y[v]!);
  }
  if (!lines) {
    intoPatches(placed, () => nothing, null);
    return placed;
  }
  const lineOf = new Map<number, number[]>();
  const splits = new Splits();
  const { columns, rows } = lines;
  intoPatches(
    placed,
    (a, b) =>
      Math.abs(placed.n[a]! - placed.n[b]!) > same
        ? nothing
        : splits.between(a, b, (p, q) => divided(placed, chart, { lines, lineOf, p, q })),
    {
      of: (v) => lineOf.get(v) ?? nothing,
      past: (line, v) =>
        line < columns.length ? placed.u[v]! - columns[line]! : placed.v[v]! - rows[line - columns.length]!,
    },
  );
  return placed;
}

const nothing: number[] = [];

/** Makes the nodes at which an edge crosses columns and rows. */
function divided(
  placed: PlacedTube,
  chart: Chart,
  { lines: { columns, rows }, lineOf, p, q }: { lines: FaceLines; lineOf: Map<number, number[]>; p: number; q: number },
): number[] {
  const [px, py, qx, qy] = [placed.u[p]!, placed.v[p]!, placed.u[q]!, placed.v[q]!];
  const cuts: { at: number; line: number }[] = [];
  within(columns, px, qx, (i) => cuts.push({ at: (columns[i]! - px) / (qx - px), line: i }));
  within(rows, py, qy, (i) => cuts.push({ at: (rows[i]! - py) / (qy - py), line: columns.length + i }));
  cuts.sort((c, d) => c.at - d.at);
  const found: number[] = [];
  let last = -1;
  for (const { at, line } of cuts) {
    if (last >= 0 && at - last < same) {
      lineOf.get(found.at(-1)!)!.push(line);
      continue;
    }
    const isColumn = line < columns.length;
    const x = isColumn ? columns[line]! : px + at * (qx - px);
    const y = isColumn ? py + at * (qy - py) : rows[line - columns.length]!;
    const n = placed.n[p]!;
    placed.positions.push(...pointAt(chart, x, y, n));
    placed.u.push(x);
    placed.v.push(y);
    placed.n.push(n);
    const v = placed.u.length - 1;
    lineOf.set(v, [line]);
    found.push(v);
    last = at;
  }
  return found;
}
