/** A facade of any size: one straight wall with n arched openings in rows and columns. */
import { emptyDocument, type Opening, type ProjectDocument } from '@yard-arch/document';

/** A wall with `count` semicircular arches of span 1.2 m and height 2 m, 2.4 m apart, in rows of four times as many columns as rows. */
export function facade(count: number): ProjectDocument {
  const columns = Math.ceil(Math.sqrt(count * 4));
  const rows = Math.ceil(count / columns);
  const openings: Record<string, Opening> = {};
  for (let i = 0; i < count; i++) {
    const id = `o${i}`;
    openings[id] = {
      id,
      mark: id,
      element: 'facade',
      pattern: 'arch',
      size: 'a',
      along: { from: 'start', distance: 0.6 + 2.4 * (i % columns) },
      up: { from: 'base', distance: 0.7 + 3.1 * Math.floor(i / columns) },
      grip: { across: 'left', level: 'sill' },
      blockedUp: false,
    };
  }
  return {
    ...emptyDocument(`Facade of ${count}`),
    elements: {
      facade: {
        id: 'facade',
        kind: 'wall',
        name: 'Facade',
        start: { x: 0, y: 0, z: 0 },
        turn: 0,
        length: 2.4 * columns,
        height: 3.1 * rows + 0.5,
        top: { kind: 'level' },
        layers: [{ thickness: 0.4, material: 'brick' }],
      },
    },
    patterns: {
      arch: {
        id: 'arch',
        name: 'Arch',
        profile: { shape: 'semicircular-arch' },
        sizes: { a: { id: 'a', name: '1200 × 2000', dimensions: { span: 1.2, height: 2 } } },
        reveal: { material: null },
      },
    },
    openings,
    materials: { brick: { id: 'brick', name: 'Brick', colour: '#c58562', roughness: 0.9 } },
  };
}
