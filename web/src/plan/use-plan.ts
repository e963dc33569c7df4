/** What the pointer and keys do on the plan. */
import { alongCourse, courseOf, sweepLeaving, sweepThrough, tidy, type Point } from '@yard-arch/core';
import {
  extentOf,
  formatLength,
  parseLength,
  type ChangeSet,
  type ProjectDocument,
  type Wall,
  isInPlan,
} from '@yard-arch/document';
import {
  bend,
  drawWall,
  faceOutward,
  isSingle,
  join,
  likeOf,
  moveCorner,
  moveElements,
  removeElement,
  reverse,
  split,
  wallsOf,
} from '@yard-arch/edit';
import { useRef, useState, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import { complain } from '../common/notices.tsx';
import { choose, chooseElement, underDialog } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';
import { useOnceAFrame } from '../boards/use-board.ts';
import type { Viewport } from '../boards/viewport.ts';
import { snapInPlan, type SnappedInPlan } from './snap-plan.ts';

type Outcome = ChangeSet | { reason: string; mend: string };

/** A chain that is being drawn: where it goes on, the direction there, and the walls that it has. */
interface Chain {
  first: Point;
  at: Point;
  leaves: number | null;
  walls: string[];
}

type Gesture =
  | { kind: 'pan'; x: number; y: number; from: Viewport; moved: boolean }
  | { kind: 'end'; x: number; y: number; wall: Wall; which: 'start' | 'end'; moved: boolean; to: Point | null }
  | { kind: 'bend'; x: number; y: number; wall: Wall; moved: boolean; sweep: number | null }
  | { kind: 'move'; x: number; y: number; element: string; moved: boolean; by: Point | null };

interface PlanSheet {
  svg: RefObject<SVGSVGElement | null>;
  view: Viewport;
  setView: (view: Viewport | null) => void;
  document: ProjectDocument;
}

export function usePlan({ svg, view, setView, document }: PlanSheet) {
  const element = useEditor((state) => state.element);
  const [mode, change] = useState<'choose' | 'draw' | 'split'>('choose');
  const [arc, setArc] = useState(false);
  const [chain, setChain] = useState<Chain | null>(null);
  const [pointer, setPointer] = useState<SnappedInPlan | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [dragging, setDragging] = useState(false);
  const gesture = useRef<Gesture | null>(null);
  const frames = useOnceAFrame();

  const chosen = element ? document.elements[element] : undefined;
  const wall = chosen && isInPlan(chosen) ? chosen : null;
  const reach = 9 / view.scale;
  const walls = wallsOf(document);

  const setMode = (next: typeof mode): void => {
    change(next);
    setChain(null);
    setPointer(null);
    setTold(null);
  };

  /** Makes an edit, or says why it cannot be. */
  const make = (outcome: Outcome): boolean => {
    if ('reason' in outcome) {
      preview(null);
      complain(
        'That cannot be done',
        `${outcome.reason.charAt(0).toUpperCase()}${outcome.reason.slice(1)}. ${outcome.mend}`,
      );
      return false;
    }
    return commit(outcome);
  };

  const at = (event: { clientX: number; clientY: number }): [number, number] => {
    const bounds = svg.current!.getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  };
  const toPlan = (x: number, y: number): Point => [(x - view.x) / view.scale, (view.y - y) / view.scale];

  /** The sweep of the segment that is being drawn. */
  const sweep = (): number =>
    arc && chain && pointer
      ? Math.round((chain.leaves === null ? 90 : sweepLeaving(chain.at, chain.leaves, pointer.at)) * 1e6) / 1e6
      : 0;

  const snapFrom = (p: Point, free: boolean): SnappedInPlan => {
    const closing =
      chain && chain.walls.length > 1 && Math.hypot(p[0] - chain.first[0], p[1] - chain.first[1]) < reach * 1.4;
    if (closing) return { at: chain.first, reason: 'closes the ring', guide: null };
    // An arc ends anywhere; its direction follows from where it began.
    return snapInPlan({ at: p, walls, from: arc && chain?.leaves !== null ? null : (chain?.at ?? null), reach, free });
  };

  /** Goes on with the chain to a point. */
  const drawTo = (to: Point): void => {
    if (!chain) return setChain({ first: to, at: to, leaves: null, walls: [] });
    if (Math.hypot(to[0] - chain.at[0], to[1] - chain.at[1]) < 0.01) return;
    const { changeSet, id } = drawWall(
      document,
      chain.at,
      to,
      arc ? Math.round((chain.leaves === null ? 90 : sweepLeaving(chain.at, chain.leaves, to)) * 1e6) / 1e6 : 0,
      likeOf(document, element),
    );
    const made = (changeSet.changes.at(-1) as { value: Wall }).value;
    const ids = [...chain.walls, id];
    const closes = chain.walls.length > 0 && Math.hypot(to[0] - chain.first[0], to[1] - chain.first[1]) < 1e-6;
    const ring = closes ? ids.map((one) => (one === id ? made : (document.elements[one] as Wall | undefined))) : [];
    const outward = ring.length > 0 && ring.every((one) => one !== undefined) ? faceOutward(ring as Wall[]) : [];
    const closing =
      outward.length > 0
        ? { name: 'close the ring of walls, facing outward', changes: [...changeSet.changes.slice(0, -1), ...outward] }
        : { ...changeSet, name: closes ? 'close the ring of walls' : changeSet.name };
    if (!commit(closing)) return;
    chooseElement(id);
    choose({ kind: 'wall' });
    setPointer(null);
    if (closes) setMode('choose');
    else setChain({ ...chain, at: to, leaves: courseOf(made).reaches, walls: ids });
  };

  /** How far along the chosen wall a point is, at the nearest place of its face. */
  const alongAt = (p: Point): number => {
    if (!wall) return 0;
    const { length } = extentOf(wall);
    let best = 0;
    let near = Infinity;
    for (let i = 0; i <= 400; i++) {
      const s = (length * i) / 400;
      const [x, y] = alongCourse(wall, s).at;
      const far = Math.hypot(x - p[0], y - p[1]);
      if (far < near) [best, near] = [s, far];
    }
    return best;
  };
  const splitPlace = (p: Point, free: boolean): number => {
    const s = alongAt(p);
    const { length } = extentOf(wall!);
    if (free) return s;
    const apex = wall!.top.kind === 'gabled' ? wall!.top.at * length : length / 2;
    return Math.abs(s - apex) < reach * 1.5 ? apex : Math.round(s * 100) / 100;
  };

  /** Where the chosen wall can be taken hold of. */
  const grips = (): { kind: 'start' | 'end' | 'bend'; at: Point }[] => {
    const shown = (useEditor.getState().draft ?? document).elements[element ?? ''];
    if (!shown || !isInPlan(shown)) return [];
    const { start, end } = courseOf(shown);
    if (Math.hypot(start[0] - end[0], start[1] - end[1]) < 1e-6) return [];
    return [
      { kind: 'start', at: start },
      { kind: 'end', at: end },
      ...(isSingle(shown) && !shown.batter
        ? [{ kind: 'bend' as const, at: alongCourse(shown, extentOf(shown).length / 2).at }]
        : []),
    ];
  };

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button > 1 || typed !== null) return;
    const [x, y] = at(event);
    const target = event.target as globalThis.Element;
    svg.current!.setPointerCapture(event.pointerId);
    // Whatever is drawn from now on, the plan stays where it is.
    setView(view);
    if (event.button === 1) return void (gesture.current = { kind: 'pan', x, y, from: view, moved: false });
    if (mode === 'draw') return drawTo((pointer ?? snapFrom(toPlan(x, y), event.altKey)).at);
    if (mode === 'split' && wall) {
      const outcome = split(document, wall, splitPlace(toPlan(x, y), event.altKey));
      if ('reason' in outcome) make(outcome);
      else if (commit(outcome.changeSet)) chooseElement(outcome.id);
      return setMode('choose');
    }
    const grip = target.closest('[data-grip]')?.getAttribute('data-grip');
    if (wall && (grip === 'start' || grip === 'end'))
      gesture.current = { kind: 'end', x, y, wall, which: grip, moved: false, to: null };
    else if (wall && grip === 'bend') gesture.current = { kind: 'bend', x, y, wall, moved: false, sweep: null };
    else {
      const id = target.closest('[data-element]')?.getAttribute('data-element');
      if (id && document.elements[id]) {
        chooseElement(id);
        choose({ kind: 'wall' });
        gesture.current = { kind: 'move', x, y, element: id, moved: false, by: null };
      } else gesture.current = { kind: 'pan', x, y, from: view, moved: false };
    }
  };

  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (typed !== null) return;
    const [x, y] = at(event);
    const free = event.altKey;
    frames.ask(() => follow(x, y, free));
  };

  const show = (outcome: Outcome): void => {
    if ('reason' in outcome) return setTold(outcome.reason);
    setTold(null);
    preview(outcome);
  };

  const follow = (x: number, y: number, free: boolean): void => {
    const now = gesture.current;
    const p = toPlan(x, y);
    if (!now) {
      if (mode === 'draw') setPointer(snapFrom(p, free));
      if (mode === 'split' && wall) {
        const s = splitPlace(p, free);
        setPointer({
          at: alongCourse(wall, s).at,
          reason: `${formatLength(s, document.units)} from the start`,
          guide: null,
        });
      }
      return;
    }
    if (!now.moved && Math.hypot(x - now.x, y - now.y) < 4) return;
    now.moved = true;
    if (now.kind === 'pan') return setView({ ...now.from, x: now.from.x + x - now.x, y: now.from.y + y - now.y });
    setDragging(true);
    if (now.kind === 'end') {
      const course = courseOf(now.wall);
      const snapped = snapInPlan({
        at: p,
        walls: walls.filter(({ id }) => id !== now.wall.id),
        from: now.wall.sweep || now.wall.runs?.length ? null : course[now.which === 'start' ? 'end' : 'start'],
        reach,
        free,
      });
      now.to = snapped.at;
      setPointer(snapped);
      show(moveCorner(document, now.wall, now.which, snapped.at));
    } else if (now.kind === 'bend') {
      const { start, end } = courseOf(now.wall);
      const exact = sweepThrough(start, end, p);
      now.sweep = free ? Math.round(exact * 10) / 10 : Math.round(exact / 15) * 15;
      setPointer({ at: p, reason: now.sweep === 0 ? 'straight' : `turns by ${now.sweep}°`, guide: null });
      show(bend(now.wall, now.sweep));
    } else {
      const [dx, dy] = [(x - now.x) / view.scale, (now.y - y) / view.scale];
      const step = free ? 1000 : 20;
      now.by = [Math.round(dx * step) / step, Math.round(dy * step) / step];
      // Nearly straight moves are straight.
      if (!free && Math.abs(now.by[1]) < Math.abs(now.by[0]) * 0.12) now.by = [now.by[0], 0];
      else if (!free && Math.abs(now.by[0]) < Math.abs(now.by[1]) * 0.12) now.by = [0, now.by[1]];
      setPointer({
        at: p,
        reason: `${formatLength(now.by[0], document.units)} along x, ${formatLength(now.by[1], document.units)} along y`,
        guide: null,
      });
      show(moveElements(document, [document.elements[now.element]!], ...now.by));
    }
  };

  const give = (): void => {
    gesture.current = null;
    setTyped(null);
    setDragging(false);
    setTold(null);
    if (mode !== 'draw') setPointer(null);
    preview(null);
  };

  const onPointerUp = (): void => {
    const now = gesture.current;
    if (!now || typed !== null) return;
    gesture.current = null;
    frames.drop();
    setDragging(false);
    setTold(null);
    if (mode !== 'draw') setPointer(null);
    if (now.kind === 'pan' && !now.moved) choose({ kind: 'wall' });
    if (!now.moved) return;
    if (now.kind === 'end' && now.to) make(moveCorner(document, now.wall, now.which, now.to));
    else if (now.kind === 'bend' && now.sweep !== null) make(bend(now.wall, now.sweep));
    else if (now.kind === 'move' && now.by) make(moveElements(document, [document.elements[now.element]!], ...now.by));
  };

  const takeTyped = (text: string): string | null => {
    const [first = '', second] = text.split(';').map((part) => part.trim());
    const length = parseLength(first, document.units);
    if (length === null) return 'Type a length, such as 4800 or 4.8 m.';
    const now = gesture.current;
    if (mode === 'draw' && chain) {
      const towards = pointer ? Math.atan2(pointer.at[1] - chain.at[1], pointer.at[0] - chain.at[0]) : 0;
      const degrees =
        second === undefined
          ? (Math.round((towards * 180) / Math.PI / 15) * 15 * Math.PI) / 180
          : (Number(second.replace('°', '')) * Math.PI) / 180;
      if (!Number.isFinite(degrees)) return 'After the semicolon stands a direction in degrees, such as 90.';
      if (length <= 0) return 'A wall is longer than 0.';
      setTyped(null);
      drawTo([tidy(chain.at[0] + length * Math.cos(degrees)), tidy(chain.at[1] + length * Math.sin(degrees))]);
      return null;
    }
    if (now?.kind === 'move' && now.by) {
      const other = second === undefined ? null : parseLength(second, document.units);
      if (second !== undefined && other === null) return 'After the semicolon stands how far along y.';
      const along = Math.abs(now.by[0]) >= Math.abs(now.by[1]);
      const by: Point =
        other !== null
          ? [length, other]
          : along
            ? [length * Math.sign(now.by[0] || 1), 0]
            : [0, length * Math.sign(now.by[1] || 1)];
      give();
      make(moveElements(document, [document.elements[now.element]!], ...by));
    } else if (now?.kind === 'end' && now.to) {
      const course = courseOf(now.wall);
      const fixed = course[now.which === 'start' ? 'end' : 'start'];
      const towards = Math.atan2(now.to[1] - fixed[1], now.to[0] - fixed[0]);
      give();
      make(
        moveCorner(document, now.wall, now.which, [
          fixed[0] + length * Math.cos(towards),
          fixed[1] + length * Math.sin(towards),
        ]),
      );
    } else give();
    return null;
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || underDialog(event.key)) return;
    const { key } = event;
    const step = event.shiftKey ? 1 : event.altKey ? 0.01 : 0.1;
    const ways: Record<string, Point> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    if (
      /^[\d.-]$/.test(key) &&
      ((mode === 'draw' && chain) || (gesture.current?.moved && gesture.current.kind !== 'pan'))
    )
      setTyped(key);
    else if (key === 'Escape') {
      if (gesture.current) give();
      else if (mode === 'draw' && chain) {
        setChain(null);
        setPointer(null);
      } else setMode('choose');
    } else if (key === 'Enter' && mode === 'draw') setMode('choose');
    else if (key.toLowerCase() === 'w') setMode(mode === 'draw' ? 'choose' : 'draw');
    else if (key.toLowerCase() === 'a' && mode === 'draw') setArc(!arc);
    else if (key === '0') setView(null);
    else if (ways[key] && chosen) make(moveElements(document, [chosen], ...ways[key]));
    else if ((key === 'Delete' || key === 'Backspace') && chosen) commit(removeElement(document, chosen));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return {
    mode,
    setMode,
    arc,
    setArc,
    drawing: chain,
    pointer,
    told,
    typed,
    dragging,
    wall,
    grips,
    sweep,
    takeTyped,
    give,
    joinOn: () => wall && make(join(document, wall)),
    turnOver: () => wall && make(reverse(document, wall)),
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel: give,
      onPointerLeave: () => !gesture.current && typed === null && setPointer(null),
      onKeyDown,
    },
  };
}
