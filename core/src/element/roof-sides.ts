/** The sides of a roof: what stands upright where it ends, between two of its surfaces, and the steps within. */
import type { RoofBody } from './roof-sheets.ts';
import { nodeAt, surfaceAt } from './roof-sheets.ts';
import type { Roof } from '../roof/roof.ts';
import type { Surface } from '../roof/surface.ts';
import { hair, micrometre } from '../tolerances.ts';

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
  const { roof, boundaries } = body;
  const [first, last] = [surfaceAt(boundaries, from), surfaceAt(boundaries, to)];
  const made: Upright[] = [];
  const top = roof.surfaces[first]!;
  top.planes.forEach(({ edge, strip, rings }, p) => {
    if (strip >= 0 || rings.length === 0) return;
    if (edge < 0) return;
    for (let k = first; k < last; k++) {
      const foot = k + 2 === roof.surfaces.length ? footOf(roof, p) : null;
      made.push(...(foot ? boxed(body, foot, p) : between(body, k, p, { top: k === first, foot: k === last - 1 })));
    }
  });
  for (const [k, layer, facing] of [
    [first, first, 1],
    [last, last - 1, -1],
  ] as const)
    made.push(...stepsOf(body, roof.surfaces[k]!, layer, facing));
  return made;
}

/** The nodes along the top of an upright plane, from the end of its edge back to the start; of those that stand above one another at an end only the topmost. */
export function topOf(surface: Surface, plane: number): number[] {
  const { nodes, beyond } = surface.planes[plane]!.rings.find((ring) => ring.beyond.includes(-1))!;
  const base = beyond.indexOf(-1);
  // After the base's end comes the top; the base's start is the last.
  const top = Array.from({ length: nodes.length - 2 }, (_, i) => nodes[(base + 2 + i) % nodes.length]!);
  const above = (a: number, b: number): boolean => {
    const [p, q] = [surface.nodes[a]!, surface.nodes[b]!];
    return Math.hypot(p[0] - q[0], p[1] - q[1]) < micrometre;
  };
  while (top.length > 1 && above(top[0]!, top[1]!)) top.shift();
  while (top.length > 1 && above(top.at(-1)!, top.at(-2)!)) top.pop();
  return top;
}

function between(
  { roof, frame }: RoofBody,
  k: number,
  plane: number,
  shown: { top: boolean; foot: boolean },
): Upright[] {
  const [over, under] = [roof.surfaces[k]!, roof.surfaces[k + 1]!];
  const own = over.planes[plane]!;
  const [top, foot] = [partsOf(over, plane), partsOf(under, plane)];
  const main = upright(frame, own, k, [...foot.main, ...[...top.main].reverse()]);
  // What stands beyond the edge's ends is of two heights there: above it looks out, below it looks in. Between layers of one skin there is none.
  return [
    main,
    ...(shown.top ? top.beyond : []).map((line) => upright(frame, own, k, [...line].reverse())),
    ...(shown.foot ? foot.beyond : []).map((line) => upright(frame, { nx: 0 - own.nx, ny: 0 - own.ny }, k, line)),
  ].filter(({ points }) => points.length > 2);
}

/** The line in which a surface ends on an edge's upright plane, and what of it lies beyond the edge's ends. */
export function partsOf(surface: Surface, plane: number): { main: Node[]; beyond: Node[][] } {
  const { nx, ny } = surface.planes[plane]!;
  const along = ([x, y]: Node): number => ny * x - nx * y;
  const line = lineOf(surface, plane);
  const [from, to] = standsAt(surface, plane).map(along) as [number, number];
  const near = (at: number) => (node: Node) => Math.abs(along(node) - at) < micrometre;
  const inside = (node: Node): boolean =>
    along(node) > Math.min(from, to) + hair && along(node) < Math.max(from, to) - hair;
  let [first, last] = [0, line.length - 1];
  if (line.some((node) => !inside(node) && !near(from)(node) && !near(to)(node))) {
    // From the last place over the edge's start to the first over its end.
    const firstEnd = line.findIndex((node, i) => i > 0 && near(to)(node));
    first = Math.max(0, line.slice(0, firstEnd < 0 ? line.length : firstEnd).findLastIndex(near(from)));
    last = firstEnd < 0 ? line.length - 1 : firstEnd;
  }
  return { main: line.slice(first, last + 1), beyond: [line.slice(0, first + 1), line.slice(last)] };
}

