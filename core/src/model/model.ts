/** The model: every element of a document as cut, and after an edit only what the edit touches cut again. */
import {
  isBarrel,
  isManyFaced,
  isSetIn,
  isShell,
  omit,
  row,
  type Element,
  type FaceName,
  type Layer,
  type Opening,
  type ProjectDocument,
  type Units,
} from '@yard-arch/document';
import type { OpeningStatus } from '../cut/status.ts';
import type { Sheet } from '../element/sheet.ts';
import { finenessOf, sheetsOf } from '../element/sheets.ts';
import { flankBefore } from '../infill/lunette.ts';
import { placementOf } from '../infill/carried.ts';
import { partsOf } from '../infill/parts.ts';
import { roomsOf } from '../infill/set-in.ts';
import { across } from '../setout/across.ts';
import { turnedOver } from '../element/turned-over.ts';
import type { Fineness } from '../profile/flatten.ts';
import { squareSections } from '../profile/section.ts';
import { aimOf, levelAim, onOwnFace, projectOnto } from '../setout/project.ts';
import { levelSeat } from '../setout/level-seat.ts';
import { recessesIn } from '../setout/recess.ts';
import { resolveOpening, type Placed, type Unplaced } from '../setout/resolve.ts';
import { notCut, withFindings } from '../cut/status.ts';
import { fault, type Told } from '../finding.ts';
import { standsWithin } from '../element/roof-check.ts';
import { overBudget, weightOf } from './budget.ts';
import { withRooms } from './rooms.ts';
import { withinEdge } from './within-edge.ts';
import { cutAlike, dressedAlike, type Inputs } from './depends.ts';
import { guardedCut, guardedPlace } from './guard.ts';
import { cutElement, type ElementCut } from './cut-element.ts';
import { cutRoof } from './cut-roof.ts';
import { cutShell, seatOn } from './cut-shell.ts';
import { splitCut } from './split-cut.ts';

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

