/** What is set out on the one face, as the other has it. */
import type { FaceName } from '@yard-arch/document';
import { directionsAt, hitsOn, pointAt, upright } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { turnedOver, type TurnedOver } from '../element/turned-over.ts';
import { backwards, type Outline } from '../profile/flatten.ts';
import type { Side } from '../profile/profile.ts';
import type { SectionLine } from '../profile/section.ts';
import type { Carrier, Placed } from './placed.ts';
import { micrometre, rounding } from '../tolerances.ts';

const mades = new WeakMap<Placed, { over: TurnedOver; placed: Placed }>();

/**
 * An opening as it lies on the face opposite to its own: mirrored, and from the other end; through the depth it is the same.
 * Its sides keep the names that they have on its own face. The same object for the same question, so that what is cut by it is kept.
 * @param sheet the element's sheet, of its outer face.
 */
export function across(sheet: Sheet, placed: Placed): Placed {
  const over = turnedOver(sheet);
  const known = mades.get(placed);
  if (known?.over === over) return known.placed;
  const made = acrossAnew(over, placed, sheet.thickness);
  mades.set(placed, { over, placed: made });
  return made;
}

/** An opening as it is seen on a face, whichever its own. */
export function seenOn(sheet: Sheet, placed: Placed, face: FaceName): Placed {
  return (placed.face ?? 'outer') === face ? placed : across(sheet, placed);
}

function acrossAnew(over: TurnedOver, placed: Placed, thickness: number): Placed {
  const to = placed.face === 'inner' ? over.toOuter : over.toInner;
  const { s, profile, outline, drift: [aside, rise] = [0, 0] } = placed;
  const bent = over.sheet.chart.kind === 'bent';
  const common = {
    ...placed,
    ...throughDepth(placed, thickness),
    face: placed.face === 'inner' ? ('outer' as const) : ('inner' as const),
    own: placed.own ?? placed.face ?? 'outer',
  };
  if (bent && placed.pattern.jambs === 'radial') {
    const left = Math.min(...outline.xs.map((x) => to(s + x)));
    const turned = (x: number): number => to(s + x) - left;
    const mapped = mirroredBy(outline, turned);
    const width = Math.max(...mapped.xs);
    return {
      ...common,
      sections: widened(common.sections, width / profile.width),
      s: left,
      outline: mapped,
      ...(placed.clear ? { clear: mirroredBy(placed.clear, turned) } : {}),
      profile: { ...profile, width, edges: [] },
    };
  }
  // Carried straight through the wall, it keeps its width; it is its middle that goes across.
  const near = s + profile.width / 2 + aside * thickness;
  const [middle, carrier] = bent ? squareThrough(over, placed, near) : [to(near), placed.carrier];
  return {
    ...common,
    s: middle - profile.width / 2,
    outline: fromBehind(outline),
    ...(placed.clear ? { clear: fromBehind(placed.clear, outline) } : {}),
    ...(carrier ? { carrier } : {}),
    ...(placed.drift ? { t: placed.t + rise * thickness, drift: [aside, 0 - rise] as const } : {}),
  };
}

/** Where on a bent sheet's other face the middle of an opening comes out, and how it is carried there: square to its own face, not to the other. */
function squareThrough(over: TurnedOver, { face, carrier }: Placed, middle: number): [number, Carrier | undefined] {
  const [from, to] =
    face === 'inner'
      ? [over.sheet.chart, turnedOver(over.sheet).sheet.chart]
      : [turnedOver(over.sheet).sheet.chart, over.sheet.chart];
  const guess = face === 'inner' ? over.toOuter(middle) : over.toInner(middle);
  if (from.kind !== 'bent' || to.kind !== 'bent') return [guess, undefined];
  const [x, y] = carrier ? [carrier.x, carrier.y] : pointAt(upright(from), middle, 0, 0);
  const { along, inward } = directionsAt(upright(from), middle);
  const [ahead, way] = carrier ? [carrier.along, carrier.way] : [along, inward];
  const hit = hitsOn(upright(to), 0, [x, y], [way[0], way[1]]).sort(
    (a, b) => Math.abs(a.s - guess) - Math.abs(b.s - guess),
  )[0];
  return [
    hit?.s ?? guess,
    {
      x,
      y,
      along: [0 - ahead[0], 0 - ahead[1]],
      way: [0 - way[0], 0 - way[1]],
      slope: carrier ? 0 - carrier.slope : 0,
    },
  ];
}

