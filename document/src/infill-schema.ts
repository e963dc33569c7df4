/** Infill: what stands in an opening. A frame swept along the profile at its seat, round a field; and what a field is. */
import { z } from 'zod';
import { extent, id, number } from './figures.ts';
import { importedMaterials, importedShape, type Imported } from './imported-schema.ts';
import { pointSchema } from './outline-schema.ts';

/** A length that may be nothing, metres. */
const upTo = (most: number) => number.min(0, 'must be at least 0').max(most, `must be at most ${most} m`);

const width = extent.max(1, 'must be at most 1 m');
const thickness = extent.max(0.5, 'must be at most 0.5 m');

const degreesTo = (most: number) =>
  number.min(0, `must be from 0 to ${most} degrees`).max(most, `must be from 0 to ${most} degrees`);

export const mouldingKinds = ['chamfered', 'rounded', 'hollowed', 'ogee'] as const;

export const mouldingSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.enum(mouldingKinds), size: extent.max(0.3, 'must be at most 0.3 m') }),
    z.strictObject({
      kind: z.literal('drawn'),
      outline: z.array(pointSchema).min(3, 'must hold at least three points').max(64, 'must hold at most 64 points'),
    }),
  ],
  { error: `must say its kind: ${mouldingKinds.join(', ')} or drawn` },
);
/**
 * An edge that is worked: taken off at 45°, rounded, hollowed or run as an ogee, so far along both ways; or as it is drawn, cut through and seen from above, its front below and the opening on its right,
 * with a straight side on the left and a straight back, which meet where the member is whole. Metres.
 */
export type Moulding = z.infer<typeof mouldingSchema>;

export const memberSchema = z.strictObject({ width, depth: width, material: id });
/** A member's section, metres: how wide it is seen, how deep it is into the wall; and its material. */
export type Member = z.infer<typeof memberSchema>;

export const barSchema = memberSchema.extend({ moulding: mouldingSchema.optional() });
/** A bar between lights, with the edges worked at which it is seen from the front. */
export type Bar = z.infer<typeof barSchema>;

export const jointKinds = ['mitred', 'stiles through', 'rails through'] as const;

export const framingSchema = memberSchema.extend({
  /** The edge in front, towards what the frame holds. */
  moulding: mouldingSchema.optional(),
  /** A step that takes what the frame holds: so wide over its edge, so deep from its back, or from its front where it says so. */
  rebate: z
    .strictObject({ width, depth: width, from: z.enum(['back', 'front'], 'must be back or front').optional() })
    .optional(),
  /** How its members meet at corners; mitred where nothing is said. */
  joints: z.enum(jointKinds, `must be ${jointKinds.join(', ')}`).optional(),
});
/** The members of a frame, with how they are worked. */
export type Framing = z.infer<typeof framingSchema>;

export const seatSchema = z.strictObject({
  from: z.enum(['outer', 'inner', 'check', 'layer'], 'must be outer, inner, check or layer'),
  depth: upTo(10),
  layer: z.int('must be a whole number').min(1, 'must be at least 1').max(24, 'must be at most 24').optional(),
});
/**
 * Where an infill stands: its front so deep behind the face that it is set out on, its back so deep before the face behind, or
 * its front so deep behind the first check of the jambs, or behind the near side of a layer, counted from the face that it is set out on (the first unless it is said). Metres.
 */
export type Seat = z.infer<typeof seatSchema>;

export const lightsSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      kind: z.literal('equal'),
      count: z.int('must be a whole number').min(2, 'must be at least 2').max(64, 'must be at most 64'),
    }),
    z.strictObject({ kind: z.literal('at most'), size: extent }),
    z.strictObject({
      kind: z.literal('at'),
      places: z
        .array(
          z.strictObject({
            from: z.enum(['start', 'end', 'share'], 'must be start, end or share'),
            value: number.min(0, 'must be at least 0').max(1000, 'must be at most 1000'),
          }),
        )
        .min(1, 'must hold at least one place')
        .max(63, 'must hold at most 63 places'),
    }),
  ],
  { error: 'must say its kind: equal, at most or at' },
);
/**
 * How a field is divided into lights: so many equal ones; as many equal ones as keep each from being larger than a size; or by
 * members whose middles stand at kept distances from its start or end (from the left, or from below), metres, or at shares of it.
 */
