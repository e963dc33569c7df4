/** The old granary on Fennel Quay, its courtyard, its cart shed and the yard wall. */
import { checkDocument, dimensionNames, emptyDocument, type Opening, type Pattern, type ProjectDocument, type Wall } from '@yard-arch/document';

/** Makes the granary's document. */
export function granary(): ProjectDocument {
  const document: ProjectDocument = emptyDocument('Fennel Quay Granary');
  let number = 0;

  function material(id: string, name: string, colour: string, roughness = 0.9): void {
    document.materials[id] = { id, name, colour, roughness };
  }

  function wall(id: string, name: string, x: number, y: number, turn: number, length: number, height: number, thickness: number, stuff: string, top: Wall['top'] = { kind: 'level' }): void {
    document.elements[id] = {
      id, kind: 'wall', name, start: { x, y, z: 0 }, turn, length, height, top, layers: [{ thickness, material: stuff }],
    } satisfies Wall;
  }

  function pattern(id: string, name: string, shape: Pattern['profile']['shape'], sizes: Record<string, number[]>, reveal: string | null): void {
    const names = dimensionNames(shape);
    document.patterns[id] = {
      id, name, profile: { shape }, reveal: { material: reveal },
      sizes: Object.fromEntries(
        Object.entries(sizes).map(([size, values]) => [
          size,
          { id: size, name: '', dimensions: Object.fromEntries(names.map((n, i) => [n, values[i]!])) },
        ]),
      ),
    };
  }

  function axis(element: string, name: string, along: number): void {
    const id = `${element}-${name.toLowerCase()}`;
    document.axes[id] = { id, name, element, along };
  }

  function place(element: string, pattern: string, size: string, at: string | Opening['along'], up: string | Opening['up'], over: Partial<Opening> = {}): void {
    number += 1;
    const id = `o${number}`;
    document.openings[id] = {
      id,
      mark: `${typeof at === 'string' ? at.toUpperCase() : 'W'}-${String(number).padStart(2, '0')}`,
      element,
      pattern,
      size,
      along: typeof at === 'string' ? { from: 'axis', axis: `${element}-${at}`, distance: 0 } : at,
      up: typeof up === 'string' ? { from: 'datum', datum: up, distance: 0 } : up,
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
      ...over,
    };
  }

  material('brick', 'Old brick', '#b97a5c');
  material('limewash', 'Limewashed brick', '#d9cdb6');
  material('stone', 'Quay limestone', '#cfc6b2', 0.8);
  material('rubble', 'Rubble stone', '#a79f8e');

  pattern('light', 'Loft light', 'rectangle', { a: [1.1, 1], b: [1.4, 1] }, null);
  pattern('arch', 'Granary arch', 'semicircular-arch', { a: [1.3, 1.9], b: [1.1, 1.75] }, 'stone');
  pattern('cart', 'Cart arch', 'semicircular-arch', { a: [2.9, 3.3], b: [2.2, 2.6], c: [2.6, 2.5] }, 'stone');
  pattern('door', 'Yard door', 'rectangle', { a: [1, 2.15], b: [1.3, 2.3] }, null);
  pattern('oculus', 'Oculus', 'circle', { a: [1.1], b: [0.8] }, 'stone');

  document.datums.yard = { id: 'yard', name: 'Yard', level: 0, element: null };
  document.datums.ground = { id: 'ground', name: 'Ground sill', level: 1.2, element: null };
  document.datums.first = { id: 'first', name: 'First sill', level: 3.75, element: null };
  document.datums.loft = { id: 'loft', name: 'Loft sill', level: 6.7, element: null };

  // The granary: two long walls, and two ends between them.
  wall('courtyard', 'Courtyard wall', 0, 0, 0, 19.2, 8.4, 0.45, 'brick');
  const gable: Wall['top'] = { kind: 'gabled', apex: 12.2, at: 0.5 };
  wall('east', 'East gable', 19.2, 0.45, 90, 8.7, 8.4, 0.45, 'brick', gable);
  wall('quay', 'Quay wall', 19.2, 9.6, 180, 19.2, 8.4, 0.45, 'brick');
  wall('west', 'West gable', 0, 9.15, -90, 8.7, 8.4, 0.45, 'brick', gable);
  // The cart shed along the west of the yard, and the wall with the gate.
  wall('shed-front', 'Cart shed front', 0, -9.25, 90, 9.25, 3.9, 0.35, 'limewash');
  wall('shed-south', 'Cart shed gable', -5.4, -9.6, 0, 5.4, 3.9, 0.35, 'limewash', { kind: 'gabled', apex: 6, at: 0.5 });
  wall('shed-back', 'Cart shed back', -5.4, 0, -90, 9.25, 3.9, 0.35, 'limewash');
  wall('shed-north', 'Cart shed north', -0.35, 0, 180, 4.7, 3.9, 0.35, 'limewash', { kind: 'gabled', apex: 6, at: 0.5 });
  wall('gate', 'Gate wall', 0, -9.6, 0, 19.2, 2.4, 0.35, 'rubble', {
    kind: 'stepped',
    steps: [
      { at: 0.375, height: 3.2 },
      { at: 0.625, height: 2.4 },
    ],
  });

  'ABCDEFG'.split('').forEach((name, i) => axis('courtyard', name, 1.8 + 2.6 * i));
  place('courtyard', 'light', 'a', 'a', 'ground');
  place('courtyard', 'light', 'a', 'b', 'ground');
  place('courtyard', 'door', 'a', 'c', 'yard');
  place('courtyard', 'cart', 'a', 'd', 'yard');
  place('courtyard', 'door', 'a', 'e', 'yard', { blockedUp: true });
  place('courtyard', 'light', 'a', 'f', 'ground');
  place('courtyard', 'light', 'a', 'g', 'ground');
  for (const name of 'abcdefg') place('courtyard', 'arch', 'a', name, 'first');
  for (const name of 'abc') place('courtyard', 'light', 'b', name, 'loft');
  place('courtyard', 'oculus', 'a', 'd', 'loft', { up: { from: 'datum', datum: 'loft', distance: 0.5 }, grip: { across: 'centre', level: 'middle' } });
  for (const name of 'efg') place('courtyard', 'light', 'b', name, 'loft');

  place('east', 'door', 'b', { from: 'start', distance: 1.6 }, 'yard');
  place('east', 'arch', 'b', { from: 'middle', distance: -1.8 }, 'first');
  place('east', 'arch', 'b', { from: 'middle', distance: 1.8 }, 'first');
  place('east', 'oculus', 'b', { from: 'middle', distance: 0 }, { from: 'top', distance: -1.5 }, { grip: { across: 'centre', level: 'middle' } });

  for (const distance of [-7.2, -3.6, 0, 3.6, 7.2]) place('quay', 'arch', 'a', { from: 'middle', distance }, 'first');
  place('quay', 'door', 'b', { from: 'middle', distance: 0 }, 'yard');
  place('west', 'light', 'b', { from: 'end', distance: 2 }, 'loft', { grip: { across: 'centre', level: 'sill' } });

  for (const distance of [-2.9, 0, 2.9]) place('shed-front', 'cart', 'b', { from: 'middle', distance }, 'yard');
  place('gate', 'cart', 'c', { from: 'start', distance: 9.6 }, 'yard');
  place('gate', 'door', 'a', { from: 'end', distance: 1.6 }, 'yard');

  return checkDocument(document);
}
