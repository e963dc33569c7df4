/** What of a face is seen in a mesh: the loops that bound its triangles, developed on its chart. */
import type { Chart } from '../element/chart.ts';
import { placedIn } from '../element/chart.ts';
import type { CutMesh, Run } from '../mesh/cut-mesh.ts';
import { regionOf, type Region } from '../mesh/region.ts';
import { Rim } from '../mesh/rim.ts';
import { dot, minus, type Vector } from '../vector.ts';

const nothing: Region = {
  count: 0,
  xs: new Float64Array(0),
  ys: new Float64Array(0),
  next: new Uint32Array(0),
};

/** The region of the triangles of some runs, as they lie on a chart. */
export function regionIn(mesh: CutMesh, chart: Chart, of: (run: Run) => boolean): Region {
  const { points, vertices, triangles, runs } = mesh;
  const left = new Map<number, number[]>();
  const strike = (from: number, to: number): boolean => {
    const list = left.get(from);
    const at = list?.indexOf(to) ?? -1;
    if (at >= 0) list!.splice(at, 1);
    return at >= 0;
  };
  for (const run of runs)
    if (of(run))
      for (let t = run.first; t < run.first + run.count; t++)
        for (let k = 0; k < 3; k++) {
          const [a, b] = [vertices[triangles[3 * t + k]!]!, vertices[triangles[3 * t + ((k + 1) % 3)]!]!];
          if (strike(b, a)) continue;
          const list = left.get(a);
          if (list) list.push(b);
          else left.set(a, [b]);
        }
  const place = new Map([...new Set([...left].flatMap(([a, list]) => [a, ...list]))].map((v, i) => [v, i]));
  if (place.size === 0) return nothing;
  const spots = [...place.keys()].map((v) => onChart(chart, [points[3 * v]!, points[3 * v + 1]!, points[3 * v + 2]!]));
  const [xs, ys] = [spots.map(([s]) => s), spots.map(([, t]) => t)];
  const rim = new Rim({
    count: spots.length,
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: new Uint32Array(spots.length),
  });
  for (const [a, list] of left) for (const b of list) rim.add(place.get(a)!, place.get(b)!);
  const loops = rim.loops();
  if (!loops) return nothing;
  const { region } = regionOf([loops.points], xs, ys);
  return { ...region, next: Uint32Array.from(loops.next) };
}

/** Where a point of a face is on its chart: along and up, metres. */
function onChart(chart: Chart, point: Vector): readonly [number, number] {
  if (chart.kind === 'flat') {
    const from = minus(point, chart.origin);
    return [dot(from, chart.along), dot(from, chart.up)];
  }
  const [px, py, pz] = chart.frame ? placedIn(chart.frame, point) : point;
  let [least, s] = [Infinity, 0];
  for (let f = 0; f + 1 < chart.s.length; f++) {
    const [ax, ay] = [chart.x[f]!, chart.y[f]!];
    const [dx, dy] = [chart.x[f + 1]! - ax, chart.y[f + 1]! - ay];
    const share = Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy)));
    const off = Math.hypot(px - ax - share * dx, py - ay - share * dy);
    if (off < least) [least, s] = [off, chart.s[f]! + share * (chart.s[f + 1]! - chart.s[f]!)];
  }
  return [s, pz - chart.origin[2]];
}
