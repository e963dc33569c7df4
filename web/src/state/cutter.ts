/** Cutting as the page's worker does it: keeps the document, cuts what an edit touches, tells the page, and proves it when there is time. It knows neither a worker nor a network: its host does. */
import {
  creasesOf,
  cutInSteps,
  originOf,
  prove,
  type ElementCut,
  type MeshProof,
  type Model,
  type OpeningStatus,
  type Outcome,
  type PartMesh,
  type Step,
} from '@yard-arch/core';
import { omit, sameValue, withChanges, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import type { DrawnElement, DrawnPart, FromWorker, NewStatuses, ToWorker } from './cut-messages.ts';
import { drawnElement, pathOf } from './drawn-elements.ts';
import { drawnPart } from './drawn-parts.ts';

/** What cutting needs of where it runs. */
export interface CuttingHost {
  /** Tells the page. */
  tell: (message: FromWorker, transfer?: Transferable[]) => void;
  /** Calls back after so many ms. @returns what takes that back */
  later: (what: () => void, ms: number) => () => void;
  /** Milliseconds from some beginning. */
  now: () => number;
  /** Fetches what cuts as solids. */
  fetchSolidPath: () => Promise<void>;
  /** Fetches the meshes that a document names and that are not here yet. @param arrived hears of each */
  fetchMeshes: (document: ProjectDocument, arrived: () => void) => void;
}

/** How long what is cut is held back at most, where the page has nothing yet, ms: each telling has it draw all that it has. */
const heldBack = 500;

/** How long after an element its face follows, where that is told apart, ms: drawing takes both cores of a machine without a graphics card so long. */
const facesAfter = 250;

/** How soon what has been shown is proved, ms. At first the page has everything to draw yet, and is the first to need the processor; what has taken long to be cut takes the page that many times as long to draw. */
const proving = { atFirst: 1200, after: 120, first: 1500, drawing: 4 };

export class Cutter {
  private document: ProjectDocument | null = null;
  /** The revision of the document where it was read ahead of the page, until the page has sent its own. */
  private readRevision: number | null = null;
  private preview: ChangeSet | null = null;
  private model: Model | undefined;
  private number = 0;
  private due = false;
  /** How long the last cut took, and telling of it, ms. */
  private took = 0;
  /** When anything was shown for the first time. */
  private shown: number | null = null;
  /** Whether the page has drawn what was told first: creases are told with the rest then, where that takes no time. */
  private lined = false;
  /** Elements whose faces are still to be told. */
  private readonly faceless = new Set<string>();
  /** Elements whose creases are still to be told. */
  private readonly bare = new Set<string>();
  private facesDue = false;
  private fetching = false;
  private stopProving = (): void => {};
  private readonly proofs = new WeakMap<ElementCut, MeshProof>();
  private readonly told = new Map<string, ElementCut>();
  private readonly toldStatuses = new Map<string, Outcome>();
  /** Meshes of parts that the page has been told of, by their keys. */
  private readonly toldParts = new Set<string>();

  constructor(private readonly host: CuttingHost) {}

  /** Takes a document that was read before the page had it to send. */
  takeAhead(document: ProjectDocument, revision: number): void {
    if (this.document) return;
    this.document = document;
    this.readRevision = revision;
    this.cutSoon();
  }

  hear(message: Exclude<ToWorker, { kind: 'forget' }>): void {
    this.number = message.number;
    if (message.kind === 'drawn') {
      this.tellCreases();
      // Proofs that were told meanwhile are of a number that is no longer the last.
      return this.proveSoon();
    }
    if (message.kind === 'document') {
      const stands = this.document !== null && message.revision !== null && message.revision === this.readRevision;
      this.readRevision = null;
      // What was read ahead stands, and with it all that is cut of it.
      if (stands) return this.proveSoon();
      this.document = message.document;
      this.preview = null;
    } else if (message.kind === 'apply') {
      // The page has applied it, and so checked it.
      if (this.document) this.document = withChanges(this.document, message.changeSet.changes);
      this.preview = null;
    } else this.preview = message.changeSet;
    this.cutSoon();
  }

  /** Whatever else has come in by then is taken in before anything is cut. */
  private cutSoon(): void {
    if (!this.due) this.host.later(() => this.cut(), 0);
    this.due = true;
  }

  /** Cuts all anew: something has come that it could not be cut without. */
  private cutAnew(): void {
    this.model = undefined;
    this.cutSoon();
  }

  private cut(): void {
    this.due = false;
    const { document, preview } = this;
    if (!document) return;
    this.host.fetchMeshes(document, () => this.cutAnew());
    const begun = this.host.now();
    try {
      this.model = this.cutAndTell(preview ? withChanges(document, preview.changes) : document);
    } catch (error) {
      this.host.tell({ kind: 'failed', number: this.number, message: (error as Error).message });
      return;
    }
    this.took = this.host.now() - begun;
    // Only what the sheet path left wants the solid path at once; else it is fetched when the page has drawn what there is.
    if (this.anyUncut()) this.fetchSolidPath();
    else if (this.shown === null) this.host.later(() => this.fetchSolidPath(), proving.first);
    this.shown ??= this.host.now();
    this.proveSoon();
  }

  /** Cuts, and tells the page: of a project that it has nothing of yet bit by bit, so that the first walls stand while the others are cut. */
  private cutAndTell(draft: ProjectDocument): Model {
    const first = this.told.size === 0;
    let last = -Infinity;
    let since: Step[] = [];
    const steps = cutInSteps(draft, this.model);
    for (;;) {
      const { done, value } = steps.next();
      const now = this.host.now();
      if (done) {
        const news = { ...this.newStatuses(value.statuses), removed: this.removedFrom(value) };
        this.tell(value.cuts.values(), news);
        return value;
      }
      since.push(value);
      if (!first || value.done === value.of || now - last < heldBack) continue;
      const changed = this.changedOf(since.flatMap((step) => step.statuses));
      this.tell(
        since.map((step) => step.cut),
        { changed, gone: [], removed: [] },
      );
      [since, last] = [[], now];
    }
  }

  /** Tells the page of cuts, those that it knows left out, and of what has become of openings. */
  private tell(cuts: Iterable<ElementCut>, { changed, gone, removed }: NewStatuses & { removed: string[] }): void {
    const elements: DrawnElement[] = [];
    const parts: DrawnPart[] = [];
    const onMesh = (part: PartMesh): void => {
      if (this.toldParts.has(part.key)) return;
      this.toldParts.add(part.key);
      parts.push(drawnPart(part));
    };
    for (const result of cuts) {
      if (this.told.get(result.element) === result) continue;
      this.told.set(result.element, result);
      const drawn = drawnElement(result, this.lined, onMesh);
      if (drawn.creases) this.bare.delete(result.element);
      else this.bare.add(result.element);
      if (drawn.face === null) this.faceless.add(result.element);
      elements.push(drawn);
    }
    if (this.faceless.size > 0) this.tellFacesSoon();
    const { number } = this;
    this.host.tell(
      { kind: 'model', number, elements, parts, removed, statuses: { changed, gone } },
      elements.flatMap(({ positions, normals, uvs, triangles, creases }) =>
        [positions, normals, uvs, triangles, ...(creases ? [creases] : [])].map(({ buffer }) => buffer as ArrayBuffer),
      ),
    );
  }

  /** Sends the faces that were left out, when what was sent without them is drawn; while edits follow each other, every so often. */
  private tellFacesSoon(): void {
    if (this.facesDue) return;
    this.facesDue = true;
    this.host.later(() => {
      this.facesDue = false;
      const faces = [...this.faceless].flatMap((element): [string, string][] => {
        const cut = this.told.get(element);
        return cut ? [[element, pathOf(cut.region)]] : [];
      });
      this.faceless.clear();
      this.host.tell({ kind: 'faces', number: this.number, faces });
    }, facesAfter);
  }

  /** Elements that the page was told of and that are no more. */
  private removedFrom({ cuts }: Model): string[] {
    const removed = [...this.told.keys()].filter((id) => !cuts.has(id));
    for (const id of removed) this.told.delete(id);
    return removed;
  }

  /** What is to be told of the statuses; it is told by that. */
  private newStatuses(statuses: Model['statuses']): NewStatuses {
    const gone = [...this.toldStatuses.keys()].filter((id) => !statuses.has(id));
    for (const id of gone) this.toldStatuses.delete(id);
    return { changed: this.changedOf(statuses.values()), gone };
  }

  /** Those of the statuses that the page was not told as they are. */
  private changedOf(statuses: Iterable<OpeningStatus>): Outcome[] {
    const changed: Outcome[] = [];
    for (const status of statuses) {
      const outcome = omit(status, 'area');
      if (sameValue(this.toldStatuses.get(outcome.opening), outcome)) continue;
      this.toldStatuses.set(outcome.opening, outcome);
      changed.push(outcome);
    }
    return changed;
  }

  /** Sends the creases that were left out: the model can be seen, and turned, without them. */
  private tellCreases(): void {
    this.lined = true;
    const creases = [...this.bare].flatMap((element): [string, Float32Array][] => {
      const cut = this.told.get(element);
      return cut ? [[element, creasesOf(cut.mesh, originOf(cut.sheet.chart))]] : [];
    });
    this.bare.clear();
    if (creases.length === 0) return;
    this.host.tell(
      { kind: 'creases', number: this.number, creases },
      creases.map(([, { buffer }]) => buffer as ArrayBuffer),
    );
  }

  private proveSoon(): void {
    this.stopProving();
    if (this.shown === null) return;
    const { atFirst, after, first, drawing } = proving;
    const ms = this.host.now() - this.shown < first ? atFirst : Math.max(after, drawing * this.took);
    this.stopProving = this.host.later(() => this.proveAll(), ms);
  }

  private proveAll(): void {
    if (!this.model) return;
    const found: [string, MeshProof][] = [];
    for (const [id, result] of this.model.cuts) {
      let proof = this.proofs.get(result);
      if (!proof) this.proofs.set(result, (proof = prove(result.mesh)));
      found.push([id, proof]);
    }
    this.host.tell({ kind: 'proofs', number: this.number, proofs: found });
  }

  /** Fetches the solid path; what could not be cut without it is cut when it has come. */
  private fetchSolidPath(): void {
    if (this.fetching) return;
    this.fetching = true;
    this.host.fetchSolidPath().then(
      () => {
        if (this.anyUncut()) this.cutAnew();
      },
      () => {
        // Without it only what the sheet path cannot express stays uncut, and says so.
      },
    );
  }

  private anyUncut(): boolean {
    return this.model !== undefined && [...this.model.statuses.values()].some(({ state }) => state === 'not cut');
  }
}
