/**
 * The planes over an outline: its front closes in as the level rises, each edge at its own pace, and what the edges sweep over are the planes of the roof (the weighted straight skeleton: O. Aichholzer and
 * F. Aurenhammer, “Straight skeletons for general polygonal figures in the plane”, 1996). All that happens at one level happens at once: corners that meet become one node, edges that lie on each other go,
 * and what is left is chained anew, so that no order among equals is ever chosen.
 */
import { micrometre, parallel, relative } from '../tolerances.ts';
import { movingOf, riseToNext } from './events.ts';
import { frontOf, type Corner, type Front, type FrontLine, type FrontPlane, type RoofEdge } from './front.ts';
import { chained } from './pairing.ts';
import { ringsOf, type Ring, type Segment } from './rings.ts';

/** Planes over an outline, and where they meet. */
export interface Surface {
  /** x, y, z of each node, metres. */
  nodes: readonly (readonly [number, number, number])[];
  /** Each with its rings, seen from outside: counter-clockwise, holes clockwise. Those without any do not show. */
  planes: readonly (FrontPlane & { rings: readonly Ring[] })[];
  /** The level from which upright planes are drawn, below all else, metres. */
  base: number;
}

/** Raised where planes never meet. `edges` are those that stay open, counted over all loops. */
export class NeverMeets extends Error {
  constructor(readonly edges: readonly number[]) {
    super('planes never meet');
  }
}

/** No roof is higher than so many metres above its lowest edge. */
const highest = 20_000;

/**
 * The planes over an outline.
 * @param loops the outline counter-clockwise, courts in it clockwise, none of them touching itself or another.
 * @param base a level below all edges, metres.
 * @throws NeverMeets
 */
export function surfaceOf(loops: readonly (readonly RoofEdge[])[], base: number): Surface {
  return new Sweep(loops, base).run();
}

class Sweep {
  private readonly nodes: [number, number, number][] = [];
  private readonly planes: FrontPlane[];
  private readonly segments: Segment[][];
  private front: Front;
  private z: number;

  constructor(
    loops: readonly (readonly RoofEdge[])[],
    private readonly base: number,
  ) {
    const { front, planes } = frontOf(loops);
    this.planes = planes;
    this.segments = planes.map(() => []);
    this.front = front;
    this.z = base;
    for (const loop of front) for (const corner of loop) corner.node = this.node(corner.x, corner.y);
    this.eachEdge((line, a, b) => this.segments[line.plane]!.push({ from: a.node, to: b.node, beyond: -1 }));
  }

  run(): Surface {
    // Each event takes an edge away, divides a loop or begins a strip; far more than there can be means that something is amiss.
    let left = 40 * this.planes.length + 200;
    while (this.front.length > 0) {
      const moving = movingOf(this.front, this.planes);
      const rise = riseToNext(moving, this.planes, this.z);
      if (this.z + rise > this.base + highest || (left -= 1) < 0) throw new NeverMeets(this.open());
      this.z += rise;
      for (const loop of moving)
        for (const { corner, vx, vy } of loop) {
          corner.x += rise * vx;
          corner.y += rise * vy;
        }
      this.meet();
    }
    return {
      nodes: this.nodes,
      planes: this.planes
        .map((plane, p) => ({ ...plane, rings: [] as Ring[], p }))
        .map(({ p, ...plane }) => ({
          ...plane,
          rings: ringsOf(this.segments, p, plane, this.nodes),
        })),
      base: this.base,
    };
  }

  private open(): number[] {
    return [...new Set(this.front.flat().map(({ line }) => this.planes[line.plane]!.edge))].filter((edge) => edge >= 0);
  }

  private node(x: number, y: number): number {
    return this.nodes.push([x, y, this.z]) - 1;
  }

  private eachEdge(use: (line: FrontLine, from: Corner, to: Corner) => void): void {
    for (const loop of this.front) loop.forEach((corner, i) => use(corner.line, corner, loop[(i + 1) % loop.length]!));
  }

  /** What two planes meet along, from node to node as the first one has it on its left. */
  private along(left: number, right: number, from: number, to: number): void {
    if (from === to || left === right) return;
    this.segments[left]!.push({ from, to, beyond: right });
    this.segments[right]!.push({ from: to, to: from, beyond: left });
  }

  /** All that happens at the level that the front has come to. */
  private meet(): void {
    const to = this.nodesNow();
    for (const loop of this.front)
      loop.forEach(({ line, node }, i) => {
        const before = loop[(i + loop.length - 1) % loop.length]!.line;
        this.along(before.plane, line.plane, node, to.get(loop[i]!)!);
      });
    this.front = this.chainedAnew(this.crossed(to));
    this.begin();
    this.step();
  }

