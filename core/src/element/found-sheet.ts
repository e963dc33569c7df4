/** What is found of single sheets in a mesh from outside. */
import type { FreeOutline, Panel, Run, Wall } from '@yard-arch/document';

/** A mesh as it was read: points in metres, z up, and polygons of them, counter-clockwise as seen from their front. */
export interface ForeignMesh {
  /** x, y, z by point. */
  positions: readonly number[];
  polygons: readonly (readonly number[])[];
}

/** Where a flat sheet stands and what bounds it; its front is to be the outer face. */
export type FlatSheet = Pick<Panel, 'start' | 'turn' | 'tilt' | 'outline'> & { holes: FreeOutline[]; /** Square metres, holes left out. */ area: number };

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

export interface FoundSheets {
  sheets: (FlatSheet | BentSheet)[];
  /** How many parts are closed solids, which have a thickness already. */
  closed: number;
  /** How many flat pieces were left out because they are smaller than a square millimetre, or have more than 4,000 corners. */
  leftOut: number;
}
