/** Free outlines, of lines and arcs, with islands: their exact edges, which sides these are, and where an outline crosses itself. */
import type { FreeOutline } from '@yard-arch/document';
import { arcPoint, type ProfileEdge, type Impossible, type Profile, type Side } from './profile.ts';
import { nanometre as near, onLine, relative, rounding } from '../tolerances.ts';

/** Exact edges of a closed outline, counter-clockwise (or clockwise where asked, as islands run). Bulges are those of DXF: tan of a quarter of the arc's angle. */
export function edgesOf(outline: FreeOutline, clockwise = false): ProfileEdge[] {
  const points = dropRepeats(outline);
  const raw = points.map((p, i) => edge(p, points[(i + 1) % points.length]!));
  const forward = signedArea(raw) > 0;
  const turned = forward === !clockwise ? raw : raw.map(reversed).reverse();
  return turned.map((e) => ({ ...e, side: sideOf(e) }));
}

function dropRepeats(outline: FreeOutline): FreeOutline {
  return outline.filter((p, i) => {
    const q = outline[(i + 1) % outline.length]!;
    return Math.hypot(p.x - q.x, p.y - q.y) > near;
  });
}

function edge(p: FreeOutline[number], q: FreeOutline[number]): ProfileEdge {
  const bulge = p.bulge ?? 0;
  if (Math.abs(bulge) < relative) return { kind: 'line', side: 'sill', ax: p.x, ay: p.y, bx: q.x, by: q.y };
  // Chord c and bulge b give the radius c (1 + b²) / (4 |b|); the centre lies off the chord's middle by c (1 − b²) / (4 b), to the left.
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const off = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(p.x + q.x) / 2 - dy * off, (p.y + q.y) / 2 + dx * off];
  const r = Math.hypot(p.x - cx, p.y - cy);
  const from = Math.atan2(p.y - cy, p.x - cx);
  return { kind: 'arc', side: 'sill', cx, cy, rx: r, ry: r, from, to: from + 4 * Math.atan(bulge) };
}

function reversed(e: ProfileEdge): ProfileEdge {
  return e.kind === 'line' ? { ...e, ax: e.bx, ay: e.by, bx: e.ax, by: e.ay } : { ...e, from: e.to, to: e.from };
}

function signedArea(edges: readonly ProfileEdge[]): number {
  let twice = 0;
  for (const e of edges)
    if (e.kind === 'line') twice += e.ax * e.by - e.bx * e.ay;
    else {
      const [ax, ay] = arcPoint(e, e.from);
      const [bx, by] = arcPoint(e, e.to);
      twice += ax * by - bx * ay + e.rx * e.ry * (e.to - e.from - Math.sin(e.to - e.from));
    }
  return twice / 2;
}

/** The side that an edge belongs to, by the way its middle faces: up is a sill, down a head; jambs face sideways. An edge at exactly 45° is a head or sill. */
export function sideOf(e: ProfileEdge): Side {
  let dx: number;
  let dy: number;
  if (e.kind === 'line') [dx, dy] = [e.bx - e.ax, e.by - e.ay];
  else {
    const middle = (e.from + e.to) / 2;
    const sense = Math.sign(e.to - e.from);
    [dx, dy] = [-sense * e.rx * Math.sin(middle), sense * e.ry * Math.cos(middle)];
  }
  return sideAlong(dx, dy);
}

/** The side of an edge that runs in a direction, counter-clockwise round what it encloses. */
export function sideAlong(dx: number, dy: number): Side {
  if (Math.abs(dx) >= Math.abs(dy) * (1 - relative)) return dx > 0 ? 'sill' : 'head';
  return dy > 0 ? 'jamb-right' : 'jamb-left';
}

/** Bounding rectangle of edges: left, bottom, right, top, arcs' bellies included. */
export function boundsOf(edges: readonly ProfileEdge[]): [number, number, number, number] {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  const see = (x: number, y: number): void => {
    left = Math.min(left, x);
    low = Math.min(low, y);
    right = Math.max(right, x);
    high = Math.max(high, y);
  };
  for (const e of edges)
    if (e.kind === 'line') {
      see(e.ax, e.ay);
      see(e.bx, e.by);
    } else {
      const [from, to] = e.from < e.to ? [e.from, e.to] : [e.to, e.from];
      const quarter = Math.PI / 2;
      see(...arcPoint(e, from));
      see(...arcPoint(e, to));
      for (let q = Math.ceil(from / quarter - rounding); q * quarter <= to + rounding; q++)
        see(...arcPoint(e, q * quarter));
    }
  return [left, low, right, high];
}

/** Edges moved and scaled: (x, y) goes to ((x − left) · fx, (y − low) · fy). Circles become upright ellipses. */
function fitted(
  edges: readonly ProfileEdge[],
  { left, low }: { left: number; low: number },
  { fx, fy }: { fx: number; fy: number },
): ProfileEdge[] {
  return edges.map((e) =>
    e.kind === 'line'
      ? { ...e, ax: (e.ax - left) * fx, ay: (e.ay - low) * fy, bx: (e.bx - left) * fx, by: (e.by - low) * fy }
      : { ...e, cx: (e.cx - left) * fx, cy: (e.cy - low) * fy, rx: e.rx * fx, ry: e.ry * fy },
  );
}

