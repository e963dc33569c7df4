/**
 * Dormers: told in the directions across (x, from the opening's middle), into the roof (d, level, from the opening's foot) and plumb (h, from the roof there), so that nothing but the
 * last step knows the plane's slope. Whatever runs up to the plane ends in it: at a height h it is h / tan(slope) in. Metres.
 */
import { omit, type Dormer, type Units } from '@yard-arch/document';
import { defaultFineness } from '../profile/flatten.ts';
import { squareSections } from '../profile/section.ts';
import { outlineOf } from '../setout/outlined.ts';
import { worded, type Placed } from '../setout/placed.ts';
import { millimetre } from '../tolerances.ts';
import { Facets, type Point } from './facets.ts';
import type { Front, PartMesh } from './part.ts';
import { tidy } from '../tidy.ts';
import { dot, minus, newell } from '../vector.ts';

/** A place of a dormer: across, into the roof, plumb. */
type Spot = readonly [x: number, d: number, h: number];

/** A dormer's own figures. */
interface Shape {
  dormer: Dormer;
  /** Half of the opening's width, and half of the whole front's. */
  half: number;
  wide: number;
  /** The tangent of the plane's slope. */
  steep: number;
  /** How far its roof reaches before the opening's foot, and to either side. */
  before: number;
  beside: number;
  /** How high the eaves are. */
  eaves: number;
}

/** Where its roof is as one looks at it from before: the underside and the top at a place across. */
interface Section {
  xs: number[];
  under: (x: number) => number;
  top: (x: number) => number;
}

/** What a dormer is of, or why there is none. @param slope of the plane on which its opening is, radians */
export function dormerOf(
  dormer: Dormer,
  placed: Pick<Placed, 'profile'> & { slope?: number | undefined },
  units: Units,
): { part: PartMesh; reach: Spot[] } | string {
  const { slope, profile } = placed;
  if (slope === undefined) return 'its dormer stands on a plane of a roof';
  const { wall, roof, form } = dormer;
  const half = profile.width / 2;
  const wide = half + wall;
  const shape: Shape = {
    dormer,
    half,
    wide,
    steep: Math.tan(slope),
    before: wall + roof.over,
    beside: wide + (form === 'eyebrow' ? 0 : roof.over),
    eaves: form === 'eyebrow' ? 0 : dormer.height,
  };
  const refused = refusal(shape, profile.height * Math.cos(slope), units);
  if (refused) return refused;
  const into = (([x, d, h]: Spot): Point => [
    x,
    d * Math.sin(slope) - h * Math.cos(slope),
    d * Math.cos(slope) + h * Math.sin(slope),
  ]) as Into;
  const facets = new Facets(dormer.material);
  const front = frontOf(facets, shape, into, units);
  if (typeof front === 'string') return front;
  if (form !== 'eyebrow') for (const side of [-1, 1] as const) cheek(facets, shape, side, into);
  const reach = roofOf(facets, shape, into);
  const key = JSON.stringify(['dormer', { ...dormer, id: '' }, tidy(profile.width), tidy(profile.height), tidy(slope)]);
  return { part: { key, name: 'dormer', mesh: facets.finish(), front: drawn(shape, into, reach) }, reach };
}

type Into = (spot: Spot) => Point;

