/** The report of a check: for each element whether it is sound, how much it is, and what became of each of its openings. */
import { patternMeshes, type ProjectDocument } from '@yard-arch/document';
import type { Finding, Told } from '../finding.ts';
import { findingsOf, notClosed } from './findings.ts';
import type { OpeningStatus, State } from '../cut/status.ts';
import type { PartMesh } from '../infill/part.ts';
import type { ElementCut } from '../model/cut-element.ts';
import type { Model } from '../model/model.ts';
import { asWritten, writtenError } from '../format/local.ts';
import { mirroredIn, openEdgesByLayer, prove } from '../mesh/proof.ts';
import type { CutMesh, Role, Run } from '../mesh/cut-mesh.ts';

export interface OpeningReport {
  id: string;
  mark: string;
  state: State;
  reason: string | null;
  mend: string | null;
  unitedWith: string[];
  /** Area that it takes from the face, square metres. */
  area: number;
  /** What became of it in the further elements that it is to cut. */
  further?: OpeningStatus['further'];
}

/** What stands in and about an element's openings, of one kind. */
export interface PartReport {
  count: number;
  meshes: number;
  closed: boolean;
  /** Cubic metres, of all. */
  volume: number;
  /** As of an element, of any mesh the most. */
  astrayNormals: number;
  textureDensity: [number, number];
}

export interface ElementReport {
  id: string;
  name: string;
  closed: boolean;
  openEdges: number;
  nonManifoldEdges: number;
  collapsedTriangles: number;
  /** Where layers are solids of their own: edges at which any of them is open by itself. */
  openEdgesInLayers: number;
  /** Edges at which two triangles lie on each other: skins of no thickness. */
  flaps: number;
  /** Area that is shaded as what it is not, its normals looking elsewhere, square metres. */
  astrayNormals: number;
  /** Triangles with their texture the wrong way round where it was not asked to be. */
  mirroredTriangles: number;
  pieces: number;
  /** Cubic metres. */
  volume: number;
  /** Square metres. */
  area: number;
  areaByRole: Partial<Record<Role, number>>;
  areaByMaterial: Record<string, number>;
  /** How far any point lies from where a reader of the exported files has it, metres: they hold 32-bit figures. */
  writtenError: number;
  triangles: number;
  /** How many polygons have so many sides. */
  polygonsBySides: Record<number, number>;
  /** Least height of any triangle over its longest side, metres. */
  worstTriangle: number;
  /** Least and greatest length of texture on a metre of surface. */
  textureDensity: [number, number];
  /** The same on what bends both ways, where no flat picture lies without stretching. */
  textureOnDoubleCurves: [number, number];
  /** Which path cut it: `sheet`, or `solid` for what the sheet path cannot express. */
  path: 'sheet' | 'solid';
  milliseconds: number;
  /** Why the element cannot be made, and what would mend it. */
  fault: Told | null;
  /** What stands in and about its openings: parts of each kind, and of how many meshes they are. */
  parts: Record<string, PartReport>;
  openings: OpeningReport[];
}

export interface CheckReport {
  project: string;
  /** Whether every element is closed, without flaps, its texture at true scale and the right way round, and every opening is cut, or blocked up on purpose. */
  sound: boolean;
  elements: ElementReport[];
  /** Openings that belong to no element. */
  astray: OpeningReport[];
  /** All that was found, faults and notes, each with its code and what it is about. */
  findings: Finding[];
}

/** So much may be shaded as what it is not, square metres: ten square millimetres, as needles have. */
const noNormals = 1e-5;
/** How far texture may depart from true scale: by a hundredth. */
const trueScale = [0.99, 1.01] as const;
/** And where a surface bends both ways, so that it cannot lie there otherwise: by a fifth. */
const asNear = [0.8, 1.2] as const;

function isSound({
  closed,
  parts,
  fault,
  flaps,
  openEdgesInLayers,
  astrayNormals,
  mirroredTriangles,
  textureDensity: [least, greatest],
  textureOnDoubleCurves: [leastBent, greatestBent],
}: ElementReport): boolean {
  return (
    closed &&
    Object.values(parts).every(isPartSound) &&
    !fault &&
    flaps === 0 &&
    openEdgesInLayers === 0 &&
    astrayNormals < noNormals &&
    mirroredTriangles === 0 &&
    least >= trueScale[0] &&
    greatest <= trueScale[1] &&
    leastBent >= asNear[0] &&
    greatestBent <= asNear[1]
  );
}

function isPartSound({ closed, astrayNormals, textureDensity: [least, greatest] }: PartReport): boolean {
  return closed && astrayNormals < noNormals && least >= trueScale[0] && greatest <= trueScale[1];
}

