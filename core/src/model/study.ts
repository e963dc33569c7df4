/** A study of a pattern: one opening of it in a piece of wall of its own, cut as it would be anywhere, to be drawn as a detail. */
import {
  standsOnSlope,
  type Element,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type Size,
} from '@yard-arch/document';
import type { ElementCut } from './cut-element.ts';
import { cutModel, type Model } from './model.ts';
import { isImpossible, profileOf } from '../profile/shapes.ts';
import { resolveOpening } from '../setout/resolve.ts';
import type { Placed } from '../setout/placed.ts';
import { laidOut, type Laid } from '../infill/infill.ts';
import { tidy } from '../tidy.ts';
import { dot, minus, type Vector } from '../vector.ts';

export interface Study {
  /** As it is drawn: its face upright, along x. */
  cut: ElementCut;
  /** As it stands: what is for a slope on one. */
  standing: ElementCut;
  /** The opening in its place; its lower left corner is (s, t) on the face. */
  placed: Placed;
  /** Why it, or something of it, could not be made; null where all was. */
  reason: string | null;
  /** What of its infill is where as it is seen, outermost first. */
  laid: readonly Laid[];
  /** By which the next study cuts again only what is otherwise. */
  model: Model;
}

/** How much wall there is about it, metres. */
export const about = { beside: 0.7, below: 0.6, above: 0.8 };

/** What is studied: a pattern in one of its sizes, in a wall of such layers. */
interface Studied {
  document: ProjectDocument;
  pattern: Pattern;
  size: Size;
  layers: Element['layers'];
}

/** Studies a pattern in one of its sizes. @param over what its opening has otherwise. @param before one of the same wall. @returns why it cannot be drawn at all */
export function studyOf(
  { document, pattern, size, layers }: Studied,
  over: Partial<Opening> = {},
  before?: Study,
): Study | { reason: string } {
  const profile = profileOf(pattern.profile, size.dimensions, document.units);
  if (isImpossible(profile)) return { reason: profile.reason };
  const { width, height } = profile;
  const foot = pattern.onFloor ? 0 : about.below;
  const slopes = pattern.parts?.some(standsOnSlope) === true;
  const wall = slopes
    ? slopeFor(width, foot + height, layers)
    : wallFor(widthWith(pattern, width), foot + height, layers);
  const opening: Opening = {
    id: 'one',
    mark: pattern.name.slice(0, 60),
    element: wall.id,
    pattern: pattern.id,
    size: size.id,
    along: { from: 'middle', distance: 0 },
    ...(slopes ? { face: plane } : {}),
    up: { from: 'base', distance: foot },
    grip: { across: 'centre', level: 'sill' },
    blockedUp: false,
    ...over,
  };
  const alone: ProjectDocument = {
    ...document,
    elements: { study: wall },
    openings: { one: opening },
    patterns: { [pattern.id]: byItself(pattern) },
    datums: {},
    axes: {},
  };
  const model = cutModel(alone, before?.model);
  const placed = resolveOpening(alone, opening);
  if (!('outline' in placed)) return { reason: placed.reason };
  const laid = pattern.infill ? laidOut(pattern.infill, placed) : [];
  const status = model.statuses.get('one')!;
  // That a door stands on the floor is as it should be.
  const told = status.findings.filter(({ code }) => code !== 'over-edge').map((found) => found.reason);
  const standing = model.cuts.get(wall.id)!;
  return { cut: uprighted(standing), standing, placed, reason: told.length > 0 ? told.join('; ') : null, laid, model };
}

/** A pattern without what needs another element beside its wall: the web that runs to a barrel. */
function byItself(pattern: Pattern): Pattern {
  const parts = pattern.parts?.filter(({ kind }) => kind !== 'lunette');
  return parts?.length === pattern.parts?.length ? pattern : { ...pattern, parts };
}

/** How wide an opening is with its shutters beside it, as they stand open. */
const widthWith = ({ parts }: Pattern, width: number): number =>
  parts?.some(({ kind }) => kind === 'shutters') ? 2 * width : width;

/** A piece of wall for an opening so wide, up to its head. */
const wallFor = (width: number, high: number, layers: Element['layers']): Element => ({
  id: 'study',
  kind: 'wall',
  name: 'Study',
  start: { x: 0, y: 0, z: 0 },
  turn: 0,
  length: tidy(width + 2 * about.beside),
  height: tidy(high + about.above),
  top: { kind: 'level' },
  layers,
});

/** The plane of a slope that is studied. */
const plane = 'e1';

/** A piece of roof of 45 degrees for an opening so wide, up to its head, with room for a dormer. */
function slopeFor(width: number, high: number, layers: Element['layers']): Element {
  const [wide, deep] = [tidy(width + 2 * about.beside + 0.6), tidy((high + 2.4) * Math.SQRT1_2)];
  return {
    id: 'study',
    kind: 'roof',
    name: 'Study',
    start: { x: 0, y: 0, z: 0 },
    turn: 0,
    layers,
    edges: [
      { id: plane, x: 0, y: 0, is: 'eaves', pitch: 45, over: 0 },
      { id: 'e2', x: wide, y: 0, is: 'verge', over: 0 },
      { id: 'e3', x: wide, y: deep, is: 'abutment' },
      { id: 'e4', x: 0, y: deep, is: 'verge', over: 0 },
    ],
  };
}

/** What was cut on a slope as if its plane stood upright along x; what is upright is as it was. */
function uprighted(cut: ElementCut): ElementCut {
  const face = cut.faces?.find((one) => one.face === plane);
  if (!face || face.sheet.chart.kind !== 'flat') return cut;
  const { origin, along, up, inward } = face.sheet.chart;
  const turned = (v: Vector): [number, number, number] => [dot(v, along), dot(v, inward), dot(v, up)];
  const moved = (p: Vector): [number, number, number] => turned(minus(p, origin));
  const all = <T extends Float32Array | Float64Array>(from: T, by: typeof moved): T => {
    const out = from.slice() as T;
    for (let i = 0; i < from.length; i += 3) out.set(by([from[i]!, from[i + 1]!, from[i + 2]!]), i);
    return out;
  };
  return {
    ...cut,
    sheet: {
      ...face.sheet,
      chart: { kind: 'flat', origin: [0, 0, 0], along: [1, 0, 0], up: [0, 0, 1], inward: [0, 1, 0] },
    },
    region: face.region,
    mesh: { ...cut.mesh, points: all(cut.mesh.points, moved), normals: all(cut.mesh.normals, turned) },
    parts: cut.parts.map((part) => {
      const { origin: at, x, y, z } = part.placement;
      return { ...part, placement: { origin: moved(at), x: turned(x), y: turned(y), z: turned(z) } };
    }),
  };
}
