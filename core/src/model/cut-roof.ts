/** Cuts a roof: each plane by itself with what stands clear on it, joined to one body; then, from that, what runs over ridges, hips and eaves or was set out from above. */
import { faceLabel, type Element, type Units } from '@yard-arch/document';
import { planCut, type Plan } from '../cut/plan.ts';
import type { Skin } from '../cut/setting.ts';
import { faceLeft } from '../cut/solid-path.ts';
import { notCut, withFindings, type OpeningStatus } from '../cut/status.ts';
import type { RoofBody } from '../element/roof-sheets.ts';
import type { Sheet } from '../element/sheet.ts';
import { fault } from '../finding.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { regionArea } from '../mesh/region.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';
import { bodiedCut } from './bodied.ts';
import { asked, cutOpen, skinsOf, type ElementCut, type FaceCut, type Made } from './cut-element.ts';
import { roofMesh, trimMesh } from './roof-mesh.ts';
import { overChosen } from './over-chosen.ts';
import { planesUnder } from './planes-under.ts';
import { takenFrom } from './taken.ts';

interface Asked {
  element: Element;
  body: RoofBody;
  /** The roof as it is seen from above. */
  above: Sheet;
  resolved: readonly (Placed | Unplaced)[];
  recesses: readonly Placed[];
  units: Units;
  before: ElementCut | undefined;
}

/** Cuts a roof. @throws what the cut of a plane does for reasons of its own */
export function cutRoof({ element, body, above, resolved, recesses, units, before }: Asked): ElementCut {
  const start = performance.now();
  const { placed, open } = asked(resolved, recesses);
  const byId = new Map<string, OpeningStatus>();
  const skins = skinsOf(element, body.planes[0]!.sheet);
  const later: { sheet: Sheet; openings: Placed[] }[] = [];
  const meshes: CutMesh[][] = skins.map(() => []);
  const faces = body.planes.map(({ sheet, face }): FaceCut => {
    const here = open.filter((opening) => opening.face === face);
    const { crossing, clear, planned, plan } = sorted(sheet, here, units, byId);
    const known = before?.faces?.find((other) => other.face === face)?.skins ?? [];
    const made = skins.map((skin): Made =>
      cutOpen({ element, sheet: withSkin(sheet, skin), open: clear, plan, units, before: known }, byId),
    );
    made.forEach(({ mesh }, i) => meshes[i]!.push(mesh));
    // What meets so that the plane could not be divided by itself is taken out as solids too.
    for (const opening of clear) {
      if (!byId.get(opening.id)?.findings.some(({ code }) => code === 'not-divided')) continue;
      byId.set(opening.id, planned.get(opening.id)!);
      crossing.push(opening);
    }
    if (crossing.length > 0) later.push({ sheet, openings: crossing });
    const region = crossing.length > 0 ? faceLeft(sheet, here) : made[0]!.region;
    return { face, sheet, region, faceArea: regionArea(region), skins: made.flatMap((one) => one.skins) };
  });
  let bodies = skins.map((skin, i) => roofMesh(body, element, meshes[i]!, skin));
  const fromAbove = open.filter(({ face }) => face === undefined);
  const told = planCut(above, fromAbove, units);
  told.statuses.forEach((status, k) =>
    byId.set(status.opening, acrossPlanes(status, fromAbove[k]!, element, { body, above })),
  );
  const goes = fromAbove.flatMap((opening, k): Placed[] => {
    if (told.statuses[k]!.state === 'not cut') return [];
    const over = overChosen(opening, body, above);
    if (over) return [over];
    byId.set(
      opening.id,
      notCut(
        opening.id,
        fault(
          'off-element',
          'it lies over none of the planes that it is to cut',
          'Move it over them, or let it cut other planes.',
        ),
      ),
    );
    return [];
  });
  if (goes.length > 0) later.push({ sheet: above, openings: goes });
  for (const { sheet, openings } of later) {
    const fromAbove = sheet === above;
    // From above it is one cut through all layers.
    const through = fromAbove ? skins.map(() => ({ from: 0, to: above.thickness, whole: true })) : skins;
    bodies = takenFrom(bodies, [{ sheet, openings, skins: through }], {
      where: `the roof could not be divided where it ${fromAbove ? 'comes down through it' : 'runs over the plane’s edge'}`,
      byId,
    });
  }
  const { trims } = body;
  return bodiedCut({
    element,
    above,
    resolved,
    recesses,
    placed,
    solids: [...bodies, ...(trims ? [trimMesh(body, element.id, trims)] : [])],
    goes,
    byId,
    bySolids: later.length > 0,
    faces,
    start,
  });
}

const skinned = new WeakMap<Sheet, Map<string, Sheet>>();

/** A sheet of which one skin is to be cut; the same object for the same question. */
function withSkin(sheet: Sheet, skin: Skin): Sheet {
  let known = skinned.get(sheet);
  if (!known) skinned.set(sheet, (known = new Map()));
  const key = `${skin.from} ${skin.to} ${skin.whole}`;
  let made = known.get(key);
  if (!made) known.set(key, (made = { ...sheet, skin }));
  return made;
}

/** Openings on a plane, those that run over its edges told of and by themselves. */
function sorted(
  sheet: Sheet,
  here: readonly Placed[],
  units: Units,
  byId: Map<string, OpeningStatus>,
): {
  crossing: Placed[];
  clear: readonly Placed[];
  planned: ReadonlyMap<string, OpeningStatus>;
  /** How those that are clear are cut, where that is all of them. */
  plan: Plan | undefined;
} {
  const plan = planCut(sheet, here, units);
  const { grouping, statuses } = plan;
  const over = new Set(grouping.atEdge);
  for (const k of over) byId.set(here[k]!.id, statuses[k]!);
  const none = over.size === 0;
  return {
    crossing: here.filter((_, k) => over.has(k)),
    clear: none ? here : here.filter((_, k) => !over.has(k)),
    plan: none ? plan : undefined,
    planned: new Map(statuses.map((status) => [status.opening, status])),
  };
}

/** What was set out from above, and which planes it goes through. */
function acrossPlanes(
  status: OpeningStatus,
  opening: Placed,
  element: Element,
  { body, above }: { body: RoofBody; above: Sheet },
): OpeningStatus {
  if (status.state === 'not cut') return status;
  const labels = planesUnder(opening, body, above)
    .filter((face) => !opening.planes || opening.planes.includes(face))
    .map((face) => faceLabel(element, face));
  const listed = `${labels.slice(0, -1).join(', ')} and ${labels.at(-1)!}`;
  const { infill, parts } = opening.pattern;
  return withFindings(status, [
    ...(labels.length > 1 ? [{ code: 'cuts-planes', reason: `it cuts ${listed}`, mend: null } as const] : []),
    ...(infill || parts?.length
      ? [
          fault(
            'part-left-out',
            'what its pattern puts there is left out: through several planes it has no seat',
            'Set it out on one plane, or give it a pattern that only cuts.',
          ),
        ]
      : []),
  ]);
}
