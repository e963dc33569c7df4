/** Dimension strings as they stand on a drawing: ticks, lines and figures, those of the chosen opening to be edited where they stand. */
import { rowOf, stringAlong, type Box, type Measure } from '@yard-arch/core';
import { formatLength, type Units } from '@yard-arch/document';
import { headroom, layFigures } from './figures.ts';
import { xOf, yOf, type Viewport } from './viewport.ts';

/** A figure that was clicked, to be typed anew. */
export interface EditedFigure {
  what: 'before' | 'after' | 'sill' | 'head';
  label: string;
  value: number;
  /** Where it stands, pixels. */
  x: number;
  y: number;
}

interface StringsProps {
  view: Viewport;
  /** Width of the sheet, pixels. */
  width: number;
  length: number;
  height: number;
  boxes: readonly Box[];
  chosen: Box | null;
  axes: readonly { name: string; s: number }[];
  units: Units;
  onEdit: (figure: EditedFigure) => void;
}

const labels = { before: 'Pier before it', after: 'Pier after it', sill: 'Base to sill', head: 'Head to top' } as const;

interface Span {
  from: number;
  to: number;
  own: boolean;
  edit: EditedFigure['what'] | null;
}

export function Strings({ view, width, length, height, boxes, chosen, axes, units, onEdit }: StringsProps) {
  const row = rowOf(boxes, chosen);
  const measures = stringAlong(row, length);
  const spans = measures.map((measure): Span => ({ from: measure.from, to: measure.to, ...roleOf(measure, chosen) }));
  const axisSpans = between([0, ...axes.map((axis) => axis.s).filter((s) => s > 0 && s < length), length]);
  // Clear of an opening that hangs over the end, as long as the sheet has room.
  const beyond = Math.max(0, chosen ? chosen.s + chosen.width - length : 0) * view.scale;
  // Room is left for both strings where there are two.
  const room = width - xOf(view, length) - (chosen && chosen.s < length ? 90 : 44);
  const right = xOf(view, length) + 30 + Math.max(0, Math.min(beyond, room));
  const upright: Span[] = chosen && chosen.s < length && chosen.s + chosen.width > 0
    ? [
        { from: 0, to: chosen.t, own: true, edit: 'sill' as const },
        { from: chosen.t, to: chosen.t + chosen.height, own: true, edit: null },
        { from: chosen.t + chosen.height, to: height, own: true, edit: 'head' as const },
      ].filter((span) => Math.abs(span.to - span.from) > 1e-6)
    : [];
  const about = chosen ? `through ${chosen.mark}` : row.length > 0 ? `through ${row.length} in a row` : '';
  const strings = [
    ...(row.length > 0 ? [{ spans, about }] : []),
    ...(axes.length > 0 ? [{ spans: axisSpans, about: 'axes' }] : []),
    { spans: between([0, length]), about: 'overall' },
  ];
  let y = Math.max(yOf(view, 0), yOf(view, height)) + 6;
  const lines = strings.map((string) => {
    y += headroom(
      string.spans.map((span) => (span.to - span.from) * view.scale),
      string.spans.map((span) => formatLength(span.to - span.from, units)),
    );
    return { ...string, y };
  });
  return (
    <g>
      {lines.map((line) => (
        <Level key={line.about} {...line} view={view} units={units} onEdit={onEdit} />
      ))}
      {upright.length > 0 && <Upright spans={upright} x={right} view={view} units={units} onEdit={onEdit} />}
      <Upright spans={[{ from: 0, to: height, own: false, edit: null }]} x={right + (upright.length > 0 ? 48 : 0)} view={view} units={units} onEdit={onEdit} />
    </g>
  );
}

function roleOf(measure: Measure, chosen: Box | null): { own: boolean; edit: EditedFigure['what'] | null } {
  if (!chosen) return { own: false, edit: null };
  if (measure.opening === chosen.id) return { own: true, edit: null };
  if (measure.after === chosen.id) return { own: true, edit: 'before' };
  if (measure.before === chosen.id) return { own: true, edit: 'after' };
  return { own: false, edit: null };
}

