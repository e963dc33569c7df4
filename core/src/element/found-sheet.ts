/** What is found of single sheets in a mesh from outside. */
import type { FreeOutline, Panel, Run, Wall } from '@yard-arch/document';

/** What a file says of a material. */
export interface ForeignMaterial {
  name: string;
  /** As #rrggbb. */
  colour?: string;
  roughness?: number;
  opacity?: number;
}

/** A mesh as it was read: points in metres, z up, and polygons of them, counter-clockwise as seen from their front. */
export interface ForeignMesh {
  /** Of which of its materials each polygon is, where that was asked for. */
  slots?: number[];
  materials?: ForeignMaterial[];
  /** x, y, z by point. */
  positions: readonly number[];
  polygons: readonly (readonly number[])[];
}

/** Where a flat sheet stands and what bounds it; its front is to be the outer face. */
export type FlatSheet = Pick<Panel, 'start' | 'turn' | 'tilt' | 'outline'> & {
  holes: FreeOutline[];
  /** Square metres, holes left out. */ area: number;
};

/** A sheet that is bent along its course in plan; its front is to be the outer face. */
export interface BentSheet {
  start: Wall['start'];
  turn: number;
  /** The first one's turn is 0. */
  runs: Run[];
  height: number;
  /** Square metres. */
  area: number;
  /** Whether it is to be mitred with those that it meets. */
  mitred: boolean;
}

/** A part that is bent both ways, or too unevenly, to be taken as walls, panels or slabs within the tolerance. */
export interface BentPart {
  /** How many flat pieces it would fall into. */
  pieces: number;
  /** How far it strays from the plane that fits it best, metres: within that tolerance it would be flat. */
  off: number;
  /** Square metres. */
  area: number;
}

export interface FoundSheets {
  sheets: (FlatSheet | BentSheet)[];
  /** How many parts are closed solids, which have a thickness already. */
  closed: number;
  /** How many flat pieces were left out because they are smaller than a square millimetre, or have more than 4,000 corners. */
  leftOut: number;
  /** Parts that cannot be taken, and why. */
  bent: BentPart[];
}

/** Why parts cannot be taken, in a sentence for each. @param worded a length in words. */
export function bentWords(bent: readonly BentPart[], worded: (metres: number) => string): string {
  return bent
    .map(
      ({ pieces, off, area }) =>
        `A part of ${Math.round(area * 100) / 100} m² bends both ways, or unevenly: it strays by ${worded(off)} from its plane, and would fall into ${pieces} pieces.`,
    )
    .join(' ');
}
