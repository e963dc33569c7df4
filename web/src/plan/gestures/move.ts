/** Dragging on the plan: a wall's ends, its bend, and whole elements. */
import { courseOf, sweepThrough, type Point } from '@yard-arch/core';
import { formatLength, parseLength, type Wall } from '@yard-arch/document';
import { bend, moveCorner, moveElements } from '@yard-arch/edit';
import type { Gesture, Press, Typing } from '../../boards/gesture.ts';
import { preview } from '../../state/store.ts';
import { snapInPlan } from '../snap-plan.ts';
import type { Outcome, PlanDesk } from './desk.ts';

/** What all drags have in common: shown while it is dragged, made when it is let go. */
export function dragged(
  desk: PlanDesk,
  own: Required<Pick<Gesture, 'move'>> & { made: () => Outcome | null; typing?: () => Typing | null },
): Gesture {
  return {
    begin: () => desk.show({ dragging: true }),
    move: own.move,
    drop: () => {
      const outcome = own.made();
      if (outcome) desk.make(outcome);
      else preview(null);
    },
    giveUp: () => preview(null),
    ...(own.typing ? { typing: own.typing } : {}),
  };
}

/** The length that a text begins with, metres, and what stands after a semicolon. */
function lengthIn(desk: PlanDesk, text: string): { length: number; second: string | undefined } | null {
  const [first = '', second] = text.split(';').map((part) => part.trim());
  const length = parseLength(first, desk.now.document.units);
  return length === null ? null : { length, second };
}

/** What is said of a text that is no length. */
export const notALength = 'Type a length, such as 4800 or 4.8 m.';

/** Drags a wall's end, with what meets it there; a figure typed meanwhile is the wall's length. */
export function movingEnd(desk: PlanDesk, wall: Wall, which: 'start' | 'end'): Gesture {
  let to: Point | null = null;
  const fixed = courseOf(wall)[which === 'start' ? 'end' : 'start'];
  return dragged(desk, {
    move: (spot) => {
      const snapped = snapInPlan({
        at: desk.on(spot),
        walls: desk.walls.filter(({ id }) => id !== wall.id),
        from: wall.sweep || wall.runs?.length ? null : fixed,
        reach: desk.reach,
        free: spot.free,
      });
      to = snapped.at;
      desk.show({ pointer: snapped });
      desk.preview(moveCorner(desk.now.document, wall, which, to));
    },
    made: () => to && moveCorner(desk.now.document, wall, which, to),
    typing: () => ({
      label: 'Length of the wall',
      hint: 'the other end stays',
      take: (text) => {
        const given = lengthIn(desk, text);
        if (!given || !to) return notALength;
        const towards = Math.atan2(to[1] - fixed[1], to[0] - fixed[0]);
        const at: Point = [fixed[0] + given.length * Math.cos(towards), fixed[1] + given.length * Math.sin(towards)];
        desk.make(moveCorner(desk.now.document, wall, which, at));
        return null;
      },
    }),
  });
}

/** Bends a wall, in steps of 15° or freely; a figure typed meanwhile is the angle by which it turns. */
export function bending(desk: PlanDesk, wall: Wall): Gesture {
  const { start, end } = courseOf(wall);
  let sweep: number | null = null;
  return dragged(desk, {
    move: (spot) => {
      const at = desk.on(spot);
      const exact = sweepThrough(start, end, at);
      sweep = spot.free ? Math.round(exact * 10) / 10 : Math.round(exact / 15) * 15;
      desk.show({ pointer: { at, reason: sweep === 0 ? 'straight' : `turns by ${sweep}°`, guide: null } });
      desk.preview(bend(wall, sweep));
    },
    made: () => (sweep === null ? null : bend(wall, sweep)),
    typing: () => ({
      label: 'Turns by, degrees',
      hint: 'degrees; 0 is straight',
      take: (text) => {
        const degrees = Number(text.replace('°', '').trim());
        if (!Number.isFinite(degrees)) return 'Type an angle in degrees, such as 90 or -45.';
        desk.make(bend(wall, degrees));
        return null;
      },
    }),
  });
}

/** Nearly straight moves are straight. */
function straightened([dx, dy]: Point): Point {
  if (Math.abs(dy) < Math.abs(dx) * 0.12) return [dx, 0];
  return Math.abs(dx) < Math.abs(dy) * 0.12 ? [0, dy] : [dx, dy];
}

/** Drags a whole element by half decimetres, or freely. */
export function moving(desk: PlanDesk, press: Press, element: string): Gesture {
  const began = desk.on(press);
  let by: Point | null = null;
  const moved = (to: Point): Outcome => {
    const { document } = desk.now;
    return moveElements(document, [document.elements[element]!], ...to);
  };
  return dragged(desk, {
    move: (spot) => {
      const at = desk.on(spot);
      const step = spot.free ? 1000 : 20;
      const exact: Point = [at[0] - began[0], at[1] - began[1]];
      const whole = exact.map((value) => Math.round(value * step) / step) as [number, number];
      by = spot.free ? whole : straightened(whole);
      const { units } = desk.now.document;
      const reason = `${formatLength(by[0], units)} along x, ${formatLength(by[1], units)} along y`;
      desk.show({ pointer: { at, reason, guide: null } });
      desk.preview(moved(by));
    },
    made: () => by && moved(by),
    typing: () => ({
      label: 'Move by',
      hint: 'or along x; along y',
      take: (text) => {
        const given = lengthIn(desk, text);
        if (!given || !by) return notALength;
        const { length, second } = given;
        const other = second === undefined ? null : parseLength(second, desk.now.document.units);
        if (second !== undefined && other === null) return 'After the semicolon stands how far along y.';
        const along = Math.abs(by[0]) >= Math.abs(by[1]);
        const one: Point = along ? [length * Math.sign(by[0] || 1), 0] : [0, length * Math.sign(by[1] || 1)];
        desk.make(moved(other === null ? one : [length, other]));
        return null;
      },
    }),
  });
}