const reversals = new WeakMap<Placed['sections'], Map<string, Placed['sections']>>();

/** Depth, beginning and sections as counted from the other face. */
function throughDepth(
  { from = 0, depth, sections, kind }: Placed,
  thickness: number,
): Pick<Placed, 'from' | 'depth' | 'sections'> {
  // What is raised stands before its face, wherever that is.
  const raised = kind === 'boss' || kind === 'imprint';
  const begins = raised ? (from > 0 ? 0 : thickness) : thickness - from - depth;
  const key = `${thickness}`;
  let byKey = reversals.get(sections);
  if (!byKey) reversals.set(sections, (byKey = new Map()));
  let turned = byKey.get(key);
  if (!turned) {
    const lines = new Map<SectionLine, SectionLine>();
    const reversed = (line: SectionLine): SectionLine => {
      let made = lines.get(line);
      if (!made)
        lines.set(
          line,
          (made = {
            n: line.n.map((n) => thickness - n).reverse(),
            offset: [...line.offset].reverse(),
            smooth: [...line.smooth].reverse(),
          }),
        );
      return made;
    };
    turned = {
      sill: reversed(sections.sill),
      head: reversed(sections.head),
      'jamb-left': reversed(sections['jamb-left']),
      'jamb-right': reversed(sections['jamb-right']),
    };
    byKey.set(key, turned);
  }
  return { ...(Math.abs(begins) > rounding ? { from: begins } : { from: undefined }), depth, sections: turned } as Pick<
    Placed,
    'from' | 'depth' | 'sections'
  >;
}

/** Sections of jambs drawn out, where their outline is. */
function widened(sections: Placed['sections'], by: number): Placed['sections'] {
  const wide = (line: SectionLine): SectionLine =>
    line.offset.every((offset) => offset === 0) ? line : { ...line, offset: line.offset.map((offset) => offset * by) };
  return { ...sections, 'jamb-left': wide(sections['jamb-left']), 'jamb-right': wide(sections['jamb-right']) };
}

const mirrors = new WeakMap<Outline, Outline>();

/** An outline as it is seen from behind, the left end of the whole of which it is where that was; its sides keep their names. */
export function fromBehind(outline: Outline, whole = outline): Outline {
  let made = mirrors.get(outline);
  if (!made) {
    const right = Math.max(...whole.xs);
    const left = Math.min(...whole.xs);
    mirrors.set(outline, (made = mirroredBy(outline, (x) => right + left - x)));
    mirrors.set(made, outline);
  }
  return made;
}

/** An outline with its points gone over to a scale that runs the other way, turned round so that it runs as before; its sides keep their names. */
function mirroredBy({ count, xs, ys, next, side, arcs, loops }: Outline, to: (x: number) => number): Outline {
  const before = backwards(next);
  /** How much longer the other scale is about an edge. */
  const scale = (e: number): number => {
    const [a, b] = [xs[e]!, xs[next[e]!]!];
    return Math.abs(b - a) < rounding
      ? Math.abs(to(a + micrometre) - to(a)) / micrometre
      : Math.abs(to(b) - to(a)) / Math.abs(b - a);
  };
  return {
    count,
    xs: xs.map(to),
    ys: ys.slice(),
    next: before,
    loops,
    // Edge i leaves point i towards the point before it: it is the one that came from there.
    side: Array.from(before, (e): Side => side[e]!),
    arcs: Array.from(before, (e, i) => {
      const arc = arcs[e];
      if (!arc) return null;
      const k = scale(e);
      const normal = (x: number, y: number): [number, number] => {
        const [nx, ny] = [-x / k, y];
        const size = Math.hypot(nx, ny);
        return [nx / size, ny / size];
      };
      const [[ax, ay], [bx, by]] = [normal(arc.bx, arc.by), normal(arc.ax, arc.ay)];
      return { ax, ay, bx, by, seam: arcs[i]?.seam ?? false };
    }),
  };
}
