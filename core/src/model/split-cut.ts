/** Splits an element that has been cut: its mesh, what is left of its faces, and which of its openings stay with it. */
import type { Element, FaceName, Split } from '@yard-arch/document';
import { notCut, withFindings, type OpeningStatus } from '../cut/status.ts';
import type { Sheet } from '../element/sheet.ts';
import { curtainOf, splitInSpace, splitSide } from '../element/splits.ts';
import { fault, type Fault } from '../finding.ts';
import { emptyMesh, type CutMesh } from '../mesh/cut-mesh.ts';
import type { Curtain } from '../mesh/curtain.ts';
import { partedClosed } from '../mesh/parted.ts';
import { piecesOf, regionArea } from '../mesh/region.ts';
import type { Placed } from '../setout/placed.ts';
import type { ElementCut } from './cut-element.ts';
import { regionIn } from './face-kept.ts';

interface Splitting {
  element: Element;
  /** The same element cut with each layer a solid of its own, where its layers are to be seen. */
  layered: () => CutMesh;
  /** The sheet of one of its faces. */
  sheetOf: (face: FaceName | undefined) => Sheet;
}

/** An element that was cut, split as it says. Where it cannot be, it stands unsplit, and says so. */
export function splitCut(cut: ElementCut, { element, layered, sheetOf }: Splitting): ElementCut {
  const { splits } = element;
  if (!splits?.length || cut.fault) return cut;
  let mesh: CutMesh | null = cut.mesh;
  let apart: CutMesh | null =
    element.layers.length > 1 && element.skins !== 'layers' && splits.some(({ material }) => !material)
      ? layered()
      : null;
  const kept: Curtain[] = [];
  for (const split of splits) {
    const made: HalfCut | Fault = splitBy(mesh!, apart, splitInSpace(split, element), element);
    if ('code' in made) return { ...cut, fault: made };
    if (!made.mesh)
      return {
        ...cut,
        ...gone(cut),
        fault: fault(
          'split-away',
          'its splits leave nothing of it',
          'Keep the other side of one of them, move it, or take it away.',
        ),
      };
    mesh = made.mesh;
    apart = made.apart;
    kept.push(made.curtain);
  }
  const [told, taken] = [cut.statuses, cut.taken].map((statuses) =>
    statuses.map((status) => ofSide(status, cut.placed, kept, sheetOf)),
  );
  return { ...cut, ...faced(cut, mesh!), mesh: mesh!, statuses: told!, taken: taken! };
}

/** What one split leaves. */
interface HalfCut {
  mesh: CutMesh | null;
  /** The same in solids of its layers. */
  apart: CutMesh | null;
  curtain: Curtain;
}

/** One split. */
function splitBy(mesh: CutMesh, apart: CutMesh | null, split: Split, { layers, skins }: Element): HalfCut | Fault {
  const closing = {
    material: split.material,
    materialOf: (layer: number): string => layers[layer]?.material ?? layers[0]!.material,
    apart: skins === 'layers',
  };
  // Along an edge of what it splits it goes a hair beside it.
  for (const aside of [0, 1, -1]) {
    const curtain = curtainOf(split, aside);
    if (!curtain)
      return fault(
        'not-split',
        'the path that it is split along crosses itself, or would where it goes on beyond its ends',
        'Draw the path so that it, and its ends drawn out straight, never cross.',
      );
    const made = partedClosed(mesh, curtain, { ...closing, layered: apart ?? undefined });
    if (!made) continue;
    const layersToo = apart && partedClosed(apart, curtain, { ...closing, apart: true });
    return { mesh: made.mesh, apart: layersToo?.mesh ?? null, curtain };
  }
  return fault(
    'not-split',
    'it cannot be closed where it is split: an edge of it lies in the very plane',
    'Move the split by a millimetre.',
  );
}

/** What is left where nothing is. */
function gone(cut: ElementCut): Partial<ElementCut> {
  const mesh = emptyMesh();
  return { mesh, ...faced(cut, mesh), statuses: cut.statuses.map(({ opening }) => partedOff(opening)) };
}

/** What of the faces is left in a mesh. */
function faced(
  cut: ElementCut,
  mesh: CutMesh,
): Pick<ElementCut, 'region' | 'faceArea' | 'pieces'> & Partial<ElementCut> {
  const region = regionIn(mesh, cut.sheet.chart, ({ role }) => role === 'outer face');
  const faces = cut.faces?.map((one) => {
    const own = regionIn(mesh, one.sheet.chart, ({ role, face }) => role === 'outer face' && face === one.face);
    return { ...one, region: own, faceArea: regionArea(own) };
  });
  return {
    region,
    pieces: piecesOf(region),
    faceArea: faces ? faces.reduce((sum, face) => sum + face.faceArea, 0) : regionArea(region),
    ...(faces ? { faces } : {}),
  };
}

const partedOff = (opening: string): OpeningStatus =>
  notCut(
    opening,
    fault(
      'parted-off',
      'it lies in what was split off',
      'Move it to the side that is kept, or take the split from its element.',
    ),
  );

/** What became of an opening: those that were split off are not cut, those that lie across a split say so. */
function ofSide(
  status: OpeningStatus,
  placed: readonly Placed[],
  kept: readonly Curtain[],
  sheetOf: Splitting['sheetOf'],
): OpeningStatus {
  const own = placed.find(({ id }) => id === status.opening);
  if (!own || status.state === 'not cut' || status.state === 'blocked up') return status;
  const side = splitSide(own, sheetOf(own.face), kept);
  if (side === 'kept') return status;
  if (side === 'off') return partedOff(status.opening);
  return withFindings(status, [
    {
      code: 'across-split',
      reason: 'it lies across a split: what is left of it was cut, and nothing stands in it',
      mend: null,
    },
  ]);
}
