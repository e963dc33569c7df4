/** A picture of the model without a graphics card: an axonometric view, shaded by the sun, with ink lines where surfaces meet. */
import type { ProjectDocument } from '@yard-arch/document';
import { encode } from 'fast-png';
import { meshIn } from '../element/placed-mesh.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { textureOf } from '../texture/index.ts';
import type { Model } from '../model/model.ts';
import { dot } from '../vector.ts';
import { Raster, type Corner, type Surface } from './raster.ts';

type Vector = [number, number, number];

export interface PictureOptions {
  width: number;
  height: number;
  /** Direction from which the model is seen, degrees: round from x counter-clockwise in plan, and above the horizon. */
  from?: { round: number; above: number };
}

const inks = { above: 0xe9eeea, below: 0xdcd3bf, line: 0x1e2a33 };
const sun: Vector = [0.42, -0.62, 0.66];

/** What is to the right of the one who looks, up, and towards them. */
interface Directions {
  right: Vector;
  up: Vector;
  towards: Vector;
}

/** Where points of space are in the picture. */
interface View extends Directions {
  scale: number;
  /** Where the origin is, dots. */
  x: number;
  y: number;
}

/** Draws the model and returns the picture as a PNG file's bytes. A model of nothing is a picture of empty ground. */
export function drawPicture(document: ProjectDocument, model: Model, options: PictureOptions): Uint8Array {
  const { width, height } = options;
  const raster = new Raster(options);
  const meshes = [...model.cuts.values()]
    .flatMap((cut) => [cut.mesh, ...cut.parts.map(({ part, placement }) => meshIn(placement, part.mesh))])
    .filter((mesh) => mesh.triangles.length > 0);
  const view = viewOf(meshes, directionsOf(options.from ?? { round: -60, above: 24 }), raster);
  const seenThrough: (() => void)[] = [];
  let id = 0;
  for (const mesh of meshes)
    for (const run of mesh.runs) {
      const material = document.materials[run.material]!;
      const tint = parseInt(material.colour.slice(1), 16);
      const image = material.texture ? textureOf(material.texture, material.colour) : null;
      id += 1;
      const surface: Surface = { tint, image, id, hides: material.opacity ?? 1 };
      const draw = (): void => drawRun(raster, view, { mesh, run, surface });
      // What is seen through is laid over the rest.
      if (surface.hides < 1) seenThrough.push(draw);
      else draw();
    }
  for (const lay of seenThrough) lay();
  return encode({ width, height, data: raster.drawn(inks), channels: 3 });
}

function directionsOf({ round, above }: NonNullable<PictureOptions['from']>): Directions {
  const [r, a] = [(round * Math.PI) / 180, (above * Math.PI) / 180];
  return {
    towards: [Math.cos(a) * Math.cos(r), Math.cos(a) * Math.sin(r), Math.sin(a)],
    right: [-Math.sin(r), Math.cos(r), 0],
    up: [-Math.sin(a) * Math.cos(r), -Math.sin(a) * Math.sin(r), Math.cos(a)],
  };
}

/** The view in which all is as large as it fits. */
function viewOf(meshes: readonly CutMesh[], directions: Directions, { width, height }: Raster): View {
  const { right, up } = directions;
  let [left, low, wide, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { points, vertices } of meshes)
    for (const v of vertices) {
      const [px, py, pz] = [points[3 * v]!, points[3 * v + 1]!, points[3 * v + 2]!];
      const x = px * right[0] + py * right[1] + pz * right[2];
      const y = px * up[0] + py * up[1] + pz * up[2];
      left = Math.min(left, x);
      wide = Math.max(wide, x);
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
  if (meshes.length === 0) [left, low, wide, high] = [-1, -1, 1, 1];
  const scale = Math.min((width * 0.88) / (wide - left || 1), (height * 0.82) / (high - low || 1));
  return {
    ...directions,
    scale,
    x: width / 2 - (scale * (left + wide)) / 2,
    y: height / 2 + (scale * (low + high)) / 2,
  };
}

function drawRun(
  raster: Raster,
  view: View,
  { mesh, run, surface }: { mesh: CutMesh; run: CutMesh['runs'][number]; surface: Surface },
): void {
  const { normals, triangles } = mesh;
  for (let t = run.first; t < run.first + run.count; t++) {
    const [i, j, k] = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!];
    const normal: Vector = [normals[3 * i]!, normals[3 * i + 1]!, normals[3 * i + 2]!];
    const light = 0.42 + 0.58 * Math.max(0, dot(normal, sun));
    raster.triangle(cornerAt(mesh, i, view), cornerAt(mesh, j, view), cornerAt(mesh, k, view), { surface, light });
  }
}

function cornerAt({ points, vertices, uvs }: CutMesh, i: number, { right, up, towards, scale, x, y }: View): Corner {
  const v = 3 * vertices[i]!;
  const p: Vector = [points[v]!, points[v + 1]!, points[v + 2]!];
  return {
    x: x + scale * dot(p, right),
    y: y - scale * dot(p, up),
    near: dot(p, towards),
    u: uvs[2 * i]!,
    v: uvs[2 * i + 1]!,
  };
}
