/** Cuts one element: its sheet, its openings, its mesh, and what became of each opening. */
import type { Element, Units } from '@yard-arch/document';
import { cutSheet } from '../cut/cut-sheet.ts';
import { notCut, type OpeningStatus } from '../cut/status.ts';
import { sheetOf, type Sheet } from '../element/sheet.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { extrude } from '../mesh/extrude.ts';
import { regionArea, type Region } from '../mesh/region.ts';
import { NotTriangulable } from '../mesh/triangulation.ts';
import { profileArea } from '../profile/profile.ts';
import type { Placed, Unplaced } from '../setout/resolve.ts';

/** An element as cut. */
export interface ElementCut {
  element: string;
  sheet: Sheet;
  /** Openings in their places, those not cut included. */
  placed: Placed[];
  region: Region;
  mesh: CutMesh;
  statuses: OpeningStatus[];
  /** Area of the face that is left, square metres. */
  faceArea: number;
  /** Into how many pieces the openings divide the element. */
  pieces: number;
}

/** Cuts an element. Openings that are blocked up, or could not be placed, are reported and leave no trace in the mesh. */
export function cutElement(element: Element, resolved: readonly (Placed | Unplaced)[], units: Units): ElementCut {
  const sheet = sheetOf(element);
  const placed = resolved.filter((opening): opening is Placed => 'outline' in opening);
  const open = placed.filter((opening) => !opening.blockedUp);
  let { region, statuses } = cutSheet(sheet, open, units);
  let mesh: CutMesh;
  try {
    mesh = extrude(sheet, region, open);
  } catch (error) {
    if (!(error instanceof NotTriangulable)) throw error;
    // Never a broken mesh: the wall is left whole, and every opening says so.
    const message = error.message;
    ({ region } = cutSheet(sheet, [], units));
    mesh = extrude(sheet, region, []);
    statuses = open.map(({ id }) =>
      notCut(id, `the wall's face could not be divided (${message})`, 'Move the openings that nearly touch apart, or onto each other.'),
    );
  }
  const byId = new Map(statuses.map((status) => [status.opening, status]));
  return {
    element: element.id,
    sheet,
    placed,
    region,
    mesh,
    statuses: resolved.map((opening) => {
      if (!('outline' in opening)) return notCut(opening.id, opening.reason, opening.mend);
      if (opening.blockedUp)
        return { opening: opening.id, state: 'blocked up', reason: null, mend: null, unitedWith: [], area: profileArea(opening.profile) };
      return byId.get(opening.id)!;
    }),
    faceArea: regionArea(region),
    pieces: piecesOf(region),
  };
}

/** The number of loops that run counter-clockwise, which is that of pieces. */
function piecesOf(region: Region): number {
  const seen = new Uint8Array(region.count);
  let pieces = 0;
  for (let first = 0; first < region.count; first++) {
    if (seen[first]) continue;
    let twice = 0;
    for (let v = first; !seen[v]; v = region.next[v]!) {
      seen[v] = 1;
      const w = region.next[v]!;
      twice += region.xs[v]! * region.ys[w]! - region.xs[w]! * region.ys[v]!;
    }
    if (twice > 0) pieces += 1;
  }
  return pieces;
}
