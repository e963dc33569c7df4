/** A picture of the model without a graphics card: an axonometric view, shaded by the sun, with ink lines where surfaces meet. */
import type { ProjectDocument } from '@yard-arch/document';
import { encode } from 'fast-png';
import { meshIn } from '../element/placed-mesh.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { textureOf, type Texture } from '../texture/index.ts';
import type { Model } from '../model/model.ts';
import { dot } from '../vector.ts';

type Vector = [number, number, number];

export interface PictureOptions {
  width: number;
  height: number;
  /** Direction from which the model is seen, degrees: round from x counter-clockwise in plan, and above the horizon. */
  from?: { round: number; above: number };
}

const sky: Vector = [0xe9, 0xee, 0xea];
const ground: Vector = [0xdc, 0xd3, 0xbf];
const ink: Vector = [0x1e, 0x2a, 0x33];
const finer = 3;

/** A colour of which another hides a share. */
function mixed(behind: number, before: number, share: number): number {
  let sum = 0;
  for (const shift of [16, 8, 0])
    sum |= Math.round(((behind >> shift) & 255) * (1 - share) + ((before >> shift) & 255) * share) << shift;
  return sum;
}

/** How a surface is drawn. */
interface Drawn {
  tint: number;
  image: Texture | null;
  /** Its number: lines are drawn where it changes. */
  id: number;
  /** How much it hides of what is behind it. */
  hides: number;
}

/** The colour of a texture at a point of a triangle, as one number. */
function dotOf(
  { width, height, data, metres }: Texture,
  { a, b, c }: { a: number; b: number; c: number },
  [i, j, k]: readonly [number, number, number],
  uvs: Float32Array,
): number {
  const u = (a * uvs[2 * i]! + b * uvs[2 * j]! + c * uvs[2 * k]!) / metres[0];
  const v = (a * uvs[2 * i + 1]! + b * uvs[2 * j + 1]! + c * uvs[2 * k + 1]!) / metres[1];
  const x = Math.min(width - 1, Math.floor((u - Math.floor(u)) * width));
  const y = Math.min(height - 1, Math.floor((1 - (v - Math.floor(v))) * height));
  const at = 3 * (y * width + x);
  return (data[at]! << 16) | (data[at + 1]! << 8) | data[at + 2]!;
}

