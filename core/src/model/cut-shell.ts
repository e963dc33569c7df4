/** Cuts a shell: its body, less what is set out on it as seen from above: through a dome square to its back where it stands, or straight down where its pattern says plumb; straight down through a bay, or square to its back where its pattern says so. */
import type { Element, Units } from '@yard-arch/document';
import { planCut } from '../cut/plan.ts';
import type { Skin } from '../cut/setting.ts';
import { withFindings, type OpeningStatus } from '../cut/status.ts';
import type { ShellBody } from '../element/shell-sheets.ts';
import type { Sheet } from '../element/sheet.ts';
import { fault } from '../finding.ts';
import { outlineArea } from '../profile/flatten.ts';
import { squareSections } from '../profile/section.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';
import { goesSquare, isTurned, liesOn, seenFromAbove } from '../setout/shell-seat.ts';
import type { Vector } from '../vector.ts';
import { bodiedCut } from './bodied.ts';
import { asked, type ElementCut } from './cut-element.ts';
import { carriedMesh, shellMesh } from './shell-mesh.ts';
import { takenFrom } from './taken.ts';

interface Asked {
  element: Element;
  body: ShellBody;
  above: Sheet;
  resolved: readonly (Placed | Unplaced)[];
  recesses: readonly Placed[];
  units: Units;
}

export function cutShell({ element, body, above, resolved, recesses, units }: Asked): ElementCut {
  const start = performance.now();
  const { placed, open } = asked(resolved, recesses);
  const byId = new Map<string, OpeningStatus>();
  const seen = open.map((one) => seenFromAbove(element, body, one));
  const { statuses } = planCut(above, seen, units);
  statuses.forEach((seenAs, k) => {
    const status = { ...seenAs, area: seenAs.area && outlineArea(open[k]!.outline) };
    byId.set(status.opening, seatOn(element, body, above, open[k]!) ? status : withoutParts(status, open[k]!));
  });
  const goes = open.filter((_, k) => statuses[k]!.state !== 'not cut');
  let bodies = skinsOf(element, body).map((skin) => shellMesh(body, element.id, element.layers, skin));
  const sheets = takings(element, body, above, goes).map(({ sheet, openings }) => ({
    sheet,
    openings,
    skins: bodies.map(() => ({ from: 0, to: sheet.thickness, whole: true })),
  }));
  bodies = takenFrom(bodies, sheets, { where: `the ${above.noun} could not be divided where it goes through`, byId });
  const solids = [...bodies, ...(body.shell.carried.length > 0 ? [carriedMesh(body, element.id)] : [])];
  return bodiedCut({
    element,
    above,
    resolved,
    recesses,
    placed,
    solids,
    goes: seen.filter((_, k) => statuses[k]!.state !== 'not cut'),
    byId,
    bySolids: goes.length > 0,
    start,
  });
}

/** The skins of a shell: one, or one for each layer. */
function skinsOf({ skins, layers }: Element, { boundaries }: ShellBody): Skin[] {
  if (skins !== 'layers') return [{ from: 0, to: boundaries.at(-1)!, whole: true }];
  return layers.flatMap((layer, i) =>
    layer.cavity ? [] : [{ from: boundaries[i]!, to: boundaries[i + 1]!, whole: false }],
  );
}

/** What a pattern puts into its openings has no seat in a shell; that is told. */
function withoutParts(status: OpeningStatus, { pattern: { infill, parts } }: Placed): OpeningStatus {
  if (status.state === 'not cut' || !(infill || parts?.length)) return status;
  return withFindings(status, [
    fault(
      'part-left-out',
      'what its pattern puts there is left out: set out from above it has no seat',
      'Give it a pattern that only cuts.',
    ),
  ]);
}

/** What goes straight down, all at once; and what goes in square to the back, each on a sheet of its own. */
function takings(
  element: Element,
  body: ShellBody,
  above: Sheet,
  goes: readonly Placed[],
): { sheet: Sheet; openings: readonly Placed[] }[] {
  const square = goes.flatMap((one) =>
    goesSquare(element, one) ? (squareTo(body, above, one, isTurned(element)) ?? []) : [],
  );
  const ids = new Set(square.map(({ openings }) => openings[0]!.id));
  const down = goes.filter(({ id }) => !ids.has(id));
  return [...square, ...(down.length > 0 ? [{ sheet: above, openings: down }] : [])];
}

/** Where what stands in an opening of a shell is put: on a sheet that lies on the back there, through all of its layers. Null of one that goes straight down, which has no seat. */
export function seatOn(
  element: Element,
  body: ShellBody,
  above: Sheet,
  placed: Placed,
): { sheet: Sheet; placed: Placed } | null {
  const square = goesSquare(element, placed) ? squareTo(body, above, placed, isTurned(element)) : null;
  if (!square || square.sheet.chart.kind !== 'flat') return null;
  const { origin, inward } = square.sheet.chart;
  const thickness = body.boundaries.at(-1)!;
  const sheet: Sheet = {
    ...square.sheet,
    chart: {
      ...square.sheet.chart,
      origin: [0, 1, 2].map((k) => origin[k]! + beyond * inward[k]!) as unknown as Vector,
    },
    boundaries: body.boundaries,
    layers: element.layers,
    thickness,
  };
  return { sheet, placed: { ...placed, depth: thickness, sections: squareSections(thickness) } };
}

/** How far beyond both faces a cutter reaches, metres. */
const beyond = 0.03;

/** An opening on a sheet of its own that lies on the back of a shell where its middle is, level and square to it; null where it is beside the back, or at the very top. */
function squareTo(
  body: ShellBody,
  above: Sheet,
  placed: Placed,
  isRound: boolean,
): { sheet: Sheet; openings: readonly Placed[] } | null {
  const lies = liesOn(body, placed);
  if (!lies) return null;
  const { boundaries } = body;
  const { profile } = placed;
  const { at: middle, along, up, normal, place } = lies;
  const [x, y] = place;
  const half = Math.hypot(profile.width, profile.height) / 2;
  const radius = isRound ? Math.max(half, Math.hypot(x, y)) : half;
  // By so much the back falls away from a plane on it, at most, before the opening's edge.
  const drop = Math.min(half, radius - Math.sqrt(Math.max(0, radius * radius - half * half)));
  const deep = boundaries.at(-1)! + drop + 2 * beyond;
  const [px, py, pz] = middle;
  const at = (s: number, t: number): Vector => [
    px + beyond * normal[0] - s * along[0] - t * up[0],
    py + beyond * normal[1] - s * along[1] - t * up[1],
    pz + beyond * normal[2] - s * along[2] - t * up[2],
  ];
  const sheet: Sheet = {
    ...above,
    chart: {
      kind: 'flat',
      origin: at(placed.s + profile.width / 2, placed.t + profile.height / 2) as [number, number, number],
      along,
      up,
      inward: [0 - normal[0], 0 - normal[1], 0 - normal[2]],
    },
    boundaries: Float64Array.of(0, deep),
    thickness: deep,
  };
  return { sheet, openings: [{ ...placed, depth: deep, sections: squareSections(deep) }] };
}
