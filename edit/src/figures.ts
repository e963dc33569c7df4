/** What a figure on the sheet can be changed to: for each, what may give way. */
import { axisFrom, spread, type Box, type Impossible } from '@yard-arch/core';
import {
  isInPlan,
  dimensionNames,
  putting,
  runsOf,
  type ChangeSet,
  type Element,
  type FaceName,
  type ProjectDocument,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { changeElement } from './elements.ts';
import { resize, uses } from './patterns.ts';
import { putTo } from './many.ts';
import { changeOwn } from './opening.ts';
import { nanometre } from '@yard-arch/core';

/** One way in which a figure can become what was typed. */
export interface FigureChoice {
  label: string;
  /** Takes metres. */
  apply: (value: number) => ChangeSet | Impossible;
}

/** A pier along a row, between two openings or an opening and the face's end. */
interface Pier {
  row: readonly Box[];
  /** The openings on either side; null at an end. */
  before: string | null;
  after: string | null;
  /** Its width, and the face's length, metres. */
  value: number;
  length: number;
  /** The opening that is chosen. */
  chosen: string | null;
}

/** What can give way when a pier becomes wider or narrower. */
export function pierChoices(
  document: ProjectDocument,
  { row, before, after, value, length, chosen }: Pier,
): FigureChoice[] {
  const sorted = [...row].sort((a, b) => a.s - b.s);
  const [left, right] = [sorted.find((box) => box.id === before), sorted.find((box) => box.id === after)];
  const shift = (moved: readonly Box[], by: number, name: string): ChangeSet =>
    edit(
      name,
      ...putTo(document, new Map(moved.map((box) => [box.id, { s: box.s + by, t: box.t, face: box.face ?? 'outer' }]))),
    );
  const choices: FigureChoice[] = [];
  const one = (box: Box, sign: 1 | -1): FigureChoice => ({
    label: `${box.mark} moves`,
    apply: (to) => shift([box], sign * (to - value), `move ${box.mark}`),
  });
  const several = (boxes: readonly Box[], sign: 1 | -1, where: string): void => {
    if (boxes.length > 1)
      choices.push({
        label: `${boxes[0]!.mark} and all ${where} it move`,
        apply: (to) => shift(boxes, sign * (to - value), `move ${boxes.length} openings`),
      });
  };
  if (right) choices.push(one(right, 1));
  if (left) choices.push(one(left, -1));
  if (left && chosen === left.id) choices.reverse();
  if (right) several(sorted.slice(sorted.indexOf(right)), 1, 'after');
  if (left) several(sorted.slice(0, sorted.indexOf(left) + 1).reverse(), -1, 'before');
  if (left && right && sorted.length > 2)
    choices.push({
      label: 'every pier of the row',
      apply: (to) => {
        const laid = spread(
          sorted.map(({ width }) => width),
          { from: 0, to: length },
          { kind: 'given pier', pier: to },
          { margins: { start: null, end: null }, units: document.units },
        );
        if ('reason' in laid) return laid;
        return edit(
          `set the piers of ${sorted.length} openings`,
          ...putTo(
            document,
            new Map(sorted.map((box, i) => [box.id, { s: laid.lefts[i]!, t: box.t, face: box.face ?? 'outer' }])),
          ),
        );
      },
    });
  return choices;
}

/** The distance from the base to a sill, or from a head to the top. */
export function levelChoices(
  document: ProjectDocument,
  box: Box,
  what: 'sill' | 'head',
  value: number,
): FigureChoice[] {
  const sign = what === 'sill' ? 1 : -1;
  return [
    {
      label: `${box.mark} moves`,
      apply: (to) =>
        edit(
          `move ${box.mark}`,
          ...putTo(
            document,
            new Map([[box.id, { s: box.s, t: box.t + sign * (to - value), face: box.face ?? 'outer' }]]),
          ),
        ),
    },
  ];
}

/** The width or the height of an opening: its own, or that of all of its size. */
export function sizeChoices(document: ProjectDocument, box: Box, which: 'width' | 'height'): FigureChoice[] {
  const opening = document.openings[box.id]!;
  const pattern = document.patterns[opening.pattern]!;
  const size = pattern.sizes[opening.size]!;
  const names = dimensionNames(pattern.profile.shape);
  const name =
    which === 'height'
      ? names.find((n) => n === 'height' || n === 'diameter')
      : names.find((n) => n === 'width' || n === 'span' || n === 'diameter');
  if (!name) return [];
  const alone: FigureChoice = {
    label: `${box.mark} alone`,
    apply: (to) => changeOwn(document, opening, { ...(opening.own ?? size.dimensions), [name]: to }),
  };
  if (opening.own) return [alone];
  const count = uses(document, pattern.id, size.id);
  const all: FigureChoice = {
    label: count > 1 ? `all ${count} of its size` : 'its size',
    apply: (to) => resize(document, pattern, size, { ...size.dimensions, [name]: to }),
  };
  return count > 1 ? [all, alone] : [all];
}

/** The distance between two axes as it is seen on a face, or an axis and the face's end, metres. */
interface BetweenAxes {
  element: Element;
  face: FaceName;
  axes: readonly { id: string; name: string; s: number }[];
  from: number;
  to: number;
}

/** What can give way when that becomes more or less. */
export function axisChoices(document: ProjectDocument, { element, face, axes, from, to }: BetweenAxes): FigureChoice[] {
  const sorted = [...axes].sort((a, b) => a.s - b.s);
  const value = to - from;
  const outer = (s: number): number => Math.round(axisFrom(document, element, s, face) * 1e9) / 1e9;
  const move = (moved: typeof sorted, by: number): ChangeSet =>
    edit(
      moved.length === 1 ? `move axis ${moved[0]!.name}` : `move ${moved.length} axes`,
      ...moved.map(({ id, s }) => putting('axes', { ...document.axes[id]!, along: outer(s + by) })),
    );
  const left = sorted.find(({ s }) => Math.abs(s - from) < nanometre);
  const right = sorted.find(({ s }) => Math.abs(s - to) < nanometre);
  const choices: FigureChoice[] = [];
  if (right) choices.push({ label: `axis ${right.name} moves`, apply: (wanted) => move([right], wanted - value) });
  if (left) choices.push({ label: `axis ${left.name} moves`, apply: (wanted) => move([left], value - wanted) });
  if (right) {
    const after = sorted.slice(sorted.indexOf(right));
    if (after.length > 1)
      choices.push({
        label: `axis ${right.name} and all after it move`,
        apply: (wanted) => move(after, wanted - value),
      });
  }
  if (left && right && sorted.length > 2)
    choices.push({
      label: 'every bay, from the first axis on',
      apply: (wanted) =>
        edit(
          `set ${sorted.length - 1} bays`,
          ...sorted.slice(1).map(({ id }, i) =>
            putting('axes', {
              ...document.axes[id]!,
              along: outer(sorted[0]!.s + (i + 1) * wanted),
            }),
          ),
        ),
    });
  return choices;
}

/** The length of a wall as it is seen on a face: either end may move. Nothing where an element's outline says how long it is. */
export function lengthChoices(element: Element, face: FaceName = 'outer', seen?: number): FigureChoice[] {
  if (!isInPlan(element) || runsOf(element).length > 1) return [];
  if (face === 'inner' && seen !== undefined) {
    // Its faces grow by as much: an arc keeps its angle, so that its radius grows.
    const outer = (wanted: number): number => element.length + wanted - seen;
    return lengthChoices(element)
      .map(({ apply }, i) => ({
        label: i === 0 ? 'the start moves, as it is seen from within' : 'the end moves, as it is seen from within',
        apply: (wanted: number) => apply(outer(wanted)),
      }))
      .reverse();
  }
  const choices: FigureChoice[] = [
    { label: 'the end moves', apply: (length) => changeElement(element, { length }, 'lengthen') },
  ];
  if (!element.sweep)
    choices.push({
      label: 'the start moves',
      apply: (length) => {
        const turn = (element.turn * Math.PI) / 180;
        const by = element.length - length;
        const whole = (metres: number): number => Math.round(metres * 1e9) / 1e9;
        return changeElement(
          element,
          {
            length,
            start: {
              ...element.start,
              x: whole(element.start.x + by * Math.cos(turn)),
              y: whole(element.start.y + by * Math.sin(turn)),
            },
          },
          'lengthen',
        );
      },
    });
  return choices;
}

/** The height of a wall. */
export function heightChoices(element: Element): FigureChoice[] {
  return isInPlan(element) && element.top.kind === 'level'
    ? [{ label: 'the top moves', apply: (height) => changeElement(element, { height }, 'heighten') }]
    : [];
}
