/** Joins: how the ends of straight walls are cut where they meet other walls, so that corners close without gaps or overlaps. */
import { fault, type Told } from '../finding.ts';
import { isInPlan, type ProjectDocument, type Wall } from '@yard-arch/document';
import type { SectionLine } from '../profile/section.ts';
import { turned } from './chart.ts';
import type { WallEnds } from './sheet.ts';
import { nanometre, parallel, rounding, wallsMeet as meets } from '../tolerances.ts';

/** What came of the ends of a wall that were to be joined: the wall met at each, or why none was. */
export interface Joins extends WallEnds {
  notes: Told[];
  /** What is taken out of other walls, where layers of this one run on into them to layers of the same material. */
  into: Recess[];
}

/** A strip of a wall's layers that is taken out for a layer of another wall to run on into. */
export interface Recess {
  /** The wall that it is taken out of, and the one whose layer stands in it. */
  host: string;
  by: string;
  /** Depths between which it lies, metres. */
  from: number;
  to: number;
  /** Where it begins along the host's outer face and above its base, how far it moves along with every metre of depth, and its width and height; metres. */
  s: number;
  t: number;
  drift: number;
  width: number;
  height: number;
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
  return {
    wall,
    a: [x, y],
    b: [x + cos * wall.length, y + sin * wall.length],
    along: [cos, sin],
    inward: [-sin, cos],
    boundaries,
  };
}

/** The ends of a wall among the others of its document. */
export function joinsOf(document: ProjectDocument, wall: Wall): Joins {
  const joins: Joins = { start: null, end: null, notes: [], into: [] };
  if (!wall.ends || (wall.ends.start === 'square' && wall.ends.end === 'square')) return joins;
  const own = straight(wall);
  if (!own)
    return {
      ...joins,
      notes: [
        fault(
          'not-joined',
          'only straight, upright walls can be joined at their ends',
          'Let its ends be square, or draw it straight and upright.',
        ),
      ],
    };
  const others = Object.values(document.elements)
    .filter(isInPlan)
    .filter((other) => other.id !== wall.id)
    .map(straight)
    .filter((other): other is Straight => other !== null && levelsMeet(other.wall, wall));
  for (const which of ['start', 'end'] as const) {
    const kind = wall.ends[which];
    if (kind === 'square') continue;
    const found = kind === 'mitred' ? mitre(own, others, which) : butt(own, others, which);
    if (found) {
      joins[which] = found.line;
      joins.notes.push({
        code: 'joined',
        reason: `${which} ${kind} with ${found.other.wall.name}${found.into?.length ? ', layers running on' : ''}`,
        mend: null,
      });
      joins.into.push(...(found.into ?? []));
    } else
      joins.notes.push(
        fault(
          'not-joined',
          kind === 'mitred'
            ? `${which} square: no wall’s corner meets it there`
            : `${which} square: it meets no wall there`,
          'Move it to where a wall is, or let that end be square.',
        ),
      );
  }
  return joins;
}

function levelsMeet(a: Wall, b: Wall): boolean {
  return a.start.z < b.start.z + b.height && b.start.z < a.start.z + a.height;
}

/** Where two lines in plan cross, as the distance along the first from its point. */
function crossing(
  p: readonly [number, number],
  d: readonly [number, number],
  q: readonly [number, number],
  e: readonly [number, number],
): number | null {
  const det = d[0] * e[1] - d[1] * e[0];
  if (Math.abs(det) < parallel) return null;
  return ((q[0] - p[0]) * e[1] - (q[1] - p[1]) * e[0]) / det;
}

const shifted = (p: readonly [number, number], d: readonly [number, number], by: number): [number, number] => [
  p[0] + d[0] * by,
  p[1] + d[1] * by,
];

/** The mitre with a wall whose other kind of end stands at the same corner: its planes pass through the crossings of the two build-ups, layer by layer where they have as many. */
function mitre(
  own: Straight,
  others: readonly Straight[],
  which: 'start' | 'end',
): { line: SectionLine; other: Straight; into?: Recess[] } | null {
  const corner = which === 'end' ? own.b : own.a;
  const candidates = others.filter((o) => {
    const theirs = which === 'end' ? o.a : o.b;
    return Math.hypot(theirs[0] - corner[0], theirs[1] - corner[1]) < meets;
  });
  // Where several meet, walls of one build-up belong together.
  const unlike = (o: Straight): number =>
    Math.abs(o.boundaries.at(-1)! - own.boundaries.at(-1)!) + (o.boundaries.length === own.boundaries.length ? 0 : 1);
  const [other] = candidates.sort((p, q) => unlike(p) - unlike(q));
  if (!other) return null;
  const matched = own.boundaries.length === other.boundaries.length;
  const depths = matched ? own.boundaries : [0, own.boundaries.at(-1)!];
  const theirs = matched ? other.boundaries : [0, other.boundaries.at(-1)!];
  const offset: number[] = [];
  for (let i = 0; i < depths.length; i++) {
    const x = crossing(
      shifted(corner, own.inward, depths[i]!),
      own.along,
      shifted(corner, other.inward, theirs[i]!),
      other.along,
    );
    if (x === null) return null;
    offset.push(which === 'end' ? x : -x);
  }
  return { line: { n: [...depths], offset, smooth: depths.map(() => false) }, other };
}

