/** The top of a wall under a roof: where the roof's underside is over the wall, corner by corner, and how it slopes through the wall's thickness. */
import type { CourseForm } from '@yard-arch/document';
import { hair, micrometre, relative } from '../tolerances.ts';
import { turned } from './chart.ts';
import type { RoofBody } from './roof-sheets.ts';
import type { UnderRoof } from './sheet.ts';

/** A stretch of the wall under one plane: from and to, metres along; its height at 0 and how it rises along and through, metres a metre. */
interface Stretch {
  from: number;
  to: number;
  at: number;
  along: number;
  through: number;
}

/** The top of a straight wall under a roof; null of one that bends. */
export function underRoof(wall: CourseForm, body: RoofBody, thickness: number): UnderRoof | null {
  let byWall = tops.get(body);
  if (!byWall) tops.set(body, (byWall = new Map()));
  const key = JSON.stringify([wall, thickness]);
  let made = byWall.get(key);
  if (made === undefined) byWall.set(key, (made = underRoofAnew(wall, body, thickness)));
  return made;
}

const tops = new WeakMap<RoofBody, Map<string, UnderRoof | null>>();

function underRoofAnew(wall: CourseForm, body: RoofBody, thickness: number): UnderRoof | null {
  const [run, ...more] = wall.runs;
  if (more.length > 0 || run!.sweep || wall.batter) return null;
  const { length } = run!;
  const stretches = filled(stretchesUnder(wall, length, body), length, wall.height);
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

/** Where planes of the underside are over the wall's outer face. */
function stretchesUnder({ start, leaves }: CourseForm, length: number, { roof, frame }: RoofBody): Stretch[] {
  const surface = roof.surfaces.at(-1)!;
  const [cos, sin] = turned(leaves);
  const local = (x: number, y: number): [number, number] => [
    x * frame.x[0] + y * frame.x[1],
    x * frame.y[0] + y * frame.y[1],
  ];
  const [px, py] = local(start.x - frame.origin[0], start.y - frame.origin[1]);
  const [dx, dy] = local(cos, sin);
  const [ix, iy] = [-dy, dx];
  const rise = frame.origin[2] - start.z;
  return surface.planes.flatMap(({ nx, ny, reach, run, rings }) => {
    if (run === 0 || rings.length === 0) return [];
    // A hair within the wall, so that what runs along a ridge or a hip has one plane over it.
    const [ox, oy] = [px + ix * 2 * micrometre, py + iy * 2 * micrometre];
    const hits: number[] = [];
    for (const { nodes } of rings)
      nodes.forEach((node, i) => {
        const [[ax, ay], [bx, by]] = [surface.nodes[node]!, surface.nodes[nodes[(i + 1) % nodes.length]!]!];
        const [sa, sb] = [(ax - ox) * iy - (ay - oy) * ix, (bx - ox) * iy - (by - oy) * ix];
        const [na, nb] = [(ax - ox) * ix + (ay - oy) * iy, (bx - ox) * ix + (by - oy) * iy];
        if (na > 0 === nb > 0) return;
        hits.push(sa + ((sb - sa) * na) / (na - nb));
      });
    hits.sort((a, b) => a - b);
    const slopes = { along: (nx * dx + ny * dy) / run, through: (nx * ix + ny * iy) / run };
    const at = (nx * px + ny * py - reach) / run + rise;
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
