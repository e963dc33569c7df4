/** Dividing a field: where its members stand, and what lies between them. */
import type { Divided, Lights } from '@yard-arch/document';
import { millimetre, relative } from '../tolerances.ts';
import { extentOf, half, type Area } from './area.ts';

/** Why a field cannot be divided as it is asked to be, in words to follow an opening's mark. */
export class NotDivided extends Error {}

/** The middles of members that divide a length, from its start. @param room the length, and the members' width, metres. */
export function placesOf(lights: Lights, room: number, bar: number): number[] {
  if (lights.kind === 'at')
    return lights.places
      .map(({ from, value }) => (from === 'share' ? value * room : from === 'start' ? value : room - value))
      .sort((a, b) => a - b);
  // n lights and n − 1 members fill the room.
  const count =
    lights.kind === 'equal' ? lights.count : Math.max(1, Math.ceil((room + bar) / (lights.size + bar) - relative));
  const light = (room - (count - 1) * bar) / count;
  return Array.from({ length: count - 1 }, (_, i) => (i + 1) * light + (i + 0.5) * bar);
}

/** Members and lights of an area, from the left or from below. @throws NotDivided */
export function dividedInto(area: Area, { way, bar, lights }: Divided): { bars: Area[]; lights: Area[] } {
  const axis = way === 'mullions' ? 0 : 1;
  const what = bar ? (way === 'mullions' ? 'a mullion' : 'a transom') : 'a joint';
  const [from, to] = extentOf(area, axis);
  const width = bar?.width ?? 0;
  const places = placesOf(lights, to - from, width);
  const found: { bars: Area[]; lights: Area[] } = { bars: [], lights: [] };
  let rest: Area = area;
  let last = from;
  for (const place of places) {
    const [low, high] = [from + place - width / 2, from + place + width / 2];
    if (low < last + millimetre || high > to - millimetre)
      throw new NotDivided(`it leaves no light on one side of ${what}`);
    const light = cut(rest, { axis, at: low, beyond: false }, what);
    const onward = cut(rest, { axis, at: low, beyond: true }, what);
    found.lights.push(light);
    if (bar) found.bars.push(cut(onward, { axis, at: high, beyond: false }, what));
    rest = bar ? cut(onward, { axis, at: high, beyond: true }, what) : onward;
    last = high;
  }
  found.lights.push(rest);
  return found;
}

function cut(area: Area, { axis, at, beyond }: { axis: 0 | 1; at: number; beyond: boolean }, what: string): Area {
  const piece = half(area, axis, at, beyond);
  if (piece === 'apart') throw new NotDivided(`its outline comes apart where ${what} would stand`);
  if (!piece) throw new NotDivided(`there is nothing of it where ${what} would stand`);
  return piece;
}
