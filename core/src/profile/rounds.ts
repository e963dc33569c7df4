/** Round profiles: circle, ellipse, trefoil and quatrefoil. Their springing line is the horizontal through the centre. */
import { arc } from './panels.ts';
import type { ArcEdge, Profile, Side } from './profile.ts';
import { relative } from '../tolerances.ts';

/** An ellipse of a width and a height (metres), a circle where they are alike. Its seams are at the springing. */
export function ellipse(width: number, height: number): Profile {
  const [rx, ry] = [width / 2, height / 2];
  const half = { kind: 'arc', cx: rx, cy: ry, rx, ry, seam: true } as const;
  return {
    width,
    height,
    springing: ry,
    edges: [
      { ...half, side: 'sill', from: -Math.PI, to: 0 },
      { ...half, side: 'head', from: 0, to: Math.PI },
    ],
  };
}

/**
 * A foiled figure of n foils, the first upright: circles of a quarter of the diameter D, their centres as far from the middle as they
 * are wide (r = D / 4), so that neighbours meet in cusps at 2 r cos(π / n) from the middle. Each foil is unrolled by itself, and its parts
 * are jamb, head or sill by the way that they face.
 */
export function foils(n: 3 | 4, diameter: number): Profile {
  const r = diameter / 4;
  const step = (2 * Math.PI) / n;
  // Middle, centre and cusp make a triangle with two sides r, so a foil turns 2 π / n to either side of the way out.
  const reach = step;
  const edges: ArcEdge[] = [];
  for (let k = 0; k < n; k++) {
    const out = Math.PI / 2 + k * step;
    const foil = arc('head', r * Math.cos(out), r * Math.sin(out), r, out - reach, out + reach);
    edges.push(...bySide(foil));
  }
  const points = edges.flatMap((edge) => extremes(edge));
  const left = Math.min(...points.map(([x]) => x));
  const low = Math.min(...points.map(([, y]) => y));
  return {
    width: Math.max(...points.map(([x]) => x)) - left,
    height: Math.max(...points.map(([, y]) => y)) - low,
    springing: -low,
    edges: edges.map((edge) => ({ ...edge, cx: edge.cx - left, cy: edge.cy - low })),
  };
}

/** Divides an arc where the way it faces passes a diagonal, and names each part by it. */
function bySide(foil: ArcEdge): ArcEdge[] {
  const quarter = Math.PI / 2;
  const stops = [foil.from];
  for (
    let q = Math.ceil((foil.from - quarter / 2) / quarter + relative);
    quarter / 2 + q * quarter < foil.to - relative;
    q++
  ) {
    const stop = quarter / 2 + q * quarter;
    if (stop > foil.from + relative) stops.push(stop);
  }
  stops.push(foil.to);
  const sides: Side[] = ['jamb-right', 'head', 'jamb-left', 'sill'];
  return stops.slice(1).map((to, i) => {
    const from = stops[i]!;
    const q = Math.round((from + to) / 2 / quarter);
    return { ...foil, side: sides[((q % 4) + 4) % 4]!, from, to, seam: i === 0 };
  });
}

/** Ends of an arc and whichever of its circle's four extremes it holds. */
function extremes({ cx, cy, rx, ry, from, to }: ArcEdge): [number, number][] {
  const quarter = Math.PI / 2;
  const angles = [from, to];
  for (let q = Math.ceil(from / quarter); q * quarter < to; q++) angles.push(q * quarter);
  return angles.map((angle) => [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)]);
}
