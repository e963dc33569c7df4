/** Lining openings up and evening them out: what almost agrees is found, and what it would agree on. Metres on the face. */
import type { Box } from './box.ts';
import { tidy } from '../tidy.ts';
import { micrometre, nanometre } from '../tolerances.ts';

/** What openings can be brought into line by. */
export type Alignment = 'sills' | 'heads' | 'springings' | 'middles' | 'left jambs' | 'centres' | 'right jambs';
export const alignments: readonly Alignment[] = [
  'sills',
  'heads',
  'springings',
  'middles',
  'left jambs',
  'centres',
  'right jambs',
];

/** Where a box has the line that an alignment is about; the head stands for a springing line that is not there. */
export function lineOf(box: Box, by: Alignment): number {
  switch (by) {
    case 'sills':
      return box.t;
    case 'heads':
      return box.t + box.height;
    case 'springings':
      return box.t + (box.springing ?? box.height);
    case 'middles':
      return box.t + box.height / 2;
    case 'left jambs':
      return box.s;
    case 'centres':
      return box.s + box.width / 2;
    case 'right jambs':
      return box.s + box.width;
  }
}

/** Where a box comes to stand (lower left corner) when its line is brought to a place. */
export function broughtTo(box: Box, by: Alignment, to: number): { s: number; t: number } {
  const shift = to - lineOf(box, by);
  return by === 'left jambs' || by === 'centres' || by === 'right jambs'
    ? { s: tidy(box.s + shift), t: box.t }
    : { s: box.s, t: tidy(box.t + shift) };
}

/** Openings that almost agree in something, and what they would agree on. */
export interface Uneven {
  by: Alignment;
  openings: { id: string; mark: string; at: number }[];
  to: number;
}

/**
 * Groups of openings whose sills, heads or centres lie within a tolerance of each other and are not the same. What they would agree on is where most of them are, or else the middle one.
 * Openings that agree in their sills once evened out, and are as high as each other, are not told again for their heads.
 */
export function uneven(boxes: readonly Box[], tolerance: number): Uneven[] {
  const found: Uneven[] = [];
  const level = new Map<string, number>();
  for (const by of ['sills', 'heads', 'centres'] as const) {
    const sorted = boxes
      .map((box) => ({ id: box.id, mark: box.mark, at: tidy(lineOf(box, by)), box }))
      .sort((a, b) => a.at - b.at);
    let group: typeof sorted = [];
    const close = (): void => {
      if (group.length > 1 && group.at(-1)!.at - group[0]!.at > micrometre) {
        const to = mostOf(group.map(({ at }) => at));
        const moves = group.filter(
          ({ at, box }) => by !== 'heads' || Math.abs(to - at - (level.get(box.id) ?? 0)) > micrometre,
        );
        if (moves.some(({ at }) => Math.abs(at - to) > micrometre))
          found.push({ by, openings: moves.length < 2 ? group.map(bare) : moves.map(bare), to });
        if (by === 'sills') for (const { box, at } of group) level.set(box.id, to - at);
      }
      group = [];
    };
    for (const item of sorted) {
      if (group.length > 0 && item.at - group[0]!.at > tolerance + nanometre) close();
      group.push(item);
    }
    close();
  }
  return found;
}

const bare = ({ id, mark, at }: { id: string; mark: string; at: number }) => ({ id, mark, at });

/** The value that most have; where none is had by more than another, the middle one. */
export function mostOf(sorted: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const value of sorted) counts.set(Math.round(value * 1e6), (counts.get(Math.round(value * 1e6)) ?? 0) + 1);
  const most = Math.max(...counts.values());
  const leading = [...counts].filter(([, count]) => count === most);
  return leading.length === 1 ? leading[0]![0] / 1e6 : sorted[(sorted.length - 1) >> 1]!;
}
