/** Parts to begin with: what a pattern puts about its openings, in a material that the project has. */
import { newId, type Dormer, type Part, type ProjectDocument } from '@yard-arch/document';
import { usualMaterials } from './infill.ts';

/** What can be put about an opening, as it is asked for. */
export const partStarts = [
  'sill board',
  'window board within',
  'stone sill',
  'lintel',
  'arch ring',
  'quoins',
  'surround',
  'hood mould',
  'lining',
  'lining within',
  'architrave within',
  'shutters',
  'guard rail',
  'window bars',
  'dormer',
  'chimney',
  'lunette',
] as const;
export type PartStart = (typeof partStarts)[number];

/** A part to begin with. @param material of stone and the like; timber and metal are the project's usual ones. */
export function partFrom(start: PartStart, document: ProjectDocument, material: string): Part {
  const id = newId('q');
  const { timber } = usualMaterials(document);
  const metal =
    Object.values(document.materials).find(({ name }) => /iron|steel|metal|bronze/i.test(name))?.id ?? timber;
  const inFace = { id, material, depth: 0.1, proud: 0.01 };
  const round = ['jamb-left', 'jamb-right', 'head'] as const;
  switch (start) {
    case 'sill board':
      return { id, kind: 'sill board', material, thickness: 0.06, nosing: 0.04, horns: 0, reach: 0.1 };
    case 'window board within':
      return { id, kind: 'sill board', material: timber, thickness: 0.03, nosing: 0.04, horns: 0.05, behind: true };
    case 'stone sill':
      return { ...inFace, kind: 'stone sill', height: 0.1, proud: 0.05, ends: 0.06, fall: 0.015, drip: true };
    case 'lintel':
      return { ...inFace, kind: 'lintel', height: 0.2, bearing: 0.15 };
    case 'arch ring':
      return { ...inFace, kind: 'arch ring', height: 0.22, stones: 13, joint: 0.006 };
    case 'quoins':
      return { ...inFace, kind: 'quoins', height: 0.3, long: 0.3, short: 0.2, joint: 0.006 };
    case 'surround':
      return { id, kind: 'surround', material, width: 0.14, thickness: 0.03, sides: [...round] };
    case 'hood mould':
      return {
        id,
        kind: 'surround',
        material,
        width: 0.09,
        thickness: 0.06,
        sides: ['head'],
        off: 0.22,
        moulding: { kind: 'hollowed', size: 0.045 },
      };
    case 'lining':
      return { id, kind: 'lining', material: timber, thickness: 0.018, sides: [...round] };
    case 'lining within':
      return { id, kind: 'lining', material: timber, thickness: 0.018, sides: [...round], behind: true };
    case 'architrave within':
      return { id, kind: 'surround', material: timber, width: 0.08, thickness: 0.018, sides: [...round], behind: true };
    case 'shutters':
      return {
        id,
        kind: 'shutters',
        frame: { width: 0.07, depth: 0.032, material: timber },
        field: { kind: 'boards', material: timber, thickness: 0.024, width: 0.12, way: 'upright', joint: 0.004 },
        leaves: 'pair',
        lap: 0.02,
        angle: 180,
      };
    case 'guard rail':
      return { id, kind: 'guard', material: metal, height: 1, bar: 0.016, rail: 0.03, spacing: 0.11, depth: 0.04 };
    case 'dormer':
      return {
        id,
        kind: 'dormer',
        form: 'gabled',
        material,
        wall: 0.12,
        height: 1.4,
        pitch: 40,
        roof: { material, thickness: 0.1, over: 0.2 },
        window: { shape: 'rectangle', dimensions: { width: 0.8, height: 1 }, sill: 0.25 },
      };
    case 'chimney':
      return {
        id,
        kind: 'chimney',
        material,
        gap: 0.02,
        above: 0.9,
        below: 1,
        upstand: { material: metal, height: 0.15, thickness: 0.03 },
        cap: { material, over: 0.05, thickness: 0.08 },
        pots: { material, count: 1, diameter: 0.22, height: 0.4 },
      };
    case 'lunette':
      return { id, kind: 'lunette', material, thickness: 0.15 };
    case 'window bars':
      return { id, kind: 'guard', material: metal, bar: 0.018, rail: 0, spacing: 0.11, depth: 0.05 };
  }
}

/** The window of a dormer's front as a size of a pattern has it, its infill seated within the front's thickness; as high above the roof as the one before. */
export function windowFrom(
  { patterns }: ProjectDocument,
  { window, wall }: Dormer,
  pattern: string,
  size: string,
): Dormer['window'] {
  const from = patterns[pattern];
  const own = from?.sizes[size];
  if (!from || !own) return window;
  const deep = from.infill?.frame?.depth ?? 0.05;
  const infill = from.infill && {
    ...from.infill,
    seat: { from: 'outer' as const, depth: Math.max(0, Math.min(0.03, wall - deep)) },
  };
  return {
    shape: from.profile.shape as NonNullable<Dormer['window']>['shape'],
    dimensions: own.dimensions,
    sill: window?.sill ?? 0.25,
    ...(infill ? { infill } : {}),
  };
}
