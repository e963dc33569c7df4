/** What was kept before it was refused, made such that it opens still. */
import type { ProjectDocument } from './schema.ts';

/** A control character in JSON text: written out, or by its escape. */
const anyControl = /\\(?:[bfnrt]|u00[01][0-9a-fA-F]|u007[fF]|u00[89][0-9a-fA-F])|[\u007f-\u009f]/;
const controls = /\p{Cc}+/gu;

/** Control characters in the strings of a value of JSON become spaces. */
export function withoutControls<T>(value: T): T {
  if (typeof value === 'string') return (/\p{Cc}/u.test(value) ? value.replace(controls, ' ').trim() || '–' : value) as T;
  if (Array.isArray(value)) return value.map(withoutControls) as T;
  if (typeof value === 'object' && value !== null) return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, withoutControls(inner)])) as T;
  return value;
}

/** The text of a document that was kept when names could still hold control characters, without them; the very same text where there are none. */
export function mendedText(text: string): string {
  return anyControl.test(text) && /\p{Cc}/u.test(allStrings(text)) ? JSON.stringify(withoutControls(JSON.parse(text) as ProjectDocument)) : text;
}

/** All strings of a JSON text in a row: an escape may have been of a backslash. */
function allStrings(text: string): string {
  const parts: string[] = [];
  JSON.parse(text, (key, value: unknown) => {
    parts.push(key);
    if (typeof value === 'string') parts.push(value);
    return value;
  });
  return parts.join('');
}
