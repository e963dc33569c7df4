/** Text as a profile: letters of the shipped typeface, their counters left standing as islands. */
import { loopsProfile, sideOf } from './free.ts';
import { capHeight, glyphs } from './glyphs.ts';
import { line } from './panels.ts';
import type { Impossible, Profile, ProfileEdge } from './profile.ts';

/** The profile of a line of text with capitals so high (metres), or why it cannot be cut. */
export function textProfile(text: string, height: number): Profile | Impossible {
  const scale = height / capHeight;
  const outer: ProfileEdge[][] = [];
  const islands: ProfileEdge[][] = [];
  let at = 0;
  for (const letter of text) {
    const glyph = glyphOf(letter);
    if (!glyph)
      return {
        reason: `the typeface has no “${letter}”`,
        mend: 'Write it with Latin letters, figures and common signs.',
      };
    for (const loop of glyph.loops) {
      const points = Array.from({ length: loop.length / 2 }, (_, i): [number, number] => [
        (loop[2 * i]! + at) * scale,
        loop[2 * i + 1]! * scale,
      ]);
      const within = glyph.loops.filter((other) => other !== loop && holds(other, loop[0]!, loop[1]!)).length;
      const island = within % 2 === 1;
      if (area(points) > 0 === island) points.reverse();
      (island ? islands : outer).push(
        points.map(([ax, ay], i) => {
          const [bx, by] = points[(i + 1) % points.length]!;
          const e = line('sill', ax, ay, bx, by);
          return { ...e, side: sideOf(e) };
        }),
      );
    }
    at += glyph.advance;
  }
  if (outer.length === 0) return { reason: 'its text is blank', mend: 'Write at least one letter.' };
  return loopsProfile([...outer, ...islands], null, null);
}

interface Glyph {
  /** How far the next letter stands from it, font units. */
  advance: number;
  /** Closed polylines x, y, x, y …, font units. */
  loops: readonly (readonly number[])[];
}

const read = new Map<string, Glyph>();

/** A letter of the typeface, or undefined where it has none. */
function glyphOf(letter: string): Glyph | undefined {
  if (!Object.hasOwn(glyphs, letter)) return undefined;
  let glyph = read.get(letter);
  if (!glyph) {
    const [advance = '', ...steps] = glyphs[letter]!.split(/(?=[MLQCZ])/);
    read.set(letter, (glyph = { advance: Number(advance), loops: loopsAlong(steps) }));
  }
  return glyph;
}

/** Into how many chords a curve of a letter is divided. */
const chords = 6;

/** Closed polylines along a path. @param steps each a letter of SVG's and its figures */
function loopsAlong(steps: readonly string[]): number[][] {
  const loops: number[][] = [];
  let now: number[] = [];
  const add = (x: number, y: number): void => {
    const [px, py] = now.slice(-2);
    if (px !== x || py !== y) now.push(Math.round(x * 10) / 10, Math.round(y * 10) / 10);
  };
  const close = (): void => {
    if (now.length >= 2 && now[0] === now.at(-2) && now[1] === now.at(-1)) now.splice(-2);
    if (now.length >= 6) loops.push(now);
    now = [];
  };
  for (const step of steps) {
    const [px, py] = now.slice(-2) as [number, number];
    const figures = step.slice(1).split(' ').map(Number);
    const [x, y] = figures.slice(-2) as [number, number];
    if (step.startsWith('M')) close();
    if (step.startsWith('Z')) close();
    else if (step.startsWith('Q') || step.startsWith('C'))
      for (let k = 1; k <= chords; k++) {
        const t = k / chords;
        const u = 1 - t;
        const [x1, y1, x2, y2] = figures as [number, number, number, number];
        if (step.startsWith('Q')) add(u * u * px + 2 * u * t * x1 + t * t * x, u * u * py + 2 * u * t * y1 + t * t * y);
        else
          add(
            u ** 3 * px + 3 * u * u * t * x1 + 3 * u * t * t * x2 + t ** 3 * x,
            u ** 3 * py + 3 * u * u * t * y1 + 3 * u * t * t * y2 + t ** 3 * y,
          );
      }
    else add(x, y);
  }
  close();
  return loops;
}

function area(points: readonly (readonly [number, number])[]): number {
  let twice = 0;
  points.forEach(([ax, ay], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    twice += ax * by - bx * ay;
  });
  return twice / 2;
}

/** Whether a loop x, y, x, y … goes round a point, by the even-odd rule. */
function holds(loop: readonly number[], x: number, y: number): boolean {
  let inside = false;
  const n = loop.length / 2;
  for (let i = 0, j = n - 1; i < n; j = i++) {
    const [xi, yi, xj, yj] = [loop[2 * i]!, loop[2 * i + 1]!, loop[2 * j]!, loop[2 * j + 1]!];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}
