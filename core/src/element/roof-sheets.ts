/** A roof's sheets: one of it as it is seen from above, and one for each of its planes, up the slope, over the roof's layers. */
import type { Element, FaceName, Layer, RoofForm } from '@yard-arch/document';
import type { Fault } from '../finding.ts';
import { roofOf, type Roof } from '../roof/roof.ts';
import { isEdgesUpright, partsOf } from '../roof/edge-line.ts';
import type { Ring } from '../roof/rings.ts';
import type { Surface } from '../roof/surface.ts';
import { relative } from '../tolerances.ts';
import { cross, dot, minus, scaled, type Vector } from '../vector.ts';
import { turned, turnedOut, type FlatChart, type Rigid } from './chart.ts';
import { boundariesOf, type OpenLoop, type Sheet, type SheetEdge, type SheetOutline } from './sheet.ts';

type SurfacePlane = Surface['planes'][number];

/** The unit normal of a plane, out of the roof, as seen from its start. */
export function normalOf({ nx, ny, run }: Pick<SurfacePlane, 'nx' | 'ny' | 'run'>): Vector {
  const size = Math.hypot(1, run);
  return [-nx / size, -ny / size, run / size];
}

/** An edge of a plane's ring: the plane beyond it, and its nodes with the plane on the left. */
interface RingEdge {
  beyond: number;
  from: number;
  to: number;
}

/** Whether an edge of a plane is one of a step within the roof: a plane goes on below it, or above. */
export function isStep(surface: Surface, { beyond, from, to }: RingEdge): boolean {
  const other = surface.planes[beyond]!;
  if (other.run !== 0) return false;
  if (!isEdgesUpright(other)) return true;
  const { main } = partsOf(surface, beyond);
  return !main.includes(from) || !main.includes(to);
}

/** What a plane's edge is called: by what lies beyond it and how the two meet. */
function edgeName({ eaves }: Roof, surface: Surface, own: SurfacePlane, at: RingEdge): SheetEdge {
  const beyond = surface.planes[at.beyond]!;
  const [a, b] = [surface.nodes[at.from]!, surface.nodes[at.to]!];
  const size = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
  const along = scaled(minus(b, a), 1 / size);
  if (beyond.run === 0) {
    if (beyond.edge === own.edge) return 'eaves';
    // Within the roof the lower plane ends at the step, and the higher one above it.
    if (isStep(surface, at)) return beyond.ny * along[0] - beyond.nx * along[1] > 0 ? 'verge' : 'abutment';
    return beyond.edge >= 0 && eaves[beyond.edge]!.of.is === 'abutment' ? 'abutment' : 'verge';
  }
  if (beyond.edge === own.edge) return 'fold';
  const level = Math.abs(along[2]) < relative * 10;
  // Seen along the edge, the other plane falls away to the right of a ridge and rises from a valley.
  const falls = dot(cross(along, normalOf(own)), normalOf(beyond)) > 0;
  return falls ? (level ? 'ridge' : 'hip') : 'valley';
}

/** A plane's own chart: s along its edge, t up its slope, from the corner of a box about it. */
interface Local {
  along: Vector;
  up: Vector;
  origin: Vector;
}

function localOf(surface: Surface, plane: SurfacePlane): Local {
  const out = normalOf(plane);
  const along: Vector = [plane.ny, -plane.nx, 0];
  const up = cross(out, along);
  const nodes = plane.rings.flatMap(({ nodes }) => nodes.map((n) => surface.nodes[n]!));
  const least = (way: Vector): number => Math.min(...nodes.map((node) => dot(way, node)));
  const [s, t, n] = [least(along), least(up), dot(out, nodes[0]!)];
  return {
    along,
    up,
    origin: [0, 1, 2].map((k) => s * along[k]! + t * up[k]! + n * out[k]!) as unknown as Vector,
  };
}

const flatIn = ({ along, up, origin }: Local, node: Vector): [number, number] => {
  const from: Vector = [node[0] - origin[0], node[1] - origin[1], node[2] - origin[2]];
  return [dot(along, from), dot(up, from)];
};

/** A roof as it stands: its planes at every depth of its layers, and its sheets. */
export interface RoofBody {
  roof: Roof;
  frame: Rigid;
  boundaries: Float64Array;
  trims: RoofForm['trims'];
  /** Of the planes, in the order of its edges; `plane` is its number among the surface's. */
  planes: readonly { sheet: Sheet; face: FaceName; plane: number }[];
}

/** A roof's body, or why it has none. */
export function roofBody(element: Pick<Element, 'id' | 'texture' | 'layers'>, form: RoofForm): RoofBody | Fault {
  const boundaries = boundariesOf(element.layers);
  const roof = roofOf(form, boundaries);
  if ('code' in roof) return roof;
  const [cos, sin] = turned(form.turn);
  const { x, y, z } = form.start;
  const frame: Rigid = { origin: [x, y, z], x: [cos, sin, 0], y: [0 - sin, cos, 0], z: [0, 0, 1] };
  const top = roof.surfaces[0]!;
  const planes = top.planes.flatMap((plane, i) => {
    if (plane.strip < 0 || plane.rings.length === 0) return [];
    const face = planeName(roof, plane);
    return [{ face, plane: i, sheet: planeSheet({ roof, frame, boundaries }, element, i, face) }];
  });
  return { roof, frame, boundaries, trims: form.trims, planes };
}

