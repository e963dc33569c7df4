/** Finding patterns by words. */
import type { Pattern } from '@yard-arch/document';

/** Whether a pattern has every word that is looked for in its name or its tags. */
export function matches({ name, tags = [] }: Pattern, text: string): boolean {
  const held = [name, ...tags].join(' ').toLowerCase();
  return text
    .toLowerCase()
    .trim()
    .split(/\s+/)
    .every((word) => held.includes(word));
}
