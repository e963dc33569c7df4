/** Meshes from outside in the openings: fitted into a box along each axis, kept, stretched or repeated. */
import type { Fit, Imported } from '@yard-arch/document';
import { meshBy, meshesLearnt, type KnownMesh } from '../mesh/kept-meshes.ts';
import { nanometre } from '../tolerances.ts';
import { cross, dot, minus, plus, type Vector } from '../vector.ts';
import { NotDivided } from './divide.ts';
import { Facets } from './facets.ts';
import type { Front, PartMesh } from './part.ts';
import type { Spot } from './area.ts';

/** A box: from where to where across, through and up, metres. */
export type Box = readonly [across: Span, through: Span, up: Span];
type Span = readonly [from: number, to: number];

/** How a mesh goes along an axis, by copies: each is its own figures less `low`, times `scale`, plus `at`. */
interface Along {
  scale: number;
  at: number[];
}

/** The most triangles of what is repeated. */
const most = 400_000;

function alongOf({ rule, at, off = 0 }: Fit, size: number, [from, to]: Span): Along {
  const room = to - from;
  if (rule === 'stretch') return { scale: size > nanometre ? room / size : 1, at: [from] };
  if (rule === 'repeat') {
    const count = Math.max(1, Math.floor(room / Math.max(size, nanometre) + nanometre));
    // Equal spaces between them and at both ends.
    const gap = (room - count * size) / (count + 1);
    return { scale: 1, at: Array.from({ length: Math.min(count, most) }, (_, i) => from + gap + i * (size + gap)) };
  }
  const rest = { start: 0, middle: (room - size) / 2, end: room - size }[at];
  return { scale: 1, at: [from + rest + off] };
}

/** What of a mesh depends on what has come in, for keys. */
export const importedKey = (text: string): string => (text.includes('"imported"') ? ` ${meshesLearnt()}` : '');

/** Adds a mesh in a box. @throws NotDivided where it is not here, or would be too much */
export function imported(
  facets: Facets,
  front: Front[],
  { mesh: id, materials, ...fits }: Omit<Imported, 'kind'>,
  box: Box,
): void {
  const mesh = meshBy(id);
  if (!mesh) throw new NotDivided('the mesh that it carries is not here');
  const axes = (['across', 'through', 'up'] as const).map((axis, i) => alongOf(fits[axis], mesh.size[i]!, box[i]!));
  const copies = axes.reduce((count, { at }) => count * at.length, 1);
  if (copies * mesh.slots.length > most)
    throw new NotDivided(
      `the mesh that it carries would stand ${copies.toLocaleString('en')} times, which is too much`,
    );
  const [x, y, z] = axes as [Along, Along, Along];
  for (const dx of x.at)
    for (const dy of y.at)
      for (const dz of z.at) {
        const place: Place = { scale: [x.scale, y.scale, z.scale], at: [dx, dy, dz] };
        copy(facets, mesh, materials, place);
        front.push({
          kind: 'solid',
          loops: outlinesOf(mesh, place),
          ...(materials[0] ? { material: materials[0] } : {}),
        });
      }
}

interface Place {
  scale: Vector;
  at: Vector;
}

const placed = ({ points, low }: KnownMesh, { scale, at }: Place, i: number): Vector => [
  (points[3 * i]! - low[0]) * scale[0] + at[0],
  (points[3 * i + 1]! - low[1]) * scale[1] + at[1],
  (points[3 * i + 2]! - low[2]) * scale[2] + at[2],
];

/** Faces that turn by no more than this at a corner are shaded as one. */
const rounded = Math.cos((40 * Math.PI) / 180);

