/** The sides of a roof: what stands upright where it ends, between two of its surfaces, and the steps within. */
import type { RoofBody } from './roof-sheets.ts';
import { nodeAt, surfaceAt } from './roof-sheets.ts';
import type { Roof } from '../roof/roof.ts';
import { hasStep, isEdgesUpright, partsOf, standsAt, type Node } from '../roof/edge-line.ts';
import type { Surface } from '../roof/surface.ts';
import { micrometre, rounding } from '../tolerances.ts';
import { newell } from '../vector.ts';
import {
  mitresOf,
  settledSides,
  turnOf,
  withoutTwins,
  type Facing,
  type Mitres,
  type Side,
  type Standing,
} from './roof-corners.ts';

/** An upright polygon of a roof's body, counter-clockwise as seen from outside; xs along it, ys up, metres. */
export interface Upright {
  points: [number, number, number][];
  xs: number[];
  ys: number[];
  /** The layer that it belongs to. */
  layer: number;
}

/** The upright polygons of a roof's body between two depths, divided where layers meet. */
export function uprightsOf(body: RoofBody, from: number, to: number): Upright[] {
  return dividedUpright(madeOf(body, from, to));
}

/** Where uprights stand one above another at a corner, each has the points of all of them on it. */
function dividedUpright(all: readonly Upright[]): Upright[] {
  const heights = new Map<string, Map<number, [number, number, number]>>();
  for (const { points } of all)
    for (const point of points) {
      const key = `${point[0]} ${point[1]}`;
      const on = heights.get(key);
      if (on) on.set(point[2], point);
      else heights.set(key, new Map([[point[2], point]]));
    }
  return all.map((upright) => {
    const { points, xs, ys } = upright;
    const more = points.map((a, i) => {
      const b = points[(i + 1) % points.length]!;
      if (a[0] !== b[0] || a[1] !== b[1]) return [];
      const between = [...heights.get(`${a[0]} ${a[1]}`)!.values()].filter(
        ([, , z]) => z > Math.min(a[2], b[2]) && z < Math.max(a[2], b[2]),
      );
      return between.sort((p, q) => (b[2] > a[2] ? p[2] - q[2] : q[2] - p[2]));
    });
    if (more.every((list) => list.length === 0)) return upright;
    return {
      ...upright,
      points: points.flatMap((point, i) => [point, ...more[i]!]),
      xs: xs.flatMap((x, i) => [x, ...more[i]!.map(() => x)]),
      ys: ys.flatMap((y, i) => [y, ...more[i]!.map((point) => y + point[2] - points[i]![2])]),
    };
  });
}

function madeOf(body: RoofBody, from: number, to: number): Upright[] {
  const { roof, boundaries, frame } = body;
  const [first, last] = [surfaceAt(boundaries, from), surfaceAt(boundaries, to)];
  const mitres = mitresOf(roof, first, last);
  const standing: Standing[] = [];
  const made: Upright[] = [];
  roof.surfaces[first]!.planes.forEach((facing, p) => {
    if (!isEdgesUpright(facing)) return;
    const { sides, laid, odd } = edgesSides(body, p, [first, last], mitres);
    standing.push({ facing, sides, odd });
    made.push(...laid);
  });
  for (const { nx, ny, ...side } of mitres.apart) standing.push({ facing: { nx, ny }, sides: [side], odd: false });
  standing.push(...stepsOf(roof.surfaces[first]!, first, 1), ...stepsOf(roof.surfaces[last]!, last - 1, -1));
  made.push(...settledSides(standing).map((side) => upright(frame, side)));
  return made.filter(({ points }) => points.length > 2);
}

/** What stands in the upright plane of an edge, and what is laid from there to others. */
function edgesSides(
  body: RoofBody,
  p: number,
  [first, last]: [number, number],
  { onEdges, crossings }: Mitres,
): { sides: Side[]; laid: Upright[]; odd: boolean } {
  const { roof } = body;
  const more = [...beyondOf(roof, p, first, last), ...(onEdges.get(p) ?? [])].map(withoutTwins);
  const sides = more.filter(({ nodes }) => nodes.length > 2);
  let odd = sides.length > 0;
  const laid: Upright[] = [];
  for (let k = first; k < last; k++) {
    const foot = k + 2 === roof.surfaces.length ? footOf(roof, p) : null;
    if (!foot) sides.push(between(roof, k, p, crossings));
    else {
      const box = boxed(body, foot, p);
      sides.push(...box.sides);
      laid.push(...box.laid);
      // What is boxed in beside an edge may reach back under it.
      odd ||= foot.own === null;
    }
  }
  // Steps of two surfaces may stand in one place, or the lower one come up through the upper.
  odd ||= sides.some(({ nodes }) => meetsItself(nodes));
  for (const surface of roof.surfaces.slice(first, last + 1))
    odd ||= hasStep(nodesAt(surface, partsOf(surface, p).main));
  return { sides, laid, odd };
}

