/** The trims of a roof as closed solids: fascias along its eaves, barge boards along its verges, caps over its ridges and hips, and trim on it along its verges. Metres. */
import type { Roof as RoofRow } from '@yard-arch/document';
import type { Surface } from '../roof/surface.ts';
import { micrometre, parallel } from '../tolerances.ts';
import { cross, dot, minus, plus, scaled, type Vector } from '../vector.ts';
import { partsOf } from '../roof/edge-line.ts';
import { nodeAt, normalOf, type RoofBody } from './roof-sheets.ts';

/** A closed solid of flat polygons, each counter-clockwise as seen from outside; of one material. */
export interface Trim {
  points: Vector[];
  polygons: number[][];
  material: string;
}

type Trims = NonNullable<RoofRow['trims']>;

/** The trims that a roof asks for, where it stands. */
export function trimsOf(body: RoofBody, { fascia, barge, cap, verge }: Trims): Trim[] {
  const own = [
    ...(fascia ? fascias(body, fascia) : []),
    ...(barge ? barges(body, barge, fascia?.thickness ?? 0) : []),
    ...(cap ? caps(body, cap, verge?.width ?? 0) : []),
    ...(verge ? vergeTrims(body, verge, barge?.thickness ?? 0) : []),
  ];
  return own.map((trim) => ({ ...trim, points: trim.points.map((point) => nodeAt(body.frame, point)) }));
}

/** A solid between two loops of as many points, the first counter-clockwise as seen from where the second is not. @param ends the flat pieces that its ends are of, where each is not one */
function between(near: readonly Vector[], far: readonly Vector[], material: string, ends?: number[][]): Trim {
  const count = near.length;
  const ring = Array.from({ length: count }, (_, i) => i);
  const flat = ends ?? [ring];
  return {
    points: [...near, ...far],
    polygons: [
      ...flat,
      ...flat.map((piece) => piece.map((i) => count + i).reverse()),
      ...ring.map((i) => {
        const j = (i + 1) % count;
        return [j, i, count + i, count + j];
      }),
    ],
    material,
  };
}

/** The upright planes of the top surface that end in one level line: eaves, by their numbers. */
function levelEaves({ roof }: RoofBody): Map<number, { plane: number; z: number }> {
  const surface = roof.surfaces[0]!;
  const found = new Map<number, { plane: number; z: number }>();
  surface.planes.forEach(({ edge, strip, rings }, plane) => {
    if (strip >= 0 || edge < 0 || rings.length === 0 || roof.eaves[edge]!.of.is !== 'eaves') return;
    const [a, ...more] = partsOf(surface, plane).main.map((node) => surface.nodes[node]!);
    const level = more.length > 0 && more.every((node) => Math.abs(node[2] - a![2]) < micrometre);
    if (level) found.set(edge, { plane, z: a![2] });
  });
  return found;
}

function fascias(body: RoofBody, { height, thickness, material }: NonNullable<Trims['fascia']>): Trim[] {
  const level = levelEaves(body);
  let edge = 0;
  return body.roof.loops.flatMap((loop) => {
    const first = edge;
    edge += loop.length;
    return loop.flatMap((_, i) => {
      const here = level.get(first + i);
      if (!here) return [];
      const count = loop.length;
      const at = (k: number): Vector => {
        const { outX, outY } = loop[(k + count) % count]!;
        return [outX, outY, here.z];
      };
      const [a, b] = [at(i), at(i + 1)];
      const way = unit(minus(b, a));
      const out: Vector = [way[1], -way[0], 0];
      // Mitred with a neighbour on the same level, else square.
      const corner = (p: Vector, other: number, k: number): Vector => {
        const next = level.get(first + ((other + count) % count));
        const push = scaled(out, thickness);
        if (!next || Math.abs(next.z - here.z) > micrometre) return plus(p, push);
        const along = unit(minus(at(k + 1), at(k)));
        const its: Vector = [along[1], -along[0], 0];
        const cos = dot(out, its);
        return cos < -0.99 ? plus(p, push) : plus(p, scaled(plus(out, its), thickness / (1 + cos)));
      };
      const [c, d] = [corner(a, i - 1, i - 1), corner(b, i + 1, i + 1)];
      if (dot(minus(d, c), way) < micrometre) return [];
      const low = (p: Vector): Vector => [p[0], p[1], p[2] - height];
      return [between([a, c, d, b], [a, c, d, b].map(low), material)];
    });
  });
}

