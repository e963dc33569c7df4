/** Barrel vaults: curved sheets that lie over a span. */
import { z } from 'zod';
import { extent, id } from '../../figures.ts';
import { common } from '../common.ts';
import { bothFaces, oneLayer, type Choices, type ElementKind } from '../kind.ts';
import type { Run } from '../wall/wall.ts';

export const vaultProfiles = ['segment', 'pointed', 'ellipse', 'catenary'] as const;

const archesSchema = z.strictObject({
  count: z.int('must be a whole number').min(1, 'must be at least 1').max(200, 'must be at most 200'),
  width: extent,
  depth: extent,
  material: id,
});
/** Transverse arches under a barrel: how many, evenly from one end to the other (one alone half way), how wide along it, how far below its soffit, and of what material. Metres. */
export type Arches = z.infer<typeof archesSchema>;

export const vaultSchema = z
  .strictObject({
    ...common,
    kind: z.literal('vault'),
    span: extent,
    rise: extent,
    length: extent,
    profile: z.enum(vaultProfiles, `must be one of ${vaultProfiles.join(', ')}`).optional(),
    arches: archesSchema.optional(),
  })
  .superRefine(({ span, rise, profile }, context) => {
    if (rise > 4 * span)
      context.addIssue({ code: 'custom', path: ['rise'], message: 'must be at most four times the span' });
    if (profile === 'pointed' && rise <= span / 2)
      context.addIssue({
        code: 'custom',
        path: ['rise'],
        message: 'must be more than half the span under a pointed vault: lower, its arcs would spring inward',
      });
  });
/**
 * A barrel vault. Its soffit springs from `start` (metres) and comes down again a `span` away in the direction `turn` (degrees), and rises by `rise`: an arc of a circle unless its `profile` is
 * pointed (two arcs whose centres are on the springing line), half an ellipse or a catenary. It runs on for its `length` to the left of that, as seen from above. Its outer face is its back (the extrados), and the
 * layers follow inward; its sheet shows that face unrolled, from the first springing to the other.
 */
export type Vault = z.infer<typeof vaultSchema>;

const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** A vault's back in its own upright plane, from one springing to the other: x along the span, y down, metres; where it leaves to, degrees. */
interface Back {
  x: number;
  y: number;
  leaves: number;
  runs: Run[];
}

function backOf({ span, rise, profile = 'segment' }: Vault, thickness: number): Back {
  switch (profile) {
    case 'segment': {
      // Half of the angle over the span, from tan(φ/2) = rise / (span/2).
      const half = 2 * Math.atan((2 * rise) / span);
      const radius = span / 2 / Math.sin(half) + thickness;
      return {
        x: -thickness * Math.sin(half),
        y: -thickness * Math.cos(half),
        leaves: degrees(-half),
        runs: [{ turn: 0, length: 2 * half * radius, sweep: degrees(2 * half) }],
      };
    }
    case 'pointed': {
      // Each arc is about a centre on the springing line, so far beyond the middle.
      const half = span / 2;
      const beyond = (rise * rise - half * half) / (2 * half);
      const radius = beyond + half + thickness;
      const sweep = Math.acos(beyond / radius);
      const run = { length: radius * sweep, sweep: degrees(sweep) };
      return {
        x: -thickness,
        y: 0,
        leaves: -90,
        runs: [
          { turn: 0, ...run },
          { turn: 180 - 2 * degrees(sweep), ...run },
        ],
      };
    }
    case 'ellipse':
      return arcsAlong(thickness, (share) => {
        const angle = Math.PI * share;
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
        return { x: (span / 2) * (1 - cos), y: -rise * sin, dx: (span / 2) * sin, dy: -rise * cos };
      });
    case 'catenary': {
      const half = span / 2;
      const scale = catenaryScale(half, rise);
      return arcsAlong(thickness, (share) => {
        const at = (half / scale) * (2 * share - 1);
        return {
          x: half + scale * at,
          y: -rise + scale * (Math.cosh(at) - 1),
          dx: 1,
          dy: Math.sinh(at),
        };
      });
    }
  }
}