/** An element as cut, without parts. */
export interface Bare {
  cut: ElementCut;
  /** Why parts that are to be let in were not, by opening and part. */
  without: ReadonlyMap<string, string>;
  /** The openings that carry parts, each on its own face. */
  openings: readonly Placed[];
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
  const byElement = new Map<string, Opening[]>();
  const statuses = new Map<string, OpeningStatus>();
  for (const opening of Object.values(document.openings)) {
    const list = byElement.get(opening.element);
    if (list) list.push(opening);
    else byElement.set(opening.element, [opening]);
  }
  const markOf = (id: string): string => document.openings[id]?.mark ?? id;
  const cuts = new Map<string, ElementCut>();
  const inputs = new Map<string, Inputs>();
  const bares = new Map<string, Bare>();
  const sheets = new Map<string, Sheet>();
  const ofDocument = sheetsOf(document, fineness);
  for (const id of Object.keys(document.elements)) sheets.set(id, ofDocument.of(id)!);
  const visiting = visitors(document, byElement, sheets, fineness);
  const recesses = recessesIn(document);
  // Points that the model holds so far.
  let held = 0;
  for (const element of Object.values(document.elements)) {
    let sheet = sheets.get(element.id)!;
    const openings = byElement.get(element.id) ?? [];
    const shelled = isShell(element);
    const asSetOut: Placed[] = [];
    const shell = ofDocument.shell(element.id);
    // What goes into a shell square to its back has a sheet of its own there.
    const seats = new Map<string, Sheet>();
    const barrelsOf = ({ further = [] }: Opening): Sheet[] =>
      further.flatMap((id) => {
        const [other, on] = [row(document, 'elements', id), sheets.get(id)];
        return other && on && !on.fault && isBarrel(other) ? [on] : [];
      });
    // The sheet of one of many faces; those of two have it made of the one.
    const sheetOf = (face: FaceName | undefined): Sheet =>
      isManyFaced(element) ? (ofDocument.on(element.id, face) ?? sheet) : sheet;
    const own = openings.map((opening) =>
      guardedPlace(opening, () => {
        const resolved = resolveOpening(document, opening, fineness);
        // What goes down through many faces has no seat for parts.
        const seated =
          !levelled(element, resolved) && !shelled && (opening.face !== undefined || !isManyFaced(element));
        if ('outline' in resolved && (resolved.pattern.parts?.length || resolved.pattern.infill)) {
          const own = resolved.face === 'inner' ? turnedOver(sheet).sheet : sheetOf(resolved.face);
          const seat = opening.aim
            ? null
            : shell
              ? seatOn(element, shell, sheet, resolved)
              : levelled(element, resolved)
                ? levelSeat(own, resolved)
                : null;
          if (seat) seats.set(resolved.id, seat.sheet);
          const stands = seat?.placed ?? (seated ? onOwnFace(own, opening, resolved) : null);
          if (stands && 'outline' in stands)
            asSetOut.push(seat ? stands : withFlank(stands, sheetOf(resolved.face), barrelsOf(opening)));
        }
        return aimed(element, sheetOf(opening.face), opening, resolved);
      }),
    );
    byElement.delete(element.id);
    const told = [...own, ...(visiting.get(element.id) ?? [])];
    const seatOf = ({ id, face }: Placed): Sheet => seats.get(id) ?? sheetOf(face);
    const rooms = asSetOut.flatMap((one) => (seats.has(one.id) ? [] : roomsOf(seatOf(one), one, document.units)));
    const taken = [...(recesses.get(element.id) ?? []), ...rooms];
    const resolved = [...told, ...taken];
    const known = before?.inputs.get(element.id);
    const weight = sheet.fault ? 0 : weightOf(element, sheet, resolved);
    const fault = overBudget(weight, held);
    if (fault) sheet = { ...sheet, fault };
    else held += weight;
    const wanted: Inputs = { element, resolved, units: document.units, sheet };
    const kept = known && cutAlike(known, wanted) ? before?.bares.get(element.id) : undefined;
    const body = ofDocument.body(element.id);
    const within = body && standsWithin(body);
    const { units } = document;
    const whole = (as: Element, on: Sheet, rest: readonly Placed[], before?: ElementCut): ElementCut => {
      const asked = { element: as, above: on, resolved: told, recesses: rest, units };
      if (shell && !on.fault) return cutShell({ ...asked, body: shell });
      if (body && !on.fault && !within) return cutRoof({ ...asked, body, before });
      const own = within && !on.fault ? { ...on, fault: within } : on;
      return cutElement({ element: as, sheet: own, resolved: told, recesses: rest, units }, before);
    };
    const cutting = (rest: readonly Placed[]): ElementCut =>
      guardedCut(sheet, (on) =>
        splitCut(whole(element, on, rest, before?.cuts.get(element.id)), {
          element,
          layered: () => whole(inLayers(element), { ...on, layers: on.layers.map(solid) }, rest).mesh,
          sheetOf,
        }),
      );
    const bare: Bare = kept ?? { ...withRooms(taken, cutting), openings: asSetOut };
    const dressed = kept && dressedAlike(kept.openings, asSetOut) ? before?.cuts.get(element.id) : undefined;
    const without = new Map([...bare.without, ...unletOn(seats, asSetOut)]);
    const cut = dressed ?? withParts(bare.cut, { openings: asSetOut, units: document.units, without, markOf, seatOf });
    bares.set(element.id, { ...bare, openings: asSetOut });
    cuts.set(element.id, cut);
    onCut(cuts.size, sheets.size);
    inputs.set(element.id, wanted);
    cut.statuses.forEach((status, i) => {
      if (i < own.length)
        statuses.set(status.opening, {
          ...status,
          ...(statuses.get(status.opening)?.further ? { further: statuses.get(status.opening)!.further } : {}),
        });
    });
  }
  for (const [id, cut] of cuts) {
    const visitorsHere = visiting.get(id) ?? [];
    const first = cut.statuses.length - visitorsHere.length;
    cut.statuses.slice(first).forEach(({ opening, state, findings, reason, mend }) => {
      const status = statuses.get(opening);
      if (status)
        statuses.set(opening, {
          ...status,
          further: [...(status.further ?? []), { element: id, state, findings, reason, mend }],
        });
    });
  }
  for (const orphans of byElement.values())
    for (const opening of orphans) {
      const refusal = resolveOpening(document, opening, fineness) as Unplaced;
      statuses.set(opening.id, notCut(opening.id, { code: refusal.code, reason: refusal.reason, mend: refusal.mend }));
    }
  return { cuts, statuses, inputs, bares };
}

/** An element whose layers are solids of their own, its cavities too. */
const inLayers = (element: Element): Element => ({ ...element, skins: 'layers', layers: element.layers.map(solid) });

const solid = (layer: Layer): Layer => omit(layer, 'cavity');

/** Why parts are not let in that would have to be where their opening has a seat of its own, by opening and part. */
const unletOn = (seats: ReadonlyMap<string, Sheet>, openings: readonly Placed[]): [string, string][] =>
  openings
    .filter(({ id }) => seats.has(id))
    .flatMap(({ id, pattern }) =>
      (pattern.parts ?? [])
        .filter(isSetIn)
        .map((part): [string, string] => [
          `${id} / ${part.id}`,
          'cannot be let in where its opening goes through a vault or a dome in its own direction',
        ]),
    );

/** What a cut element is dressed with. */
interface Dressing {
  openings: readonly Placed[];
  units: Units;
  /** Why parts that are to be let in were not. */
  without: ReadonlyMap<string, string>;
  markOf: (opening: string) => string;
  seatOf: (opening: Placed) => Sheet;
}