/** Why a dormer cannot be so. @param long how far into the roof its opening reaches, level */
function refusal(shape: Shape, long: number, units: Units): string | null {
  const { dormer, steep, eaves, half } = shape;
  const pitch = Math.tan((dormer.pitch * Math.PI) / 180);
  const { form } = dormer;
  if ((form === 'lean-to' || form === 'flat') && slopeAlong(dormer) >= steep - 1e-3)
    return 'its dormer’s roof is as steep as the plane, and never comes into it';
  if ((form === 'gabled' || form === 'hipped' || form === 'segmental' || form === 'eyebrow') && pitch < 0.02)
    return `its dormer is ${form}, and needs a pitch`;
  const covers = form === 'eyebrow' ? sectionOf(shape).under(0) / steep : backOf(shape, eaves);
  if (long > covers + millimetre)
    return `its opening goes ${worded(long, units)} into the roof, and its dormer covers ${worded(Math.max(0, covers), units)} of that: make the dormer higher, or the opening shorter`;
  if (form === 'hipped' && shape.beside - shape.before > backOf(shape, ridge(shape)) - millimetre)
    return 'its dormer’s hip would reach back into the plane: make it higher, or narrower';
  const { xs, under } = sectionOf(shape);
  const front = form === 'lean-to' || form === 'flat' ? eaves - slopeAlong(dormer) * shape.before : under(xs[0]!);
  if (front < -shape.before * steep)
    return 'its dormer’s eaves would run into the roof: give them less overhang or less pitch, or make it higher';
  if (half < millimetre) return 'it is too narrow for a dormer';
  return null;
}

/** The slope of a roof that falls to the front. */
const slopeAlong = ({ form, pitch }: Dormer): number => (form === 'flat' ? 0 : Math.tan((pitch * Math.PI) / 180));

/** How far in the underside that is so high at the front comes into the plane. */
function backOf({ dormer, steep }: Shape, height: number): number {
  const rises = dormer.form === 'lean-to' || dormer.form === 'flat' ? slopeAlong(dormer) : 0;
  return height / (steep - rises);
}

/** How high the underside of a gabled or hipped roof is at its ridge. */
const ridge = ({ dormer, wide, eaves }: Shape): number => eaves + wide * Math.tan((dormer.pitch * Math.PI) / 180);

/** How much of a thickness is seen plumb. */
const plumb = ({ dormer }: Shape): number => dormer.roof.thickness / Math.cos((dormer.pitch * Math.PI) / 180);

const chords = 16;

/** The roof from before: its underside passes over the outer edges of the cheeks at the eaves. */
function sectionOf(shape: Shape): Section {
  const { dormer, wide, beside, eaves } = shape;
  const pitch = (dormer.pitch * Math.PI) / 180;
  switch (dormer.form) {
    case 'gabled':
    case 'hipped': {
      const under = (x: number): number => eaves + (wide - Math.abs(x)) * Math.tan(pitch);
      return { xs: [-beside, 0, beside], under, top: (x) => under(x) + plumb(shape) };
    }
    case 'lean-to':
    case 'flat':
      return { xs: [-beside, beside], under: () => eaves, top: () => eaves + plumb(shape) };
    case 'segmental':
    case 'eyebrow': {
      const radius = wide / Math.sin(pitch);
      const centre = eaves - radius * Math.cos(pitch);
      // No further round than half a circle.
      const far = Math.min(beside, 0.999 * radius);
      const over =
        (r: number) =>
        (x: number): number =>
          centre + Math.sqrt(Math.max(0, r * r - x * x));
      const [own, end] = [pitch, Math.asin(far / radius)];
      // The eaves are among its corners, so that it lies on the cheeks.
      const angles = Array.from({ length: chords + 1 }, (_, i) => own * ((2 * i) / chords - 1));
      if (end > own + 1e-6) angles.unshift(-end, -(own + end) / 2);
      if (end > own + 1e-6) angles.push((own + end) / 2, end);
      return {
        xs: angles.map((angle) => radius * Math.sin(angle)),
        under: over(radius),
        top: over(radius + dormer.roof.thickness),
      };
    }
  }
}

/** Adds a face whose corners run counter-clockwise as it is seen from outside; its texture runs the way that is wished, as far as that lies in it. */
function add(facets: Facets, into: Into, spots: readonly Spot[], wish: Spot): void {
  const own = withoutDoubles(spots.map(into));
  if (own.length > 2 && Math.hypot(...newell(own)) > 1e-12) facets.add(own, grainOf(own, into, wish));
}

