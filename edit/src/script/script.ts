/** Edit scripts: lists of steps by which a pipeline places, spreads and changes what a person would on the page; all of them are done, or none. */
import {
  applyChangeSet,
  checkChangeSet,
  Refused,
  type Change,
  type ChangeSet,
  type Fault,
  type ProjectDocument,
} from '@yard-arch/document';
import { z } from 'zod';
import { lockedBy } from '../locks.ts';
import * as element from './element-steps.ts';
import * as opening from './opening-steps.ts';
import * as roof from './roof-steps.ts';
import { Finder, type Done, type Step } from './step.ts';

/** All kinds of steps, by the name that a script calls them by. A new one is a line here. */
export const steps = {
  place: opening.place,
  fill: opening.fill,
  spread: opening.spread,
  move: opening.move,
  align: opening.align,
  copy: opening.copy,
  mirror: opening.mirror,
  size: opening.size,
  'block up': opening.blockUp,
  'open up': opening.openUp,
  'remove openings': opening.takeAway,
  'draw wall': element.draw,
  'move elements': element.moveInPlan,
  'split wall': element.splitWall,
  'join walls': element.joinWalls,
  'bend wall': element.bendWall,
  'reverse wall': element.reverseWall,
  'split element': element.splitAlong,
  'remove element': element.removeWhole,
  'lay roof': roof.lay,
  'form roof': roof.give,
  'open courtyard': roof.court,
  'redraw edge': roof.redraw,
  'lay vault': roof.vault,
  'change edge': roof.edge,
  'resize pattern': element.resizePattern,
  change: element.change,
  changes: element.changes,
} as const;

const names = Object.keys(steps);
const mostSteps = 5000;

/** The shape of a script: its steps are looked into one by one, each by its own schema. */
export const scriptSchema = z.strictObject({
  name: z
    .string('must be text')
    .trim()
    .min(1, 'must not be empty')
    .max(200, 'must have at most 200 characters')
    .optional(),
  do: z
    .array(
      z.looseObject({ do: z.enum(names as [string, ...string[]], `must be one of ${names.join(', ')}`) }),
      'must be a list of steps',
    )
    .min(1, 'must hold at least one step')
    .max(mostSteps, `must hold at most ${mostSteps} steps`),
});

/** What a script has done. */
export interface Scripted {
  changeSet: ChangeSet;
  document: ProjectDocument;
  /** By step: the ids of what it has made. */
  made: (readonly string[])[];
}

/**
 * Does a script to a document; the document that is given is not changed.
 * @throws Refused with the path of the step and of the value in it, such as `do/2/element`, and the reason.
 */
export function doScript(document: ProjectDocument, value: unknown): Scripted {
  const read = scriptSchema.safeParse(value);
  if (!read.success)
    throw refusal(
      read.error.issues
        .slice(0, 100)
        .map(({ path, message }) => ({ path: path.map(String).join('/'), reason: message })),
    );
  const doing = new Doing(document);
  const all = read.data.do.map(({ do: kind, ...input }): Asked => ({ kind: kind as keyof typeof steps, input }));
  for (let i = 0; i < all.length;) {
    const count = alikeFrom(all, i);
    doing.take(all.slice(i, i + count), i);
    i += count;
  }
  const { named, made, changes } = doing;
  const name =
    read.data.name ??
    (named.length === 1
      ? named[0]!
      : `${named[0]!} and ${named.length - 1} more step${named.length === 2 ? '' : 's'}`.slice(0, 200));
  // As one edit it must hold too: what is made and removed again within it comes to nothing.
  const changeSet = checkChangeSet({ name, changes });
  return { changeSet, document: applyChangeSet(document, changeSet).document, made };
}

/** A step as it is asked for. */
interface Asked {
  kind: keyof typeof steps;
  input: unknown;
}

