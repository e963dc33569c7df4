/** The sheet: the chosen wall's outer face as a drawing, on which openings are placed, dragged and dimensioned. */
import { datumsOn, resolveOpening, sheetOf, snap, type Box, type Guide, type Lines, type Placed } from '@yard-arch/core';
import { extentOf, formatLength, type Element, type Opening, type ProjectDocument } from '@yard-arch/document';
import { Plus } from 'lucide-react';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { blockUp, moveOpening, placeOpening, profileOfOpening, removeOpening } from '../editor/edits.ts';
import { addAxis, addDatum, heldTo, moveLine, removeLine, type Line } from '../editor/line-edits.ts';
import { choose, chooseOpening, commit, place, preview, useEditor } from '../editor/store.ts';
import { complain } from '../common/notices.tsx';
import { FigureField } from './FigureField.tsx';
import { OpeningShape, pathOf } from './OpeningShape.tsx';
import { SettingOutLines } from './SettingOutLines.tsx';
import { Strings, type EditedFigure } from './Strings.tsx';
import { TitleBlock } from './TitleBlock.tsx';
import { fit, sOf, tOf, xOf, yOf, zoom, type Viewport } from './viewport.ts';

/** Where a line is: its level, or how far along, metres. */
const placeOf = (line: Line): number => (line.kind === 'datum' ? line.datum.level : line.axis.along);

/** How far the pointer pulls towards a line, pixels. */
const reachPixels = 8;

interface Ghost {
  s: number;
  t: number;
  along: Guide | null;
  up: Guide | null;
}

type Gesture =
  | { kind: 'pan'; x: number; y: number; from: Viewport; moved: boolean }
  | { kind: 'drag'; x: number; y: number; opening: Opening; box: Box; moved: boolean; last: Ghost | null }
  | { kind: 'line'; x: number; y: number; line: Line; at: number; moved: boolean; last: number | null };

