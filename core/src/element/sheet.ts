/** Sheets: an element as a chart, an outline on it and a build-up, which is all that the cut needs to know of it. */
import { extentOf, formOf, kindOf, type Element, type Form, type Layer } from '@yard-arch/document';
import type { Fineness } from '../profile/flatten.ts';
import type { SectionLine } from '../profile/section.ts';
import { deepest, type Chart } from './chart.ts';
import { courseShape } from './forms/course.ts';
import { plateShape } from './forms/plate.ts';
import { mostEdgePoints, tooFine, type Shape } from './forms/shape.ts';

/** Names of a sheet's own edges, by the side of its outline. */
export type SheetEdge = 'base' | 'end' | 'top' | 'start' | 'edge' | 'hole';

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
}

/** An element as a sheet: its face's outline in (s, t), counter-clockwise as seen from outside, and its layers along n. */
export interface Sheet {
  element: string;
  chart: Chart;
  length: number;
  /** Height of its highest point. */
  height: number;
  outline: SheetOutline;
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
  joins: string[];
  /** Why the element cannot be made, and what would mend it. */
  fault: { reason: string; mend: string; trouble?: Error } | null;
}

/** How a wall's ends depart from square, and what they meet; by joins. */
export interface WallEnds {
  start: SectionLine | null;
  end: SectionLine | null;
  notes?: string[];
}

const roughly: Fineness = { segmentsPerHalfCircle: 2 };
/** What a form makes of itself. */
function shapeOf(form: Form, ends: WallEnds, thickness: number): Shape {
  return form.form === 'course' ? courseShape(form, ends, thickness) : plateShape(form);
}

/** The sheet of an element by itself. */
export function sheetAnew(element: Element, ends: WallEnds, fineness: Fineness): Sheet {
  const boundaries = new Float64Array(element.layers.length + 1);
  element.layers.forEach((layer, i) => {
    boundaries[i + 1] = boundaries[i]! + layer.thickness;
  });
  const thickness = boundaries[element.layers.length]!;
  const shape = shapeOf(formOf(element), ends, thickness);
  const points = shape.points(fineness);
  // What is too fine to be begun with is drawn roughly, and cannot be made.
  const drawn = points > mostEdgePoints ? roughly : fineness;
  const chart = shape.chart(drawn);
  const outline = shape.outline(drawn);
  const { noun } = kindOf(element);
  let fault: Sheet['fault'] = points > mostEdgePoints ? tooFine(shape.fine, points) : null;
  if (fault) {
    // Nothing more need be known of it.
  } else if (chart.kind === 'bent' && deepest(chart) <= thickness * (1 + 1e-9))
    fault = {
      reason: `the ${noun} is as thick as its curve is round, or turns too sharply for its runs`,
      mend: 'Make it thinner, give it a larger radius, or longer runs.',
    };
  else if (outline.fault) fault = outline.fault;
  return {
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
