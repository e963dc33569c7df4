/** Chains of openings that are measured from one another, and rings, which no chain may be. */
import { row } from './reading.ts';
import type { ProjectDocument, Row } from './schema.ts';

/** Openings that are each measured from the next, the last from the first. */
type Ring = readonly Row<'openings'>[];

/** What is known of openings: the ring that each is in, or null where it is in none; so that a chain is gone along once, however many stand in it. */
export type Rings = Map<string, Ring | null>;

/** As many marks as a message names of a ring. */
const namedOfRing = 8;

/** The marks of the openings between (the first of them), where an opening is measured in the end from itself; null where it is not. */
export function ringFrom(document: ProjectDocument, opening: Row<'openings'>, known: Rings = new Map()): string[] | null {
  if (!known.has(opening.id)) findRing(document, opening, known);
  const ring = known.get(opening.id);
  if (!ring) return null;
  const at = ring.findIndex(({ id }) => id === opening.id);
  return [...ring.slice(at + 1, at + 1 + namedOfRing), ...ring.slice(0, Math.max(0, Math.min(at, namedOfRing - (ring.length - at - 1))))].map(({ mark }) => mark);
}

/** The openings that are measured in the end from one, itself included: none of them can be what it is measured from. */
export function measuredFrom(document: ProjectDocument, id: string): Set<string> {
  const [found, clear] = [new Set([id]), new Set<string>()];
  for (const opening of Object.values(document.openings)) {
    const way: string[] = [];
    let at: Row<'openings'> | undefined = opening;
    while (at && !found.has(at.id) && !clear.has(at.id)) {
      way.push(at.id);
      clear.add(at.id);
      at = at.along.from === 'neighbour' ? row(document, 'openings', at.along.opening) : undefined;
    }
    if (!at || !found.has(at.id)) continue;
    for (const passed of way) {
      found.add(passed);
      clear.delete(passed);
    }
  }
  return found;
}

function findRing(document: ProjectDocument, opening: Row<'openings'>, known: Rings): void {
  const way: Row<'openings'>[] = [];
  const steps = new Map<string, number>();
  let at: Row<'openings'> | undefined = opening;
  while (at?.along.from === 'neighbour' && !known.has(at.id) && !steps.has(at.id)) {
    steps.set(at.id, way.length);
    way.push(at);
    at = row(document, 'openings', at.along.opening);
  }
  const from = at && steps.has(at.id) ? steps.get(at.id)! : way.length;
  const ring = way.slice(from);
  way.forEach(({ id }, i) => known.set(id, i < from ? null : ring));
  if (!known.has(opening.id)) known.set(opening.id, null);
}