/** A loop without points that are the next one too, as where an eyebrow's roof comes down to the front's foot. */
const withoutDoubles = (points: readonly Point[]): Point[] =>
  points.filter((point, i) => {
    const next = points[(i + 1) % points.length]!;
    return Math.hypot(point[0] - next[0], point[1] - next[1], point[2] - next[2]) > 1e-9;
  });

/** A direction of a face: that which is wished, or upright, or level, as far as it lies in the face. */
function grainOf(points: readonly Point[], into: Into, wish: Spot): Point {
  const long = newell(points);
  const size = Math.hypot(...long);
  const normal: Point = [long[0] / size, long[1] / size, long[2] / size];
  const origin = into([0, 0, 0]);
  for (const way of [wish, upward, across, inward]) {
    const there = minus(into(way), origin);
    const off = dot(there, normal);
    const along: Point = [there[0] - off * normal[0], there[1] - off * normal[1], there[2] - off * normal[2]];
    if (Math.hypot(...along) > 0.2) return along;
  }
  return [1, 0, 0];
}

const upward: Spot = [0, 0, 1];
const across: Spot = [1, 0, 0];
const inward: Spot = [0, 1, 0];

/** The front on the roof before the opening's foot, with its window cut through; or why that does not fit. */
function frontOf(facets: Facets, shape: Shape, into: Into, units: Units): string | null {
  const { dormer, wide, steep } = shape;
  const { wall } = dormer;
  const { xs, under } = sectionOf(shape);
  const along = dormer.form === 'lean-to' || dormer.form === 'flat' ? slopeAlong(dormer) : 0;
  // Its top follows the underside from one cheek's outer edge to the other's; of a hipped roof it is level.
  const places = [-wide, ...xs.filter((x) => Math.abs(x) < wide - 1e-9), wide];
  const level = dormer.form === 'hipped' ? (): number => shape.eaves : under;
  const top = places.map((x): readonly [number, number] => [x, Math.max(level(x), 0)]);
  const foot = -wall * steep;
  const hole = windowLoop(dormer);
  if (typeof hole === 'string') return hole;
  const outline: (readonly [number, number])[] = [[-wide, foot], [wide, foot], ...[...top].reverse()];
  if (
    hole &&
    !hole.every(([x, h]) => h > 1e-6 && Math.abs(x) < wide - 1e-6 && h < roofAt(top, x) - along * wall - 1e-6)
  )
    return `its dormer’s window does not fit in the front, which is ${worded(2 * wide, units)} wide: make it smaller, or the dormer higher`;
  const face = (d: number, lift: number): Spot[][] => [
    outline.map(([x, h]): Spot => [x, d, h === foot ? (d === 0 ? 0 : foot) : h + lift]),
    ...(hole ? [[...hole].reverse().map(([x, h]): Spot => [x, d, h])] : []),
  ];
  // Under a roof that falls to the front its outer face is lower.
  const [outer, inner] = [face(-wall, -along * wall), face(0, 0)];
  facets.begin(dormer.material);
  const flat = (loops: Spot[][]): Point[][] => loops.map((loop) => withoutDoubles(loop.map(into)));
  for (const loops of [flat(outer), flat(inner.map((loop) => [...loop].reverse()))])
    facets.addHoled(loops, grainOf(loops[0]!, into, across));
  outer.forEach((loop, k) =>
    loop.forEach((a, i) => {
      const j = (i + 1) % loop.length;
      add(facets, into, [a, inner[k]![i]!, inner[k]![j]!, loop[j]!], inward);
    }),
  );
  return null;
}

/** How high a chain is at a place across. */
function roofAt(top: readonly (readonly [number, number])[], x: number): number {
  for (let i = 0; i + 1 < top.length; i++) {
    const [[ax, ah], [bx, bh]] = [top[i]!, top[i + 1]!];
    if (x >= ax - 1e-9 && x <= bx + 1e-9) return ah + ((x - ax) / (bx - ax)) * (bh - ah);
  }
  return -Infinity;
}

