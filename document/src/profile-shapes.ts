/** The shapes that a profile can have, and the dimensions that a size of each must give. */

interface Shape {
  /** What the trade calls it. */
  name: string;
  /** Dimensions by name, each with its label, in the order in which they are read and written; all are lengths. */
  dimensions: Record<string, string>;
  /** Dimensions of a first size, metres, in the same order. */
  first: readonly number[];
}

const sections = { width: 'Width', height: 'Height', web: 'Web' };
const span = { span: 'Span', height: 'Height' };

export const profileShapes = {
  rectangle: { name: 'Rectangle', dimensions: { width: 'Width', height: 'Height' }, first: [1.2, 1.4] },
  'rounded-rectangle': {
    name: 'Rounded rectangle',
    dimensions: { width: 'Width', height: 'Height', radius: 'Radius' },
    first: [1.2, 1.4, 0.2],
  },
  'chamfered-rectangle': {
    name: 'Chamfered rectangle',
    dimensions: { width: 'Width', height: 'Height', chamfer: 'Chamfer' },
    first: [1.2, 1.4, 0.2],
  },
  circle: { name: 'Circle', dimensions: { diameter: 'Diameter' }, first: [0.9] },
  ellipse: { name: 'Ellipse', dimensions: { width: 'Width', height: 'Height' }, first: [1.4, 0.9] },
  'semicircular-arch': { name: 'Semicircular arch', dimensions: span, first: [1.2, 2] },
  'segmental-arch': { name: 'Segmental arch', dimensions: { ...span, rise: 'Rise' }, first: [1.2, 1.8, 0.25] },
  'cambered-arch': {
    name: 'Flat arch with camber',
    dimensions: { ...span, camber: 'Camber' },
    first: [1.2, 1.6, 0.03],
  },
  'elliptical-arch': { name: 'Elliptical arch', dimensions: { ...span, rise: 'Rise' }, first: [1.8, 2, 0.5] },
  'three-centred-arch': { name: 'Three-centred arch', dimensions: { ...span, rise: 'Rise' }, first: [1.8, 2, 0.55] },
  'pointed-arch': { name: 'Pointed arch', dimensions: { ...span, rise: 'Rise' }, first: [1.2, 2.4, 1.0392] },
  'four-centred-arch': {
    name: 'Four-centred arch',
    dimensions: { ...span, rise: 'Rise', radius: 'Haunch radius' },
    first: [1.8, 2.2, 0.55, 0.25],
  },
  'horseshoe-arch': { name: 'Horseshoe arch', dimensions: { ...span, rise: 'Rise' }, first: [1.2, 2.2, 0.85] },
  'ogee-arch': { name: 'Ogee arch', dimensions: { ...span, rise: 'Rise' }, first: [1.2, 2.3, 0.9] },
  'regular-polygon': { name: 'Regular polygon', dimensions: { diameter: 'Diameter' }, first: [1] },
  star: { name: 'Star', dimensions: { diameter: 'Diameter', inner: 'Inner diameter' }, first: [1, 0.5] },
  'i-section': { name: 'I section', dimensions: { ...sections, flange: 'Flange' }, first: [0.4, 0.6, 0.06, 0.06] },
  't-section': { name: 'T section', dimensions: { ...sections, flange: 'Flange' }, first: [0.5, 0.6, 0.06, 0.06] },
  'channel-section': {
    name: 'Channel section',
    dimensions: { ...sections, flange: 'Flange' },
    first: [0.3, 0.6, 0.06, 0.06],
  },
  'angle-section': {
    name: 'Angle section',
    dimensions: { width: 'Width', height: 'Height', web: 'Thickness' },
    first: [0.5, 0.5, 0.06],
  },
  free: { name: 'Free outline', dimensions: { width: 'Width', height: 'Height' }, first: [1.2, 1.2] },
  text: { name: 'Text', dimensions: { height: 'Cap height' }, first: [0.4] },
  trefoil: { name: 'Trefoil', dimensions: { diameter: 'Diameter' }, first: [0.9] },
  quatrefoil: { name: 'Quatrefoil', dimensions: { diameter: 'Diameter' }, first: [0.9] },
} as const satisfies Record<string, Shape>;

/** What a shape takes besides dimensions. */
export type ProfileNeed = 'outline' | 'text' | 'sides';

/** What a shape takes besides dimensions, which its pattern must give. */
export function needsOf(shape: ProfileShape): ProfileNeed[] {
  if (shape === 'free') return ['outline'];
  if (shape === 'text') return ['text'];
  return shape === 'regular-polygon' || shape === 'star' ? ['sides'] : [];
}

/** Name of a profile's shape, as it stands in a document. */
export type ProfileShape = keyof typeof profileShapes;

/** Dimensions of a size by name, in metres. */
export type Dimensions = Readonly<Record<string, number>>;

/** The names of the dimensions that a shape needs, in the order in which they are read and written. */
export function dimensionNames(shape: ProfileShape): string[] {
  return Object.keys(profileShapes[shape].dimensions);
}

/** Dimensions of a first size of a shape, metres. */
export function firstDimensions(shape: ProfileShape): Dimensions {
  const { first } = profileShapes[shape];
  return Object.fromEntries(dimensionNames(shape).map((name, i) => [name, first[i]!]));
}

/** The label of one dimension of a shape; the bare name where the shape has no such dimension. */
export function dimensionLabel(shape: ProfileShape, name: string): string {
  const labels: Record<string, string> = profileShapes[shape].dimensions;
  return labels[name] ?? name;
}
