/** The profiles themselves: from named dimensions to exact outlines, or why there is none. */
import { dimensionLabel, formatLength, unitsLabel, type Dimensions, type ProfileShape, type Units } from '@yard-arch/document';
import type { Impossible, LineEdge, Profile, Side } from './profile.ts';

function line(side: Side, ax: number, ay: number, bx: number, by: number): LineEdge {
  return { kind: 'line', side, ax, ay, bx, by };
}

/** A rectangle of a width and a height (metres). */
function rectangle(width: number, height: number): Profile {
  return {
    width,
    height,
    springing: null,
    edges: [
      line('sill', 0, 0, width, 0),
      line('jamb-right', width, 0, width, height),
      line('head', width, height, 0, height),
      line('jamb-left', 0, height, 0, 0),
    ],
    area: width * height,
  };
}

/** A circle of a diameter (metres); its springing line is the horizontal through its centre. Area: π r². */
function circle(diameter: number): Profile {
  const r = diameter / 2;
  const arc = { kind: 'arc', cx: r, cy: r, radius: r } as const;
  return {
    width: diameter,
    height: diameter,
    springing: r,
    edges: [
      { ...arc, side: 'sill', from: -Math.PI, to: 0, seam: 'from', rise: -1 },
      { ...arc, side: 'head', from: 0, to: Math.PI, seam: 'to', rise: 1 },
    ],
    area: Math.PI * r * r,
  };
}

/**
 * A semicircular arch of a span on upright jambs, of a total height (metres). Its rise is half the span, so it springs at
 * height − span / 2, and its area is span × springing + π (span / 2)² / 2.
 */
function semicircularArch(span: number, height: number): Profile {
  const r = span / 2;
  const springing = Math.max(0, height - r);
  const jambs = springing > 0;
  return {
    width: span,
    height,
    springing,
    edges: [
      line('sill', 0, 0, span, 0),
      ...(jambs ? [line('jamb-right', span, 0, span, springing)] : []),
      { kind: 'arc', side: 'head', cx: r, cy: springing, radius: r, from: 0, to: Math.PI, seam: 'to', rise: 1 },
      ...(jambs ? [line('jamb-left', 0, springing, 0, 0)] : []),
    ],
    area: span * springing + (Math.PI * r * r) / 2,
  };
}

/** Whether the outcome of `profileOf` is a refusal. */
export function isImpossible(outcome: Profile | Impossible): outcome is Impossible {
  return 'reason' in outcome;
}

/**
 * The exact outline of a shape with given dimensions (metres).
 * @param units the units in which a refusal is worded.
 * @returns the profile, or why it cannot be made and what would be possible.
 */
export function profileOf(shape: ProfileShape, dimensions: Dimensions, units: Units = 'mm'): Profile | Impossible {
  const length = (metres: number): string => `${formatLength(metres, units)}${units === 'ft-in' ? '' : ` ${unitsLabel(units)}`}`;
  const take = (name: string): number => dimensions[name] ?? NaN;
  for (const [name, value] of Object.entries(dimensions))
    if (!(Number.isFinite(value) && value > 0))
      return {
        reason: `its ${dimensionLabel(shape, name).toLowerCase()} is ${Number.isFinite(value) ? length(value) : 'not a number'}`,
        mend: `Give it a ${dimensionLabel(shape, name).toLowerCase()} of more than 0.`,
      };
  switch (shape) {
    case 'rectangle':
      return rectangle(take('width'), take('height'));
    case 'circle':
      return circle(take('diameter'));
    case 'semicircular-arch': {
      const span = take('span');
      const height = take('height');
      // A rise that is half the span to the last digit, worded in feet, may miss it by rounding alone.
      if (height < span / 2 - 1e-9)
        return {
          reason: `a semicircular arch of span ${length(span)} rises ${length(span / 2)}, more than its height of ${length(height)}`,
          mend: `Make it at least ${length(span / 2)} high, or its span at most ${length(2 * height)}.`,
        };
      return semicircularArch(span, height);
    }
  }
}
