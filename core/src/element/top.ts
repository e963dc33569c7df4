/** Tops of walls as lines over their length, and what becomes of them when walls are split, joined and reversed. */
import type { Top, Wall } from '@yard-arch/document';
import type { Impossible } from '../profile/profile.ts';
import { micrometre, millimetre, nanometre, parallel, relative, rounding } from '../tolerances.ts';

type Place = readonly [number, number];

export type TopAndHeight = Pick<Wall, 'top' | 'height'>;

/** A top's corners from the start of a wall to its end: how far along and how high, metres. */
export function topLine(top: Top, length: number, height: number): [number, number][] {
  const line: [number, number][] = [[0, height]];
  if (top.kind === 'level' || top.kind === 'under') line.push([length, height]);
  else if (top.kind === 'raked') line.push([length, top.end]);
  else if (top.kind === 'gabled') line.push([top.at * length, top.apex], [length, top.end ?? height]);
  else {
    // Of several steps at one place the last holds.
    const heights = new Map(top.steps.map((step) => [step.at, step.height]));
    let now = height;
    for (const [at, next] of [...heights].sort(([a], [b]) => a - b)) {
      line.push([at * length, now], [at * length, next]);
      now = next;
    }
    line.push([length, now]);
  }
  return line;
}

/** The height of a wall's top at a share of its length. */
export function topAt({ top, height }: TopAndHeight, share: number): number {
  switch (top.kind) {
    case 'level':
    case 'under':
      return height;
    case 'raked':
      return height + (top.end - height) * share;
    case 'gabled':
      return share <= top.at
        ? height + ((top.apex - height) * share) / top.at
        : top.apex + (((top.end ?? height) - top.apex) * (share - top.at)) / (1 - top.at);
    case 'stepped':
      return top.steps.reduce((found, step) => (step.at <= share + rounding ? step.height : found), height);
  }
}

/** A top in two at a share of its length. */
export function splitTop(wall: TopAndHeight, share: number): [TopAndHeight, TopAndHeight] {
  const { top, height } = wall;
  const here = topAt(wall, share);
  switch (top.kind) {
    case 'level':
    case 'under':
      return [
        { top, height },
        { top, height },
      ];
    case 'raked':
      return [
        { height, top: { kind: 'raked', end: here } },
        { height: here, top },
      ];
    case 'gabled':
      return splitGable(top, height, here, share);
    case 'stepped': {
      const before = top.steps
        .filter(({ at }) => at < share - relative)
        .map((step) => ({ ...step, at: step.at / share }));
      const rest = top.steps
        .filter(({ at }) => at > share + relative)
        .map((step) => ({ ...step, at: (step.at - share) / (1 - share) }));
      const made = (steps: typeof before): Top => (steps.length > 0 ? { kind: 'stepped', steps } : { kind: 'level' });
      return [
        { height, top: made(before) },
        { height: here, top: made(rest) },
      ];
    }
  }
}

/** A gable in two at a share of its length, where it is as high as `here`. */
function splitGable(
  top: Extract<Top, { kind: 'gabled' }>,
  height: number,
  here: number,
  share: number,
): [TopAndHeight, TopAndHeight] {
  const end = top.end ?? height;
  // An apex so near to the split that neither part could say where it is, is taken to be there.
  if (Math.abs(share - top.at) < 1.5 * millimetre)
    return [
      { height, top: { kind: 'raked', end: top.apex } },
      { height: top.apex, top: { kind: 'raked', end } },
    ];
  const gable = (from: number, to: number, at: number): TopAndHeight => ({
    height: from,
    top: {
      kind: 'gabled',
      apex: top.apex,
      at: Math.min(0.999, Math.max(0.001, at)),
      ...(to === from ? {} : { end: to }),
    },
  });
  if (share < top.at)
    return [{ height, top: { kind: 'raked', end: here } }, gable(here, end, (top.at - share) / (1 - share))];
  return [gable(height, here, top.at / share), { height: here, top: { kind: 'raked', end } }];
}

/** The tops of two walls, so long, that follow each other as one: level, raked or gabled where they go on into each other so, stepped where all that is between steps is level. */
export function joinedTop(a: TopAndHeight, long: number, b: TopAndHeight, more: number): TopAndHeight | Impossible {
  if (a.top.kind === 'under' && b.top.kind === 'under' && a.top.roof === b.top.roof)
    return { height: a.height, top: a.top };
  const line = [
    ...topLine(a.top, long, a.height),
    ...topLine(b.top, more, b.height).map(([x, y]): [number, number] => [x + long, y]),
  ];
  // Points on the straight way between their neighbours say nothing.
  const distance = ([ax, ay]: Place, [bx, by]: Place): number => Math.hypot(bx - ax, by - ay);
  const size = (i: number): number => distance(line[i - 1]!, line[i + 1]!);
  for (let i = 1; i + 1 < line.length;) {
    const [[ax, ay], [x, y], [bx, by]] = [line[i - 1]!, line[i]!, line[i + 1]!];
    if (
      distance(line[i]!, line[i - 1]!) > micrometre &&
      Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) > parallel * size(i)
    )
      i += 1;
    else {
      line.splice(i, 1);
      i = Math.max(1, i - 1);
    }
  }
  const whole = long + more;
  const [height, end] = [line[0]![1], line.at(-1)![1]];
  const slopes = line
    .slice(1)
    .filter(([x, y], i) => x - line[i]![0] > micrometre && Math.abs(y - line[i]![1]) > micrometre).length;
  if (line.length === 2)
    return slopes === 0 ? { height, top: { kind: 'level' } } : { height, top: { kind: 'raked', end } };
  if (slopes === 0) {
    const steps = line
      .slice(1)
      .flatMap(([x, y], i) => (x - line[i]![0] <= micrometre ? [{ at: x / whole, height: y }] : []));
    return { height, top: { kind: 'stepped', steps } };
  }
  const [, apex] = line;
  if (
    line.length === 3 &&
    apex![0] > millimetre * whole &&
    apex![0] < 0.999 * whole &&
    line[2]![0] - apex![0] > micrometre
  )
    return {
      height,
      top: {
        kind: 'gabled',
        apex: apex![1],
        at: apex![0] / whole,
        ...(Math.abs(end - height) < nanometre ? {} : { end }),
      },
    };
  return {
    reason: 'their tops together are neither level, raked, gabled nor stepped',
    mend: 'Give them tops that go on into each other so first.',
  };
}

/** The top of a wall that is gone along the other way. @param share where a share of the length is then. */
export function reversedTop({ top, height }: TopAndHeight, share: (at: number) => number): TopAndHeight {
  switch (top.kind) {
    case 'level':
    case 'under':
      return { height, top };
    case 'raked':
      return { height: top.end, top: { kind: 'raked', end: height } };
    case 'gabled':
      return {
        height: top.end ?? height,
        top: { kind: 'gabled', apex: top.apex, at: share(top.at), ...(top.end === undefined ? {} : { end: height }) },
      };
    case 'stepped':
      return {
        height: top.steps.at(-1)!.height,
        top: {
          kind: 'stepped',
          steps: top.steps
            .map(({ at }, i) => ({ at: share(at), height: i === 0 ? height : top.steps[i - 1]!.height }))
            .reverse(),
        },
      };
  }
}