export type Lights = z.infer<typeof lightsSchema>;

export const ways = ['mullions', 'transoms'] as const;
export const hangings = [
  'left',
  'right',
  'top',
  'bottom',
  'pivoted upright',
  'pivoted level',
  'slides left',
  'slides right',
  'slides up',
  'slides down',
  'folds left',
  'folds right',
  'fixed',
] as const;
export type Hanging = (typeof hangings)[number];

/** Panes of glass, in the middle of the depth that they stand in; with a cavity between them where they are several. Metres. */
export interface Glass {
  kind: 'glass';
  material: string;
  /** Of each pane. */
  thickness: number;
  panes?: number | undefined;
  cavity?: number | undefined;
  /** Whether each pane is a single sheet in the middle of its thickness, rather than a solid. */
  sheet?: boolean | undefined;
}

/** A panel, likewise: plain, or raised on both faces by so much within a margin over which it slopes. */
export interface Panel {
  kind: 'panel';
  material: string;
  thickness: number;
  raised?: { margin: number; rise: number } | undefined;
}

/** Boards side by side, of equal widths of no more than so much, with open joints before a backing of half their thickness. Metres. */
export interface Boards {
  kind: 'boards';
  material: string;
  thickness: number;
  width: number;
  way: 'upright' | 'level';
  joint: number;
}

/** Blades one above another, of a depth from edge to edge, sloping down outward; at equal spacings of no more than so much. Metres, degrees. */
export interface Louvres {
  kind: 'louvres';
  material: string;
  thickness: number;
  width: number;
  spacing: number;
  slope: number;
}

/** A sheet with round holes in rows, each between two of the next row; their diameter, and how far apart they are. Metres. */
export interface Perforated {
  kind: 'perforated';
  material: string;
  thickness: number;
  hole: number;
  pitch: number;
}

/** A field with nothing in it. */
export interface Empty {
  kind: 'empty';
}

/**
 * A field divided by upright or level members into lights, which meet where there is no bar; the fields are those of the lights in their order, from the left or from below, and begin anew where
 * they are fewer.
 */
export interface Divided {
  kind: 'divided';
  way: (typeof ways)[number];
  bar?: Bar | undefined;
  lights: Lights;
  fields: Field[];
}

/**
 * A field divided by bars that run out from the middle of its foot, or from its middle all round, into so many lights, and by rings about there at shares of its reach; with a hub the bars begin at
 * the first ring. The fields are those of the bands between rings, from the middle outward, and begin anew where they are fewer.
 */
export interface Fan {
  kind: 'fan';
  about: 'foot' | 'middle';
  bar: Bar;
  count: number;
  rings: number[];
  hub: boolean;
  fields: Field[];
}

/** A field of so many lights between mullions that part at the springing and go on as both sides of its arch do, crossing one another. */
export interface Interlacing {
  kind: 'interlacing';
  bar: Bar;
  count: number;
  fields: Field[];
}

/** A field of small panes between bars aslant both ways, so many metres apart at most, at a slope in degrees. */
export interface Lattice {
  kind: 'lattice';
  bar: Bar;
  spacing: number;
  slope: number;
  fields: Field[];
}

export const handleKinds = ['knob', 'lever', 'pull'] as const;

/** What a leaf is taken hold of by, on both faces, in the middle of its free stile; so high above its foot, or at half its height. */
export interface Handle {
  kind: (typeof handleKinds)[number];
  material: string;
  height?: number | undefined;
}

/** Bands of iron across a leaf from its hung side, on the face to which it opens: how many, how wide, and over what share of it. */
export interface Straps {
  count: number;
  width: number;
  share: number;
  material: string;
}

/**
 * A frame of its own with a clearance (metres) about it, round a field; hung on a side, pivoted about its middle, sliding to a side, folding to one in so many leaves, or fixed. It stands open by so
 * many degrees, inward or outward, or has slid by a share of its way.
 */
