/** The rings of a plane: what bounds it, chained, and without points that say nothing. */
import type { FrontPlane } from './front.ts';
import { chained } from './pairing.ts';

/** A piece of a plane's boundary, the plane on its left as seen from outside; the plane beyond it, −1 where there is none. */
export interface Segment {
  from: number;
  to: number;
  beyond: number;
}

/** A closed boundary: its nodes, and what lies beyond the edge that leaves each. */
export interface Ring {
  nodes: number[];
  beyond: number[];
}

type Node = readonly [number, number, number];

/** The planes that meet at each node. */
const meetings = new WeakMap<readonly (readonly Segment[])[], Map<number, Set<number>>>();

function meetingsOf(all: readonly (readonly Segment[])[]): Map<number, Set<number>> {
  let known = meetings.get(all);
  if (known) return known;
  meetings.set(all, (known = new Map<number, Set<number>>()));
  const put = (node: number, plane: number): void => {
    const set = known!.get(node);
    if (set) set.add(plane);
    else known!.set(node, new Set([plane]));
  };
  all.forEach((segments, plane) => {
    for (const { from, to, beyond } of segments)
      for (const node of [from, to]) {
        put(node, plane);
        put(node, beyond);
      }
  });
  return known;
}

/** The rings of a plane. @param all the segments of each plane */
export function ringsOf(
  all: readonly (readonly Segment[])[],
  plane: number,
  { nx, ny, run }: FrontPlane,
  nodes: readonly Node[],
): Ring[] {
  const segments = withoutThereAndBack(all[plane]!);
  if (segments.length === 0) return [];
  const meeting = meetingsOf(all);
  // Along the edge, and up the plane.
  const flat = (node: number): [number, number] => {
    const [x, y, z] = nodes[node]!;
    return [ny * x - nx * y, run * (nx * x + ny * y) + z];
  };
  const angle = ({ from, to }: Segment, at: 'from' | 'to'): number => {
    const [[ax, ay], [bx, by]] = [flat(from), flat(to)];
    return at === 'from' ? Math.atan2(by - ay, bx - ax) : Math.atan2(ay - by, ax - bx);
  };
  return chained(segments, ({ from, to }) => [from, to], angle).flatMap((loop) => {
    // A node at which only these two planes meet lies on the straight line between them.
    const kept = loop.filter(({ from, beyond }, i) => {
      const before = loop[(i + loop.length - 1) % loop.length]!;
      return before.beyond !== beyond || meeting.get(from)!.size > 2;
    });
    return kept.length < 3 ? [] : [{ nodes: kept.map(({ from }) => from), beyond: kept.map(({ beyond }) => beyond) }];
  });
}

/** What a plane is bounded by both ways bounds nothing. */
function withoutThereAndBack(segments: readonly Segment[]): Segment[] {
  const left = new Map<string, Segment>();
  for (const segment of segments) {
    const against = `${segment.to} ${segment.from}`;
    if (left.has(against)) left.delete(against);
    else left.set(`${segment.from} ${segment.to}`, segment);
  }
  return [...left.values()];
}
