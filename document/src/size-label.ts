/** What a size is called: its own name, or its dimensions in the project's units. */
import { dimensionNames } from './profile-shapes.ts';
import type { Pattern, Size } from './pattern-schema.ts';
import type { Units } from './schema.ts';
import { formatLength } from './units.ts';

/** The label of a size, such as `1 400 × 1 000`. */
export function sizeLabel(pattern: Pattern, size: Size, units: Units): string {
  if (size.name) return size.name;
  return dimensionNames(pattern.profile.shape)
    .map((name) => formatLength(size.dimensions[name] ?? NaN, units))
    .join(' × ');
}
