/** Fixes: what a click can do about a finding, by its code. The first is the one that keeps most of what was meant. */
import { misfitsOn, roofPierced, sheetsOf, type Finding, type FindingCode, type Misfit } from '@yard-arch/core';
import {
  formatLength,
  isInPlan,
  limits,
  sizeLabel,
  unitsLabel,
  type ChangeSet,
  type Element,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import { changeElement } from './elements.ts';
import { edit } from './make.ts';
import { blockAll, putTo } from './many.ts';
import { changeSizeOf } from './opening.ts';
import { changePattern } from './patterns.ts';
import { changeOpening } from './placing.ts';
import { setChord } from './project.ts';
import { putUnder } from './roofs.ts';
import { drop } from './walls.ts';

export interface Fix {
  /** What it does, as a button says it. */
  label: string;
  changeSet: ChangeSet;
}

type OfOpening = (document: ProjectDocument, opening: Opening) => Fix[];
type OfElement = (document: ProjectDocument, element: Element) => Fix[];

/** What is offered for every opening that is not as it was meant. */
const takeAway: OfOpening = (document, opening) => [{ label: 'take it away', changeSet: drop(document, [opening]) }];

const blockUp: OfOpening = (_, opening) =>
  opening.blockedUp ? [] : [{ label: 'block it up', changeSet: blockAll([opening]) }];

const ofOpenings: Partial<Record<FindingCode, OfOpening>> = {
  'reaches-beyond': fitting,
  'off-element': fitting,
  'parted-off': () => [],
  'size-gone': (document, opening) => {
    const pattern = document.patterns[opening.pattern];
    const size = pattern && Object.values(pattern.sizes)[0];
    return size
      ? [
          {
            label: `give it the size ${sizeLabel(pattern, size, document.units)}`,
            changeSet: changeSizeOf(opening, pattern, size.id, document),
          },
        ]
      : [];
  },
  'other-dimensions': ownDropped,
  'axis-gone': inTheMiddle,
  'neighbour-astray': (document, opening) => [
    ...(opening.along.from === 'neighbour' || opening.along.from === 'between' ? inTheMiddle(document, opening) : []),
    ...(opening.up.from === 'neighbour' ? onTheBase(document, opening) : []),
  ],
  'datum-gone': onTheBase,
  'no-place': (_, opening) => [
    {
      label: 'place it in the middle, on the base',
      changeSet: changeOpening(opening, { along: middle, up: base }, 'place in the middle, on the base'),
    },
  ],
  'aimed-past': (_, opening) =>
    opening.aim
      ? [{ label: 'let it cut squarely', changeSet: changeOpening(opening, { aim: undefined }, 'square up') }]
      : [],
  'not-further': (_, opening) => [
    {
      label: 'let it cut its own element alone',
      changeSet: changeOpening(opening, { further: undefined }, 'cut nothing further with'),
    },
  ],
  'wrong-face': (_, opening) => [
    {
      label: 'set it out on the outer face',
      changeSet: changeOpening(opening, { face: undefined }, 'set out on the outer face'),
    },
  ],
  'too-deep': (document, opening) => {
    const pattern = document.patterns[opening.pattern];
    return pattern
      ? [
          {
            label: 'let its pattern cut through',
            changeSet: changePattern(pattern, { cut: { kind: 'through' } }, 'cut through with'),
          },
        ]
      : [];
  },
  'nothing-left': blockUp,
  'not-clear': blockUp,
  'too-many-over': blockUp,
  'not-divided': blockUp,
  'eaten-up': blockUp,
  'beyond-curve': blockUp,
  'off-kept': blockUp,
  'no-section': (document, opening) => {
    const pattern = document.patterns[opening.pattern];
    return pattern?.sections
      ? [
          {
            label: 'square the reveal of its pattern',
            changeSet: changePattern(pattern, { sections: undefined }, 'square the reveal of'),
          },
        ]
      : [];
  },
  'no-profile': ownDropped,
  failed: blockUp,
  // What these had is gone for good, or back with undo.
  'element-gone': () => [],
  'pattern-gone': () => [],
};

const ofElements: Partial<Record<FindingCode, OfElement>> = {
  'not-joined': squareEnds,
  'too-short': squareEnds,
  'too-fine': coarser,
  'too-heavy': coarser,
  'not-under': levelTop,
  'roof-below': levelTop,
  'through-roof': underIt,
};

/** @returns what can be done about a finding at once, the mildest first; nothing where it takes a person to decide. */
export function fixesOf(document: ProjectDocument, { code, subject }: Finding): Fix[] {
  if (subject.table === 'elements') {
    const element = document.elements[subject.id];
    return (element && ofElements[code]?.(document, element)) ?? [];
  }
  const opening = document.openings[subject.id];
  const mend = ofOpenings[code];
  return opening && mend ? [...mend(document, opening), ...takeAway(document, opening)] : [];
}

function squareEnds(_: ProjectDocument, element: Element): Fix[] {
  return 'ends' in element && element.ends
    ? [
        {
          label: 'let its ends be square',
          changeSet: changeElement(element, { ends: undefined }, 'square the ends of'),
        },
      ]
    : [];
}

function levelTop(_: ProjectDocument, element: Element): Fix[] {
  return isInPlan(element)
    ? [
        {
          label: 'give it a level top',
          changeSet: changeElement(element, { top: { kind: 'level' } }, 'level the top of'),
        },
      ]
    : [];
}

function underIt(document: ProjectDocument, element: Element): Fix[] {
  const roof = isInPlan(element) && roofPierced(document, element);
  return roof ? [{ label: `let it end under ${roof.name}`, changeSet: putUnder(roof, [element]) }] : [];
}

/** Slides several openings in that reach beyond. */
export function slideIn(document: ProjectDocument, misfits: readonly Pick<Misfit, 'opening' | 'slid'>[]): ChangeSet {
  const [first, second] = misfits;
  const places = misfits.flatMap(({ opening, slid }) => (slid ? [[opening.id, slid] as const] : []));
  return edit(
    `slide ${first && !second ? first.opening.mark : `${misfits.length} openings`} in`,
    ...putTo(document, new Map(places)),
  );
}

/** The ways in which one that reaches beyond its element could fit. */
function fitting(document: ProjectDocument, opening: Opening): Fix[] {
  const element = document.elements[opening.element];
  const misfit = element && misfitsOn(document, element).find((one) => one.opening.id === opening.id);
  const pattern = document.patterns[opening.pattern];
  if (!misfit || !pattern) return [];
  const { slid, smaller } = misfit;
  const fixes: Fix[] = slid ? [{ label: 'slide it in', changeSet: slideIn(document, [misfit]) }] : [];
  if (smaller && 'size' in smaller)
    fixes.push({
      label: `size ${sizeLabel(pattern, pattern.sizes[smaller.size]!, document.units)}`,
      changeSet: changeSizeOf(opening, pattern, smaller.size, document),
    });
  else if (smaller)
    fixes.push({
      label: `cut it down to ${sizeLabel(pattern, { id: '', name: '', dimensions: smaller.own }, document.units)}`,
      changeSet: cutDown(document, opening, smaller),
    });
  return fixes;
}

function cutDown(
  document: ProjectDocument,
  opening: Opening,
  smaller: Extract<NonNullable<Misfit['smaller']>, { own: unknown }>,
): ChangeSet {
  const own = { ...opening, own: { ...smaller.own } };
  const changed = { ...document, openings: { ...document.openings, [opening.id]: own } };
  return edit(`cut ${opening.mark} down to fit`, ...putTo(changed, new Map([[opening.id, smaller]])));
}

/** Back from its own dimensions to those of its size. */
function ownDropped(document: ProjectDocument, opening: Opening): Fix[] {
  const pattern = document.patterns[opening.pattern];
  return opening.own && pattern?.sizes[opening.size]
    ? [{ label: 'bring it back to its size', changeSet: changeSizeOf(opening, pattern, opening.size, document) }]
    : [];
}

const middle = { from: 'middle', distance: 0 } as const;
const base = { from: 'base', distance: 0 } as const;

function inTheMiddle(_: ProjectDocument, opening: Opening): Fix[] {
  return [
    { label: 'place it in the middle', changeSet: changeOpening(opening, { along: middle }, 'place in the middle') },
  ];
}

function onTheBase(_: ProjectDocument, opening: Opening): Fix[] {
  return [{ label: 'place it on the base', changeSet: changeOpening(opening, { up: base }, 'place on the base') }];
}

/** Arcs drawn more coarsely: four times, or as often four times as lets the sheet be made. */
function coarser(document: ProjectDocument, { id }: Element): Fix[] {
  const { chord = 0.001, units } = document;
  for (let next = chord * 4; next <= limits.chord.most; next *= 4) {
    if (sheetsOf({ ...document, chord: next }).of(id)?.fault) continue;
    const said = `${formatLength(next, units)} ${unitsLabel(units)}`;
    return [{ label: `draw arcs to within ${said}`, changeSet: setChord(next, said) }];
  }
  return [];
}