interface Butt {
  line: SectionLine;
  other: Straight;
  into: Recess[];
}

/** The butt against the first face that this wall comes to of a wall that it ends in or at. Its layers run on through those of the other wall to the first of their own material. */
function butt(own: Straight, others: readonly Straight[], which: 'start' | 'end'): Butt | null {
  const [corner, away] = which === 'end' ? [own.b, own.along] : [own.a, [-own.along[0], -own.along[1]] as const];
  let best: { other: Straight; at: number; inner: boolean } | null = null;
  const reach = (other: Straight, mine: number, depth: number): number | null =>
    crossing(shifted(corner, own.inward, mine), away, shifted(other.a, other.inward, depth), other.along);
  for (const other of others) {
    const thick = other.boundaries.at(-1)!;
    const [rx, ry] = [corner[0] - other.a[0], corner[1] - other.a[1]];
    const [s, n] = [rx * other.along[0] + ry * other.along[1], rx * other.inward[0] + ry * other.inward[1]];
    if (s < -meets || s > other.wall.length + meets || n < -meets || n > thick + meets) continue;
    for (const inner of [false, true]) {
      const at = reach(other, 0, inner ? thick : 0);
      if (at !== null && (!best || at < best.at)) best = { other, at, inner };
    }
  }
  if (!best) return null;
  const { other, inner } = best;
  const thick = other.boundaries.at(-1)!;
  const deeper = (by: number): number => (inner ? thick - by : by);
  const passed = own.wall.layers.map((layer) => (layer.cavity ? 0 : through(other, inner, layer.material)));
  const line: SectionLine = { n: [], offset: [], smooth: [] };
  const into: Recess[] = [];
  const height = heightAt(own.wall, which);
  for (let i = 0, j: number; i < passed.length; i = j) {
    // Neighbouring layers that run on as far are one.
    for (j = i; j < passed.length && passed[j] === passed[i];) j += 1;
    const [n, m, by] = [own.boundaries[i]!, own.boundaries[j]!, height === null ? 0 : passed[i]!];
    line.n.push(n, m);
    line.offset.push(reach(other, n, deeper(by))!, reach(other, m, deeper(by))!);
    line.smooth.push(false, false);
    if (by > 0) into.push(recess(n, m, by));
  }
  // Where neighbours end alike there is no step.
  for (let k = line.n.length - 3; k > 0; k -= 2)
    if (Math.abs(line.offset[k]! - line.offset[k + 1]!) < nanometre)
      for (const list of [line.n, line.offset, line.smooth]) list.splice(k, 2);
  return { line, other, into };

  function recess(n: number, m: number, by: number): Recess {
    const along = (mine: number, depth: number): number => {
      const [x, y] = shifted(shifted(corner, own.inward, mine), away, reach(other, mine, depth)!);
      return (x - other.a[0]) * other.along[0] + (y - other.a[1]) * other.along[1];
    };
    const [p, q] = [along(n, 0), along(m, 0)];
    const drift = (along(n, thick) - p) / thick;
    return {
      host: other.wall.id,
      by: own.wall.id,
      from: Math.min(deeper(0), deeper(by)),
      to: Math.max(deeper(0), deeper(by)),
      s: Math.min(p, q),
      t: own.wall.start.z - other.wall.start.z,
      drift: Math.abs(drift) < rounding ? 0 : drift,
      width: Math.abs(q - p),
      height: height!,
    };
  }
}

/** How thick the linings are, from one face on, that stand before the first layer of a material: layers thinner than it. 0 where there is none, or a cavity or a thicker layer before it. */
function through({ wall }: Straight, inner: boolean, material: string): number {
  let [passed, thickest] = [0, 0];
  for (const layer of inner ? [...wall.layers].reverse() : wall.layers) {
    if (layer.cavity) return 0;
    if (layer.material === material) return thickest < layer.thickness ? passed : 0;
    passed += layer.thickness;
    thickest = Math.max(thickest, layer.thickness);
  }
  return 0;
}

/** The height of a wall at its start or end, metres; null where its top steps. */
function heightAt({ top, height }: Wall, which: 'start' | 'end'): number | null {
  if (top.kind === 'stepped') return null;
  return which === 'end' && (top.kind === 'raked' || top.kind === 'gabled') ? (top.end ?? height) : height;
}
