/** Findings, each brought about, and the mend that a click makes of it: afterwards it is not found any more. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import {
  cutModel,
  findingKinds,
  findingsOf,
  isFault,
  reportOn,
  type Finding,
  type FindingCode,
  type Model,
} from '@yard-arch/core';
import { solidLibrary } from '@yard-arch/core/solid';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, type Opening, type Pattern, type ProjectDocument, type Wall } from '@yard-arch/document';
import { fixesOf } from '@yard-arch/edit';

const whole = granary();

/** Of the granary the main range alone: the rest takes its time and is not asked about. */
const kept = new Set(['courtyard', 'east', 'quay', 'west', 'main-roof']);
const base: ProjectDocument = {
  ...whole,
  elements: Object.fromEntries(Object.entries(whole.elements).filter(([id]) => kept.has(id))),
  openings: Object.fromEntries(Object.entries(whole.openings).filter(([, { element }]) => kept.has(element))),
  axes: Object.fromEntries(Object.entries(whole.axes).filter(([, { element }]) => kept.has(element))),
};
let known: Model | undefined;
/** As the page asks it: of the model after an edit, in which what the edit leaves alone is not cut again. */
const found = (document: ProjectDocument): Finding[] => {
  const model = cutModel(document, (known ??= cutModel(base)));
  return findingsOf(document, {
    statuses: model.statuses,
    faultOf: (id) => model.cuts.get(id)?.fault,
  });
};
const withOpening = (over: Partial<Opening>, id = 'o10'): ProjectDocument => ({
  ...base,
  openings: { ...base.openings, [id]: { ...base.openings[id]!, ...over } },
});
const withPattern = (over: Partial<Pattern>): ProjectDocument => {
  const { pattern } = base.openings.o10!;
  return { ...base, patterns: { ...base.patterns, [pattern]: { ...base.patterns[pattern]!, ...over } } };
};
const withWall = (over: Partial<Wall>): ProjectDocument => ({
  ...base,
  elements: { ...base.elements, courtyard: { ...(base.elements.courtyard as Wall), ...over } },
});

/** A document in which something is found that is not in the granary. */
const wrong: [FindingCode, () => ProjectDocument][] = [
  ['reaches-beyond', () => withOpening({ along: { from: 'start', distance: 0.2 } })],
  ['off-element', () => withOpening({ along: { from: 'start', distance: -4 } })],
  ['size-gone', () => withOpening({ size: 'gone' })],
  ['other-dimensions', () => withOpening({ own: { diameter: 1 } })],
  ['axis-gone', () => withOpening({ along: { from: 'axis', axis: 'gone', distance: 0 } })],
  ['datum-gone', () => withOpening({ up: { from: 'datum', datum: 'gone', distance: 0 } })],
  ['neighbour-astray', () => withOpening({ along: { from: 'neighbour', opening: 'gone', edge: 'left', distance: 0 } })],
  ['no-place', () => withOpening({ along: { from: 'start', distance: NaN } })],
  ['aimed-past', () => withOpening({ aim: { turn: (base.elements.courtyard as Wall).turn } })],
  ['no-profile', () => withOpening({ own: negative(base, 'o10') })],
  ['too-deep', () => withPattern({ cut: { kind: 'niche', depth: 9 } })],
  ['no-section', () => withPattern({ sections: { head: { seat: 9 } } })],
  ['pattern-gone', () => withOpening({ pattern: 'gone' })],
  ['element-gone', () => withOpening({ element: 'gone' })],
  [
    'too-fine',
    () => ({
      ...withWall({
        sweep: 1.7,
        length: 9e4,
        runs: Array.from({ length: 199 }, () => ({ turn: 0, length: 9e4, sweep: 1.7 })),
      }),
      chord: 1e-4,
    }),
  ],
  ['not-under', () => withWall({ top: { kind: 'under', roof: 'gone' } })],
  ['roof-below', () => withWall({ start: { ...(base.elements.courtyard as Wall).start, z: 40 } })],
  ['not-joined', () => withWall({ ends: { start: 'butted', end: 'square' }, start: { x: 400, y: 400, z: 0 } })],
];

/** Dimensions of an opening's pattern, all less than nothing. */
function negative(document: ProjectDocument, id: string): Record<string, number> {
  const { pattern, size } = document.openings[id]!;
  return Object.fromEntries(Object.keys(document.patterns[pattern]!.sizes[size]!.dimensions).map((name) => [name, -1]));
}

beforeAll(() => solidLibrary());

describe('a finding', () => {
  it.each(wrong)('%s is told once with its mend, and gone after it', (code, make) => {
    const document = make();
    const all = found(document).filter((one) => one.code === code);
    const [finding] = all;
    expect(finding).toBeDefined();
    expect(finding!.reason).toMatch(/\w/);
    expect(finding!.mend).toMatch(/\w.*\.$/);
    expect(findingKinds[code].title).toMatch(/\w/);
    expect(isFault(finding!)).toBe(true);
    const fixes = fixesOf(document, finding!);
    expect(fixes.length).toBeGreaterThan(0);
    for (const { label, changeSet } of fixes) {
      const after = found(applyChangeSet(document, changeSet).document).filter(
        (one) => one.code === code && one.subject.id === finding!.subject.id,
      );
      expect([label, after]).toEqual([label, []]);
    }
    expect(all.filter(({ subject }) => subject.id === finding!.subject.id)).toHaveLength(1);
  });

  it('is a note where a wall comes up through a roof, and gone with the wall under it', () => {
    const document = withWall({ top: { kind: 'level' }, height: 14 });
    const of = (after: ProjectDocument) => found(after).filter(({ code }) => code === 'through-roof');
    expect(of(base)).toEqual([]);
    const [told] = of(document);
    expect(told).toMatchObject({ subject: { id: 'courtyard' }, reason: expect.stringContaining('Main roof') });
    expect(isFault(told!)).toBe(false);
    const [fix] = fixesOf(document, told!);
    expect(fix!.label).toBe('let it end under Main roof');
    expect(of(applyChangeSet(document, fix!.changeSet).document)).toEqual([]);
    // As high as its plate it only bears the roof.
    expect(of(withWall({ top: { kind: 'level' } }))).toEqual([]);
  });

  it('is none in the granary that would be a fault', () => {
    const { findings } = reportOn(whole, cutModel(whole));
    expect(findings.filter(isFault)).toEqual([]);
    expect(findings.every(({ code }) => code in findingKinds)).toBe(true);
  });
});
