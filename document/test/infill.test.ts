/** Infill in the document: what it names, how deep it may lie, and what is refused. */
import { describe, expect, it } from '@jest/globals';
import {
  applyChangeSet,
  checkChangeSet,
  emptyDocument,
  fieldDepth,
  firstChoice,
  firstDimensions,
  infillMaterials,
  leavesOf,
  putting,
  removing,
  type Field,
  type Infill,
  type Pattern,
  type ProjectDocument,
} from '../src/index.ts';

const pane: Field = { kind: 'glass', material: 'glass', thickness: 0.02 };
const member = { width: 0.05, depth: 0.06, material: 'oak' };
const leafOf = (field: Field, hung: 'left' | 'fixed' = 'left'): Field => ({
  kind: 'leaf',
  frame: member,
  clearance: 0.003,
  hung,
  opens: 'inward',
  angle: 0,
  field,
});
const infill = (field: Field): Infill => ({ seat: { from: 'outer', depth: 0.1 }, gap: 0, frame: member, field });
const pattern = (field: Field): Pattern => ({
  id: 'p',
  name: 'Window',
  profile: firstChoice('rectangle'),
  sizes: { a: { id: 'a', name: '', dimensions: firstDimensions('rectangle') } },
  reveal: { material: null },
  infill: infill(field),
});
const material = (id: string) => ({ id, name: id, colour: '#aabbcc', roughness: 0.5 });
const document: ProjectDocument = {
  ...emptyDocument('Boat house'),
  materials: { oak: material('oak'), glass: material('glass') },
};
const put = (field: Field) => ({ name: 'fill', changes: [putting('patterns', pattern(field))] });
const deep = (levels: number): Field => (levels === 1 ? pane : leafOf(deep(levels - 1)));

describe('an infill', () => {
  it('names its materials wherever they stand, and holds them', () => {
    const field: Field = {
      kind: 'divided',
      way: 'mullions',
      bar: { ...member, material: 'brass' },
      lights: { kind: 'equal', count: 2 },
      fields: [leafOf(pane), { kind: 'empty' }],
    };
    expect(infillMaterials(infill(field))).toEqual([
      ['frame/material', 'oak'],
      ['field/bar/material', 'brass'],
      ['field/fields/0/frame/material', 'oak'],
      ['field/fields/0/field/material', 'glass'],
    ]);
    expect(() => applyChangeSet(document, put(field))).toThrow(/names the material "brass", which does not exist/);
    const { document: filled } = applyChangeSet(document, put(leafOf(pane)));
    expect(() => applyChangeSet(filled, { name: 'x', changes: [removing('materials', 'glass')] })).toThrow(
      /still names "glass"/,
    );
  });

  it('lies no deeper than it may, and what is nested without end is not looked into', () => {
    expect(fieldDepth(deep(8))).toBe(8);
    expect(() => applyChangeSet(document, put(deep(8)))).not.toThrow();
    expect(() => applyChangeSet(document, put(deep(9)))).toThrow(/not hold fields more than 8 deep/);
    const bottomless = JSON.parse(JSON.stringify(put(deep(8)))) as {
      changes: { value: { infill: { field: object } } }[];
    };
    let field: object = pane;
    for (let i = 0; i < 20_000; i++) field = { ...leafOf(pane), field };
    bottomless.changes[0]!.value.infill.field = field;
    expect(() => checkChangeSet(bottomless)).toThrow(/nested deeper/);
  });

  it.each<[string, Field, RegExp]>([
    ['of a kind that there is not', { kind: 'curtain' } as unknown as Field, /must say its kind/],
    ['open too far', { ...leafOf(pane), angle: 181 } as Field, /from 0 to 180 degrees/],
    [
      'of one light',
      { kind: 'divided', way: 'mullions', bar: member, lights: { kind: 'equal', count: 1 }, fields: [pane] },
      /at least 2/,
    ],
    ['of glass thicker than any', { ...pane, thickness: 0.6 } as Field, /at most 0.5 m/],
  ])('%s is refused with what is wrong', (_, field, said) => {
    expect(() => applyChangeSet(document, put(field))).toThrow(said);
  });

  it('tells of the leaves that turn', () => {
    expect(leavesOf(leafOf(leafOf(pane, 'fixed')))).toHaveLength(1);
    expect(leavesOf(pane)).toEqual([]);
  });
});
