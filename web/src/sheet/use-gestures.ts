/** What the pointer does on the sheet: choosing, windows, dragging openings and lines, placing by click or by a drawn rectangle, measuring, panning. */
import {
  axisFrom,
  axisOn,
  boxOf,
  gripOffset,
  snap,
  snapPoint,
  type Box,
  type Hold,
  type SnappedPoint,
} from '@yard-arch/core';
import {
  parseLength,
  putting,
  sizeLabel,
  type ChangeSet,
  type Element,
  type FaceName,
  type Opening,
  type ProjectDocument,
  isUpright,
} from '@yard-arch/document';
import {
  copyBy,
  floorBelow,
  type Line,
  moveAll,
  moveLine,
  moveTo,
  openingsOf,
  placeOpening,
  sizeForRectangle,
  wouldBe,
} from '@yard-arch/edit';
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type PointerEvent, type RefObject } from 'react';
import { choose, chooseOpening, chooseOpenings } from '../state/choice.ts';
import { chosenIds, useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';
import { complain, notify } from '../common/notices.tsx';
import type { OnElement, SheetLines } from '../boards/sheet-data.ts';
import type { Ghost, Rectangle, Tape } from '../boards/drawn.ts';
import { useOnceAFrame } from '../boards/use-board.ts';
import { sOf, tOf, type Viewport } from '../boards/viewport.ts';

/** How far the pointer pulls towards a line, pixels. */
export const reachPixels = 8;

type Gesture =
  | { kind: 'pan'; x: number; y: number; from: Viewport; to: Viewport; moved: boolean }
  | {
      kind: 'drag';
      x: number;
      y: number;
      openings: Opening[];
      box: Box;
      others: Box[];
      copy: boolean;
      alone: boolean;
      moved: boolean;
      last: Ghost | null;
    }
  | { kind: 'line'; x: number; y: number; line: Line; at: number; moved: boolean; last: number | null }
  | { kind: 'window'; x: number; y: number; more: boolean; moved: boolean; last: Rectangle | null }
  | { kind: 'draw'; x: number; y: number; free: boolean; moved: boolean; last: Rectangle | null };

/** How far beyond the sheet's edges openings are drawn, pixels, so that it can be panned a little without drawing anew. */
export const spare = 300;

/** Where a line is: its level, or how far along a face, metres. */
export const placeOn = (line: Line, document: ProjectDocument, element: Element, face: FaceName): number =>
  line.kind === 'datum' ? line.datum.level : axisOn(document, element, line.axis.along, face);

/** What a line that is there on a face is to be told. */
export const placeFrom = (
  line: Line,
  at: number,
  document: ProjectDocument,
  element: Element,
  face: FaceName,
): number => (line.kind === 'datum' ? at : Math.round(axisFrom(document, element, at, face) * 1e6) / 1e6);

interface Sheet {
  svg: RefObject<SVGSVGElement | null>;
  /** All that is drawn: while it is panned it is only shifted, and drawn anew at the end. */
  board: RefObject<SVGGElement | null>;
  element: Element;
  face: FaceName;
  committed: ProjectDocument;
  shown: OnElement;
  lines: SheetLines;
  view: Viewport;
  /** Pans; null shows the whole face. */
  setView: (view: Viewport | null) => void;
  lineAt: (target: globalThis.Element) => Line | null;
}

export function useGestures({ svg, board, element, face, committed, shown, lines, view, setView, lineAt }: Sheet) {
  const placing = useEditor((state) => state.placing);
  const grip = useEditor((state) => state.grip);
  const taping = useEditor((state) => state.taping);
  const sliding = useEditor((state) => state.sliding);
  const chosen = useEditor((state) => state.chosen);
  const gesture = useRef<Gesture | null>(null);
  const frames = useOnceAFrame();
  const [panning, setPanning] = useState(false);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const [dragged, setDragged] = useState<{ box: Box; at: Ghost } | null>(null);
  const [area, setArea] = useState<{ kind: 'window' | 'draw'; at: Rectangle; reason: string | null } | null>(null);
  const [tape, setTape] = useState<Tape | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const space = useRef(false);

  useEffect(() => {
    if (!placing) setGhost(null);
  }, [placing]);
  useEffect(() => {
    if (!taping) setTape(null);
  }, [taping]);
  useEffect(() => {
    const key = (event: globalThis.KeyboardEvent): void => {
      if (event.key === ' ') space.current = event.type === 'keydown';
    };
    window.addEventListener('keydown', key);
    window.addEventListener('keyup', key);
    return () => {
      window.removeEventListener('keydown', key);
      window.removeEventListener('keyup', key);
    };
  }, []);

  const at = (event: { clientX: number; clientY: number }): [number, number] => {
    const bounds = svg.current!.getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  };
  const drawn = useRef(view);
  /** Shifts what is drawn to where it would be in a view. */
  const shift = (to: Viewport): void =>
    board.current?.setAttribute('transform', `translate(${to.x - drawn.current.x} ${to.y - drawn.current.y})`);
  useLayoutEffect(() => {
    drawn.current = view;
    const now = gesture.current;
    // Drawn anew in the middle of a pan it may have been left behind by then.
    if (now?.kind === 'pan' && now.moved) shift(now.to);
    else board.current?.removeAttribute('transform');
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [view]);
  const reach = reachPixels / view.scale;
  const pattern = placing ? committed.patterns[placing.pattern] : undefined;
  /** What would be placed, and its box; null where its size makes no opening. */
  const candidate = useMemo(() => {
    const resolved = placing ? wouldBe(committed, element, placing, face) : null;
    return resolved && 'outline' in resolved ? resolved : null;
  }, [committed, element, placing, face]);
  const placingBox = candidate && boxOf(candidate, '');
  // What nothing pulls lands on whole millimetres.
  const whole = (value: number): number => Math.round(value * 1000) / 1000;

  const snapped = (box: Box, others: readonly Box[], free: boolean): Ghost => {
    if (free) return { s: box.s, t: box.t, along: null, up: null };
    const result = snap(box, others, lines, reach);
    return { ...result, s: result.along ? result.s : whole(result.s), t: result.up ? result.t : whole(result.t) };
  };

  /** What would be placed with its grip at a point; what stands on the floor is drawn to the floor. */
  const ghostAt = (s: number, t: number, free: boolean): Ghost | null => {
    if (!placingBox) return null;
    const [dx, dy] = gripOffset(placingBox, grip);
    const spot = snapped({ ...placingBox, s: s - dx, t: t - dy }, shown.boxes, free);
    if (!pattern?.onFloor || free || !isUpright(element)) return spot;
    const floor = floorBelow(committed, element, t - dy + placingBox.height / 2);
    return {
      ...spot,
      t: floor.t,
      up: { at: floor.t, reason: `stands on ${floor.name}`, hold: { up: floor.up, level: 'sill' } },
    };
  };

  const putDown = (spot: Ghost): void => {
    if (!placing) return;
    const { changeSet, id } = placeOpening(committed, element, placing, { ...spot, face, holds: holdsOf(spot) }, grip);
    if (commit(changeSet)) useEditor.setState({ chosen: { kind: 'openings', ids: [id] } });
  };

  /** Places an opening in a rectangle that was drawn out: of the size that is nearest, or of a new one. */
  const putInto = (rectangle: Rectangle, free: boolean): void => {
    if (!placing || !pattern) return;
    const found = sizeForRectangle(
      committed,
      pattern,
      placing.size,
      rectangle.width,
      rectangle.height,
      free ? 0.0005 : Math.max(0.05, reach),
    );
    if ('reason' in found) return complain('No opening of that size', `${sentence(found.reason)}. ${found.mend}`);
    const wide = found.made ? { ...pattern, sizes: { ...pattern.sizes, [found.made.id]: found.made } } : pattern;
    const document = found.made ? { ...committed, patterns: { ...committed.patterns, [pattern.id]: wide } } : committed;
    const next = { pattern: pattern.id, size: found.size };
    const fitted = wouldBe(document, element, next, face);
    if (!('outline' in fitted)) return;
    // The corner where the drawing began stays; what the size takes more or less is at the other end.
    const s = rectangle.s + (rectangle.width - fitted.profile.width) / 2;
    const made = placeOpening(document, element, next, { s: whole(s), t: rectangle.t, face }, grip);
    const label = sizeLabel(wide, wide.sizes[found.size]!, committed.units);
    const changeSet: ChangeSet = found.made
      ? {
          name: `${made.changeSet.name}, of a new size ${label}`,
          changes: [putting('patterns', wide), ...made.changeSet.changes],
        }
      : made.changeSet;
    if (!commit(changeSet)) return;
    useEditor.setState({ chosen: { kind: 'openings', ids: [made.id] }, placing: next });
    notify(found.made ? `${pattern.name} has a new size, ${label}` : `Placed in the nearest size, ${label}`);
  };

  const movedBy = (
    now: Extract<Gesture, { kind: 'drag' }>,
    ds: number,
    dt: number,
  ): { changeSet: ChangeSet; ids: string[] } =>
    now.copy
      ? copyBy(committed, now.openings, ds, dt, 1, 'linked', face)
      : { changeSet: moveAll(committed, now.openings, ds, dt, 'move', face), ids: now.openings.map(({ id }) => id) };

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button > 1) return;
    if (typed !== null) return endGesture(false);
    const [x, y] = at(event);
    const [s, t] = [sOf(view, x), tOf(view, y)];
    if (event.button === 1 || space.current || sliding) {
      svg.current!.setPointerCapture(event.pointerId);
      gesture.current = { kind: 'pan', x, y, from: view, to: view, moved: false };
      return;
    }
    if (taping) {
      const point = event.altKey ? { s, t, reason: null } : snapPoint(s, t, shown.boxes, lines, reach);
      return setTape((before) =>
        before && !before.laid ? { ...before, to: point, laid: true } : { from: point, to: point, laid: false },
      );
    }
    svg.current!.setPointerCapture(event.pointerId);
    if (placing) {
      gesture.current = { kind: 'draw', x, y, free: event.altKey, moved: false, last: null };
      return;
    }
    const target = event.target as globalThis.Element;
    const line = lineAt(target);
    if (line) {
      choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
      gesture.current = {
        kind: 'line',
        x,
        y,
        line,
        at: placeOn(line, committed, element, face),
        moved: false,
        last: null,
      };
      return;
    }
    // A crowd is one figure: which of it is meant is told by the place.
    const id =
      target.closest('[data-opening]')?.getAttribute('data-opening') ??
      (target.closest('[data-crowd]') ? openingAt(shown.boxes, s, t) : undefined);
    const box = shown.boxes.find((candidate) => candidate.id === id);
    if (!id || !box || !committed.openings[id]) {
      gesture.current = { kind: 'window', x, y, more: event.shiftKey, moved: false, last: null };
      return;
    }
    const before = chosenIds(chosen);
    if (event.shiftKey) {
      chooseOpening(id, true);
      return;
    }
    // One of several that are chosen takes the others with it; a plain click chooses it alone.
    const several = before.includes(id) && before.length > 1;
    if (!several) chooseOpening(id);
    const ids = several ? before : [id];
    gesture.current = {
      kind: 'drag',
      x,
      y,
      openings: openingsOf(committed, ids),
      box,
      others: shown.boxes.filter((other) => !ids.includes(other.id)),
      copy: event.ctrlKey || event.metaKey,
      alone: several,
      moved: false,
      last: null,
    };
  };

  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (typed !== null) return;
    const { clientX, clientY, altKey } = event;
    frames.ask(() => follow(...at({ clientX, clientY }), altKey));
  };

  const follow = (x: number, y: number, free: boolean): void => {
    const now = gesture.current;
    const [s, t] = [sOf(view, x), tOf(view, y)];
    if (!now) {
      if (placing) setGhost(ghostAt(s, t, free));
      else if (taping)
        setTape((before) =>
          before && !before.laid
            ? { ...before, to: free ? { s, t, reason: null } : snapPoint(s, t, shown.boxes, lines, reach) }
            : before,
        );
      return;
    }
    if (!now.moved && Math.hypot(x - now.x, y - now.y) < 4) return;
    now.moved = true;
    switch (now.kind) {
      case 'pan':
        setPanning(true);
        now.to = { ...now.from, x: now.from.x + x - now.x, y: now.from.y + y - now.y };
        shift(now.to);
        // What lies far out of sight has not been drawn.
        if (Math.hypot(now.to.x - drawn.current.x, now.to.y - drawn.current.y) > spare * 0.8) setView(now.to);
        break;
      case 'line': {
        const by = now.line.kind === 'datum' ? (now.y - y) / view.scale : (x - now.x) / view.scale;
        // By whole centimetres, or freely.
        const step = free ? 1000 : 100;
        now.last = Math.round((now.at + by) * step) / step;
        preview(moveLine(committed, now.line, placeFrom(now.line, now.last, committed, element, face)));
        break;
      }
      case 'window':
      case 'draw': {
        const corner = (px: number, py: number): SnappedPoint => {
          const [cs, ct] = [sOf(view, px), tOf(view, py)];
          return now.kind === 'window' || free
            ? { s: cs, t: ct, reason: null }
            : snapPoint(cs, ct, shown.boxes, lines, reach);
        };
        const [a, b] = [corner(now.x, now.y), corner(x, y)];
        now.last = {
          s: Math.min(a.s, b.s),
          t: Math.min(a.t, b.t),
          width: Math.abs(a.s - b.s),
          height: Math.abs(a.t - b.t),
        };
        setGhost(null);
        setArea({ kind: now.kind, at: now.last, reason: b.reason });
        break;
      }
      case 'drag': {
        const moved = { ...now.box, s: now.box.s + (x - now.x) / view.scale, t: now.box.t - (y - now.y) / view.scale };
        now.last = snapped(moved, now.copy ? shown.boxes : now.others, free);
        setDragged({ box: now.box, at: now.last });
        preview(movedBy(now, now.last.s - now.box.s, now.last.t - now.box.t).changeSet);
      }
    }
  };

  const endGesture = (keep: boolean) => {
    const now = gesture.current;
    gesture.current = null;
    frames.drop();
    setPanning(false);
    setDragged(null);
    setArea(null);
    setTyped(null);
    if (!now) return;
    if (now.kind === 'pan') {
      // Where it has been shifted to it stays, however it ends.
      if (now.moved) setView(now.to);
    } else if (now.kind === 'drag') {
      if (now.moved && keep && now.last)
        finishDrag(now, now.last.s - now.box.s, now.last.t - now.box.t, holdsOf(now.last));
      else preview(null);
      if (!now.moved && keep && now.alone) chooseOpening(now.box.id);
    } else if (now.kind === 'line') {
      if (now.moved && keep && now.last !== null)
        commit(moveLine(committed, now.line, placeFrom(now.line, now.last, committed, element, face)));
      else preview(null);
    } else if (now.kind === 'window') {
      if (!keep) return;
      if (!now.moved || !now.last) {
        if (!now.more) choose({ kind: 'wall' });
        return;
      }
      const { s, t, width, height } = now.last;
      const within = shown.boxes
        .filter((box) => box.s < s + width && box.s + box.width > s && box.t < t + height && box.t + box.height > t)
        .map(({ id }) => id);
      chooseOpenings([...(now.more ? chosenIds(chosen) : []), ...within]);
    } else if (now.kind === 'draw' && keep) {
      if (now.moved && now.last && now.last.width * view.scale > 12 && now.last.height * view.scale > 12)
        return putInto(now.last, now.free);
      const spot = ghostAt(sOf(view, now.x), tOf(view, now.y), now.free);
      if (spot) putDown(spot);
      else
        complain(
          'This size cannot be placed',
          'Its dimensions make no opening. Change the size in the pattern’s particulars.',
        );
    }
  };

  const finishDrag = (
    now: Extract<Gesture, { kind: 'drag' }>,
    ds: number,
    dt: number,
    holds: readonly Hold[] = [],
  ): void => {
    const [only, second] = now.openings;
    // One that is moved by itself is held to what it came into line with; several keep what they are held to.
    if (only && !second && !now.copy) {
      commit(moveTo(committed, only, { s: now.box.s + ds, t: now.box.t + dt, face, holds }));
      return;
    }
    const { changeSet, ids } = movedBy(now, ds, dt);
    if (!commit(changeSet) || !now.copy) return;
    useEditor.setState({ lastCopy: { ds, dt } });
    chooseOpenings(ids);
  };

  /** What figures typed meanwhile mean: how far a drag goes, or where the grip of what is placed comes to stand. */
  const typing = (): { label: string; hint: string } | null => {
    const now = gesture.current;
    if (now?.kind === 'drag' && now.moved && now.last) {
      const along = Math.abs(now.last.s - now.box.s) >= Math.abs(now.last.t - now.box.t);
      return { label: along ? 'Move along by' : 'Move up by', hint: 'or along; up' };
    }
    return placing && ghost ? { label: 'From the start', hint: 'or along; up from the base' } : null;
  };

  const takeTyped = (text: string): string | null => {
    const parts = text.split(';').map((part) => parseLength(part.trim(), committed.units));
    if (parts.some((part) => part === null) || parts.length > 2)
      return 'Type a length, or two with a semicolon between: 1200; 900';
    const [a, b] = parts as [number, number | undefined];
    const now = gesture.current;
    if (now?.kind === 'drag' && now.last) {
      const [ds, dt] = [now.last.s - now.box.s, now.last.t - now.box.t];
      const along = Math.abs(ds) >= Math.abs(dt);
      // A figure without a sign goes the way in which the drag was going.
      const way = (value: number, towards: number): number =>
        text.trim().startsWith('-') ? value : value * (towards < 0 ? -1 : 1);
      const [x, y] = b !== undefined ? [a, b] : along ? [way(a, ds), 0] : [0, way(a, dt)];
      gesture.current = null;
      endGesture(false);
      finishDrag(now, x, y);
      return null;
    }
    if (placing && ghost && placingBox) {
      const [dx, dy] = gripOffset(placingBox, grip);
      setTyped(null);
      putDown({ s: a - dx, t: b === undefined ? ghost.t : b - dy, along: null, up: null });
    }
    return null;
  };

  return {
    gesture,
    ghost,
    setGhost,
    ghostAt,
    putDown,
    dragged,
    area,
    panning,
    tape,
    setTape,
    typed,
    setTyped,
    typing,
    takeTyped,
    endGesture,
    candidate,
    placingBox,
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp: () => typed === null && endGesture(true),
      onPointerCancel: () => endGesture(false),
      onPointerLeave: () => typed === null && setGhost(null),
    },
  };
}

/** What an opening at a spot is held to from then on. */
const holdsOf = ({ along, up }: Ghost): Hold[] => [along?.hold, up?.hold].filter((hold) => hold !== undefined);

function openingAt(boxes: readonly Box[], s: number, t: number): string | undefined {
  return boxes.find((box) => box.s <= s && s <= box.s + box.width && box.t <= t && t <= box.t + box.height)?.id;
}

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
