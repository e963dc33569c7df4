/** What a new project begins with, so that a window can be placed at once. */
import { infillFrom } from './infill.ts';
import {
  emptyDocument,
  type Material,
  type Pattern,
  type ProjectDocument,
  type ProfileShape,
  type Units,
} from '@yard-arch/document';

/** With nothing; with a few materials and patterns; with a first wall besides. */
export const beginnings = ['empty', 'patterns', 'wall'] as const;
export type Beginning = (typeof beginnings)[number];

const materials: readonly Material[] = [
  { id: 'brick', name: 'Brick', colour: '#b97a5c', roughness: 0.9, texture: 'stretcher bond' },
  { id: 'stone', name: 'Limestone', colour: '#cfc6b2', roughness: 0.8, texture: 'ashlar' },
  { id: 'plaster', name: 'Plaster', colour: '#e6dfcf', roughness: 0.95, texture: 'plaster' },
  { id: 'paint', name: 'Painted timber', colour: '#ece7dc', roughness: 0.5 },
  { id: 'glass', name: 'Glass', colour: '#a9c0c4', roughness: 0.08, opacity: 0.3 },
  { id: 'concrete', name: 'Concrete', colour: '#a9a69d', roughness: 0.9, texture: 'concrete' },
];

function pattern(
  id: string,
  name: string,
  shape: ProfileShape,
  { sizes, more = {} }: { sizes: Pattern['sizes'][string]['dimensions'][]; more?: Partial<Pattern> | undefined },
): Pattern {
  return {
    id,
    name,
    profile: { shape },
    sizes: Object.fromEntries(sizes.map((dimensions, i) => [`s${i + 1}`, { id: `s${i + 1}`, name: '', dimensions }])),
    reveal: { material: null },
    ...more,
  };
}

const fall = { splayOutside: 8, seat: 0.15 };

const patterns: readonly Pattern[] = [
  pattern('window', 'Window', 'rectangle', {
    sizes: [
      { width: 1.2, height: 1.4 },
      { width: 0.9, height: 1.2 },
      { width: 1.8, height: 1.4 },
    ],
    more: { sections: { sill: fall }, infill: infillFrom('pair of casements', 'paint', 'glass') },
  }),
  pattern('door', 'Door', 'rectangle', {
    sizes: [
      { width: 1, height: 2.1 },
      { width: 1.6, height: 2.2 },
    ],
    more: { onFloor: true, infill: infillFrom('door leaf', 'paint', 'glass') },
  }),
  pattern('arch', 'Arch', 'semicircular-arch', {
    sizes: [{ span: 1.2, height: 2 }],
    more: {
      sections: { sill: fall },
      infill: infillFrom('barred light', 'paint', 'glass'),
    },
  }),
  pattern('segment', 'Segment', 'segmental-arch', {
    sizes: [{ span: 1.1, rise: 0.18, height: 1.6 }],
    more: {
      sections: { sill: fall },
      infill: infillFrom('casement', 'paint', 'glass'),
    },
  }),
  pattern('gateway', 'Gateway', 'semicircular-arch', { sizes: [{ span: 2.8, height: 3 }], more: { onFloor: true } }),
  pattern('oculus', 'Oculus', 'circle', { sizes: [{ diameter: 0.9 }] }),
  pattern('niche', 'Niche', 'semicircular-arch', {
    sizes: [{ span: 0.6, height: 1.2 }],
    more: { cut: { kind: 'niche', depth: 0.18 } },
  }),
];

const byId = <T extends { id: string }>(rows: readonly T[]): Record<string, T> =>
  Object.fromEntries(rows.map((row) => [row.id, structuredClone(row)]));

/** A new project. */
export function newProject(name: string, units: Units, begin: Beginning): ProjectDocument {
  const empty = emptyDocument(name, units);
  if (begin === 'empty') return empty;
  const stocked = { ...empty, materials: byId(materials), patterns: byId(patterns) };
  if (begin === 'patterns') return stocked;
  const wall = {
    id: 'w1',
    kind: 'wall' as const,
    name: 'Wall 1',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    length: 8,
    height: 3.5,
    top: { kind: 'level' as const },
    layers: [{ thickness: 0.4, material: 'brick' }],
  };
  return { ...stocked, elements: { w1: wall } };
}
