/** Drawing out one side of an opening, its other side left where it stands; and the ends, top and apex of a wall. */
import { isImpossible, lengthOf, overTo, profileOf, type Box, type BoxSide, type Impossible } from '@yard-arch/core';
import {
  dimensionNames,
  extentOf,
  newId,
  putting,
  sizeLabel,
  type Change,
  type ChangeSet,
  type Dimensions,
  type FaceName,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import { changeElement } from './elements.ts';
import { lengthChoices, type FigureChoice } from './figures.ts';
import { edit } from './make.ts';
import { putTo } from './many.ts';
import { dimensionsFor } from './opening.ts';
import { uses } from './patterns.ts';

/** What is measured where a side is drawn out. */
export type Drawn = 'width' | 'height' | 'rise';

const labels: Record<Drawn, string> = {
  width: 'Width of the opening',
  height: 'Height of the opening',
  rise: 'Rise of the arch',
};

/** The dimension that a side of a shape changes when it is drawn out; null where it has none of its own. */
function dimensionOf(pattern: Pattern, side: BoxSide): { drawn: Drawn; name: string } | null {
  const names = dimensionNames(pattern.profile.shape);
  const first = (drawn: Drawn, ...wanted: string[]): { drawn: Drawn; name: string } | null => {
    const name = wanted.find((one) => names.includes(one));
    return name ? { drawn, name } : null;
  };
  if (side === 'left' || side === 'right') return first('width', 'width', 'span', 'diameter');
  if (side === 'springing') return first('rise', 'rise') ?? (names.includes('span') ? first('height', 'height') : null);
  return first('height', 'height', 'diameter');
}

/** The sides of an opening that can be drawn out. */
export function drawnSides(pattern: Pattern, box: Box): BoxSide[] {
  const all: BoxSide[] = ['left', 'right', 'sill', 'head', ...(box.springing === null ? [] : (['springing'] as const))];
  return all.filter((side) => dimensionOf(pattern, side) !== null);
}

/** What a side that is drawn to a place measures then, metres; the least is a centimetre. */
export function drawnTo(pattern: Pattern, box: Box, side: BoxSide, to: number): number {
  const { drawn } = dimensionOf(pattern, side)!;
  const springing = box.springing ?? box.height;
  const measured = {
    left: box.s + box.width - to,
    right: to - box.s,
    sill: box.t + box.height - to,
    head: to - box.t,
    springing: drawn === 'rise' ? box.t + box.height - to : to - box.t + box.height - springing,
  }[side];
  return Math.max(0.01, measured);
}

/** A side that is being drawn out: what it measures, and what can take the new dimension. */
export interface Reshaping {
  drawn: Drawn;
  label: string;
  choices: FigureChoice[];
}

/**
 * What can be done with a side of an opening: all of its size, it alone, or a new size takes the dimension.
 * @param box where it stands as it is seen on a face.
 */
export function reshaping(document: ProjectDocument, opening: Opening, box: Box, side: BoxSide): Reshaping | null {
  const pattern = document.patterns[opening.pattern]!;
  const dimension = dimensionOf(pattern, side);
  const size = pattern.sizes[opening.size];
  if (!dimension || !size) return null;
  const from = opening.own ?? size.dimensions;
  const way = (label: string, scope: Scope): FigureChoice => ({
    label,
    apply: (value) => {
      const dimensions = resized(document, pattern, { from, dimension, value });
      return 'reason' in dimensions
        ? (dimensions as Impossible)
        : reshaped(document, { opening, box, side, dimensions: dimensions as Dimensions, scope });
    },
  });
  const alone = way(`${opening.mark} alone`, 'alone');
  const fresh = way('a new size', 'new size');
  const count = uses(document, pattern.id, size.id);
  const choices = opening.own
    ? [alone]
    : count > 1
      ? [way(`all ${count} of its size`, 'size'), alone, fresh]
      : [way('its size', 'size')];
  return { drawn: dimension.drawn, label: labels[dimension.drawn], choices };
}

type Scope = 'alone' | 'size' | 'new size';

/** Dimensions with one of them changed; where the others do not go with it, they keep their share of the width. */
function resized(
  document: ProjectDocument,
  { profile }: Pattern,
  {
    from,
    dimension: { name, drawn },
    value,
  }: { from: Dimensions; dimension: { name: string; drawn: Drawn }; value: number },
): Dimensions | Impossible {
  const plain = { ...from, [name]: value };
  const made = profileOf(profile, plain, document.units);
  if (!isImpossible(made) || drawn !== 'width' || name === 'diameter') return isImpossible(made) ? made : plain;
  const scaled = dimensionsFor(profile.shape, from, value, from.height ?? value);
  return isImpossible(profileOf(profile, scaled, document.units)) ? made : scaled;
}

/** The opening with other dimensions, the side opposite to the one that was drawn left in its place; round ones keep their middle the other way. */
function reshaped(
  document: ProjectDocument,
  {
    opening,
    box,
    side,
    dimensions,
    scope,
  }: { opening: Opening; box: Box; side: BoxSide; dimensions: Dimensions; scope: Scope },
): ChangeSet | Impossible {
  const pattern = document.patterns[opening.pattern]!;
  const profile = profileOf(pattern.profile, dimensions, document.units);
  if (isImpossible(profile)) return profile;
  const { s, t, width, height } = box;
  const place = {
    s: side === 'left' ? s + width - profile.width : side === 'right' ? s : s + (width - profile.width) / 2,
    t:
      side === 'sill'
        ? t + height - profile.height
        : side === 'head' || side === 'springing'
          ? t
          : t + (height - profile.height) / 2,
    face: box.face ?? ('outer' as const),
  };
  const changes: Change[] = [];
  let next: Opening = { ...opening, own: { ...dimensions } };
  let patterns = document.patterns;
  if (scope !== 'alone') {
    const id = scope === 'size' ? opening.size : newId('s');
    const size = { ...(scope === 'size' ? pattern.sizes[id]! : { name: '' }), id, dimensions: { ...dimensions } };
    const grown = { ...pattern, sizes: { ...pattern.sizes, [id]: size } };
    changes.push(putting('patterns', grown));
    patterns = { ...patterns, [pattern.id]: grown };
    next = { ...opening, size: id };
    delete next.own;
  }
  const scratch = { ...document, patterns, openings: { ...document.openings, [opening.id]: next } };
  const label = sizeLabel(pattern, { id: '', name: '', dimensions }, document.units);
  return edit(`draw ${opening.mark} out to ${label}`, ...changes, ...putTo(scratch, new Map([[opening.id, place]])));
}

/** A point of a wall's outline that can be drawn to another place, metres on the face on which it is seen. */
export interface WallHandle {
  kind: 'start' | 'end' | 'top' | 'start top' | 'end top' | 'apex';
  s: number;
  t: number;
  /** Where it is along the outer face, and how far it goes along that for each metre on the face on which it is seen. */
  outer: { s: number; each: number };
  /** The ways in which it goes. */
  along: boolean;
  up: boolean;
  title: string;
}

/** A wall's inner face: how long it is, and where on it a distance along the outer face leads, metres. */
export interface Within {
  length: number;
  toInner: (s: number) => number;
}

/** A wall's inner face; null where it is the outer one that is seen. */
export const withinOf = (document: ProjectDocument, wall: Wall, face: FaceName): Within | null =>
  face === 'inner'
    ? { length: lengthOf(document, wall, 'inner'), toInner: (s) => overTo(document, wall, s, 'inner') }
    : null;

/** Where a wall can be taken hold of on its outer face, or on its inner one. */
export function wallHandles(wall: Wall, within: Within | null = null): WallHandle[] {
  if (!within) return outerHandles(wall).map((handle) => ({ ...handle, outer: { s: handle.s, each: 1 } }));
  const along = extentOf(wall).length / within.length;
  return outerHandles(wall).map((handle) => ({
    ...handle,
    s: within.toInner(handle.s),
    // Its faces grow by as much, an arc’s too, whose radius grows; on one that stays, distances are in proportion.
    outer: { s: handle.s, each: handle.kind === 'apex' && wall.sweep ? -along : -1 },
  }));
}

/** A handle's place along the outer face, where it has been drawn to a place on the face on which it is seen. */
export const onOuter = ({ s, outer }: WallHandle, to: number): number => outer.s + (to - s) * outer.each;

/** Whether a handle is at the left of the face on which it is seen, where distances along that begin. */
export const isAtLeft = ({ kind, outer }: WallHandle): boolean => kind === (outer.each > 0 ? 'start' : 'end');

function outerHandles(wall: Wall): Omit<WallHandle, 'outer'>[] {
  const { length } = extentOf(wall);
  const { top, height } = wall;
  const handles: Omit<WallHandle, 'outer'>[] = lengthChoices(wall).map((_, i) => ({
    kind: i === 0 ? ('end' as const) : ('start' as const),
    s: i === 0 ? length : 0,
    t: Math.min(height, endHeight(wall)) / 2,
    along: true,
    up: false,
    title: i === 0 ? 'Drag the wall’s end' : 'Drag the wall’s start: what is measured from the end stays',
  }));
  const up = (kind: WallHandle['kind'], { s, t }: { s: number; t: number }, title: string, along = false): void =>
    void handles.push({ kind, s, t, along, up: true, title });
  if (top.kind === 'level') up('top', { s: length / 2, t: height }, 'Drag the wall’s top');
  else {
    up('start top', { s: 0, t: height }, 'Drag the height of its start');
    if (top.kind !== 'stepped') up('end top', { s: length, t: endHeight(wall) }, 'Drag the height of its end');
    if (top.kind === 'gabled') up('apex', { s: top.at * length, t: top.apex }, 'Drag the apex', true);
  }
  return handles;
}

function endHeight({ top, height }: Wall): number {
  if (top.kind === 'raked') return top.end;
  if (top.kind === 'gabled') return top.end ?? height;
  return height;
}

/** A wall with one of its points drawn to a place on its outer face. */
export function drawWallPoint(wall: Wall, kind: WallHandle['kind'], s: number, t: number): ChangeSet | Impossible {
  const { length } = extentOf(wall);
  const [atEnd, atStart] = lengthChoices(wall);
  const high = Math.max(0.1, t);
  const { top } = wall;
  switch (kind) {
    case 'end':
      return atEnd!.apply(Math.max(0.1, s));
    case 'start':
      return atStart!.apply(Math.max(0.1, length - s));
    case 'top':
    case 'start top':
      return changeElement(wall, { height: high }, 'heighten');
    case 'end top':
      return changeElement(
        wall,
        { top: top.kind === 'raked' ? { ...top, end: high } : top.kind === 'gabled' ? { ...top, end: high } : top },
        'change the top of',
      );
    case 'apex':
      return top.kind === 'gabled'
        ? changeElement(
            wall,
            { top: { ...top, apex: high, at: Math.min(0.999, Math.max(0.001, Math.round((s / length) * 1e6) / 1e6)) } },
            'change the top of',
          )
        : { reason: 'it has no apex', mend: 'Give its top a gable first.' };
  }
}
