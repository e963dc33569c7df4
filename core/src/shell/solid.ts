/** Shells as solids: their surfaces at two depths, and what closes them at their sides, as flat polygons with what is drawn on them. Metres, in the shell's own directions. */
import type { Vector } from '../vector.ts';

/** A corner of a polygon: where it stands, the normal there, and how far along and up its texture is. */
export interface ShellCorner {
  at: Vector;
  normal: Vector;
  uv: readonly [number, number];
}

/** A flat polygon, counter-clockwise as seen from outside the shell. */
export type ShellPolygon = readonly ShellCorner[];

/** A shell: a surface for each depth from its back, and its sides between two. */
export interface Shell {
  /** The surface at a depth, each polygon seen from above. */
  surface: (depth: number) => ShellPolygon[];
  /** Its sides between two depths, seen from outside. */
  sides: (from: number, to: number) => ShellPolygon[];
  /** Further solids that it carries, such as ribs: each closed. */
  carried: readonly { polygons: readonly ShellPolygon[]; material: string }[];
  /** What is seen of it from above: its outline, and the lines on it. */
  outline: readonly (readonly [number, number])[];
  lines: readonly (readonly [readonly [number, number], readonly [number, number]])[];
  /** From where to where it reaches upward. */
  low: number;
  high: number;
  /** Where its back is above a place in plan, and the way out of it there; null beside it. */
  backAt: (x: number, y: number) => { z: number; normal: Vector } | null;
}
