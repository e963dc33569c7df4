/** Steps of an edit script: what each takes, and the change set that it becomes. */
import {
  Refused,
  row,
  type ChangeSet,
  type Element,
  type Opening,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { z } from 'zod';
import { freeMark, marksIn } from '../placing.ts';

/** One kind of step. */
export interface Step<Schema extends z.ZodType = z.ZodType> {
  /** What it does, in a sentence. */
  about: string;
  /** What it takes, besides its name. */
  schema: Schema;
  /** @throws Refused where it names what is not there, or cannot be done. */
  make: (document: ProjectDocument, input: z.infer<Schema>, find: Finder) => Done;
  /** Whether it asks nothing of the document that others of its kind before it change: many of them are made one after the other, and applied at once. */
  together?: boolean;
}

/** What a step has done: its change set, and the ids of what it has made. */
export interface Done {
  changeSet: ChangeSet;
  made?: readonly string[];
}

export const step = <Schema extends z.ZodType>(told: Step<Schema>): Step<Schema> => told;

/** What an edit maker gave, or a refusal of it. @throws Refused */
export function possible<T extends object>(outcome: T | { reason: string; mend: string }, path = ''): T {
  if ('reason' in outcome && 'mend' in outcome)
    throw new Refused(`${outcome.reason}. ${outcome.mend}`, [
      { path, reason: `cannot be done: ${outcome.reason}. ${outcome.mend}` },
    ]);
  return outcome as T;
}

/** How things are named in a script: by their ids, or by the names and marks that are shown. */
export const named = z
  .string('must be an id or a name')
  .min(1, 'must not be empty')
  .max(200, 'must have at most 200 characters');

/** Finds what a step names. Each raises Refused where there is no such thing, or where a name is that of several. */
export class Finder {
  private marks: Set<string> | undefined;

  constructor(private readonly document: ProjectDocument) {}

  /** A mark for an opening that is placed: the one that is asked for, or the next that none has, those that were given out before counted in. */
  mark(pattern: Pattern, asked: string | undefined): string {
    const taken = (this.marks ??= marksIn(this.document));
    if (asked === undefined) return freeMark(taken, pattern);
    taken.add(asked);
    return asked;
  }

  element(name: string, path = 'element'): Element {
    return this.one('elements', name, path, { what: 'element', called: ({ name: called }) => called });
  }

  pattern(name: string, path = 'pattern'): Pattern {
    return this.one('patterns', name, path, { what: 'pattern', called: ({ name: called }) => called });
  }

  opening(name: string, path = 'opening'): Opening {
    return this.one('openings', name, path, { what: 'opening', called: ({ mark }) => mark });
  }

  openings(names: readonly string[], path = 'openings'): Opening[] {
    return names.map((name, i) => this.opening(name, `${path}/${i}`));
  }

  /** A size of a pattern, by its id or by its name; the first where none is named. */
  size(pattern: Pattern, name: string | undefined, path = 'size'): string {
    const sizes = Object.values(pattern.sizes);
    if (name === undefined) return sizes[0]!.id;
    const found = sizes.find(({ id }) => id === name) ?? sizes.find((size) => size.name === name);
    if (!found)
      throw lost(
        path,
        `names the size "${name}", which the pattern "${pattern.name}" does not have; it has ${sizes.map(({ id, name: called }) => called || id).join(', ')}`,
      );
    return found.id;
  }

  private one<T extends 'elements' | 'patterns' | 'openings'>(
    table: T,
    name: string,
    path: string,
    { what, called }: { what: string; called: (value: ProjectDocument[T][string]) => string },
  ): ProjectDocument[T][string] {
    const byId = row(this.document, table, name) as ProjectDocument[T][string] | undefined;
    if (byId) return byId;
    const found = (Object.values(this.document[table]) as ProjectDocument[T][string][]).filter(
      (value) => called(value) === name,
    );
    if (found.length === 1) return found[0]!;
    throw lost(
      path,
      found.length === 0
        ? `names the ${what} "${name}", which does not exist`
        : `names the ${what} "${name}", of which there are ${found.length}; use an id: ${found
            .slice(0, 5)
            .map(({ id }) => id)
            .join(', ')}`,
    );
  }
}

const lost = (path: string, reason: string): Refused => new Refused(`${path} ${reason}`, [{ path, reason }]);
