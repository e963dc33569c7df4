/** The granary's cellar: a barrel vault between two end walls, with light shafts through its back and lamp niches within. */
import { emptyDocument, kinds, type Opening, type Pattern, type ProjectDocument, type Wall } from '@yard-arch/document';

const [span, rise, length] = [5.2, 2.2, 11];
const vaulted = 0.45;

/** Makes the cellar's document. */
export function cellar(): ProjectDocument {
  const document = emptyDocument('Fennel Quay Cellar');
  const material = (id: string, name: string, colour: string, texture: 'ashlar' | 'stretcher bond'): void => {
    document.materials[id] = { id, name, colour, roughness: 0.9, texture };
  };
  material('brick', 'Cellar brick', '#a9694d', 'stretcher bond');
  material('stone', 'Quay limestone', '#cfc6b2', 'ashlar');
  build(document);
  addPatterns(document);
  placeAll(document);
  return document;
}

/** The barrel, and the walls on which it stands. */
function build({ elements }: ProjectDocument): void {
  elements.barrel = {
    ...kinds.vault.fresh({ id: 'barrel', name: 'Barrel', start: { x: 0, y: 0, z: 1.2 }, turn: 0 }, 'brick'),
    span,
    rise,
    length,
    layers: [{ thickness: vaulted, material: 'brick' }],
    // Its courses run along it.
    texture: { outer: { turn: 90 }, inner: { turn: 90 } },
  };
  const wall = (id: string, name: string, at: { x: number; y: number; turn: number }, over: Partial<Wall>): void => {
    const { x, y, turn } = at;
    elements[id] = {
      ...kinds.wall.fresh({ id, name, start: { x, y, z: 0 }, turn }, 'stone'),
      layers: [{ thickness: vaulted, material: 'stone' }],
      ...over,
    };
  };
  // Their outer faces are flush with its back.
  wall('west', 'West springing wall', { x: 0 - vaulted, y: length, turn: -90 }, { length, height: 1.2 });
  wall('east', 'East springing wall', { x: span + vaulted, y: 0, turn: 90 }, { length, height: 1.2 });
  const across = { length: span + 2 * vaulted, height: 1.2 + rise + vaulted };
  wall('front', 'Stair end', { x: 0 - vaulted, y: 0 - vaulted, turn: 0 }, across);
}

function addPatterns({ patterns }: ProjectDocument): void {
  const pattern = (id: string, name: string, over: Partial<Pattern> & Pick<Pattern, 'profile' | 'sizes'>): void => {
    patterns[id] = { id, name, reveal: { material: 'stone' }, ...over };
  };
  const size = (dimensions: Record<string, number>): Pattern['sizes'] => ({ a: { id: 'a', name: '', dimensions } });
  pattern('shaft', 'Light shaft', {
    profile: { shape: 'rectangle' },
    sizes: size({ width: 0.8, height: 1.2 }),
    sections: { 'jamb-left': { splayInside: 20 }, 'jamb-right': { splayInside: 20 }, sill: { splayInside: 30 } },
  });
  pattern('door', 'Cellar door', {
    profile: { shape: 'segmental-arch' },
    sizes: size({ span: 1.4, height: 2.3, rise: 0.3 }),
    onFloor: true,
  });
  pattern('lamp', 'Lamp niche', {
    profile: { shape: 'semicircular-arch' },
    sizes: size({ span: 0.4, height: 0.6 }),
    cut: { kind: 'niche', depth: 0.2 },
  });
}

function placeAll({ openings }: ProjectDocument): void {
  let number = 0;
  const place = (
    element: string,
    of: string,
    { along, up }: { along: Opening['along']; up: number },
    over: Partial<Opening> = {},
  ): void => {
    const id = `o${++number}`;
    openings[id] = {
      id,
      mark: `C-${String(number).padStart(2, '0')}`,
      element,
      pattern: of,
      size: 'a',
      along,
      up: { from: 'base', distance: up },
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
      ...over,
    };
  };
  for (const up of [1.6, 4.9, 8.2]) place('barrel', 'shaft', { along: { from: 'middle', distance: 2.1 }, up });
  place('front', 'door', { along: { from: 'middle', distance: 0 }, up: 0 });
  for (const along of [1.8, 5.5, 9.2])
    place('east', 'lamp', { along: { from: 'start', distance: along }, up: 0.5 }, { face: 'inner' });
}
