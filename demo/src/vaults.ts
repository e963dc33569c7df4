/** Vaults: barrels, groin and cloister vaults over bays of every kind, domes, and an undercroft of bays in rows. */
import {
  emptyDocument,
  kinds,
  type Bay,
  type Dome,
  type Element,
  type Opening,
  type ProjectDocument,
  type Vault,
  type Wall,
} from '@yard-arch/document';
import { bayRows, rectangleCorners, regularCorners } from '@yard-arch/edit';

const web = [
  { thickness: 0.06, material: 'limewash' },
  { thickness: 0.16, material: 'brick' },
];
const ribs = { width: 0.18, depth: 0.14, material: 'stone' };

/** A vault of every form, side by side, and the undercroft beside them. */
export function everyVault(): ProjectDocument {
  const document = emptyDocument('Vaults of Fennel Quay');
  for (const [id, name, colour, texture] of [
    ['limewash', 'Limewash', '#e6dfcf', 'plaster'],
    ['brick', 'Cellar brick', '#a9694d', 'stretcher bond'],
    ['stone', 'Quay limestone', '#cfc6b2', 'ashlar'],
    ['lead', 'Sheet lead', '#7d868c', undefined],
  ] as const)
    document.materials[id] = { id, name, colour, roughness: 0.9, ...(texture ? { texture } : {}) };
  const all: Element[] = [];
  const place = (): { x: number; y: number; z: number } => ({
    x: (all.length % 6) * 9,
    y: -Math.floor(all.length / 6) * 10,
    z: 2.4,
  });
  const bay = (name: string, over: Partial<Bay>): void =>
    void all.push({
      ...kinds.bay.fresh({ id: `vault-${all.length + 1}`, name, start: place(), turn: 0 }, 'brick'),
      layers: web,
      ...over,
    });
  const barrel = (name: string, over: Partial<Vault>): void =>
    void all.push({
      ...kinds.vault.fresh({ id: `vault-${all.length + 1}`, name, start: place(), turn: 0 }, 'brick'),
      layers: web,
      span: 5,
      length: 6,
      ...over,
    });
  const dome = (name: string, over: Partial<Dome>): void =>
    void all.push({
      ...kinds.dome.fresh({ id: `vault-${all.length + 1}`, name, start: place(), turn: 0 }, 'brick'),
      layers: [
        { thickness: 0.01, material: 'lead' },
        { thickness: 0.2, material: 'brick' },
      ],
      span: 5.6,
      rise: 2.8,
      ...over,
    });
  barrel('Barrel', {});
  barrel('Pointed barrel', { profile: 'pointed', rise: 3.2 });
  barrel('With transverse arches', { arches: { count: 4, width: 0.4, depth: 0.2, material: 'stone' } });
  bay('Groin vault', { corners: rectangleCorners(5, 5), rise: 2.5 });
  bay('Groin vault, oblong', { corners: rectangleCorners(5, 7), rise: 2.5, profile: 'ellipse' });
  bay('Pointed, with ribs', { corners: rectangleCorners(5, 5), rise: 3.1, profile: 'pointed', ribs });
  bay('Ribs along its sides', {
    corners: rectangleCorners(5, 5),
    rise: 2.5,
    ribs: { ...ribs, width: 0.36, sides: true },
  });
  bay('Over a triangle', { corners: regularCorners(3, 6), rise: 2.6, ribs });
  bay('In six parts', { corners: regularCorners(6, 3.4), rise: 2.4, profile: 'ellipse', ribs });
  bay('In eight parts, pointed', { corners: regularCorners(8, 2.6), rise: 2.8, profile: 'pointed', ribs });
  bay('Cloister vault', { corners: rectangleCorners(5, 5), rise: 2.5, severies: 'cloister' });
  bay('Cloister vault, oblong', {
    corners: rectangleCorners(5, 7),
    rise: 2.2,
    severies: 'cloister',
    profile: 'ellipse',
  });
  bay('Cloister vault in eight parts', { corners: regularCorners(8, 2.6), rise: 3.1, severies: 'cloister' });
  dome('Round dome', { crown: 1.1 });
  dome('Dome on a drum', { drum: 1.4, rise: 2.2 });
  dome('Pointed dome', { profile: 'pointed', rise: 3.8 });
  dome('Onion', { profile: 'onion', rise: 5.4, span: 4.4, drum: 0.8 });
  for (const element of all) document.elements[element.id] = element;
  oculi(
    document,
    all.find(({ name }) => name === 'Dome on a drum')!,
  );
  lunettes(document);
  return undercroft(document);
}