const meetsItself = (nodes: readonly Node[]): boolean =>
  new Set(nodes.map((node) => node.join(' '))).size < withoutTwins({ nodes, layer: 0 }).nodes.length;

const nodesAt = (surface: Surface, line: readonly number[]): Node[] => line.map((n) => surface.nodes[n]!);

function between({ surfaces }: Roof, layer: number, plane: number, crossings: Mitres['crossings']): Side {
  const [over, under] = [surfaces[layer]!, surfaces[layer + 1]!];
  const top = nodesAt(over, partsOf(over, plane).main).reverse();
  const at = (end: 'start' | 'end'): Node[] => {
    const crossing = crossings.get(`${plane} ${end} ${layer}`);
    return crossing ? [crossing] : [];
  };
  return { nodes: [...nodesAt(under, partsOf(under, plane).main), ...at('end'), ...top, ...at('start')], layer };
}

/** What stands beyond an edge's ends: there are two heights there, above it looks out, below it looks in. Between layers of one skin there is none. */
function beyondOf({ surfaces }: Roof, plane: number, first: number, last: number): Side[] {
  const [over, under] = [surfaces[first]!, surfaces[last]!];
  return [
    ...partsOf(over, plane).beyond.map((line): Side => ({ nodes: nodesAt(over, line).reverse(), layer: first })),
    ...partsOf(under, plane).beyond.map((line): Side => ({ nodes: nodesAt(under, line), layer: last - 1 })),
  ];
}

/** A polygon of an edge's upright plane, or of one that leans over a level line, as it is seen from outside, or from inside where it runs the other way round. */
function upright(frame: RoofBody['frame'], own: Side & Facing): Upright {
  const { nodes, layer } = withoutTwins(own);
  const [nx, ny] = turnOf(own, nodes) < 0 ? [0 - own.nx, 0 - own.ny] : [own.nx, own.ny];
  // Up the plane, which leans where it ends square: by its area, for at corners it may be bent.
  const [a, b, c] = newell(nodes);
  const out = nx * a + ny * b;
  const size = Math.hypot(out, c);
  return {
    points: nodes.map((node) => nodeAt(frame, node)),
    xs: nodes.map(([x, y]) => ny * x - nx * y),
    ys: nodes.map(([x, y, z]) => (Math.abs(c) < rounding ? z : (c * (nx * x + ny * y) - out * z) / size)),
    layer,
  };
}

/** What is below the innermost layer at an edge: the level soffit that it has, and those of the edges before and after it. */
interface Foot {
  own: number | null;
  before: number | null;
  after: number | null;
}

/** What is below an edge; null where neither it nor its neighbours have a level soffit. */
function footOf({ loops, soffits, surfaces }: Roof, plane: number): Foot | null {
  const { edge } = surfaces[0]!.planes[plane]!;
  let first = 0;
  const { length } = loops.find((loop) => edge < (first += loop.length))!;
  first -= length;
  const at = (k: number): number | null => soffits[first + ((k - first + length) % length)]!;
  const foot = { own: at(edge), before: at(edge - 1), after: at(edge + 1) };
  return foot.own === null && foot.before === null && foot.after === null ? null : foot;
}

const isLevelAt = (line: readonly Node[], z: number): boolean =>
  line.every((node) => Math.abs(node[2] - z) < micrometre);

