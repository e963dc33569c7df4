/** The plan: walls drawn and edited as seen from above, cut level, with the gaps of their openings. */
import {
  arcBetween,
  courseOf,
  inPlan,
  resolveOpening,
  seenOn,
  sheetsOf,
  type InPlan,
  type Placed,
  type Point,
} from '@yard-arch/core';
import {
  extentOf,
  isInPlan,
  isSeenFromAbove,
  formatLength,
  type Element,
  type ProjectDocument,
} from '@yard-arch/document';
import { useMemo, useRef, useState } from 'react';
import { chooseElement } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { Reason, TypedField } from '../boards/Overlays.tsx';
import { useRoom, useWheel, type Room } from '../boards/use-board.ts';
import { zoom, type Viewport } from '../boards/viewport.ts';
import { PlanTools } from './PlanTools.tsx';
import { usePlan } from './use-plan.ts';

/** Height above each element's base at which it is cut, metres. */
const cutAt = 1.4;

export function Plan() {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const committed = useEditor((state) => state.document)!;
  const element = useEditor((state) => state.element);
  const statuses = useEditor((state) => state.statuses);
  const hidden = useEditor((state) => state.hidden);
  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const room = useRoom(frame);
  const [view, setView] = useState<Viewport | null>(null);
  const drawn = useMemo(() => planOf(document), [document]);
  const shown: Viewport =
    view ??
    whole(
      planOf(committed).flatMap(({ body }) => body),
      room,
    );
  const plan = usePlan({ svg, view: shown, setView, document: committed });

  useWheel(svg, (factor, px, py) => setView(zoom(shown, factor, px, py)));

  const x = (p: Point): number => shown.x + p[0] * shown.scale;
  const y = (p: Point): number => shown.y - p[1] * shown.scale;
  const path = (points: readonly Point[], closed = true): string =>
    points.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p).toFixed(2)} ${y(p).toFixed(2)}`).join('') + (closed ? 'Z' : '');
  const { units } = committed;
  const chosen = element ? document.elements[element] : undefined;
  const course = chosen && isInPlan(chosen) ? courseOf(chosen) : null;
  const { drawing, pointer, typed } = plan;
  const segment = drawing && pointer ? segmentPath(drawing.at, pointer.at, plan.sweep()) : null;

  return (
    <div ref={frame} style={{ position: 'absolute', inset: 0, overflow: 'hidden' }}>
      <svg
        ref={svg}
        className={`sheet plan${plan.mode === 'draw' || plan.mode === 'split' ? ' placing' : ''}`}
        role="application"
        aria-label="Plan of the building. Tab goes from wall to wall, Enter chooses one, arrow keys move it."
        tabIndex={0}
        data-testid="plan"
        data-scale={shown.scale}
        data-x={shown.x}
        data-y={shown.y}
        {...plan.handlers}
        onDoubleClick={(event) => plan.mode === 'choose' && event.target === svg.current && setView(null)}
      >
        {drawn.map(({ element: id, body, face, gaps }) => {
          const item = document.elements[id]!;
          const failed = gaps.some(({ opening }) => statuses.get(opening)?.state === 'not cut');
          return (
            <g
              key={id}
              className={`walled ${item.kind}${id === element ? ' chosen' : ''}${failed ? ' failed' : ''}${hidden.has(id) ? ' away' : ''}`}
              data-element={id}
              role="button"
              tabIndex={0}
              aria-label={`${item.name}, ${formatLength(extentOf(item).length, units)} long`}
              aria-pressed={id === element}
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
              {gaps.map((gap) => (
                <path
                  key={gap.opening}
                  className={`gap${gap.blockedUp ? ' blocked' : ''}${statuses.get(gap.opening)?.state === 'not cut' ? ' not-cut' : ''}`}
                  d={path(gap.body)}
                />
              ))}
            </g>
          );
        })}
        {chosen && plan.mode === 'choose' && (
          <WallFigure element={chosen} drawn={drawn} x={x} y={y} text={formatLength(extentOf(chosen).length, units)} />
        )}
        {course &&
          plan.mode === 'choose' &&
          plan.grips().map(({ kind, at }) => (
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
          ))}
        {pointer?.guide && <path className="guide" d={path(pointer.guide, false)} />}
        {segment && (
          <>
            <path className="drawing" d={path(segment, false)} data-testid="segment" />
            <circle className="drawing" cx={x(segment[0]!)} cy={y(segment[0]!)} r="4" />
          </>
        )}
        {pointer && (plan.mode !== 'choose' || plan.dragging) && (
          <Reason
            x={x(pointer.at)}
            y={y(pointer.at) + 30}
            width={room.width}
            text={
              [
                segment && drawing
                  ? formatLength(arcBetween(drawing.at, pointer.at, plan.sweep()).length, units)
                  : null,
                plan.told ?? pointer.reason,
                plan.mode === 'split' ? 'click to split here' : null,
              ]
                .filter(Boolean)
                .join(' · ') || 'click where the wall begins'
            }
          />
        )}
      </svg>
      {typed !== null && (
        <TypedField
          first={typed}
          label={plan.mode === 'draw' ? 'Length' : 'Move by'}
          hint={plan.mode === 'draw' ? 'or length; direction in degrees' : 'or along x; along y'}
          units={units}
          onDone={(text) => {
            const fault = plan.takeTyped(text);
            if (fault === null) svg.current?.focus({ preventScroll: true });
            return fault;
          }}
          onClose={() => {
            plan.give();
            svg.current?.focus({ preventScroll: true });
          }}
        />
      )}
      <PlanTools plan={plan} focus={() => svg.current?.focus({ preventScroll: true })} />
      <div className="north">
        plan, cut {formatLength(cutAt, units)} above the base · {drawn.length} element{drawn.length === 1 ? '' : 's'}
      </div>
    </div>
  );

  function segmentPath(from: Point, to: Point, sweep: number): Point[] {
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
}

/** Every element of a document in plan. */
function planOf(document: ProjectDocument): InPlan[] {
  const sheets = sheetsOf(document);
  const byElement = new Map<string, Placed[]>();
  for (const opening of Object.values(document.openings)) {
    const resolved = resolveOpening(document, opening);
    if (!('outline' in resolved)) continue;
    const sheet = sheets.of(opening.element);
    if (sheet)
      byElement.set(opening.element, [...(byElement.get(opening.element) ?? []), seenOn(sheet, resolved, 'outer')]);
  }
  // What is seen from above lies under the walls.
  return Object.values(document.elements)
    .sort((a, b) => Number(isSeenFromAbove(b)) - Number(isSeenFromAbove(a)))
    .map((element) => inPlan(sheets.of(element.id)!, byElement.get(element.id) ?? [], cutAt));
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

/** The length of the chosen wall, beside its outer face. */
function WallFigure({
  element,
  drawn,
  x,
  y,
  text,
}: {
  element: Element;
  drawn: readonly InPlan[];
  x: (p: Point) => number;
  y: (p: Point) => number;
  text: string;
}) {
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
