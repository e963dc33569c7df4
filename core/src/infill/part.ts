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
