/** What one opening has otherwise than its pattern: parts that are off, other materials, another handle; and the pattern as it is there. */
import { z } from 'zod';
import { id } from './figures.ts';
import { handleKinds, type Field, type Handle } from './infill-schema.ts';
import type { Pattern } from './pattern-schema.ts';

/** What the infill is called among parts that are off. */
export const infillPart = 'infill';

export const overridesSchema = z.strictObject({
  without: z.array(id).max(33, 'must hold at most 33 parts').optional(),
  materials: z.record(id, id).optional(),
  handle: z.enum(handleKinds, `must be ${handleKinds.join(', ')}`).optional(),
});
/** What an opening has otherwise: the ids of parts that it goes without (`infill` for what stands in it), its own materials by those that the pattern names, and its leaves' handles. */
export type Overrides = z.infer<typeof overridesSchema>;

/** A pattern with other materials in the place of those that it names. */
export function withMaterials(pattern: Pattern, to: ReadonlyMap<string, string>): Pattern {
  const swap = (value: unknown, key = ''): unknown => {
    // A mesh from outside names its materials in a list.
    if (Array.isArray(value)) return value.map((one) => swap(one, key === 'materials' ? 'material' : ''));
    if (value && typeof value === 'object')
      return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, swap(one, name)]));
    return (key === 'material' || key === 'mortar') && typeof value === 'string' ? (to.get(value) ?? value) : value;
  };
  const swapped = swap(pattern) as Pattern;
  const { sides } = pattern.reveal;
  if (!sides) return swapped;
  const own = Object.fromEntries(Object.entries(sides).map(([side, material]) => [side, to.get(material) ?? material]));
  return { ...swapped, reveal: { ...swapped.reveal, sides: own } };
}

/** A field with other handles on those of its leaves that have any. */
export function withHandles(field: Field, change: (handle: Handle) => Handle): Field {
  if ('fields' in field) return { ...field, fields: field.fields.map((one) => withHandles(one, change)) };
  if (field.kind !== 'leaf') return field;
  const { handle } = field;
  return { ...field, ...(handle ? { handle: change(handle) } : {}), field: withHandles(field.field, change) };
}

const made = new WeakMap<Pattern, Map<string, Pattern>>();

/** A pattern as it is with overrides; the same object for the same question. */
export function overridden(pattern: Pattern, overrides: Overrides | undefined): Pattern {
  if (!overrides) return pattern;
  const key = JSON.stringify(overrides);
  let known = made.get(pattern);
  if (!known) made.set(pattern, (known = new Map()));
  let found = known.get(key);
  if (!found) known.set(key, (found = withOverrides(pattern, overrides)));
  return found;
}

function withOverrides(pattern: Pattern, { without = [], materials, handle }: Overrides): Pattern {
  const { infill, parts, ...rest } = materials ? withMaterials(pattern, new Map(Object.entries(materials))) : pattern;
  const off = new Set(without);
  const left = parts?.filter((part) => !off.has(part.id));
  return {
    ...rest,
    ...(left && left.length > 0 ? { parts: left } : {}),
    ...(infill && !off.has(infillPart)
      ? {
          infill: handle
            ? { ...infill, field: withHandles(infill.field, (own) => ({ ...own, kind: handle })) }
            : infill,
        }
      : {}),
  };
}
