/** Sheets: an element as a chart, an outline on it and a build-up, which is all that the cut needs to know of it. */
import type { Fault, Told } from '../finding.ts';
import {
  type Arches,
  extentOf,
  formOf,
  kindOf,
  type Element,
  type FaceName,
  type Form,
  type Layer,
  type RoofForm,
  type ShellForm,
} from '@yard-arch/document';
import type { Fineness } from '../profile/flatten.ts';
import type { SectionLine } from '../profile/section.ts';
import { archesFault } from './arches.ts';
import { deepest, type Chart } from './chart.ts';
import { courseShape } from './forms/course.ts';
import { plateShape } from './forms/plate.ts';
import { mostEdgePoints, tooFine, type Shape } from './forms/shape.ts';
import { millimetre, relative } from '../tolerances.ts';

/** Names of a sheet's own edges, by the side of its outline. */
export type SheetEdge =
  | 'base'
  | 'end'
  | 'top'
  | 'start'
  | 'edge'
  | 'hole'
  // Of a roof's planes.
  | 'eaves'
  | 'verge'
  | 'abutment'
  | 'ridge'
  | 'hip'
  | 'valley'
  | 'fold';

/**
 * A sheet's outline in (s, t): closed loops, the sheet on the left of each edge. Edge i runs from point i to next[i]. Where an edge does not go square through the thickness, as
 * at a mitred end, its section says how.
 */
export interface SheetOutline {
  xs: Float64Array;
  ys: Float64Array;
  next: Uint32Array;
  loops: number[];
  names: SheetEdge[];
  sections: (SectionLine | null)[];
  chords: ({ ax: number; ay: number; bx: number; by: number } | null)[];
  /** Of corners that go through the thickness on a way of their own, as under a roof those of a wall that bends: that way, in place of where their edges' lines meet. */
  ways?: (CornerWay | null)[];
}

/** Where a corner is at depths, straight between them: [depth, along, up], metres, the first on the outer face and the last on the inner one. */
export type CornerWay = readonly (readonly [n: number, s: number, t: number])[];

/** A closed loop on a face: where its points stand in space (x, y, z, metres), and where on the face. */
export interface OpenLoop {
  points: readonly (readonly [number, number, number])[];
  xs: readonly number[];
  ys: readonly number[];
}

/** What bounds a sheet between two depths where others go on from it: loops on its outer and its inner face, with no surface between. */
export interface Rim {
  outer: readonly OpenLoop[];
  inner: readonly OpenLoop[];
}

/** An element as a sheet: its face's outline in (s, t), counter-clockwise as seen from outside, and its layers along n. */
export interface Sheet {
  element: string;
  chart: Chart;
  length: number;
  /** Height of its highest point. */
  height: number;
  outline: SheetOutline;
  /** Lines that are seen on it: from (s, t) to (s, t). */
  seams?: readonly (readonly [number, number, number, number])[];
  /** Depths at which layers begin and end, from 0 on the outer face to the thickness. One more than there are layers. */
  boundaries: Float64Array;
  layers: readonly Layer[];
  thickness: number;
  /** What it is called in a sentence. */
  noun: string;
  /** What would give it more room, in a sentence. */
  larger: string;
  texture: Element['texture'];
  /** What became of its ends that were to be joined to other walls. */
  joins: readonly Told[];
  /** Why the element cannot be made, and what would mend it. */
  fault: (Fault & { trouble?: Error }) | null;
  /** Where it is one of several that make a body together: its name among its element's faces, and what bounds it between two depths. */
  face?: FaceName;
  rim?: (from: number, to: number) => Rim;
  /** The transverse arches that it carries, of a barrel. */
  arches?: Arches;
  /** Where only one of its skins is to be cut: from one depth to another, `whole` where it is all layers together. */
  skin?: { from: number; to: number; whole: boolean };
}

/** How a wall's ends depart from square, and what they meet; by joins. */
export interface WallEnds {
  start: SectionLine | null;
  end: SectionLine | null;
  notes?: Told[];
  /** Its top where that follows a roof. */
  top?: UnderRoof | undefined;
}

