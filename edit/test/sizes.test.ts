/** Sizes as a table: rows of a spreadsheet become sizes, or are refused with the row; named, sorted, copied out and in again. */
import { describe, expect, it } from '@jest/globals';
import { applyChangeSet, emptyDocument, formatLength, omit, type Pattern } from '@yard-arch/document';
import { copySizes, nameSize, pasteSizes, shipped, sortSizes } from '../src/index.ts';

const bare = (name: string): Pattern =>
  omit(structuredClone(shipped.find(({ id }) => id === name)!), 'infill', 'parts');
const plain = (): Pattern => bare('casement');
const arch = (): Pattern => bare('works-light');

function pasted(pattern: Pattern, text: string): Pattern {
  const made = pasteSizes(pattern, text, 'mm');
  if ('reason' in made) throw new Error(`${made.reason} / ${made.mend}`);
  const document = { ...emptyDocument('Sizes'), patterns: { [pattern.id]: pattern } };
  return applyChangeSet({ ...document, materials: {} }, made.changeSet).document.patterns[pattern.id]!;
}
const dimensions = ({ sizes }: Pattern) =>
  Object.values(sizes).map((size) => [size.name, ...Object.values(size.dimensions)]);

describe('sizes', () => {
  it('are pasted from rows of a spreadsheet, with a name or without', () => {
    const before = dimensions(plain());
    expect(dimensions(pasted(plain(), '800\t1200\n1 m\t1.4 m'))).toEqual([...before, ['', 0.8, 1.2], ['', 1, 1.4]]);
    expect(dimensions(pasted(plain(), 'Narrow\t400\t1200\r\n\r\nWide\t1800\t1200\r\n'))).toEqual([
      ...before,
      ['Narrow', 0.4, 1.2],
      ['Wide', 1.8, 1.2],
    ]);
  });

  it('are told by the first row, in whatever order its columns are', () => {
    const next = pasted(arch(), 'Rise;Name;Height;Span\n300;Tall;2600;1600');
    expect(Object.values(next.sizes).at(-1)).toMatchObject({
      name: 'Tall',
      dimensions: { span: 1.6, height: 2.6, rise: 0.3 },
    });
    // Words that are not ours are passed over, where the columns are as many.
    expect(dimensions(pasted(plain(), 'Breite\tHöhe\n800\t1200')).at(-1)).toEqual(['', 0.8, 1.2]);
  });

  it('take the place of those of the same name, and are not doubled', () => {
    const named = pasted(plain(), 'Narrow\t400\t1200');
    const again = pasted(named, 'Narrow\t420\t1200\nWide\t900\t1000');
    expect(dimensions(again).slice(-2)).toEqual([
      ['Narrow', 0.42, 1.2],
      ['Wide', 0.9, 1],
    ]);
    const copied = copySizes(again, (metres) => formatLength(metres, 'mm'));
    expect(copied.split('\n')[0]).toBe('Name\tWidth\tHeight');
    expect(pasteSizes(again, copied, 'mm')).toMatchObject({ reason: 'all these sizes are there already' });
  });

  it('are refused whole where a row is none, with the row', () => {
    const refused = (text: string, pattern = plain()): string => {
      const made = pasteSizes(pattern, text, 'mm');
      return 'reason' in made ? made.reason : 'taken';
    };
    expect(refused('800\t1200\n900\tmuch')).toBe('row 2: “much” is no length');
    expect(refused('800\t1200\n900\t-5')).toMatch(/^row 2: .*no length/);
    expect(refused('Dear all,')).toMatch(/1 column, and a size has 2/);
    expect(refused('800\t1200\t3\t4')).toMatch(/4 columns/);
    expect(refused(' \n ')).toBe('there is nothing to paste');
    expect(refused('1000\t500\t2000', arch())).toMatch(/^row 1: /);
    expect(refused(Array.from({ length: 201 }, () => '1\t2').join('\n'))).toBe('it has 201 rows');
  });

  it('are named and sorted', () => {
    const pattern = plain();
    const document = { ...emptyDocument('Sizes'), patterns: { [pattern.id]: pattern } };
    const by = (way: 'area' | 'name') =>
      Object.keys(applyChangeSet(document, sortSizes(pattern, way, 'mm')).document.patterns[pattern.id]!.sizes);
    expect(by('area')).toEqual(['s2', 's1']);
    expect(by('name')).toEqual(['s2', 's1']);
    const named = applyChangeSet(document, nameSize(pattern, pattern.sizes.s1!, 'Attic')).document;
    expect(named.patterns[pattern.id]!.sizes.s1!.name).toBe('Attic');
  });
});