/**
 * The profile of loops of edges (the first outer loops counter-clockwise, islands clockwise), scaled to a width and height (metres); null keeps the loops' own.
 */
export function loopsProfile(loops: readonly ProfileEdge[][], width: number | null, height: number | null): Profile {
  const [left, low, right, high] = boundsOf(loops.flat());
  const fx = width === null ? 1 : width / (right - left);
  const fy = height === null ? 1 : height / (high - low);
  const starts: number[] = [];
  const edges: ProfileEdge[] = [];
  for (const loop of loops) {
    starts.push(edges.length);
    edges.push(...fitted(loop, { left, low }, { fx, fy }).map((e) => ({ ...e, side: sideOf(e) })));
  }
  return { width: (right - left) * fx, height: (high - low) * fy, springing: null, edges, loops: starts };
}

/** Why an outline cannot be cut, and where it goes wrong, metres from its lower left. */
export interface Crossed extends Impossible {
  at?: readonly [number, number];
}

/** A free outline with islands, scaled to a width and height (metres), or why it cannot be cut. */
export function freeProfile(
  outline: FreeOutline,
  islands: readonly FreeOutline[],
  { width, height }: { width: number; height: number },
  worded: (metres: number) => string,
): Profile | Crossed {
  const loops = [edgesOf(outline), ...islands.map((island) => edgesOf(island, true))];
  const flat = loops.find((loop) => loop.length < 2 || Math.abs(signedArea(loop)) < rounding);
  if (flat)
    return {
      reason: 'its outline encloses nothing',
      mend: 'Draw an outline of at least three points that do not all lie in one line.',
    };
  const profile = loopsProfile(loops, width, height);
  const crossing = selfCrossing(profile);
  if (crossing)
    return {
      reason: `its outline crosses itself at ${worded(crossing[0])} along and ${worded(crossing[1])} up`,
      mend: 'Move the points there so that no two edges cross, and islands lie within the outline, apart from each other.',
      at: crossing,
    };
  return profile;
}

interface Chord {
  ax: number;
  ay: number;
  bx: number;
  by: number;
}

/** Edges as chords, of arcs 24. */
function chordsOf({ edges }: Profile): Chord[] {
  return edges.flatMap((e): Chord[] => {
    if (e.kind === 'line') return [e];
    const at = (k: number): [number, number] => arcPoint(e, e.from + ((e.to - e.from) * k) / 24);
    return Array.from({ length: 24 }, (_, k) => {
      const [[ax, ay], [bx, by]] = [at(k), at(k + 1)];
      return { ax, ay, bx, by };
    });
  });
}

/** Where two chords cross or touch other than end to end, or null. */
function meeting(p: Chord, q: Chord): [number, number] | null {
  const cross = (ox: number, oy: number, ux: number, uy: number, vx: number, vy: number): number =>
    (ux - ox) * (vy - oy) - (uy - oy) * (vx - ox);
  if (Math.hypot(p.bx - q.ax, p.by - q.ay) < near || Math.hypot(q.bx - p.ax, q.by - p.ay) < near) return null;
  const [a, b] = [cross(p.ax, p.ay, p.bx, p.by, q.ax, q.ay), cross(p.ax, p.ay, p.bx, p.by, q.bx, q.by)];
  const [c, d] = [cross(q.ax, q.ay, q.bx, q.by, p.ax, p.ay), cross(q.ax, q.ay, q.bx, q.by, p.bx, p.by)];
  const apart = (u: number, v: number): boolean => u > 0 === v > 0 && Math.min(Math.abs(u), Math.abs(v)) > onLine;
  if (apart(a, b) || apart(c, d)) return null;
  const t = a === b ? 0 : a / (a - b);
  return [q.ax + t * (q.bx - q.ax), q.ay + t * (q.by - q.ay)];
}

/** Where a profile's edges cross or touch other than end to end, or null. Arcs are looked at as 24 chords each. */
export function selfCrossing(profile: Profile): [number, number] | null {
  // From the left on, each is compared with those that begin before it ends.
  const chords = chordsOf(profile)
    .map((chord) => ({
      ...chord,
      left: Math.min(chord.ax, chord.bx),
      right: Math.max(chord.ax, chord.bx),
      low: Math.min(chord.ay, chord.by),
      high: Math.max(chord.ay, chord.by),
    }))
    .sort((a, b) => a.left - b.left);
  for (const [i, one] of chords.entries())
    for (let j = i + 1; j < chords.length && chords[j]!.left <= one.right + near; j++) {
      const other = chords[j]!;
      if (other.low > one.high + near || other.high < one.low - near) continue;
      const at = meeting(one, other);
      if (at) return at;
    }
  return null;
}
