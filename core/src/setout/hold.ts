/** What an opening is held to, in words. */
import {
  formatLength,
  kindOf,
  row,
  type Along,
  type Opening,
  type ProjectDocument,
  type Up,
} from '@yard-arch/document';
import { worded } from './placed.ts';
import { nanometre as still } from '../tolerances.ts';

/** What an opening is held to along and up, in words to stand beside it; null where it is only so far from the start, or above the base. */
export interface HeldTo {
  along: string | null;
  up: string | null;
}

/** What an opening is held to, in words: “in the middle of the wall”, “head level with A-03”. */
export function heldWords(document: ProjectDocument, opening: Opening): HeldTo {
  return { along: alongWords(document, opening), up: upWords(document, opening) };
}

const markOf = (document: ProjectDocument, id: string): string =>
  row(document, 'openings', id)?.mark ?? 'one that is gone';

function alongWords(document: ProjectDocument, { along, element, grip: { across } }: Opening): string | null {
  const on = row(document, 'elements', element);
  const it = `the ${on ? kindOf(on).noun : 'wall'}`;
  const part = { left: 'left jamb', centre: 'centre', right: 'right jamb' }[across];
  const off = (from: string): string =>
    `${part} ${worded(Math.abs(along.distance), document.units)} ${along.distance < 0 ? 'before' : 'after'} ${from}`;
  const at = (exact: string, from: string): string => (Math.abs(along.distance) < still ? exact : off(from));
  const words: { [F in Along['from']]: (along: Extract<Along, { from: F }>) => string | null } = {
    start: () => null,
    middle: () =>
      at(across === 'centre' ? `in the middle of ${it}` : `${part} in the middle of ${it}`, `the middle of ${it}`),
    end: ({ distance }) =>
      Math.abs(distance) < still
        ? `at the end of ${it}`
        : `${part} ${worded(distance, document.units)} from the end of ${it}`,
    fraction: ({ fraction }) =>
      at(`${part} at ${Math.round(fraction * 1000) / 10} % of ${it}`, `${Math.round(fraction * 1000) / 10} % of ${it}`),
    axis: ({ axis }) =>
      at(
        `${across === 'centre' ? 'centred' : part} on axis ${row(document, 'axes', axis)?.name ?? ''}`,
        `axis ${row(document, 'axes', axis)?.name ?? ''}`,
      ),
    neighbour: ({ opening, edge }) => {
      const mark = markOf(document, opening);
      if (edge === across)
        return at(
          across === 'centre' ? `centred over ${mark}` : `${part} in line with ${mark}`,
          `the ${edge === 'centre' ? 'centre' : `${edge} jamb`} of ${mark}`,
        );
      return at(`${part} against ${mark}`, mark);
    },
    between: ({ left, right }) => {
      const names = [left, right].map((id) => (id === null ? null : markOf(document, id)));
      const which =
        names[0] && names[1]
          ? `between ${names[0]} and ${names[1]}`
          : names[0]
            ? `between ${names[0]} and the end`
            : names[1]
              ? `between the start and ${names[1]}`
              : `between the ends of ${it}`;
      return at(`equal piers ${which}`, `half way ${which}`);
    },
  };
  return words[along.from](along as never);
}

function upWords(document: ProjectDocument, { up, grip: { level } }: Opening): string | null {
  const off = (from: string): string =>
    `${level} ${worded(Math.abs(up.distance), document.units)} ${up.distance < 0 ? 'below' : 'above'} ${from}`;
  const at = (exact: string, from: string): string => (Math.abs(up.distance) < still ? exact : off(from));
  const words: { [F in Up['from']]: (up: Extract<Up, { from: F }>) => string | null } = {
    base: () => null,
    top: ({ distance }) =>
      Math.abs(distance) < still
        ? `${level} under the top`
        : `${level} ${worded(distance, document.units)} under the top`,
    datum: ({ datum }) =>
      at(`${level} on ${row(document, 'datums', datum)?.name ?? ''}`, row(document, 'datums', datum)?.name ?? ''),
    neighbour: ({ opening, edge }) =>
      edge === level
        ? at(`${level} level with ${markOf(document, opening)}`, `the ${edge} of ${markOf(document, opening)}`)
        : at(`${level} at the ${edge} of ${markOf(document, opening)}`, `the ${edge} of ${markOf(document, opening)}`),
    course: ({ distance }) => `${level} on the course nearest to ${formatLength(distance, document.units)}`,
  };
  return words[up.from](up as never);
}
