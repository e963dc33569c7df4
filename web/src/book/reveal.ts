/** The reveal on a pattern's detail sheet: how each of its parts runs through the wall, and the figures that stand by it. No page in it. */
import { offsetAt, sectionLine, type SectionLine, type Study } from '@yard-arch/core';
import { limits, type Section } from '@yard-arch/document';
import { changePattern, type FigureChoice } from '@yard-arch/edit';
import { revealParts, withSection, type RevealPart } from '../particulars/SectionFields.tsx';
import type { Span, Told } from './detail.ts';

/** How a part of the reveal runs, and the figures of its section. */
export interface RevealDrawn {
  part: RevealPart;
  label: string;
  /** Its section over the depth of the cut; what it opens wider is told from the profile. */
  line: SectionLine;
  /** Its depths one after the other, from the face on which it is told; none where nothing happens on the way. */
  depths: Span[];
  /** What it opens wider, from one offset to another, and at which depth that is measured. */
  steps: (Span & { at: number })[];
}

/** The parts of a pattern's reveal as they are drawn. */
export function revealsOf({ placed }: Study, told: Told): RevealDrawn[] {
  return revealParts.map(({ name, label, sides }) => {
    const section = told.pattern.sections?.[sides[0]!] ?? {};
    const { depth } = placed;
    return {
      part: name,
      label,
      line: placed.sections[sides[0]!],
      depths: depthsOf(name, section, depth, told),
      steps: stepsOf(name, section, depth, told),
    };
  });
}

type Edit = NonNullable<Span['edit']>;

/** A figure of a section, typed anew for all sizes. @param to the section with that figure, or why there is none. */
function edited(part: RevealPart, what: string, { pattern }: Told, to: (value: number) => Section | string): Edit {
  const apply: FigureChoice['apply'] = (value) => {
    const section = to(value);
    if (typeof section === 'string') return { reason: section, mend: 'Type a smaller one.' };
    return changePattern(pattern, { sections: withSection(pattern, part, section) }, 'change the section of');
  };
  const label = `${what} of the ${part}`;
  return { what: `reveal/${part}/${what}`, label, choices: () => [{ label: 'for all sizes', apply }] };
}

/** What happens on the way through: checks and the seat, in order of depth. */
function depthsOf(part: RevealPart, section: Section, depth: number, told: Told): Span[] {
  const { checks = [], seat } = section;
  const stops = [
    ...checks.map((check, i) => ({
      at: check.depth,
      what: 'Check',
      to: (value: number): Section => ({
        ...section,
        checks: checks.map((other, k) => (k === i ? { ...other, depth: value } : other)),
      }),
    })),
    ...(seat === undefined
      ? []
      : [{ at: seat, what: 'Seat', to: (value: number): Section => ({ ...section, seat: value || undefined }) }]),
  ]
    .filter(({ at }) => at > 0 && at < depth)
    .sort((a, b) => a.at - b.at);
  const spans = stops.map(({ at, what, to }, i): Span => {
    const from = stops[i - 1]?.at ?? 0;
    const edit = edited(part, what, told, (value) =>
      from + value > depth ? 'it would lie beyond the cut' : to(from + value),
    );
    return { from, to: at, edit };
  });
  return spans.length > 0 ? [...spans, { from: stops.at(-1)!.at, to: depth, edit: null }] : [];
}

const inRadians = (degrees = 0): number => (degrees * Math.PI) / 180;

/** The degrees by which a splay opens so much over a depth. */
const splay = (run: number, over: number): number => Number(((Math.atan2(run, over) * 180) / Math.PI).toFixed(6));

/** The steps of its checks, and how far its splays run. */
function stepsOf(part: RevealPart, section: Section, depth: number, told: Told): RevealDrawn['steps'] {
  // Arrises are no step of its own.
  const bare = sectionLine({ ...section, arris: undefined, innerArris: undefined }, depth, 'through', String);
  if ('reason' in bare) return [];
  const { checks = [], seat, splayOutside = 0, splayInside = 0 } = section;
  const steps = checks.map((check, i) => {
    const [from, to] = [offsetAt(bare, check.depth, -1), offsetAt(bare, check.depth, 1)];
    const { most } = limits.checkStep;
    const edit = edited(part, 'Step', told, (value) =>
      value > most
        ? 'a check steps by a metre at most'
        : {
            ...section,
            checks: checks.map((other, k) => (k === i ? { ...other, step: value * (check.step < 0 ? -1 : 1) } : other)),
          },
    );
    return { from, to, at: check.depth, edit };
  });
  const runs = [
    { name: 'splayOutside' as const, degrees: splayOutside, over: seat ?? depth, at: 0, side: 1 as const },
    { name: 'splayInside' as const, degrees: splayInside, over: depth - (seat ?? 0), at: depth, side: -1 as const },
  ]
    .filter(({ degrees, over }) => degrees !== 0 && over > 0)
    .map(({ name, degrees, over, at, side }) => {
      const to = offsetAt(bare, at, side);
      const edit = edited(part, name === 'splayInside' ? 'Splay in' : 'Splay out', told, (value) => {
        const angle = splay(value * Math.sign(degrees), over);
        return Math.abs(angle) > limits.splay.most ? 'it would splay by more than 80°' : { ...section, [name]: angle };
      });
      return { from: to - over * Math.tan(inRadians(degrees)), to, at, edit };
    });
  return [...steps, ...runs].filter(({ from, to }) => Math.abs(to - from) > 1e-4);
}

/** Where the outline of an opening is met above a place along it, and whether it is level there. */
export interface Met {
  t: number;
  level: boolean;
}

/** The head and the sill of an opening at a distance along it, from its lower left corner; null beside it. */
export function metAt({ placed: { outline } }: Study, s: number): { head: Met; sill: Met } | null {
  const found: Met[] = [];
  for (let i = 0; i < outline.count; i++) {
    const j = outline.next[i]!;
    const [ax, ay, bx, by] = [outline.xs[i]!, outline.ys[i]!, outline.xs[j]!, outline.ys[j]!];
    if (ax > s === bx > s) continue;
    found.push({ t: ay + ((s - ax) * (by - ay)) / (bx - ax), level: Math.abs(by - ay) < 1e-6 });
  }
  found.sort((a, b) => a.t - b.t);
  return found.length > 1 ? { head: found.at(-1)!, sill: found[0]! } : null;
}
