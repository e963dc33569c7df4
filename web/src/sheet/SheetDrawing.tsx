/** What is drawn of a face: its outline and courses, lines, openings, dimensions and handles. */
import { isInPlan, isManyFaced, isShell, isUpright } from '@yard-arch/document';
import { drawnSides, wallHandles, withinOf } from '@yard-arch/edit';
import { useMemo } from 'react';
import { OpeningMark, OpeningShape } from '../boards/OpeningShape.tsx';
import type { OnElement } from '../boards/sheet-data.ts';
import type { Room } from '../boards/use-board.ts';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';
import { useEditor } from '../state/state.ts';
import { Crowd } from './Crowd.tsx';
import { coursesOf, Face, faceClip } from './Face.tsx';
import { spare } from './gestures/use-sheet-gestures.ts';
import { SideHandles, WallHandles } from './Handles.tsx';
import { HeldPins } from './Held.tsx';
import { EdgeNames, RoofLines, Seams } from './RoofLines.tsx';
import { OnPlanes } from './OnPlanes.tsx';
import { PartFronts } from './PartFronts.tsx';
import { SettingOutLines } from './SettingOutLines.tsx';
import { Strings } from './Strings.tsx';
import type { SheetState } from './use-sheet.ts';

/** The most openings that are drawn one by one. */
const most = 600;

export function SheetDrawing({ sheet }: { sheet: SheetState }) {
  const { element, face, lines, view, length, tall, shown, room, document, committed, chosen, one, box } = sheet;
  // Of very many only those in sight are drawn one by one, with some about them so that panning does not draw anew at once; where even those are too many, all are one figure.
  const inSight =
    shown.placed.length <= most ? shown.placed : shown.placed.filter((item) => isInSight(item, view, room));
  const crowd = inSight.length > most;
  const onFace = `translate(${view.x} ${view.y}) scale(${view.scale} ${-view.scale})`;
  const courses = useMemo(
    () => coursesOf(lines.course ?? 0, view.scale, length, tall),
    [lines.course, view.scale, length, tall],
  );
  const base = yOf(view, 0);
  return (
    <>
      {isUpright(element) && (
        <line className="ground" x1={xOf(view, 0) - 34} x2={xOf(view, length) + 34} y1={base} y2={base} />
      )}
      <Face element={element} face={face} whole={crowd} place={onFace} courses={crowd ? '' : courses} />
      {isShell(element) && <Seams element={element} view={view} />}
      {isManyFaced(element) && face === 'outer' && (
        <g clipPath={`url(#${faceClip})`}>
          <RoofLines element={element} view={view} />
        </g>
      )}
      {isManyFaced(element) && face !== 'outer' && <EdgeNames element={element} face={face} view={view} />}
      <SettingOutLines
        view={view}
        length={length}
        height={tall}
        datums={lines.datums}
        axes={lines.axes}
        heldAxis={one?.along.from === 'axis' ? one.along.axis : null}
        chosen={chosen.kind === 'datum' || chosen.kind === 'axis' ? chosen.id : null}
        units={document.units}
      />
      <g transform={onFace}>
        {isManyFaced(element) && face === 'outer' && <OnPlanes element={element} scale={view.scale} />}
        <Openings sheet={sheet} inSight={inSight} crowd={crowd} />
        {!crowd && <PartFronts element={element.id} face={face} placed={inSight} />}
        {!crowd && <FilledMarks sheet={sheet} inSight={inSight} />}
      </g>
      <Strings
        view={view}
        width={room.width}
        length={length}
        height={tall}
        boxes={shown.boxes}
        chosen={box}
        axes={lines.axes}
        units={document.units}
        document={committed}
        element={element}
        face={face}
        onEdit={sheet.figure.setFigure}
      />
      <TakenHold sheet={sheet} />
    </>
  );
}

/** The marks of openings in which something stands: over it, or they could not be read. */
function FilledMarks({ sheet: { shown, view, lit }, inSight }: { sheet: SheetState; inSight: OnElement['placed'] }) {
  const statuses = useEditor((state) => state.statuses);
  return inSight.map(
    (placed) =>
      placed.pattern.infill && (
        <g key={placed.id} className={`filled-mark${lit.has(placed.id) ? ' chosen' : ''}`}>
          <OpeningMark
            placed={placed}
            scale={view.scale}
            text={`${shown.opening.get(placed.id)!.mark}${statuses.get(placed.id)?.state === 'not cut' ? ' !' : ''}`}
          />
        </g>
      ),
  );
}

/** The openings: one by one, or as a crowd of which only those that matter now are figures of their own. */
function Openings({ sheet, inSight, crowd }: { sheet: SheetState; inSight: OnElement['placed']; crowd: boolean }) {
  const { shown, view, lit, misfits, committed } = sheet;
  const statuses = useEditor((state) => state.statuses);
  const single = crowd ? inSight.filter(({ id }) => lit.has(id) || misfits.has(id)) : inSight;
  return (
    <>
      {crowd && (
        <Crowd placed={shown.placed} statuses={statuses} coarse={shown.placed[0]!.profile.width * view.scale < 12} />
      )}
      {single.map((item) => {
        const opening = shown.opening.get(item.id)!;
        return (
          <OpeningShape
            key={item.id}
            scale={view.scale}
            placed={item}
            mark={opening.mark}
            status={statuses.get(item.id)}
            chosen={lit.has(item.id)}
            misfit={misfits.has(item.id)}
            pattern={committed.patterns[opening.pattern]?.name ?? 'opening'}
            units={sheet.document.units}
          />
        );
      })}
    </>
  );
}

/** What the chosen opening is held to, and the handles of it or of the wall. */
function TakenHold({
  sheet: { element, live, face, document, committed, chosen, one, box, view, over },
}: {
  sheet: SheetState;
}) {
  const placing = useEditor((state) => state.placing);
  const taping = useEditor((state) => state.taping);
  const sliding = useEditor((state) => state.sliding);
  const idle = !over.dragged && !placing && !taping && !over.area;
  const drawn = idle && !sliding && !element.locked;
  return (
    <>
      {box && one && idle && (one.face ?? 'outer') === face && (
        <HeldPins document={committed} opening={one} box={box} view={view} />
      )}
      {box && one && drawn && (
        <SideHandles box={box} sides={drawnSides(committed.patterns[one.pattern]!, box)} view={view} />
      )}
      {chosen.kind === 'wall' && isInPlan(live) && drawn && (
        <WallHandles handles={wallHandles(live, withinOf(document, live, face))} view={view} />
      )}
    </>
  );
}

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
