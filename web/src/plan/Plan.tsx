/** The plan: walls drawn and edited as seen from above, cut level, with the gaps of their openings. */
import {
  swingsOf,
  type Swing,
  arcBetween,
  inPlan,
  onOwnFace,
  resolveOpening,
  seenOn,
  sheetsOf,
  type InPlan,
  type Placed,
  type Point,
} from '@yard-arch/core';
import {
  extentOf,
  isManyFaced,
  isSeenFromAbove,
  formatLength,
  type Element,
  type ProjectDocument,
  type Units,
} from '@yard-arch/document';
import { useMemo, useRef, useState } from 'react';
import { chooseElement } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { Reason, TypedField } from '../boards/Overlays.tsx';
import { useRoom, useWheel, type Room } from '../boards/use-board.ts';
import { zoom, type Viewport } from '../boards/viewport.ts';
import { Kept, SplitLines } from './Kept.tsx';
import { PartPath, PartSides } from './PartPath.tsx';
import { OutlineGrips } from './OutlineGrips.tsx';
import { RoofShape } from './RoofShape.tsx';
import { PlanTools } from './PlanTools.tsx';
import { gripsOf, isOutlining, outlineGripsOf, type PlanState } from './gestures/desk.ts';
import { sweepOf } from './gestures/draw.ts';
import { usePlan } from './use-plan.ts';

/** Height above each element's base at which it is cut, metres. */
const cutAt = 1.4;

/** Where points of the plan are on the board, pixels. */
export interface OnBoard {
  x: (p: Point) => number;
  y: (p: Point) => number;
  path: (points: readonly Point[], closed?: boolean) => string;
}

