/** Values that are not looked into: lists longer, and values nested deeper, than any may be. */
import type { Fault } from './refused.ts';

/** The longest list that any value of a row may hold. */
const longestList = 4000;

/** The deepest that values may lie in one another: fields of an infill in fields, and what they hold. */
const deepest = 40;

/** Where in a value a list is too long, or something nested too deeply; or null. */
export function unwieldy(value: unknown, path: string, depth = 0): Fault | null {
  if (typeof value !== 'object' || value === null) return null;
  if (depth > deepest)
    return { path: path.slice(0, 200), reason: `is nested deeper than any value may be (${deepest})` };
  if (Array.isArray(value) && value.length > longestList)
    return { path, reason: `holds ${value.length} values, more than any list may (${longestList})` };
  if (!Array.isArray(value)) {
    const crowded = overcrowded(value, path);
    if (crowded) return crowded;
  }
  for (const [key, inner] of Object.entries(value)) {
    const found = unwieldy(inner, `${path}/${key}`, depth + 1);
    if (found) return found;
  }
  return null;
}

/** The fault of an object that has more fields than any may: the schemas would look at each of them. */
export function overcrowded(value: object, path: string): Fault | null {
  const keys = Object.keys(value);
  if (keys.length <= longestList) return null;
  const first = keys.slice(0, 3).map((key) => key.slice(0, 64));
  return {
    path: path.slice(0, 200),
    reason: `has ${keys.length} fields (${first.join(', ')} and ${keys.length - 3} more), more than any value may (${longestList})`,
  };
}