/** The sides of the innermost layer at an edge, where soffits are level: it goes plumb down to the soffit, level back to the drawn edge, and up there to its underside. */
function boxed(
  { roof, frame }: RoofBody,
  { own, before, after }: Foot,
  plane: number,
): { sides: Side[]; laid: Upright[] } {
  const layer = roof.surfaces.length - 2;
  const [over, under] = [roof.surfaces[layer]!, roof.surfaces[layer + 1]!];
  const { nx, ny } = over.planes[plane]!;
  const [outer, inner] = [standsAt(over, plane), standsAt(under, plane)];
  const top = nodesAt(over, partsOf(over, plane).main).reverse();
  const foot = nodesAt(under, partsOf(under, plane).main);
  const to = ([x, y]: Node, z: number): Node => [x, y, z];
  if (own === null) {
    // What is boxed in beside it is seen on it.
    const start = before === null ? [] : [to(outer[0], before), to(inner[0], before)];
    const end = after === null ? [] : [to(inner[1], after), to(outer[1], after)];
    return { sides: [{ nodes: [...start, ...foot, ...end, ...top], layer }], laid: [] };
  }
  // Where the underside comes down to the soffit at the drawn edge, it begins at the very same points.
  const flush = isLevelAt(foot, own);
  const z = flush ? foot[0]![2] : own;
  const [a, b] = outer.map((node) => to(node, z)) as [Node, Node];
  const [c, d] = inner.map((node) => to(node, z)) as [Node, Node];
  const soffit: Node[] = [a, c, d, b];
  const level: Upright = {
    points: soffit.map((node) => nodeAt(frame, node)),
    xs: soffit.map(([x, y]) => ny * x - nx * y),
    ys: soffit.map(([x, y]) => 0 - nx * x - ny * y),
    layer,
  };
  const steps = before !== null && Math.abs(before - own) >= micrometre;
  return {
    sides: [{ nodes: [a, b, ...top], layer }, ...(flush ? [] : [{ nodes: [d, c, ...foot], layer }])],
    laid: [level, ...(steps ? [step(frame, layer, [outer[0], inner[0]], { own: z, before })] : [])],
  };
}

/** The upright step in the mitre between soffits of two levels; it is seen from the higher one's side. */
function step(
  frame: RoofBody['frame'],
  layer: number,
  mitre: readonly [Node, Node],
  { own, before }: { own: number; before: number },
): Upright {
  const [low, high] = [Math.min(own, before), Math.max(own, before)];
  const [[nx, ny], [ex, ey]] = own > before ? mitre : [mitre[1], mitre[0]];
  const far = Math.hypot(ex - nx, ey - ny);
  const nodes: Node[] = [
    [nx, ny, low],
    [ex, ey, low],
    [ex, ey, high],
    [nx, ny, high],
  ];
  return {
    points: nodes.map((node) => nodeAt(frame, node)),
    xs: [0, far, far, 0],
    ys: [low, low, high, high],
    layer,
  };
}

/** The upright steps of one surface: they look inward on the underside. */
function stepsOf(surface: Surface, layer: number, facing: 1 | -1): Standing[] {
  return surface.planes
    .filter(({ edge }) => edge < 0)
    .map((plane) => ({
      facing: plane,
      odd: false,
      sides: plane.rings.map(({ nodes }): Side => {
        const all = nodesAt(surface, nodes);
        return { nodes: facing === 1 ? all : all.reverse(), layer };
      }),
    }));
}

/** A flat polygon of a roof's body besides its sheets, and whether it looks out or in. */
export interface Buried extends Upright {
  role: 'outer face' | 'inner face';
}

/** What of planes that do not come up to the roof's own surface is between two depths: as of a half-hip that only its lower layers have. */
export function buriedOf({ roof, frame, boundaries, planes }: RoofBody, from: number, to: number): Buried[] {
  const shown = new Set(planes.map(({ plane }) => plane));
  const [first, last] = [surfaceAt(boundaries, from), surfaceAt(boundaries, to)];
  return (
    [
      [first, first, 'outer face'],
      [last, last - 1, 'inner face'],
    ] as const
  ).flatMap(([k, layer, role]) => {
    const surface = roof.surfaces[k]!;
    return surface.planes.flatMap(({ strip, nx, ny, run, rings }, i) =>
      strip < 0 || shown.has(i)
        ? []
        : rings.map(({ nodes }): Buried => {
            const facing = role === 'outer face' ? 1 : -1;
            const all = (facing === 1 ? nodes : [...nodes].reverse()).map((n) => surface.nodes[n]!);
            return {
              points: all.map((node) => nodeAt(frame, node)),
              xs: all.map(([x, y]) => facing * (ny * x - nx * y)),
              ys: all.map(([x, y, z]) => (run * (nx * x + ny * y) + z) / Math.hypot(1, run)),
              layer,
              role,
            };
          }),
    );
  });
}
