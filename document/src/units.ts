/** Lengths as people write them: read into metres, and written from metres. */
import type { Units } from './schema.ts';

const inch = 0.0254;
const foot = 12 * inch;
const perUnit: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1, '"': inch, in: inch, "'": foot, ft: foot };

/** The finest fraction of an inch that is written: a thirty-second. */
const finest = 32;

function parseFraction(text: string): number {
  // "7", "7.5", "1/8", "7 1/8" and "7-1/8"
  const mixed = /^(?:(\d+(?:\.\d+)?))?(?:(?:\s+|-|^)(\d+)\/(\d+))?$/.exec(text.trim());
  if (!mixed || (mixed[1] === undefined && mixed[2] === undefined)) return NaN;
  const whole = mixed[1] === undefined ? 0 : Number(mixed[1]);
  const part = mixed[2] === undefined ? 0 : Number(mixed[2]) / Number(mixed[3]);
  return whole + part;
}

/**
 * Reads a length: `1400`, `1 400`, `1.4 m`, `1400 mm`, `140 cm`, `4' 7 1/8"`, `4 ft 7 in`, `7/8"`, with a sign before it or none.
 * A bare number is in the project's units; in feet and inches it is inches.
 * @returns metres, or null when the text is not a length.
 */
export function parseLength(text: string, units: Units): number | null {
  let rest = text
    .replace(/[’′]/g, "'")
    .replace(/[”″]/g, '"')
    .replace(/''/g, '"')
    .replace(/−/g, '-')
    .replace(/[\u00a0\u2009\u202f]/g, ' ')
    .trim()
    .toLowerCase();
  const sign = rest.startsWith('-') ? -1 : 1;
  rest = rest.replace(/^[-+]\s*/, '');
  if (rest === '') return null;

  const imperial = /^(?:(\d+(?:\.\d+)?)\s*(?:'|ft))?\s*-?\s*(?:([\d./\s-]+?)\s*(?:"|in))?$/.exec(rest);
  if (imperial && (imperial[1] !== undefined || imperial[2] !== undefined)) {
    const feet = imperial[1] === undefined ? 0 : Number(imperial[1]);
    const inches = imperial[2] === undefined ? 0 : parseFraction(imperial[2]);
    const metres = sign * (feet * foot + inches * inch);
    return Number.isFinite(metres) ? metres : null;
  }
  const feetThenBare = /^(\d+)\s*(?:'|ft)\s*([\d./\s-]+)$/.exec(rest);
  if (feetThenBare) {
    const metres = sign * (Number(feetThenBare[1]) * foot + parseFraction(feetThenBare[2] ?? '') * inch);
    return Number.isFinite(metres) ? metres : null;
  }
  const metric = /^(\d[\d ]*(?:[.,]\d+)?|[.,]\d+)\s*(mm|cm|m)?$/.exec(rest);
  if (metric) {
    const digits = (metric[1] ?? '').trim();
    // Spaces group thousands ("1 400"); anything else with a space in it is two numbers.
    if (digits.includes(' ') && !/^\d{1,3}( \d{3})+([.,]\d+)?$/.test(digits)) return null;
    const value = Number(digits.replace(/ /g, '').replace(',', '.'));
    const scale = perUnit[metric[2] ?? (units === 'ft-in' ? 'in' : units)] ?? NaN;
    const metres = sign * value * scale;
    // Kill the noise of decimal scaling (1.4 * 0.001 …) far below anything that can be built.
    return Number.isFinite(metres) ? Number(metres.toPrecision(15)) : null;
  }
  if (units === 'ft-in') {
    const metres = sign * parseFraction(rest) * inch;
    return Number.isFinite(metres) ? metres : null;
  }
  return null;
}

function grouped(digits: string): string {
  return digits.replace(/\B(?=(\d{3})+(?!\d))/g, '\u00a0');
}

/** Writes a length (metres) in the project's units, to the nearest 0.1 mm, 0.1 mm or 1/32 inch; no unit is added to mm and m. */
export function formatLength(metres: number, units: Units): string {
  if (!Number.isFinite(metres)) return '—';
  const sign = metres < 0 ? '−' : '';
  const size = Math.abs(metres);
  if (units === 'm') return withSign(sign, (Math.round(size * 10_000) / 10_000).toFixed(4).replace(/0$/, ''));
  if (units === 'mm') {
    const [whole = '0', part] = String(Math.round(size * 10_000) / 10).split('.');
    return withSign(sign, grouped(whole) + (part ? `.${part}` : ''));
  }
  const ticks = Math.round((size / inch) * finest);
  const feet = Math.floor(ticks / (12 * finest));
  const inches = Math.floor((ticks - feet * 12 * finest) / finest);
  let top = ticks % finest;
  let bottom = finest;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top > 0 ? `${top}/${bottom}` : '';
  const inchText = [inches > 0 || !fraction ? String(inches) : '', fraction].filter(Boolean).join(' ');
  return withSign(sign, feet > 0 ? `${feet}' ${inchText}"` : `${inchText}"`);
}

function withSign(sign: string, text: string): string {
  return /[1-9]/.test(text) ? sign + text : text;
}

/** The name of the units, to stand beside a bare number. */
export function unitsLabel(units: Units): string {
  return units === 'ft-in' ? 'ft and in' : units;
}