function between(stops: readonly number[]): Span[] {
  const sorted = [...stops].sort((a, b) => a - b);
  return sorted.slice(1).map((to, i) => ({ from: sorted[i]!, to, own: false, edit: null }));
}

interface LineProps {
  spans: readonly Span[];
  view: Viewport;
  units: Units;
  onEdit: (figure: EditedFigure) => void;
}

function Level({ spans, y, about, view, units, onEdit }: LineProps & { y: number; about: string }) {
  if (spans.length === 0) return null;
  const xs = [spans[0]!.from, ...spans.map((span) => span.to)].map((s) => xOf(view, s));
  const texts = spans.map((span) => formatLength(span.to - span.from, units));
  const figures = layFigures(
    spans.map((span) => (span.to - span.from) * view.scale),
    texts,
  );
  return (
    <g className="string">
      <line x1={xs[0]! - 5} x2={xs.at(-1)! + 5} y1={y} y2={y} />
      {xs.map((x, i) => (
        <line key={i} className="tick" x1={x - 4} y1={y + 4} x2={x + 4} y2={y - 4} />
      ))}
      <text className="about" x={xs[0]! - 14} y={y + 4}>
        {about}
      </text>
      {spans.map((span, i) => {
        const middle = (xs[i]! + xs[i + 1]!) / 2;
        const { manner, step } = figures[i]!;
        const text = texts[i]!;
        const up = 8 + 12 * step;
        return (
          <Figure key={i} span={span} x={middle} y={y - 6} onEdit={onEdit} text={text}>
            {manner === 'level' && (
              <text x={middle} y={y - 6}>
                {text}
              </text>
            )}
            {manner === 'upright' && (
              <text transform={`translate(${middle + 4} ${y - 5}) rotate(-90)`} style={{ textAnchor: 'start', fontSize: 11 }}>
                {text}
              </text>
            )}
            {manner === 'lifted' && (
              <>
                <line x1={middle} y1={y} x2={middle + 7} y2={y + up} style={{ strokeWidth: 0.7 }} />
                <text x={middle + 9} y={y + up + 5} style={{ textAnchor: 'start', fontSize: 11 }}>
                  {text}
                </text>
              </>
            )}
          </Figure>
        );
      })}
    </g>
  );
}

function Upright({ spans, x, view, units, onEdit }: LineProps & { x: number }) {
  const ys = [spans[0]!.from, ...spans.map((span) => span.to)].map((t) => yOf(view, t));
  return (
    <g className="string">
      <line x1={x} x2={x} y1={ys[0]! + 5} y2={ys.at(-1)! - 5} />
      {ys.map((y, i) => (
        <line key={i} className="tick" x1={x - 4} y1={y + 4} x2={x + 4} y2={y - 4} />
      ))}
      {spans.map((span, i) => {
        const middle = (ys[i]! + ys[i + 1]!) / 2;
        const text = formatLength(span.to - span.from, units);
        const narrow = Math.abs(ys[i]! - ys[i + 1]!) < text.length * 6.2 + 6;
        return (
          <Figure key={i} span={span} x={x} y={middle} onEdit={onEdit} text={text}>
            {narrow ? (
              <text x={x + 7} y={middle + 4} style={{ textAnchor: 'start' }}>
                {text}
              </text>
            ) : (
              <text transform={`translate(${x - 6} ${middle}) rotate(-90)`}>{text}</text>
            )}
          </Figure>
        );
      })}
    </g>
  );
}

function Figure({
  span,
  x,
  y,
  text,
  onEdit,
  children,
}: {
  span: Span;
  x: number;
  y: number;
  text: string;
  onEdit: (figure: EditedFigure) => void;
  children: React.ReactNode;
}) {
  const { edit } = span;
  if (!edit) return <g className={`measure${span.own ? ' own' : ''}`}>{children}</g>;
  const start = () => onEdit({ what: edit, label: labels[edit], value: span.to - span.from, x, y });
  return (
    <g
      className="measure own editable"
      role="button"
      tabIndex={0}
      aria-label={`${labels[edit]}: ${text}. Change it`}
      data-figure={edit}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={start}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        event.stopPropagation();
        start();
      }}
    >
      <title>{labels[edit]}: click to type another</title>
      {children}
    </g>
  );
}
