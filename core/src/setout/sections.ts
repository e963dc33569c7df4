/** How deep a pattern cuts, and how the sides of its reveal depart from square over that depth. */
import type { Element, Pattern, Units } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import type { Impossible, Side } from '../profile/profile.ts';
import { sectionLine, squareSection, type SectionLine } from '../profile/section.ts';
import { nanometre } from '../tolerances.ts';
import { worded } from './placed.ts';

const sides: Side[] = ['sill', 'jamb-right', 'head', 'jamb-left'];
export type Sections = Readonly<Record<Side, SectionLine>> | Impossible;
const keptSections = new LRUCache<string, Sections>({ max: 4096 });
const lastSections = new WeakMap<Pattern, { depth: number; units: Units; slope: number | null; made: Sections }>();

/** The sections of a pattern's sides over a depth; the same object for the same question. @param slope of a face that rises, radians */
export function sectionsOf(
  pattern: Pattern,
  depth: number,
  { units, slope }: { units: Units; slope: number | null },
): Sections {
  const last = lastSections.get(pattern);
  if (last && last.depth === depth && last.units === units && last.slope === slope) return last.made;
  const made = sectionsByText(pattern, depth, units, slope);
  lastSections.set(pattern, { depth, units, slope, made });
  return made;
}

function sectionsByText(pattern: Pattern, depth: number, units: Units, slope: number | null): Sections {
  const sloping = slope !== null && !pattern.sections && (pattern.onSlope ?? 'level') === 'level';
  const key = JSON.stringify([pattern.sections, pattern.cut?.kind, depth, units, sloping && slope]);
  const found = keptSections.get(key);
  if (found) return found;
  const kind = pattern.cut?.kind ?? 'through';
  const use =
    kind === 'niche' || kind === 'niche to layer'
      ? 'niche'
      : kind === 'boss' || kind === 'keep inside'
        ? 'raised'
        : 'through';
  const made = {} as Record<Side, SectionLine>;
  const square = squareSection(depth);
  let outcome: Sections = made;
  const byText = new Map<string, SectionLine>();
  for (const side of sides) {
    const section = pattern.sections?.[side];
    if (!section) {
      made[side] = sloping ? slopedSection(side, depth, slope, square) : square;
      continue;
    }
    // Sides with one and the same section share it, so that neighbours are known to move alike.
    const text = JSON.stringify(section);
    const line = byText.get(text) ?? sectionLine(section, depth, use, (metres) => worded(metres, units));
    if ('reason' in line) {
      outcome = { reason: `${sideWords[side]}: ${line.reason}`, mend: line.mend };
      break;
    }
    byText.set(text, line);
    made[side] = line;
  }
  keptSections.set(key, outcome);
  return outcome;
}

/** A side of a reveal in a slope whose head is level and whose sill is plumb: both draw away from the outline as they go in. */
function slopedSection(side: Side, depth: number, slope: number, square: SectionLine): SectionLine {
  const away = side === 'head' ? 1 / Math.tan(slope) : side === 'sill' ? Math.tan(slope) : 0;
  return away === 0 ? square : { n: [0, depth], offset: [0, away * depth], smooth: [false, false] };
}

/** What a side is called in a sentence. */
export const sideWords: Record<Side, string> = {
  sill: 'sill',
  head: 'head',
  'jamb-left': 'left jamb',
  'jamb-right': 'right jamb',
};

/** How deep a pattern cuts into a build-up (metres), or why it cannot. */
export function depthOf(pattern: Pattern, layers: Element['layers'], units: Units): number | Impossible {
  const thickness = layers.reduce((sum, layer) => sum + layer.thickness, 0);
  const cut = pattern.cut ?? { kind: 'through' as const };
  if (cut.kind === 'niche') {
    if (cut.depth >= thickness - nanometre)
      return {
        reason: `a niche ${worded(cut.depth, units)} deep goes through an element ${worded(thickness, units)} thick`,
        mend: `Make it less than ${worded(thickness, units)} deep, or let it cut through.`,
      };
    return cut.depth;
  }
  if (cut.kind === 'niche to layer') {
    if (cut.layers >= layers.length)
      return {
        reason: `it is to stop behind ${cut.layers} layer${cut.layers === 1 ? '' : 's'}, and the element has ${layers.length} in all`,
        mend:
          layers.length > 1
            ? `Let it stop behind ${layers.length - 1} at most, or cut through.`
            : 'Let it cut through, or to a depth.',
      };
    return layers.slice(0, cut.layers).reduce((sum, layer) => sum + layer.thickness, 0);
  }
  return cut.kind === 'boss' ? cut.height : thickness;
}