function copy(facets: Facets, mesh: KnownMesh, materials: readonly string[], place: Place): void {
  const { triangles, slots } = mesh;
  const points = Array.from({ length: mesh.points.length / 3 }, (_, i) => placed(mesh, place, i));
  const corners = (t: number): [Vector, Vector, Vector] =>
    [0, 1, 2].map((k) => points[triangles[3 * t + k]!]!) as [Vector, Vector, Vector];
  // As long as their areas are large, so that large faces tell more.
  const normals = Array.from(slots, (_, t) => {
    const [a, b, c] = corners(t);
    return cross(minus(b, a), minus(c, a));
  });
  const about: number[][] = points.map(() => []);
  triangles.forEach((point, i) => about[point]!.push(Math.floor(i / 3)));
  const shaded = (point: number, own: Vector): Vector => {
    let sum: Vector = [0, 0, 0];
    for (const t of about[point]!) {
      const other = normals[t]!;
      if (dot(own, other) > rounded * Math.hypot(...own) * Math.hypot(...other)) sum = plus(sum, other);
    }
    const size = Math.hypot(...sum);
    return [sum[0] / size, sum[1] / size, sum[2] / size];
  };
  // One solid, though it be of several materials: its vertices are shared among them.
  facets.begin(materials[0]!);
  for (let slot = 0; slot <= Math.max(...new Set(slots)); slot++) {
    facets.goOn(materials[Math.min(slot, materials.length - 1)]!);
    for (let t = 0; t < slots.length; t++) {
      const own = normals[t]!;
      if (slots[t] !== slot || Math.hypot(...own) < nothing) continue;
      // Its texture runs level, or along where it lies.
      const grain =
        Math.hypot(own[0], own[1]) > 0.5 * Math.hypot(...own) ? ([own[1], -own[0], 0] as const) : cross([0, 1, 0], own);
      facets.add(
        corners(t),
        grain,
        [0, 1, 2].map((k) => shaded(triangles[3 * t + k]!, own)),
      );
    }
  }
}

/** A face of less than this is none, square metres. */
const nothing = 1e-14;

/** How a mesh is seen from the front: loops between faces that look to the front and others, about which it is filled by turns. */
function outlinesOf(mesh: KnownMesh, place: Place): Spot[][] {
  return (loopsOf.get(mesh) ?? kept(mesh)).map((loop) =>
    loop.map((point): Spot => {
      const [x, , z] = placed(mesh, place, point);
      return [x, z];
    }),
  );
}

const loopsOf = new WeakMap<KnownMesh, number[][]>();

function kept(mesh: KnownMesh): number[][] {
  const loops = silhouette(mesh);
  loopsOf.set(mesh, loops);
  return loops;
}

/** Points of each loop, in order. */
function silhouette({ points, triangles }: KnownMesh): number[][] {
  const next = new Map<number, number[]>();
  const open = new Set<string>();
  for (let i = 0; i < triangles.length; i += 3) {
    const three = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const [a, b, c] = three.map((v): Spot => [points[3 * v]!, points[3 * v + 2]!]) as [Spot, Spot, Spot];
    // y runs away from who looks at it.
    if ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) <= 0) continue;
    three.forEach((from, k) => {
      const to = three[(k + 1) % 3]!;
      if (!open.delete(`${to} ${from}`)) open.add(`${from} ${to}`);
    });
  }
  for (const edge of open) {
    const [from, to] = edge.split(' ').map(Number) as [number, number];
    next.set(from, [...(next.get(from) ?? []), to]);
  }
  const loops: number[][] = [];
  for (const first of next.keys())
    for (let at = first, loop: number[] = []; ; loop = [...loop, at]) {
      const to = next.get(at)?.pop();
      if (to === undefined) {
        if (loop.length > 2) loops.push(loop);
        break;
      }
      at = to;
    }
  return loops;
}

/** A mesh from outside about an opening, in the opening's box; or why there is none. */
export function importedPart(
  part: Imported,
  { width, height, depth }: { width: number; height: number; depth: number },
): PartMesh | string {
  const { mesh, materials, across, through, up } = part;
  const facets = new Facets(materials[0]!);
  const front: Front[] = [];
  const box: Box = [
    [-width / 2, width / 2],
    [0, depth],
    [0, height],
  ];
  try {
    imported(facets, front, { mesh, materials, across, through, up }, box);
  } catch (error) {
    if (error instanceof NotDivided) return error.message;
    throw error;
  }
  const key = JSON.stringify(['imported', mesh, materials, across, through, up, width, height, depth]);
  return { key, name: 'imported', mesh: facets.finish(), front };
}
