/** What is taken out of bodies as solids. */
import { settingOf, type Skin } from '../cut/setting.ts';
import { AtFault } from '../cut/skin.ts';
import { solidPath } from '../cut/solid-path.ts';
import { notCut, type OpeningStatus } from '../cut/status.ts';
import type { Sheet } from '../element/sheet.ts';
import { fault } from '../finding.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { isClosed } from '../mesh/proof.ts';
import type { Placed } from '../setout/placed.ts';

/** What is taken out from one sheet. */
export interface FromSheet {
  sheet: Sheet;
  openings: readonly Placed[];
  /** By body, which skin of the sheet it is cut in. */
  skins: readonly Skin[];
}

interface Taking {
  /** Where a body could not be divided, in words. */
  where: string;
  byId: Map<string, OpeningStatus>;
}

/** Takes openings out of bodies as solids, all at once; where that cannot be, they say so and the bodies are as they were. */
export function takenFrom(
  bodies: readonly CutMesh[],
  sheets: readonly FromSheet[],
  { where, byId }: Taking,
): CutMesh[] {
  const path = solidPath();
  const refuse = (of: readonly Placed[]): void => {
    for (const { id } of of)
      byId.set(id, notCut(id, fault('not-divided', where, 'Move it clear of the edge, or choose another size.')));
  };
  let left = sheets.filter(({ openings }) => openings.length > 0);
  while (path && left.length > 0)
    try {
      const made = bodies.map((mesh, i) => {
        const [first, ...others] = left.map(({ sheet, openings, skins }) => ({
          setting: settingOf(sheet, skins[i]!, null),
          openings,
        }));
        return path(mesh, first!.setting, first!.openings, others);
      });
      if (made.every((mesh) => mesh.triangles.length > 0 && isClosed(mesh))) return made;
      break;
    } catch (error) {
      if (!(error instanceof AtFault)) break;
      const gone = new Set(error.openings.map(({ id }) => id));
      refuse(error.openings);
      left = left
        .map((one) => ({ ...one, openings: one.openings.filter(({ id }) => !gone.has(id)) }))
        .filter(({ openings }) => openings.length > 0);
    }
  refuse(left.flatMap(({ openings }) => openings));
  return [...bodies];
}