const unit = (v: Vector): Vector => scaled(v, 1 / Math.sqrt(dot(v, v)));

/** @param reach how far a board goes on beyond its ends, past the fascias, metres */
function barges(
  { roof }: RoofBody,
  { height, thickness, material }: NonNullable<Trims['barge']>,
  reach: number,
): Trim[] {
  const surface = roof.surfaces[0]!;
  return surface.planes.flatMap((plane, p) => {
    const { edge, strip, rings, nx, ny } = plane;
    if (strip >= 0 || edge < 0 || rings.length === 0 || roof.eaves[edge]!.of.is !== 'verge') return [];
    const out: Vector = [-nx, -ny, 0];
    const along: Vector = [ny, -nx, 0];
    // From the start of the edge to its end, in the upright plane: along, and up.
    const top = partsOf(surface, p).main.map((node): [number, number] => [
      dot(along, surface.nodes[node]!),
      surface.nodes[node]![2],
    ]);
    if (top.length < 2) return [];
    const line = extended(top, reach);
    const under = loweredBy(line, height);
    const base = dot(out, surface.nodes[rings[0]!.nodes[0]!]!);
    const place = ([s, z]: [number, number], by: number): Vector => [
      along[0] * s + out[0] * (base + by),
      along[1] * s + out[1] * (base + by),
      z,
    ];
    const loop = [...under, ...[...line].reverse()];
    return [
      between(
        loop.map((at) => place(at, thickness)),
        loop.map((at) => place(at, 0)),
        material,
      ),
    ];
  });
}

/** The planes that end in a verge's upright one, from its start to its end, without those that rise from the verge itself. */
function planesAlong(surface: Surface, upright: number): number[][] {
  const { rings, edge } = surface.planes[upright]!;
  const ring = rings.find(({ beyond }) => beyond.includes(-1))!;
  const base = ring.beyond.indexOf(-1);
  const { length } = ring.beyond;
  // After the base come the end, the top from there back, and the start.
  const along = Array.from({ length: length - 1 }, (_, i) => ring.beyond[(base + length - 1 - i) % length]!);
  const runs: number[][] = [[]];
  for (const plane of along) {
    const { edge: its, strip } = surface.planes[plane]!;
    if (strip < 0) continue;
    if (its === edge) runs.push([]);
    else if (runs.at(-1)!.at(-1) !== plane) runs.at(-1)!.push(plane);
  }
  return runs.filter((run) => run.length > 0);
}

/**
 * Trim on the roof along its verges: it follows each plane, and is mitred where two meet. It goes on over the barge board.
 * @param before how thick what stands before the verge is, metres
 */
function vergeTrims(
  { roof }: RoofBody,
  { width, thickness, material }: NonNullable<Trims['verge']>,
  before: number,
): Trim[] {
  const surface = roof.surfaces[0]!;
  return surface.planes.flatMap((plane, p) => {
    const { edge, strip, rings, nx, ny } = plane;
    if (strip >= 0 || edge < 0 || rings.length === 0 || roof.eaves[edge]!.of.is !== 'verge') return [];
    const along: Vector = [ny, -nx, 0];
    return planesAlong(surface, p).flatMap((run) => {
      const ends = endsOf(surface, p, run, along);
      if (!ends) return [];
      /** Where the planes, raised, are at a distance inward of the verge: from one end to the other. */
      const chain = (inward: number, raised: number): Vector[] => {
        const height = run.map((which) => {
          const own = surface.planes[which]!;
          const [a, b] = [own.nx * along[0] + own.ny * along[1], own.nx * nx + own.ny * ny];
          const at = (b * (plane.reach + inward) - own.reach) / own.run + raised * Math.hypot(1, 1 / own.run);
          return { slope: a / own.run, at };
        });
        return Array.from({ length: run.length + 1 }, (_, i): Vector => {
          const [q, r] = [height[i - 1], height[i]];
          const s = q && r ? (r.at - q.at) / (q.slope - r.slope) : i === 0 ? ends[0] : ends[1];
          const own = (r ?? q)!;
          const off = plane.reach + inward;
          return [along[0] * s + nx * off, along[1] * s + ny * off, own.slope * s + own.at];
        });
      };
      const loops = [chain(-before, 0), chain(width, 0), chain(width, thickness), chain(-before, thickness)];
      const { length } = loops[0]!;
      // Where its inner side would be turned round, the verge is too short for it; planes that rise alike along it have no corner there.
      const runsOn = loops.every((loop) =>
        loop.every((point, i) => i === 0 || dot(minus(point, loop[i - 1]!), along) >= micrometre),
      );
      if (!runsOn) return [];
      const at = (loop: number, i: number): number => (loop % 4) * length + i;
      const polygons = [
        [at(0, 0), at(3, 0), at(2, 0), at(1, 0)],
        [at(0, length - 1), at(1, length - 1), at(2, length - 1), at(3, length - 1)],
        ...[0, 1, 2, 3].flatMap((loop) =>
          Array.from({ length: length - 1 }, (_, i) => [
            at(loop, i),
            at(loop + 1, i),
            at(loop + 1, i + 1),
            at(loop, i + 1),
          ]),
        ),
      ];
      return [{ points: loops.flat(), polygons, material }];
    });
  });
}

