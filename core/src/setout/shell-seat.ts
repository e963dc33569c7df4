/** How openings of shells lie: square to the back where they stand, level across; and how that is seen from above, where they are set out. */
import { formOf, type Element } from '@yard-arch/document';
import { turnedOut } from '../element/chart.ts';
import { shellPoint, type ShellBody } from '../element/shell-sheets.ts';
import type { Outline } from '../profile/flatten.ts';
import { cross, dot, type Vector } from '../vector.ts';
import { carried } from './project.ts';
import type { Placed } from './placed.ts';

/** Whether an element is turned about an upright axis. */
export function isTurned(element: Element): boolean {
  const form = formOf(element);
  return form.form === 'shell' && form.of === 'dome';
}

/** Whether an opening goes in square to the back: in domes unless its pattern says plumb, in bays where it says square. */
export const goesSquare = (element: Element, { pattern: { onSlope } }: Placed): boolean =>
  isTurned(element) ? onSlope !== 'plumb' : onSlope === 'square';

/** Where an opening's middle is on the back: in space, with the directions of what lies there, and in plan as the shell has it. Null beside the back, and at the very top. */
export function liesOn(
  { shell, frame }: ShellBody,
  { s, t, profile }: Placed,
): { at: Vector; along: Vector; up: Vector; normal: Vector; place: readonly [number, number] } | null {
  const [left, foot] = [Math.min(...shell.outline.map(([x]) => x)), Math.min(...shell.outline.map(([, y]) => y))];
  const [x, y] = [left + s + profile.width / 2, foot + t + profile.height / 2];
  const there = shell.backAt(x, y);
  if (!there) return null;
  const normal = turnedOut(frame, there.normal) as Vector;
  const flat = Math.hypot(normal[0], normal[1]);
  if (flat < 1e-3) return null;
  // Level, so that up goes up the slope.
  const along: Vector = [-normal[1] / flat, normal[0] / flat, 0];
  return {
    at: shellPoint({ frame }, [x, y, there.z]),
    along,
    up: cross(normal, along),
    normal,
    place: [x, y],
  };
}

/** An opening as it is seen from above where it lies: turned, and the shorter the steeper the shell is there. What goes straight down is as it is set out. */
export function seenFromAbove(element: Element, body: ShellBody, placed: Placed): Placed {
  const lies = goesSquare(element, placed) ? liesOn(body, placed) : null;
  if (!lies) return placed;
  const { x, y } = body.frame;
  const [ax, ay, bx, by] = [dot(lies.along, x), dot(lies.along, y), dot(lies.up, x), dot(lies.up, y)];
  // Where it stands all but upright it would be seen from its edge.
  if (ax * by - ay * bx < 0.05) return placed;
  const { width, height } = placed.profile;
  const { outline, left, low } = turnedOnce(placed.outline, [ax, ay, bx, by]);
  const [middle, half] = [placed.s + width / 2, placed.t + height / 2];
  const to = (u: number, v: number): [number, number] => [
    middle + (u - width / 2) * ax + (v - height / 2) * bx,
    half + (u - width / 2) * ay + (v - height / 2) * by,
  ];
  const [ox, oy] = to(0, 0);
  const [sx, sy] = to(width / 2, 0);
  return {
    ...placed,
    outline,
    s: ox + left,
    t: oy + low,
    profile: { width: Math.max(...outline.xs), height: Math.max(...outline.ys), springing: null, edges: [] },
    leans: [ax, ay, bx, by, sx, sy],
  };
}

interface Turned {
  outline: Outline;
  left: number;
  low: number;
}
const known = new WeakMap<Outline, Map<string, Turned>>();

/** An outline under a map, from 0 on; the very same for the same question. */
export function turnedOnce(outline: Outline, map: readonly [number, number, number, number]): Turned {
  let byMap = known.get(outline);
  if (!byMap) known.set(outline, (byMap = new Map()));
  const key = map.join(' ');
  let made = byMap.get(key);
  if (!made) {
    const [ax, ay, bx, by] = map;
    const turned = carried(outline, { ax, ay, bx, by }, true);
    const [left, low] = [Math.min(...turned.xs), Math.min(...turned.ys)];
    for (let i = 0; i < turned.count; i++) {
      turned.xs[i]! -= left;
      turned.ys[i]! -= low;
    }
    byMap.set(key, (made = { outline: turned, left, low }));
  }
  return made;
}
