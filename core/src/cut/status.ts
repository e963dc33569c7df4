/** Statuses: what became of each opening, so that nothing fails silently. */
import type { Fault, Told } from '../finding.ts';

/**
 * `cut` right through; `notched` where it runs over the element's edge; a `niche` or a `boss`; an `imprint` that only divides the face; `blocked up` and kept; `not cut` for a
 * reason.
 */
export type State = 'cut' | 'notched' | 'niche' | 'boss' | 'imprint' | 'blocked up' | 'not cut';

export interface OpeningStatus {
  opening: string;
  state: State;
  /** What was found of it: why it was not cut, over which edge it runs, what it is joined to. */
  findings: readonly Told[];
  /** The same in one line: why it was not cut, or what else there is to know. */
  reason: string | null;
  /** What would mend it. */
  mend: string | null;
  /** Openings with which it is united. */
  unitedWith: string[];
  /** Area that it takes from the element's face by itself, square metres. */
  area: number;
  /** What became of it in the further elements that it is to cut. */
  further?: FurtherStatus[];
}

/** What became of an opening, but for its area, which changes with every figure. */
export type Outcome = Omit<OpeningStatus, 'area'>;

export type FurtherStatus = Pick<OpeningStatus, 'state' | 'findings' | 'reason' | 'mend'> & { element: string };

const none: readonly Told[] = [];

interface Became extends Pick<OpeningStatus, 'opening' | 'state' | 'area'> {
  findings?: readonly Told[];
  unitedWith?: string[];
}

/** A status with what was found, and that in one line. */
export function statusOf(told: Became): OpeningStatus {
  const { opening, state, area, findings = none, unitedWith = [] } = told;
  let reason: string | null = null;
  let mend: string | null = null;
  for (const found of findings) {
    reason = reason === null ? found.reason : `${reason}; ${found.reason}`;
    mend ??= found.mend;
  }
  return { opening, state, findings, reason, mend, unitedWith, area };
}

/** A status of which more was found. */
export const withFindings = (status: OpeningStatus, found: readonly Told[]): OpeningStatus =>
  found.length === 0 ? status : { ...status, ...statusOf({ ...status, findings: [...status.findings, ...found] }) };

/** A status of one that was not cut. */
export const notCut = (opening: string, found: Fault): OpeningStatus =>
  statusOf({ opening, state: 'not cut', findings: [found], area: 0 });