/** The outline of a dormer's window in its front, counter-clockwise, or why it has none. */
function windowLoop({ window }: Dormer): (readonly [number, number])[] | null | string {
  if (!window) return null;
  const made = outlineOf({ shape: window.shape }, window.dimensions, 'mm', defaultFineness);
  if ('reason' in made) return `its dormer’s window cannot be made: ${made.reason}`;
  if (made.outline.loops.length !== 1) return 'its dormer’s window has islands';
  const { outline, profile } = made;
  return Array.from(outline.xs, (x, i) => [x - profile.width / 2, outline.ys[i]! + window.sill] as const);
}

/** The window of a dormer as an opening of its front, and where that is: the middle of its lowest, in the dormer's directions. */
export function dormerWindow(dormer: Dormer, own: Placed): { placed: Placed; at: Spot } | null {
  const { window, wall } = dormer;
  if (!window?.infill || own.slope === undefined) return null;
  const made = outlineOf({ shape: window.shape }, window.dimensions, 'mm', defaultFineness);
  if ('reason' in made) return null;
  // It goes square through the front, however the dormer's own opening goes through the roof.
  const plain = omit(own, 'drift', 'clear', 'leans', 'flank', 'carrier', 'slope', 'layers', 'from');
  const placed: Placed = {
    ...plain,
    ...made,
    pattern: { ...omit(own.pattern, 'parts', 'sections', 'onSlope'), infill: window.infill },
    depth: wall,
    sections: squareSections(wall),
    kind: 'through',
  };
  return { placed, at: [0, -wall, window.sill] };
}

/** A cheek, from the opening's foot back to where the underside comes into the plane. */
function cheek(facets: Facets, shape: Shape, side: -1 | 1, into: Into): void {
  const { dormer, half, wide, steep, eaves } = shape;
  const back = backOf(shape, eaves);
  facets.begin(dormer.material);
  const profile: (readonly [number, number])[] = [
    [0, 0],
    [back, back * steep],
    [0, eaves],
  ];
  const [near, far] = [side * half, side * wide];
  const at = (x: number) => profile.map(([d, h]): Spot => [x, d, h]);
  const [inner, outer] = [at(near), at(far)];
  // Seen from the right its profile runs counter-clockwise.
  add(facets, into, side === 1 ? outer : [...outer].reverse(), inward);
  add(facets, into, side === 1 ? [...inner].reverse() : inner, inward);
  profile.forEach((_, i) => {
    const j = (i + 1) % profile.length;
    const quad: Spot[] = [outer[j]!, outer[i]!, inner[i]!, inner[j]!];
    add(facets, into, side === 1 ? quad : [...quad].reverse(), inward);
  });
}

/** The dormer's own roof. @returns where the top of its back comes into the plane, from the left */
function roofOf(facets: Facets, shape: Shape, into: Into): Spot[] {
  const { dormer } = shape;
  facets.begin(dormer.roof.material);
  if (dormer.form === 'hipped') return hipped(facets, shape, into);
  if (dormer.form === 'lean-to' || dormer.form === 'flat') return leaning(facets, shape, into);
  return swept(facets, shape, into);
}

/** A roof of one section all the way back, where each of its lines ends in the plane. */
function swept(facets: Facets, shape: Shape, into: Into): Spot[] {
  const { before, steep } = shape;
  const { xs, under, top } = sectionOf(shape);
  const loop: (readonly [number, number])[] = [
    ...xs.map((x) => [x, under(x)] as const),
    ...[...xs].reverse().map((x) => [x, top(x)] as const),
  ];
  // What is lower than the plane at its front has no length.
  const near = loop.map(([x, h]): Spot => [x, -before, h]);
  const far = loop.map(([x, h]): Spot => [x, Math.max(-before, h / steep), h]);
  add(facets, into, near, across);
  add(facets, into, [...far].reverse(), across);
  loop.forEach((_, i) => {
    const j = (i + 1) % loop.length;
    add(facets, into, [near[i]!, far[i]!, far[j]!, near[j]!], inward);
  });
  return far.slice(xs.length).reverse();
}

