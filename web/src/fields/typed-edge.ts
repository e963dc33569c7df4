/** An edge as it is typed while it is drawn: its length, or its length and its direction. */
import { parseLength, type Units } from '@yard-arch/document';

/** @param towards where the pointer is from where it begins, radians: without a direction it goes that way, in steps of 15° @returns metres and degrees, or why not */
export function typedEdge(text: string, units: Units, towards: number): { length: number; degrees: number } | string {
  const [first = '', second] = text.split(';').map((part) => part.trim());
  const length = parseLength(first, units);
  if (length === null || length <= 0) return 'Type a length, such as 1400 or 1.4 m.';
  const degrees =
    second === undefined
      ? Math.round((towards * 180) / Math.PI / 15) * 15
      : Number(second.replace('°', '').replace('−', '-').replace(',', '.'));
  return Number.isFinite(degrees)
    ? { length, degrees }
    : 'After the semicolon stands a direction in degrees, such as 90.';
}
