/** The document: what is refused and why, change sets and their inverses, units. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import {
  applyChangeSet,
  checkDocument,
  emptyDocument,
  formatLength,
  parseLength,
  projectJsonSchema,
  putting,
  readDocument,
  Refused,
  removing,
  writeDocument,
  type Change,
  type Opening,
  type ProjectDocument,
  type Wall,
} from '../src/index.ts';

const granary: ProjectDocument = {
  ...emptyDocument('Fennel Quay Granary'),
  materials: { brick: { id: 'brick', name: 'Brick', colour: '#c58562', roughness: 0.9 } },
  elements: {
    w: {
      id: 'w',
      kind: 'wall',
      name: 'Quay wall',
      start: { x: 0, y: 0, z: 0 },
      turn: 0,
      length: 8,
      height: 4,
      top: { kind: 'level' },
      layers: [{ thickness: 0.4, material: 'brick' }],
    },
  },
  patterns: {
    p: {
      id: 'p',
      name: 'Loft light',
      profile: { shape: 'rectangle' },
      sizes: {
        a: { id: 'a', name: '', dimensions: { width: 1, height: 1 } },
        b: { id: 'b', name: '', dimensions: { width: 2, height: 1 } },
      },
      reveal: { material: null },
    },
  },
  datums: { d: { id: 'd', name: 'First sill', level: 1, element: null } },
};
const opening = (id: string, over: Partial<Opening> = {}): Opening => ({
  id,
  mark: id,
  element: 'w',
  pattern: 'p',
  size: 'a',
  along: { from: 'start', distance: 1 },
  up: { from: 'datum', datum: 'd', distance: 0 },
  grip: { across: 'left', level: 'sill' },
  blockedUp: false,
  ...over,
});

function faultsOf(work: () => unknown): string[] {
  try {
    work();
  } catch (error) {
    if (error instanceof Refused) return error.faults.map((fault) => `${fault.path} ${fault.reason}`);
    throw error;
  }
  return [];
}

describe('a project file', () => {
  it('reads back as it was written', () => {
    expect(readDocument(writeDocument(granary))).toEqual(granary);
  });

  it('is refused with the path and reason of each fault', () => {
    const bad = structuredClone(granary) as unknown as {
      elements: { w: Record<string, unknown> };
      patterns: { p: { sizes: { a: { dimensions: unknown } } } };
    };
    bad.elements.w.length = 0;
    bad.elements.w.height = 'tall';
    bad.patterns.p.sizes.a.dimensions = { width: 1, depth: 2 };
    expect(faultsOf(() => checkDocument(bad))).toEqual([
      'elements/w/length must be more than 0 (at least 0.1 mm)',
      'elements/w/height must be a number',
      'patterns/p/sizes/a/dimensions/height is missing',
      'patterns/p/sizes/a/dimensions/depth is no dimension of this profile, which has width, height',
    ]);
  });

  it('is refused when names in it lead nowhere', () => {
    const bad = {
      ...granary,
      openings: {
        o: opening('o', { element: 'gone', size: 'z', up: { from: 'datum', datum: 'toString', distance: 0 } }),
      },
    };
    expect(faultsOf(() => checkDocument(bad))).toEqual([
      'openings/o/element names the element "gone", which does not exist',
      'openings/o/up/datum names the datum "toString", which does not exist',
      'openings/o/size names the size "z", which the pattern "Loft light" does not have',
    ]);
  });

  it.each([
    ['{', /is not JSON/],
    ['[]', /Invalid input|expected/i],
    ['{"format":"other"}', /not a Yard Arch project file/],
    [JSON.stringify({ ...granary, version: 9 }), /newer Yard Arch/],
    [JSON.stringify({ ...granary, extra: 1 }), /extra, which is not known/],
    [JSON.stringify(granary).replace('"level":1', '"level":1e999'), /must be/],
  ])('is refused when it is %s', (text, reason) => {
    expect(faultsOf(() => readDocument(text)).join()).toMatch(reason);
  });

  it('follows the JSON Schema that is published', () => {
    const published = JSON.parse(
      readFileSync(new URL('../../docs/project.schema.json', import.meta.url), 'utf8'),
    ) as unknown;
    expect(published).toEqual(JSON.parse(JSON.stringify(projectJsonSchema())));
  });
});

describe('a change set', () => {
  it('is all or nothing', () => {
    const faults = faultsOf(() =>
      applyChangeSet(granary, {
        name: 'place',
        changes: [
          putting('openings', opening('o')),
          putting('openings', opening('q', { along: { from: 'start', distance: NaN } })),
        ],
      }),
    );
    expect(faults).toEqual(['openings/q/along/distance must be a number']);
    expect(granary.openings).toEqual({});
  });

  it.each<[string, Change[], RegExp]>([
    ['a wall that openings are on', [removing('elements', 'w')], /openings\/o\/element still names "w"/],
    ['a row that is not there', [removing('axes', 'x')], /does not exist/],
    [
      'an opening onto a wall that was removed',
      [putting('openings', opening('n', { element: 'gone' }))],
      /does not exist/,
    ],
    [
      'a size that openings have',
      [putting('patterns', { ...granary.patterns.p!, sizes: { b: granary.patterns.p!.sizes.b! } })],
      /names the size "a"/,
    ],
    [
      'a datum taken to another wall',
      [putting('datums', { id: 'd', name: 'x', level: 1, element: 'w2' })],
      /does not exist|another element/,
    ],
  ])('that would take away or use %s is refused', (_, changes, reason) => {
    const { document } = applyChangeSet(granary, { name: 'place', changes: [putting('openings', opening('o'))] });
    expect(faultsOf(() => applyChangeSet(document, { name: 'edit', changes })).join()).toMatch(reason);
  });

  it('leaves what it does not touch the very same', () => {
    const { document } = applyChangeSet(granary, { name: 'place', changes: [putting('openings', opening('o'))] });
    expect(document.elements).toBe(granary.elements);
  });

  it('is undone by its inverse, whatever it was', () => {
    const change = fc.oneof(
      fc
        .record({ id: fc.constantFrom('o', 'q', 'r'), at: fc.double({ min: -5, max: 5, noNaN: true }) })
        .map(({ id, at }): Change => putting('openings', opening(id, { along: { from: 'end', distance: at } }))),
      fc.constantFrom('o', 'q', 'r', 'z').map((id): Change => removing('openings', id)),
      fc.constantFrom('One', 'Two').map((name): Change => ({ op: 'settings', value: { name } })),
      fc
        .double({ min: 0.5, max: 9, noNaN: true })
        .map((length): Change => putting('elements', { ...(granary.elements.w as Wall), length })),
    );
    fc.assert(
      fc.property(fc.array(fc.array(change, { minLength: 1, maxLength: 4 }), { maxLength: 8 }), (sets) => {
        let document = granary;
        const undo = [];
        for (const changes of sets) {
          try {
            const applied = applyChangeSet(document, { name: 'edit', changes });
            undo.push([applied.inverse, document] as const);
            document = applied.document;
          } catch (error) {
            if (!(error instanceof Refused)) throw error;
          }
        }
        for (const [inverse, before] of undo.reverse()) {
          document = applyChangeSet(document, inverse).document;
          expect(document).toEqual(before);
        }
      }),
    );
  });
});

describe('lengths', () => {
  it.each([
    ['1400', 'mm', 1.4],
    ['1 400', 'mm', 1.4],
    ['1.4 m', 'mm', 1.4],
    ['1,4m', 'mm', 1.4],
    ['140 cm', 'm', 1.4],
    ['-25', 'mm', -0.025],
    ['1.4', 'm', 1.4],
    [`4' 7 1/8"`, 'mm', (4 * 12 + 7.125) * 0.0254],
    [`4'7-1/8"`, 'ft-in', (4 * 12 + 7.125) * 0.0254],
    [`4' 7 1/8`, 'ft-in', (4 * 12 + 7.125) * 0.0254],
    ['4 ft 7 in', 'm', 55 * 0.0254],
    ["4'", 'mm', 48 * 0.0254],
    ['7/8"', 'mm', 0.875 * 0.0254],
    ['55 1/2', 'ft-in', 55.5 * 0.0254],
  ] as const)('%s in %s', (text, units, metres) => {
    expect(parseLength(text, units)).toBeCloseTo(metres, 12);
  });

  it.each(['', 'abc', '1..2', '1 2', '4 5 6', 'NaN', '1e5', '--4', `4" 5'`, '1/0"'])('refuses %s', (text) => {
    expect(parseLength(text, 'mm')).toBeNull();
  });

  it('are read back as written, within what is shown', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -2000, max: 2000, noNaN: true }),
        fc.constantFrom('mm', 'm', 'ft-in' as const),
        (metres, units) => {
          const shown = formatLength(metres, units);
          expect(Math.abs(parseLength(shown, units)! - metres)).toBeLessThanOrEqual(
            units === 'ft-in' ? 0.0254 / 64 + 1e-9 : 0.00005001,
          );
        },
      ),
    );
  });
});