/** Whether the texture of a run is to be mirrored. */
function asksMirrored(document: ProjectDocument, element: string, { opening, role }: Run): boolean {
  const { texture } = document.elements[element]!;
  if (opening === null)
    return (
      (role === 'outer face' ? texture?.outer : role === 'inner face' ? texture?.inner : texture?.edge)?.mirror === true
    );
  const pattern = document.patterns[document.openings[opening]?.pattern ?? ''];
  return pattern?.texture?.[role as 'head']?.mirror === true || texture?.outer?.mirror === true;
}

/** A mesh without the faces that stand alone in it, such as panes of a single sheet: the rest is to be closed. */
function withoutSheets(mesh: CutMesh): CutMesh {
  if (mesh.runs.every(({ role }) => role !== 'sheet')) return mesh;
  const runs = mesh.runs.filter(({ role }) => role !== 'sheet');
  return {
    ...mesh,
    runs: [],
    triangles: Uint32Array.from(
      runs.flatMap(({ first, count }) => [...mesh.triangles.subarray(3 * first, 3 * (first + count))]),
    ),
    polygonStart: new Uint32Array(1),
    polygonCorners: new Uint32Array(0),
  };
}

const nonePart = (): PartReport => ({
  count: 0,
  meshes: 0,
  closed: true,
  volume: 0,
  astrayNormals: 0,
  textureDensity: [1, 1],
});

function partsIn(document: ProjectDocument, { parts }: ElementCut): ElementReport['parts'] {
  const fromOutside = (opening: string): boolean =>
    [...patternMeshes(document.patterns[document.openings[opening]!.pattern]!)].length > 0;
  const found: ElementReport['parts'] = {};
  const proofs = new Map<PartMesh, ReturnType<typeof prove>>();
  for (const { part, opening } of parts) {
    const of = (found[part.name] ??= nonePart());
    let proof = proofs.get(part);
    if (!proof) {
      proofs.set(part, (proof = prove(withoutSheets(part.mesh))));
      of.meshes += 1;
      of.closed &&= proof.closed;
      of.astrayNormals = Math.max(of.astrayNormals, proof.astrayNormals);
      // A mesh from outside has its texture as it was given.
      if (!fromOutside(opening)) {
        const [least, greatest] = of.textureDensity;
        of.textureDensity = [Math.min(least, proof.density[0]), Math.max(greatest, proof.density[1])];
      }
    }
    of.count += 1;
    of.volume += proof.volume;
  }
  return found;
}

/** Reports on a document as cut. */
export function reportOn(document: ProjectDocument, model: Model): CheckReport {
  const told = (id: string): OpeningReport => {
    const { state, reason, mend, unitedWith, area, further } = model.statuses.get(id)!;
    return {
      id,
      mark: document.openings[id]!.mark,
      state,
      reason,
      mend,
      unitedWith,
      area,
      ...(further ? { further } : {}),
    };
  };
  const elements = [...model.cuts.values()].map((cut): ElementReport => {
    const proof = prove(cut.mesh);
    // What is measured on small things is measured as it is written.
    const written = prove(asWritten(cut.mesh));
    return {
      id: cut.element,
      name: document.elements[cut.element]!.name,
      closed: proof.closed,
      openEdges: proof.openEdges,
      nonManifoldEdges: proof.nonManifoldEdges,
      collapsedTriangles: proof.collapsed,
      openEdgesInLayers: document.elements[cut.element]!.skins === 'layers' ? openEdgesByLayer(cut.mesh) : 0,
      flaps: proof.flaps,
      astrayNormals: written.astrayNormals,
      mirroredTriangles: mirroredIn(cut.mesh, (run) => !asksMirrored(document, cut.element, run)),
      pieces: cut.pieces,
      volume: proof.volume,
      area: proof.area,
      areaByRole: proof.areaByRole,
      areaByMaterial: proof.areaByMaterial,
      triangles: proof.triangles,
      polygonsBySides: proof.polygonsBySides,
      worstTriangle: written.thinnest,
      textureDensity: written.density,
      textureOnDoubleCurves: written.densityOnBent,
      writtenError: writtenError(cut.mesh),
      path: cut.path,
      milliseconds: Math.round(cut.milliseconds * 100) / 100,
      fault: cut.fault,
      parts: partsIn(document, cut),
      openings: cut.statuses
        .filter((status) => document.openings[status.opening]!.element === cut.element)
        .map((status) => told(status.opening)),
    };
  });
  const astray = Object.values(document.openings)
    .filter((opening) => !model.cuts.has(opening.element))
    .map((opening) => told(opening.id));
  const sound =
    astray.length === 0 &&
    elements.every((element) => isSound(element) && element.openings.every((opening) => opening.state !== 'not cut'));
  const open = elements
    .filter(({ closed }) => !closed)
    .map(({ id, openEdges, nonManifoldEdges }): Finding => ({
      ...notClosed(openEdges + nonManifoldEdges),
      subject: { table: 'elements', id },
    }));
  const found = findingsOf(document, {
    statuses: model.statuses,
    faultOf: (id) => model.cuts.get(id)?.fault ?? null,
  });
  return { project: document.name, sound, elements, astray, findings: [...open, ...found] };
}