/** A wall's top under a roof, from its start to its end: corners (metres along, metres high), and how each piece between two goes through the thickness. */
export interface UnderRoof {
  points: readonly (readonly [number, number])[];
  sections: readonly (SectionLine | null)[];
  /** By corner, its way through the thickness. */
  ways: readonly CornerWay[];
}

const roughly: Fineness = { segmentsPerHalfCircle: 2 };

/** How many points a form's edge has, drawn so finely. */
export const edgePoints = (form: Exclude<Form, RoofForm | ShellForm>, fineness: Fineness): number =>
  shapeOf(form, { start: null, end: null }, 0).points(fineness);

/** How finely arcs are drawn whose edge would have so many points: what is too fine to be begun with is drawn roughly, and cannot be made. */
export const drawnFinely = (points: number, fineness: Fineness): Fineness =>
  points > mostEdgePoints ? roughly : fineness;

/** What a form makes of itself. */
function shapeOf(form: Exclude<Form, RoofForm | ShellForm>, ends: WallEnds, thickness: number): Shape {
  return form.form === 'course' ? courseShape(form, ends, thickness) : plateShape(form);
}

/** The depths at which layers begin and end, metres. */
export function boundariesOf(layers: readonly Layer[]): Float64Array {
  const boundaries = new Float64Array(layers.length + 1);
  layers.forEach((layer, i) => {
    boundaries[i + 1] = boundaries[i]! + layer.thickness;
  });
  return boundaries;
}

/** The sheet of an element by itself, but for those of several faces. */
export function sheetAnew(element: Element, ends: WallEnds, fineness: Fineness): Sheet {
  const boundaries = boundariesOf(element.layers);
  const thickness = boundaries[element.layers.length]!;
  const shape = shapeOf(formOf(element) as Exclude<Form, RoofForm | ShellForm>, ends, thickness);
  const points = shape.points(fineness);
  const drawn = drawnFinely(points, fineness);
  const chart = shape.chart(drawn);
  const outline = shape.outline(drawn);
  const { noun } = kindOf(element);
  let fault: Sheet['fault'] = points > mostEdgePoints ? tooFine(shape.fine, points) : null;
  if (fault) {
    // Nothing more need be known of it.
  } else if (chart.kind === 'bent' && deepest(chart) <= thickness * (1 + relative))
    fault = {
      code: 'too-thick',
      reason: `the ${noun} is as thick as its curve is round, or turns too sharply for its runs`,
      mend: 'Make it thinner, give it a larger radius, or longer runs.',
    };
  else if (outline.fault) fault = outline.fault;
  else if (ends.top && Math.min(...ends.top.points.map(([, t]) => t)) < millimetre)
    fault = {
      code: 'roof-below',
      reason: `the roof that its top follows comes down to its base or below`,
      mend: 'Raise the roof, or give the wall another top.',
    };
  const form = formOf(element);
  const arches = form.form === 'course' ? form.arches : undefined;
  const sheet: Sheet = {
    ...(arches ? { arches } : {}),
    element: element.id,
    chart,
    length: extentOf(element).length,
    height: Math.max(...outline.ys),
    outline,
    boundaries,
    layers: element.layers,
    thickness,
    noun,
    larger: shape.larger,
    texture: element.texture,
    joins: ends.notes ?? [],
    fault,
  };
  return arches && !fault ? { ...sheet, fault: archesFault(sheet, arches) } : sheet;
}

/** The sheet of what cannot be made: of nothing, and it says why. */
export function nothingOf(element: Element, fault: NonNullable<Sheet['fault']>): Sheet {
  const { x = 0, y = 0, z = 0 } = (element as Partial<Element>).start ?? {};
  return {
    element: element.id,
    chart: { kind: 'flat', origin: [x, y, z], along: [1, 0, 0], up: [0, 0, 1], inward: [0, 1, 0] },
    length: 0,
    height: 0,
    outline: {
      xs: new Float64Array(0),
      ys: new Float64Array(0),
      next: new Uint32Array(0),
      loops: [],
      names: [],
      sections: [],
      chords: [],
    },
    boundaries: new Float64Array(1),
    layers: [],
    thickness: 0,
    noun: kindOf(element).noun,
    larger: 'larger',
    texture: undefined,
    joins: [],
    fault,
  };
}
