/** Cuts one element: its sheet, its openings, its mesh, and what became of each opening. */
import type { Element, FaceName, Units } from '@yard-arch/document';
import { TooTangled } from '../mesh/arrangement.ts';
import { blockSolid, voidOf } from '../cut/block.ts';
import { reachOf } from '../cut/reach.ts';
import { Inexpressible } from '../cut/group.ts';
import { joinedByHair } from '../cut/touching.ts';
import { planCut, type Plan } from '../cut/plan.ts';
import { settingOf } from '../cut/setting.ts';
import { faceLeft, solidPath } from '../cut/solid-path.ts';
import { linesFor } from '../cut/grid.ts';
import { withoutNeedles } from '../cut/needles.ts';
import { AtFault, cutSkin, type Grouping, type Skin, type SkinCut } from '../cut/skin.ts';
import { notCut, type OpeningStatus, statusOf, withFindings } from '../cut/status.ts';
import { fault } from '../finding.ts';
import { upright } from '../element/chart.ts';
import { meshIn } from '../element/placed-mesh.ts';
import type { Sheet } from '../element/sheet.ts';
import type { PartInstance } from '../infill/part.ts';
import { turnedOver } from '../element/turned-over.ts';
import { archesOf } from '../element/arches.ts';
import { MeshBuilder, together } from '../mesh/builder.ts';
import { solidsMesh } from './roof-mesh.ts';
import { emptyMesh, type CutMesh } from '../mesh/cut-mesh.ts';
import { isClosed } from '../mesh/proof.ts';
import { smoothed } from '../mesh/smooth.ts';
import { piecesOf, regionArea, type Region } from '../mesh/region.ts';
import { NotTriangulable } from '../mesh/triangulation.ts';
import { profileArea } from '../profile/profile.ts';
import { BeyondCurve } from '../reveal/frame.ts';
import type { FaceLines } from '../reveal/placed.ts';
import { Collapsed } from '../reveal/corners.ts';
import { sideWords } from '../setout/sections.ts';
import { worded, type Placed, type Unplaced } from '../setout/placed.ts';
import { nanometre } from '../tolerances.ts';

/** An element as cut. */
export interface ElementCut {
  element: string;
  sheet: Sheet;
  /** Openings in their places, those not cut included. */
  placed: Placed[];
  /** What is left of the outer face, as it is developed there. */
  region: Region;
  mesh: CutMesh;
  /** What stands in and about its openings. */
  parts: readonly PartInstance[];
  statuses: OpeningStatus[];
  /** What became of what is taken out of it besides its openings. */
  taken: OpeningStatus[];
  /** Area of the face that is left, square metres. */
  faceArea: number;
  /** Into how many pieces the openings divide the element. */
  pieces: number;
  /** Which path cut it. */
  path: 'sheet' | 'solid';
  /** Why the element cannot be made, and what would mend it. */
  fault: Sheet['fault'];
  /** How long the cut took. */
  milliseconds: number;
  /** The skins as they were cut, for the next cut after an edit. */
  skins: SkinCut[];
  /** Of an element of many faces, each of them; what is said above is of it as it is seen from above then. */
  faces?: readonly FaceCut[];
}

/** One of many faces as cut. */
export interface FaceCut {
  face: FaceName;
  sheet: Sheet;
  region: Region;
  faceArea: number;
  skins: SkinCut[];
}

/** What a cut makes of a sheet. */
export interface Made {
  mesh: CutMesh;
  region: Region;
  skins: SkinCut[];
  path: 'sheet' | 'solid';
}

const noRegion: Region = { count: 0, xs: new Float64Array(0), ys: new Float64Array(0), next: new Uint32Array(0) };

/** What is asked of an element: its sheet, the openings that are told of, and what is taken out of it besides. */
export interface ElementAsked {
  element: Element;
  sheet: Sheet;
  resolved: readonly (Placed | Unplaced)[];
  /** Not told of. */
  recesses: readonly Placed[];
  units: Units;
}

/**
 * Cuts an element. Openings that are blocked up, or could not be placed, are reported and leave no trace in the mesh.
 * @param before the element as it was cut before an edit; what the edit does not touch is taken from there.
 */
