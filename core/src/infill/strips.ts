/** The bars of fans, interlacing heads and lattices as strips, before they are laid over the field that they part. Metres. */
import type { Fan, Interlacing, Lattice } from '@yard-arch/document';
import { micrometre, millimetre } from '../tolerances.ts';
import { areaWithin, extentOf, holds, type Area, type AreaEdge, type Chord, type Spot } from './area.ts';
import { NotDivided } from './divide.ts';
import { mostPieces, parted, type Parted, type StripOutline } from './partition.ts';

const straight: AreaEdge = { side: null, chord: null };

/** A straight bar from one place to another, so wide. */
function bar([ax, ay]: Spot, [bx, by]: Spot, width: number): StripOutline {
  const length = Math.hypot(bx - ax, by - ay);
  const along: Spot = [(bx - ax) / length, (by - ay) / length];
  const [px, py] = [(-along[1] * width) / 2, (along[0] * width) / 2];
  return {
    points: [
      [ax - px, ay - py],
      [bx - px, by - py],
      [bx + px, by + py],
      [ax + px, ay + py],
    ],
    edges: [straight, straight, straight, straight],
    along,
  };
}

/** Places on a circle from one angle to another, counter-clockwise where it grows; and the chords between them, out of the circle's middle where `out` is 1. */
function arc(
  [x, y]: Spot,
  radius: number,
  { from, to, out }: { from: number; to: number; out: 1 | -1 },
): { points: Spot[]; chords: Chord[] } {
  const step = 2 * Math.acos(Math.max(0.5, 1 - millimetre / radius));
  const count = Math.max(2, Math.ceil(Math.abs(to - from) / step));
  const angles = Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
  const normal = (angle: number): Spot => [out * Math.cos(angle), out * Math.sin(angle)];
  return {
    points: angles.map((angle) => [x + radius * Math.cos(angle), y + radius * Math.sin(angle)]),
    chords: angles.slice(1).map((angle, i) => {
      const [a, b] = [normal(angles[i]!), normal(angle)];
      return { ax: a[0], ay: a[1], bx: b[0], by: b[1] };
    }),
  };
}

/** A bar that runs round a middle. */
function ring(
  middle: Spot,
  { radius, width }: { radius: number; width: number },
  { from, to }: { from: number; to: number },
): StripOutline {
  const outer = arc(middle, radius + width / 2, { from, to, out: 1 });
  const inner = arc(middle, radius - width / 2, { from: to, to: from, out: -1 });
  const half = (from + to) / 2;
  return {
    points: [...outer.points, ...inner.points],
    edges: [...outer.chords.map(rounded), straight, ...inner.chords.map(rounded), straight],
    along: [-Math.sin(half), Math.cos(half)],
  };
}

const rounded = (chord: Chord): AreaEdge => ({ side: null, chord });

/** How far an area reaches from a place. */
const reachFrom = ({ points }: Area, [x, y]: Spot): number =>
  Math.max(...points.map(([px, py]) => Math.hypot(px - x, py - y)));

/** Some place well within an area: in the middle of the largest of the triangles that its first corner, or any other, sees. */
export function amidst({ points }: Area): Spot {
  let best: Spot = points[0]!;
  let largest = 0;
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length]!;
    for (let k = i + 2; k < points.length && k < i + 24; k++) {
      const c = points[k]!;
      const size = areaWithin([a, b, c]);
      if (size <= largest) continue;
      const middle: Spot = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3];
      if (!holds(points, middle)) continue;
      [best, largest] = [middle, size];
    }
  });
  return best;
}

