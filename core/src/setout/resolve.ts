/** Resolving: from an opening's intent to its place on the face of its element, or why it has none. */
import {
  faceLabel,
  isManyFaced,
  isShell,
  kindOf,
  overridden,
  parentsOf,
  row,
  type Element,
  type FaceName,
  type Opening,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { finenessOf, sheetsOf } from '../element/sheets.ts';
import { fault, type FindingCode } from '../finding.ts';
import { finenessKey, type Fineness } from '../profile/flatten.ts';
import { tidy } from '../tidy.ts';
import { rounding } from '../tolerances.ts';
import { alongAt, upAt } from './measured.ts';
import { dimensionsOf, fits, outlineOf, type Outlined } from './outlined.ts';
import { gripOffset, type Placed, type Unplaced } from './placed.ts';
import { depthOf, sectionsOf, type Sections } from './sections.ts';

const resolved = new WeakMap<Opening, { from: readonly unknown[]; outcome: Placed | Unplaced }>();

/** Places one opening; the same object for the same question. */
export function resolveOpening(
  document: ProjectDocument,
  opening: Opening,
  fineness: Fineness = finenessOf(document),
): Placed | Unplaced {
  const { along, up } = opening;
  // What it is measured from another one by depends on more than can be compared cheaply.
  if (parentsOf(opening, 'along').length + parentsOf(opening, 'up').length > 0)
    return resolveAnew(document, opening, fineness);
  const from = [
    row(document, 'elements', opening.element),
    row(document, 'patterns', opening.pattern),
    along.from === 'axis' ? row(document, 'axes', along.axis) : null,
    up.from === 'datum' ? row(document, 'datums', up.datum) : null,
    up.from === 'course' ? document.materials : null,
    opening.face === undefined ? null : sheetsOf(document).on(opening.element, opening.face),
    document.units,
    finenessKey(fineness),
  ];
  const known = resolved.get(opening);
  if (known && known.from.every((value, i) => value === from[i])) return known.outcome;
  const outcome = resolveAnew(document, opening, fineness);
  resolved.set(opening, { from, outcome });
  return outcome;
}

/** What stops an opening from being placed. */
class Refusal extends Error {
  constructor(
    readonly code: FindingCode,
    readonly reason: string,
    readonly mend: string,
  ) {
    super(reason);
  }
}

function resolveAnew(document: ProjectDocument, opening: Opening, fineness: Fineness): Placed | Unplaced {
  try {
    return placedAnew(document, opening, fineness);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { id: opening.id, element: opening.element, ...fault(error.code, error.reason, error.mend) };
  }
}

function placedAnew(document: ProjectDocument, opening: Opening, fineness: Fineness): Placed {
  const element = row(document, 'elements', opening.element);
  if (!element)
    throw new Refusal(
      'element-gone',
      'its element was removed',
      'Bring the element back with undo, or remove this opening.',
    );
  const { pattern, profile, outline } = shapeOf(document, opening, fineness);
  const { face = 'outer', planes } = opening;
  const kind = pattern.cut?.kind ?? 'through';
  const sheet = sheetOfMany(document, element, { face, kind, fineness });
  const layers = face === 'inner' ? [...element.layers].reverse() : element.layers;
  const depth = sheet && face === 'outer' ? sheet.thickness : depthOf(pattern, layers, document.units);
  if (typeof depth !== 'number') throw new Refusal('too-deep', depth.reason, depth.mend);
  const slope = slopeOf(sheet);
  const sections = sectionsOf(pattern, depth, { units: document.units, slope });
  if (refused(sections)) throw new Refusal('no-section', sections.reason, sections.mend);
  const [along, up] = gripAt(document, element, opening);
  const [dx, dy] = gripOffset(profile, opening.grip);
  const [s, t] = [tidy(along - dx), tidy(up - dy)];
  if (!Number.isFinite(s) || !Number.isFinite(t))
    throw new Refusal('no-place', 'its place is not a number', 'Type its distances again.');
  return {
    id: opening.id,
    element: element.id,
    ...(face === 'outer' ? {} : { face }),
    ...(slope === null ? {} : { slope }),
    ...(slope !== null && pattern.onSlope === 'plumb' ? { drift: [0, 0 - Math.tan(slope)] as const } : {}),
    s,
    t,
    profile,
    outline,
    pattern,
    blockedUp: opening.blockedUp,
    ...(opening.open === undefined ? {} : { open: opening.open }),
    ...(opening.slid === undefined ? {} : { slid: opening.slid }),
    ...(planes && face === 'outer' ? { planes } : {}),
    kind,
    depth,
    ...(pattern.infill?.seat.from === 'layer' ? { layers: layers.map(({ thickness }) => thickness) } : {}),
    sections,
  };
}

const refused = (outcome: Sections): outcome is Extract<Sections, { reason: string }> => 'reason' in outcome;

/** Its pattern as it overrides it, and the outline that its dimensions give that. */
function shapeOf(
  document: ProjectDocument,
  opening: Opening,
  fineness: Fineness,
): Exclude<Outlined, { reason: string }> & { pattern: Pattern } {
  const plain = row(document, 'patterns', opening.pattern);
  const pattern = plain && overridden(plain, opening.overrides);
  if (!pattern) throw new Refusal('pattern-gone', 'its pattern was removed', 'Give it another pattern.');
  const dimensions = dimensionsOf(pattern, opening);
  if (!dimensions)
    throw new Refusal('size-gone', `the pattern “${pattern.name}” no longer has its size`, 'Choose another size.');
  if (!fits(pattern, dimensions))
    throw new Refusal(
      'other-dimensions',
      'its own dimensions are those of another shape',
      'Bring it back to its size, or type its dimensions again.',
    );
  const made = outlineOf(pattern.profile, dimensions, document.units, fineness);
  if ('reason' in made) throw new Refusal('no-profile', made.reason, made.mend);
  return { pattern, ...made };
}

/** The sheet of the face that an opening is on, of an element of many; null of any other. */
function sheetOfMany(
  document: ProjectDocument,
  element: Element,
  { face, kind, fineness }: { face: FaceName; kind: Placed['kind']; fineness: Fineness },
): Sheet | null {
  const many = isManyFaced(element) || isShell(element);
  const { noun } = kindOf(element);
  const sheets = sheetsOf(document, fineness);
  const faulty = many ? sheets.of(element.id)?.fault : null;
  if (faulty) throw new Refusal('element-faulty', `its ${noun} cannot be made: ${faulty.reason}`, faulty.mend);
  const sheet = many ? sheets.on(element.id, face) : null;
  if (many && !sheet)
    throw new Refusal(
      'plane-gone',
      `the ${noun} no longer has the plane that it is on`,
      'Bring the plane back, by making its edge eaves again, or set the opening out on another plane.',
    );
  if (many && face === 'outer' && kind !== 'through')
    throw new Refusal(
      'wrong-face',
      `what is set out on a ${noun} from above can only cut right through it`,
      'Set it out on one of its planes, or give it a pattern that cuts through.',
    );
  if (face === 'inner' && (kind === 'boss' || kind === 'imprint'))
    throw new Refusal(
      'wrong-face',
      `${kind === 'boss' ? 'a boss' : 'an imprint'} stands on the ${faceLabel(element)} only`,
      `Set it out on the ${faceLabel(element)}, or give it a pattern that cuts.`,
    );
  return sheet;
}

/** Where its grip is on its face, along and up, metres. */
function gripAt(document: ProjectDocument, element: Element, opening: Opening): [number, number] {
  const along = alongAt(document, element, opening.along, opening.face);
  if (along === null)
    throw parentsOf(opening, 'along').length > 0
      ? new Refusal(
          'neighbour-astray',
          'the opening that it is measured from has no place itself',
          'Mend that one, or place this from the start, the middle or the end.',
        )
      : new Refusal(
          'axis-gone',
          'the axis that it is held to was removed',
          'Place it from the start, the middle or the end.',
        );
  const up = upAt(document, element, opening.up, opening.face);
  if (up === null)
    throw opening.up.from === 'neighbour'
      ? new Refusal(
          'neighbour-astray',
          'the opening that its level is measured from has no place itself',
          'Mend that one, or place this from the base, the top or a datum.',
        )
      : new Refusal(
          'datum-gone',
          'the datum that it is held to was removed',
          'Place it from the base or another datum.',
        );
  return [along, up];
}

/** How steep a face that is one of many rises, radians; null of any other, and where it lies level. */
function slopeOf(sheet: Sheet | null): number | null {
  const up = sheet?.face !== undefined && sheet.chart.kind === 'flat' ? sheet.chart.up[2] : 0;
  // Planes of one pitch are of one slope to the last digit, so that what is made for it serves on all of them.
  return up > 0 ? Math.round(Math.asin(Math.min(1, up)) / rounding) * rounding : null;
}
