/** Flat sheets with an outline of their own, and holes. */
import type { FreeOutline, PlateForm } from '@yard-arch/document';
import { chordsOf, flatten, type Fineness } from '../../profile/flatten.ts';
import { edgesOf } from '../../profile/free.ts';
import type { SheetEdge } from '../sheet.ts';
import { flatChart, type Shape, type ShapeOutline } from './shape.ts';

export function plateShape(form: PlateForm): Shape {
  return {
    points: (fineness) =>
      [form.outline, ...(form.holes ?? [])].reduce((sum, outline) => sum + pointsOf(outline, fineness), 0),
    fine: 'outline',
    larger: 'larger',
    chart: () => flatChart(form.start, form.turn, form.tilt),
    outline: (fineness) => outlineOf(form, fineness),
  };
}

function pointsOf(outline: FreeOutline, fineness: Fineness): number {
  return outline.reduce(
    (sum, point, i) =>
      sum + (point.bulge ? arcPoints(point, outline[(i + 1) % outline.length]!, point.bulge, fineness) : 1),
    0,
  );
}

function arcPoints(
  a: { x: number; y: number },
  b: { x: number; y: number },
  bulge: number,
  fineness: Fineness,
): number {
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  const sweep = 4 * Math.atan(Math.abs(bulge));
  return chord === 0 ? 1 : chordsOf(chord / 2 / Math.sin(sweep / 2), sweep, fineness);
}

function outlineOf(element: PlateForm, fineness: Fineness): ShapeOutline {
  const loops = [edgesOf(element.outline), ...(element.holes ?? []).map((hole) => edgesOf(hole, true))];
  const starts: number[] = [];
  let at = 0;
  for (const loop of loops) {
    starts.push(at);
    at += loop.length;
  }
  const flat = flatten({ width: 0, height: 0, springing: null, edges: loops.flat(), loops: starts }, fineness);
  const holesFrom = flat.loops[1] ?? flat.count;
  return {
    xs: flat.xs,
    ys: flat.ys,
    next: flat.next,
    loops: flat.loops,
    names: Array.from(flat.xs, (_, i): SheetEdge => (i < holesFrom ? 'edge' : 'hole')),
    sections: Array.from(flat.xs, () => null),
    // The sheet is within its outline, so its normals point the other way from an opening's.
    chords: flat.arcs.map((arc) => arc && { ax: -arc.ax, ay: -arc.ay, bx: -arc.bx, by: -arc.by }),
    fault:
      loops[0]!.length < 2
        ? {
            code: 'no-outline' as const,
            reason: 'its outline encloses nothing',
            mend: 'Draw an outline of at least three points.',
          }
        : null,
  };
}
