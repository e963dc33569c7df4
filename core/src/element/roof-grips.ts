/** Where a roof can be taken hold of in space: its planes to be pitched, its ridges to be raised, its eaves and verges to be drawn out. */
import type { Surface } from '../roof/surface.ts';
import { micrometre } from '../tolerances.ts';
import type { Vector } from '../vector.ts';
import { turnedOut } from './chart.ts';
import { nodeAt, type RoofBody } from './roof-sheets.ts';
import { partsOf } from '../roof/edge-line.ts';

/** A plane that follows a grip: which edge's, the upper one or not, and how far in plan from where it turns, metres. */
export interface GripTarget {
  edge: string;
  upper: boolean;
  far: number;
}

/** A place to take hold of. It is drawn along `way`, which is a metre long in plan for overhangs and plumb for the others. */
export interface RoofGrip {
  kind: 'pitch' | 'ridge' | 'overhang';
  at: Vector;
  way: Vector;
  targets: readonly GripTarget[];
}

type Plane = Surface['planes'][number];
type Node = Surface['nodes'][number];

/** The grips of a roof: one on each ridge, each plane, and each eaves and verge; facets of an arc have one of each between them. */
export function roofGripsOf(body: RoofBody): RoofGrip[] {
  const seen = new Set<string>();
  return [...ridges(body), ...pitches(body), ...overhangs(body)].filter(({ kind, targets }) => {
    const key = `${kind} ${targets.map(({ edge, upper }) => `${edge} ${upper}`).join(' ')}`;
    return !seen.has(key) && seen.add(key);
  });
}

const upright: Vector = [0, 0, 1];

/** What a plane is of, as seen from a node: null of planes that do not turn about an edge. */
function targetOf({ roof }: RoofBody, { edge, strip, nx, ny }: Plane, [x, y]: readonly number[]): GripTarget | null {
  const eave = roof.eaves[edge];
  if (!eave || strip < 0) return null;
  const { of } = eave;
  if (of.is === 'abutment') return null;
  // An upper plane turns about the fold below it, all others about the drawn edge.
  const fold = of.is === 'eaves' && strip > 0 && of.second ? of.second.from / Math.tan((of.pitch * Math.PI) / 180) : 0;
  const sign = of.is === 'eaves' && of.pitch < 0 ? -1 : 1;
  const far = sign * (nx * (x! - eave.x) + ny * (y! - eave.y)) - fold;
  return far > 0.05 ? { edge: of.id, upper: strip > 0, far } : null;
}

function ridges(body: RoofBody): RoofGrip[] {
  const surface = body.roof.surfaces[0]!;
  const longest = new Map<string, { long: number; grip: RoofGrip }>();
  surface.planes.forEach((own, p) =>
    own.rings.forEach(({ nodes, beyond }) =>
      nodes.forEach((node, i) => {
        const other = surface.planes[beyond[i]!];
        if (own.strip < 0 || !other || other.strip < 0 || beyond[i]! < p) return;
        const [a, b] = [surface.nodes[node]!, surface.nodes[nodes[(i + 1) % nodes.length]!]!];
        const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
        if (Math.abs(a[2] - b[2]) > micrometre || long < 0.05) return;
        const middle: Node = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, a[2]];
        const targets = [targetOf(body, own, middle), targetOf(body, other, middle)];
        if (!targets[0] || !targets[1] || targets[0].edge === targets[1].edge) return;
        const key = `${p} ${beyond[i]!}`;
        if ((longest.get(key)?.long ?? 0) >= long) return;
        const grip: RoofGrip = {
          kind: 'ridge',
          at: nodeAt(body.frame, middle),
          way: upright,
          targets: [targets[0], targets[1]],
        };
        longest.set(key, { long, grip });
      }),
    ),
  );
  return [...longest.values()].map(({ grip }) => grip);
}

function pitches(body: RoofBody): RoofGrip[] {
  const surface = body.roof.surfaces[0]!;
  return surface.planes.flatMap((plane): RoofGrip[] => {
    if (plane.strip < 0 || plane.rings.length === 0) return [];
    const nodes = plane.rings[0]!.nodes.map((n) => surface.nodes[n]!);
    const middle = [0, 1, 2].map((k) => nodes.reduce((sum, node) => sum + node[k]!, 0) / nodes.length);
    const target = targetOf(body, plane, middle);
    // What lies flat enough has its corners' middle in it.
    return target
      ? [{ kind: 'pitch', at: nodeAt(body.frame, middle as unknown as Vector), way: upright, targets: [target] }]
      : [];
  });
}

function overhangs(body: RoofBody): RoofGrip[] {
  const { roof, frame } = body;
  const surface = roof.surfaces[0]!;
  return surface.planes.flatMap(({ edge, strip, rings, nx, ny }, p): RoofGrip[] => {
    const of = roof.eaves[edge]?.of;
    if (strip >= 0 || !of || of.is === 'abutment' || rings.length === 0) return [];
    const line = partsOf(surface, p).main.map((node) => surface.nodes[node]!);
    let best: readonly [Node, Node] | null = null;
    const sizeOf = ([a, b]: readonly [Node, Node]): number => Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
    for (let i = 0; i + 1 < line.length; i++) {
      const piece = [line[i]!, line[i + 1]!] as const;
      if (!best || sizeOf(piece) > sizeOf(best)) best = piece;
    }
    if (!best) return [];
    const [a, b] = best;
    const falls = of.is === 'eaves' ? Math.tan((of.pitch * Math.PI) / 180) : 0;
    return [
      {
        kind: 'overhang',
        at: nodeAt(frame, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2]),
        way: turnedOut(frame, [0 - nx, 0 - ny, 0 - falls]),
        targets: [{ edge: of.id, upper: false, far: 1 }],
      },
    ];
  });
}