/** How many steps from one on are of its kind, where such are applied at once. */
function alikeFrom(all: readonly Asked[], first: number): number {
  const { kind } = all[first]!;
  if (!(steps[kind] as Step).together) return 1;
  let end = first + 1;
  while (end < all.length && all[end]!.kind === kind) end += 1;
  return end - first;
}

/** A document to which steps are done, and what they have come to. */
class Doing {
  readonly changes: Change[] = [];
  readonly made: (readonly string[])[] = [];
  readonly named: string[] = [];

  constructor(private at: ProjectDocument) {}

  /** Does steps; several that are alike at once, so that each does not copy what the others have made. Where that is refused they are done one by one, to tell which it is. */
  take(asked: readonly Asked[], first: number): void {
    if (asked.length > 1 && this.tryTogether(asked, first)) return;
    asked.forEach((one, k) => {
      const done = this.ask(one, first + k, new Finder(this.at));
      this.at = within(`do/${first + k}`, () => applyChangeSet(this.at, done.changeSet).document);
      this.keep(done);
    });
  }

  private tryTogether(asked: readonly Asked[], first: number): boolean {
    const find = new Finder(this.at);
    try {
      const done = asked.map((one, k) => this.ask(one, first + k, find));
      const changes = done.flatMap(({ changeSet }) => changeSet.changes);
      this.at = applyChangeSet(this.at, { name: done[0]!.changeSet.name, changes }).document;
      for (const one of done) this.keep(one);
      return true;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      return false;
    }
  }

  private ask({ kind, input }: Asked, i: number, find: Finder): Done {
    const done = within(`do/${i}`, () => doStep(this.at, { kind, input }, find));
    const lock = lockedBy(this.at, done.changeSet);
    if (lock) throw refusal([{ path: `do/${i}`, reason: `cannot be done: ${lock} is locked; unlock it first` }]);
    return done;
  }

  private keep({ changeSet, made = [] }: Done): void {
    this.changes.push(...changeSet.changes);
    this.made.push(made);
    this.named.push(changeSet.name);
  }
}

function doStep(document: ProjectDocument, { kind, input }: Asked, find: Finder): Done {
  const { schema, make } = steps[kind] as Step;
  const read = schema.safeParse(input);
  if (!read.success)
    throw refusal(
      read.error.issues.slice(0, 100).map((issue) => ({
        path: issue.path.map(String).join('/'),
        reason:
          issue.code === 'unrecognized_keys'
            ? `has ${issue.keys.join(', ')}, which “${kind}” does not take`
            : issue.message,
      })),
    );
  return make(document, read.data, find);
}

function refusal(faults: readonly Fault[]): Refused {
  const [first] = faults;
  const more = faults.length - 1;
  return new Refused(
    `The script cannot be done: ${first!.path || 'it'} ${first!.reason}${more > 0 ? `; and ${more} more` : ''}.`,
    faults,
  );
}

/** Does something, and says of what is refused in it where in the script it stands. */
function within<T>(path: string, what: () => T): T {
  try {
    return what();
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    throw refusal(
      error.faults.map((fault) => ({ path: fault.path === '' ? path : `${path}/${fault.path}`, reason: fault.reason })),
    );
  }
}

/** What steps there are and what each takes, as text for a shell. */
export function scriptHelp(): string {
  const lines = Object.entries(steps as Record<string, Step>).map(([name, { about, schema }]) => {
    const { properties = {}, required = [] } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as {
      properties?: Record<string, unknown>;
      required?: string[];
    };
    const fields = Object.keys(properties).map((field) => (required.includes(field) ? field : `[${field}]`));
    return `  ${name}\n      ${about}\n      takes ${fields.join(', ')}`;
  });
  return `An edit script is JSON: { "name": "what it is called in the history", "do": [ { "do": "place", … }, … ] }
Elements, patterns and openings are named by their ids, or by their names and marks. Lengths are metres. All steps are done, or none.

${lines.join('\n')}
`;
}