export function cutElement(
  { element, sheet, resolved, recesses, units }: ElementAsked,
  before?: ElementCut,
): ElementCut {
  const start = performance.now();
  const { placed, open } = asked(resolved, recesses);
  const byId = new Map<string, OpeningStatus>();
  let made: Made;
  if (sheet.fault) {
    made = { mesh: emptyMesh(), region: noRegion, skins: [], path: 'sheet' };
    for (const { id } of open)
      byId.set(
        id,
        notCut(
          id,
          fault('element-faulty', `its ${sheet.noun} cannot be made: ${sheet.fault.reason}`, sheet.fault.mend),
        ),
      );
  } else
    made = standing(
      sheet,
      cutOpen({ element, sheet: uprightOf(sheet), open, units, before: before?.skins ?? [] }, byId),
    );
  const { arches } = sheet;
  if (arches && made.mesh.vertexCount > 0)
    made = { ...made, mesh: together(element.id, [made.mesh, solidsMesh(element.id, archesOf(sheet, arches))]) };
  if (element.smooth !== undefined) made = { ...made, mesh: smoothed(made.mesh, element.smooth) };
  return {
    element: element.id,
    sheet,
    placed,
    ...made,
    parts: [],
    statuses: toldOf(resolved, byId),
    taken: recesses.map(({ id }) => byId.get(id)!),
    faceArea: regionArea(made.region),
    pieces: piecesOf(made.region),
    fault: sheet.fault,
    milliseconds: performance.now() - start,
  };
}

/** What of an element's openings has a place, and what of that is to be cut, what is taken out besides among it. */
export function asked(
  resolved: readonly (Placed | Unplaced)[],
  recesses: readonly Placed[],
): { placed: Placed[]; open: Placed[] } {
  const placed = resolved.filter((opening): opening is Placed => 'outline' in opening);
  return { placed, open: [...placed.filter((opening) => !opening.blockedUp), ...recesses] };
}

/** What became of each opening: those without a place and those blocked up say so themselves. */
export const toldOf = (
  resolved: readonly (Placed | Unplaced)[],
  byId: ReadonlyMap<string, OpeningStatus>,
): OpeningStatus[] =>
  resolved.map((opening) => {
    if (!('outline' in opening))
      return notCut(opening.id, { code: opening.code, reason: opening.reason, mend: opening.mend });
    if (opening.blockedUp)
      return statusOf({ opening: opening.id, state: 'blocked up', area: profileArea(opening.profile) });
    return byId.get(opening.id)!;
  });

const uprights = new WeakMap<Sheet, Sheet>();

/** A sheet as it is cut: upright, whatever its frame; the same object for the same sheet. */
function uprightOf(sheet: Sheet): Sheet {
  const { chart } = sheet;
  if (chart.kind !== 'bent' || !chart.frame) return sheet;
  let known = uprights.get(sheet);
  if (!known) uprights.set(sheet, (known = { ...sheet, chart: upright(chart) }));
  return known;
}

/** What was cut upright, where the sheet's frame puts it. */
function standing({ chart }: Sheet, made: Made): Made {
  const frame = chart.kind === 'bent' ? chart.frame : undefined;
  return frame ? { ...made, mesh: meshIn(frame, made.mesh) } : made;
}

/** What of an element's openings is to be cut, and its skins as they were cut before. */
interface OpenAsked {
  element: Element;
  sheet: Sheet;
  open: readonly Placed[];
  /** How they are to be cut, where that is known. */
  plan?: Plan | undefined;
  units: Units;
  before: readonly SkinCut[];
}

/** Cuts what can be cut; whatever makes the cut fail is set aside, told of, and the rest cut without it. */
export function cutOpen(
  { element, sheet, open, plan: planned, units, before }: OpenAsked,
  byId: Map<string, OpeningStatus>,
): Made {
  const joined = joinedByHair(sheet, open);
  let left = joined.openings;
  for (;;) {
    const plan = planned && left === open ? planned : planCut(sheet, left, units);
    try {
      const made = skins({ element, sheet, open: left, grouping: plan.grouping, before });
      plan.statuses.forEach((status, k) =>
        byId.set(status.opening, toldMore(status, left[k]!, joined.to, { sheet, units })),
      );
      return made;
    } catch (raised) {
      let [error, members] = faultOf(raised);
      // What the plan refuses is refused by either path.
      const tried = expressible(error)
        ? null
        : bySolids(
            element,
            sheet,
            left.filter((_, k) => plan.statuses[k]!.state !== 'not cut'),
          );
      const solid = tried instanceof AtFault ? null : tried;
      // An opening that cannot be cut by either path is the one to be left out.
      if (tried instanceof AtFault) [error, members] = faultOf(tried);
      if (solid && solid.mesh.triangles.length === 0) {
        // Sections may leave nothing where profiles would have left something.
        const taking = new Set(left.filter(({ kind }) => kind === 'through').map(({ id }) => id));
        const blamed = taking.size > 0 ? taking : new Set(left.map(({ id }) => id));
        for (const id of blamed)
          byId.set(
            id,
            notCut(
              id,
              fault(
                'nothing-left',
                `with it nothing would be left of the ${sheet.noun}: together with its neighbours and its reveal it takes it all`,
                'Move it or narrow it, or block it up.',
              ),
            ),
          );
        left = left.filter(({ id }) => !blamed.has(id));
        continue;
      }
      if (solid) {
        plan.statuses.forEach((status, k) =>
          byId.set(status.opening, toldMore(status, left[k]!, joined.to, { sheet, units })),
        );
        return solid;
      }
      const refused = refusals(error, { sheet, open: left, members, grouping: plan.grouping, units });
      if (!refused) throw raised;
      for (const status of refused) byId.set(status.opening, status);
      const gone = new Set(refused.map((status) => status.opening));
      left = left.filter(({ id }) => !gone.has(id));
    }
  }
}

