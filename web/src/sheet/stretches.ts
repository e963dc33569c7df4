/** Stretches of a dimension string: its spans, or where there are so many that their figures would cover one another, several under one figure that tells of all of them. */
import { layFigures, mannerOf } from './figures.ts';

/** What a span is between: the jambs of an opening, two openings, or two axes. */
export type SpanKind = 'opening' | 'pier' | 'bay';

export interface Measured {
  /** Metres. */
  size: number;
  kind: SpanKind;
  /** Of what is chosen: it always has a figure of its own. */
  own: boolean;
}

export interface Stretch {
  /** Its first span, and its last one. */
  first: number;
  last: number;
  text: string;
}

/**
 * @param scale pixels a metre.
 * @param worded words a length.
 */
export function stretchesOf(spans: readonly Measured[], scale: number, worded: (metres: number) => string): Stretch[] {
  const texts = spans.map(({ size }) => worded(size));
  const figures = layFigures(
    spans.map(({ size }) => size * scale),
    texts,
  );
  const isNarrow = (i: number): boolean => i < spans.length && figures[i]!.manner !== 'level' && !spans[i]!.own;
  const found: Stretch[] = [];
  for (let first = 0; first < spans.length; first++) {
    let last = first;
    if (isNarrow(first)) while (isNarrow(last + 1)) last += 1;
    const run = spans.slice(first, last + 1);
    if (last > first && figures.slice(first, last + 1).some(({ crowded }) => crowded))
      found.push({ first, last, text: together(run, scale, worded) });
    else for (let i = first; i <= last; i++) found.push({ first: i, last: i, text: texts[i]! });
    first = last;
  }
  return found;
}

const called: Record<SpanKind, [one: string, many: string]> = {
  opening: ['opening', 'openings'],
  pier: ['pier', 'piers'],
  bay: ['bay', 'bays'],
};

/** Tells of spans by their kinds, “45 openings of 1 200, 44 piers of 900 to 1 350”, or as much of that as has room level on their string; nothing where not even their number has. */
function together(spans: readonly Measured[], scale: number, worded: (metres: number) => string): string {
  const parts = (['opening', 'pier', 'bay'] as const).flatMap((kind) => {
    const sizes = spans.filter((span) => span.kind === kind).map(({ size }) => size);
    if (sizes.length === 0) return [];
    const [least, most] = [worded(Math.min(...sizes)), worded(Math.max(...sizes))];
    const number = `${sizes.length} ${called[kind][sizes.length === 1 ? 0 : 1]}`;
    return [{ number, whole: `${number} of ${least === most ? least : `${least} to ${most}`}` }];
  });
  const room = scale * spans.reduce((sum, { size }) => sum + size, 0);
  const ways = [parts.map(({ whole }) => whole).join(', '), parts.map(({ number }) => number).join(', ')];
  return ways.find((text) => mannerOf(room, text) === 'level') ?? '';
}
