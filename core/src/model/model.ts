/** The model: every element of a document as cut, and after an edit only what the edit touches cut again. */
import { omit, type Element, type Layer, type Opening, type ProjectDocument } from '@yard-arch/document';
import { notCut, withFindings, type OpeningStatus } from '../cut/status.ts';
import type { Sheet } from '../element/sheet.ts';
import { finenessOf } from '../element/sheets.ts';
import { standsWithin } from '../element/roof-check.ts';
import type { Fineness } from '../profile/flatten.ts';
import { intoOthers } from '../infill/clashes.ts';
import { recessesIn } from '../setout/recess.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';
import { overBudget, weightOf } from './budget.ts';
import { cutElement, type ElementCut } from './cut-element.ts';
import { cutRoof } from './cut-roof.ts';
import { cutShell } from './cut-shell.ts';
import { cutAlike, dressedAlike, type Dressed, type Inputs } from './depends.ts';
import { withParts } from './dressing.ts';
import { guardedCut } from './guard.ts';
import { withRooms } from './rooms.ts';
import { Scene } from './scene.ts';
import { splitCut } from './split-cut.ts';
import { standingOn, type Standing } from './standing.ts';
import { visitingOf } from './visiting.ts';

export interface Model {
  /** By element's id, in the document's order. */
  cuts: ReadonlyMap<string, ElementCut>;
  /** By opening's id; every opening of the document has one. */
  statuses: ReadonlyMap<string, OpeningStatus>;
  /** Inputs of each cut, by which the next model knows what it may keep. */
  inputs: ReadonlyMap<string, Inputs>;
  /** Each cut without its parts, and what those were made of. */
  bares: ReadonlyMap<string, Bare>;
}

/** An element as cut, without parts; with the openings that carry parts, each on its own face. */
export interface Bare extends Dressed {
  cut: ElementCut;
  /** Why parts that are to be let in were not, by opening and part. */
  without: ReadonlyMap<string, string>;
}

/** What of a model is made with one element. */
export interface Step {
  cut: ElementCut;
  /** What became of the element's own openings, as far as it goes there. */
  statuses: readonly OpeningStatus[];
  done: number;
  of: number;
}

/**
 * Cuts a document.
 * @param before the model of the document before an edit; cuts that the edit does not touch are the very same objects in the result.
 * @param onCut hears how many of how many elements are cut.
 */
export function cutModel(
  document: ProjectDocument,
  before?: Model,
  fineness: Fineness = finenessOf(document),
  onCut: (done: number, of: number) => void = () => {},
): Model {
  const steps = cutInSteps(document, before, fineness);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    onCut(value.done, value.of);
  }
}

/** Cuts a document element by element, in the document's order, so that what is cut can be shown while the rest is yet to be. As `cutModel` otherwise. */
export function* cutInSteps(
  document: ProjectDocument,
  before?: Model,
  fineness: Fineness = finenessOf(document),
): Generator<Step, Model> {
  const pass = new Pass(new Scene(document, fineness), before);
  const elements = Object.values(document.elements);
  for (const [k, element] of elements.entries()) yield { ...pass.take(element), done: k + 1, of: elements.length };
  return pass.model();
}

/** One pass over a document's elements. */
class Pass {
  private readonly cuts = new Map<string, ElementCut>();
  private readonly statuses = new Map<string, OpeningStatus>();
  private readonly inputs = new Map<string, Inputs>();
  private readonly bares = new Map<string, Bare>();
  private readonly visiting: ReadonlyMap<string, readonly (Placed | Unplaced)[]>;
  private readonly recesses: ReadonlyMap<string, readonly Placed[]>;
  /** Points that the model holds so far. */
  private held = 0;

  constructor(
    private readonly scene: Scene,
    private readonly before: Model | undefined,
  ) {
    this.visiting = visitingOf(scene);
    this.recesses = recessesIn(scene.document);
  }

  /** Cuts one element, or keeps what it was cut to before. */
  take(element: Element): Pick<Step, 'cut' | 'statuses'> {
    const { id } = element;
    const { units } = this.scene.document;
    const standing = standingOn(this.scene, element);
    const resolved = [...standing.own, ...(this.visiting.get(id) ?? [])];
    const taken = [...(this.recesses.get(id) ?? []), ...standing.rooms];
    const sheet = this.afforded(element, [...resolved, ...taken]);
    const wanted: Inputs = { element, resolved: [...resolved, ...taken], units, sheet };
    const known = this.before?.inputs.get(id);
    const kept = known && cutAlike(known, wanted) ? this.before?.bares.get(id) : undefined;
    const bare = kept ?? withRooms(taken, (rest) => this.cutOf(element, sheet, { resolved, recesses: rest }));
    const openings = standing.setOut;
    const marks = openings.map((opening) => this.scene.markOf(opening.id));
    const whole: Bare = { ...bare, openings, marks, unlet: standing.unlet };
    const cut = this.dressed(element, whole, { standing, kept });
    this.bares.set(id, whole);
    this.cuts.set(id, cut);
    this.inputs.set(id, wanted);
    const statuses = cut.statuses.slice(0, standing.own.length);
    for (const status of statuses) this.statuses.set(status.opening, status);
    return { cut, statuses };
  }