function planeSheet(
  { roof, frame, boundaries }: Omit<RoofBody, 'planes' | 'trims'>,
  { id, texture, layers }: { id: string; texture?: Element['texture']; layers: readonly Layer[] },
  i: number,
  face: FaceName,
): Sheet {
  const top = roof.surfaces[0]!;
  const plane = top.planes[i]!;
  const local = localOf(top, plane);
  const [a, b, c] = normalOf(plane);
  const chart: FlatChart = {
    kind: 'flat',
    origin: nodeAt(frame, local.origin),
    along: turnedOut(frame, local.along),
    up: turnedOut(frame, local.up),
    inward: turnedOut(frame, [0 - a, 0 - b, 0 - c]),
  };
  const outline = outlineOf(roof, top, plane, local);
  const rimAt = (depth: number): OpenLoop[] => {
    const surface = roof.surfaces[surfaceAt(boundaries, depth)]!;
    return surface.planes[i]!.rings.map((ring) => loopOf(frame, surface, ring, local));
  };
  return {
    element: id,
    face,
    chart,
    length: Math.max(...outline.xs),
    height: Math.max(...outline.ys),
    outline,
    boundaries,
    layers,
    thickness: boundaries[boundaries.length - 1]!,
    noun: 'roof plane',
    larger: 'larger',
    texture,
    joins: [],
    fault: null,
    rim: (from, to) => ({ outer: rimAt(from), inner: rimAt(to) }),
  };
}

/** The roof as it is seen from above: what is set out there goes down through all of it. */
export function roofFromAbove({ roof, frame }: RoofBody, element: Pick<Element, 'id' | 'layers'>): Sheet {
  const heights = roof.surfaces.flatMap(({ nodes, base }) =>
    nodes.map(([, , z]) => z).filter((z) => Math.abs(z - base) > 0.5),
  );
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const points = roof.loops.map((loop) => loop.map(({ outX, outY }) => [outX, outY] as const));
  const starts: number[] = [];
  const next: number[] = [];
  for (const loop of points) {
    const first = next.length;
    starts.push(first);
    loop.forEach((_, i) => next.push(i + 1 === loop.length ? first : first + i + 1));
  }
  const seen = points.flat();
  // Counted from the corner of a box about it, so that what reaches over is in it.
  const [left, foot] = [Math.min(...seen.map(([x]) => x)), Math.min(...seen.map(([, y]) => y))];
  const all = seen.map(([x, y]) => [x - left, y - foot] as const);
  return {
    element: element.id,
    chart: {
      kind: 'flat',
      origin: nodeAt(frame, [left, foot, high]),
      along: frame.x,
      up: frame.y,
      inward: [0, 0, -1],
    },
    length: Math.max(...all.map(([x]) => x)),
    height: Math.max(...all.map(([, y]) => y)),
    outline: {
      xs: Float64Array.from(all, ([x]) => x),
      ys: Float64Array.from(all, ([, y]) => y),
      next: Uint32Array.from(next),
      loops: starts,
      names: roof.eaves.map(({ of: { is } }): SheetEdge => is),
      sections: all.map(() => null),
      chords: all.map(() => null),
    },
    boundaries: Float64Array.of(0, high - low),
    layers: element.layers.slice(0, 1),
    thickness: high - low,
    noun: 'roof',
    larger: 'larger',
    texture: undefined,
    joins: [],
    fault: null,
  };
}

/** What a plane's face is called in documents. */
export function planeName({ eaves }: Roof, { edge, strip }: Pick<SurfacePlane, 'edge' | 'strip'>): string {
  const { name } = eaves[edge]!;
  return strip > 0 ? `${name}-upper` : name;
}

/** The surface at a depth. */
export function surfaceAt(boundaries: Float64Array, depth: number): number {
  let best = 0;
  boundaries.forEach((at, i) => {
    if (Math.abs(at - depth) < Math.abs(boundaries[best]! - depth)) best = i;
  });
  return best;
}

function loopOf(frame: Rigid, surface: Surface, { nodes }: Ring, local: Local): OpenLoop {
  const flat = nodes.map((n) => flatIn(local, surface.nodes[n]!));
  return {
    points: nodes.map((n) => nodeAt(frame, surface.nodes[n]!)),
    xs: flat.map(([x]) => x),
    ys: flat.map(([, y]) => y),
  };
}

function outlineOf(roof: Roof, surface: Surface, plane: SurfacePlane, local: Local): SheetOutline {
  const [xs, ys, next, loops]: [number[], number[], number[], number[]] = [[], [], [], []];
  const names: SheetEdge[] = [];
  for (const { nodes, beyond } of plane.rings) {
    const first = xs.length;
    loops.push(first);
    nodes.forEach((node, i) => {
      const [x, y] = flatIn(local, surface.nodes[node]!);
      xs.push(x);
      ys.push(y);
      next.push(i + 1 === nodes.length ? first : xs.length);
      const edge = { beyond: beyond[i]!, from: node, to: nodes[(i + 1) % nodes.length]! };
      names.push(edgeName(roof, surface, plane, edge));
    });
  }
  return {
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: Uint32Array.from(next),
    loops,
    names,
    sections: xs.map(() => null),
    chords: xs.map(() => null),
  };
}

/** A node of a surface in space. */
export function nodeAt({ origin, x: a, y: b }: Rigid, [x, y, z]: Vector): [number, number, number] {
  return [origin[0] + x * a[0] + y * b[0], origin[1] + x * a[1] + y * b[1], origin[2] + z];
}
