/** Parts: meshes that stand in or about openings, each made once however many carry it, and where they stand. */
import type { FaceName } from '@yard-arch/document';
import type { Rigid } from '../element/chart.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';

/** One mesh, closed and tagged, in directions of its own: x along the face as it is seen, y into it, z up; from the middle of the opening's width, at its lowest, on its face. Metres. */
export interface PartMesh {
  /** What it is made of and how large; parts of one key are one mesh. */
  key: string;
  /** What it is called. */
  name: string;
  mesh: CutMesh;
  /** How it is drawn as it is seen on its face; its bounding rectangle where nothing is said. */
  front?: readonly Front[];
  /** Whether it stands within the opening, where it is seen from either face. */
  within?: true;
}

/** Something of a part as it is drawn: loops of (x, z), metres. */
export interface Front {
  /** A solid, a pane of glass, the lines of joints between members, or the mark of how a leaf is hung. */
  kind: 'solid' | 'glass' | 'joint' | 'hung';
  loops: readonly (readonly (readonly [number, number])[])[];
  /** What it is of. */
  material?: string;
}

/** A part in its place. */
export interface PartInstance {
  part: PartMesh;
  element: string;
  opening: string;
  /** The pattern's part that it is. */
  id: string;
  /** The face on which it stands. */
  face: FaceName;
  placement: Rigid;
}

/** Why an opening carries a part that its pattern asks for no more than its figures, or not at all; in words to follow its mark. */
export interface PartLeftOut {
  opening: string;
  id: string;
  reason: string;
}
