/** A roof as it is drawn in plan: its planes with the way they fall, the lines in which they meet, and its edges as they are drawn and as far as they reach. Metres. */
import type { FaceName, RoofEdge } from '@yard-arch/document';
import type { Point } from './course.ts';
import { isStep, nodeAt, planeName, type RoofBody } from './roof-sheets.ts';
import type { SheetEdge } from './sheet.ts';

export interface RoofPlan {
  planes: { face: FaceName; loops: Point[][]; pitch: number; middle: Point; falls: Point }[];
  /** `step` where one plane ends over another. */
  lines: { is: SheetEdge; step: boolean; from: Point; to: Point }[];
  /** Its drawn edges, arcs in facets. */
  edges: { of: RoofEdge; from: Point; to: Point }[];
  /** The outline as far as it reaches. */
  outline: Point[][];
}

const plans = new WeakMap<RoofBody, RoofPlan>();

export function roofInPlan(body: RoofBody): RoofPlan {
  let known = plans.get(body);
  if (!known) plans.set(body, (known = planned(body)));
  return known;
}

function planned({ roof, frame, planes }: RoofBody): RoofPlan {
  const surface = roof.surfaces[0]!;
  const at = (node: readonly [number, number, number]): Point => {
    const [x, y] = nodeAt(frame, node);
    return [x, y];
  };
  const local = (x: number, y: number): Point => at([x, y, 0]);
  const lines: RoofPlan['lines'] = [];
  const drawn = planes.map(({ plane, sheet: { outline } }) => {
    const { rings, nx, ny, run } = surface.planes[plane]!;
    let e = 0;
    const loops = rings.map(({ nodes, beyond }) => {
      nodes.forEach((node, i) => {
        const is = outline.names[e++]!;
        // What two planes share is told by the first of them.
        const other = surface.planes[beyond[i]!]!;
        if (other.run !== 0 && beyond[i]! < plane) return;
        const edge = { beyond: beyond[i]!, from: node, to: nodes[(i + 1) % nodes.length]! };
        const step = isStep(surface, edge);
        lines.push({ is, step, from: at(surface.nodes[node]!), to: at(surface.nodes[edge.to]!) });
      });
      return nodes.map((node) => at(surface.nodes[node]!));
    });
    const [fx, fy] = [-nx * frame.x[0] - ny * frame.y[0], -nx * frame.x[1] - ny * frame.y[1]];
    return {
      face: planeName(roof, surface.planes[plane]!),
      loops,
      pitch: (Math.atan2(1, run) * 180) / Math.PI,
      middle: centroid(loops),
      falls: [fx, fy] as Point,
    };
  });
  return {
    planes: drawn,
    lines,
    edges: roof.loops.flatMap((loop) =>
      loop.map(({ of, x, y }, i) => {
        const to = loop[(i + 1) % loop.length]!;
        return { of, from: local(x, y), to: local(to.x, to.y) };
      }),
    ),
    outline: roof.loops.map((loop) => loop.map(({ outX, outY }) => local(outX, outY))),
  };
}

/** The centre of area of loops, holes run the other way. */
function centroid(loops: readonly (readonly Point[])[]): Point {
  let [x, y, twice] = [0, 0, 0];
  for (const loop of loops)
    loop.forEach(([ax, ay], i) => {
      const [bx, by] = loop[(i + 1) % loop.length]!;
      const cross = ax * by - bx * ay;
      twice += cross;
      x += (ax + bx) * cross;
      y += (ay + by) * cross;
    });
  return twice === 0 ? loops[0]![0]! : [x / (3 * twice), y / (3 * twice)];
}
