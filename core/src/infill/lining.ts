/** Linings: boards along a reveal's sides, straight as each of them splays, mitred where they meet, that go round an arch with it; from a face to what stands in the opening. */
import type { Lining } from '@yard-arch/document';
import type { Side } from '../profile/profile.ts';
import { sectionWithin, type SectionLine } from '../profile/section.ts';
import { Collapsed } from '../reveal/corners.ts';
import { jointed, tangent } from '../reveal/loop.ts';
import { makeTube, type Tube, type TubeFace } from '../reveal/tube.ts';
import { tidy } from '../tidy.ts';
import { nanometre, rounding } from '../tolerances.ts';
import { newell, type Vector } from '../vector.ts';
import { areaOf, loopEdge, moved, type Area, type Spot } from './area.ts';
import { Facets, type Point } from './facets.ts';
import { centred, type Stands } from './infill.ts';
import type { Front, PartMesh } from './part.ts';
import { roomIn } from './room.ts';
import { boardTop } from './sill-board.ts';
import type { Placed } from '../setout/placed.ts';

/** A side's boards from the face to where they end: how much wider than the profile their backs are there, and by how much their fronts are before those. */
interface Board {
  near: number;
  far: number;
  /** Nothing where the side has none. */
  thick: number;
}

type Boards = Readonly<Record<Side, Board>>;

const sideNames = ['jamb-left', 'jamb-right', 'head', 'sill'] as const;

/** The lining of an opening on its own face, or why it carries none. */
export function lining(part: Lining, placed: Placed & Pick<Stands, 'until'>): PartMesh | string {
  const outline = areaOf(placed.outline);
  if (!outline) return 'its outline has islands, and carries no lining';
  const room = placed.until ?? roomIn(part, placed);
  if (typeof room === 'string') return room;
  const to = Math.min(part.reach ?? room, room);
  if (part.sides.includes('sill') && boardTop(placed, part.behind) !== null)
    return 'its sill is lined, and carries a board on the same face';
  const own = centred(outline, placed.profile.width / 2);
  const boards = boardsOf(part, placed, to);
  if (!isClear(own, boards)) return 'it is too small for its lining';
  const facets = new Facets(part.material);
  for (const run of runsOf(own, boards)) {
    try {
      const tube = makeTube([loopOf(own, boards, run, to)], { from: 0, to: 2 * (1 + to) }, [
        0,
        1,
        1 + to,
        2 + to,
        2 * (1 + to),
      ]);
      built(facets, { tube, to, material: part.material }, run);
    } catch (error) {
      if (error instanceof Collapsed) return 'it is too small for its lining';
      throw error;
    }
  }
  const figures = sideNames.flatMap((side) => [boards[side].near, boards[side].far, boards[side].thick]);
  const key = JSON.stringify(['lining', { ...part, id: '' }, [to, ...figures, ...own.points.flat()].map(tidy)]);
  const mesh = facets.finish();
  if (mesh.triangles.length === 0) return 'it has none of the sides of its lining';
  return { key, name: 'lining', mesh, front: frontOf(own, boards, part.material) };
}

function boardsOf({ sides, thickness, behind }: Lining, placed: Placed, to: number): Boards {
  const top = boardTop(placed, behind);
  return Object.fromEntries(
    sideNames.map((side) => {
      const line = sectionWithin(placed.sections[side], 0, to);
      const lined = sides.includes(side);
      const [near, far] = besides(line, to);
      if (side !== 'sill' || lined || top === null)
        return [side, { near, far, thick: lined ? thickness * Math.hypot(1, (far - near) / to) : 0 }];
      const level = Math.min(0 - top, ...line.offset);
      return [side, { near: level, far: level, thick: 0 }];
    }),
  ) as unknown as Boards;
}

/** Where a straight line that stays clear of a section begins and ends: the one parallel to some piece of it that leaves the least behind it. */
function besides({ n, offset }: SectionLine, to: number): [number, number] {
  let best: [number, number] = [-Infinity, -Infinity];
  for (let i = 0; i + 1 < n.length; i++) {
    if (n[i + 1]! - n[i]! < nanometre) continue;
    const slope = (offset[i + 1]! - offset[i]!) / (n[i + 1]! - n[i]!);
    const near = Math.min(...n.map((depth, k) => offset[k]! - slope * depth));
    if (2 * near + slope * to > best[0] + best[1] + nanometre) best = [near, near + slope * to];
  }
  return best;
}

