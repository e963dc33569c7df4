/** Outlines from drawings: which rings there are, which of them is the outline, and what in it cannot be used. */
import { limits, type FreeOutline } from '@yard-arch/document';
import { freeProfile } from '../profile/free.ts';
import { millimetre } from '../tolerances.ts';
import { DrawingError } from './budget.ts';
import { readDxf } from './dxf.ts';
import { ringsOf, type Ring, type Rings } from './rings.ts';
import { readSvg } from './svg.ts';

/** The largest drawing that is read, bytes. */
export const largestDrawing = 8_000_000;

/** A drawing's rings in its own units, with y upward. */
export interface Drawing extends Rings {
  /** Metres in one unit, where the drawing says so. */
  unit: number | null;
  /** What is in it that is not read, by its name, and how often. */
  skipped: ReadonlyMap<string, number>;
}

/**
 * Reads an SVG or DXF drawing.
 * @param tolerance by how much the arcs that stand for other curves may leave them, and how far apart ends may be that are joined; in the drawing's units.
 * @throws DrawingError that says what is wrong with it.
 */
export function readDrawing(name: string, text: string, tolerance: number): Drawing {
  const budget = { tolerance, used: 0 };
  const isDxf = /\.dxf$/i.test(name) || (!/\.svg$/i.test(name) && !text.includes('<svg'));
  const { strokes, unit, skipped } = isDxf ? readDxf(text, budget) : readSvg(text, budget);
  const rings = ringsOf(strokes, tolerance);
  if (rings.rings.length === 0 && rings.open.length === 0)
    throw new DrawingError('The drawing has no lines in it from which an outline could be made.');
  return { ...rings, unit, skipped };
}

/** An outline taken out of a drawing, in metres, from its own lower left. */
export interface TakenOutline {
  outline: FreeOutline;
  islands: FreeOutline[];
  width: number;
  height: number;
  /** Why it cannot be cut. */
  reason: string | null;
  /** Where it crosses itself, in the drawing's units. */
  crossing: readonly [number, number] | null;
}

/** Sizes beyond these are surely of another unit, metres. */
const [least, most] = [millimetre, 100];

/** The outline of a ring with what lies directly within it as islands. @param unit metres in one unit of the drawing. */
export function takeOutline(
  { rings }: Rings,
  ring: number,
  unit: number,
  worded: (metres: number) => string,
): TakenOutline {
  const chosen = rings[ring]!;
  const [left, low, right, high] = chosen.box;
  const scaled = ({ outline }: Ring): FreeOutline =>
    outline.map((point) => ({ ...point, x: (point.x - left) * unit, y: (point.y - low) * unit }));
  const outline = scaled(chosen);
  const islands = rings.filter(({ within }) => within === ring).map(scaled);
  const [width, height] = [(right - left) * unit, (high - low) * unit];
  const taken = { outline, islands, width, height, reason: null, crossing: null };
  const refused = (reason: string): TakenOutline => ({ ...taken, reason });
  if (Math.min(width, height) < least || Math.max(width, height) > most)
    return refused(
      `At this scale it is ${worded(width)} wide and ${worded(height)} high. Give the drawing another unit.`,
    );
  if (Math.max(outline.length, ...islands.map((island) => island.length)) > limits.outline.most)
    return refused(`It has more than ${limits.outline.most} points. Follow its curves less closely.`);
  if (islands.length > limits.islands.most) return refused(`More than ${limits.islands.most} rings lie within it.`);
  const profile = freeProfile(outline, islands, { width, height }, worded);
  if (!('reason' in profile)) return taken;
  return {
    ...taken,
    reason: `${profile.reason[0]!.toUpperCase()}${profile.reason.slice(1)}. ${profile.mend}`,
    crossing: profile.at ? [profile.at[0] / unit + left, profile.at[1] / unit + low] : null,
  };
}