/** A roof that falls to the front, or lies level. */
function leaning(facets: Facets, shape: Shape, into: Into): Spot[] {
  const { dormer, before, beside, steep, eaves } = shape;
  const along = slopeAlong(dormer);
  const high = eaves + plumb(shape);
  const end = (h: number): readonly [number, number] => {
    const d = h / (steep - along);
    return [d, d * steep];
  };
  const profile: (readonly [number, number])[] = [
    [-before, eaves - along * before],
    end(eaves),
    end(high),
    [-before, high - along * before],
  ];
  const at = (x: number) => profile.map(([d, h]): Spot => [x, d, h]);
  const [left, right] = [at(-beside), at(beside)];
  add(facets, into, right, inward);
  add(facets, into, [...left].reverse(), inward);
  profile.forEach((_, i) => {
    const j = (i + 1) % profile.length;
    add(facets, into, [left[i]!, left[j]!, right[j]!, right[i]!], inward);
  });
  return [left[2]!, right[2]!];
}

/** A gabled roof with a hip before it, of the same pitch: as thick, plumb, everywhere. */
function hipped(facets: Facets, shape: Shape, into: Into): Spot[] {
  const { before, beside, steep, dormer } = shape;
  const pitch = Math.tan((dormer.pitch * Math.PI) / 180);
  const { under, top } = sectionOf(shape);
  const layer = (height: (x: number) => number) => {
    const [e, r] = [height(beside), height(0)];
    return {
      left: [-beside, -before, e] as Spot,
      right: [beside, -before, e] as Spot,
      apex: [0, beside - before, e + beside * pitch] as Spot,
      back: [0, r / steep, r] as Spot,
      leftBack: [-beside, e / steep, e] as Spot,
      rightBack: [beside, e / steep, e] as Spot,
    };
  };
  const [u, t] = [layer(under), layer(top)];
  for (const [{ left, right, apex, back, leftBack, rightBack }, up] of [
    [t, true],
    [u, false],
  ] as const) {
    const faces: Spot[][] = [
      [left, right, apex],
      [right, rightBack, back, apex],
      [left, apex, back, leftBack],
    ];
    for (const face of faces) add(facets, into, up ? face : [...face].reverse(), across);
  }
  add(facets, into, [u.left, u.right, t.right, t.left], across);
  add(facets, into, [u.right, u.rightBack, t.rightBack, t.right], inward);
  add(facets, into, [u.leftBack, u.left, t.left, t.leftBack], inward);
  add(facets, into, [u.rightBack, u.back, u.leftBack, t.leftBack, t.back, t.rightBack], across);
  return [t.leftBack, t.back, t.rightBack];
}

/** How it is drawn on the plane's sheet: its roof as it is seen along the sheet, and the foot of its front. */
function drawn(shape: Shape, into: Into, reach: readonly Spot[]): Front[] {
  const { wide, dormer, before } = shape;
  const seen = (spots: readonly Spot[]): (readonly [number, number])[] =>
    spots.map((spot) => {
      const [x, , z] = into(spot);
      return [x, z] as const;
    });
  const { xs, under } = sectionOf(shape);
  const falls = dormer.form === 'lean-to' || dormer.form === 'flat' ? slopeAlong(dormer) * before : 0;
  const eaves: Spot[] =
    dormer.form === 'gabled'
      ? xs.map((x) => [x, -before, under(x)])
      : [xs[0]!, xs.at(-1)!].map((x) => [x, -before, under(x) - falls]);
  return [
    { kind: 'solid', loops: [seen([...eaves, ...[...reach].reverse()])], material: dormer.roof.material },
    {
      kind: 'joint',
      loops: [
        seen([
          [-wide, -dormer.wall, -dormer.wall * shape.steep],
          [wide, -dormer.wall, -dormer.wall * shape.steep],
        ]),
      ],
    },
  ];
}
