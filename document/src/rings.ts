/** Chains of openings that are measured from one another, along or up, and rings, which none may be. */
import { row } from './reading.ts';
import type { ProjectDocument, Row } from './schema.ts';

type Opening = Row<'openings'>;

/** Along and up are measured each by itself: two openings may hold one another, one along and the other up. */
export type Way = 'along' | 'up';

/** The openings that one is measured from. */
export function parentsOf({ along, up }: Opening, way: Way): string[] {
  if (way === 'up') return up.from === 'neighbour' ? [up.opening] : [];
  if (along.from === 'neighbour') return [along.opening];
  return along.from === 'between' ? [along.left, along.right].filter((id) => id !== null) : [];
}

/** Openings that are each measured from the next, the last from the first. */
type Ring = readonly Opening[];

/** What is known of openings, by way and id: the ring that each is in, or null where it is in none; so that a chain is gone along once, however many stand in it. */
export type Rings = Map<string, Ring | null>;

/** As many marks as a message names of a ring. */
const namedOfRing = 8;

/** The marks of the openings between (the first of them), where an opening is measured in the end from itself; null where it is not. */
export function ringFrom(
  document: ProjectDocument,
  opening: Opening,
  way: Way = 'along',
  known: Rings = new Map(),
): string[] | null {
  if (!known.has(`${way} ${opening.id}`)) findRings(document, opening, way, known);
  const ring = known.get(`${way} ${opening.id}`);
  if (!ring) return null;
  const at = ring.findIndex(({ id }) => id === opening.id);
  return [
    ...ring.slice(at + 1, at + 1 + namedOfRing),
    ...ring.slice(0, Math.max(0, Math.min(at, namedOfRing - (ring.length - at - 1)))),
  ].map(({ mark }) => mark);
}

/** Goes through all that an opening is measured from, depth first, each once. */
function findRings(document: ProjectDocument, opening: Opening, way: Way, known: Rings): void {
  const path: { at: Opening; parents: string[] }[] = [{ at: opening, parents: parentsOf(opening, way) }];
  const place = new Map([[opening.id, 0]]);
  while (path.length > 0) {
    const top = path.at(-1)!;
    const next = top.parents.pop();
    if (next === undefined) {
      path.pop();
      place.delete(top.at.id);
      const key = `${way} ${top.at.id}`;
      if (!known.has(key)) known.set(key, null);
      continue;
    }
    const parent = row(document, 'openings', next);
    const from = place.get(next);
    if (from !== undefined) {
      const ring = path.slice(from).map(({ at }) => at);
      for (const { id } of ring) if (!known.get(`${way} ${id}`)) known.set(`${way} ${id}`, ring);
    } else if (parent && !known.has(`${way} ${next}`)) {
      place.set(next, path.length);
      path.push({ at: parent, parents: parentsOf(parent, way) });
    }
  }
}

/** The openings that are measured in the end from one, itself included: none of them can be what it is measured from. */
export function measuredFrom(document: ProjectDocument, id: string, way: Way = 'along'): Set<string> {
  const children = new Map<string, string[]>();
  for (const opening of Object.values(document.openings))
    for (const parent of parentsOf(opening, way)) {
      const list = children.get(parent);
      if (list) list.push(opening.id);
      else children.set(parent, [opening.id]);
    }
  const found = new Set([id]);
  for (const at of found) for (const child of children.get(at) ?? []) found.add(child);
  return found;
}
