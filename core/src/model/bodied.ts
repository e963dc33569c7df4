/** What is cut as whole bodies, set out from above: the cut of its element, put together. */
import { faceLeft } from '../cut/solid-path.ts';
import type { OpeningStatus } from '../cut/status.ts';
import type { Sheet } from '../element/sheet.ts';
import { together } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { piecesOf, regionArea } from '../mesh/region.ts';
import { smoothed } from '../mesh/smooth.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';
import type { Element } from '@yard-arch/document';
import { toldOf, type ElementCut, type FaceCut } from './cut-element.ts';

interface Bodied {
  element: Element;
  above: Sheet;
  resolved: readonly (Placed | Unplaced)[];
  recesses: readonly Placed[];
  placed: Placed[];
  /** Its bodies as they were cut, and what they carry. */
  solids: readonly CutMesh[];
  /** What came down through it from above. */
  goes: readonly Placed[];
  byId: ReadonlyMap<string, OpeningStatus>;
  /** Whether anything was taken out as solids. */
  bySolids: boolean;
  faces?: readonly FaceCut[];
  start: number;
}

export function bodiedCut(bodied: Bodied): ElementCut {
  const { element, above, resolved, recesses, placed, solids, goes, byId, bySolids, faces, start } = bodied;
  const mesh = together(element.id, solids);
  const region = faceLeft(above, goes);
  return {
    element: element.id,
    sheet: above,
    placed,
    region,
    mesh: element.smooth === undefined ? mesh : smoothed(mesh, element.smooth),
    parts: [],
    statuses: toldOf(resolved, byId),
    taken: recesses.map(({ id }) => byId.get(id)!),
    faceArea: faces ? faces.reduce((sum, face) => sum + face.faceArea, 0) : regionArea(region),
    pieces: piecesOf(region),
    path: bySolids ? 'solid' : 'sheet',
    fault: null,
    milliseconds: performance.now() - start,
    skins: [],
    ...(faces ? { faces } : {}),
  };
}