export interface Leaf {
  kind: 'leaf';
  frame: Framing;
  clearance: number;
  hung: Hanging;
  /** Of one that slides, on which side of what it passes it goes. */
  opens: 'inward' | 'outward';
  angle: number;
  slid?: number | undefined;
  /** So many degrees more or less, another figure for each opening, but the same one every time; of one that slides, hundredths of its way. */
  vary?: number | undefined;
  folds?: number | undefined;
  /** A strip on its free stile that covers the joint to the next leaf. */
  cover?: Member | undefined;
  handle?: Handle | undefined;
  straps?: Straps | undefined;
  field: Field;
}

/** What is within a frame, a leaf or a light. */
export type Field =
  Glass | Panel | Boards | Louvres | Perforated | Empty | Imported | Divided | Fan | Interlacing | Lattice | Leaf;

const count = (least: number, most: number) =>
  z.int('must be a whole number').min(least, `must be at least ${least}`).max(most, `must be at most ${most}`);

const share = number.min(0, 'must be from 0 to 1').max(1, 'must be from 0 to 1');

const handleSchema = z.strictObject({
  kind: z.enum(handleKinds, `must be ${handleKinds.join(', ')}`),
  material: id,
  height: extent.optional(),
});

const strapsSchema = z.strictObject({
  count: count(1, 8),
  width: extent.max(0.3, 'must be at most 0.3 m'),
  share: number.min(0.1, 'must be from 0.1 to 1').max(1, 'must be from 0.1 to 1'),
  material: id,
});

export const fieldSchema: z.ZodType<Field> = z.lazy(() => {
  const fields = z.array(fieldSchema).min(1, 'must hold at least one field').max(64, 'must hold at most 64 fields');
  return z.discriminatedUnion(
    'kind',
    [
      z.strictObject({
        kind: z.literal('glass'),
        material: id,
        thickness,
        panes: count(1, 4).optional(),
        cavity: upTo(0.1).optional(),
        sheet: z.boolean('must be true or false').optional(),
      }),
      z.strictObject({
        kind: z.literal('panel'),
        material: id,
        thickness,
        raised: z.strictObject({ margin: width, rise: extent.max(0.2, 'must be at most 0.2 m') }).optional(),
      }),
      z.strictObject({
        kind: z.literal('boards'),
        material: id,
        thickness,
        width,
        way: z.enum(['upright', 'level'], 'must be upright or level'),
        joint: upTo(0.1),
      }),
      z.strictObject({
        kind: z.literal('louvres'),
        material: id,
        thickness: extent.max(0.2, 'must be at most 0.2 m'),
        width,
        spacing: width,
        slope: degreesTo(80),
      }),
      z.strictObject({ kind: z.literal('perforated'), material: id, thickness, hole: width, pitch: width }),
      z.strictObject({ kind: z.literal('empty') }),
      z.strictObject(importedShape),
      z.strictObject({
        kind: z.literal('divided'),
        way: z.enum(ways, 'must be mullions or transoms'),
        bar: barSchema.optional(),
        lights: lightsSchema,
        fields,
      }),
      z.strictObject({
        kind: z.literal('fan'),
        about: z.enum(['foot', 'middle'], 'must be foot or middle'),
        bar: barSchema,
        count: count(2, 48),
        rings: z
          .array(share.gt(0, 'must be more than 0').lt(1, 'must be less than 1'))
          .max(8, 'must hold at most 8 rings'),
        hub: z.boolean('must be true or false'),
        fields,
      }),
      z.strictObject({ kind: z.literal('interlacing'), bar: barSchema, count: count(2, 12), fields }),
      z.strictObject({
        kind: z.literal('lattice'),
        bar: barSchema,
        spacing: width,
        slope: number.min(15, 'must be from 15 to 75 degrees').max(75, 'must be from 15 to 75 degrees'),
        fields,
      }),
      z.strictObject({
        kind: z.literal('leaf'),
        frame: framingSchema,
        clearance: upTo(0.1),
        hung: z.enum(hangings, `must be ${hangings.slice(0, -1).join(', ')} or ${hangings.at(-1)!}`),
        opens: z.enum(['inward', 'outward'], 'must be inward or outward'),
        angle: degreesTo(180),
        slid: share.optional(),
        vary: degreesTo(90).optional(),
        folds: count(2, 8).optional(),
        cover: memberSchema.optional(),
        handle: handleSchema.optional(),
        straps: strapsSchema.optional(),
        field: fieldSchema,
      }),
    ],
    {
      error:
        'must say its kind: glass, panel, boards, louvres, perforated, empty, imported, divided, fan, interlacing, lattice or leaf',
    },
  );
});

