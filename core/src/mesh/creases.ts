/** Creases: the lines of a cut element that are drawn in ink, where its surfaces meet at an angle. */
import type { Sheet } from '../element/sheet.ts';
import type { Region } from './region.ts';

/** Edges that turn less than this are of one rounded surface: cosine of 25°. */
const rounded = Math.cos((25 * Math.PI) / 180);

/** Lines as pairs of points (x, y, z each), relative to the sheet's origin, metres. */
export function creasesOf(sheet: Sheet, region: Region): Float32Array {
  const { along, up, inward } = sheet.chart;
  const { xs, ys, next, count } = region;
  const lines: number[] = [];
  const point = (s: number, t: number, n: number): void => {
    lines.push(
      s * along[0] + t * up[0] + n * inward[0],
      s * along[1] + t * up[1] + n * inward[1],
      s * along[2] + t * up[2] + n * inward[2],
    );
  };
  for (let v = 0; v < count; v++) {
    const w = next[v]!;
    const x = next[w]!;
    for (const n of [0, sheet.thickness]) {
      point(xs[v]!, ys[v]!, n);
      point(xs[w]!, ys[w]!, n);
    }
    const [ax, ay, bx, by] = [xs[w]! - xs[v]!, ys[w]! - ys[v]!, xs[x]! - xs[w]!, ys[x]! - ys[w]!];
    const turn = (ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by));
    if (turn < rounded) {
      point(xs[w]!, ys[w]!, 0);
      point(xs[w]!, ys[w]!, sheet.thickness);
    }
  }
  return Float32Array.from(lines);
}
