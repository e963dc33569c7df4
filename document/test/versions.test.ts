/** Versions of the format: whatever was written opens, by the same steps in files, logs and browsers. */
import { describe, expect, it } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import {
  applyChangeSet,
  changeSetUpToDate,
  checkChangeSet,
  checkDocument,
  emptyDocument,
  formatVersion,
  isUpToDate,
  migrate,
  omit,
  readDocument,
  Refused,
  tableNames,
  upToDate,
  withoutControls,
  type ChangeSet,
} from '../src/index.ts';

const folder = new URL('./fixtures/', import.meta.url);
const fixtures = readdirSync(folder);
const read = (name: string): string => readFileSync(new URL(name, folder), 'utf8');
const refusal = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    if (error instanceof Refused) return error.message;
    throw error;
  }
  return '';
};

describe('a file of an earlier version', () => {
  it.each(fixtures)('opens, with all that it had: %s', (name) => {
    const [raw, document] = [
      JSON.parse(read(name)) as Record<string, Record<string, object>>,
      readDocument(read(name)),
    ];
    expect(document.version).toBe(formatVersion);
    for (const table of ['elements', 'patterns', 'openings', 'materials', 'datums', 'axes'] as const) {
      expect(Object.keys(document[table])).toEqual(Object.keys(raw[table] ?? {}));
      for (const [id, row] of Object.entries(raw[table] ?? {})) expect(document[table][id]).toMatchObject(row);
    }
    // What is up to date is left alone.
    expect(upToDate(document)).toBe(document);
  });

  it.each(fixtures)('opens without the tables that it does not need: %s', (name) => {
    const raw = JSON.parse(read(name)) as Record<string, object>;
    const whole = readDocument(read(name));
    for (const table of tableNames)
      if (Object.keys(whole[table]).length === 0) expect(checkDocument(omit(raw, table))).toEqual(whole);
    expect(checkDocument({ ...omit(raw, 'assets'), version: raw.version }).assets).toEqual({});
  });

  it('is among the fixtures for every version that there has been', () => {
    for (let version = 1; version <= formatVersion; version++)
      expect(fixtures.some((name) => (JSON.parse(read(name)) as { version: number }).version === version)).toBe(true);
    expect(Object.keys(migrate).map(Number)).toEqual(Array.from({ length: formatVersion - 1 }, (_, i) => i + 1));
  });

  it('of version 1 gets its tops, loses what bosses no longer say, and has no control characters', () => {
    const old = JSON.parse(read('1-first.json')) as {
      patterns: Record<string, object>;
      elements: Record<string, { top?: unknown }>;
      name: string;
    };
    expect(Object.values(old.elements).some(({ top }) => top === undefined)).toBe(true);
    const [id, pattern] = Object.entries(old.patterns)[0]!;
    const made = {
      ...old,
      name: 'Quay\u0000\n8',
      patterns: { ...old.patterns, [id]: { ...pattern, cut: { kind: 'boss', height: 0.1, layers: 'outer' } } },
    };
    const document = checkDocument(made);
    expect(document.name).toBe('Quay 8');
    expect(document.patterns[id]!.cut).toEqual({ kind: 'boss', height: 0.1 });
    expect(
      Object.values(document.elements).every((element) => element.kind !== 'wall' || element.top.kind === 'level'),
    ).toBe(true);
    expect(withoutControls({ a: ['', '\u0000', 'x'], b: 1 })).toEqual({ a: ['', '–', 'x'], b: 1 });
    // What was given is as it was.
    expect(made.name).toBe('Quay\u0000\n8');
  });
});

describe('a file that cannot be brought up to date', () => {
  const document = emptyDocument('Granary');
  it.each([
    [
      { ...document, version: 99 },
      `is 99, but this program reads up to ${formatVersion}; open it with a newer Yard Arch`,
    ],
    [{ ...document, version: 0 }, 'is 0, which no version of the format has been'],
    [{ ...document, version: '1' }, 'must be'],
    [{ ...document, version: 1.5 }, 'must be'],
    [{ format: 'other', version: 1 }, 'this is not a Yard Arch project file'],
    [null, ''],
    [{ ...document, version: 1, elements: { w: null }, openings: 7 }, 'openings'],
  ])('is refused: %j', (value, reason) => {
    const message = refusal(() => checkDocument(value));
    expect(message).not.toBe('');
    expect(message).toContain(reason);
  });

  it('says which step failed, and why', () => {
    const broken = { ...document, version: 1 };
    Object.defineProperty(broken, 'elements', {
      enumerable: true,
      get: () => {
        throw new Error('out of reach');
      },
    });
    expect(refusal(() => upToDate(broken))).toBe(
      'The project cannot be read: version is 1, and what it holds could not be brought from 1 to 2: out of reach.',
    );
  });
});

describe('a change set of an earlier version', () => {
  it('is brought up to date like the rows of a file', () => {
    const old = {
      name: 'draw wall',
      changes: [
        {
          op: 'put',
          table: 'elements',
          value: {
            id: 'w',
            kind: 'wall',
            name: 'Quay\twall',
            start: { x: 0, y: 0, z: 0 },
            turn: 0,
            length: 4,
            height: 3,
            layers: [{ thickness: 0.4, material: 'brick' }],
          },
        },
      ],
    };
    const changeSet = checkChangeSet(changeSetUpToDate(old, 1)) as ChangeSet;
    const brick = { id: 'brick', name: 'Brick', colour: '#c58562', roughness: 0.9 };
    const { document } = applyChangeSet({ ...emptyDocument('Granary'), materials: { brick } }, changeSet);
    expect(document.elements.w).toMatchObject({ name: 'Quay wall', top: { kind: 'level' } });
    expect(changeSetUpToDate(changeSet, formatVersion)).toBe(changeSet);
    for (const odd of [null, 7, { changes: 'none' }, { changes: [null, { op: 'remove' }] }])
      expect(changeSetUpToDate(odd, 1)).toEqual(odd);
  });

  it('of a version that is not known is refused', () => {
    expect(refusal(() => changeSetUpToDate({ changes: [] }, formatVersion + 1))).toContain(
      'open it with a newer Yard Arch',
    );
  });
});

describe('the text of what is kept', () => {
  it('tells its version without being read', () => {
    expect(isUpToDate(JSON.stringify(emptyDocument('x')))).toBe(true);
    expect(isUpToDate(read('1-last.json'))).toBe(false);
    expect(isUpToDate('')).toBe(false);
  });
});