type Node = Surface['nodes'][number];

/** Where a surface ends on an upright plane, from the start of its edge to the end. */
const lineOf = (surface: Surface, plane: number): Node[] =>
  topOf(surface, plane)
    .reverse()
    .map((n) => surface.nodes[n]!);

/** A polygon of an edge's upright plane, as it is seen from outside; without points that come twice. */
function upright(
  frame: RoofBody['frame'],
  { nx, ny }: Pick<Surface['planes'][number], 'nx' | 'ny'>,
  layer: number,
  all: readonly Node[],
): Upright {
  const nodes = all.filter((node, i) => {
    const before = all[(i + all.length - 1) % all.length]!;
    return Math.hypot(node[0] - before[0], node[1] - before[1], node[2] - before[2]) > micrometre;
  });
  return {
    points: nodes.map((node) => nodeAt(frame, node)),
    xs: nodes.map(([x, y]) => ny * x - nx * y),
    ys: nodes.map(([, , z]) => z),
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

/** Where an edge's upright plane stands in plan, from its start to its end. */
export function standsAt(surface: Surface, plane: number): [Node, Node] {
  const { nodes, beyond } = surface.planes[plane]!.rings.find((ring) => ring.beyond.includes(-1))!;
  const base = beyond.indexOf(-1);
  return [surface.nodes[nodes[base]!]!, surface.nodes[nodes[(base + 1) % nodes.length]!]!];
}

const isLevelAt = (line: readonly Node[], z: number): boolean =>
  line.every((node) => Math.abs(node[2] - z) < micrometre);

/** The sides of the innermost layer at an edge, where soffits are level: it goes plumb down to the soffit, level back to the drawn edge, and up there to its underside. */
function boxed({ roof, frame }: RoofBody, { own, before, after }: Foot, plane: number): Upright[] {
  const layer = roof.surfaces.length - 2;
  const [over, under] = [roof.surfaces[layer]!, roof.surfaces[layer + 1]!];
  const { nx, ny } = over.planes[plane]!;
  const [outer, inner] = [standsAt(over, plane), standsAt(under, plane)];
  const [top, foot] = [lineOf(over, plane).reverse(), lineOf(under, plane)];
  const to = ([x, y]: Node, z: number): Node => [x, y, z];
  if (own === null) {
    // What is boxed in beside it is seen on it.
    const start = before === null ? [] : [to(outer[0], before), to(inner[0], before)];
    const end = after === null ? [] : [to(inner[1], after), to(outer[1], after)];
    return [upright(frame, { nx, ny }, layer, [...start, ...foot, ...end, ...top])];
  }
  // Where the underside comes down to the soffit at the drawn edge, it begins at the very same points.
  const flush = isLevelAt(foot, own);
  const z = flush ? foot[0]![2] : own;
  const [a, b] = outer.map((node) => to(node, z)) as [Node, Node];
  const [c, d] = inner.map((node) => to(node, z)) as [Node, Node];
  const soffit: Node[] = [a, c, d, b];
  return [
    upright(frame, { nx, ny }, layer, [a, b, ...top]),
    {
      points: soffit.map((node) => nodeAt(frame, node)),
      xs: soffit.map(([x, y]) => ny * x - nx * y),
      ys: soffit.map(([x, y]) => 0 - nx * x - ny * y),
      layer,
    },
    ...(flush ? [] : [upright(frame, { nx: 0 - nx, ny: 0 - ny }, layer, [d, c, ...foot])]),
    ...(before === null || Math.abs(before - own) < micrometre
      ? []
      : [step(frame, layer, [outer[0], inner[0]], { own: z, before })]),
  ];
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
function stepsOf({ frame }: RoofBody, surface: Surface, layer: number, facing: 1 | -1): Upright[] {
  return surface.planes.flatMap(({ edge, nx, ny, rings }) =>
    edge >= 0
      ? []
      : rings.map(({ nodes }): Upright => {
          const all = (facing === 1 ? nodes : [...nodes].reverse()).map((n) => surface.nodes[n]!);
          return {
            points: all.map((node) => nodeAt(frame, node)),
            xs: all.map(([x, y]) => facing * (ny * x - nx * y)),
            ys: all.map(([, , z]) => z),
            layer,
          };
        }),
  );
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
