/** What is overhead: undersides of roofs and vaults in flat pieces, and how high they are over a line in plan. Metres. */
import type { Curtain } from '../mesh/curtain.ts';
import { isEdgesUpright, partsOf, standsAt } from '../roof/edge-line.ts';
import type { Ring } from '../roof/rings.ts';
import type { Surface } from '../roof/surface.ts';
import { hair, micrometre, rounding } from '../tolerances.ts';
import { dot, newell, type Vector } from '../vector.ts';
import { pointAt, type Rigid } from './chart.ts';
import type { RoofBody } from './roof-sheets.ts';
import type { Sheet } from './sheet.ts';

/** A stretch of a line in plan under one piece: from and to, metres along; its height above the line at 0 and how it rises along and to the left, metres a metre. */
export interface Stretch {
  from: number;
  to: number;
  at: number;
  along: number;
  through: number;
}

/** A flat piece of an underside: its loops in plan, and how high it is at the origin of those and how it rises from there, metres a metre. */
export interface Underside {
  loops: readonly (readonly (readonly number[])[])[];
  z: number;
  rises: readonly [number, number];
}

/** What a wall can stand under: its underside in pieces, told from a frame that is turned about the vertical alone. */
export interface Overhead {
  frame: Pick<Rigid, 'origin' | 'x' | 'y'>;
  pieces: readonly Underside[];
  /** Where it is split: it is there where all curtains of any of these keep it. */
  kept?: readonly (readonly Curtain[])[];
}

/** The underside of a roof. */
export function roofOverhead(body: RoofBody): Overhead {
  let made = overheads.get(body);
  if (!made) {
    const surface = body.roof.surfaces.at(-1)!;
    const pieces = surface.planes.flatMap(({ nx, ny, reach, run, rings }): Underside[] =>
      run === 0 || rings.length === 0
        ? []
        : [
            {
              loops: rings.map((ring) => drawnOut(ring, surface, body.roof.surfaces[0]!)),
              z: -reach / run,
              rises: [nx / run, ny / run],
            },
          ],
    );
    overheads.set(body, (made = { frame: body.frame, pieces }));
  }
  return made;
}

/** A ring of the underside, drawn on to where the roof ends above where that ends square to its slope: a wall goes up to the plane there too, and not level before it. */
function drawnOut({ nodes, beyond }: Ring, under: Surface, top: Surface): (readonly number[])[] {
  return nodes.flatMap((node, i) => {
    const p = beyond[i]!;
    const next = nodes[(i + 1) % nodes.length]!;
    const [a, b] = [under.nodes[node]!, under.nodes[next]!];
    if (!isEdgesUpright(under.planes[p]!) || !isEdgesUpright(top.planes[p]!)) return [a];
    const { nx, ny } = under.planes[p]!;
    const [inner, outer] = [standsAt(under, p), standsAt(top, p)];
    const gap = nx * (inner[0][0] - outer[0][0]) + ny * (inner[0][1] - outer[0][1]);
    const { main } = partsOf(under, p);
    if (gap < micrometre || !main.includes(node) || !main.includes(next)) return [a];
    const out = (at: readonly number[]): readonly number[] => {
      const end = inner.findIndex(([x, y]) => Math.hypot(x - at[0]!, y - at[1]!) < micrometre);
      return end < 0 ? [at[0]! - gap * nx, at[1]! - gap * ny] : outer[end]!;
    };
    return [a, out(a), out(b)];
  });
}

const overheads = new WeakMap<object, Overhead>();

const asItLies: Overhead['frame'] = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0] };

/** An underside of flat polygons in space; those that stand upright are over nothing. */
export function polygonsOverhead(of: object, polygons: () => readonly (readonly Vector[])[]): Overhead {
  let made = overheads.get(of);
  if (!made) {
    const pieces = polygons().flatMap((points): Underside[] => {
      const [nx, ny, nz] = newell(points);
      if (Math.abs(nz) < 1e-9) return [];
      const [x, y, z] = points[0]!;
      const rises = [-nx / nz, -ny / nz] as const;
      return [{ loops: [points], z: z - rises[0] * x - rises[1] * y, rises }];
    });
    overheads.set(of, (made = { frame: asItLies, pieces }));
  }
  return made;
}

/** The soffit of a barrel vault, facet by facet. */
export function barrelOverhead(sheet: Sheet): Overhead {
  return polygonsOverhead(sheet, () => {
    const { chart, thickness, height } = sheet;
    if (chart.kind !== 'bent') return [];
    const along = Array.from(
      chart.s,
      (s) => [pointAt(chart, s, 0, thickness), pointAt(chart, s, height, thickness)] as const,
    );
    return along.slice(1).map(([c, d], i) => [along[i]![0], c, d, along[i]![1]]);
  });
}

/** A line in plan, at a height: where it begins, its unit direction and its length. */
export interface PlanLine {
  start: Vector;
  way: readonly [number, number];
  length: number;
}

/** Where pieces of an underside are over a line in plan. */
export function stretchesUnder(line: PlanLine, { frame, pieces, kept }: Overhead): Stretch[] {
  const {
    start: [x, y, foot],
    way: [cos, sin],
    length,
  } = line;
  const local = (u: number, v: number): [number, number] => [
    u * frame.x[0] + v * frame.x[1],
    u * frame.y[0] + v * frame.y[1],
  ];
  const [px, py] = local(x - frame.origin[0], y - frame.origin[1]);
  const [dx, dy] = local(cos, sin);
  const rise = frame.origin[2] - foot;
  return pieces.flatMap(({ loops, z, rises: [rx, ry] }) => {
    const slopes = { along: rx * dx + ry * dy, through: ry * dx - rx * dy };
    const at = rx * px + ry * py + z + rise;
    const found = meeting([[0, length]], spansWithin(loops, [px, py], [dx, dy])).map(([from, to]): Stretch => ({
      from,
      to,
      at,
      ...slopes,
    }));
    return kept ? found.flatMap((stretch) => keptOf(stretch, line, kept)) : found;
  });
}

