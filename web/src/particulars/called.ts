/** What parts are called. */
import type { Part } from '@yard-arch/document';

/** What a part is called in its list. */
export function calledOf(part: Part): string {
  const name = part.kind.charAt(0).toUpperCase() + part.kind.slice(1);
  const behind = 'behind' in part && part.behind ? ' on the face behind' : '';
  if (part.kind === 'imported') return `Mesh${behind}`;
  if (part.kind === 'guard') return part.height === undefined ? 'Window bars' : 'Guard rail';
  if (part.kind === 'surround' && (part.off ?? 0) > 0) return `Hood mould${behind}`;
  return `${name}${behind}`;
}