  /** An element's sheet, with a fault where it would be more than a model may hold. */
  private afforded(element: Element, resolved: readonly (Placed | Unplaced)[]): Sheet {
    const sheet = this.scene.sheets.of(element.id)!;
    const weight = sheet.fault ? 0 : weightOf(element, sheet, resolved);
    const fault = overBudget(weight, this.held);
    if (fault) return { ...sheet, fault };
    this.held += weight;
    return sheet;
  }

  private cutOf(
    element: Element,
    sheet: Sheet,
    { resolved, recesses }: { resolved: readonly (Placed | Unplaced)[]; recesses: readonly Placed[] },
  ): ElementCut {
    const { sheets, document } = this.scene;
    const before = this.before?.cuts.get(element.id);
    const [shell, body] = [sheets.shell(element.id), sheets.body(element.id)];
    const within = body && standsWithin(body);
    const whole = (as: Element, on: Sheet, before?: ElementCut): ElementCut => {
      const asked = { element: as, above: on, resolved, recesses, units: document.units };
      if (shell && !on.fault) return cutShell({ ...asked, body: shell });
      if (body && !on.fault && !within) return cutRoof({ ...asked, body, before });
      const own = within && !on.fault ? { ...on, fault: within } : on;
      return cutElement({ element: as, sheet: own, resolved, recesses, units: document.units }, before);
    };
    return guardedCut(sheet, (on) =>
      splitCut(whole(element, on, before), {
        element,
        layered: () => whole(inLayers(element), { ...on, layers: on.layers.map(solid) }).mesh,
        sheetOf: (face) => this.scene.sheetOn(element, face),
      }),
    );
  }

  /** A cut with what stands in and about its openings; the very same as before where none of it has become another. */
  private dressed(
    { id }: Element,
    bare: Bare,
    { standing, kept }: { standing: Standing; kept: Bare | undefined },
  ): ElementCut {
    const same = kept && dressedAlike(kept, bare) ? this.before?.cuts.get(id) : undefined;
    return (
      same ??
      withParts(bare.cut, {
        openings: bare.openings,
        units: this.scene.document.units,
        without: new Map([...bare.without, ...standing.unlet]),
        markOf: (opening) => this.scene.markOf(opening),
        seatOf: standing.seatOf,
      })
    );
  }

  /** All that was made, once every element has been taken. */
  model(): Model {
    for (const [id, cut] of this.cuts) this.tellVisitors(id, cut);
    this.tellIntoOthers();
    for (const opening of this.scene.orphans()) this.statuses.set(opening.id, this.orphaned(opening));
    const { cuts, statuses, inputs, bares } = this;
    return { cuts, statuses, inputs, bares };
  }

  /** Tells what became of openings on an element that they cut besides their own. */
  private tellVisitors(element: string, { statuses }: ElementCut): void {
    const first = statuses.length - (this.visiting.get(element)?.length ?? 0);
    for (const { opening, state, findings, reason, mend } of statuses.slice(first)) {
      const status = this.statuses.get(opening);
      if (!status) continue;
      const further = [...(status.further ?? []), { element, state, findings, reason, mend }];
      this.statuses.set(opening, { ...status, further });
    }
  }

  /** Tells of what stands in openings and in other elements too. */
  private tellIntoOthers(): void {
    const { elements } = this.scene.document;
    const others = [...this.cuts].map(([id, { mesh }]) => ({ id, mesh }));
    for (const { parts } of this.cuts.values())
      for (const { opening, reason, mend } of intoOthers(parts, others, (id) => elements[id]!.name)) {
        const status = this.statuses.get(opening);
        if (status) this.statuses.set(opening, withFindings(status, [{ code: 'runs-into', reason, mend }]));
      }
  }

  private orphaned(opening: Opening): OpeningStatus {
    const { code, reason, mend } = this.scene.resolved(opening) as Unplaced;
    return notCut(opening.id, { code, reason, mend });
  }
}

/** An element whose layers are solids of their own, its cavities too. */
const inLayers = (element: Element): Element => ({ ...element, skins: 'layers', layers: element.layers.map(solid) });

const solid = (layer: Layer): Layer => omit(layer, 'cavity');
