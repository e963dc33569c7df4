/** Locked elements: which edits they keep from being made, whatever else is in them. */
import { describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { putting, removing, type Change, type ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import { lockedBy } from '@yard-arch/edit';

const open = granary();
const locking = (...ids: string[]): ProjectDocument => ({
  ...open,
  elements: Object.fromEntries(
    Object.entries(open.elements).map(([id, element]) => [
      id,
      ids.includes(id) ? { ...element, locked: true } : element,
    ]),
  ),
});

/** Any single change of the granary, and the elements that it changes something of. */
const change: fc.Arbitrary<{ readonly change: Change; readonly of: readonly string[] }> = fc.oneof(
  fc.constantFrom(...Object.values(open.openings)).chain((opening) =>
    fc.constantFrom(
      {
        change: putting('openings', { ...opening, up: { ...opening.up, distance: opening.up.distance + 0.1 } }),
        of: [opening.element],
      },
      { change: removing('openings', opening.id), of: [opening.element] },
      { change: putting('openings', { ...opening, element: 'gate' }), of: [opening.element, 'gate'] },
      { change: putting('openings', { ...opening, id: 'fresh' }), of: [opening.element] },
    ),
  ),
  fc
    .constantFrom(...Object.values(open.elements))
    .chain((element) =>
      fc.constantFrom(
        { change: putting('elements', { ...element, turn: element.turn + 1 }), of: [element.id] },
        { change: removing('elements', element.id), of: [element.id] },
      ),
    ),
  fc
    .constantFrom(...Object.values(open.axes))
    .map((axis) => ({ change: putting('axes', { ...axis, along: axis.along + 0.1 }), of: [axis.element] })),
  fc
    .constantFrom(...Object.values(open.patterns))
    .map((pattern) => ({ change: putting('patterns', { ...pattern, name: `${pattern.name} 2` }), of: [] as string[] })),
  fc.constant({ change: { op: 'settings', value: { name: 'Granary' } } as Change, of: [] as string[] }),
);

describe('a lock', () => {
  it('keeps from an edit that changes what is locked, and from no other', () => {
    fc.assert(
      fc.property(
        fc.array(change, { minLength: 1, maxLength: 4 }),
        fc.subarray(Object.keys(open.elements)),
        (edits, locked) => {
          const by = lockedBy(locking(...locked), { name: 'edit', changes: edits.map((one) => one.change) });
          const touched = edits.flatMap(({ of }) => of).filter((id) => locked.includes(id));
          if (touched.length === 0) expect(by).toBeNull();
          else expect(touched.map((id) => open.elements[id]!.name)).toContain(by);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('does not keep from being taken off, nor from being put into a group', () => {
    const document = locking('courtyard');
    const wall = document.elements.courtyard!;
    expect(
      lockedBy(document, { name: 'unlock', changes: [putting('elements', { ...wall, locked: undefined })] }),
    ).toBeNull();
    expect(
      lockedBy(document, { name: 'group', changes: [putting('elements', { ...wall, group: 'Granary' })] }),
    ).toBeNull();
    expect(
      lockedBy(document, {
        name: 'unlock and turn',
        changes: [putting('elements', { ...wall, locked: undefined, turn: 5 })],
      }),
    ).toBe(wall.name);
  });
});
