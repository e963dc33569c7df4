/** Statuses: what became of each opening, so that nothing fails silently. */

/**
 * `cut` right through; `notched` where it runs over the element's edge; a `niche` or a `boss`; an `imprint` that only divides the face; `blocked up` and kept; `not cut` for a
 * reason.
 */
export type State = 'cut' | 'notched' | 'niche' | 'boss' | 'imprint' | 'blocked up' | 'not cut';

export interface OpeningStatus {
  opening: string;
  state: State;
  /** Why it was not cut, or what else there is to know: over which edge it runs, what it is united with. */
  reason: string | null;
  /** What would mend it, where it was not cut. */
  mend: string | null;
  /** Openings with which it is united. */
  unitedWith: string[];
  /** Area that it takes from the element's face by itself, square metres. */
  area: number;
  /** What became of it in the further elements that it is to cut. */
  further?: { element: string; state: State; reason: string | null; mend: string | null }[];
}

/** A status of one that was not cut. */
export function notCut(opening: string, reason: string, mend: string): OpeningStatus {
  return { opening, state: 'not cut', reason, mend, unitedWith: [], area: 0 };
}
