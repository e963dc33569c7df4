/** In words, what somebody's later edit replaced: what it was, and what it is now. */
import { formatLength, type ProjectDocument, type Units } from '@yard-arch/document';
import type { Replaced } from './saver.ts';

/** Fields that are angles, not lengths. */
const angles = new Set(['turn', 'tilt', 'sweep', 'batter', 'rise', 'smooth', 'splayOutside', 'splayInside']);
/** Fields that count, or are shares. */
const figures = new Set(['roughness', 'fraction', 'sides', 'at', 'segments']);

function valueWords(value: unknown, field: string, units: Units): string {
  if (value === undefined || value === null) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number')
    return angles.has(field)
      ? `${Number(value.toFixed(4))}°`
      : figures.has(field)
        ? String(value)
        : formatLength(value, units);
  if (typeof value === 'string') return `“${value}”`;
  const held = value as { from?: string; distance?: number; level?: string; across?: string; kind?: string };
  if (held.from !== undefined && held.distance !== undefined)
    return `${formatLength(held.distance, units)} from the ${held.from}`;
  if (held.across !== undefined) return `${held.across} ${held.level ?? ''}`.trim();
  return held.kind ?? (Array.isArray(value) ? `${value.length} of them` : 'another');
}

function nameOf(path: string, replaced: Replaced, document: ProjectDocument): string {
  const [table, id] = path.split('/') as ['openings', string];
  if (path.startsWith('settings/')) return 'the project';
  const row = (document[table][id] ?? replaced.values.find((value) => value.path === path)?.was) as
    { mark?: string; name?: string } | undefined;
  return row?.mark ?? row?.name ?? id;
}

/** As many values as a notice names. */
const most = 3;

/** A sentence for each value, the first few. */
export function replacedWords(replaced: Replaced, document: ProjectDocument): string {
  const words = replaced.values.slice(0, most).map(({ path, was, now }) => {
    const name = nameOf(path, replaced, document);
    const fields = path.split('/').slice(path.startsWith('settings/') ? 1 : 2);
    if (fields.length === 0) return now === undefined ? `${name} was removed.` : `${name} was made anew.`;
    const field = fields.at(-1)!;
    return `${name}, ${fields.join(' ')}: yours was ${valueWords(was, field, document.units)}, now it is ${valueWords(now, field, document.units)}.`;
  });
  const more = replaced.values.length - words.length;
  return words.join(' ') + (more > 0 ? ` And ${more} more.` : '');
}
