/** Small hardware of leaves: handles and straps, pinned where they are taken hold of or hung; they keep their shape whatever the leaf's size. */
import type { Handle, Leaf, Straps } from '@yard-arch/document';
import { millimetre } from '../tolerances.ts';
import { extentOf, holds, type Area } from './area.ts';
import { NotDivided } from './divide.ts';
import type { Facets, Point } from './facets.ts';
import { box, spanBetween, type Site } from './fillings.ts';
import type { Held } from './framing.ts';
import { facing } from './solids.ts';

/** Sides of what is turned. */
const around = 12;

/** A turned solid about an axis into the wall: radii at depths from the face at `y`, outward by `out`. */
function turned(
  facets: Facets,
  { axis: [x, z], y, out }: { axis: readonly [number, number]; y: number; out: 1 | -1 },
  profile: readonly (readonly [number, number])[],
): void {
  const spot = (k: number, i: number): Point => {
    const [away, radius] = profile[k]!;
    const angle = (2 * Math.PI * i) / around;
    return [x + radius * Math.cos(angle), y + out * away, z + radius * Math.sin(angle)];
  };
  const ring = (k: number): Point[] => Array.from({ length: around }, (_, i) => spot(k, i));
  facing(facets, ring(0), { way: [0, -out, 0], grain: [1, 0, 0] });
  facing(facets, ring(profile.length - 1), { way: [0, out, 0], grain: [1, 0, 0] });
  for (let k = 0; k + 1 < profile.length; k++)
    for (let i = 0; i < around; i++) {
      const [a, b] = [(2 * Math.PI * i) / around, (2 * Math.PI * (i + 1)) / around];
      const [da, dr] = [profile[k + 1]![0] - profile[k]![0], profile[k + 1]![1] - profile[k]![1]];
      const size = Math.hypot(da, dr);
      const normal = (angle: number): Point => [
        (da / size) * Math.cos(angle),
        (-out * dr) / size,
        (da / size) * Math.sin(angle),
      ];
      const shaded = [normal(a), normal(b), normal(b), normal(a)];
      facing(facets, [spot(k, i), spot(k, i + 1), spot(k + 1, i + 1), spot(k + 1, i)], {
        way: normal((a + b) / 2),
        grain: [0, 1, 0],
        shaded,
      });
    }
}

/** A block by its reaches. */
export function block(
  facets: Facets,
  [x0, x1]: readonly [number, number],
  [y0, y1]: readonly [number, number],
  [z0, z1]: readonly [number, number],
): void {
  const corner = (x: number, z: number, y: number): Point => [x, y, z];
  const spots = box([x0, x1], [z0, z1]);
  facing(
    facets,
    spots.map(([x, z]) => corner(x, z, y0)),
    { way: [0, -1, 0], grain: [1, 0, 0] },
  );
  facing(
    facets,
    spots.map(([x, z]) => corner(x, z, y1)),
    { way: [0, 1, 0], grain: [1, 0, 0] },
  );
  spots.forEach(([x, z], i) => {
    const [nx, nz] = spots[(i + 1) % 4]!;
    facing(facets, [corner(x, z, y0), corner(nx, nz, y0), corner(nx, nz, y1), corner(x, z, y1)], {
      way: [nz - z, 0, x - nx],
      grain: [nx - x, 0, nz - z],
    });
  });
}

/** Of the plate that a handle stands on. */
const roseRadius = 0.018;
/** Half of the distance between the feet of a pull; how far before its leaf a lever begins. */
const [half, leverFrom] = [0.055, 0.042];
/** From where to where a lever reaches. */
const leverEnds = (x: number, toward: -1 | 1): [number, number] =>
  toward > 0 ? [x - 0.012, x + 0.11] : [x - 0.11, x + 0.012];
/** Of a knob where it is thickest. */
const knobRadius = 0.022;

const rose: readonly (readonly [number, number])[] = [
  [0, roseRadius],
  [0.007, roseRadius],
  [0.009, 0.01],
];
const knob: readonly (readonly [number, number])[] = [
  ...rose,
  [0.03, 0.009],
  [0.036, 0.018],
  [0.044, knobRadius],
  [0.056, knobRadius],
  [0.063, 0.016],
  [0.067, 0.007],
];
const stem: readonly (readonly [number, number])[] = [...rose, [0.042, 0.009]];

/** Where a leaf is taken hold of: in the middle of its free stile or rail. */
function holdOf(
  { hung, frame: { width } }: Leaf,
  area: Area,
  height: number | undefined,
): { x: number; z: number; toward: -1 | 1 } {
  const [left, right] = extentOf(area, 0);
  const [low, high] = extentOf(area, 1);
  const z = height === undefined ? (low + high) / 2 : low + height;
  const free = {
    left: right,
    right: left,
    'slides left': right,
    'slides right': left,
    'folds left': right,
    'folds right': left,
  } as Record<string, number>;
  if (hung === 'top' || hung === 'slides up') return { x: (left + right) / 2, z: low + width / 2, toward: 1 };
  if (hung === 'bottom' || hung === 'slides down') return { x: (left + right) / 2, z: high - width / 2, toward: 1 };
  const at = free[hung] ?? right;
  const toward = at === right ? -1 : 1;
  return { x: at + (toward * width) / 2, z, toward };
}

