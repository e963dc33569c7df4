/** What there is of an opening that runs over its element's edge: the outline in which something can stand. */
import { clip } from '../cut/clip.ts';
import type { Sheet, SheetOutline } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import type { Outline } from '../profile/flatten.ts';
import { sideAlong } from '../profile/free.ts';
import { regionArea } from '../mesh/region.ts';
import type { Placed } from '../setout/placed.ts';
import { micrometre } from '../tolerances.ts';
import { outlineLeft } from './outline-left.ts';
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
  const { outline, profile } = own;
  const whole = standing(own);
  const count = edge.xs.length;
  const { loops, openings } = clip({ xs: edge.xs, ys: edge.ys, next: edge.next, count }, [whole], ['keep']);
  const lost = regionArea(whole) - openings[1]!.area;
  // A door that stands on the base only touches it.
  if (loops.length === 0 || lost < micrometre * Math.max(profile.width, profile.height)) return outline;
  return outlineLeft(loops, own, (operand, source, dx, dy) =>
    operand === 1
      ? { side: outline.side[source]!, arc: outline.arcs[source]! }
      : { side: sideAlong(dx, dy), arc: null },
  );
}
