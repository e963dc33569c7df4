/** Joins: how the ends of straight walls are cut where they meet other walls, so that corners close without gaps or overlaps. */
import type { ProjectDocument, Wall } from '@yard-arch/document';
import type { SectionLine } from '../profile/section.ts';
import { turned } from './chart.ts';
import type { WallEnds } from './sheet.ts';

/** Walls' ends nearer than this meet, metres. */
const meets = 0.002;

/** What came of the ends of a wall that were to be joined: the wall met at each, or why none was. */
export interface Joins extends WallEnds {
  notes: string[];
}

interface Straight {
  wall: Wall;
  /** Start and end on the outer face, in plan. */
  a: readonly [number, number];
  b: readonly [number, number];
  along: readonly [number, number];
  inward: readonly [number, number];
  boundaries: number[];
}

function straight(wall: Wall): Straight | null {
  if (wall.sweep || wall.runs?.length || wall.batter) return null;
  const [cos, sin] = turned(wall.turn);
  const boundaries = [0];
  for (const layer of wall.layers) boundaries.push(boundaries.at(-1)! + layer.thickness);
  const { x, y } = wall.start;
  return { wall, a: [x, y], b: [x + cos * wall.length, y + sin * wall.length], along: [cos, sin], inward: [-sin, cos], boundaries };
}

/** The ends of a wall among the others of its document. */
export function joinsOf(document: ProjectDocument, wall: Wall): Joins {
  const joins: Joins = { start: null, end: null, notes: [] };
  if (!wall.ends || (wall.ends.start === 'square' && wall.ends.end === 'square')) return joins;
  const own = straight(wall);
  if (!own) return { ...joins, notes: ['only straight, upright walls can be joined at their ends'] };
  const others = Object.values(document.elements)
    .filter((other): other is Wall => other.kind === 'wall' && other.id !== wall.id)
    .map(straight)
    .filter((other): other is Straight => other !== null && levelsMeet(other.wall, wall));
  for (const which of ['start', 'end'] as const) {
    const kind = wall.ends[which];
    if (kind === 'square') continue;
    const found = kind === 'mitred' ? mitre(own, others, which) : butt(own, others, which);
    if (found) {
      joins[which] = found.line;
      joins.notes.push(`${which} ${kind} with ${found.other.wall.name}`);
    } else joins.notes.push(kind === 'mitred' ? `${which} square: no wall’s corner meets it there` : `${which} square: it meets no wall there`);
  }
  return joins;
}

function levelsMeet(a: Wall, b: Wall): boolean {
  return a.start.z < b.start.z + b.height && b.start.z < a.start.z + a.height;
}

/** Where two lines in plan cross, as the distance along the first from its point. */
function crossing(p: readonly [number, number], d: readonly [number, number], q: readonly [number, number], e: readonly [number, number]): number | null {
  const det = d[0] * e[1] - d[1] * e[0];
  if (Math.abs(det) < 1e-6) return null;
  return ((q[0] - p[0]) * e[1] - (q[1] - p[1]) * e[0]) / det;
}

const shifted = (p: readonly [number, number], d: readonly [number, number], by: number): [number, number] => [p[0] + d[0] * by, p[1] + d[1] * by];

/** The mitre with a wall whose other kind of end stands at the same corner: its planes pass through the crossings of the two build-ups, layer by layer where they have as many. */
function mitre(own: Straight, others: readonly Straight[], which: 'start' | 'end'): { line: SectionLine; other: Straight } | null {
  const corner = which === 'end' ? own.b : own.a;
  const other = others.find((o) => {
    const theirs = which === 'end' ? o.a : o.b;
    return Math.hypot(theirs[0] - corner[0], theirs[1] - corner[1]) < meets;
  });
  if (!other) return null;
  const matched = own.boundaries.length === other.boundaries.length;
  const depths = matched ? own.boundaries : [0, own.boundaries.at(-1)!];
  const theirs = matched ? other.boundaries : [0, other.boundaries.at(-1)!];
  const offset: number[] = [];
  for (let i = 0; i < depths.length; i++) {
    const x = crossing(shifted(corner, own.inward, depths[i]!), own.along, shifted(corner, other.inward, theirs[i]!), other.along);
    if (x === null) return null;
    offset.push(which === 'end' ? x : -x);
  }
  return { line: { n: [...depths], offset, smooth: depths.map(() => false) }, other };
}

/** The butt against the first face that this wall comes to of a wall that it ends in or at. */
function butt(own: Straight, others: readonly Straight[], which: 'start' | 'end'): { line: SectionLine; other: Straight } | null {
  const [corner, away] = which === 'end' ? [own.b, own.along] : [own.a, [-own.along[0], -own.along[1]] as const];
  const T = own.boundaries.at(-1)!;
  let best: { line: SectionLine; other: Straight; at: number } | null = null;
  for (const other of others) {
    const thick = other.boundaries.at(-1)!;
    const [rx, ry] = [corner[0] - other.a[0], corner[1] - other.a[1]];
    const [s, n] = [rx * other.along[0] + ry * other.along[1], rx * other.inward[0] + ry * other.inward[1]];
    if (s < -meets || s > other.wall.length + meets || n < -meets || n > thick + meets) continue;
    const faces = [0, thick].map((depth) =>
      [0, T].map((mine) => crossing(shifted(corner, own.inward, mine), away, shifted(other.a, other.inward, depth), other.along)),
    );
    const first = faces.filter((f): f is [number, number] => f[0] !== null && f[1] !== null).sort((f, g) => f[0] - g[0])[0];
    if (!first) continue;
    if (!best || first[0] < best.at) best = { line: { n: [0, T], offset: [...first], smooth: [false, false] }, other, at: first[0] };
  }
  return best && { line: best.line, other: best.other };
}