/** A handle on both faces of a leaf, or on the inner one alone. @throws NotDivided where the leaf is lower than where it is to be */
export function handled(
  { facets, front }: Site,
  handle: Handle,
  leaf: Leaf,
  { area, range: { from, to, against, lip = 0 } }: Held,
): void {
  const [low, high] = extentOf(area, 1);
  const { x, z, toward } = holdOf(leaf, area, handle.height);
  if (z < low || z > high) throw new NotDivided('its handle would stand above or below its leaf');
  if (leaf.frame.width < 2 * (handle.kind === 'knob' ? knobRadius : roseRadius))
    throw new NotDivided('its handle is wider than the stile that it stands on');
  const reach: [number, number] = handle.kind === 'lever' ? leverEnds(x, toward) : [x - roseRadius, x + roseRadius];
  const tall = handle.kind === 'pull' ? half + 0.03 : roseRadius;
  const seen = box(reach, [z - tall, z + tall]);
  if (!seen.every((spot) => holds(area.points, spot))) throw new NotDivided('its handle would reach beyond its leaf');
  // On the side of a rebate's lip only where that leaves room.
  const covered = lip > leaf.frame.width / 2 - knobRadius ? against : undefined;
  // What tips about a level hinge is taken hold of from within alone: before it a handle would run into the frame.
  const tips = leaf.hung === 'top' || leaf.hung === 'bottom';
  const faces = [
    ...(covered === 'from' || tips ? [] : [[from, -1] as const]),
    ...(covered === 'to' ? [] : [[to, 1] as const]),
  ];
  for (const [y, out] of faces) {
    const aside = besideCover(leaf, out, toward);
    if (aside === null) continue;
    facets.begin(handle.material);
    handleOn({ facets, handle }, { x: x + aside, z, toward }, { y, out });
  }
  front.push({ kind: 'solid', loops: [seen], material: handle.material });
}

/** A handle on one face of a leaf. @param y where that face is @param out which way it looks */
function handleOn(
  { facets, handle }: { facets: Facets; handle: Handle },
  { x, z, toward }: { x: number; z: number; toward: -1 | 1 },
  { y, out }: { y: number; out: 1 | -1 },
): void {
  const on = (height: number, profile: typeof stem): void => turned(facets, { axis: [x, height], y, out }, profile);
  if (handle.kind === 'knob') on(z, knob);
  if (handle.kind === 'lever') {
    on(z, stem);
    facets.begin(handle.material);
    block(facets, leverEnds(x, toward), deep(y, out, 0.042, 0.056), [z - 0.01, z + 0.01]);
  }
  if (handle.kind === 'pull') {
    on(z - half, stem);
    facets.begin(handle.material);
    on(z + half, stem);
    facets.begin(handle.material);
    block(facets, [x - 0.011, x + 0.011], deep(y, out, 0.042, 0.058), [z - half - 0.03, z + half + 0.03]);
  }
}

/** How far aside a handle stands on one face of a leaf, so that it is clear of the strip that covers its joint there; null where that leaves it no room. */
function besideCover({ cover, hung, opens, frame: { width } }: Leaf, out: 1 | -1, toward: -1 | 1): number | null {
  const isThere = cover && (hung === 'left' || hung === 'right') && (opens === 'inward') === out < 0;
  if (!isThere) return 0;
  // Half of the strip lies on its own leaf.
  const free = width - cover.width / 2;
  return free < 2 * roseRadius || cover.depth > leverFrom ? null : (toward * cover.width) / 4;
}

const deep = (y: number, out: 1 | -1, near: number, far: number): [number, number] =>
  out > 0 ? [y + near, y + far] : [y - far, y - near];

/** How thick straps are. */
const strapThick = 0.006;

/** Straps across a leaf, on the face to which it opens. @throws NotDivided */
export function strapped(
  { facets, front }: Site,
  straps: Straps,
  leaf: Leaf,
  { area, range: { from, to } }: Held,
): void {
  const [low, high] = extentOf(area, 1);
  const { count, width, share, material } = straps;
  const free = (high - low - count * width) / (count + 1);
  if (free < millimetre) throw new NotDivided('its straps leave nothing of its leaf between them');
  for (let i = 0; i < count; i++) {
    // The outermost stand nearer to the ends than to each other.
    const share0 = count === 1 ? 0.5 : 0.12 + (0.76 * i) / (count - 1);
    const z = low + share0 * (high - low);
    const span = spanBetween(area, z - width / 2, z + width / 2);
    if (!span) continue;
    const long = (span[1] - span[0]) * share;
    // As far from the hinge as they are thick, they clear the frame as the leaf turns.
    const [left, right] = [span[0] + strapThick, span[1] - strapThick];
    const reach: [number, number] = leaf.hung === 'right' ? [span[1] - long, right] : [left, span[0] + long];
    facets.begin(material);
    block(facets, reach, leaf.opens === 'inward' ? [to, to + strapThick] : [from - strapThick, from], [
      z - width / 2,
      z + width / 2,
    ]);
    front.push({ kind: 'solid', loops: [box(reach, [z - width / 2, z + width / 2])], material });
  }
}
