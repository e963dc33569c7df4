/** What is refused where it is read, told in bounded words, and what edits touch. */
import { describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import fc from 'fast-check';
import {
  applyChangeSet,
  checkChangeSet,
  checkDocument,
  editsMeet,
  measuredFrom,
  nameSchema,
  pathsMeet,
  putting,
  Refused,
  ringFrom,
  valuesChanged,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
} from '../src/index.ts';

const document = granary();

function refusal(what: () => unknown): Refused {
  try {
    what();
  } catch (error) {
    if (error instanceof Refused) return error;
    throw error;
  }
  throw new Error('it was taken');
}

describe('control characters', () => {
  it.each(['a\u0000b', 'two\nlines', 'tab\tbed', '\u007f', '\u0085'])('are refused in names: %j', (name) => {
    expect(nameSchema.safeParse(name).success).toBe(false);
    expect(refusal(() => checkDocument({ ...document, name })).faults[0]).toMatchObject({ path: 'name' });
    const opening = { ...document.openings.o9!, mark: name };
    expect(
      refusal(() => applyChangeSet(document, { name: 'rename', changes: [putting('openings', opening)] })).faults[0],
    ).toMatchObject({ path: 'openings/o9/mark' });
    expect(
      refusal(() => checkChangeSet({ name, changes: [{ op: 'settings', value: { units: 'm' } }] })).faults[0],
    ).toMatchObject({ path: 'changeSet/name' });
  });
});

describe('faults', () => {
  it('are told up to a hundred, and counted', () => {
    const bad = Object.fromEntries(
      Array.from({ length: 5000 }, (_, i) => [
        `o${i}`,
        {
          ...document.openings.o9!,
          id: `o${i}`,
          element: 'nowhere',
          along: { from: 'start', distance: 1 },
          up: { from: 'base', distance: 1 },
        },
      ]),
    );
    const { faults, count, message } = refusal(() => checkDocument({ ...document, openings: bad }));
    expect([faults.length, count]).toEqual([100, 5000]);
    expect(message).toContain('and 4997 more');
    const puts = Array.from({ length: 3000 }, () => ({ op: 'put', table: 'openings', value: {} }));
    const edit = refusal(() => checkChangeSet({ name: 'many', changes: puts }));
    expect(edit.faults.length).toBeLessThanOrEqual(100);
    expect(edit.count).toBeGreaterThan(2900);
  });
});

describe('openings measured from others', () => {
  /** A document whose openings are measured as a list says: the n-th from the one that it names, or from the start. */
  const chained = (from: readonly (number | null)[]): ProjectDocument => ({
    ...document,
    openings: Object.fromEntries(
      from.map((to, i): [string, Opening] => [
        `n${i}`,
        {
          ...document.openings.o9!,
          id: `n${i}`,
          mark: `N${i}`,
          along:
            to === null
              ? { from: 'start', distance: 1 }
              : { from: 'neighbour', opening: `n${to}`, edge: 'right', distance: 1 },
        },
      ]),
    ),
  });
  const anyChain = fc
    .integer({ min: 1, max: 12 })
    .chain((n) => fc.array(fc.option(fc.nat(n - 1)), { minLength: n, maxLength: n }));

  it('are in a ring just where going along them comes back, and depend on one just where it leads to it', () => {
    fc.assert(
      fc.property(anyChain, (from) => {
        const made = chained(from);
        const rings = new Map();
        const way = (i: number): number[] => {
          const out: number[] = [];
          for (let at = from[i] ?? null; at !== null && !out.includes(at); at = from[at] ?? null) out.push(at);
          return out;
        };
        from.forEach((_, i) => {
          const back = way(i).includes(i);
          expect(ringFrom(made, made.openings[`n${i}`]!, 'along', rings) !== null).toBe(back);
          expect(ringFrom(made, made.openings[`n${i}`]!) !== null).toBe(back);
          expect([...measuredFrom(made, `n${i}`)].sort()).toEqual(
            from.flatMap((_, k) => (k === i || way(k).includes(i) ? [`n${k}`] : [])).sort(),
          );
        });
      }),
    );
  });
});

describe('what edits touch', () => {
  const moved = (id: string, distance: number): ChangeSet => ({
    name: 'move',
    changes: [putting('openings', { ...document.openings[id]!, along: { from: 'start', distance } })],
  });
  const changed = (changeSet: ChangeSet) =>
    valuesChanged(changeSet, document, applyChangeSet(document, changeSet).document);

  it('is told value by value, also within what is kept apart', () => {
    expect(changed(moved('o9', 3)).map(({ path }) => path)).toEqual(['openings/o9/along']);
    const [pattern] = Object.values(document.patterns);
    const [size] = Object.values(pattern!.sizes);
    const renamed = { ...size!, name: 'Wide' };
    expect(
      changed({
        name: 'rename',
        changes: [putting('patterns', { ...pattern!, sizes: { ...pattern!.sizes, [size!.id]: renamed } })],
      }),
    ).toEqual([{ path: `patterns/${pattern!.id}/sizes/${size!.id}`, was: size, now: renamed }]);
    expect(changed({ name: 'remove', changes: [{ op: 'remove', table: 'openings', id: 'o9' }] })).toEqual([
      { path: 'openings/o9', was: document.openings.o9, now: undefined },
    ]);
    expect(changed({ name: 'units', changes: [{ op: 'settings', value: { units: 'm' } }] })).toEqual([
      { path: 'settings/units', was: 'mm', now: 'm' },
    ]);
  });

  it('meets where one value is the other’s, or one row is made or removed', () => {
    const remove: ChangeSet = { name: 'remove', changes: [{ op: 'remove', table: 'openings', id: 'o9' }] };
    const blocked: ChangeSet = {
      name: 'block',
      changes: [putting('openings', { ...document.openings.o9!, blockedUp: true })],
    };
    const meets = (a: ChangeSet, b: ChangeSet): boolean => editsMeet(changed(a), changed(b));
    expect(meets(moved('o9', 3), moved('o9', 4))).toBe(true);
    expect(meets(moved('o9', 3), blocked)).toBe(false);
    expect(meets(moved('o9', 3), moved('o10', 4))).toBe(false);
    expect([meets(remove, blocked), meets(blocked, remove)]).toEqual([true, true]);
  });

  it('by paths, either way round', () => {
    const path = fc
      .array(fc.constantFrom('a', 'b', 'ab'), { minLength: 1, maxLength: 4 })
      .map((parts) => parts.join('/'));
    fc.assert(
      fc.property(fc.array(path), fc.array(path), (p, q) => {
        const values = (paths: string[]) => paths.map((one) => ({ path: one, was: 0, now: 1 }));
        expect(editsMeet(values(p), values(q))).toBe(p.some((a) => q.some((b) => pathsMeet(a, b))));
      }),
    );
  });
});
