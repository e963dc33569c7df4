/** The sides of a roof: what stands upright where it ends, between two of its surfaces, and the steps within. */
import type { RoofBody } from './roof-sheets.ts';
import { nodeAt, surfaceAt } from './roof-sheets.ts';
import type { Surface } from '../roof/surface.ts';
import { micrometre } from '../tolerances.ts';

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
    for (let k = first; k < last; k++) made.push(between(body, k, p));
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

function between({ roof, frame }: RoofBody, k: number, plane: number): Upright {
  const [over, under] = [roof.surfaces[k]!, roof.surfaces[k + 1]!];
  const { nx, ny } = over.planes[plane]!;
  const nodes = [
    ...topOf(under, plane)
      .reverse()
      .map((n) => under.nodes[n]!),
    ...topOf(over, plane).map((n) => over.nodes[n]!),
  ];
  return {
    points: nodes.map((node) => nodeAt(frame, node)),
    xs: nodes.map(([x, y]) => ny * x - nx * y),
    ys: nodes.map(([, , z]) => z),
    layer: k,
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
