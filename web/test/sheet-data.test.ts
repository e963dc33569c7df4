/** What the sheet shows of a document: what an edit leaves alone is the very same, so that it is not drawn again. */
import { describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { applyChangeSet } from '@yard-arch/document';
import { moveAll, openingsOf, removeAll } from '@yard-arch/edit';
import fc from 'fast-check';
import { linesOf, onElement } from '../src/boards/sheet-data.ts';

const document = granary();

describe('what is shown of an element', () => {
  it('is the same object for every opening that an edit does not move, and tells where the others are', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(document.elements)),
        fc.subarray(Object.keys(document.openings), { minLength: 1, maxLength: 5 }),
        fc.integer({ min: -50, max: 50 }),
        (id, moved, centimetres) => {
          const before = onElement(document, document.elements[id]!, 'outer', null);
          const now = applyChangeSet(
            document,
            moveAll(document, openingsOf(document, moved), { ds: centimetres / 100, dt: 0.1 }),
          ).document;
          const after = onElement(now, now.elements[id]!, 'outer', before);
          const fresh = onElement(now, now.elements[id]!, 'outer', null);
          expect(after.placed).toEqual(fresh.placed);
          expect(after.boxes).toEqual(fresh.boxes);
          after.placed.forEach((one, i) => {
            const old = before.placed.find((other) => other.id === one.id)!;
            const stands = old.s === one.s && old.t === one.t;
            expect(one === old).toBe(stands);
            expect(after.boxes[i] === before.boxes.find((box) => box.id === one.id)).toBe(stands);
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('loses what is taken away, and keeps the rest', () => {
    const wall = document.elements.courtyard!;
    const before = onElement(document, wall, 'outer', null);
    const now = applyChangeSet(document, removeAll(document, openingsOf(document, ['o9']))).document;
    const after = onElement(now, wall, 'outer', before);
    expect(after.placed).toHaveLength(before.placed.length - 1);
    for (const one of after.placed) expect(before.placed).toContain(one);
  });

  it('has the datums of its heights and its own axes to come into line with', () => {
    const lines = linesOf(document, document.elements.courtyard!, 'outer');
    expect(lines.axes.map(({ name }) => name)).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G']);
    for (const { t, level } of lines.datums) {
      expect(t).toBeGreaterThanOrEqual(0);
      expect(t).toBeLessThanOrEqual(lines.height);
      expect(t).toBeCloseTo(level - document.elements.courtyard!.start.z, 9);
    }
    expect(lines.course).toBeCloseTo(0.075, 9);
  });
});
