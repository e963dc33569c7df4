/** Triangles drawn dot by dot, the nearest before the others; several dots make one of the picture. */
import type { Texture } from '../texture/index.ts';

/** How a surface is drawn. */
export interface Surface {
  /** Its colour, as one number. */
  tint: number;
  image: Texture | null;
  /** Its number: lines are drawn where it changes. */
  id: number;
  /** How much it hides of what is behind it. */
  hides: number;
}

/** A corner of a triangle: across and down, dots; how near it is, metres; and its place in the texture, metres. */
export interface Corner {
  x: number;
  y: number;
  near: number;
  u: number;
  v: number;
}

/** Colours of what no triangle covers, and of lines; red, green and blue. */
export interface Inks {
  above: number;
  below: number;
  line: number;
}

/** Dots across one of the picture. */
const finer = 3;

/** A jump toward the eye, metres, at which a line is drawn. */
const jump = 0.6;

/** What a corner counts for at a dot on the edge opposite, but for rounding: both triangles that have that edge cover the dot, so that there is no gap between them. */
const onEdge = -1e-9;

export class Raster {
  readonly width: number;
  readonly height: number;
  private readonly near: Float32Array;
  private readonly shade: Float32Array;
  private readonly colour: Uint32Array;
  private readonly surface: Int32Array;

  /** @param picture its size, in dots of its own */
  constructor(private readonly picture: { width: number; height: number }) {
    this.width = picture.width * finer;
    this.height = picture.height * finer;
    const dots = this.width * this.height;
    this.near = new Float32Array(dots).fill(-Infinity);
    this.shade = new Float32Array(dots);
    this.colour = new Uint32Array(dots);
    this.surface = new Int32Array(dots).fill(-1);
  }

  /** Draws a triangle, if it looks this way: then it runs clockwise on a picture whose y runs down. @param light how bright it is, 0 to 1 */
  triangle(p: Corner, q: Corner, r: Corner, { surface, light }: { surface: Surface; light: number }): void {
    const area = (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
    if (area >= 0) return;
    const [low, high] = [Math.min(p.y, q.y, r.y), Math.max(p.y, q.y, r.y)];
    const last = Math.min(this.height - 1, Math.ceil(high));
    // What a corner counts for at a dot changes evenly across.
    const [stepP, stepQ] = [(q.y - r.y) / area, (r.y - p.y) / area];
    for (let y = Math.max(0, Math.floor(low)); y <= last; y++) {
      const level = y + 0.5;
      const [from, to] = this.spanAt(level, p, q, r);
      let a = ((q.x - from - 0.5) * (r.y - level) - (q.y - level) * (r.x - from - 0.5)) / area;
      let b = ((r.x - from - 0.5) * (p.y - level) - (r.y - level) * (p.x - from - 0.5)) / area;
      for (let x = from; x <= to; x++, a += stepP, b += stepQ) {
        const c = 1 - a - b;
        if (a < onEdge || b < onEdge || c < onEdge) continue;
        const near = a * p.near + b * q.near + c * r.near;
        const at = y * this.width + x;
        if (near <= this.near[at]!) continue;
        if (surface.hides < 1) {
          if (this.surface[at]! >= 0) this.colour[at] = mixed(this.colour[at]!, surface.tint, surface.hides);
          continue;
        }
        this.near[at] = near;
        this.shade[at] = light;
        this.surface[at] = surface.id;
        this.colour[at] = surface.image
          ? dotOf(surface.image, a * p.u + b * q.u + c * r.u, a * p.v + b * q.v + c * r.v)
          : surface.tint;
      }
    }
  }

  /** The first and the last dot of a row that a triangle can cover. */
  private spanAt(level: number, p: Corner, q: Corner, r: Corner): [number, number] {
    let [left, right] = [Infinity, -Infinity];
    const edge = (a: Corner, b: Corner): void => {
      if (level < Math.min(a.y, b.y) - 1 || level > Math.max(a.y, b.y) + 1) return;
      const share = a.y === b.y ? NaN : Math.min(1, Math.max(0, (level - a.y) / (b.y - a.y)));
      const [one, other] = Number.isNaN(share) ? [a.x, b.x] : [a.x + share * (b.x - a.x), a.x + share * (b.x - a.x)];
      left = Math.min(left, one, other);
      right = Math.max(right, one, other);
    };
    edge(p, q);
    edge(q, r);
    edge(r, p);
    return [Math.max(0, Math.floor(left) - 1), Math.min(this.width - 1, Math.ceil(right) + 1)];
  }

  /** How many of its dots are covered. */
  get covered(): number {
    return this.surface.reduce((count, id) => (id >= 0 ? count + 1 : count), 0);
  }

  /** The picture, each of its dots the mean of those that make it: red, green and blue, row by row. */
  drawn(inks: Inks): Uint8Array {
    const { width, height } = this.picture;
    const rgb = new Uint8Array(3 * width * height);
    const many = finer * finer;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        let [red, green, blue] = [0, 0, 0];
        for (let dy = 0; dy < finer; dy++)
          for (let dx = 0; dx < finer; dx++) {
            const at = (y * finer + dy) * this.width + x * finer + dx;
            const covered = this.surface[at]! >= 0;
            const lined = this.isLine(at, x * finer + dx, y * finer + dy);
            const bare = 2 * y < height ? inks.above : inks.below;
            const colour = lined ? inks.line : covered ? this.colour[at]! : bare;
            const light = covered && !lined ? this.shade[at]! : 1;
            red += ((colour >> 16) & 255) * light;
            green += ((colour >> 8) & 255) * light;
            blue += (colour & 255) * light;
          }
        const to = 3 * (y * width + x);
        rgb[to] = Math.round(red / many);
        rgb[to + 1] = Math.round(green / many);
        rgb[to + 2] = Math.round(blue / many);
      }
    return rgb;
  }

  /** Whether a line runs at a dot: where to the right or below there is another surface, or a jump. */
  private isLine(at: number, x: number, y: number): boolean {
    return (
      (x + 1 < this.width && this.changes(at, at + 1)) || (y + 1 < this.height && this.changes(at, at + this.width))
    );
  }

  private changes(at: number, other: number): boolean {
    const { surface, near } = this;
    return surface[other] !== surface[at] || (surface[at]! >= 0 && Math.abs(near[other]! - near[at]!) > jump);
  }
}

/** The colour of a texture at a place in it, as one number. */
function dotOf({ width, height, data, metres }: Texture, u: number, v: number): number {
  const [across, up] = [u / metres[0], v / metres[1]];
  const x = Math.min(width - 1, Math.floor((across - Math.floor(across)) * width));
  const y = Math.min(height - 1, Math.floor((1 - (up - Math.floor(up))) * height));
  const at = 3 * (y * width + x);
  return (data[at]! << 16) | (data[at + 1]! << 8) | data[at + 2]!;
}

/** A colour of which another hides a share. */
function mixed(behind: number, before: number, share: number): number {
  let sum = 0;
  for (const shift of [16, 8, 0])
    sum |= Math.round(((behind >> shift) & 255) * (1 - share) + ((before >> shift) & 255) * share) << shift;
  return sum;
}
