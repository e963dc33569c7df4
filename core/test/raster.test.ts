/** Pictures dot by dot: what a triangle covers, what hides what, and where lines run. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Raster, type Corner, type Surface } from '../src/format/raster.ts';
import { touchInPoints } from '../src/cut/pinched.ts';

const inks = { above: 0xffffff, below: 0x000000, line: 0x0000ff };
const size = { width: 40, height: 30 };
const plain = (id: number, tint: number, over: Partial<Surface> = {}): Surface => ({
  id,
  tint,
  image: null,
  hides: 1,
  ...over,
});
const corner = (x: number, y: number, near = 0): Corner => ({ x, y, near, u: x, v: y });

/** The colour of one dot of a picture, as one number. */
const dotAt = (rgb: Uint8Array, x: number, y: number): number => {
  const at = 3 * (y * size.width + x);
  return (rgb[at]! << 16) | (rgb[at + 1]! << 8) | rgb[at + 2]!;
};

/** Draws a level rectangle, in dots of the picture, as two triangles that look this way. */
function rectangle(
  raster: Raster,
  [left, top, right, bottom]: readonly [number, number, number, number],
  { surface, near = 0, light = 1 }: { surface: Surface; near?: number; light?: number },
): void {
  const scale = raster.width / size.width;
  const [a, b, c, d] = [
    corner(left * scale, top * scale, near),
    corner(left * scale, bottom * scale, near),
    corner(right * scale, bottom * scale, near),
    corner(right * scale, top * scale, near),
  ];
  raster.triangle(a, b, c, { surface, light });
  raster.triangle(a, c, d, { surface, light });
}

describe('a triangle', () => {
  it('covers as many dots as it is large, whichever corner comes first, if it looks this way', () => {
    const figure = (most: number) => fc.integer({ min: -80, max: 4 * most }).map((n) => n / 4 + 0.07);
    const point = fc.tuple(figure(140), figure(110));
    fc.assert(
      fc.property(point, point, point, (p, q, r) => {
        const area = ((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])) / 2;
        const drawn = (list: readonly (readonly [number, number])[]): number => {
          const raster = new Raster(size);
          const [a, b, c] = list.map(([x, y]) => corner(x, y)) as [Corner, Corner, Corner];
          raster.triangle(a, b, c, { surface: plain(1, 0x123456), light: 1 });
          return raster.covered;
        };
        const count = drawn([p, q, r]);
        if (area >= 0) return expect(count).toBe(0);
        // But for dots on an edge.
        expect(Math.abs(drawn([q, r, p]) - count)).toBeLessThan(3);
        expect(drawn([p, r, q])).toBe(0);
        const inside = [p, q, r].every(([x, y]) => x >= 0 && x <= 120 && y >= 0 && y <= 90);
        const round =
          Math.hypot(p[0] - q[0], p[1] - q[1]) +
          Math.hypot(q[0] - r[0], q[1] - r[1]) +
          Math.hypot(r[0] - p[0], r[1] - p[1]);
        // Each dot stands for a square: along the edges about half of them count.
        if (inside) expect(Math.abs(count + area)).toBeLessThan(round + 2);
      }),
    );
  });

  it('is nothing of what is beside the picture', () => {
    const raster = new Raster(size);
    rectangle(raster, [-50, -50, -10, -10], { surface: plain(1, 0xff0000) });
    rectangle(raster, [90, 10, 140, 20], { surface: plain(2, 0xff0000) });
    expect(raster.covered).toBe(0);
  });
});

