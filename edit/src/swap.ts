/** Many openings given another pattern at once, with what each becomes; and one part made alike in several patterns. */
import { dimensionsOf } from '@yard-arch/core';
import {
  putting,
  sameValue,
  withHandles,
  type ChangeSet,
  type Dimensions,
  type Field,
  type Framing,
  type Handle,
  type Opening,
  type Part,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { called, edit } from './make.ts';
import { changePatternOf } from './opening.ts';

/** Openings that are alike, before and after. */
export interface Swapped {
  before: { pattern: Pattern; dimensions: Dimensions };
  after: { pattern: Pattern; dimensions: Dimensions };
  openings: string[];
}

/** Gives openings another pattern, each in its place and in the size that is nearest; those that are of it already stay as they are. */
export function swapAll(
  document: ProjectDocument,
  openings: readonly Opening[],
  to: string,
): { changeSet: ChangeSet; pairs: Swapped[]; told: string[] } {
  const pattern = document.patterns[to]!;
  const going = openings.filter((opening) => opening.pattern !== to);
  const pairs = new Map<string, Swapped>();
  const told: string[] = [];
  const changes = going.flatMap((opening) => {
    const made = changePatternOf(document, opening, to);
    if (made.told) told.push(made.told);
    const before = document.patterns[opening.pattern]!;
    const [change] = made.changeSet.changes;
    const after = change?.op === 'put' && change.table === 'openings' ? change.value.size : '';
    const key = JSON.stringify([opening.pattern, opening.own ?? opening.size, after]);
    const pair = pairs.get(key) ?? {
      before: { pattern: before, dimensions: dimensionsOf(before, opening) ?? {} },
      after: { pattern, dimensions: pattern.sizes[after]!.dimensions },
      openings: [],
    };
    pair.openings.push(opening.id);
    pairs.set(key, pair);
    return made.changeSet.changes;
  });
  return {
    changeSet: edit(`change ${called(going)} to ${pattern.name}`, ...changes),
    pairs: [...pairs.values()],
    told,
  };
}

/** Something that several patterns can have alike. */
export type Shared =
  { what: 'part'; part: Part } | { what: 'handle'; handle: Handle } | { what: 'frame'; frame: Framing };

/** Whether two parts are of one kind, on the same face, so that the one may be as the other. */
const alike = (a: Part, b: Part): boolean =>
  a.kind === b.kind && ('behind' in a && a.behind === true) === ('behind' in b && b.behind === true);

/** A pattern with something as it is in another, wherever it has such a thing. */
function withShared(pattern: Pattern, shared: Shared): Pattern {
  const { parts, infill } = pattern;
  if (shared.what === 'part')
    return parts
      ? { ...pattern, parts: parts.map((one) => (alike(one, shared.part) ? { ...shared.part, id: one.id } : one)) }
      : pattern;
  if (!infill) return pattern;
  if (shared.what === 'handle')
    return { ...pattern, infill: { ...infill, field: withHandles(infill.field, () => shared.handle) } };
  // Which sides have none is the opening's own matter: a door has no sill.
  const { without } = infill.frame;
  return { ...pattern, infill: { ...infill, frame: { ...shared.frame, ...(without ? { without } : {}) } } };
}

/** Whether a leaf of a field has a handle. */
const has = (field: Field): boolean => {
  if ('fields' in field) return field.fields.some(has);
  return field.kind === 'leaf' && (field.handle !== undefined || has(field.field));
};

/** Other patterns that have such a thing, and whether it is otherwise there. */
export function havingIt(
  document: ProjectDocument,
  own: string,
  shared: Shared,
): { pattern: Pattern; differs: boolean }[] {
  return Object.values(document.patterns)
    .filter(({ id, parts = [], infill }) => {
      if (id === own) return false;
      if (shared.what === 'part') return parts.some((part) => alike(part, shared.part));
      return infill !== undefined && (shared.what === 'frame' || has(infill.field));
    })
    .map((pattern) => ({ pattern, differs: !sameValue(pattern, withShared(pattern, shared)) }));
}

/** Makes something in several patterns as it is in one; their openings follow. */
export function makeAlike(document: ProjectDocument, ids: readonly string[], shared: Shared): ChangeSet {
  const what = shared.what === 'part' ? shared.part.kind : shared.what;
  return edit(
    `make the ${what} alike in ${ids.length === 1 ? document.patterns[ids[0]!]!.name : `${ids.length} patterns`}`,
    ...ids.map((id) => putting('patterns', withShared(document.patterns[id]!, shared))),
  );
}
