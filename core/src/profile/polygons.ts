/** Profiles of straight edges only: regular polygons, stars and steel sections. */
import { line } from './panels.ts';
import { loopsProfile, sideOf } from './free.ts';
import type { Profile } from './profile.ts';

/** A closed polygon through points, counter-clockwise, as its bounding rectangle has it. */
function through(points: readonly (readonly [number, number])[]): Profile {
  const edges = points.map(([ax, ay], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    const e = line('sill', ax, ay, bx, by);
    return { ...e, side: sideOf(e) };
  });
  return { ...loopsProfile([edges], null, null), loops: [0] };
}

/** A regular polygon of n sides, standing on a side, its corners on a circle of a diameter (metres). */
export function regularPolygon(sides: number, diameter: number): Profile {
  const first = -Math.PI / 2 - Math.PI / sides;
  return through(Array.from({ length: sides }, (_, i) => at(diameter / 2, first + (2 * Math.PI * i) / sides)));
}

/** A star of n points, the first upright, between circles of two diameters (metres). */
export function star(points: number, diameter: number, inner: number): Profile {
  return through(
    Array.from({ length: 2 * points }, (_, i) =>
      at((i % 2 === 0 ? diameter : inner) / 2, Math.PI / 2 + (Math.PI * i) / points),
    ),
  );
}

function at(radius: number, angle: number): [number, number] {
  return [radius * Math.cos(angle), radius * Math.sin(angle)];
}

/** An I section: flanges above and below, a web in the middle. All metres. */
export function iSection(w: number, h: number, web: number, flange: number): Profile {
  const [l, r] = [(w - web) / 2, (w + web) / 2];
  return through([
    [0, 0],
    [w, 0],
    [w, flange],
    [r, flange],
    [r, h - flange],
    [w, h - flange],
    [w, h],
    [0, h],
    [0, h - flange],
    [l, h - flange],
    [l, flange],
    [0, flange],
  ]);
}

/** A T section: a flange above, a web below its middle. */
export function tSection(w: number, h: number, web: number, flange: number): Profile {
  const [l, r] = [(w - web) / 2, (w + web) / 2];
  return through([
    [l, 0],
    [r, 0],
    [r, h - flange],
    [w, h - flange],
    [w, h],
    [0, h],
    [0, h - flange],
    [l, h - flange],
  ]);
}

/** A channel: a web on the left, flanges above and below to the right. */
export function channelSection(w: number, h: number, web: number, flange: number): Profile {
  return through([
    [0, 0],
    [w, 0],
    [w, flange],
    [web, flange],
    [web, h - flange],
    [w, h - flange],
    [w, h],
    [0, h],
  ]);
}

/** An angle: a leg upright on the left and a leg along the bottom, of one thickness. */
export function angleSection(w: number, h: number, t: number): Profile {
  return through([
    [0, 0],
    [w, 0],
    [w, t],
    [t, t],
    [t, h],
    [0, h],
  ]);
}
