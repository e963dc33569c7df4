/** The register's list, and where points in plan come into line. */
import { describe, expect, it } from '@jest/globals';
import { cutModel } from '@yard-arch/core';
import { facade, granary } from '@yard-arch/demo';
import { applyChangeSet, type ProjectDocument, type Wall } from '@yard-arch/document';
import { groupsOf, moveAll, setGroup, setLocked, wallsOf } from '@yard-arch/edit';
import fc from 'fast-check';
import { countsOf, listed, type Asked } from '../src/register/listing.ts';
import { snapInPlan } from '../src/plan/snap-plan.ts';

const document = granary();
const names = (
  d: ProjectDocument,
  ...[order, wanted, search, hidden]: [Asked['order'], Asked['wanted'], string, ReadonlySet<string>?]
): string[][] =>
  listed(d, { order, wanted, search, hidden: hidden ?? new Set() }, countsOf(d, new Map())).map(
    ({ title, elements }) => [title ?? '', ...elements.map(({ name }) => name)],
  );

describe('the register', () => {
  it('finds walls by their names and groups, and by marks and patterns of what is on them', () => {
    expect(names(document, 'all', 'all', 'gable')[0]).toEqual([
      '',
      'East gable',
      'West gable',
      'Cart shed gable',
      // Its dormers are gabled.
      'Main roof',
    ]);
    expect(names(document, 'all', 'all', 'stair SLIT')[0]).toEqual(['', 'Stair drum']);
    expect(names(document, 'all', 'all', 'b-09')[0]).toEqual(['', 'Courtyard wall']);
    expect(names(document, 'all', 'all', 'nowhere')[0]).toEqual(['']);
  });

  it('filters what has openings, what has faults, and what is hidden', () => {
    expect(names(document, 'all', 'openings', '')[0]).not.toContain('Cart shed back');
    expect(names(document, 'all', 'faults', '')[0]).toEqual(['']);
    const short = {
      ...document,
      elements: { ...document.elements, courtyard: { ...(document.elements.courtyard as Wall), length: 15 } },
    };
    expect(names(short, 'all', 'faults', '')[0]).toEqual(['', 'Courtyard wall']);
    expect(names(document, 'all', 'hidden', '', new Set(['drum']))[0]).toEqual(['', 'Stair drum']);
  });

  it('counts very many, each once', () => {
    const many = facade(500);
    const far = applyChangeSet(many, moveAll(many, Object.values(many.openings), { ds: 100, dt: 0 })).document;
    const { statuses } = cutModel(far);
    const { open, failed, misfit } = countsOf(far, statuses).get('facade')!;
    expect(open + failed).toBe(500);
    expect(failed).toBe([...statuses.values()].filter(({ state }) => state === 'not cut').length);
    // Cut at the end of the wall, not beyond it.
    expect(misfit).toBe([...statuses.values()].filter(({ state }) => state === 'notched').length);
    expect(Math.min(open, failed, misfit)).toBeGreaterThan(0);
  });

  it('lays out groups and floors, and locks', () => {
    const grouped = applyChangeSet(
      document,
      setGroup([document.elements.courtyard!, document.elements.quay!], 'Granary'),
    ).document;
    expect(groupsOf(grouped)).toEqual(['Granary', 'Undercroft']);
    expect(names(grouped, 'groups', 'all', '')[0]).toEqual(['Granary', 'Courtyard wall', 'Quay wall']);
    const raised = {
      ...document,
      elements: { ...document.elements, drum: { ...document.elements.drum!, start: { x: 0, y: 0, z: 4 } } },
      datums: {
        ...document.datums,
        upper: { id: 'upper', name: 'First floor', level: 3.2, element: null, kind: 'floor' as const },
      },
    };
    expect(names(raised, 'floors', 'all', '').find(([title]) => title === 'First floor')).toEqual([
      'First floor',
      'Stair drum',
    ]);
    const locked = applyChangeSet(document, setLocked([document.elements.drum!], true)).document;
    expect(locked.elements.drum!.locked).toBe(true);
    expect(applyChangeSet(locked, setLocked([locked.elements.drum!], false)).document.elements.drum).toEqual(
      document.elements.drum,
    );
  });
});

describe('a point in plan', () => {
  const walls = wallsOf(document);

  it('snaps to ends of walls, and says whose', () => {
    expect(snapInPlan({ at: [19.1, 0.1], walls, from: null, reach: 0.3, free: false })).toMatchObject({
      at: [19.2, 0],
      reason: expect.stringMatching(/of (Courtyard wall|East gable)/),
    });
    expect(snapInPlan({ at: [19.1234, 0.1], walls, from: null, reach: 0.3, free: true })).toEqual({
      at: [19.123, 0.1],
      reason: null,
      guide: null,
    });
  });

  it('drawn from another goes in whole steps of 15°', () => {
    fc.assert(
      fc.property(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }), (x, y) => {
        fc.pre(Math.hypot(x, y) > 10);
        const { at } = snapInPlan({
          at: [40 + x / 10, 40 + y / 10],
          walls: [],
          from: [40, 40],
          reach: 0.01,
          free: false,
        });
        const degrees = (Math.atan2(at[1] - 40, at[0] - 40) * 180) / Math.PI;
        expect(Math.abs(degrees / 15 - Math.round(degrees / 15))).toBeLessThan(1e-6);
      }),
    );
  });

  it('goes as far as to stand level with another end', () => {
    const snapped = snapInPlan({ at: [8, 9.55], walls, from: [8, 2], reach: 0.3, free: false });
    expect(snapped.at).toEqual([8, 9.6]);
    expect(snapped.reason).toMatch(/90°, in line with the (start|end) of/);
  });
});