/** A cut element with the parts of those of its openings that were cut; what is left out is told with the opening. */
function withParts(cut: ElementCut, { openings, units, without, markOf, seatOf }: Dressing): ElementCut {
  if (openings.length === 0 || cut.sheet.fault) return cut;
  const carrying = new Set(
    cut.statuses
      .filter(
        ({ state, findings }) =>
          (state === 'cut' || state === 'notched' || state === 'niche') &&
          !findings.some(({ code }) => code === 'across-split'),
      )
      .map((s) => s.opening),
  );
  const over = new Set(
    cut.statuses.flatMap(({ opening, findings }) =>
      findings.some(({ code }) => code === 'over-edge') ? [opening] : [],
    ),
  );
  const bySheet = new Map<Sheet, Placed[]>();
  for (const one of openings) {
    if (!carrying.has(one.id)) continue;
    const sheet = seatOf(one);
    const stands = over.has(one.id) ? withinEdge(sheet, one) : one;
    const list = bySheet.get(sheet);
    if (list) list.push(stands);
    else bySheet.set(sheet, [stands]);
  }
  const made = [...bySheet].map(([sheet, on]) => partsOf(sheet, on, units, { without, markOf }));
  const [instances, leftOut, clashes] = [
    made.flatMap((one) => one.instances),
    made.flatMap((one) => one.leftOut),
    made.flatMap((one) => one.clashes),
  ];
  const reasons = new Map<string, Set<string>>();
  for (const { opening, reason } of leftOut) reasons.set(opening, (reasons.get(opening) ?? new Set()).add(reason));
  return {
    ...cut,
    parts: instances,
    statuses: cut.statuses.map((status) => {
      const more = reasons.get(status.opening);
      return withFindings(status, [
        ...[...(more ?? [])].map((reason): Told => ({
          code: 'part-left-out',
          reason,
          mend: 'Change the figures of what its pattern puts there, or give it another size.',
        })),
        ...clashes
          .filter(({ opening }) => opening === status.opening)
          .map(({ reason, mend }): Told => ({ code: 'runs-into', reason, mend })),
      ]);
    }),
  };
}

const levelled = (element: Element, resolved: Placed | Unplaced): boolean =>
  'outline' in resolved && resolved.pattern.inBarrels === 'level' && isBarrel(element);

/** An opening with the flank of the barrel that its lunette runs to, where it has one. @param own its element's sheet @param barrels that it cuts as well */
function withFlank(placed: Placed, own: Sheet, barrels: readonly Sheet[]): Placed {
  if (!placed.pattern.parts?.some(({ kind }) => kind === 'lunette')) return placed;
  const placement = placementOf(placed.face === 'inner' ? turnedOver(own).sheet : own, placed);
  for (const { chart, height } of barrels) {
    const flank = flankBefore(chart, height, placement);
    if (flank) return { ...placed, flank };
  }
  return placed;
}

/** An opening on its element's outer face, as it asks to be carried: where it has an aim, or goes level into a barrel, its outline is projected on to that. */
function aimed(element: Element, sheet: Sheet, opening: Opening, resolved: Placed | Unplaced): Placed | Unplaced {
  if (!('outline' in resolved)) return resolved;
  const isInner = resolved.face === 'inner';
  if (!opening.aim && !levelled(element, resolved)) return isInner ? across(sheet, resolved) : resolved;
  const own = isInner ? turnedOver(sheet).sheet : sheet;
  const aim = opening.aim ? aimOf(own, opening, resolved) : levelAim(own, resolved);
  if (!isInner) return projectOnto(sheet, resolved, aim);
  const { from, depth, sections } = across(sheet, resolved);
  return projectOnto(
    sheet,
    { ...resolved, ...(from ? { from } : {}), depth, sections, face: 'outer', own: 'inner' },
    aim,
  );
}

/** Openings that are to cut further elements, as they land there, by element. */
function visitors(
  document: ProjectDocument,
  byElement: ReadonlyMap<string, readonly Opening[]>,
  sheets: ReadonlyMap<string, Sheet>,
  fineness: Fineness,
): Map<string, (Placed | Unplaced)[]> {
  const found = new Map<string, (Placed | Unplaced)[]>();
  for (const [id, openings] of byElement)
    for (const opening of openings) {
      const own = sheets.get(id);
      if (!opening.further?.length || !own || opening.blockedUp) continue;
      const resolved = guardedPlace(opening, () => resolveOpening(document, opening, fineness));
      if (!('outline' in resolved)) continue;
      for (const further of new Set(opening.further)) {
        const sheet = sheets.get(further);
        const element = row(document, 'elements', further);
        if (!sheet || !element || further === id) continue;
        const landed =
          resolved.kind === 'through'
            ? guardedPlace({ id: opening.id, element: further }, () =>
                projectOnto(
                  sheet,
                  throughAll(resolved, sheet),
                  aimOf(resolved.face === 'inner' ? turnedOver(own).sheet : own, opening, resolved),
                ),
              )
            : {
                id: opening.id,
                element: further,
                ...fault(
                  'not-further',
                  'only what cuts right through its own element can cut further ones',
                  'Let its pattern cut through, or take the element from its list.',
                ),
              };
        const list = found.get(further);
        if (list) list.push(landed);
        else found.set(further, [landed]);
      }
    }
  return found;
}

/** The same outline square through another thickness: what departs from square belongs to the opening's own element. */
function throughAll(placed: Placed, { thickness }: Sheet): Placed {
  return { ...placed, depth: thickness, sections: squareSections(thickness) };
}
