/** What an element kind tells of itself: all that is asked of a kind is told by it, so that a new one is a folder and a line in the registry. */
import type { z } from 'zod';
import type { FreeOutline } from '../outline-schema.ts';
import type { Layer } from './common.ts';
import type { Ribs } from './bay/bay.ts';
import type { RoofEdge, Trims } from './roof/roof.ts';
import type { Arches } from './vault/vault.ts';
import type { Run, Top, WallEnd } from './wall/wall.ts';

/** A place in space, metres. */
interface Place {
  x: number;
  y: number;
  z: number;
}

/**
 * A sheet that follows a course in plan and stands upright on it, or leans by a batter (degrees). Where it `lies`, the plan of its course is an upright plane: x of it runs level in the
 * direction `turn`, y straight down, and what would be height runs level, to the left of x as seen from above.
 */
export interface CourseForm {
  form: 'course';
  start: Place;
  /** The direction in which the course leaves its start, degrees, counter-clockwise from x in its plan. */
  leaves: number;
  runs: readonly Run[];
  height: number;
  top: Top;
  batter?: number | undefined;
  ends?: { start: WallEnd; end: WallEnd } | undefined;
  lies?: { turn: number } | undefined;
  /** Of what lies as a vault: its transverse arches. */
  arches?: Arches | undefined;
}

/** A flat sheet with an outline of its own, through `start`: its s axis level in the direction `turn`, its t axis rising at `tilt` (degrees, 90 is upright, 0 is seen from above). */
export interface PlateForm {
  form: 'plate';
  start: Place;
  turn: number;
  tilt: number;
  outline: FreeOutline;
  holes?: readonly FreeOutline[] | undefined;
}

/** Planes over an outline in plan, whose undersides pass over its edges at the level of `start`; a sheet for each. */
export interface RoofForm {
  form: 'roof';
  start: Place;
  turn: number;
  edges: readonly RoofEdge[];
  courts?: readonly (readonly RoofEdge[])[] | undefined;
  /** How its eaves end; plumb unless said otherwise. */
  ends?: 'plumb' | 'square' | 'level' | undefined;
  trims?: Trims | undefined;
}

interface ShellBase {
  form: 'shell';
  start: Place;
  turn: number;
  rise: number;
}

/** Severies over the sides of a convex polygon in plan. */
export interface BayForm extends ShellBase {
  of: 'bay';
  corners: readonly { x: number; y: number }[];
  profile: 'segment' | 'pointed' | 'ellipse' | 'catenary';
  severies: 'groin' | 'cloister';
  ribs?: Ribs | undefined;
}

/** A profile turned about an upright axis through `start`; `crown` and `drum` are 0 where it has none. */
export interface DomeForm extends ShellBase {
  of: 'dome';
  span: number;
  profile: 'segment' | 'pointed' | 'onion';
  crown: number;
  drum: number;
}

/** A body whose faces are curved two ways or meet along groins: its openings are set out as seen from above. */
export type ShellForm = BayForm | DomeForm;

/** What the geometry need know of an element: a kind says which of these it is, the core makes sheets of them. */
export type Form = CourseForm | PlateForm | RoofForm | ShellForm;

/** What a new element is given, whichever its kind. */
export interface Fresh {
  id: string;
  name: string;
  start: Place;
  turn: number;
}

/** A plain figure of a kind: a field of its own that holds a length (metres), or an angle (degrees). */
export interface Figure {
  field: string;
  label: string;
  holds: 'length' | 'angle';
  /** What changing it is called, as in “heighten”. */
  verb: string;
  /** Whether it may be nothing. */
  optional?: true;
}

/** What of a few a field of a kind holds: each with its name and a small drawing, strokes in a box of 48 by 30. The first is what it is where nothing is said. */
export interface Choices {
  field: string;
  label: string;
  /** What changing it is called. */
  verb: string;
  options: readonly { value: string; label: string; drawing: string }[];
}

/** A face on which openings are set out: its name in documents, and what it is called. */
export interface FaceOf {
  name: FaceName;
  label: string;
}

/** A face by its name: a sheet's two are `outer` and `inner`, a roof's planes are called by their edges. */
export type FaceName = string;

/** The faces of a sheet as they are called: its own first. */
export const bothFaces = (outer: string, inner: string): (() => readonly FaceOf[]) => {
  const faces = [
    { name: 'outer', label: outer },
    { name: 'inner', label: inner },
  ];
  return () => faces;
};

/** A kind of element. */
export interface ElementKind<Schema extends z.ZodType = z.ZodType> {
  schema: Schema;
  /** What it is called in a sentence, and what it is called where it is chosen from. */
  noun: string;
  title: string;
  /** What it is good for, in a few words. */
  about: string;
  /** A small drawing of it: strokes of an SVG path in a box of 48 by 32. */
  drawing: string;
  form: (element: z.infer<Schema>) => Form;
  /** A new one, of usual dimensions. @param material what it is made of. */
  fresh: (common: Fresh, material: string) => z.infer<Schema>;
  /** Its faces; an opening that says nothing is on the first. */
  faces: (element: z.infer<Schema>) => readonly FaceOf[];
  /** How far before the others a new one is put, metres. */
  apart: number;
  /** Its plain figures, in the order in which they are shown. Courses and outlines are not among them. */
  figures: readonly Figure[];
  choices?: readonly Choices[];
  /** Whether it is drawn in plan by its ends, joined, split and bent there. */
  inPlan?: true;
}

/** An outline of four corners from the origin. */
export const rectangle = (width: number, height: number): FreeOutline => [
  { x: 0, y: 0 },
  { x: width, y: 0 },
  { x: width, y: height },
  { x: 0, y: height },
];

/** One layer of a material. */
export const oneLayer = (thickness: number, material: string): Layer[] => [{ thickness, material }];