/** A barrel along a wall whose arched lights rise above its springing, each under a web of its own; its end walled up. */
function lunettes(document: ProjectDocument): void {
  const [x, y] = [62, 0];
  const barrel: Vault = {
    ...kinds.vault.fresh(
      { id: 'lunettes', name: 'Barrel with lunettes', start: { x: x + 11, y: y + 0.5, z: 2 }, turn: 90 },
      'brick',
    ),
    layers: web,
    span: 6,
    rise: 3,
    length: 11,
  };
  const wall: Wall = {
    ...kinds.wall.fresh({ id: 'lunettes-wall', name: 'Wall of the lunettes', start: { x, y, z: 0 }, turn: 0 }, 'brick'),
    length: 11,
    height: 4.4,
    layers: [{ thickness: 0.5, material: 'brick' }],
  };
  const end: Wall = {
    ...kinds.wall.fresh({ id: 'lunettes-end', name: 'End wall', start: { x, y: y + 6.5, z: 0 }, turn: -90 }, 'brick'),
    length: 6,
    height: 2,
    top: { kind: 'under', roof: barrel.id },
    layers: [{ thickness: 0.4, material: 'brick' }],
  };
  for (const element of [barrel, wall, end]) document.elements[element.id] = element;
  document.patterns.lunette = {
    id: 'lunette',
    name: 'Lunette light',
    profile: { shape: 'semicircular-arch' },
    sizes: { a: { id: 'a', name: '', dimensions: { span: 1.8, height: 2.2 } } },
    reveal: { material: 'stone' },
    parts: [{ id: 'web', kind: 'lunette', material: 'limewash', thickness: 0.16 }],
  };
  for (const [i, distance] of [1.9, 5.5, 9.1].entries()) {
    const id = `l${i + 1}`;
    document.openings[id] = {
      id,
      mark: `L-${String(i + 1).padStart(2, '0')}`,
      element: wall.id,
      pattern: 'lunette',
      size: 'a',
      along: { from: 'start', distance },
      up: { from: 'base', distance: 1.7 },
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
      further: [barrel.id],
    } satisfies Opening;
  }
}

/** A ring of oculi round a dome, each square to it. */
function oculi(document: ProjectDocument, on: Element): void {
  document.patterns.oculus = {
    id: 'oculus',
    name: 'Oculus',
    profile: { shape: 'circle' },
    sizes: { a: { id: 'a', name: '', dimensions: { diameter: 0.7 } } },
    reveal: { material: 'stone' },
    infill: {
      seat: { from: 'outer', depth: 0.06 },
      gap: 0.002,
      frame: { width: 0.05, depth: 0.05, material: 'lead', joints: 'mitred' },
      field: { kind: 'glass', material: 'glass', thickness: 0.008 },
    },
  };
  document.materials.glass = { id: 'glass', name: 'Glass', colour: '#a9c0c4', roughness: 0.08, opacity: 0.3 };
  // Out to its back, which is a drum's thickness beyond its springing.
  const [middle, round, count] = [5.6 / 2 + 0.21, 1.9, 8];
  for (let i = 0; i < count; i++) {
    const angle = (2 * Math.PI * i) / count;
    const id = `o${i + 1}`;
    document.openings[id] = {
      id,
      mark: `O-${String(i + 1).padStart(2, '0')}`,
      element: on.id,
      pattern: 'oculus',
      size: 'a',
      along: { from: 'start', distance: middle + round * Math.cos(angle) },
      up: { from: 'base', distance: middle + round * Math.sin(angle) },
      grip: { across: 'centre', level: 'middle' },
      blockedUp: false,
    } satisfies Opening;
  }
}

/** The granary's own undercroft, between the inner faces of its main range: limewashed bays in two rows. */
export function granaryUndercroft(): Bay[] {
  const [left, foot, wide, deep] = [0.45, 0.45, 18.3 / 3, 8.7 / 2];
  return Array.from({ length: 6 }, (_, i): Bay => {
    const [column, row] = [i % 3, Math.floor(i / 3)];
    return {
      ...kinds.bay.fresh(
        {
          id: `undercroft-${i + 1}`,
          name: `Undercroft ${i + 1}`,
          start: { x: left + column * wide, y: foot + row * deep, z: 2.35 },
          turn: 0,
        },
        'limewash',
      ),
      corners: rectangleCorners(wide, deep),
      rise: 1.15,
      profile: 'ellipse',
      layers: [{ thickness: 0.2, material: 'limewash' }],
      group: 'Undercroft',
    };
  });
}

/** Ribbed bays in rows. */
function undercroft(document: ProjectDocument): ProjectDocument {
  const first: Bay = {
    ...kinds.bay.fresh({ id: 'bay', name: 'Undercroft bay', start: { x: 4, y: -48, z: 1.6 }, turn: 0 }, 'brick'),
    corners: rectangleCorners(4.2, 3.6),
    rise: 1.8,
    profile: 'ellipse',
    layers: web,
    ribs,
  };
  const whole = { ...document, elements: { ...document.elements, bay: first } };
  const rows = bayRows(whole, first, 4, 2);
  if ('reason' in rows) throw new Error(rows.reason);
  const elements: Record<string, Element> = {};
  let n = 1;
  for (const change of rows.changeSet.changes)
    if (change.op === 'put' && change.table === 'elements') {
      // Ids as steady as the document.
      const id = change.value.id === 'bay' ? 'bay' : `bay-${++n}`;
      elements[id] = { ...change.value, id };
    }
  return { ...whole, elements: { ...whole.elements, ...elements } };
}