/** Edges of an outline that follow one another without an end of a board between them, in a ring where they are all. */
interface Run {
  edges: number[];
  whole: boolean;
}

/** Whether an edge of an outline runs on into the next. */
function runsOn({ points }: Area, e: number): boolean {
  const [a, b, c] = [0, 1, 2].map((k) => points[(e + k) % points.length]!) as [Spot, Spot, Spot];
  const [px, py, qx, qy] = [b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]];
  return px * qx + py * qy > tangent * Math.hypot(px, py) * Math.hypot(qx, qy);
}

const alike = (a: Board, b: Board): boolean =>
  [a.near - b.near, a.far - b.far, a.thick - b.thick].every((value) => Math.abs(value) < nanometre);

/** The runs of boards: each ends where a side has none, and where two run on into one another that splay differently. */
function runsOf(own: Area, boards: Boards): Run[] {
  const count = own.points.length;
  const boardOf = (e: number): Board => boards[own.edges[e % count]!.side!];
  const all = Array.from({ length: count }, (_, e) => e);
  const ends = new Set(
    all.filter((e) => {
      const [one, next] = [boardOf(e), boardOf(e + 1)];
      return one.thick === 0 || next.thick === 0 || (runsOn(own, e) && !alike(one, next));
    }),
  );
  if (ends.size === 0) return [{ edges: all, whole: true }];
  // What would come back to where it began, and touch itself there, is parted at a corner.
  const corner = ends.size === 1 ? all.find((e) => !ends.has(e) && !runsOn(own, e)) : undefined;
  if (corner !== undefined) ends.add(corner);
  return [...ends].flatMap((before) => {
    const edges = [(before + 1) % count];
    while (!ends.has(edges.at(-1)!)) edges.push((edges.at(-1)! + 1) % count);
    return boardOf(edges[0]!).thick > 0 ? [{ edges, whole: false }] : [];
  });
}

/** Whether something is left between all boards, at the face and where they end. What runs on into one another is taken to be as far in as the furthest. */
function isClear(own: Area, boards: Boards): boolean {
  const count = own.points.length;
  return [({ near, thick }: Board) => near - thick, ({ far, thick }: Board) => far - thick].every((by) => {
    const within = own.edges.map(({ side }) => by(boards[side!]));
    // Twice round, each way: what is furthest in goes on along all that it runs on into.
    for (let k = 0; k < 2 * count; k++) {
      const [e, next] = [k % count, (k + 1) % count];
      if (runsOn(own, e)) within[next] = Math.min(within[next]!, within[e]!);
    }
    for (let k = 2 * count; k > 0; k--) {
      const [e, next] = [(k - 1) % count, k % count];
      if (runsOn(own, e)) within[e] = Math.min(within[e]!, within[next]!);
    }
    return moved(own, (_, i) => within[i]!) !== null;
  });
}

/** The loop that sweeps all round a run of boards: in across their edges at the face, down their fronts, out across their ends, and back along the reveal. What a board runs on into goes with it, so that it ends square. */
function loopOf(own: Area, boards: Boards, { edges }: Run, to: number): ReturnType<typeof jointed> {
  const sections = new Map(
    sideNames.map((side): [Side, SectionLine] => {
      const { near, far, thick } = boards[side];
      const n = [0, 1, 1 + to, 2 + to, 2 * (1 + to)];
      return [side, { n, offset: [near, near - thick, far - thick, far, near], smooth: n.map(() => false) }];
    }),
  );
  return jointed(besideRun(own, edges).map((e, i) => loopEdge(own, i, sections.get(own.edges[e]!.side!)!)));
}

