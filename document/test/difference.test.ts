/** Differences between documents, and edits made on one that has moved on. */
import { describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import fc from 'fast-check';
import {
  applyChangeSet,
  differenceOf,
  putting,
  rebased,
  removing,
  sameValue,
  type Change,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
  withChanges,
} from '../src/index.ts';

const document = granary();
const ids = Object.keys(document.openings);
const put = (name: string, opening: Opening): ChangeSet => ({ name, changes: [putting('openings', opening)] });

const anyChange: fc.Arbitrary<(d: ProjectDocument) => Change> = fc.oneof(
  fc.tuple(fc.constantFrom(...ids), fc.integer({ min: 0, max: 9 })).map(
    ([id, distance]) =>
      (d: ProjectDocument) =>
        putting('openings', { ...(d.openings[id] ?? document.openings[id]!), along: { from: 'start', distance } }),
  ),
  fc
    .constantFrom(...ids)
    .map(
      (id) => (d: ProjectDocument) =>
        d.openings[id] ? removing('openings', id) : putting('openings', document.openings[id]!),
    ),
  fc
    .integer({ min: 1, max: 20 })
    .map((length) => (d: ProjectDocument) => putting('elements', { ...d.elements.gate!, length } as never)),
  fc.constantFrom('mm', 'm', 'ft-in').map((units) => () => ({ op: 'settings', value: { units } }) as Change),
);
const changed = (changes: readonly ((d: ProjectDocument) => Change)[]): ProjectDocument =>
  changes.reduce((d, make) => applyChangeSet(d, { name: 'change', changes: [make(d)] }).document, document);

describe('a difference', () => {
  it('makes the one document of the other, both ways', () => {
    fc.assert(
      fc.property(fc.array(anyChange, { maxLength: 12 }), fc.array(anyChange, { maxLength: 12 }), (p, q) => {
        const [a, b] = [changed(p), changed(q)];
        const changes = differenceOf(a, b);
        const made = changes.length > 0 ? applyChangeSet(a, { name: 'go back', changes }).document : a;
        expect(sameValue(made, b)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});

describe('changes that were checked before', () => {
  it('make what they make when they are checked, and leave what they do not touch the very same', () => {
    fc.assert(
      fc.property(
        fc.array(anyChange, { maxLength: 12 }),
        fc.array(anyChange, { minLength: 1, maxLength: 12 }),
        fc.constantFrom(undefined, null, 0.002),
        (p, q, chord) => {
          const from = changed(p);
          const changes: Change[] = [
            ...differenceOf(from, changed(q)),
            { op: 'settings', value: { name: 'Loft', ...(chord === undefined ? {} : { chord }) } },
          ];
          const made = withChanges(from, changes);
          expect(made).toEqual(applyChangeSet(from, { name: 'go on', changes }).document);
          expect(made.patterns).toBe(from.patterns);
          expect(withChanges(made, [{ op: 'settings', value: { chord: null } }])).not.toHaveProperty('chord');
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('an edit made on a document that others have changed', () => {
  it('keeps what they changed of the same row', () => {
    const o9 = document.openings.o9!;
    const mine = put('block up', { ...o9, blockedUp: true });
    const { inverse } = applyChangeSet(document, mine);
    const theirs = applyChangeSet(document, put('move', { ...o9, along: { from: 'start', distance: 3 } })).document;
    const both = applyChangeSet(theirs, rebased(mine, inverse, theirs)).document;
    expect(both.openings.o9).toEqual({ ...o9, blockedUp: true, along: { from: 'start', distance: 3 } });
    // Taking mine back leaves theirs.
    const back = applyChangeSet(both, rebased(inverse, mine, both)).document;
    expect(back.openings.o9).toEqual({ ...o9, along: { from: 'start', distance: 3 } });
  });

  it('keeps both of two sizes that were changed', () => {
    const arch = document.patterns.arch!;
    const sized = (size: string, span: number): ChangeSet => ({
      name: 'resize',
      changes: [
        putting('patterns', {
          ...arch,
          sizes: {
            ...arch.sizes,
            [size]: { ...arch.sizes[size]!, dimensions: { ...arch.sizes[size]!.dimensions, span } },
          },
        }),
      ],
    });
    const mine = sized('a', 1.5);
    const { inverse } = applyChangeSet(document, mine);
    const theirs = applyChangeSet(document, sized('b', 1)).document;
    const { sizes } = applyChangeSet(theirs, rebased(mine, inverse, theirs)).document.patterns.arch!;
    expect([sizes.a!.dimensions.span, sizes.b!.dimensions.span]).toEqual([1.5, 1]);
  });

  it('does not remove again what is gone, and is itself where nobody interfered', () => {
    const mine: ChangeSet = { name: 'remove two', changes: [removing('openings', 'o9'), removing('openings', 'o10')] };
    const { inverse } = applyChangeSet(document, mine);
    expect(rebased(mine, inverse, document)).toEqual(mine);
    const theirs = applyChangeSet(document, { name: 'remove', changes: [removing('openings', 'o9')] }).document;
    expect(applyChangeSet(theirs, rebased(mine, inverse, theirs)).document.openings.o10).toBeUndefined();
  });
});
