/** Writes core/src/profile/glyphs.ts: letters of the shipped typeface as closed paths, so that text can be cut without reading a font at run time. */
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

const glyphs: Record<string, string> = {};
for (const letter of letters) {
  const glyph = font.charToGlyph(letter);
  // charToGlyph draws in font units with y up.
  if (glyph.index === 0 && letter !== ' ') continue;
  const path = (glyph.path.commands as Command[])
    .map(({ type, x, y, x1, y1, x2, y2 }) =>
      type === 'Z'
        ? 'Z'
        : `${type}${(type === 'C' ? [x1, y1, x2, y2, x, y] : type === 'Q' ? [x1, y1, x, y] : [x, y]).join(' ')}`,
    )
    .join('');
  glyphs[letter] = `${glyph.advanceWidth}${path}`;
}
const lines = Object.entries(glyphs).map(([letter, text]) => `  ${JSON.stringify(letter)}: ${JSON.stringify(text)},`);
writeFileSync(
  new URL('../src/profile/glyphs.ts', import.meta.url),
  `/**
 * Letters of Barlow Semi Condensed 600 (© The Barlow Project Authors, SIL Open Font License 1.1), in font units, y up; made by core/scripts/write-glyphs.ts.
 * Of each: how far it advances; then its closed paths, in the letters of SVG: M and L to a point, Q and C by control points, Z. As text, for it is rarely needed, and text is loaded the fastest.
 */
export const capHeight = ${capHeight};

export const glyphs: Record<string, string> = {
${lines.join('\n')}
};
`,
);
