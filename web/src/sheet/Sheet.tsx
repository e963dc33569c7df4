/** The sheet: a face of the chosen element as a drawing, on which openings are placed, dragged and dimensioned. */
import { lengthOf, misfitsOn, sheetsOf, worded } from '@yard-arch/core';
import { faceLabel, isInPlan, isUpright, formatLength, type Element, type ProjectDocument } from '@yard-arch/document';
import { drawnSides, type FigureChoice, type Line, refitted } from '@yard-arch/edit';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { EditedFigure } from './edited-figure.ts';
import { notify } from '../common/notices.tsx';
import { chosenIds, useEditor, useFace } from '../state/state.ts';
import { commit, preview, undo } from '../state/store.ts';
import { FigureField } from './FigureField.tsx';
import { sheetKeys } from './keys.ts';
import { Crowd } from './Crowd.tsx';
import { coursesOf, Face } from './Face.tsx';
import { OpeningShape } from '../boards/OpeningShape.tsx';
import { Area, GhostShape, Guides, Reason, TapeLine, TypedField } from '../boards/Overlays.tsx';
import { SettingOutLines } from './SettingOutLines.tsx';
import { linesOf, onElement, type OnElement } from '../boards/sheet-data.ts';
import { PartFronts } from './PartFronts.tsx';
import { HeldPins } from './Held.tsx';
import { SheetTools } from './SheetTools.tsx';
import { Strings } from './Strings.tsx';
import { TitleBlock } from './TitleBlock.tsx';
import { useRoom, useWheel, type Room } from '../boards/use-board.ts';
import { spare, useGestures } from './use-gestures.ts';
import { useHandles } from './use-handles.ts';
import { SideHandles, WallHandles } from './Handles.tsx';
import { fit, xOf, yOf, zoom, type Viewport } from '../boards/viewport.ts';

/** Where nothing is drawn yet, for it is not known how much room there is. */
const nowhere: Viewport = { x: 0, y: 0, scale: 1 };

