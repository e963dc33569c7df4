/** What is shown over the sheet while something is done on it. */
import { formatLength } from '@yard-arch/document';
import { Area, GhostShape, Guides, Reason, TapeLine } from '../boards/Overlays.tsx';
import { KeepSides } from '../boards/KeepAsk.tsx';
import { xOf, yOf } from '../boards/viewport.ts';
import type { SheetState } from './use-sheet.ts';

export function SheetOver({ sheet }: { sheet: SheetState }) {
  const { view, length, tall, document, room, over, candidate } = sheet;
  const { area, tape, dragged, ghost } = over;
  const { units } = document;
  const face = { view, length, top: yOf(view, tall), base: yOf(view, 0) };
  const told = dragged?.at ?? (area ? null : ghost);
  const box = dragged?.box ?? candidate?.box;
  return (
    <>
      <DrawnOutOver sheet={sheet} face={face} />
      {told && <Guides at={told} {...face} />}
      {ghost && candidate && !dragged && !area && <GhostShape at={ghost} outline={candidate.placed} view={view} />}
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
      {tape?.laid && (
        <KeepSides
          from={[xOf(view, tape.from.s), yOf(view, tape.from.t)]}
          to={[xOf(view, tape.to.s), yOf(view, tape.to.t)]}
        />
      )}
    </>
  );
}

type FaceOnSheet = Omit<Parameters<typeof Guides>[0], 'at'>;

/** The line that a side, an end or a top came into, and its measure. */
function DrawnOutOver({ sheet: { over, view, room }, face }: { sheet: SheetState; face: FaceOnSheet }) {
  const { drawnOut } = over;
  if (!drawnOut) return null;
  const { s, t, way, guide, text } = drawnOut;
  return (
    <>
      <Guides at={{ s, t, along: way === 'along' ? guide : null, up: way === 'up' ? guide : null }} {...face} />
      <Reason x={xOf(view, s)} y={yOf(view, t) + 30} text={text} width={room.width} />
    </>
  );
}
