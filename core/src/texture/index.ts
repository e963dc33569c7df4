/** Textures of our own: each drawn by rule, at true scale, in a material's colour, so that courses can be seen to run round corners. */
import type { TextureName } from '@yard-arch/document';
import { chance, clouds, colourOf, lit, mixed, painted, type Colour, type Texture } from './paint.ts';

export type { Texture } from './paint.ts';

const mortar: Colour = [205, 196, 180];
const grain = (i: number, j: number, by: number): number => 1 + (chance(i, j, 7) - 0.5) * by;

/** Bricks of 215 × 65 mm with joints of 10 mm. In each course of `pattern` the lengths of bricks, in modules of 112.5 mm, and by how much the course is shifted. */
function bricks(colour: Colour, courses: readonly { lengths: readonly number[]; shift: number }[]): Texture {
  const module = 0.1125;
  const course = 0.075;
  const modules = 16;
  const rows = 16;
  return painted([modules * module, rows * course], 260, (s, t, i, j) => {
    const row = Math.floor(t / course);
    const { lengths, shift } = courses[row % courses.length]!;
    const total = lengths.reduce((a, b) => a + b, 0);
    let at = (((s / module - shift) % total) + total) % total;
    const lap = Math.floor((s / module - shift) / total);
    let brick = 0;
    while (at >= lengths[brick]!) at -= lengths[brick++]!;
    const [fromLeft, fromRight] = [at * module, (lengths[brick]! - at) * module];
    const fromBed = t - row * course;
    const joint = Math.min(fromLeft - 0.005, fromRight - 0.005, fromBed - 0.005, course - fromBed - 0.005);
    if (joint < 0) return lit(mortar, 0.94 * grain(i, j, 0.1));
    // The pattern's laps repeat with the image.
    const across = ((lap % Math.round(modules / total)) + Math.round(modules / total)) % Math.round(modules / total);
    const tone = 0.86 + 0.24 * chance(across * 17 + brick, row * 5, 3);
    const burnt = chance(across * 13 + brick, row * 3, 11) > 0.9 ? 0.84 : 1;
    const edge = joint < 0.003 ? 0.93 : 1;
    return lit(colour, tone * burnt * edge * grain(i, j, 0.12));
  });
}

function ashlar(colour: Colour): Texture {
  return painted([1.2, 0.6], 300, (s, t, i, j) => {
    const row = Math.floor(t / 0.3);
    const at = (s + (row % 2) * 0.3) % 1.2;
    const stone = Math.floor(at / 0.6);
    const edge = Math.min(at % 0.6, 0.6 - (at % 0.6), t - row * 0.3, (row + 1) * 0.3 - t);
    if (edge < 0.003) return lit(mixed(colour, mortar, 0.6), 0.8);
    const bed = 0.96 + 0.08 * clouds(s / 1.2, t / 0.6, 6, 24, 5);
    return lit(colour, (0.93 + 0.12 * chance(stone, row, 2)) * bed * (edge < 0.008 ? 0.95 : 1) * grain(i, j, 0.06));
  });
}

function plaster(colour: Colour): Texture {
  return painted([1, 1], 256, (s, t, i, j) =>
    lit(colour, 0.95 + 0.06 * clouds(s, t, 5, 5, 1) + 0.04 * clouds(s, t, 17, 17, 2) + (chance(i, j, 4) - 0.5) * 0.03),
  );
}

function slate(colour: Colour): Texture {
  const [w, h] = [0.25, 0.2];
  return painted([4 * w, 4 * h], 320, (s, t, i, j) => {
    const row = Math.floor(t / h);
    const at = (s / w + (row % 2) / 2) % 4;
    const tile = Math.floor(at);
    const up = (t - row * h) / h;
    const side = Math.min(at - tile, tile + 1 - at) * w;
    // Each slate is shaded under the course that laps it, and lit along its lower edge.
    if (side < 0.002) return lit(colour, 0.55);
    return lit(
      colour,
      (0.82 + 0.32 * chance(tile, row, 9)) *
        (up < 0.04 ? 0.62 : 1.04 - 0.12 * up) *
        (0.97 + 0.06 * clouds(s, t, 9, 23, 8)) *
        grain(i, j, 0.07),
    );
  });
}

function timber(colour: Colour, plank: number, contrast: number): Texture {
  const planks = 4;
  return painted([planks * plank, 1.2], 300, (s, t, i, j) => {
    const k = Math.floor(s / plank) % planks;
    const across = s - Math.floor(s / plank) * plank;
    if (Math.min(across, plank - across) < 0.0015) return lit(colour, 0.5);
    const ring = clouds(across / plank + 0.15 * clouds(0.5, t / 1.2, 1, 4, 20 + k), t / 1.2, 9, 2, 30 + k);
    return lit(colour, (1 - contrast / 2 + 0.1 * chance(k, 1, 6) + contrast * ring * 0.8) * grain(i, j, 0.04));
  });
}

function insulation(colour: Colour): Texture {
  return painted([0.6, 0.6], 256, (s, t, i, j) =>
    lit(colour, 0.86 + 0.2 * clouds(s / 0.6, t / 0.6, 14, 40, 3) + 0.1 * (chance(i, j, 2) - 0.5)),
  );
}

function concrete(colour: Colour): Texture {
  return painted([2.4, 1.2], 160, (s, t, i, j) => {
    const seam = Math.min(s % 1.2, 1.2 - (s % 1.2), t, 1.2 - t) < 0.004 ? 0.86 : 1;
    const [dx, dy] = [(s % 0.6) - 0.3, (t % 0.6) - 0.3];
    const hole = Math.hypot(dx, dy) < 0.013 ? 0.62 : 1;
    return lit(
      colour,
      (0.93 + 0.1 * clouds(s / 2.4, t / 1.2, 8, 4, 12) + 0.04 * clouds(s / 2.4, t / 1.2, 40, 20, 13)) *
        seam *
        hole *
        grain(i, j, 0.04),
    );
  });
}

const made: Record<TextureName, (colour: Colour) => Texture> = {
  'stretcher bond': (colour) =>
    bricks(colour, [
      { lengths: [2], shift: 0 },
      { lengths: [2], shift: 1 },
    ]),
  // A course of stretchers, a course of headers a quarter brick in.
  'english bond': (colour) =>
    bricks(colour, [
      { lengths: [2], shift: 0 },
      { lengths: [1], shift: 0.5 },
    ]),
  ashlar,
  plaster,
  slate,
  oak: (colour) => timber(colour, 0.14, 0.34),
  'painted timber': (colour) => timber(colour, 0.12, 0.06),
  glass: (colour) => painted([1, 1], 64, (s, t) => mixed(colour, [255, 255, 255], 0.12 * clouds(s, t, 2, 2, 5))),
  insulation,
  concrete,
};

const kept = new Map<string, Texture>();

/** The texture of a name in a colour such as #C58562; the same object for the same question. */
export function textureOf(name: TextureName, colour: string): Texture {
  const key = `${name} ${colour}`;
  let texture = kept.get(key);
  if (!texture) kept.set(key, (texture = made[name](colourOf(colour))));
  return texture;
}
