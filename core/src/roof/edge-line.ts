/** The line in which a surface of a roof ends on the upright plane of an edge: over the edge itself, and beyond its ends where lower planes run on below it. */
import { hair, micrometre, parallel } from '../tolerances.ts';
import type { Surface } from './surface.ts';

/** A node of a surface, metres. */
export type Node = Surface['nodes'][number];

/** Which of a plane's rings has the edge's base, and where on it. */
function baseOf(surface: Surface, plane: number): { nodes: readonly number[]; base: number } {
  const { nodes, beyond } = surface.planes[plane]!.rings.find((ring) => ring.beyond.includes(-1))!;
  return { nodes, base: beyond.indexOf(-1) };
}

/** Whether a plane is the upright one of an edge of the outline, and is there. */
export const isEdgesUpright = ({ edge, strip, rings }: Surface['planes'][number]): boolean =>
  edge >= 0 && strip < 0 && rings.some(({ beyond }) => beyond.includes(-1));

/** Whether two upright planes lie in each other, whichever way they face. */
export function isOnePlane(a: Standing, b: Standing): boolean {
  const way = a.nx * b.nx + a.ny * b.ny;
  return Math.abs(way) > 1 - parallel ** 2 && Math.abs(a.reach - Math.sign(way) * b.reach) < micrometre;
}

/** Where an upright plane stands: its unit normal inward in plan, and how far inward it is, metres. */
type Standing = Pick<Surface['planes'][number], 'nx' | 'ny' | 'reach'>;

/** The nodes at the base of an edge's upright plane, from its start to its end. */
export function standsOn(surface: Surface, plane: number): [number, number] {
  const { nodes, base } = baseOf(surface, plane);
  return [nodes[base]!, nodes[(base + 1) % nodes.length]!];
}

/** Where an edge's upright plane stands in plan, from its start to its end. */
export const standsAt = (surface: Surface, plane: number): [Node, Node] =>
  standsOn(surface, plane).map((node) => surface.nodes[node]!) as [Node, Node];

/** Whether a line goes plumb up or down on its way. */
export const hasStep = (line: readonly Node[]): boolean =>
  line.some(([x, y], i) => i > 0 && x === line[i - 1]![0] && y === line[i - 1]![1]);

/** The nodes along the top of an upright plane, from the end of its edge back to the start; of those that stand above one another at an end only the topmost. */
function topOf(surface: Surface, plane: number): number[] {
  const { nodes, base } = baseOf(surface, plane);
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

/** The line in which a surface ends on an edge's upright plane, as numbers of nodes from the edge's start to its end, and what of it lies beyond the edge's ends. */
interface EndLine {
  main: readonly number[];
  beyond: readonly (readonly number[])[];
}

const endLines = new WeakMap<Surface, EndLine[]>();

/** Where a surface ends on the upright plane of an edge: asked for by all that stands there, found once. */
export function partsOf(surface: Surface, plane: number): EndLine {
  let known = endLines.get(surface);
  if (!known) endLines.set(surface, (known = []));
  return (known[plane] ??= partedAnew(surface, plane));
}

function partedAnew(surface: Surface, plane: number): EndLine {
  const { nx, ny } = surface.planes[plane]!;
  const along = ([x, y]: Node): number => ny * x - nx * y;
  const line = topOf(surface, plane).reverse();
  const ats = line.map((node) => along(surface.nodes[node]!));
  const [from, to] = standsAt(surface, plane).map(along) as [number, number];
  const near = (end: number) => (at: number) => Math.abs(at - end) < micrometre;
  const inside = (at: number): boolean => at > Math.min(from, to) + hair && at < Math.max(from, to) - hair;
  let [first, last] = [0, line.length - 1];
  if (ats.some((at) => !inside(at) && !near(from)(at) && !near(to)(at))) {
    // From the last place over the edge's start to the first over its end.
    const firstEnd = ats.findIndex((at, i) => i > 0 && near(to)(at));
    first = Math.max(0, ats.slice(0, firstEnd < 0 ? line.length : firstEnd).findLastIndex(near(from)));
    last = firstEnd < 0 ? line.length - 1 : firstEnd;
  }
  return { main: line.slice(first, last + 1), beyond: [line.slice(0, first + 1), line.slice(last)] };
}