export function Sheet({ element }: { element: Element }) {
  const tall = useMemo(() => sheetOf(element).height, [element]);
  const { length } = useMemo(() => extentOf(element), [element]);
  const document = useEditor((state) => state.draft ?? state.document)!;
  const committed = useEditor((state) => state.document)!;
  const chosen = useEditor((state) => state.chosen);
  const placing = useEditor((state) => state.placing);
  const drawn = useEditor((state) => state.drawn.get(element.id));
  const statuses = useEditor((state) => state.statuses);

  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const [view, setView] = useState<Viewport>({ x: 0, y: 0, scale: 1 });
  const [own, setOwn] = useState(false);
  const gesture = useRef<Gesture | null>(null);
  const [panning, setPanning] = useState(false);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const [dragged, setDragged] = useState<Ghost | null>(null);
  const [figure, setFigure] = useState<EditedFigure | null>(null);

  useLayoutEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }));
    if (frame.current) watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const showWhole = useCallback(() => {
    setOwn(false);
    if (room.width > 0) setView(fit(room.width, room.height, length, tall));
  }, [room, length, tall]);
  // The whole face is shown until one zooms or pans; another wall is shown whole again.
  useLayoutEffect(() => setOwn(false), [element.id]);
  useLayoutEffect(() => {
    if (!own) showWhole();
  }, [own, showWhole]);
  useEffect(() => {
    // Arrow keys and Enter place too, so the sheet takes the focus.
    if (placing) svg.current?.focus({ preventScroll: true });
    else setGhost(null);
  }, [placing]);

  const { placed, boxes, opening: openings } = useMemo(() => onElement(document, element), [document, element]);
  const lines = useMemo(() => linesOf(document, element), [document, element]);
  const chosenBox = chosen.kind === 'opening' ? (boxes.find((box) => box.id === chosen.id) ?? null) : null;
  const chosenOpening = chosen.kind === 'opening' ? committed.openings[chosen.id] : undefined;
  const ghostProfile = placing ? profileOfOpening(document, placing) : null;
  const ghostOutline = useMemo(() => (placing && ghostProfile ? outlineFor(document, element, placing) : null), [document, element, placing, ghostProfile]);

  const at = (event: { clientX: number; clientY: number }): [number, number] => {
    const bounds = svg.current!.getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  };

  const snapped = (box: Box, free: boolean): Ghost => {
    if (free) return { s: box.s, t: box.t, along: null, up: null };
    const result = snap(box, boxes, lines, reachPixels / view.scale);
    // What nothing pulls lands on whole millimetres.
    const whole = (value: number): number => Math.round(value * 1000) / 1000;
    return { ...result, s: result.along ? result.s : whole(result.s), t: result.up ? result.t : whole(result.t) };
  };

  const ghostAt = (s: number, t: number, free: boolean): Ghost | null => {
    if (!ghostProfile) return null;
    const { width, height, springing } = ghostProfile;
    return snapped({ id: '', mark: '', s: s - width / 2, t: t - height / 2, width, height, springing }, free);
  };

  const putDown = (spot: Ghost): void => {
    if (!placing) return;
    const { changeSet, id } = placeOpening(committed, element, placing, spot.s, spot.t);
    if (commit(changeSet)) useEditor.setState({ chosen: { kind: 'opening', id } });
  };

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button > 1) return;
    const [x, y] = at(event);
    const id = (event.target as globalThis.Element).closest('[data-opening]')?.getAttribute('data-opening');
    if (placing && event.button === 0) {
      const spot = ghostAt(sOf(view, x), tOf(view, y), event.altKey);
      if (spot) putDown(spot);
      else complain('This size cannot be placed', 'Its dimensions make no opening. Change the size in the pattern’s particulars.');
      return;
    }
    svg.current!.setPointerCapture(event.pointerId);
    const line = lineAt(event.target as globalThis.Element);
    if (line && event.button === 0) {
      choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
      gesture.current = { kind: 'line', x, y, line, at: placeOf(line), moved: false, last: null };
      return;
    }
    const opening = id ? committed.openings[id] : undefined;
    const box = boxes.find((candidate) => candidate.id === id);
    if (opening && box && event.button === 0) {
      chooseOpening(opening.id);
      gesture.current = { kind: 'drag', x, y, opening, box, moved: false, last: null };
    } else gesture.current = { kind: 'pan', x, y, from: view, moved: false };
  };

  /** The datum or axis that something on the sheet belongs to. */
  const lineAt = (target: globalThis.Element): Line | null => {
    const [kind, id = ''] = (target.closest('[data-line]')?.getAttribute('data-line') ?? '').split(' ');
    const [datum, axis] = [committed.datums[id], committed.axes[id]];
    return kind === 'datum' && datum ? { kind, datum } : kind === 'axis' && axis ? { kind, axis } : null;
  };

  const waiting = useRef<number | null>(null);
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    const [x, y] = at(event);
    const free = event.altKey;
    // At most once a frame, whatever the pointer's rate.
    if (waiting.current !== null) cancelAnimationFrame(waiting.current);
    waiting.current = requestAnimationFrame(() => {
      waiting.current = null;
      const now = gesture.current;
      if (placing && !now) return setGhost(ghostAt(sOf(view, x), tOf(view, y), free));
      if (!now) return;
      if (!now.moved && Math.hypot(x - now.x, y - now.y) < 4) return;
      now.moved = true;
      if (now.kind === 'pan') {
        setPanning(true);
        setOwn(true);
        setView({ ...now.from, x: now.from.x + x - now.x, y: now.from.y + y - now.y });
        return;
      }
      if (now.kind === 'line') {
        const by = now.line.kind === 'datum' ? (now.y - y) / view.scale : (x - now.x) / view.scale;
        // By whole centimetres, or freely.
        const step = free ? 1000 : 100;
        now.last = Math.round((now.at + by) * step) / step;
        preview(moveLine(committed, now.line, now.last));
        return;
      }
      const moved = { ...now.box, s: now.box.s + (x - now.x) / view.scale, t: now.box.t - (y - now.y) / view.scale };
      now.last = snapped(moved, free);
      setDragged(now.last);
      preview(moveOpening(committed, now.opening, now.last.s, now.last.t));
    });
  };

  const endGesture = (keep: boolean) => {
    const now = gesture.current;
    gesture.current = null;
    if (waiting.current !== null) cancelAnimationFrame(waiting.current);
    waiting.current = null;
    setPanning(false);
    setDragged(null);
    if (!now) return;
    if (now.kind === 'drag') {
      if (now.moved && keep && now.last) commit(moveOpening(committed, now.opening, now.last.s, now.last.t));
      else preview(null);
    } else if (now.kind === 'line') {
      if (now.moved && keep && now.last !== null) commit(moveLine(committed, now.line, now.last));
      else preview(null);
    } else if (!now.moved && keep) choose({ kind: 'wall' });
  };

  useEffect(() => {
    const surface = svg.current;
    if (!surface) return;
    // React listens to the wheel passively, and zooming must keep the page from scrolling.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const bounds = surface.getBoundingClientRect();
      const [x, y] = [event.clientX - bounds.left, event.clientY - bounds.top];
      setOwn(true);
      setView((before) => zoom(before, Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0015)), x, y));
    };
    surface.addEventListener('wheel', onWheel, { passive: false });
    return () => surface.removeEventListener('wheel', onWheel);
  }, []);

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey) return;
    const focused = (event.target as globalThis.Element).closest('[data-opening]')?.getAttribute('data-opening');
    const line = lineAt(event.target as globalThis.Element);
    const step = event.shiftKey ? 0.1 : event.altKey ? 0.001 : 0.01;
    const ways: Record<string, [number, number]> = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] };
    const [ds, dt] = ways[event.key] ?? [0, 0];
    const arrow = ds !== 0 || dt !== 0;
    let used = true;
    if (event.key === 'Escape') {
      if (gesture.current) endGesture(false);
      else if (placing) place(null);
      else choose({ kind: 'wall' });
    } else if (placing && arrow) {
      setGhost((before) => {
        const spot = before ?? ghostAt(length / 2, tall / 2, true);
        return spot && { s: spot.s + 10 * ds, t: spot.t + 10 * dt, along: null, up: null };
      });
    } else if (placing && event.key === 'Enter') {
      const spot = ghost ?? ghostAt(length / 2, tall / 2, false);
      if (spot) putDown(spot);
    } else if (line && (event.key === 'Enter' || event.key === ' ')) choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
    else if (line && arrow) {
      const by = line.kind === 'datum' ? dt : ds;
      if (by !== 0) commit(moveLine(committed, line, Math.round((placeOf(line) + by) * 1e6) / 1e6));
    } else if (line && (event.key === 'Delete' || event.key === 'Backspace')) {
      const held = heldTo(committed, line).length;
      if (held === 0) commit(removeLine(committed, line));
      else {
        choose(line.kind === 'datum' ? { kind: 'datum', id: line.datum.id } : { kind: 'axis', id: line.axis.id });
        complain(`${line.kind === 'datum' ? line.datum.name : `Axis ${line.axis.name}`} was not removed`, `${held} opening${held === 1 ? ' is' : 's are'} held to it. Its particulars show them, and remove it with the openings left where they are.`);
      }
    } else if (focused && (event.key === 'Enter' || event.key === ' ')) chooseOpening(focused);
    else if (event.key === '0') showWhole();
    else if (event.key === '+' || event.key === '=' || event.key === '-') {
      setOwn(true);
      setView((before) => zoom(before, event.key === '-' ? 1 / 1.25 : 1.25, room.width / 2, room.height / 2));
    } else if (chosenOpening && chosenBox && arrow) commit({ ...moveOpening(committed, chosenOpening, chosenBox.s + ds, chosenBox.t + dt), name: `nudge ${chosenOpening.mark}` });
    else if (chosenOpening && (event.key === 'Delete' || event.key === 'Backspace')) commit(removeOpening(chosenOpening));
    else if (chosenOpening && event.key.toLowerCase() === 'b') commit(blockUp(chosenOpening));
    else used = false;
    if (used) {
      event.preventDefault();
      event.stopPropagation();
    }
  };

  const added = (kind: 'datum' | 'axis', { changeSet, id }: ReturnType<typeof addDatum>): void => {
    if (commit(changeSet)) choose({ kind, id });
  };

  const editFigure = (value: number) => {
    if (!figure || !chosenBox || !chosenOpening) return;
    const { s, t } = chosenBox;
    const change = value - figure.value;
    setFigure(null);
    const moved = { before: [s + change, t], after: [s - change, t], sill: [s, t + change], head: [s, t - change] }[figure.what] as [number, number];
    commit(moveOpening(committed, chosenOpening, ...moved));
    svg.current?.focus();
  };

  const top = yOf(view, tall);
  const base = yOf(view, 0);
  const courses: number[] = [];
  const every = view.scale > 70 ? 0.075 : view.scale > 24 ? 0.3 : 0;
  if (every > 0 && tall / every < 400) for (let t = every; t < tall; t += every) courses.push(yOf(view, t));
  const told = dragged ?? ghost;
  const toldBox = dragged ? chosenBox : ghost && ghostProfile ? { s: ghost.s, t: ghost.t, width: ghostProfile.width, height: ghostProfile.height } : null;
  const units = document.units;
  const chosenAxis = chosenOpening?.along.from === 'axis' ? chosenOpening.along.axis : null;

  return (
    <div ref={frame} style={{ position: 'absolute', inset: 0, overflow: 'hidden' }}>
      <svg
        ref={svg}
        className={`sheet${panning ? ' panning' : ''}${placing ? ' placing' : ''}`}
        role="application"
        aria-label={`Sheet of ${element.name}, outer face. Tab goes from opening to opening, arrow keys move the chosen one.`}
        tabIndex={0}
        data-testid="sheet"
        data-scale={view.scale}
        data-x={view.x}
        data-y={view.y}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={() => endGesture(true)}
        onPointerCancel={() => endGesture(false)}
        onPointerLeave={() => setGhost(null)}
        onDoubleClick={(event) => event.target === svg.current && showWhole()}
        onKeyDown={onKeyDown}
      >
        <defs>
          <pattern id="blocked-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform={`scale(${1 / view.scale}) rotate(45)`}>
            <rect width="7" height="7" fill="#f0e6d6" />
            <line x1="0" y1="0" x2="0" y2="7" stroke="#b8a88f" strokeWidth="1.4" />
          </pattern>
          <clipPath id="face">
            <path d={drawn?.face ?? ''} clipRule="evenodd" transform={`translate(${view.x} ${view.y}) scale(${view.scale} ${-view.scale})`} />
          </clipPath>
        </defs>
        {element.kind !== 'slab' && <line className="ground" x1={xOf(view, 0) - 34} x2={xOf(view, length) + 34} y1={base} y2={base} />}
        {drawn && (
          <path
            className="wall"
            d={drawn.face}
            data-testid="face"
            transform={`translate(${view.x} ${view.y}) scale(${view.scale} ${-view.scale})`}
            vectorEffect="non-scaling-stroke"
          />
        )}
        <g clipPath="url(#face)">
          {courses.map((y) => (
            <line key={y} className="course" x1={xOf(view, 0) + 1} x2={xOf(view, length) - 1} y1={y} y2={y} />
          ))}
        </g>
        <SettingOutLines
          view={view}
          length={length}
          height={tall}
          datums={lines.datums}
          axes={lines.axes}
          heldAxis={chosenAxis}
          chosen={chosen.kind === 'datum' || chosen.kind === 'axis' ? chosen.id : null}
          units={units}
        />
        {placed.map((item) => {
          const opening = openings.get(item.id)!;
          const status = statuses.get(item.id);
          return (
            <OpeningShape
              key={item.id}
              view={view}
              placed={item}
              mark={opening.mark}
              status={status}
              chosen={chosen.kind === 'opening' && chosen.id === item.id}
              label={`${opening.mark}, ${document.patterns[opening.pattern]?.name ?? 'opening'}, ${status?.state ?? 'being cut'}, ${formatLength(item.s, units)} along, ${formatLength(item.t, units)} up`}
            />
          );
        })}
        <Strings
          view={view}
          width={room.width}
          length={length}
          height={tall}
          boxes={boxes}
          chosen={chosenBox}
          axes={lines.axes}
          units={units}
          onEdit={setFigure}
        />
        {told?.along && <line className="guide" x1={xOf(view, told.along.at)} x2={xOf(view, told.along.at)} y1={top - 20} y2={base + 20} />}
        {told?.up && <line className="guide" x1={xOf(view, 0) - 24} x2={xOf(view, length) + 24} y1={yOf(view, told.up.at)} y2={yOf(view, told.up.at)} />}
        {ghost && ghostOutline && !dragged && (
          <g className="ghost" data-testid="ghost">
            <path
              className="shape"
              d={pathOf(ghostOutline.outline)}
              transform={`translate(${xOf(view, ghost.s)} ${yOf(view, ghost.t)}) scale(${view.scale} ${-view.scale})`}
              vectorEffect="non-scaling-stroke"
            />
          </g>
        )}
        {told && toldBox && (
          <Reason
            x={xOf(view, toldBox.s + toldBox.width / 2)}
            y={yOf(view, toldBox.t) + 22}
            text={[told.up?.reason, told.along?.reason].filter(Boolean).join(' · ') || `${formatLength(told.s, units)} along, ${formatLength(told.t, units)} up`}
            width={room.width}
          />
        )}
      </svg>
      {figure && chosenBox && <FigureField key={`${figure.what} ${chosenBox.id}`} figure={figure} units={units} onDone={editFigure} onClose={() => setFigure(null)} />}
      <div className="sheet-tools">
        {element.kind !== 'slab' && (
          <button onClick={() => added('datum', addDatum(committed, element))} title="A level to which sills, heads and springings can be held, in the whole building">
            <Plus size={13} /> Datum
          </button>
        )}
        <button onClick={() => added('axis', addAxis(committed, element))} title="An upright line on this face to which openings can be held">
          <Plus size={13} /> Axis
        </button>
      </div>
      <TitleBlock element={element} />
    </div>
  );
}