/** Where planes begin and end along a verge's upright one. */
function endsOf(
  surface: Surface,
  upright: number,
  run: readonly number[],
  along: Vector,
): readonly [number, number] | null {
  const places = run.flatMap((which) =>
    surface.planes[which]!.rings.flatMap(({ nodes, beyond }) =>
      nodes.flatMap((node, i) =>
        beyond[i] === upright ? [node, nodes[(i + 1) % nodes.length]!].map((n) => dot(along, surface.nodes[n]!)) : [],
      ),
    ),
  );
  return places.length > 0 ? [Math.min(...places), Math.max(...places)] : null;
}

/** A line with its first and last piece drawn out. */
function extended(line: readonly [number, number][], by: number): [number, number][] {
  const out = line.map(([s, z]): [number, number] => [s, z]);
  const draw = (end: number, before: number, way: number): void => {
    const [a, b] = [line[end]!, line[before]!];
    out[end] = [a[0] + way * by, a[1] + (way * by * (a[1] - b[1])) / (a[0] - b[0])];
  };
  draw(0, 1, -1);
  draw(line.length - 1, line.length - 2, 1);
  return out;
}

/** A line moved down square to itself; its ends stay plumb below where they were. */
function loweredBy(line: readonly [number, number][], by: number): [number, number][] {
  const pieces = line.slice(1).map(([s, z], i) => {
    const [a, b] = line[i]!;
    const slope = (z - b) / (s - a);
    return { slope, at: b - slope * a - by * Math.hypot(1, slope) };
  });
  return line.map(([s], i): [number, number] => {
    const [p, q] = [pieces[i - 1], pieces[i]];
    if (p && q && Math.abs(p.slope - q.slope) > parallel) {
      const x = (q.at - p.at) / (p.slope - q.slope);
      return [x, p.slope * x + p.at];
    }
    const own = (q ?? p)!;
    return [s, own.slope * s + own.at];
  });
}

interface Line {
  a: number;
  b: number;
  /** The planes on its left and right, from a to b. */
  left: number;
  right: number;
}

/** The ridges and hips of the top surface, but for those between facets of one arc. */
function capped({ roof }: RoofBody): Line[] {
  const surface = roof.surfaces[0]!;
  return surface.planes.flatMap((own, left) =>
    own.strip < 0
      ? []
      : own.rings.flatMap(({ nodes, beyond }) =>
          nodes.flatMap((a, i): Line[] => {
            const right = beyond[i]!;
            const b = nodes[(i + 1) % nodes.length]!;
            if (right < left || right < 0) return [];
            const other = surface.planes[right]!;
            if (other.strip < 0 || own.edge === other.edge) return [];
            if (roof.eaves[own.edge]!.of === roof.eaves[other.edge]!.of) return [];
            const along = unit(minus(surface.nodes[b]!, surface.nodes[a]!));
            // The planes fall away from it.
            return dot(cross(along, normalOf(own)), normalOf(other)) > parallel ? [{ a, b, left, right }] : [];
          }),
        ),
  );
}

/** The two wings of a cap's section, by its corners. */
const halves = [
  [0, 1, 2, 3],
  [0, 3, 4, 5],
];

