/** The cutting worker: keeps the document, cuts what an edit touches, and proves it when there is time. */
import {
  creasesOf,
  cutInSteps,
  innerRegion,
  isMeshKnown,
  learnMesh,
  originOf,
  prove,
  type CutMesh,
  type ElementCut,
  type MeshProof,
  type Model,
  type OpeningStatus,
  type PartMesh,
  type Region,
  type State,
  type Step,
} from '@yard-arch/core';
import wasm from 'manifold-3d/manifold.wasm?url';
import { sameValue, withChanges, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import type { DrawnElement, DrawnPart, FromWorker, NewStatuses, ToWorker } from './cut-messages.ts';
import { drawnInstances, drawnPart } from './drawn-parts.ts';
import { drawnRunsOf } from './drawn-runs.ts';

/** Meshes of parts that the page has been told of, by their keys. */
const toldParts = new Set<string>();

const scope = self as unknown as {
  name: string;
  postMessage(message: FromWorker, transfer?: Transferable[]): void;
  onmessage: (event: MessageEvent<ToWorker>) => void;
};

let document: ProjectDocument | null = null;
/** The revision of the document where it was read ahead of the page, until the page has sent its own. */
let readRevision: number | null = null;
let preview: ChangeSet | null = null;
let model: Model | undefined;
let number = 0;
let due = false;
/** When anything was shown for the first time; 0 before. */
let shown = 0;
/** Whether creases are told with the rest. */
let creased = false;
let proving: ReturnType<typeof setTimeout> | undefined;
const proofs = new WeakMap<ElementCut, MeshProof>();
const told = new Map<string, ElementCut>();
const toldStatuses = new Map<string, OpeningStatus>();

let fetching = false;

/** Fetches the solid path; what could not be cut without it is cut when it has come. */
function fetchSolidPath(): void {
  if (fetching) return;
  fetching = true;
  import('@yard-arch/core/solid')
    .then(({ solidLibrary }) => solidLibrary(wasm))
    .then(
      () => {
        if (!anyUncut()) return;
        model = undefined;
        if (!due) setTimeout(cut, 0);
        due = true;
      },
      () => {
        // Without it only what the sheet path cannot express stays uncut, and says so.
      },
    );
}

const asked = new Set<string>();

/** Fetches the meshes that a document names; what lacks one is made once it has come. */
function fetchMeshes({ meshes }: ProjectDocument): void {
  for (const { sha256 } of Object.values(meshes)) {
    if (isMeshKnown(sha256) || asked.has(sha256)) continue;
    asked.add(sha256);
    void fetch(`/api/assets/${sha256}`)
      .then(async (response) => {
        if (!response.ok) return;
        learnMesh(sha256, new Uint8Array(await response.arrayBuffer()));
        model = undefined;
        if (!due) setTimeout(cut, 0);
        due = true;
      })
      // It is asked for again with the next cut: the network may be back by then.
      .catch(() => void asked.delete(sha256));
  }
}

function anyUncut(): boolean {
  return model !== undefined && [...model.statuses.values()].some((status) => status.state === 'not cut');
}

// Its name is where the document is read, where the page has not got it yet.
if (scope.name) void readAhead(scope.name);

scope.onmessage = ({ data }) => {
  number = data.number;
  if (data.kind === 'drawn') {
    tellCreases();
    // Proofs that were told meanwhile are of a number that is no longer the last.
    return proveSoon();
  }
  if (data.kind === 'document') {
    const stands = document !== null && data.revision !== null && data.revision === readRevision;
    readRevision = null;
    // What was read ahead stands, and with it all that is cut of it.
    if (stands) return proveSoon();
    document = data.document;
    preview = null;
  } else if (data.kind === 'apply') {
    // The page has applied it, and so checked it.
    if (document) document = withChanges(document, data.changeSet.changes);
    preview = null;
  } else preview = data.changeSet;
  // Whatever else has come in by now is taken in before anything is cut.
  if (!due) setTimeout(cut, 0);
  due = true;
};

/** Reads the document before the page has it to send. */
async function readAhead(url: string): Promise<void> {
  try {
    const response = await fetch(url);
    if (!response.ok) return;
    const read = (await response.json()) as { revision: number; document: ProjectDocument };
    if (document) return;
    document = read.document;
    readRevision = read.revision;
    if (!due) setTimeout(cut, 0);
    due = true;
  } catch {
    // The page reads it too, and says what is wrong.
  }
}

function cut(): void {
  due = false;
  if (!document) return;
  fetchMeshes(document);
  try {
    model = cutAndTell(preview ? withChanges(document, preview.changes) : document);
  } catch (error) {
    scope.postMessage({ kind: 'failed', number, message: (error as Error).message });
    return;
  }
  // Only what the sheet path left wants the solid path at once; else it is fetched when the page has drawn what there is.
  if (anyUncut()) fetchSolidPath();
  else if (shown === 0) setTimeout(fetchSolidPath, 1500);
  shown ||= performance.now();
  proveSoon();
}

/** How long what is cut is held back at most, where the page has nothing yet, ms: each telling has it draw all that it has. */
const heldBack = 500;

/** Cuts, and tells the page: of a project that it has nothing of yet bit by bit, so that the first walls stand while the others are cut. */
function cutAndTell(draft: ProjectDocument): Model {
  const first = told.size === 0;
  const start = performance.now();
  let last = -Infinity;
  let since: Step[] = [];
  const steps = cutInSteps(draft, model);
  for (;;) {
    const { done, value } = steps.next();
    const now = performance.now();
    if (done) {
      tell(value.cuts.values(), { ...newStatuses(value.statuses), removed: removedFrom(value), took: now - start });
      return value;
    }
    since.push(value);
    if (!first || value.done === value.of || now - last < heldBack) continue;
    const statuses = since.flatMap((step) => step.statuses);
    tell(
      since.map((step) => step.cut),
      { changed: changedOf(statuses), gone: [], removed: [], took: now - start },
    );
    [since, last] = [[], now];
  }
}

/** Elements that the page was told of and that are no more. */
function removedFrom({ cuts }: Model): string[] {
  const removed = [...told.keys()].filter((id) => !cuts.has(id));
  for (const id of removed) told.delete(id);
  return removed;
}

/** Tells the page of cuts, those that it knows left out, and of what has become of openings. */
function tell(
  cuts: Iterable<ElementCut>,
  { changed, gone, removed, took }: NewStatuses & { removed: string[]; took: number },
): void {
  const elements: DrawnElement[] = [];
  const parts: DrawnPart[] = [];
  const onMesh = (part: PartMesh): void => {
    if (toldParts.has(part.key)) return;
    toldParts.add(part.key);
    parts.push(drawnPart(part));
  };
  for (const result of cuts) {
    if (told.get(result.element) === result) continue;
    told.set(result.element, result);
    elements.push(drawn(result, creased, onMesh));
  }
  scope.postMessage(
    { kind: 'model', number, elements, parts, removed, statuses: { changed, gone }, milliseconds: took },
    elements.flatMap(
      (e) =>
        [e.positions.buffer, e.normals.buffer, e.uvs.buffer, e.triangles.buffer, e.creases.buffer] as ArrayBuffer[],
    ),
  );
}

/** Sends what was left out when the model was first shown: it can be seen, and turned, without its creases. */
function tellCreases(): void {
  if (creased) return;
  creased = true;
  const creases = [...told].map(([element, { mesh, sheet }]): [string, Float32Array] => [
    element,
    creasesOf(mesh, originOf(sheet.chart)),
  ]);
  scope.postMessage(
    { kind: 'creases', number, creases },
    creases.map(([, { buffer }]) => buffer as ArrayBuffer),
  );
}

function proveSoon(): void {
  clearTimeout(proving);
  // At first the page has everything to draw yet, and is the first to need the processor.
  if (shown > 0) proving = setTimeout(proveAll, performance.now() - shown < 1500 ? 1200 : 120);
}

function proveAll(): void {
  if (!model) return;
  const found: [string, MeshProof][] = [];
  for (const [id, result] of model.cuts) {
    let proof = proofs.get(result);
    if (!proof) {
      proof = prove(result.mesh);
      proofs.set(result, proof);
    }
    found.push([id, proof]);
  }
  scope.postMessage({ kind: 'proofs', number, proofs: found });
}

/** What is to be told of the statuses; it is told by that. */
function newStatuses(statuses: Model['statuses']): NewStatuses {
  const gone = [...toldStatuses.keys()].filter((id) => !statuses.has(id));
  for (const id of gone) toldStatuses.delete(id);
  return { changed: changedOf(statuses.values()), gone };
}

/** Those of the statuses that the page was not told as they are. */
function changedOf(statuses: Iterable<OpeningStatus>): OpeningStatus[] {
  const changed = [...statuses].filter((status) => !sameValue(toldStatuses.get(status.opening), status));
  for (const status of changed) toldStatuses.set(status.opening, status);
  return changed;
}

function statesOf(statuses: readonly OpeningStatus[]): Partial<Record<State, number>> {
  const count: Partial<Record<State, number>> = {};
  for (const { state } of statuses) count[state] = (count[state] ?? 0) + 1;
  return count;
}

/** The most openings that a sheet draws one by one. */
const mostDrawn = 600;

function drawn(result: ElementCut, creased: boolean, onMesh: (part: PartMesh) => void): DrawnElement {
  const { mesh, sheet } = result;
  const [x, y, z] = originOf(sheet.chart);
  const origin: [number, number, number] = [x, y, z];
  return {
    element: result.element,
    origin,
    positions: positionsOf(mesh, origin),
    sphere: sphereOf(mesh, origin),
    normals: mesh.normals.slice(),
    uvs: mesh.uvs.slice(),
    triangles: mesh.triangles.slice(),
    creases: creased ? creasesOf(mesh, origin) : new Float32Array(0),
    runs: drawnRunsOf(mesh),
    parts: drawnInstances(result, onMesh),
    face: pathOf(result.region),
    innerFace: result.faces || result.placed.length > mostDrawn ? '' : pathOf(innerRegion(result)),
    faces: Object.fromEntries((result.faces ?? []).map(({ face, region }) => [face, pathOf(region)])),
    states: statesOf(result.statuses),
    faceArea: result.faceArea,
    pieces: result.pieces,
    path: result.path,
    joins: result.sheet.joins,
    fault: result.fault,
  };
}

/** Where each corner stands, relative to an origin. */
function positionsOf({ points, vertices }: CutMesh, [x, y, z]: readonly [number, number, number]): Float32Array {
  const positions = new Float32Array(3 * vertices.length);
  for (let c = 0; c < vertices.length; c++) {
    const v = 3 * vertices[c]!;
    positions[3 * c] = points[v]! - x;
    positions[3 * c + 1] = points[v + 1]! - y;
    positions[3 * c + 2] = points[v + 2]! - z;
  }
  return positions;
}

/** A sphere about all corners, relative to an origin: x, y, z of its centre, and its radius; metres. */
function sphereOf({ points }: CutMesh, origin: readonly [number, number, number]): [number, number, number, number] {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (let k = 0; k < 3; k++)
    for (let i = k; i < points.length; i += 3) {
      const value = points[i]!;
      if (value < low[k]!) low[k] = value;
      if (value > high[k]!) high[k] = value;
    }
  if (points.length === 0) return [0, 0, 0, 0];
  const centre = (k: number): number => (low[k]! + high[k]!) / 2 - origin[k]!;
  return [centre(0), centre(1), centre(2), Math.hypot(high[0]! - low[0]!, high[1]! - low[1]!, high[2]! - low[2]!) / 2];
}

function pathOf(region: Region): string {
  const seen = new Uint8Array(region.count);
  const parts: string[] = [];
  const figure = (value: number): number => Math.round(value * 1e5) / 1e5;
  for (let first = 0; first < region.count; first++) {
    if (seen[first]) continue;
    let command = 'M';
    for (let v = first; !seen[v]; v = region.next[v]!) {
      seen[v] = 1;
      parts.push(`${command}${figure(region.xs[v]!)} ${figure(region.ys[v]!)}`);
      command = 'L';
    }
    parts.push('Z');
  }
  return parts.join('');
}