/** What went wrong, and with which openings where that is known. */
function faultOf(raised: unknown): [error: unknown, members: readonly Placed[] | null] {
  return raised instanceof AtFault ? [raised.cause, raised.openings] : [raised, null];
}

/** A status with what else there is to know of an opening that was cut. */
function toldMore(
  status: OpeningStatus,
  opening: Placed,
  to: ReadonlyMap<string, string | null>,
  { sheet, units }: { sheet: Sheet; units: Units },
): OpeningStatus {
  if (status.state === 'not cut') return status;
  const facing = opening.own === 'inner' ? turnedOver(sheet).sheet : sheet;
  const opens = opening.kind === 'niche' || opening.kind === 'niche to layer' ? cavityAt(facing, opening.depth) : null;
  const told = toldJoined(status, to, sheet);
  if (opens === null) return told;
  return withFindings(told, [
    {
      code: 'opens-cavity',
      reason: `it opens the cavity behind layer ${opens}, so that what is behind that shows at its back`,
      mend: `Let it end before the cavity, at less than ${worded(facing.boundaries[opens]!, units)}, or go on into the layer behind it.`,
    },
  ]);
}

/** The layer before the cavity in which, or at which, a depth ends; null where it ends in none. */
function cavityAt({ boundaries, layers }: Sheet, depth: number): number | null {
  const at = layers.findIndex(
    (layer, i) => layer.cavity && depth > boundaries[i]! - nanometre && depth < boundaries[i + 1]! - nanometre,
  );
  return at < 0 ? null : at;
}

/** A status that says that the opening was joined to what it touches. */
function toldJoined(status: OpeningStatus, to: ReadonlyMap<string, string | null>, { noun }: Sheet): OpeningStatus {
  const other = to.get(status.opening);
  if (other === undefined) return status;
  const what = other === null ? `the ${noun}’s edge` : 'another opening';
  return withFindings(status, [
    {
      code: 'hair-joined',
      reason: `it touches ${what} in no more than a point, and is joined to it by a hair (0.1 mm)`,
      mend: `Move it away from ${other === null ? 'the edge' : 'it'}, or let them overlap, if that is not what you want.`,
    },
  ]);
}

/** What of an element's skins is to be cut, and how openings come together; and as they were cut before. */
interface SkinsAsked {
  element: Element;
  sheet: Sheet;
  open: readonly Placed[];
  grouping: Grouping;
  before: readonly SkinCut[];
}

/** Cuts the skins. In quads a row or column that passes close by a corner leaves needles: it is left out then, and they are cut again. */
function skins(asked: SkinsAsked): Made {
  const { element, sheet, open } = asked;
  if (element.mesh !== 'quads' || sheet.rim) return skinsOn(null, asked);
  let lines = linesFor(sheet, open);
  for (let round = 0; ; round++) {
    const made = skinsOn(lines, asked);
    const fewer = round < 4 ? withoutNeedles(lines, made.mesh, sheet) : lines;
    if (fewer === lines) return made;
    lines = fewer;
  }
}

function skinsOn(lines: FaceLines | null, { element, sheet, open, grouping, before }: SkinsAsked): Made {
  const builder = new MeshBuilder(sheet.element);
  const all = skinsOf(element, sheet);
  const cut: SkinCut[] = [];
  const blocks = element.skins === 'layers' ? open.filter((opening) => reachOf(opening, sheet) > 0) : [];
  for (const skin of all) {
    const known = before.find(
      (other) => other.skin.from === skin.from && other.skin.to === skin.to && other.skin.whole === skin.whole,
    );
    const here =
      blocks.length === 0
        ? open
        : open.map((opening) => (reachOf(opening, sheet) > skin.from + nanometre ? voidOf(opening, sheet) : opening));
    cut.push(cutSkin(builder, { sheet, openings: here, grouping, skin, lines }, known));
  }
  const taken = new Set([...grouping.singles, ...grouping.groups.flat(), ...grouping.atEdge].map((k) => open[k]!));
  for (const block of blocks)
    if (taken.has(block) && !sheet.skin?.from) {
      try {
        builder.add(blockSolid(block, sheet));
      } catch (error) {
        throw new AtFault([block], error);
      }
    }
  const mesh = builder.finish();
  for (const skin of cut) skin.mesh = mesh;
  return { mesh, region: cut[0]?.outer.region ?? noRegion, skins: cut, path: 'sheet' };
}