/** The scale c of the catenary y = c·cosh(x/c) that rises by so much over half a span. */
export function catenaryScale(half: number, rise: number): number {
  let [low, high] = [half / 700, 1e6 * half];
  for (let i = 0; i < 200; i++) {
    const middle = Math.sqrt(low * high);
    if (middle * (Math.cosh(half / middle) - 1) > rise) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}

/** Pieces of a curve that is followed by arcs. */
const pieces = 24;

/** The back of a soffit that is given by its points and directions, from share 0 to 1: arcs between points of it, each turned as the curve is between them. */
function arcsAlong(
  thickness: number,
  soffit: (share: number) => { x: number; y: number; dx: number; dy: number },
): Back {
  const points = Array.from({ length: pieces + 1 }, (_, i) => {
    const { x, y, dx, dy } = soffit(i / pieces);
    const size = Math.hypot(dx, dy);
    // Out of the soffit is to the left of its way: y runs down.
    return { x: x + (thickness * dy) / size, y: y - (thickness * dx) / size, angle: Math.atan2(dy, dx) };
  });
  let now = points[0]!.angle;
  const leaves = degrees(now);
  const runs = points.slice(1).map((b, i): Run => {
    const a = points[i]!;
    const sweep = b.angle - a.angle;
    const chord = Math.hypot(b.x - a.x, b.y - a.y);
    const begins = Math.atan2(b.y - a.y, b.x - a.x) - sweep / 2;
    const turn = begins - now;
    now = begins + sweep;
    const length = Math.abs(sweep) < 1e-9 ? chord : (chord * sweep) / 2 / Math.sin(sweep / 2);
    return { turn: degrees(turn), length, ...(Math.abs(sweep) < 1e-9 ? {} : { sweep: degrees(sweep) }) };
  });
  return { x: points[0]!.x, y: points[0]!.y, leaves, runs };
}

/** The profiles of barrels, and of what is made of them. */
export const vaultChoice: Choices = {
  field: 'profile',
  label: 'Profile',
  verb: 'redraw',
  options: [
    { value: 'segment', label: 'circle', drawing: 'M6 26A18 18 0 0 1 42 26' },
    { value: 'pointed', label: 'pointed', drawing: 'M8 26A26 26 0 0 1 24 4A26 26 0 0 1 40 26' },
    { value: 'ellipse', label: 'ellipse', drawing: 'M4 26A20 12 0 0 1 44 26' },
    { value: 'catenary', label: 'catenary', drawing: 'M8 26C13 2 20 4 24 4S35 2 40 26' },
  ],
};

export const vaultKind: ElementKind<typeof vaultSchema> = {
  schema: vaultSchema,
  noun: 'vault',
  title: 'Vault',
  about: 'a barrel over a span',
  drawing:
    'M5 28V24A10 14 0 0 1 25 24V28M25 28L44 22V18A10 14 0 0 0 34 4.5L15 10M9 28V25A6 10 0 0 1 21 25V28M5 28H9M21 28H25',
  form: (vault) => {
    const { start, turn, length, layers } = vault;
    const thickness = layers.reduce((sum, layer) => sum + layer.thickness, 0);
    const { x, y, leaves, runs } = backOf(vault, thickness);
    const radians = (turn * Math.PI) / 180;
    return {
      form: 'course',
      start: { x: start.x + x * Math.cos(radians), y: start.y + x * Math.sin(radians), z: start.z - y },
      leaves,
      runs,
      height: length,
      top: { kind: 'level' },
      lies: { turn },
      ...(vault.arches ? { arches: vault.arches } : {}),
    };
  },
  fresh: (fresh, material) => ({
    ...fresh,
    kind: 'vault',
    span: 5,
    rise: 2.5,
    length: 8,
    layers: oneLayer(0.3, material),
  }),
  faces: bothFaces('back', 'soffit'),
  apart: 10,
  figures: [
    { field: 'span', label: 'Span', holds: 'length', verb: 'widen' },
    { field: 'rise', label: 'Rise', holds: 'length', verb: 'raise' },
    { field: 'length', label: 'Length', holds: 'length', verb: 'lengthen' },
  ],
  choices: [vaultChoice],
};
