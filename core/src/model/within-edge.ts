/** What there is of an opening that runs over its element's edge: the outline in which something can stand. */
import { clip } from '../cut/clip.ts';
import type { Sheet, SheetOutline } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Side } from '../profile/profile.ts';
import type { Placed } from '../setout/resolve.ts';
import { micrometre } from '../tolerances.ts';
import { standing } from './planes-under.ts';

const known = new WeakMap<Outline, WeakMap<SheetOutline, Map<string, Outline>>>();

/**
 * An opening with the outline that is clear in it: below the base, over the top and beyond the ends there is nothing to stand in. The same opening where it lies on its element whole.
 * @param sheet of its element's outer face. @param own the opening on its own face
 */
export function withinEdge(sheet: Sheet, own: Placed): Placed {
  const { outline: edge } = own.face === 'inner' ? turnedOver(sheet).sheet : sheet;
  let bySheet = known.get(own.outline);
  if (!bySheet) known.set(own.outline, (bySheet = new WeakMap()));
  let byPlace = bySheet.get(edge);
  if (!byPlace) bySheet.set(edge, (byPlace = new Map()));
  const key = `${own.s} ${own.t}`;
  let outline = byPlace.get(key);
  if (!outline) byPlace.set(key, (outline = clipped(edge, own)));
  return outline === own.outline ? own : { ...own, clear: outline };
}

function clipped(edge: SheetOutline, own: Placed): Outline {
  const { outline, s, t } = own;
  const whole = standing(own);
  const { loops, openings } = clip(
    { xs: edge.xs, ys: edge.ys, next: edge.next, count: edge.xs.length },
    [whole],
    ['keep'],
  );
  const lost = Math.abs(areaOf(whole)) - (openings[1]?.area ?? 0);
  // A door that stands on the base only touches it.
  if (loops.length === 0 || lost < micrometre * Math.max(own.profile.width, own.profile.height)) return outline;
  const made: Outline = {
    count: 0,
    xs: new Float64Array(0),
    ys: new Float64Array(0),
    next: new Uint32Array(0),
    loops: [],
    side: [],
    arcs: [],
  };
  const [xs, ys, next]: [number[], number[], number[]] = [[], [], []];
  for (const loop of loops) {
    const first = xs.length;
    made.loops.push(first);
    loop.xs.forEach((x, i) => {
      const j = (i + 1) % loop.xs.length;
      const isOwn = loop.operand[i] === 1;
      xs.push(x - s);
      ys.push(loop.ys[i]! - t);
      next.push(first + j);
      made.side.push(isOwn ? outline.side[loop.source[i]!]! : sideOf(loop.xs[j]! - x, loop.ys[j]! - loop.ys[i]!));
      made.arcs.push(isOwn ? outline.arcs[loop.source[i]!]! : null);
    });
  }
  return {
    ...made,
    count: xs.length,
    xs: Float64Array.from(xs),
    ys: Float64Array.from(ys),
    next: Uint32Array.from(next),
  };
}

/** The side that an edge of what is left becomes, by the way it runs round it: counter-clockwise. */
const sideOf = (dx: number, dy: number): Side =>
  Math.abs(dx) >= Math.abs(dy) ? (dx > 0 ? 'sill' : 'head') : dy > 0 ? 'jamb-right' : 'jamb-left';

/** The area within closed loops, square metres. */
const areaOf = ({ xs, ys, next }: { xs: Float64Array; ys: Float64Array; next: Uint32Array }): number =>
  xs.reduce((sum, x, i) => sum + (x * ys[next[i]!]! - xs[next[i]!]! * ys[i]!) / 2, 0);
