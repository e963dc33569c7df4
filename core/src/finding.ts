/**
 * Findings: whatever is wrong with a document as it is cut, or worth telling. Every kind stands in this one registry; what
 * finds one names its code and says why and what would mend it. How to add one: a line here, and a mend in `edit/` if a
 * click can do it.
 */

/** A `fault` keeps something from being as it was meant; a `note` only tells what came of it. */
export type Weight = 'fault' | 'note';

export const findingKinds = {
  // Elements.
  'too-thick': { title: 'Too thick for its curve', weight: 'fault' },
  'no-outline': { title: 'Its outline encloses nothing', weight: 'fault' },
  'no-vault': { title: 'Its profile makes no vault', weight: 'fault' },
  'too-fine': { title: 'Too finely divided', weight: 'fault' },
  'too-heavy': { title: 'Too much to be made', weight: 'fault' },
  'too-short': { title: 'Shorter than its joints', weight: 'fault' },
  'crosses-itself': { title: 'Its outline crosses itself', weight: 'fault' },
  'over-too-far': { title: 'Its overhangs run into each other', weight: 'fault' },
  'arches-apart': { title: 'Its arches have no room', weight: 'fault' },
  'falls-both-ways': { title: 'Its planes rise and fall', weight: 'fault' },
  'verge-inside': { title: 'Its sides do not close', weight: 'fault' },
  'comes-through': { title: 'Its underside comes through it', weight: 'fault' },
  'never-meets': { title: 'Its planes never meet', weight: 'fault' },
  'not-joined': { title: 'An end meets nothing', weight: 'fault' },
  joined: { title: 'An end is joined', weight: 'note' },
  'not-under': { title: 'It follows no roof', weight: 'fault' },
  'roof-below': { title: 'The roof is below it', weight: 'fault' },
  'through-roof': { title: 'It comes up through a roof', weight: 'note' },
  'open-step': { title: 'It is open between two of its planes', weight: 'note' },
  'not-split': { title: 'It cannot be split so', weight: 'fault' },
  'split-away': { title: 'Its splits leave nothing of it', weight: 'fault' },
  'not-closed': { title: 'Its mesh is not closed', weight: 'fault' },
  failed: { title: 'It failed for an unknown reason', weight: 'fault' },
  // Openings that have no place.
  'element-gone': { title: 'Its element was removed', weight: 'fault' },
  'pattern-gone': { title: 'Its pattern was removed', weight: 'fault' },
  'size-gone': { title: 'Its size was removed', weight: 'fault' },
  'other-dimensions': { title: 'Dimensions of another shape', weight: 'fault' },
  'no-profile': { title: 'Its dimensions make no profile', weight: 'fault' },
  'wrong-face': { title: 'Not on this face', weight: 'fault' },
  'plane-gone': { title: 'Its plane is gone', weight: 'fault' },
  'too-deep': { title: 'Deeper than its element', weight: 'fault' },
  'no-section': { title: 'Its reveal cannot be made', weight: 'fault' },
  'neighbour-astray': { title: 'Measured from one without a place', weight: 'fault' },
  'axis-gone': { title: 'Its axis was removed', weight: 'fault' },
  'datum-gone': { title: 'Its datum was removed', weight: 'fault' },
  'no-place': { title: 'Its place is not a number', weight: 'fault' },
  'aimed-past': { title: 'Its direction misses the face', weight: 'fault' },
  'not-further': { title: 'It cannot cut further elements', weight: 'fault' },
  // Openings that have a place and cannot be cut there.
  'element-faulty': { title: 'Its element cannot be made', weight: 'fault' },
  'off-element': { title: 'It lies off its element', weight: 'fault' },
  'parted-off': { title: 'It lies in what was split off', weight: 'fault' },
  'off-kept': { title: 'Nothing is kept where it lies', weight: 'fault' },
  'nothing-left': { title: 'Nothing would be left', weight: 'fault' },
  'not-clear': { title: 'It must stand clear', weight: 'fault' },
  'too-many-over': { title: 'Too many lie on one another', weight: 'fault' },
  'eaten-up': { title: 'Its reveal asks for more than there is', weight: 'fault' },
  'beyond-curve': { title: 'It reaches too far round the curve', weight: 'fault' },
  'not-divided': { title: 'The face could not be divided', weight: 'fault' },
  'reaches-beyond': { title: 'It reaches beyond its element', weight: 'fault' },
  // What came of openings that were cut.
  'over-edge': { title: 'It runs over an edge', weight: 'note' },
  'within-others': { title: 'It lies within others', weight: 'note' },
  'across-split': { title: 'It lies across a split', weight: 'note' },
  'cuts-planes': { title: 'It cuts several planes', weight: 'note' },
  'keeps-inside': { title: 'Only what lies within it is kept', weight: 'note' },
  'hair-joined': { title: 'It touches in a point', weight: 'note' },
  'opens-cavity': { title: 'It opens a cavity', weight: 'note' },
  'runs-into': { title: 'Something runs into something else', weight: 'fault' },
  'part-left-out': { title: 'A part could not be made', weight: 'fault' },
} as const satisfies Record<string, { title: string; weight: Weight }>;

export type FindingCode = keyof typeof findingKinds;

/** What was found, in words: why, and what would mend it where anything is to be mended. */
export interface Told {
  code: FindingCode;
  reason: string;
  mend: string | null;
}

/** What a finding is about. */
export interface Subject {
  table: 'elements' | 'openings';
  id: string;
}

export interface Finding extends Told {
  subject: Subject;
}

/** Something that keeps what it is about from being made. */
export interface Fault extends Told {
  mend: string;
}

export const fault = (code: FindingCode, reason: string, mend: string): Fault => ({ code, reason, mend });

export const isFault = ({ code }: Told): boolean => findingKinds[code].weight === 'fault';