/** The skins of an element's sheet: one, or one for each layer. */
export function skinsOf(element: Pick<Element, 'skins'>, sheet: Sheet): Skin[] {
  if (sheet.skin) return [sheet.skin];
  if (element.skins !== 'layers') return [{ from: 0, to: sheet.thickness, whole: true }];
  return sheet.layers.flatMap((layer, i) =>
    layer.cavity ? [] : [{ from: sheet.boundaries[i]!, to: sheet.boundaries[i + 1]!, whole: false }],
  );
}

/** Whether a failure is none of the sheet path's alone: the solid path would fail too. */
function expressible(error: unknown): boolean {
  return !(error instanceof Inexpressible || error instanceof NotTriangulable || error instanceof Collapsed);
}

/** The same cut by the solid path, or null where that is not to be had or fails too; the fault, where it is a single opening's. */
function bySolids(element: Element, sheet: Sheet, open: readonly Placed[]): Made | AtFault | null {
  const path = solidPath();
  // What others go on from is no solid by itself.
  if (
    !path ||
    sheet.rim ||
    open.some((opening) => opening.kind === 'imprint' || (element.skins === 'layers' && reachOf(opening, sheet) > 0))
  )
    return null;
  try {
    const builder = new MeshBuilder(sheet.element);
    for (const skin of skinsOf(element, sheet)) {
      const plain = new MeshBuilder(sheet.element);
      const grouping = { singles: [], groups: [], atEdge: [] };
      cutSkin(plain, { sheet, openings: [], grouping, skin, lines: null });
      const mesh = path(plain.finish(), settingOf(sheet, skin, null), open);
      builder.add(mesh);
    }
    const mesh = builder.finish();
    // Never a broken mesh without a word.
    if (!isClosed(mesh)) return null;
    return { mesh, region: faceLeft(sheet, open), skins: [], path: 'solid' };
  } catch (error) {
    return error instanceof AtFault ? error : null;
  }
}

/** What was being cut when it failed: all that was open, and those at which it failed, where that is known. */
interface Blamed {
  sheet: Sheet;
  open: readonly Placed[];
  members: readonly Placed[] | null;
  grouping: Grouping;
  units: Units;
}

/** Which openings a failure is to be laid to, each with its reason; null where it is none of theirs. */
function refusals(error: unknown, { sheet, open, members, grouping, units }: Blamed): OpeningStatus[] | null {
  if (open.length === 0) return null;
  if (error instanceof Collapsed) {
    const { operand, side } = error.edge;
    const one = members?.[operand - 1];
    const blamed = one ? [one] : (members ?? open);
    // The solid path's cutters begin before the face.
    const at = worded(blamed[0]?.kind === 'boss' ? Math.abs(error.depth) : Math.max(0, error.depth), units);
    if (error.how === 'crossed')
      return blamed.map(({ id }) =>
        notCut(
          id,
          fault(
            'eaten-up',
            `its ${side ? sideWords[side] : 'edge'} would cross another of its sides at a depth of ${at}`,
            'Give its sides smaller or like sections, or give it a larger size.',
          ),
        ),
      );
    return blamed.map(({ id }) =>
      notCut(
        id,
        fault(
          'eaten-up',
          `its ${side ? sideWords[side] : 'edge'} would be eaten up at a depth of ${at}: its section asks for more than the outline has there`,
          'Give it a smaller splay, check or arris, or a larger size.',
        ),
      ),
    );
  }
  if (error instanceof BeyondCurve)
    return widest(members ?? open).map(({ id }) =>
      notCut(
        id,
        fault(
          'beyond-curve',
          `it reaches so far round the curve that it no longer looks at the ${sheet.noun}`,
          'Make it narrower, let its jambs be radial, or give the curve a larger radius.',
        ),
      ),
    );
  if (error instanceof Inexpressible || error instanceof TooTangled || error instanceof NotTriangulable) {
    const blamed =
      error instanceof NotTriangulable ? open : [...grouping.groups.flat(), ...grouping.atEdge].map((k) => open[k]!);
    const list = members?.length ? members : blamed.length > 0 ? blamed : open;
    return list.map(({ id }) =>
      notCut(
        id,
        fault(
          'not-divided',
          `the ${sheet.noun}’s face could not be divided where it meets others`,
          'Move the openings that nearly touch apart, or onto each other.',
        ),
      ),
    );
  }
  return null;
}

/** The widest of some openings, and those as wide. */
function widest(open: readonly Placed[]): Placed[] {
  const most = Math.max(...open.map(({ profile }) => profile.width));
  return open.filter(({ profile }) => profile.width > most - nanometre);
}