function Reason({ x, y, text, width }: { x: number; y: number; text: string; width: number }) {
  const wide = text.length * 5.3 + 18;
  const left = Math.max(4, Math.min(width - wide - 4, x - wide / 2));
  return (
    <g className="reason" data-testid="reason">
      <rect x={left} y={y - 14} width={wide} height="21" rx="3" />
      <text x={left + wide / 2} y={y + 1} textAnchor="middle">
        {text}
      </text>
    </g>
  );
}

function onElement(document: ProjectDocument, element: Element): { placed: Placed[]; boxes: Box[]; opening: Map<string, Opening> } {
  const placed: Placed[] = [];
  const boxes: Box[] = [];
  const openings = new Map<string, Opening>();
  for (const opening of Object.values(document.openings)) {
    if (opening.element !== element.id) continue;
    const resolved = resolveOpening(document, opening);
    if (!('outline' in resolved)) continue;
    const { width, height, springing } = resolved.profile;
    openings.set(opening.id, opening);
    placed.push(resolved);
    boxes.push({ id: opening.id, mark: opening.mark, s: resolved.s, t: resolved.t, width, height, springing });
  }
  return { placed, boxes, opening: openings };
}

type SheetLines = Lines & { datums: { id: string; name: string; level: number; t: number }[]; axes: { id: string; name: string; s: number }[] };

function linesOf(document: ProjectDocument, element: Element): SheetLines {
  const tall = sheetOf(element).height;
  return {
    length: extentOf(element).length,
    height: tall,
    datums: datumsOn(document, element)
      .map((datum) => ({ id: datum.id, name: datum.name, level: datum.level, t: datum.level - element.start.z }))
      .filter((datum) => datum.t >= 0 && datum.t <= tall),
    axes: Object.values(document.axes)
      .filter((axis) => axis.element === element.id)
      .map((axis) => ({ id: axis.id, name: axis.name, s: axis.along })),
  };
}

function outlineFor(document: ProjectDocument, element: Element, placing: { pattern: string; size: string }): Placed | null {
  const resolved = resolveOpening(document, {
    id: '',
    mark: '',
    element: element.id,
    ...placing,
    along: { from: 'start', distance: 0 },
    up: { from: 'base', distance: 0 },
    grip: { across: 'left', level: 'sill' },
    blockedUp: false,
  });
  return 'outline' in resolved ? resolved : null;
}
