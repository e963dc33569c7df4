/** What is said of openings when a cut is planned. */
import type { Units } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { fault, type Fault, type Told } from '../finding.ts';
import type { Loop } from '../mesh/arrangement.ts';
import { worded, type Placed } from '../setout/placed.ts';
import { notCut, type OpeningStatus, type State } from './status.ts';

/** What an opening is said to be when nothing stands against it. */
export function stateOf({ kind }: Placed): State {
  return kind === 'niche' || kind === 'niche to layer'
    ? 'niche'
    : kind === 'boss'
      ? 'boss'
      : kind === 'imprint'
        ? 'imprint'
        : 'cut';
}

/** An opening's outline where it is on the face. */
export function placedLoop({ outline, s, t }: Placed): Loop {
  return {
    xs: outline.xs.map((x) => x + s),
    ys: outline.ys.map((y) => y + t),
    count: outline.count,
    next: outline.next,
  };
}

/** What is said of an opening that lies off its element, and by how much. */
export function outsideStatus(
  { noun, larger, length, height }: Sheet,
  { id, s, t, profile }: Placed,
  units: Units,
): OpeningStatus {
  const ways: string[] = [];
  if (s >= length) ways.push(`${worded(s - length, units)} beyond its end`);
  else if (s + profile.width <= 0) ways.push(`${worded(-s - profile.width, units)} before its start`);
  if (t >= height) ways.push(`${worded(t - height, units)} above its top`);
  else if (t + profile.height <= 0) ways.push(`${worded(-t - profile.height, units)} below its base`);
  return notCut(
    id,
    fault(
      'off-element',
      `it lies off the ${noun}${ways.length > 0 ? `, ${ways.join(' and ')}` : ''}`,
      `Move it onto the ${noun}, or make the ${noun} ${larger}.`,
    ),
  );
}

/** That nothing is seen of an opening by itself. */
export const withinOthers: Told = {
  code: 'within-others',
  reason: 'lies wholly within the openings that it is united with',
  mend: null,
};

/** Why what stands on a face, or is pressed into it, is refused at an edge. */
export function unclear({ kind }: Placed, noun: string): Fault {
  const what = kind === 'boss' ? 'a boss' : 'an imprint';
  return fault(
    'not-clear',
    `${what} must stand clear of the ${noun}’s edge, and of openings that run over it`,
    `Move it further onto the ${noun}, or make it smaller.`,
  );
}

/** What is said of openings whose crossings are too many to work out. */
export function tangled(opening: Placed): OpeningStatus {
  return notCut(
    opening.id,
    fault(
      'too-many-over',
      'it lies on so many others that they cross in too many places',
      'Remove the openings that lie on one another, or block them up.',
    ),
  );
}
