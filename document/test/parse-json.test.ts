/** JSON from outside: the same as without bounds where it is within them. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  deepestJson,
  parseJson,
  readDocument,
  Refused,
  emptyDocument,
  checkDocument,
  mostFaults,
} from '../src/index.ts';

describe('JSON from outside', () => {
  it('is read as it is, whatever its strings hold', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 8 }), fc.constantFrom(0, 2), (value, indent) => {
        const text = JSON.stringify(value, null, indent);
        expect(parseJson(text)).toEqual(JSON.parse(text));
      }),
      { numRuns: 500 },
    );
    const odd = { '[[[[': ']]', 'a\\"': '\\\\"[{', '\\': '[['.repeat(300), ',': ',,,,' };
    expect(parseJson(JSON.stringify(odd), 10)).toEqual(odd);
  });

  it('is refused where it is none, as by the parser itself', () => {
    for (const text of ['', '{', '[1,', '"', '"\\', '{"a":"\\"}', 'nul', ']', '[1]]'])
      expect(() => parseJson(text)).toThrow(SyntaxError);
  });

  it('is refused beyond its bounds, whatever else it is', () => {
    const nested = (depth: number): string => '['.repeat(depth) + ']'.repeat(depth);
    expect(parseJson(nested(deepestJson))).toBeInstanceOf(Array);
    expect(() => parseJson(nested(deepestJson + 1))).toThrow('nested deeper');
    expect(() => parseJson('{"a":'.repeat(1_000_000))).toThrow('nested deeper');
    expect(() => parseJson(`[${'[],'.repeat(50)}1]`, 90)).toThrow('more values');
    expect(() => parseJson(`{${'"a":1,'.repeat(250_000)}"b":2}`)).toThrow('more members');
    expect(Object.keys(parseJson(`[${'[1,2],'.repeat(200_000)}3]`) as object).length).toBe(200_001);
    expect(() => readDocument(nested(2000))).toThrow(Refused);
  });
});

describe('very many keys that are not known', () => {
  it('are told of in a few words', () => {
    const keys = Object.fromEntries(Array.from({ length: 60_000 }, (_, i) => [`key-${i}-${'x'.repeat(8)}`, 1]));
    const documents = [
      { ...emptyDocument('Quay'), ...keys },
      { ...emptyDocument('Quay'), datums: { d: { ...keys, id: 'd' } } },
      { ...emptyDocument('Quay'), ['x'.repeat(1_000_000)]: 1 },
      { ...emptyDocument('Quay'), datums: { ['d'.repeat(100_000)]: {} } },
    ];
    for (const document of documents) {
      const refused = refusal(document);
      expect(refused.message.length).toBeLessThan(3000);
      expect(JSON.stringify(refused.faults).length).toBeLessThan(mostFaults * 700);
    }
    expect(refusal(documents[0]).message).toMatch(/fields \(.* and \d+ more\)/);
    expect(refusal({ ...emptyDocument('Quay'), a: 1, b: 2, c: 3, d: 4, e: 5, f: 6 }).message).toContain(
      'has a, b, c, d, e and 1 more, which are not known here',
    );
  });
});

function refusal(document: unknown): Refused {
  try {
    checkDocument(document);
  } catch (error) {
    if (error instanceof Refused) return error;
    throw error;
  }
  throw new Error('it was read');
}
