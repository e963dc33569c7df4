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
    const [advance, ...loops] = glyphs[letter]!.split(';');
    read.set(letter, (glyph = { advance: Number(advance), loops: loops.map((loop) => loop.split(',').map(Number)) }));
  }
  return glyph;
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
