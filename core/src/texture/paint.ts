/** Painting textures: a small canvas that repeats, colours, and a grain that is the same every time. */

export type Colour = readonly [number, number, number];

/** An image that repeats in both directions: rows from the top, red, green and blue by turns, and how large it is on a wall. */
export interface Texture {
  width: number;
  height: number;
  data: Uint8Array;
  /** Size of the image on a surface, metres along and up. */
  metres: readonly [number, number];
}

/** A colour such as #C58562. */
export function colourOf(hex: string): Colour {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as unknown as Colour;
}

export const mixed = (a: Colour, b: Colour, share: number): Colour =>
  [0, 1, 2].map((k) => a[k]! + share * (b[k]! - a[k]!)) as unknown as Colour;
export const lit = (a: Colour, by: number): Colour => [a[0] * by, a[1] * by, a[2] * by];

/** A number from 0 to 1 that belongs to a pair of whole numbers, like chance but always the same (a hash by multiplication, as in splitmix). */
export function chance(i: number, j: number, seed = 0): number {
  let h = Math.imul(i + 0x9e37 + 31 * seed, 0x85ebca6b) ^ Math.imul(j + 0x79b9, 0xc2b2ae35);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return ((h ^ (h >>> 15)) >>> 0) / 4294967296;
}

/** Smooth noise from 0 to 1 over a grid of so many cells each way, which repeats. */
export function clouds(x: number, y: number, across: number, down: number, seed: number): number {
  const [fx, fy] = [x * across, y * down];
  const [i, j] = [Math.floor(fx), Math.floor(fy)];
  const ease = (t: number): number => t * t * (3 - 2 * t);
  const [u, v] = [ease(fx - i), ease(fy - j)];
  const at = (p: number, q: number): number =>
    chance(((p % across) + across) % across, ((q % down) + down) % down, seed);
  return (at(i, j) * (1 - u) + at(i + 1, j) * u) * (1 - v) + (at(i, j + 1) * (1 - u) + at(i + 1, j + 1) * u) * v;
}

/** Paints an image: the colour at (s, t), metres along and up from its lower left corner, for each dot. */
export function painted(
  metres: readonly [number, number],
  dotsPerMetre: number,
  at: (s: number, t: number, i: number, j: number) => Colour,
): Texture {
  const [width, height] = [Math.round(metres[0] * dotsPerMetre), Math.round(metres[1] * dotsPerMetre)];
  const data = new Uint8Array(3 * width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const colour = at(((i + 0.5) / width) * metres[0], (1 - (j + 0.5) / height) * metres[1], i, j);
      for (let k = 0; k < 3; k++) data[3 * (j * width + i) + k] = Math.max(0, Math.min(255, Math.round(colour[k]!)));
    }
  return { width, height, data, metres };
}
