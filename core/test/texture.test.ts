/** Textures of our own: they repeat without a seam, at true scale, in the material's colour. */
import { describe, expect, it } from '@jest/globals';
import { textureNames } from '@yard-arch/document';
import { textureOf, type Texture } from '../src/texture/index.ts';

/** By how much two lines of dots differ, a dot: from one to another place in the data, going on by a stride. */
function apart({ data }: Texture, from: number, to: number, stride: number, count: number): number {
  let sum = 0;
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 3; k++) sum += Math.abs(data[3 * (from + i * stride) + k]! - data[3 * (to + i * stride) + k]!);
  return sum / count;
}

function mean({ data }: Texture): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < data.length; i++) sum[(i % 3) as 0 | 1 | 2] += data[i]! / (data.length / 3);
  return sum;
}

describe.each(textureNames)('%s', (name) => {
  const texture = textureOf(name, '#b07a58');
  const { width, height, data, metres } = texture;

  it('is an image at one scale both ways', () => {
    expect(data).toHaveLength(3 * width * height);
    expect(width / metres[0] / (height / metres[1])).toBeGreaterThan(0.98);
    expect(width / metres[0] / (height / metres[1])).toBeLessThan(1.02);
  });

  it('goes on from its right edge at its left one, and from its top at its foot', () => {
    // No more changes over the seam than between the lines that change most within the image.
    let [column, row] = [0, 0];
    for (let x = 0; x + 1 < width; x++) column = Math.max(column, apart(texture, x, x + 1, width, height));
    for (let y = 0; y + 1 < height; y++) row = Math.max(row, apart(texture, y * width, (y + 1) * width, 1, width));
    expect(apart(texture, width - 1, 0, width, height)).toBeLessThanOrEqual(1.2 * column);
    expect(apart(texture, (height - 1) * width, 0, 1, width)).toBeLessThanOrEqual(1.2 * row);
  });

  it('follows the colour of the material', () => {
    const [red, green, blue] = mean(texture);
    expect(red - green).toBeGreaterThan(10);
    expect(green - blue).toBeGreaterThan(5);
  });

  it('is kept', () => {
    expect(textureOf(name, '#b07a58')).toBe(texture);
  });
});

it('a texture of another colour is another', () => {
  const [red, , blue] = mean(textureOf('glass', '#3040c0'));
  expect(blue - red).toBeGreaterThan(30);
});
