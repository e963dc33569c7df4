/** Demo walls: one curved, of three layers, with checked and arris-chamfered arches; one with every layer a solid of its own. */
import { checkDocument, type Layer, type Pattern, type ProjectDocument, type Section } from '@yard-arch/document';
import { facade } from './facade.ts';

const layers: Layer[] = [
  { thickness: 0.1025, material: 'brick' },
  { thickness: 0.1, material: 'insulation' },
  { thickness: 0.2, material: 'concrete' },
];
const materials: ProjectDocument['materials'] = {
  brick: { id: 'brick', name: 'Old brick', colour: '#b97a5c', roughness: 0.9, texture: 'stretcher bond' },
  insulation: { id: 'insulation', name: 'Hemp insulation', colour: '#d9c58a', roughness: 1, texture: 'insulation' },
  concrete: { id: 'concrete', name: 'New concrete', colour: '#a9a69d', roughness: 0.9, texture: 'concrete' },
};
const section: Section = { checks: [{ depth: 0.12, step: 0.06 }], arris: { kind: 'chamfered', size: 0.01 } };
const sections: Pattern['sections'] = { 'jamb-left': section, 'jamb-right': section, head: section, sill: section };

/** A curved wall of three layers with `count` checked arches whose arrises are chamfered; it turns by 120 degrees. */
export function curvedFacade(count: number): ProjectDocument {
  const flat = facade(count);
  const wall = flat.elements.facade!;
  return checkDocument({
    ...flat,
    name: `Curved facade of ${count}`,
    materials,
    elements: { facade: { ...wall, name: 'Curved facade', sweep: 120, layers } },
    patterns: { arch: { ...flat.patterns.arch!, sections } },
  });
}

/** A wall whose layers are solids of their own, with windows through them and niches that stop at the insulation. */
export function layeredWall(): ProjectDocument {
  const flat = facade(6);
  return checkDocument({
    ...flat,
    name: 'Layers as solids',
    materials,
    elements: {
      facade: {
        ...flat.elements.facade!,
        name: 'Layered wall',
        skins: 'layers',
        layers: [layers[0]!, { ...layers[1]!, thickness: 0.04, cavity: true }, layers[1]!, layers[2]!],
      },
    },
    patterns: {
      arch: { ...flat.patterns.arch!, sections },
      probe: { ...flat.patterns.arch!, id: 'probe', name: 'Probe', cut: { kind: 'niche to layer', layers: 2 } },
    },
    openings: Object.fromEntries(
      Object.entries(flat.openings).map(([id, opening], i) => [
        id,
        { ...opening, pattern: i % 2 === 1 ? 'probe' : 'arch' },
      ]),
    ),
  });
}
