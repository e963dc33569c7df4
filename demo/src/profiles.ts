/** Every profile once, side by side in a wall of the undercroft. */
import {
  emptyDocument,
  firstChoice,
  firstDimensions,
  profileShapes,
  type ProfileShape,
  type ProjectDocument,
} from '@yard-arch/document';

/** Makes a document with a wall that has an opening of each profile, in its first size, in two rows. */
export function everyProfile(): ProjectDocument {
  const document = emptyDocument('Undercroft, every profile');
  const shapes = Object.keys(profileShapes) as ProfileShape[];
  const columns = Math.ceil(shapes.length / 2);
  document.materials.limewash = { id: 'limewash', name: 'Limewashed brick', colour: '#d9cdb6', roughness: 0.9 };
  document.materials.stone = { id: 'stone', name: 'Quay limestone', colour: '#cfc6b2', roughness: 0.8 };
  document.elements.wall = {
    id: 'wall',
    kind: 'wall',
    name: 'Undercroft wall',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: columns * 2.6,
    height: 6.6,
    top: { kind: 'level' },
    layers: [{ thickness: 0.5, material: 'limewash' }],
  };
  shapes.forEach((shape, i) => {
    document.patterns[shape] = {
      id: shape,
      name: profileShapes[shape].name,
      profile: firstChoice(shape),
      sizes: { a: { id: 'a', name: '', dimensions: { ...firstDimensions(shape) } } },
      reveal: { material: 'stone' },
    };
    document.openings[`o${i + 1}`] = {
      id: `o${i + 1}`,
      mark: `U-${String(i + 1).padStart(2, '0')}`,
      element: 'wall',
      pattern: shape,
      size: 'a',
      along: { from: 'start', distance: 1.3 + 2.6 * (i % columns) },
      up: { from: 'base', distance: i < columns ? 3.6 : 0.5 },
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
    };
  });
  return document;
}