export function Sheet({ element }: { element: Element }) {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const committed = useEditor((state) => state.document)!;
  // As it is just being drawn.
  const live = document.elements[element.id] ?? element;
  const face = useFace(element.id);
  const tall = useMemo(() => sheetsOf(document).on(element.id, face)?.height ?? 0, [document, element, face]);
  const length = useMemo(() => lengthOf(document, live, face), [document, live, face]);
  const chosen = useEditor((state) => state.chosen);
  const placing = useEditor((state) => state.placing);
  const taping = useEditor((state) => state.taping);
  const sliding = useEditor((state) => state.sliding);
  const statuses = useEditor((state) => state.statuses);

  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const board = useRef<SVGGElement>(null);
  const room = useRoom(frame);
  const [view, setView] = useState<Viewport>(nowhere);
  const [own, setOwn] = useState(false);
  // With the document in which it was measured: others may change it meanwhile.
  const [edited, setEdited] = useState<{ figure: EditedFigure; on: ProjectDocument } | null>(null);
  const setFigure = useCallback(
    (figure: EditedFigure | null) => setEdited(figure && { figure, on: useEditor.getState().document! }),
    [],
  );

  const focusSheet = useCallback(() => svg.current?.focus({ preventScroll: true }), []);
  const showWhole = useCallback(() => {
    setOwn(false);
    if (room.width > 0) setView(fit(room.width, room.height, length, tall));
  }, [room, length, tall]);
  // The whole face is shown until one zooms or pans; another wall is shown whole again.
  useLayoutEffect(() => setOwn(false), [element.id, face]);
  useLayoutEffect(() => {
    if (!own) showWhole();
  }, [own, showWhole]);
  useEffect(() => {
    // Arrow keys and Enter place too, so the sheet takes the focus.
    if (placing || taping) focusSheet();
  }, [placing, taping, focusSheet]);

  const wasWhole = useRef(true);
  const last = useRef<OnElement | null>(null);
  // What was shown before is only compared with, so that what has not changed is not drawn again.
  const shown = useMemo(
    () => (last.current = onElement(document, element, face, last.current)),
    [document, element, face],
  );
  const { placed, boxes, opening: openings } = shown;
  const lines = useMemo(() => linesOf(document, live, face), [document, live, face]);
  const misfits = useMemo(
    () => new Set(misfitsOn(committed, element).map(({ opening }) => opening.id)),
    [committed, element],
  );
  const ids = chosenIds(chosen);
  const lit = useMemo(() => new Set(ids), [ids]);
  const chosenBox = ids.length === 1 ? (boxes.find((box) => box.id === ids[0]) ?? null) : null;
  const chosenOpening = ids.length === 1 ? committed.openings[ids[0]!] : undefined;

  /** The datum or axis that something on the sheet belongs to. */
  const lineAt = (target: globalThis.Element): Line | null => {
    const [kind, id = ''] = (target.closest('[data-line]')?.getAttribute('data-line') ?? '').split(' ');
    const [datum, axis] = [committed.datums[id], committed.axes[id]];
    return kind === 'datum' && datum ? { kind, datum } : kind === 'axis' && axis ? { kind, axis } : null;
  };
  const pan = (next: Viewport | null): void => {
    if (!next) return showWhole();
    setOwn(true);
    setView(next);
  };
  const gestures = useGestures({ svg, board, element, face, committed, shown, lines, view, setView: pan, lineAt });
  const { ghost, dragged, area, panning, tape, typed } = gestures;
  const handles = useHandles({
    svg,
    committed,
    lines,
    view,
    setFigure,
    hold: (held) => {
      // Else the whole would be fitted anew while it grows.
      wasWhole.current = held ? !own : wasWhole.current;
      setOwn(held || !wasWhole.current);
    },
  });

  useWheel(svg, (factor, x, y) => {
    if (panning) return;
    setOwn(true);
    setView((before) => zoom(before, factor, x, y));
  });

  const onKeyDown = sheetKeys({
    element,
    face,
    committed,
    shown,
    chosen: ids,
    placing,
    length,
    tall,
    lineAt,
    gestures,
    showWhole,
    nearer: (factor) => pan(zoom(view, factor, room.width / 2, room.height / 2)),
  });

  const editFigure = (value: number, choice: FigureChoice): string | null => {
    const outcome = choice.apply(value);
    if ('reason' in outcome)
      return `${outcome.reason.charAt(0).toUpperCase()}${outcome.reason.slice(1)}. ${outcome.mend}`;
    if (!commit(edited ? refitted(outcome, edited.on, committed) : outcome)) return null;
    setFigure(null);
    // What the figure pushes over an edge is told at once, with a way back.
    const after = useEditor.getState().document!;
    const pushed = misfitsOn(after, after.elements[element.id]!).filter(({ opening }) => !misfits.has(opening.id));
    const [first] = pushed;
    if (first)
      notify(
        pushed.length === 1
          ? `${first.opening.mark} reaches ${worded(first.by, units)} beyond ${first.beyond} now`
          : `${pushed.length} openings reach beyond the wall now`,
        { label: 'Undo', onClick: undo },
      );
    svg.current?.focus();
    return null;
  };

  // Of very many only those in sight are drawn one by one, with some about them so that panning does not draw anew at once; where even those are too many, all are one figure.
  const inSight = placed.length <= most ? placed : placed.filter((item) => isInSight(item, view, room));
  const crowd = inSight.length > most ? placed : null;
  const onFace = `translate(${view.x} ${view.y}) scale(${view.scale} ${-view.scale})`;
  const top = yOf(view, tall);
  const base = yOf(view, 0);
  const courses = useMemo(
    () => coursesOf(lines.course ?? 0, view.scale, length, tall),
    [lines.course, view.scale, length, tall],
  );
  const told = dragged?.at ?? (area ? null : ghost);
  const box = dragged?.box ?? gestures.placingBox;
  const units = document.units;
  const chosenAxis = chosenOpening?.along.from === 'axis' ? chosenOpening.along.axis : null;
  const typing = typed === null ? null : gestures.typing();
  const idle = !dragged && !placing && !taping && !sliding && !area;

  return (
    <div ref={frame} style={{ position: 'absolute', inset: 0, overflow: 'hidden' }}>
      <svg
        ref={svg}
        className={`sheet${panning ? ' panning' : ''}${sliding ? ' sliding' : ''}${placing || taping ? ' placing' : ''}`}
        role="application"
        aria-label={`Sheet of ${element.name}, ${faceLabel(element, face)}. Tab goes from opening to opening, arrow keys move what is chosen.`}
        tabIndex={0}
        data-testid="sheet"
        data-face={face}
        data-scale={view.scale}
        data-x={view.x}
        data-y={view.y}
        {...gestures.handlers}
        onDoubleClick={(event) => event.target === svg.current && showWhole()}
        onKeyDown={onKeyDown}
      >
        <defs>
          <pattern
            id="blocked-hatch"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform={`scale(${1 / view.scale}) rotate(45)`}
          >
            <rect width="7" height="7" fill="#f0e6d6" />
            <line x1="0" y1="0" x2="0" y2="7" stroke="#b8a88f" strokeWidth="1.4" />
          </pattern>
        </defs>
        {view !== nowhere && (
          <g ref={board}>
            {isUpright(element) && (
              <line className="ground" x1={xOf(view, 0) - 34} x2={xOf(view, length) + 34} y1={base} y2={base} />
            )}
            <Face element={element} face={face} whole={crowd !== null} place={onFace} courses={crowd ? '' : courses} />
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
            <g transform={onFace}>
              {crowd && (
                <Crowd
                  placed={crowd}
                  statuses={statuses}
                  coarse={crowd.length > 0 && crowd[0]!.profile.width * view.scale < 12}
                />
              )}
              {(crowd ? inSight.filter(({ id }) => lit.has(id) || misfits.has(id)) : inSight).map((item) => {
                const opening = openings.get(item.id)!;
                const status = statuses.get(item.id);
                return (
                  <OpeningShape
                    key={item.id}
                    scale={view.scale}
                    placed={item}
                    mark={opening.mark}
                    status={status}
                    chosen={lit.has(item.id)}
                    misfit={misfits.has(item.id)}
                    pattern={committed.patterns[opening.pattern]?.name ?? 'opening'}
                    units={units}
                  />
                );
              })}
              {!crowd && <PartFronts element={element.id} face={face} placed={inSight} />}
            </g>
            <Strings
              view={view}
              width={room.width}
              length={length}
              height={tall}
              boxes={boxes}
              chosen={chosenBox}
              axes={lines.axes}
              units={units}
              document={committed}
              element={element}
              face={face}
              onEdit={setFigure}
            />
            {chosenBox &&
              chosenOpening &&
              (chosenOpening.face ?? 'outer') === face &&
              !dragged &&
              !placing &&
              !taping && <HeldPins document={committed} opening={chosenOpening} box={chosenBox} view={view} />}
            {chosenBox && chosenOpening && idle && !element.locked && (
              <SideHandles
                box={chosenBox}
                sides={drawnSides(committed.patterns[chosenOpening.pattern]!, chosenBox)}
                view={view}
                onBegin={(event, side) => handles.drawSide(event, chosenOpening, chosenBox, side, boxes)}
              />
            )}
            {chosen.kind === 'wall' && face === 'outer' && isInPlan(element) && !element.locked && idle && (
              <WallHandles
                handles={handles.handlesOf(isInPlan(live) ? live : element)}
                view={view}
                onBegin={(event, handle) => handles.drawWall(event, element, handle)}
              />
            )}
            {handles.drawn && (
              <>
                <Guides
                  at={{
                    s: handles.drawn.s,
                    t: handles.drawn.t,
                    along: handles.drawn.way === 'along' ? handles.drawn.guide : null,
                    up: handles.drawn.way === 'up' ? handles.drawn.guide : null,
                  }}
                  view={view}
                  length={length}
                  top={top}
                  base={base}
                />
                <Reason
                  x={xOf(view, handles.drawn.s)}
                  y={yOf(view, handles.drawn.t) + 30}
                  text={handles.drawn.text}
                  width={room.width}
                />
              </>
            )}
            {told && <Guides at={told} view={view} length={length} top={top} base={base} />}
            {ghost && gestures.candidate && !dragged && !area && (
              <GhostShape at={ghost} outline={gestures.candidate} view={view} />
            )}
            {told && box && (
              <Reason
                x={xOf(view, told.s + box.width / 2)}
                y={yOf(view, told.t) + 22}
                text={
                  [told.up?.reason, told.along?.reason].filter(Boolean).join(' · ') ||
                  `${formatLength(told.s, units)} along, ${formatLength(told.t, units)} up`
                }
                width={room.width}
              />
            )}
            {area && <Area {...area} view={view} units={units} width={room.width} />}
            {tape && <TapeLine tape={tape} view={view} units={units} width={room.width} />}
          </g>
        )}
      </svg>
      {edited && (
        <FigureField
          key={`${edited.figure.what} ${edited.figure.x} ${edited.figure.y}`}
          figure={edited.figure}
          units={units}
          meanwhile={edited.on !== committed}
          onDone={editFigure}
          onShow={(value, choice) => {
            const outcome = choice.apply(value);
            preview('reason' in outcome ? null : outcome);
          }}
          onClose={() => {
            if (edited.figure.drawn) preview(null);
            setFigure(null);
          }}
        />
      )}
      {typed !== null && typing && (
        <TypedField
          first={typed}
          {...typing}
          units={units}
          onDone={(text) => {
            const fault = gestures.takeTyped(text);
            if (fault === null) focusSheet();
            return fault;
          }}
          onClose={() => {
            gestures.endGesture(false);
            focusSheet();
          }}
        />
      )}
      <SheetTools
        element={element}
        face={face}
        springing={(gestures.placingBox?.springing ?? null) !== null}
        focusSheet={focusSheet}
        chosen={placing || taping ? undefined : chosenOpening}
      />
      <TitleBlock element={element} face={face} />
    </div>
  );
}

/** The most openings that are drawn one by one. */
const most = 600;

function isInSight(
  { s, t, profile: { width, height } }: OnElement['placed'][number],
  view: Viewport,
  room: Room,
): boolean {
  return (
    xOf(view, s + width) > -spare &&
    xOf(view, s) < room.width + spare &&
    yOf(view, t) > -spare &&
    yOf(view, t + height) < room.height + spare
  );
}
