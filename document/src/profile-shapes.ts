/** The shapes that a profile can have, and the dimensions that a size of each must give. */

export const profileShapes = {
  rectangle: { name: 'Rectangle', dimensions: { width: 'Width', height: 'Height' } },
  circle: { name: 'Circle', dimensions: { diameter: 'Diameter' } },
  'semicircular-arch': { name: 'Semicircular arch', dimensions: { span: 'Span', height: 'Height' } },
} as const satisfies Record<string, { name: string; dimensions: Record<string, string> }>;

/** Name of a profile's shape, as it stands in a document. */
export type ProfileShape = keyof typeof profileShapes;

/** Dimensions of a size by name, in metres. */
export type Dimensions = Readonly<Record<string, number>>;

/** The names of the dimensions that a shape needs, in the order in which they are read and written. */
export function dimensionNames(shape: ProfileShape): string[] {
  return Object.keys(profileShapes[shape].dimensions);
}

/** The label of one dimension of a shape; the bare name where the shape has no such dimension. */
export function dimensionLabel(shape: ProfileShape, name: string): string {
  const labels: Record<string, string> = profileShapes[shape].dimensions;
  return labels[name] ?? name;
}