  /** The node of each corner; those that stand on one point share one. */
  private nodesNow(): Map<Corner, number> {
    const first = this.nodes.length;
    const found = new Map<Corner, number>();
    for (const loop of this.front)
      for (const corner of loop) {
        let node = -1;
        for (let n = first; n < this.nodes.length && node < 0; n++) {
          const [x, y] = this.nodes[n]!;
          if (Math.hypot(x - corner.x, y - corner.y) < micrometre) node = n;
        }
        found.set(corner, node < 0 ? this.node(corner.x, corner.y) : node);
      }
    return found;
  }

  /** The edges between nodes, divided where others stand on them; of those that lie on each other, which is where planes meet in a level line, neither is left. */
  private crossed(to: ReadonlyMap<Corner, number>): Piece[] {
    const here = [...new Set(to.values())];
    const pieces = new Map<string, Piece>();
    this.eachEdge((line, a, b) => {
      const way = [to.get(a)!, ...this.between(to.get(a)!, to.get(b)!, here), to.get(b)!];
      for (let i = 0; i + 1 < way.length; i++) {
        const [from, end] = [way[i]!, way[i + 1]!];
        if (from === end) continue;
        const against = pieces.get(`${end} ${from}`);
        if (against) {
          pieces.delete(`${end} ${from}`);
          this.along(line.plane, against.line.plane, end, from);
        } else pieces.set(`${from} ${end}`, { line, from, to: end });
      }
    });
    return [...pieces.values()];
  }

  /** The nodes on an edge between its ends, in order. */
  private between(a: number, b: number, here: readonly number[]): number[] {
    const [[ax, ay], [bx, by]] = [this.nodes[a]!, this.nodes[b]!];
    const size = Math.hypot(bx - ax, by - ay);
    if (size < micrometre) return [];
    const [dx, dy] = [(bx - ax) / size, (by - ay) / size];
    const found: { node: number; at: number }[] = [];
    for (const node of here) {
      if (node === a || node === b) continue;
      const [x, y] = this.nodes[node]!;
      const at = (x - ax) * dx + (y - ay) * dy;
      if (at > 0 && at < size && Math.abs((y - ay) * dx - (x - ax) * dy) < micrometre) found.push({ node, at });
    }
    return found.sort((p, q) => p.at - q.at).map(({ node }) => node);
  }

  private chainedAnew(pieces: readonly Piece[]): Front {
    const loops = chained(
      pieces,
      ({ from, to }) => [from, to],
      ({ line }, at) => Math.atan2(at === 'from' ? line.dy : -line.dy, at === 'from' ? line.dx : -line.dx),
    );
    return loops.map((loop) =>
      loop
        // What was only divided goes on as one.
        .filter(({ line }, i) => loop[(i + loop.length - 1) % loop.length]!.line !== line || loop.length === 1)
        .map(({ line, from }): Corner => {
          const [x, y] = this.nodes[from]!;
          return { line, x, y, node: from };
        }),
    );
  }

  /** Begins the strips whose level has come: the plane before ends here, and theirs begins. */
  private begin(): void {
    this.eachEdge((line, a, b) => {
      if (line.later.length === 0 || line.later[0]!.from > this.z + relative) return;
      this.along(line.later[0]!.plane, line.plane, a.node, b.node);
      a.line = { ...line, plane: line.later[0]!.plane, later: line.later.slice(1) };
    });
  }

  /** Puts an upright step between edges that run alike and rise unlike. */
  private step(): void {
    this.front = this.front.map((loop) =>
      loop.flatMap((corner, i) => {
        const { line } = corner;
        const before = loop[(i + loop.length - 1) % loop.length]!.line;
        const [a, b] = [this.planes[before.plane]!, this.planes[line.plane]!];
        const alike = Math.abs(a.nx * b.ny - a.ny * b.nx) < parallel && a.nx * b.nx + a.ny * b.ny > 0;
        if (!alike || Math.abs(a.run - b.run) < relative) return [corner];
        const sign = a.run > b.run ? 1 : -1;
        const [nx, ny] = [sign * line.dx, sign * line.dy];
        const plane =
          this.planes.push({ edge: -1, strip: -1, nx, ny, reach: nx * corner.x + ny * corner.y, run: 0 }) - 1;
        this.segments.push([]);
        return [{ ...corner, line: { plane, dx: ny, dy: -nx, later: [] } }, corner];
      }),
    );
  }
}

interface Piece {
  line: FrontLine;
  from: number;
  to: number;
}
