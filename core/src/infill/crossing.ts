/** Whether what stands somewhere stands in something else: meshes in their places, by the edges of the one that go through faces of the other. */
import Flatbush from 'flatbush';
import { placedIn, turnedIn, turnedOut, type Rigid } from '../element/chart.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { millimetre, nanometre } from '../tolerances.ts';
import { cross, dot, minus, plus, type Vector } from '../vector.ts';
import type { PartInstance } from './part.ts';

/** Something in its place, with the upright box about it. */
export interface Boxed {
  instance: PartInstance;
  low: Vector;
  high: Vector;
}

/** The box about each part, by its mesh. */
const boxes = new WeakMap<CutMesh, readonly [Vector, Vector]>();

function boxOf(mesh: CutMesh): readonly [Vector, Vector] {
  let box = boxes.get(mesh);
  if (!box) {
    const low: [number, number, number] = [Infinity, Infinity, Infinity];
    const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
    mesh.points.forEach((value, i) => {
      low[i % 3] = Math.min(low[i % 3]!, value);
      high[i % 3] = Math.max(high[i % 3]!, value);
    });
    boxes.set(mesh, (box = [low, high]));
  }
  return box;
}

/** A point of something in its place. */
export const put = (at: Rigid, x: number, y: number, z: number): Vector => plus(at.origin, turnedOut(at, [x, y, z]));

const boxedParts = new WeakMap<PartInstance, Boxed>();

/** A part with the upright box about it where it stands. */
export function boxed(instance: PartInstance): Boxed {
  const before = boxedParts.get(instance);
  if (before) return before;
  const [a, b] = boxOf(instance.part.mesh);
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let corner = 0; corner < 8; corner++) {
    const at = put(instance.placement, (corner & 1 ? b : a)[0], (corner & 2 ? b : a)[1], (corner & 4 ? b : a)[2]);
    at.forEach((value, k) => {
      low[k] = Math.min(low[k]!, value);
      high[k] = Math.max(high[k]!, value);
    });
  }
  const made: Boxed = { instance, low, high };
  boxedParts.set(instance, made);
  return made;
}

/** An element as it is cut, with the box about it. */
export interface ElementAsCut {
  id: string;
  mesh: CutMesh;
}

const boxedElements = new WeakMap<CutMesh, Boxed>();

/** An element's own mesh as something that stands in its place. */
export function boxedElement({ id, mesh }: ElementAsCut): Boxed {
  let made = boxedElements.get(mesh);
  if (made) return made;
  const [low, high] = boxOf(mesh);
  const part = { key: '', name: '', mesh };
  made = { instance: { part, element: id, opening: '', id: '', face: 'outer', placement: still }, low, high };
  boxedElements.set(mesh, made);
  return made;
}

const still: Rigid = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** What has been found of two meshes, by how the one stands to the other. */
const pairs = new WeakMap<CutMesh, WeakMap<CutMesh, Map<string, boolean>>>();

/** Whether two parts stand in each other; looked at once for all that stand to each other alike. */
export function alikeCrossing(a: Boxed, b: Boxed): boolean {
  const [one, other] = [a.instance, b.instance];
  let byOther = pairs.get(one.part.mesh);
  if (!byOther) pairs.set(one.part.mesh, (byOther = new WeakMap()));
  let byPlace = byOther.get(other.part.mesh);
  if (!byPlace) byOther.set(other.part.mesh, (byPlace = new Map()));
  const { origin, x, y, z } = other.placement;
  const key = [placedIn(one.placement, origin), ...[x, y, z].map((way) => turnedIn(one.placement, way))]
    .flatMap((v) => v.map((value) => Math.round(value * 1e6)))
    .join();
  let found = byPlace.get(key);
  if (found === undefined) byPlace.set(key, (found = crossing(a, b)));
  return found;
}

/** Whether the boxes of two share more than they may touch. */
export const overlapping = (a: Boxed, b: Boxed): boolean =>
  [0, 1, 2].every((k) => a.low[k]! < b.high[k]! - millimetre && b.low[k]! < a.high[k]! - millimetre);

/** Whether an edge of the one goes through a face of the other, within the box that they share. */
function crossing(a: Boxed, b: Boxed): boolean {
  const low = [0, 1, 2].map((k) => Math.max(a.low[k]!, b.low[k]!));
  const high = [0, 1, 2].map((k) => Math.min(a.high[k]!, b.high[k]!));
  // Along the way in which they share most the fewest triangles are beside one another.
  const shared = high.map((value, k) => value - low[k]!);
  const axis = shared.indexOf(Math.max(...shared));
  const [ours, theirs] = [a, b].map(({ instance: { part, placement } }) =>
    trianglesIn(part.mesh, placement, low, high)
      .map((triangle) => flatOf(triangle))
      .sort((one, other) => one.low[axis]! - other.low[axis]!),
  ) as [Flat[], Flat[]];
  let first = 0;
  const longest = Math.max(0, ...theirs.map((one) => one.high[axis]! - one.low[axis]!));
  for (const one of ours) {
    while (first < theirs.length && theirs[first]!.low[axis]! < one.low[axis]! - longest - millimetre) first += 1;
    for (let k = first; k < theirs.length && theirs[k]!.low[axis]! <= one.high[axis]!; k++)
      if (meeting(one, theirs[k]!)) return true;
  }
  return false;
}

