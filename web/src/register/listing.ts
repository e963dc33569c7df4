/** How the register's list is laid out, and what is counted in it. */
import { datumsOn, misfitsOn, type Outcome } from '@yard-arch/core';
import { grouped, type Element, type ProjectDocument } from '@yard-arch/document';

/** How the register is laid out. */
export type Order = 'all' | 'groups' | 'floors';
/** Which elements it lists. */
export type Wanted = 'all' | 'faults' | 'openings' | 'hidden';

/** What became of an element's openings, counted. */
export interface Count {
  open: number;
  blocked: number;
  failed: number;
  misfit: number;
}

export function countsOf(document: ProjectDocument, statuses: ReadonlyMap<string, Outcome>): Map<string, Count> {
  const counts = new Map<string, Count>();
  for (const [id, openings] of grouped(Object.values(document.openings), ({ element }) => element)) {
    const count: Count = { open: 0, blocked: 0, failed: 0, misfit: 0 };
    for (const opening of openings) {
      if (statuses.get(opening.id)?.state === 'not cut') count.failed += 1;
      else if (opening.blockedUp) count.blocked += 1;
      else count.open += 1;
    }
    const element = document.elements[id];
    // One that is not cut is counted as that.
    if (element)
      count.misfit = misfitsOn(document, element).filter(
        ({ opening }) => statuses.get(opening.id)?.state !== 'not cut',
      ).length;
    counts.set(id, count);
  }
  return counts;
}

export interface Listing {
  /** Heading of the part; null where there is only one. */
  title: string | null;
  elements: Element[];
}

/** What is asked of the register. */
export interface Asked {
  order: Order;
  wanted: Wanted;
  search: string;
  hidden: ReadonlySet<string>;
}

/** The elements that are wanted and found, in their parts. A search finds names, groups, and the marks and patterns of openings. */
export function listed(
  document: ProjectDocument,
  { order, wanted, search, hidden }: Asked,
  counts: ReadonlyMap<string, Count>,
): Listing[] {
  const words = search.trim().toLowerCase();
  const found = Object.values(document.elements).filter((element) => {
    const count = counts.get(element.id);
    if (wanted === 'faults' && !(count && count.failed + count.misfit > 0)) return false;
    if (wanted === 'openings' && !count) return false;
    if (wanted === 'hidden' && !hidden.has(element.id)) return false;
    if (words === '') return true;
    if ([element.name, element.group ?? ''].some((text) => text.toLowerCase().includes(words))) return true;
    return Object.values(document.openings).some(
      (opening) =>
        opening.element === element.id &&
        [opening.mark, document.patterns[opening.pattern]?.name ?? ''].some((text) =>
          text.toLowerCase().includes(words),
        ),
    );
  });
  if (order === 'all') return [{ title: null, elements: found }];
  const parts = grouped(found, (element) =>
    order === 'groups' ? (element.group ?? 'In no group') : floorOf(document, element),
  );
  return [...parts].map(([title, elements]) => ({ title, elements }));
}

/** The floor that an element stands on: the highest floor datum not above its base. */
function floorOf(document: ProjectDocument, element: Element): string {
  const floors = datumsOn(document, element)
    .filter(({ kind, level }) => kind === 'floor' && level <= element.start.z + 1e-6)
    .sort((a, b) => b.level - a.level);
  return floors[0]?.name ?? 'Below all floors';
}
