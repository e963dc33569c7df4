/** Infill: a few to begin with, and the edits that change one. */
import {
  putting,
  type ChangeSet,
  type Field,
  type Infill,
  type Leaf,
  type Material,
  type Moulding,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { changePattern } from './patterns.ts';

/** What an infill begins as. */
export const infillStarts = [
  'fixed light',
  'casement',
  'pair of casements',
  'barred light',
  'door leaf',
  'pair of door leaves',
] as const;
export type InfillStart = (typeof infillStarts)[number];

const newGlass: Material = { id: 'glass', name: 'Glass', colour: '#a9c0c4', roughness: 0.08, opacity: 0.3 };
const newTimber: Material = { id: 'paint', name: 'Painted timber', colour: '#ece7dc', roughness: 0.5 };

const glassIn = ({ materials }: ProjectDocument): Material | undefined =>
  Object.values(materials).find(({ opacity }) => opacity !== undefined && opacity < 0.7);
const timberIn = ({ materials }: ProjectDocument): Material | undefined =>
  Object.values(materials).find(({ name }) => /paint|timber|oak|wood/i.test(name));

/** What a new field is made of: the project's glass and timber, or whatever material it has. */
export function usualMaterials(document: ProjectDocument): { timber: string; glass: string } {
  const [any] = Object.keys(document.materials);
  return { timber: timberIn(document)?.id ?? any!, glass: glassIn(document)?.id ?? any! };
}

/** A material of the document, or one that is added to it under an id that is free there. */
function taken(document: ProjectDocument, wanted: Material): { id: string; changes: ChangeSet['changes'] } {
  if (document.materials[wanted.id] === wanted) return { id: wanted.id, changes: [] };
  let id = wanted.id;
  for (let n = 2; document.materials[id]; n++) id = `${wanted.id}${n}`;
  return { id, changes: [putting('materials', { ...wanted, id })] };
}

const leaf = (material: string, hung: Leaf['hung'], field: Field, over: Partial<Leaf> = {}): Leaf => ({
  kind: 'leaf',
  frame: { width: 0.055, depth: 0.056, material },
  clearance: 0.003,
  hung,
  opens: 'inward',
  angle: 0,
  field,
  ...over,
});

/** An infill to begin with, of two materials. */
export function infillFrom(start: InfillStart, timber: string, glass: string): Infill {
  const pane: Field = { kind: 'glass', material: glass, thickness: 0.024 };
  const board: Field = { kind: 'panel', material: timber, thickness: 0.03 };
  const two = (one: Field, other: Field, width: number): Field => ({
    kind: 'divided',
    way: 'mullions',
    bar: { width, depth: 0.056, material: timber },
    lights: { kind: 'equal', count: 2 },
    fields: [one, other],
  });
  const bar = { width: 0.022, depth: 0.03, material: timber };
  // Rows first: under a curved head their bars go right across.
  const bars: Field = {
    kind: 'divided',
    way: 'transoms',
    bar,
    lights: { kind: 'at most', size: 0.45 },
    fields: [{ kind: 'divided', way: 'mullions', bar, lights: { kind: 'at most', size: 0.35 }, fields: [pane] }],
  };
  const isDoor = start === 'door leaf' || start === 'pair of door leaves';
  const fields: Record<InfillStart, Field> = {
    'fixed light': pane,
    casement: leaf(timber, 'left', pane),
    'pair of casements': two(leaf(timber, 'left', pane), leaf(timber, 'right', pane), 0.04),
    'barred light': bars,
    'door leaf': leaf(timber, 'left', board, { frame: { width: 0.11, depth: 0.05, material: timber } }),
    'pair of door leaves': two(
      leaf(timber, 'left', board, { frame: { width: 0.11, depth: 0.05, material: timber } }),
      leaf(timber, 'right', board, { frame: { width: 0.11, depth: 0.05, material: timber } }),
      0.02,
    ),
  };
  return {
    seat: { from: 'outer', depth: 0.12 },
    gap: 0.005,
    frame: { width: 0.06, depth: 0.07, material: timber, ...(isDoor ? { without: ['sill'] } : {}) },
    field: fields[start],
  };
}

/** Gives a pattern an infill to begin with; timber and glass are added where the project has none. */
export function beginInfill(document: ProjectDocument, pattern: Pattern, start: InfillStart): ChangeSet {
  const timber = taken(document, timberIn(document) ?? newTimber);
  const glass = taken(document, glassIn(document) ?? newGlass);
  const infill = infillFrom(start, timber.id, glass.id);
  const needsGlass = JSON.stringify(infill).includes('"glass"');
  return edit(
    `put a ${start} into ${pattern.name}`,
    ...timber.changes,
    ...(needsGlass ? glass.changes : []),
    putting('patterns', { ...pattern, infill }),
  );
}

/** A moulding to begin to draw with: a quarter round behind a small step, so far along both ways. */
export function mouldingToDraw(size: number): Extract<Moulding, { kind: 'drawn' }>['outline'] {
  const step = Math.round(0.15 * size * 1e6) / 1e6;
  return [
    { x: 0, y: size },
    { x: 0, y: 0 },
    { x: step, y: 0 },
    { x: step, y: step, bulge: Math.tan(Math.PI / 8) },
    { x: size, y: size },
  ];
}

/** Changes a pattern's infill, or takes it out. */
export const changeInfill = (pattern: Pattern, infill: Infill | undefined, what: string): ChangeSet =>
  changePattern(pattern, { infill }, what);

/** A field of another kind in place of one, keeping what both have. */
export function fieldOf(kind: Field['kind'], from: Field, { timber, glass }: { timber: string; glass: string }): Field {
  const inner: Field = 'field' in from ? from.field : 'fields' in from ? from.fields[0]! : from;
  const bar = 'bar' in from && from.bar ? from.bar : { width: 0.03, depth: 0.04, material: timber };
  const fields = 'fields' in from ? from.fields : [inner];
  switch (kind) {
    case 'empty':
      return { kind };
    case 'glass':
      return { kind, material: glass, thickness: 0.024 };
    case 'panel':
      return { kind, material: timber, thickness: 0.03 };
    case 'boards':
      return { kind, material: timber, thickness: 0.03, width: 0.14, way: 'upright', joint: 0.004 };
    case 'imported':
      return from;
    case 'louvres':
      return { kind, material: timber, thickness: 0.01, width: 0.06, spacing: 0.05, slope: 35 };
    case 'perforated':
      return { kind, material: timber, thickness: 0.003, hole: 0.02, pitch: 0.04 };
    case 'leaf':
      return leaf(timber, 'left', inner);
    case 'divided':
      return {
        kind,
        way: 'mullions',
        bar: { ...bar, width: 0.05, depth: 0.06 },
        lights: { kind: 'equal', count: 2 },
        fields,
      };
    case 'fan':
      return { kind, about: 'foot', bar, count: 5, rings: [0.4], hub: true, fields };
    case 'interlacing':
      return { kind, bar, count: 3, fields };
    case 'lattice':
      return { kind, bar: { ...bar, width: 0.012, depth: 0.012 }, spacing: 0.14, slope: 55, fields };
  }
}

/** The field at a path of an infill, such as `field/fields/0/field`. */
export const fieldAt = (infill: Infill, path: string): Field | null => {
  let at: unknown = infill;
  for (const key of path.split('/')) at = (at as Record<string, unknown> | undefined)?.[key];
  return (at as Field | undefined) ?? null;
};

/** An infill with something else at a path. */
export function withAt(infill: Infill, path: string, value: unknown): Infill {
  const put = (holder: unknown, [key, ...rest]: string[]): unknown => {
    if (key === undefined) return value;
    if (Array.isArray(holder)) return holder.map((one: unknown, i) => (i === Number(key) ? put(one, rest) : one));
    const held = holder as Record<string, unknown>;
    return { ...held, [key]: put(held[key], rest) };
  };
  return put(infill, path.split('/')) as Infill;
}