/** A triangle with its box, and its plane: a unit normal, and how far that is from the origin. None where it is too thin to have one. */
interface Flat {
  points: Triangle;
  low: readonly number[];
  high: readonly number[];
  normal: Vector | null;
  offset: number;
}

function flatOf(points: Triangle): Flat {
  const [a, b, c] = points;
  const n = cross(minus(b, a), minus(c, a));
  const size = Math.hypot(...n);
  const normal: Vector | null = size > nanometre * nanometre ? [n[0] / size, n[1] / size, n[2] / size] : null;
  return {
    points,
    low: [0, 1, 2].map((k) => Math.min(a[k]!, b[k]!, c[k]!)),
    high: [0, 1, 2].map((k) => Math.max(a[k]!, b[k]!, c[k]!)),
    normal,
    offset: normal ? dot(normal, a) : 0,
  };
}

/** Whether an edge of either triangle goes through the other. */
function meeting(a: Flat, b: Flat): boolean {
  for (let k = 0; k < 3; k++) if (a.low[k]! > b.high[k]! || b.low[k]! > a.high[k]!) return false;
  const goes = (edges: Triangle, face: Triangle): boolean =>
    [0, 1, 2].some((k) => pierces(edges[k]!, edges[(k + 1) % 3]!, face));
  return (beside(a, b) ? false : goes(a.points, b.points)) || (beside(b, a) ? false : goes(b.points, a.points));
}

/** Whether a triangle lies on one side of another's plane, but for what may touch it. */
function beside({ points }: Flat, { normal, offset }: Flat): boolean {
  if (!normal) return true;
  const far = points.map((point) => dot(normal, point) - offset);
  return Math.max(...far) < along || Math.min(...far) > 0 - along;
}

type Triangle = readonly [Vector, Vector, Vector];

/** Those triangles of a mesh in its place whose boxes meet another. */
function trianglesIn(mesh: CutMesh, placement: Rigid, low: readonly number[], high: readonly number[]): Triangle[] {
  const { points, vertices, triangles } = mesh;
  const at = (corner: number): Vector => {
    const v = 3 * vertices[corner]!;
    return placement === still
      ? [points[v]!, points[v + 1]!, points[v + 2]!]
      : put(placement, points[v]!, points[v + 1]!, points[v + 2]!);
  };
  const found: Triangle[] = [];
  const near = placement === still && triangles.length > 3 * manyTriangles ? trianglesNear(mesh, low, high) : null;
  for (let k = 0; k < (near?.length ?? triangles.length / 3); k++) {
    const i = 3 * (near ? near[k]! : k);
    const three: Triangle = [at(triangles[i]!), at(triangles[i + 1]!), at(triangles[i + 2]!)];
    if (
      [0, 1, 2].every(
        (k) => three.some((p) => p[k]! >= low[k]! - nanometre) && three.some((p) => p[k]! <= high[k]! + nanometre),
      )
    )
      found.push(three);
  }
  return found;
}

/** From so many triangles on those near a place are found by an index. */
const manyTriangles = 500;

const indexes = new WeakMap<CutMesh, Flatbush>();

/** The triangles of a mesh whose boxes in plan meet another, in order. */
function trianglesNear(mesh: CutMesh, low: readonly number[], high: readonly number[]): number[] {
  let index = indexes.get(mesh);
  if (!index) {
    const { points, vertices, triangles } = mesh;
    index = new Flatbush(triangles.length / 3);
    for (let i = 0; i < triangles.length; i += 3) {
      const three = [0, 1, 2].map((k) => 3 * vertices[triangles[i + k]!]!);
      const [xs, ys] = [0, 1].map((axis) => three.map((v) => points[v + axis]!)) as [number[], number[]];
      index.add(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys));
    }
    index.finish();
    indexes.set(mesh, index);
  }
  const by = nanometre;
  return index.search(low[0]! - by, low[1]! - by, high[0]! + by, high[1]! + by).sort((a, b) => a - b);
}

/** By less than this on either side of a face an edge lies along it. */
const along = 0.05 * millimetre;

/** Whether an edge goes through a triangle, by more than it may touch it. Source: Möller and Trumbore, "Fast, minimum storage ray/triangle intersection", 1997. */
function pierces(from: Vector, to: Vector, [a, b, c]: Triangle): boolean {
  const way = minus(to, from);
  const [u, v] = [minus(b, a), minus(c, a)];
  const p = cross(way, v);
  const det = dot(u, p);
  if (Math.abs(det) < nanometre * nanometre) return false;
  const normal = cross(u, v);
  const twice = Math.hypot(...normal);
  const [before, after] = [from, to].map((end) => dot(minus(end, a), normal) / twice) as [number, number];
  if (before * after > 0 || Math.min(Math.abs(before), Math.abs(after)) < along) return false;
  const s = minus(from, a);
  const q = cross(s, u);
  const [i, j, t] = [dot(s, p) / det, dot(way, q) / det, dot(v, q) / det];
  const end = millimetre / Math.max(Math.hypot(...way), millimetre);
  if (t <= end || t >= 1 - end) return false;
  // As near to a face's own edge it only passes along that.
  const [byV, byU, byOther] = [i / Math.hypot(...v), j / Math.hypot(...u), (1 - i - j) / Math.hypot(...minus(c, b))];
  return Math.min(byV, byU, byOther) * twice > along;
}
