/** The plain values that documents are made of: ids, names, lengths, angles, each with the range that it may have. */
import { z } from 'zod';

/** The farthest that any coordinate or length may reach, in metres. */
export const farthest = 100_000;

/** The thinnest, narrowest or shortest thing that can be made, in metres: a tenth of a millimetre. */
export const smallest = 0.0001;

export const id = z
  .string()
  .regex(
    /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/,
    'must be an id: 1 to 64 letters, digits, - or _, starting with a letter or digit',
  );

/** Text in one line. Control characters are refused: no drawing shows them, files and databases choke on some. */
export const line = z.string().regex(/^\P{Cc}*$/u, 'must not hold control characters, such as a line break or a tab');
export const name = line.trim().min(1, 'must not be empty').max(120, 'must have at most 120 characters');
export const label = line.max(120, 'must have at most 120 characters');

export const number = z.number('must be a number');
export const coordinate = number
  .min(-farthest, `must be at least ${-farthest} m`)
  .max(farthest, `must be at most ${farthest} m`);
export const extent = number
  .min(smallest, 'must be more than 0 (at least 0.1 mm)')
  .max(farthest, `must be at most ${farthest} m`);
export const degrees = number.min(-360, 'must be at least -360 degrees').max(360, 'must be at most 360 degrees');
export const place = z.strictObject({ x: coordinate, y: coordinate, z: coordinate });

/** An angle of less than a quarter turn either way. */
export const slant = (most: number) =>
  number.min(-most, `must be from -${most} to ${most} degrees`).max(most, `must be from -${most} to ${most} degrees`);
