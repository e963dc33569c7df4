/** Many openings given another pattern, and parts made alike across patterns. */
import { describe, expect, it } from '@jest/globals';
import { resolveOpening } from '@yard-arch/core';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, leavesOf, type Part } from '@yard-arch/document';
import { havingIt, makeAlike, swapAll } from '../src/index.ts';

const document = granary();
const of = (pattern: string) => Object.values(document.openings).filter((opening) => opening.pattern === pattern);

describe('another pattern for many', () => {
  it('changes each in its place, to the size that is nearest, and undoes as one', () => {
    const openings = [...of('light'), ...of('oculus')];
    const { changeSet, pairs } = swapAll(document, openings, 'oculus');
    expect(pairs.flatMap((pair) => pair.openings).sort()).toEqual(
      of('light')
        .map(({ id }) => id)
        .sort(),
    );
    for (const { before, after } of pairs) expect([before.pattern.id, after.pattern.id]).toEqual(['light', 'oculus']);
    const { document: next, inverse } = applyChangeSet(document, changeSet);
    for (const { id } of of('light')) {
      const [a, b] = [resolveOpening(document, document.openings[id]!), resolveOpening(next, next.openings[id]!)];
      if (!('outline' in a) || !('outline' in b)) throw new Error('it has no place');
      expect(next.openings[id]!.pattern).toBe('oculus');
      // By their grip in the middle they stay where they were.
      if (document.openings[id]!.grip.across === 'centre')
        expect(b.s + b.profile.width / 2).toBeCloseTo(a.s + a.profile.width / 2, 9);
    }
    expect(applyChangeSet(next, inverse).document).toEqual(document);
  });

  it('tells of those that come down to a floor, and changes nothing where all are of it already', () => {
    expect(swapAll(document, of('light'), 'door').told.length).toBeGreaterThan(0);
    expect(swapAll(document, of('oculus'), 'oculus')).toMatchObject({ pairs: [], changeSet: { changes: [] } });
  });
});

describe('a thing in several patterns', () => {
  it('is made alike where a pattern has it, and nowhere else', () => {
    const owner = Object.values(document.patterns).find(({ parts = [] }) =>
      parts.some(({ kind }) => kind === 'arch ring'),
    )!;
    const ring = owner.parts!.find(({ kind }) => kind === 'arch ring') as Extract<Part, { kind: 'arch ring' }>;
    const shared = { what: 'part', part: { ...ring, joint: 0.0123 } } as const;
    const others = havingIt(document, owner.id, shared);
    expect(others.length).toBeGreaterThan(0);
    expect(others.every(({ differs }) => differs)).toBe(true);
    const { document: next } = applyChangeSet(
      document,
      makeAlike(
        document,
        others.map(({ pattern }) => pattern.id),
        shared,
      ),
    );
    for (const { pattern } of others) {
      const rings = next.patterns[pattern.id]!.parts!.filter(({ kind }) => kind === 'arch ring');
      expect(rings.map((one) => ({ ...one, id: ring.id }))).toEqual(rings.map(() => shared.part));
      // The rest of it is as it was, and each part keeps its own id.
      expect(next.patterns[pattern.id]!.infill).toEqual(pattern.infill);
      expect(next.patterns[pattern.id]!.parts!.map(({ id }) => id)).toEqual(pattern.parts!.map(({ id }) => id));
    }
    expect(havingIt(next, owner.id, shared).some(({ differs }) => differs)).toBe(false);
    expect(next.patterns[owner.id]).toEqual(owner);
  });

  it('a handle is changed wherever a leaf has one; a frame, but for the sides that have none', () => {
    const handle = { kind: 'pull', material: 'stone', height: 0.9 } as const;
    const others = havingIt(document, '', { what: 'handle', handle });
    const ids = others.map(({ pattern }) => pattern.id);
    expect(ids).toContain('door');
    const { patterns } = applyChangeSet(document, makeAlike(document, ids, { what: 'handle', handle })).document;
    for (const id of ids)
      expect(
        leavesOf(patterns[id]!.infill!.field)
          .flatMap((leaf) => leaf.handle ?? [])
          .every((one) => one.kind === 'pull'),
      ).toBe(true);
    const frame = { width: 0.081, depth: 0.072, material: 'stone' };
    const next = applyChangeSet(document, makeAlike(document, ['door'], { what: 'frame', frame })).document;
    expect(next.patterns.door!.infill!.frame).toEqual({
      ...frame,
      without: document.patterns.door!.infill!.frame.without,
    });
  });
});