/** What a fan makes of a field, lights told by their band, from the middle outward. @throws NotDivided */
export function fanned(area: Area, fan: Fan): Parted & { band: (light: Area) => number } {
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const foot = fan.about === 'foot';
  const middle: Spot = [(left + right) / 2, foot ? low : (low + high) / 2];
  const reach = foot ? high - low : Math.min(high - low, right - left) / 2;
  const { width } = fan.bar;
  const radii = [...fan.rings].sort((a, b) => a - b).map((share) => share * reach);
  radii.forEach((radius, i) => {
    if (
      radius - width / 2 < (radii[i - 1] ?? 0) + (i > 0 ? width / 2 : 0) + millimetre ||
      radius + width / 2 > reach - millimetre
    )
      throw new NotDivided('its rings leave no light between them');
  });
  const begins = fan.hub && radii.length > 0 ? radii[0]! : 0;
  const far = 1.1 * reachFrom(area, middle) + width;
  const turn = foot ? Math.PI : 2 * Math.PI;
  const count = foot ? fan.count - 1 : fan.count;
  if (begins > 0 && begins * turn < count * width) throw new NotDivided('its bars leave no room at its hub');
  const bars = Array.from({ length: count }, (_, i) => {
    const angle = foot ? ((i + 1) * Math.PI) / fan.count : Math.PI / 2 + (i * turn) / fan.count;
    const way: Spot = [Math.cos(angle), Math.sin(angle)];
    const at = (radius: number): Spot => [middle[0] + radius * way[0], middle[1] + radius * way[1]];
    return bar(at(begins), at(far), width);
  });
  // Halves, so that no piece has a hole; a fan from its foot has its rings go on a little below.
  const [from, to] = foot ? [-0.1, Math.PI + 0.1] : [0, Math.PI];
  const rings = radii.flatMap((radius) => [
    ring(middle, { radius, width }, { from, to: (from + to) / 2 }),
    ring(middle, { radius, width }, { from: (from + to) / 2, to }),
    ...(foot
      ? []
      : [
          ring(middle, { radius, width }, { from: Math.PI, to: 1.5 * Math.PI }),
          ring(middle, { radius, width }, { from: 1.5 * Math.PI, to: 2 * Math.PI }),
        ]),
  ]);
  const found = parted(area, [...rings, ...bars]);
  const band = (light: Area): number => {
    const [x, y] = amidst(light);
    const away = Math.hypot(x - middle[0], y - middle[1]);
    return radii.filter((radius) => radius < away).length;
  };
  return { ...found, band };
}

/** Where the upright sides of an area end and its arch begins; its lowest where it has none. */
function springingOf({ points, edges }: Area): number {
  const [low, high] = extentOf({ points, edges }, 1);
  const upright = points.flatMap(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    return Math.abs(nx - x) < micrometre && Math.abs(ny - y) > millimetre ? [Math.max(y, ny)] : [];
  });
  const springing = upright.length > 0 ? Math.max(...upright) : low;
  return springing < high - millimetre ? springing : low;
}

/**
 * What interlacing bars make of a field: each goes on from its mullion to the left and to the right in arcs of the radius that the
 * sides of a two-centred arch of this width and rise have. @throws NotDivided
 */
export function interlaced(area: Area, { bar: { width }, count }: Interlacing): Parted {
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const springing = springingOf(area);
  const [wide, rise] = [right - left, high - springing];
  if (rise < 0.25 * wide) throw new NotDivided('its head is too low for bars that interlace');
  // (c + w/2)² = c² + h², of the centre's distance c from the middle.
  const radius = (rise * rise - (wide * wide) / 4) / wide + wide / 2;
  const light = (wide - (count - 1) * width) / count;
  if (light < 2 * millimetre) throw new NotDivided('its mullions leave no light between them');
  const strips: StripOutline[] = [];
  for (let i = 0; i + 1 < count; i++) {
    const x = left + (i + 1) * light + (i + 0.5) * width;
    if (springing > low + millimetre) strips.push(bar([x, low - 1], [x, springing], width));
    const most = Math.PI / 2;
    strips.push(ring([x + radius, springing], { radius, width }, { from: Math.PI - most, to: Math.PI }));
    strips.push(ring([x - radius, springing], { radius, width }, { from: 0, to: most }));
  }
  return parted(area, strips);
}

/** What a lattice makes of a field: bars aslant both ways, as many as keep their spacing. @throws NotDivided */
export function latticed(area: Area, { bar: { width }, spacing, slope }: Lattice): Parted {
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const angle = (slope * Math.PI) / 180;
  const middle: Spot = [(left + right) / 2, (low + high) / 2];
  if (spacing < width + millimetre) throw new NotDivided('its bars leave no light between them');
  const far = reachFrom(area, middle) + width;
  const each = Math.ceil(far / spacing);
  if (4 * each * each > mostPieces) throw new NotDivided(`it would be in more than ${mostPieces} pieces`);
  const strips = ([angle, Math.PI - angle] as const).flatMap((way) => {
    const along: Spot = [Math.cos(way), Math.sin(way)];
    return Array.from({ length: 2 * each }, (_, k) => {
      const away = (k - each + 0.5) * spacing;
      const at: Spot = [middle[0] - along[1] * away, middle[1] + along[0] * away];
      return bar(
        [at[0] - 2 * far * along[0], at[1] - 2 * far * along[1]],
        [at[0] + 2 * far * along[0], at[1] + 2 * far * along[1]],
        width,
      );
    });
  });
  return parted(area, strips);
}

/** Lights in the order in which they are read: from the lowest, and there from the left. */
export function inOrder(lights: readonly Area[]): Area[] {
  const keyed = lights.map((light) => ({ light, at: amidst(light) }));
  keyed.sort((a, b) => a.at[1] - b.at[1] || a.at[0] - b.at[0]);
  return keyed.map(({ light }) => light);
}