function onBoard(view: Viewport): OnBoard {
  const x = (p: Point): number => view.x + p[0] * view.scale;
  const y = (p: Point): number => view.y - p[1] * view.scale;
  return {
    x,
    y,
    path: (points, closed = true) =>
      points.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p).toFixed(2)} ${y(p).toFixed(2)}`).join('') +
      (closed ? 'Z' : ''),
  };
}

export function Plan() {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const committed = useEditor((state) => state.document)!;
  const element = useEditor((state) => state.element);
  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const room = useRoom(frame);
  const [view, setView] = useState<Viewport | null>(null);
  const drawn = useMemo(() => planOf(document), [document]);
  const all = useMemo(() => planOf(committed).flatMap(({ body }) => body), [committed]);
  const shown = view ?? whole(all, room);
  const work = usePlan({ svg, view: shown, setView, document: committed, element });
  const { state, gestures } = work;
  useWheel(svg, (factor, px, py) => setView(zoom(shown, factor, px, py)));
  const board = onBoard(shown);
  const chosen = element ? document.elements[element] : undefined;
  const focus = (): void => svg.current?.focus({ preventScroll: true });
  const typing = gestures.typed === null ? null : gestures.typing();

  return (
    <div ref={frame} style={{ position: 'absolute', inset: 0, overflow: 'hidden' }}>
      <svg
        ref={svg}
        className={`sheet plan${state.mode === 'choose' ? '' : ' placing'}`}
        role="application"
        aria-label="Plan of the building. Tab goes from wall to wall, Enter chooses one, arrow keys move it."
        tabIndex={0}
        data-testid="plan"
        data-scale={shown.scale}
        data-x={shown.x}
        data-y={shown.y}
        {...gestures.bind()}
        onPointerMove={gestures.onPointerMove}
        onPointerLeave={() => !gestures.machine.now && gestures.typed === null && work.desk.show({ pointer: null })}
        onDoubleClick={(event) => state.mode === 'choose' && event.target === svg.current && setView(null)}
        onKeyDown={(event) => {
          const { ctrlKey, metaKey, altKey, key } = event;
          if (!ctrlKey && !metaKey && !altKey && gestures.type(key)) event.preventDefault();
        }}
      >
        <Walls
          document={document}
          drawn={onTop(drawn, chosen)}
          chosen={element}
          choosing={state.mode === 'choose'}
          board={board}
        />
        {chosen && !isManyFaced(chosen) && state.mode === 'choose' && (
          <>
            <WallFigure
              element={chosen}
              drawn={drawn}
              board={board}
              text={formatLength(extentOf(chosen).length, committed.units)}
            />
            <Grips grips={gripsOf(element, committed)} board={board} />
          </>
        )}
        {chosen && isManyFaced(chosen) && state.mode === 'choose' && (
          <OutlineGrips roof={chosen} corners={outlineGripsOf(element, committed)} board={board} desk={work.desk} />
        )}
        {chosen && <SplitLines element={chosen} cutAt={isManyFaced(chosen) ? 0 : cutAt} board={board} />}
        {state.mode === 'part' && <PartPath state={state} board={board} />}
        <PlanOver state={state} board={board} width={room.width} units={committed.units} />
      </svg>
      {typing && <TypedField gestures={gestures} typing={typing} units={committed.units} onDone={focus} />}
      {state.mode === 'part' && state.drawn && (
        <PartSides desk={work.desk} board={board} width={room.width} focus={focus} />
      )}
      <PlanTools work={work} focus={focus} />
      <div className="north">
        plan, cut {formatLength(cutAt, committed.units)} above the base · {drawn.length} element
        {drawn.length === 1 ? '' : 's'}
      </div>
    </div>
  );
}

/** A chosen roof lies over all else, so that its edges can be taken hold of. */
function onTop(drawn: readonly Drawn[], chosen: Element | undefined): readonly Drawn[] {
  if (!chosen || !isManyFaced(chosen)) return drawn;
  const own = (item: Drawn): boolean => item.element === chosen.id;
  return [...drawn.filter((item) => !own(item)), ...drawn.filter(own)];
}

interface WallsProps {
  document: ProjectDocument;
  drawn: readonly Drawn[];
  chosen: string | null;
  /** Whether they can be chosen: while something is drawn over them, keys are for that. */
  choosing: boolean;
  board: OnBoard;
}

/** All elements as they are cut level, with the gaps of their openings. */
function Walls({ document, drawn, chosen, choosing, board }: WallsProps) {
  const { path } = board;
  const statuses = useEditor((state) => state.statuses);
  const hidden = useEditor((state) => state.hidden);
  const isFailed = (opening: string): boolean => statuses.get(opening)?.state === 'not cut';
  return drawn.map(({ element: id, body, face, gaps, seams, swings }) => {
    const item = document.elements[id]!;
    if (isManyFaced(item))
      return (
        <Kept key={id} element={item} cutAt={0} board={board}>
          <RoofShape roof={item} document={document} chosen={id === chosen} choosing={choosing} board={board} />
        </Kept>
      );
    const failed = gaps.some(({ opening }) => isFailed(opening));
    return (
      <Kept key={id} element={item} cutAt={cutAt} board={board}>
        <g
          className={`walled ${item.kind}${id === chosen ? ' chosen' : ''}${failed ? ' failed' : ''}${hidden.has(id) ? ' away' : ''}`}
          data-element={id}
          role="button"
          tabIndex={choosing ? 0 : undefined}
          aria-label={`${item.name}, ${formatLength(extentOf(item).length, document.units)} long`}
          aria-pressed={id === chosen}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            event.stopPropagation();
            chooseElement(id);
          }}
        >
          <title>{item.name}</title>
          <path className="body" d={path(body)} />
          {face.length > 0 && <path className="face" d={path(face, false)} />}
          {seams?.map((seam, i) => (
            <path key={i} className="seam" d={path(seam, false)} />
          ))}
          {gaps.map(({ opening, blockedUp, body: gap }) => (
            <path
              key={opening}
              className={`gap${blockedUp ? ' blocked' : ''}${isFailed(opening) ? ' not-cut' : ''}`}
              d={path(gap)}
            />
          ))}
          {swings.map(({ opening, points }, i) => (
            <path key={`${opening} ${i}`} className="swing" d={path(points as Point[], false)} />
          ))}
        </g>
      </Kept>
    );
  });
}

/** Where the chosen wall can be taken hold of. */
function Grips({ grips, board: { x, y } }: { grips: ReturnType<typeof gripsOf>; board: OnBoard }) {
  return grips.map(({ kind, at }) => (
    <g key={kind} className={`grip ${kind}`} data-grip={kind}>
      <title>
        {kind === 'bend'
          ? 'Drag to bend the wall, in steps of 15°'
          : `Drag to move its ${kind}, and what meets it there`}
      </title>
      {kind === 'bend' ? (
        <path d={`M${x(at)} ${y(at) - 6}l6 6l-6 6l-6 -6z`} />
      ) : (
        <rect x={x(at) - 5} y={y(at) - 5} width="10" height="10" />
      )}
    </g>
  ));
}

interface PlanOverProps {
  state: PlanState;
  board: OnBoard;
  width: number;
  units: Units;
}

/** What a first click is for. */
const begins: Partial<Record<PlanState['mode'], string>> & Record<'draw', string> = {
  draw: 'click where the wall begins',
  roof: 'click a ring of walls, or the first corner of an outline',
  court: 'click a ring of walls in it, or the first corner of the courtyard',
  part: 'click where the line to split along begins; click its last point again to end it',
};

/** What is shown while walls are drawn, dragged or split. */
function PlanOver({ state, board: { x, y, path }, width, units }: PlanOverProps) {
  const { chain, corners, pointer, mode, told } = state;
  if (!pointer) return null;
  const segment = chain ? segmentOf(chain.at, pointer.at, sweepOf(state)) : null;
  const last = isOutlining(mode) ? corners.at(-1) : undefined;
  const long = chain
    ? arcBetween(chain.at, pointer.at, sweepOf(state)).length
    : last && Math.hypot(pointer.at[0] - last[0], pointer.at[1] - last[1]);
  const length = long === undefined ? null : formatLength(long, units);
  const words = [length, told ?? pointer.reason, mode === 'split' ? 'click to split here' : null];
  return (
    <>
      {pointer.guide && <path className="guide" d={path(pointer.guide, false)} />}
      {segment && (
        <>
          <path className="drawing" d={path(segment, false)} data-testid="segment" />
          <circle className="drawing" cx={x(segment[0]!)} cy={y(segment[0]!)} r="4" />
        </>
      )}
      {isOutlining(mode) && corners.length > 0 && (
        <>
          <path className="drawing" d={path([...corners, pointer.at], false)} data-testid="outline" />
          {corners.map((corner, i) => (
            <circle key={i} className="drawing" cx={x(corner)} cy={y(corner)} r="4" />
          ))}
        </>
      )}
      {(mode !== 'choose' || state.dragging) && (
        <Reason
          x={x(pointer.at)}
          y={y(pointer.at) + 30}
          width={width}
          text={words.filter(Boolean).join(' · ') || (state.dragging ? '' : (begins[mode] ?? begins.draw))}
        />
      )}
    </>
  );
}

/** A wall that is being drawn, as points of its face. */
function segmentOf(from: Point, to: Point, sweep: number): Point[] {
  if (Math.abs(sweep) < 1e-6) return [from, to];
  const { turn, length } = arcBetween(from, to, sweep);
  const points: Point[] = [from];
  const steps = Math.max(6, Math.ceil(Math.abs(sweep) / 5));
  for (let i = 0; i < steps; i++) {
    const angle = ((turn + (sweep * (i + 0.5)) / steps) * Math.PI) / 180;
    const half = (sweep * Math.PI) / 360 / steps;
    const chord = ((length / steps) * Math.sin(half)) / half;
    const [px, py] = points.at(-1)!;
    points.push([px + chord * Math.cos(angle), py + chord * Math.sin(angle)]);
  }
  return points;
}

/** The most openings of one element whose leaves are drawn as they swing. */
const mostSwings = 200;

/** An element in plan, with how the leaves swing that are seen there. */
type Drawn = InPlan & { swings: Swing[] };

/** Every element of a document in plan. */
function planOf(document: ProjectDocument): Drawn[] {
  const sheets = sheetsOf(document);
  const byElement = new Map<string, Placed[]>();
  const onOwn = new Map<string, Placed>();
  for (const opening of Object.values(document.openings)) {
    const resolved = resolveOpening(document, opening);
    if (!('outline' in resolved)) continue;
    const sheet = sheets.of(opening.element);
    const face = sheets.on(opening.element, opening.face) ?? sheet;
    const own = face && onOwnFace(face, opening, resolved);
    if (own && 'outline' in own) onOwn.set(opening.id, own);
    if (sheet)
      byElement.set(opening.element, [
        ...(byElement.get(opening.element) ?? []),
        isManyFaced(document.elements[opening.element]!) ? resolved : seenOn(sheet, resolved, 'outer'),
      ]);
  }
  // What is seen from above lies under the walls.
  return Object.values(document.elements)
    .sort((a, b) => Number(isSeenFromAbove(b)) - Number(isSeenFromAbove(a)))
    .map((element) => {
      const sheet = sheets.of(element.id)!;
      const here = byElement.get(element.id) ?? [];
      // What is on a roof's planes is drawn with them.
      const drawn = inPlan(sheet, isManyFaced(element) ? here.filter(({ face }) => face === undefined) : here, cutAt);
      const open = drawn.gaps.filter(({ blockedUp }) => !blockedUp).slice(0, mostSwings);
      return {
        ...drawn,
        swings: open.flatMap(({ opening }) => (onOwn.has(opening) ? swingsOf(sheet, onOwn.get(opening)!) : [])),
      };
    });
}

function whole(points: readonly Point[], { width, height }: Room): Viewport {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [left, right, low, high] =
    points.length > 0 ? [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)] : [-2, 12, -2, 8];
  const scale = Math.max(
    1,
    Math.min((width - 150) / Math.max(1, right - left), (height - 150) / Math.max(1, high - low), 120),
  );
  return { scale, x: width / 2 - ((left + right) / 2) * scale, y: height / 2 + ((low + high) / 2) * scale };
}

interface WallFigureProps {
  element: Element;
  drawn: readonly InPlan[];
  board: OnBoard;
  text: string;
}

/** The length of the chosen wall, beside its outer face. */
function WallFigure({ element, drawn, board: { x, y }, text }: WallFigureProps) {
  const face = drawn.find((item) => item.element === element.id)?.face ?? [];
  if (face.length < 2) return null;
  const middle = face.length >> 1;
  const [a, b] = [face[middle - 1]!, face[middle]!];
  const at: Point = face.length === 2 ? [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] : a;
  const [dx, dy] = [x(b) - x(a), y(b) - y(a)];
  const length = Math.hypot(dx, dy) || 1;
  // To the right of the wall's way is outside.
  const [ox, oy] = [(-dy / length) * 20, (dx / length) * 20];
  let angle = (Math.atan2(dy, dx) * 180) / Math.PI;
  // To be read from below or from the right.
  if (angle >= 90 || angle < -90) angle += 180;
  return (
    <text
      className="length"
      textAnchor="middle"
      transform={`translate(${x(at) + ox} ${y(at) + oy}) rotate(${angle})`}
      dy="4"
    >
      {text}
    </text>
  );
}