describe('a picture', () => {
  it('shows what is nearest, in whatever order it is drawn, and the ground where nothing is', () => {
    for (const order of [
      [0, 1],
      [1, 0],
    ]) {
      const raster = new Raster(size);
      const things = [
        () => rectangle(raster, [5, 5, 30, 25], { surface: plain(1, 0xff0000), near: 1 }),
        () => rectangle(raster, [10, 10, 20, 20], { surface: plain(2, 0x00ff00), near: 3 }),
      ];
      for (const k of order) things[k]!();
      const rgb = raster.drawn(inks);
      expect(dotAt(rgb, 15, 15)).toBe(0x00ff00);
      expect(dotAt(rgb, 25, 22)).toBe(0xff0000);
      expect(dotAt(rgb, 35, 3)).toBe(inks.above);
      expect(dotAt(rgb, 35, 28)).toBe(inks.below);
    }
  });

  it('is as dark as the light that falls on it', () => {
    const raster = new Raster(size);
    rectangle(raster, [5, 5, 30, 25], { surface: plain(1, 0x804020), light: 0.5 });
    expect(dotAt(raster.drawn(inks), 15, 15)).toBe(0x402010);
  });

  it('has a line where surfaces meet, and where one lies before another of its own', () => {
    const raster = new Raster(size);
    rectangle(raster, [0, 0, 20, 30], { surface: plain(1, 0xff0000) });
    rectangle(raster, [20, 0, 40, 15], { surface: plain(2, 0xff0000) });
    rectangle(raster, [20, 15, 40, 30], { surface: plain(2, 0xff0000), near: 5 });
    const rgb = raster.drawn(inks);
    const isLined = (x: number, y: number): boolean => dotAt(rgb, x, y) !== 0xff0000;
    expect(isLined(19, 5)).toBe(true);
    expect(isLined(30, 14)).toBe(true);
    expect(isLined(10, 15)).toBe(false);
    expect(isLined(30, 5)).toBe(false);
  });

  it('lets what is behind be seen through what hides but a share of it, and draws no line about that', () => {
    const raster = new Raster(size);
    rectangle(raster, [0, 0, 40, 30], { surface: plain(1, 0xff0000) });
    rectangle(raster, [10, 10, 30, 20], { surface: plain(2, 0x0000ff, { hides: 0.25 }), near: 1 });
    // What it stands behind hides it.
    rectangle(raster, [0, 0, 8, 8], { surface: plain(3, 0x0000ff, { hides: 0.25 }), near: -1 });
    const rgb = raster.drawn(inks);
    expect(dotAt(rgb, 20, 15)).toBe(0xbf0040);
    expect(dotAt(rgb, 10, 15)).toBe(0xbf0040);
    expect(dotAt(rgb, 4, 4)).toBe(0xff0000);
  });

  it('lays a texture at its size, its first row above', () => {
    const raster = new Raster(size);
    const image = {
      width: 2,
      height: 2,
      metres: [40, 40],
      data: Uint8Array.from([255, 0, 0, 0, 255, 0, 0, 0, 255, 255, 255, 0]),
    };
    rectangle(raster, [0, 0, 13, 13], { surface: plain(1, 0, { image: image as never }) });
    const rgb = raster.drawn(inks);
    // u and v are dots here, three to one of the picture; v runs up in the texture.
    expect(dotAt(rgb, 2, 10)).toBe(0xff0000);
    expect(dotAt(rgb, 10, 10)).toBe(0x00ff00);
    expect(dotAt(rgb, 2, 2)).toBe(0x0000ff);
    expect(dotAt(rgb, 10, 2)).toBe(0xffff00);
  });
});

describe('loops', () => {
  const loop = (points: readonly (readonly [number, number])[]) => ({
    vertices: points.map((_, i) => i),
    xs: points.map(([x]) => x),
    ys: points.map(([, y]) => y),
  });

  it('touch in points where two of them are no farther apart than a hair, as looking at all pairs says', () => {
    // Few places, so that some are met twice, and some nearly.
    const figure = fc.tuple(fc.integer({ min: 0, max: 6 }), fc.constantFrom(0, 3e-8, 4e-7)).map(([n, off]) => n + off);
    const list = fc.array(fc.tuple(figure, figure), { maxLength: 9 });
    fc.assert(
      fc.property(fc.array(list, { maxLength: 3 }), (loops) => {
        const all = loops.flat();
        const wanted = all.some(([x, y], i) =>
          all.slice(i + 1).some(([p, q]) => Math.abs(x - p) < 1e-7 && Math.abs(y - q) < 1e-7),
        );
        expect(touchInPoints(loops.map(loop))).toBe(wanted);
      }),
    );
  });

  it('that stand above one another in one line are told apart quickly', () => {
    const ladder = Array.from({ length: 20_000 }, (_, k): [number, number] => [k % 2, k]);
    expect(touchInPoints([loop(ladder)])).toBe(false);
    expect(touchInPoints([loop([...ladder, [1, 19_999]])])).toBe(true);
  });
});