/** Draws the model and returns the picture as a PNG file's bytes. A model of nothing is a picture of empty ground. */
export function drawPicture(document: ProjectDocument, model: Model, options: PictureOptions): Uint8Array {
  const { width, height } = options;
  const W = width * finer;
  const H = height * finer;
  const { round, above } = options.from ?? { round: -60, above: 24 };
  const [r, a] = [(round * Math.PI) / 180, (above * Math.PI) / 180];
  const towards: Vector = [Math.cos(a) * Math.cos(r), Math.cos(a) * Math.sin(r), Math.sin(a)];
  const right: Vector = [-Math.sin(r), Math.cos(r), 0];
  const up: Vector = [-Math.sin(a) * Math.cos(r), -Math.sin(a) * Math.sin(r), Math.cos(a)];

  const meshes = [...model.cuts.values()]
    .flatMap((cut) => [cut.mesh, ...cut.parts.map(({ part, placement }) => meshIn(placement, part.mesh))])
    .filter((mesh) => mesh.triangles.length > 0);
  let [left, low, wide, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { points, vertices } of meshes)
    for (const v of vertices) {
      const p: Vector = [points[3 * v]!, points[3 * v + 1]!, points[3 * v + 2]!];
      left = Math.min(left, dot(p, right));
      wide = Math.max(wide, dot(p, right));
      low = Math.min(low, dot(p, up));
      high = Math.max(high, dot(p, up));
    }
  if (meshes.length === 0) [left, low, wide, high] = [-1, -1, 1, 1];
  const scale = Math.min((W * 0.88) / (wide - left || 1), (H * 0.82) / (high - low || 1));
  const offsetX = W / 2 - (scale * (left + wide)) / 2;
  const offsetY = H / 2 + (scale * (low + high)) / 2;

  const depth = new Float32Array(W * H).fill(-Infinity);
  const shade = new Float32Array(W * H);
  const colour = new Uint32Array(W * H);
  const surface = new Int32Array(W * H).fill(-1);
  const sun: Vector = [0.42, -0.62, 0.66];
  let number = 0;
  const seenThrough: (() => void)[] = [];
  for (const mesh of meshes)
    for (const run of mesh.runs) {
      const material = document.materials[run.material]!;
      const tint = parseInt(material.colour.slice(1), 16);
      const image = material.texture ? textureOf(material.texture, material.colour) : null;
      number += 1;
      const drawn: Drawn = { tint, image, id: number, hides: material.opacity ?? 1 };
      // What is seen through is laid over the rest.
      if (drawn.hides < 1) seenThrough.push(() => drawRun(mesh, run, drawn));
      else drawRun(mesh, run, drawn);
    }

  for (const lay of seenThrough) lay();

  const rgb = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sum: Vector = [0, 0, 0];
      for (let dy = 0; dy < finer; dy++)
        for (let dx = 0; dx < finer; dx++) {
          const c = pixel(x * finer + dx, y * finer + dy);
          sum[0] += c[0];
          sum[1] += c[1];
          sum[2] += c[2];
        }
      for (let k = 0; k < 3; k++) rgb[3 * (y * width + x) + k] = Math.round(sum[k]! / finer ** 2);
    }
  return encode({ width, height, data: rgb, channels: 3 });

  function drawRun(mesh: CutMesh, { first, count }: CutMesh['runs'][number], drawn: Drawn): void {
    for (let t = first; t < first + count; t++) raster(mesh, t, drawn);
  }

  function raster(mesh: CutMesh, t: number, { tint, image, id, hides }: Drawn): void {
    const { points, vertices, normals, triangles, uvs } = mesh;
    const corner = [0, 1, 2].map((k) => triangles[3 * t + k]!) as [number, number, number];
    const screen = [0, 1, 2].map((k): Vector => {
      const i = 3 * vertices[triangles[3 * t + k]!]!;
      const p: Vector = [points[i]!, points[i + 1]!, points[i + 2]!];
      return [offsetX + scale * dot(p, right), offsetY - scale * dot(p, up), dot(p, towards)];
    });
    const [p, q, s] = screen as [Vector, Vector, Vector];
    const area = (q[0] - p[0]) * (s[1] - p[1]) - (q[1] - p[1]) * (s[0] - p[0]);
    // Seen from outside, triangles run clockwise on a screen whose y runs down.
    if (area >= 0) return;
    const i = 3 * triangles[3 * t]!;
    const light = 0.42 + 0.58 * Math.max(0, dot([normals[i]!, normals[i + 1]!, normals[i + 2]!], sun));
    const x0 = Math.max(0, Math.floor(Math.min(p[0], q[0], s[0])));
    const x1 = Math.min(W - 1, Math.ceil(Math.max(p[0], q[0], s[0])));
    const y0 = Math.max(0, Math.floor(Math.min(p[1], q[1], s[1])));
    const y1 = Math.min(H - 1, Math.ceil(Math.max(p[1], q[1], s[1])));
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const [px, py] = [x + 0.5, y + 0.5];
        const a0 = ((q[0] - px) * (s[1] - py) - (q[1] - py) * (s[0] - px)) / area;
        const a1 = ((s[0] - px) * (p[1] - py) - (s[1] - py) * (p[0] - px)) / area;
        const a2 = 1 - a0 - a1;
        if (a0 < 0 || a1 < 0 || a2 < 0) continue;
        const z = a0 * p[2] + a1 * q[2] + a2 * s[2];
        const at = y * W + x;
        if (z <= depth[at]!) continue;
        if (hides < 1) {
          if (surface[at]! >= 0) colour[at] = mixed(colour[at]!, tint, hides);
          continue;
        }
        depth[at] = z;
        shade[at] = light;
        colour[at] = image ? dotOf(image, { a: a0, b: a1, c: a2 }, corner, uvs) : tint;
        surface[at] = id;
      }
  }

  function pixel(x: number, y: number): Vector {
    const at = y * W + x;
    const id = surface[at]!;
    // A change of surface, or a jump in depth, to the right or below draws a line.
    for (const other of [x + 1 < W ? at + 1 : at, y + 1 < H ? at + W : at])
      if (surface[other] !== id || (id >= 0 && Math.abs(depth[other]! - depth[at]!) > 0.6)) return ink;
    if (id >= 0) {
      const c = colour[at]!;
      const l = shade[at]!;
      return [((c >> 16) & 255) * l, ((c >> 8) & 255) * l, (c & 255) * l];
    }
    return y / H > 0.5 ? ground : sky;
  }
}
