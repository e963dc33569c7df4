/** The top of a wall under a roof or a vault: where its underside is over the wall, corner by corner, and how that slopes through the wall's thickness. */
import type { CourseForm } from '@yard-arch/document';
import { hair, micrometre, relative } from '../tolerances.ts';
import { newell, type Vector } from '../vector.ts';
import { pointAt, turned, type Rigid } from './chart.ts';
import type { RoofBody } from './roof-sheets.ts';
import type { Sheet, UnderRoof } from './sheet.ts';

/** A stretch of the wall under one plane: from and to, metres along; its height at 0 and how it rises along and through, metres a metre. */
interface Stretch {
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
              loops: rings.map(({ nodes }) => nodes.map((n) => surface.nodes[n]!)),
              z: -reach / run,
              rises: [nx / run, ny / run],
            },
          ],
    );
    overheads.set(body, (made = { frame: body.frame, pieces }));
  }
  return made;
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

/** The top of a straight wall under what is overhead; null of one that bends. */
export function underRoof(wall: CourseForm, over: Overhead, thickness: number): UnderRoof | null {
  let byWall = tops.get(over);
  if (!byWall) tops.set(over, (byWall = new Map()));
  const key = JSON.stringify([wall, thickness]);
  let made = byWall.get(key);
  if (made === undefined) byWall.set(key, (made = underRoofAnew(wall, over, thickness)));
  return made;
}

const tops = new WeakMap<Overhead, Map<string, UnderRoof | null>>();

function underRoofAnew(wall: CourseForm, over: Overhead, thickness: number): UnderRoof | null {
  const [run, ...more] = wall.runs;
  if (more.length > 0 || run!.sweep || wall.batter) return null;
  const { length } = run!;
  const stretches = filled(stretchesUnder(wall, length, over), length, wall.height);
  const points: [number, number][] = [];
  const sections: UnderRoof['sections'][number][] = [];
  for (const { from, to, at, along, through } of stretches) {
    const [a, b]: [number, number][] = [
      [from, at + along * from],
      [to, at + along * to],
    ] as [number, number][];
    const last = points.at(-1);
    if (last && Math.abs(last[1] - a![1]) > micrometre) {
      points.push(a!);
      sections.push(null);
    } else if (!last) points.push(a!);
    points.push(b!);
    // The piece moves up by so much for each metre of depth; out of it is square to it.
    const out = (through * thickness) / Math.hypot(1, along);
    sections.push(Math.abs(out) < relative ? null : { n: [0, thickness], offset: [0, out], smooth: [false, false] });
  }
  return { points, sections };
}

/** Where pieces of the underside are over the wall's outer face. */
function stretchesUnder({ start, leaves }: CourseForm, length: number, { frame, pieces }: Overhead): Stretch[] {
  const [cos, sin] = turned(leaves);
  const local = (x: number, y: number): [number, number] => [
    x * frame.x[0] + y * frame.x[1],
    x * frame.y[0] + y * frame.y[1],
  ];
  const [px, py] = local(start.x - frame.origin[0], start.y - frame.origin[1]);
  const [dx, dy] = local(cos, sin);
  const [ix, iy] = [-dy, dx];
  const rise = frame.origin[2] - start.z;
  // A hair within the wall, so that what runs along a ridge or a hip has one plane over it.
  const [ox, oy] = [px + ix * 2 * micrometre, py + iy * 2 * micrometre];
  return pieces.flatMap(({ loops, z, rises: [rx, ry] }) => {
    const hits: number[] = [];
    for (const loop of loops)
      loop.forEach(([ax, ay], i) => {
        const [bx, by] = loop[(i + 1) % loop.length]!;
        const [sa, sb] = [(ax! - ox) * iy - (ay! - oy) * ix, (bx! - ox) * iy - (by! - oy) * ix];
        const [na, nb] = [(ax! - ox) * ix + (ay! - oy) * iy, (bx! - ox) * ix + (by! - oy) * iy];
        if (na > 0 === nb > 0) return;
        hits.push(sa + ((sb - sa) * na) / (na - nb));
      });
    hits.sort((a, b) => a - b);
    const slopes = { along: rx * dx + ry * dy, through: rx * ix + ry * iy };
    const at = rx * px + ry * py + z + rise;
    const found: Stretch[] = [];
    for (let i = 0; i + 1 < hits.length; i += 2) {
      const [from, to] = [Math.max(0, hits[i]!), Math.min(length, hits[i + 1]!)];
      if (to - from > hair) found.push({ from, to, at, ...slopes });
    }
    return found;
  });
}

/** Stretches from end to end: at the wall's own height where no plane is over it. */
function filled(found: readonly Stretch[], length: number, height: number): Stretch[] {
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