/** By edge that whose section it goes with beside a run of boards: what is in the run, or at a corner beside it, with its own; all else with what it runs on from, so that as little as can be is joined. */
function besideRun(own: Area, run: readonly number[]): number[] {
  const count = own.points.length;
  const after = (e: number): number => (e + 1) % count;
  const before = (e: number): number => (e + count - 1) % count;
  const as = new Map(run.map((e) => [e, e]));
  const [first, last] = [run[0]!, run.at(-1)!];
  const [next, previous] = [after(last), before(first)];
  if (!as.has(next)) as.set(next, runsOn(own, last) && next !== previous ? last : next);
  if (!as.has(previous)) as.set(previous, runsOn(own, previous) ? first : previous);
  for (let e = next; runsOn(own, e) && !as.has(after(e)); e = after(e)) as.set(after(e), as.get(e)!);
  for (let e = previous; runsOn(own, before(e)) && !as.has(before(e)); e = before(e)) as.set(before(e), as.get(e)!);
  for (let e = next; as.size < count; e = after(e)) if (!as.has(after(e))) as.set(after(e), as.get(e)!);
  return own.points.map((_, e) => as.get(e)!);
}

interface Swept {
  tube: Tube;
  to: number;
  material: string;
}

/** Adds one run of boards as a solid of its own. */
function built(facets: Facets, { tube, to, material }: Swept, { edges, whole }: Run): void {
  facets.begin(material);
  const at = (node: number): Point => [tube.x[node]!, depthAt(tube.n[node]!, to), tube.y[node]!];
  const placeOf = new Map(tube.edges.flatMap(({ joint, source }, e) => (joint ? [] : [[source, e] as const])));
  const bandsOf = (source: number): TubeFace[] => {
    const e = placeOf.get(source)!;
    return tube.faces.slice(tube.faceStart[e], tube.faceStart[e + 1]);
  };
  for (const source of edges) {
    const { dx, dy, chord } = tube.edges[placeOf.get(source)!]!;
    for (const face of bandsOf(source)) {
      const points = face.nodes.map(at).reverse();
      if (Math.hypot(...newell(points)) < rounding) continue;
      facets.add(points, [dx, 0, dy], chord ? shading(points, face, chord) : undefined);
    }
  }
  if (whole) return;
  const start = bandsOf(edges[0]!).flatMap(({ nodes, startNear, startFar }) => nodes.slice(startNear, startFar + 1));
  const end = bandsOf(edges.at(-1)!).flatMap(({ nodes, endFar }) =>
    endFar > 0 ? [nodes[0]!, ...nodes.slice(endFar).reverse()] : [nodes[0]!],
  );
  for (const path of [start, end.reverse()]) {
    const points = path.map(at).filter((point, i, all) => {
      const last = all[(i + all.length - 1) % all.length]!;
      return Math.hypot(point[0] - last[0], point[1] - last[1], point[2] - last[2]) > nanometre;
    });
    if (points.length > 2) facets.add(points, [0, 1, 0]);
  }
}

/** How deep the sweep is after so much of its way. */
const depthAt = (way: number, to: number): number => Math.max(0, Math.min(way - 1, to, 2 * (1 + to) - way));

/** Normals of what goes round with an arc; none for what faces out of the wall or into it. */
function shading(
  points: readonly Point[],
  { nodes, startNear, startFar }: TubeFace,
  { ax, ay, bx, by }: { ax: number; ay: number; bx: number; by: number },
): Point[] | undefined {
  const normal = newell(points);
  const size = Math.hypot(...normal);
  const [nx, ny, nz] = normal.map((value) => value / size) as [number, number, number];
  const level = Math.hypot(nx, nz);
  if (level < nanometre) return undefined;
  const sign = nx * (ax + bx) + nz * (ay + by) < 0 ? -level : level;
  const starts = new Set(nodes.slice(startNear, startFar + 1));
  return [...nodes]
    .reverse()
    .map((node): Vector => (starts.has(node) ? [sign * ax, ny, sign * ay] : [sign * bx, ny, sign * by]));
}

/** A lining as it is seen on its face: its edge, and its fronts as far as they splay. */
function frontOf(own: Area, boards: Boards, material: string): Front[] {
  const rings = [
    ({ near }: Board) => near,
    ({ near, thick }: Board) => near - thick,
    ({ far, thick }: Board) => far - thick,
  ].map((by) => moved(own, ({ side }) => by(boards[side!]))?.area.points);
  return rings.slice(1).flatMap((ring, i): Front[] => {
    const outer = rings[i];
    return ring && outer ? [{ kind: 'solid', loops: [outer, ring], material }] : [];
  });
}