const sides = ['jamb-left', 'jamb-right', 'head', 'sill'] as const;

export const frameSchema = framingSchema.extend({
  /** The sides that have none, as a door has none on its floor. */
  without: z
    .array(z.enum(sides, `must be one of ${sides.join(', ')}`))
    .max(3, 'must leave at least one side')
    .optional(),
});

export const infillSchema = z.strictObject({
  seat: seatSchema,
  gap: upTo(0.2),
  /** On curved faces: flat unless it says otherwise. */
  curve: z.literal('follows', 'must be follows').optional(),
  frame: frameSchema,
  field: fieldSchema,
});
/** What stands in every opening of a pattern: a frame with a gap (metres) to the reveal, round a field. On a curved face it stands flat, or follows the curve. Sections are lengths: a new size never makes them wider. */
export type Infill = z.infer<typeof infillSchema>;

/** How deep fields may lie within fields. */
export const mostFields = 8;

/** All materials that an infill names, by their paths. */
export function infillMaterials(infill: Infill): [path: string, material: string][] {
  return [['frame/material', infill.frame.material], ...fieldMaterials(infill.field, 'field')];
}

/** All materials that a field names, by their paths. */
export function fieldMaterials(field: Field, path: string): [string, string][] {
  switch (field.kind) {
    case 'empty':
      return [];
    case 'glass':
    case 'panel':
    case 'boards':
    case 'louvres':
    case 'perforated':
      return [[`${path}/material`, field.material]];
    case 'imported':
      return importedMaterials(field).map(([at, material]) => [`${path}/${at}`, material]);
    case 'leaf': {
      const { frame, cover, handle, straps } = field;
      return [
        ...Object.entries({ frame, cover, handle, straps }).flatMap(([name, one]): [string, string][] =>
          one ? [[`${path}/${name}/material`, one.material]] : [],
        ),
        ...fieldMaterials(field.field, `${path}/field`),
      ];
    }
    case 'divided':
    case 'fan':
    case 'interlacing':
    case 'lattice':
      return [
        ...(field.bar ? ([[`${path}/bar/material`, field.bar.material]] as [string, string][]) : []),
        ...field.fields.flatMap((one, i) => fieldMaterials(one, `${path}/fields/${i}`)),
      ];
  }
}

/** All meshes that a field names, by their paths. */
export function fieldMeshes(field: Field, path: string): [string, string][] {
  if (field.kind === 'imported') return [[`${path}/mesh`, field.mesh]];
  if (field.kind === 'leaf') return fieldMeshes(field.field, `${path}/field`);
  return 'fields' in field ? field.fields.flatMap((one, i) => fieldMeshes(one, `${path}/fields/${i}`)) : [];
}

/** Leaves that move, by how a field holds them, outermost first. */
export function leavesOf(field: Field): Leaf[] {
  if ('fields' in field) return field.fields.flatMap(leavesOf);
  if (field.kind !== 'leaf') return [];
  return [...(field.hung === 'fixed' ? [] : [field]), ...leavesOf(field.field)];
}

/** How many fields lie in one another at most. */
export function fieldDepth(field: Field): number {
  if (field.kind === 'leaf') return 1 + fieldDepth(field.field);
  return 'fields' in field ? 1 + Math.max(...field.fields.map(fieldDepth)) : 1;
}

/** Whether a leaf slides, rather than turns. */
export const slides = ({ hung }: Leaf): boolean => hung.startsWith('slides');