/** @param short how far before a verge they end, metres */
function caps(body: RoofBody, { width, thickness, material }: NonNullable<Trims['cap']>, short: number): Trim[] {
  const surface = body.roof.surfaces[0]!;
  const verges = short > 0 ? vergeNodes(body) : new Map<number, Vector>();
  const lines = capped(body);
  const at = new Map<number, Line[]>();
  for (const line of lines) for (const node of [line.a, line.b]) at.set(node, [...(at.get(node) ?? []), line]);
  return lines.flatMap((line) => {
    const [a, b] = [surface.nodes[line.a]!, surface.nodes[line.b]!];
    const way = unit(minus(b, a));
    if (Math.hypot(...minus(b, a)) < 4 * width) return [];
    const [left, right] = [normalOf(surface.planes[line.left]!), normalOf(surface.planes[line.right]!)];
    // Down each plane, square to the line.
    const [outLeft, outRight] = [unit(cross(left, way)), unit(cross(way, right))];
    const crown = scaled(plus(left, right), thickness / (1 + dot(left, right)));
    const section = {
      left: [scaled(outLeft, width), plus(scaled(outLeft, width), scaled(left, thickness))],
      right: [plus(scaled(outRight, width), scaled(right, thickness)), scaled(outRight, width)],
    };
    const ring = (node: number, from: Vector): Vector[] => {
      const ends = endPlanes(surface.nodes, node, line, at.get(node)!);
      const to = (v: Vector, side: 'left' | 'right'): Vector => cutBy(plus(from, v), way, from, ends[side]);
      return [
        cutBy(from, way, from, ends.left),
        ...section.right.map((v) => to(v, 'right')).reverse(),
        to(crown, 'left'),
        ...section.left.map((v) => to(v, 'left')).reverse(),
      ];
    };
    const from = (node: number, at: Vector, sign: 1 | -1): Vector => {
      const inward = verges.get(node);
      return inward ? plus(at, scaled(way, (sign * short) / Math.max(0.1, Math.abs(dot(way, inward))))) : at;
    };
    return [between(ring(line.a, from(line.a, a, 1)), ring(line.b, from(line.b, b, -1)), material, halves)];
  });
}

/** The nodes of the top surface that are on verges, each with the way inward from there. */
function vergeNodes({ roof }: RoofBody): Map<number, Vector> {
  const surface = roof.surfaces[0]!;
  return new Map(
    surface.planes.flatMap(({ edge, strip, rings, nx, ny }, p): [number, Vector][] =>
      strip >= 0 || edge < 0 || rings.length === 0 || roof.eaves[edge]!.of.is !== 'verge'
        ? []
        : partsOf(surface, p).main.map((node) => [node, [nx, ny, 0]]),
    ),
  );
}

/** Normals in plan of the upright planes at which a line's cap ends at a node: half way to what else is capped there on either side, or square to it. */
function endPlanes(
  nodes: RoofBody['roof']['surfaces'][number]['nodes'],
  node: number,
  line: Line,
  all: readonly Line[],
): { left: Vector; right: Vector } {
  const here = nodes[node]!;
  const wayOf = ({ a, b }: Line): [number, number] => {
    const there = nodes[a === node ? b : a]!;
    const size = Math.hypot(there[0] - here[0], there[1] - here[1]);
    return [(there[0] - here[0]) / size, (there[1] - here[1]) / size];
  };
  const own = wayOf(line);
  const square: Vector = [own[0], own[1], 0];
  const turns = all
    .filter((other) => other !== line)
    .map((other) => {
      const way = wayOf(other);
      const turn = Math.atan2(own[0] * way[1] - own[1] * way[0], own[0] * way[0] + own[1] * way[1]);
      return { way, turn: turn < 0 ? turn + 2 * Math.PI : turn };
    })
    .sort((p, q) => p.turn - q.turn);
  const half = (of: { way: [number, number]; turn: number } | undefined): Vector => {
    if (!of) return square;
    const [x, y] = [own[0] - of.way[0], own[1] - of.way[1]];
    const size = Math.hypot(x, y);
    return size < parallel ? square : [x / size, y / size, 0];
  };
  const [next, last] = [half(turns[0]), half(turns.at(-1))];
  // Seen from the node what is counter-clockwise is on the left of a line that leaves it, and on the right of one that comes.
  return line.a === node ? { left: next, right: last } : { left: last, right: next };
}

/** Where a line through a point meets an upright plane through another. */
function cutBy(point: Vector, way: Vector, on: Vector, normal: Vector): Vector {
  const along = dot(normal, way);
  return Math.abs(along) < parallel ? point : plus(point, scaled(way, dot(normal, minus(on, point)) / along));
}
