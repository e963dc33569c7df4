/** Dormers of every form, in a row along a roof, and spread along another between chimneys. */
import {
  dormerForms,
  emptyDocument,
  kinds,
  likeEdges,
  type Dormer,
  type Pattern,
  type ProjectDocument,
  type Roof,
} from '@yard-arch/document';
import { formed, shipped, shippedMaterials, takenIn } from '@yard-arch/edit';

/** What each form has otherwise than the gabled one. */
const over: Record<Dormer['form'], Partial<Dormer>> = {
  gabled: {},
  hipped: { pitch: 48 },
  'lean-to': { pitch: 12, height: 1.5 },
  flat: { height: 1.6 },
  segmental: { pitch: 38 },
  eyebrow: { pitch: 66, wall: 0.12 },
};

/** A project with the materials of the roofs. */
function empty(): ProjectDocument {
  const document = emptyDocument('Dormers of Fennel Quay');
  for (const [id, name, colour, texture] of [
    ['slate', 'Old slate', '#69737c', 'slate'],
    ['boarding', 'Boarding', '#c9a878', 'oak'],
    ['plaster', 'Lime plaster', '#e6dfcf', 'plaster'],
  ] as const)
    document.materials[id] = { id, name, colour, roughness: 0.85, texture };
  return document;
}

/** Takes a pattern in that is shipped, with its materials. */
function taken(document: ProjectDocument, id: string): Pattern {
  const from = shipped.find((one) => one.id === id)!;
  const { pattern, changes } = takenIn(document, from, shippedMaterials, id);
  for (const change of changes)
    if (change.op === 'put' && change.table === 'materials') document.materials[change.value.id] = change.value;
  document.patterns[pattern.id] = pattern;
  return pattern;
}

function roof(id: string, name: string, y: number): Roof {
  const outline = [
    { x: 0, y: 0 },
    { x: 22, y: 0 },
    { x: 22, y: 9 },
    { x: 0, y: 9 },
  ];
  const plain = kinds.roof.fresh({ id, name, start: { x: 0, y, z: 3 }, turn: 0 }, 'slate');
  return {
    ...formed({ ...plain, edges: likeEdges(outline, { pitch: 44, over: 0.35 }) }, 'gabled'),
    layers: [
      { thickness: 0.04, material: 'slate' },
      { thickness: 0.14, material: 'boarding' },
      { thickness: 0.02, material: 'plaster' },
    ],
  };
}

/** The pattern of a dormer of a form, like the gabled one otherwise. */
function dormerOf(form: Dormer['form'], base: Pattern): Pattern {
  const { window, ...rest } = { ...(base.parts![0] as Dormer), ...over[form], form };
  const made = (own: Dormer, sizes = base.sizes): Pattern => ({
    ...base,
    id: `dormer-${form}`,
    name: `${form.charAt(0).toUpperCase()}${form.slice(1)} dormer`,
    parts: [own],
    sizes,
  });
  if (form !== 'eyebrow') return made({ ...rest, window: window! });
  // An eyebrow is low, and has room for a low light only.
  const dimensions = { width: 1.9, height: 0.7 };
  return made(
    { ...rest, window: { ...window!, dimensions: { width: 0.5, height: 0.26 }, sill: 0.08 } },
    Object.fromEntries(Object.entries(base.sizes).map(([k, size]) => [k, { ...size, dimensions }])),
  );
}

/** A long roof with a dormer of every form, and one with five alike. */
export function everyDormer(): ProjectDocument {
  const document = empty();
  const base = taken(document, 'dormer-gabled');
  for (const id of ['chimney', 'chimney-wide']) taken(document, id);
  document.elements.every = roof('every', 'Every form', 0);
  document.elements.alike = roof('alike', 'Alike in a row', -16);
  const place = (id: string, element: string, pattern: string, { x, up = 1.5 }: { x: number; up?: number }): void => {
    document.openings[id] = {
      id,
      mark: id.toUpperCase(),
      element,
      face: 'e1',
      pattern,
      size: Object.keys(document.patterns[pattern]!.sizes)[0]!,
      along: { from: 'start', distance: x },
      up: { from: 'base', distance: up },
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
    };
  };
  dormerForms.forEach((form, i) => {
    const pattern = dormerOf(form, base);
    document.patterns[pattern.id] = pattern;
    place(`d${i + 1}`, 'every', pattern.id, { x: 2.2 + 3.7 * i });
  });
  for (let i = 0; i < 5; i++) place(`r${i + 1}`, 'alike', 'dormer-gabled', { x: 3 + 4.3 * i });
  place('c1', 'alike', 'chimney', { x: 5.15, up: 4.9 });
  place('c2', 'alike', 'chimney-wide', { x: 13.75, up: 5.2 });
  place('c3', 'every', 'chimney-wide', { x: 20.7, up: 5.2 });
  return document;
}
