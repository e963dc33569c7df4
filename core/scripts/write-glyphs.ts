/** Writes core/src/profile/glyphs.ts: letters of the shipped typeface as closed polylines, so that text can be cut without reading a font at run time. */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
// @ts-expect-error The package has no types of its own, and this script needs but two calls of it.
import opentype from 'opentype.js';

interface Command {
  type: 'M' | 'L' | 'C' | 'Q' | 'Z';
  x: number;
  y: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

const require = createRequire(import.meta.url);
const file = readFileSync(
  require.resolve('@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-600-normal.woff'),
);
const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength));
const letters =
  [...Array(95).keys()].map((i) => String.fromCharCode(32 + i)).join('') + 'ÄÖÜäöüßÉÈÊéèêÀÂàâÇçÑñØøÅåÆæŒœ×·–’“”°';
const capHeight: number = font.tables.os2.sCapHeight;

const glyphs: Record<string, { advance: number; loops: number[][] }> = {};
for (const letter of letters) {
  const glyph = font.charToGlyph(letter);
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
  for (const c of glyph.path.commands as Command[]) {
    const [px, py] = now.slice(-2) as [number, number];
    if (c.type === 'M') {
      close();
      add(c.x, c.y);
    } else if (c.type === 'L') add(c.x, c.y);
    else if (c.type === 'Z') close();
    else
      for (let k = 1; k <= 6; k++) {
        const t = k / 6;
        const u = 1 - t;
        if (c.type === 'Q')
          add(u * u * px + 2 * u * t * c.x1 + t * t * c.x, u * u * py + 2 * u * t * c.y1 + t * t * c.y);
        else
          add(
            u ** 3 * px + 3 * u * u * t * c.x1 + 3 * u * t * t * c.x2 + t ** 3 * c.x,
            u ** 3 * py + 3 * u * u * t * c.y1 + 3 * u * t * t * c.y2 + t ** 3 * c.y,
          );
      }
  }
  close();
  // charToGlyph draws in font units with y up.
  if (glyph.index !== 0 || letter === ' ') glyphs[letter] = { advance: glyph.advanceWidth, loops };
}
const lines = Object.entries(glyphs).map(
  ([letter, { advance, loops }]) => `  ${JSON.stringify(letter)}: ${JSON.stringify([advance, ...loops].join(';'))},`,
);
writeFileSync(
  new URL('../src/profile/glyphs.ts', import.meta.url),
  `/**
 * Letters of Barlow Semi Condensed 600 (© The Barlow Project Authors, SIL Open Font License 1.1), in font units, y up; made by core/scripts/write-glyphs.ts.
 * Of each: how far it advances; then its closed polylines x,y,x,y …, after a semicolon each. As text, for it is rarely needed, and text is loaded the fastest.
 */
export const capHeight = ${capHeight};

export const glyphs: Record<string, string> = {
${lines.join('\n')}
};
`,
);