/** What is left of a stretch of what is split. */
function keptOf(stretch: Stretch, line: PlanLine, kept: NonNullable<Overhead['kept']>): Stretch[] {
  const spans = kept
    .flatMap((curtains) =>
      curtains.reduce<Span[]>(
        (left, curtain) => meeting(left, keptAlong(curtain, line, stretch)),
        [[stretch.from, stretch.to]],
      ),
    )
    .sort(([a], [b]) => a - b);
  const joined: Span[] = [];
  for (const [from, to] of spans) {
    const last = joined.at(-1);
    if (last && from - last[1] <= hair) joined[joined.length - 1] = [last[0], Math.max(last[1], to)];
    else joined.push([from, to]);
  }
  return joined.map(([from, to]) => ({ ...stretch, from, to }));
}

type Span = readonly [from: number, to: number];

const meeting = (some: readonly Span[], others: readonly Span[]): Span[] =>
  some.flatMap(([a, b]) =>
    others.flatMap(([c, d]): Span[] => {
      const [from, to] = [Math.max(a, c), Math.min(b, d)];
      return to - from > hair ? [[from, to]] : [];
    }),
  );

/** The lines in plan along which a piece is split: pairs of places as the pieces' loops are told, of planes as far as matters about a place. */
export function splitsOf({ frame: { origin, x, y }, kept = [] }: Overhead, piece: Underside, about: Vector): Chord[] {
  const local = ([px, py]: readonly number[]): readonly [number, number] => {
    const [dx, dy] = [px! - origin[0], py! - origin[1]];
    return [dx * x[0] + dy * x[1], dx * y[0] + dy * y[1]];
  };
  return kept.flat().flatMap(({ drapes, inPlan }): Chord[] => {
    if (inPlan) return inPlan.map((a, i) => [local(a), local(inPlan[(i + 1) % inPlan.length]!)]);
    const { normal, offset } = drapes[0]!;
    // Where the plane meets the piece, as a line in plan.
    const [u, v] = local(about);
    const [a, b] = [dot(normal, x) + normal[2] * piece.rises[0], dot(normal, y) + normal[2] * piece.rises[1]];
    const size = Math.hypot(a, b);
    if (size < rounding) return [];
    const off = (offset - dot(normal, origin) - normal[2] * piece.z - a * u - b * v) / size ** 2;
    const [mx, my] = [u + off * a, v + off * b];
    const [dx, dy] = [(-b / size) * farEnough, (a / size) * farEnough];
    return [
      [
        [mx - dx, my - dy],
        [mx + dx, my + dy],
      ],
    ];
  });
}

/** Two places in plan. */
export type Chord = readonly [readonly [number, number], readonly [number, number]];

/** No wall reaches farther from where it begins, metres. */
const farEnough = 1e4;

/** Where a curtain keeps what is over a line: spans along it. */
function keptAlong(
  { drapes, inPlan }: Curtain,
  { start: [x, y, z], way: [cos, sin] }: PlanLine,
  stretch: Stretch,
): Span[] {
  if (!inPlan) {
    const { normal, offset } = drapes[0]!;
    const at = normal[0] * x + normal[1] * y + normal[2] * (z + stretch.at) - offset;
    const by = normal[0] * cos + normal[1] * sin + normal[2] * stretch.along;
    if (Math.abs(by) < 1e-12) return at > 0 ? [[-Infinity, Infinity]] : [];
    return by > 0 ? [[-at / by, Infinity]] : [[-Infinity, -at / by]];
  }
  return spansWithin([inPlan], [x, y], [cos, sin]);
}

/** Where a line through a point is within loops in plan: spans along it. @param way unit direction */
function spansWithin(
  loops: readonly (readonly (readonly number[])[])[],
  [x, y]: readonly [number, number],
  [cos, sin]: readonly [number, number],
): Span[] {
  const hits: number[] = [];
  for (const loop of loops)
    loop.forEach(([ax, ay], i) => {
      const [bx, by] = loop[(i + 1) % loop.length]!;
      const [m, n] = [(ay! - y) * cos - (ax! - x) * sin, (by! - y) * cos - (bx! - x) * sin];
      if (m > 0 === n > 0) return;
      const [p, q] = [(ax! - x) * cos + (ay! - y) * sin, (bx! - x) * cos + (by! - y) * sin];
      hits.push(p + ((q - p) * m) / (m - n));
    });
  hits.sort((a, b) => a - b);
  return hits.flatMap((from, i): Span[] => (i % 2 === 0 && hits[i + 1] !== undefined ? [[from, hits[i + 1]!]] : []));
}

/** Stretches from end to end: at the wall's own height where no plane is over it. */
export function filled(found: readonly Stretch[], length: number, height: number): Stretch[] {
  const order = [...found].sort((a, b) => a.from - b.from);
  const all: Stretch[] = [];
  let at = 0;
  const level = (to: number): void =>
    void (to - at > hair && all.push({ from: at, to, at: height, along: 0, through: 0 }));
  for (const one of order) {
    level(one.from);
    const joined = all.length > 0 && one.from - at <= hair;
    all.push({ ...one, from: joined || one.from <= hair ? at : one.from });
    at = one.to;
  }
  if (length - at > hair) level(length);
  else if (all.length > 0) all.at(-1)!.to = length;
  return all.length > 0 ? all : [{ from: 0, to: length, at: height, along: 0, through: 0 }];
}
