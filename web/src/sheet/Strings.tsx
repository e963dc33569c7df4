/** Dimension strings as they stand on a drawing: ticks, lines and figures, those of the chosen opening to be edited where they stand. */
import { rowOf, stringAlong, type Box, type Measure } from '@yard-arch/core';
import { formatLength, type Element, type ProjectDocument, type Units } from '@yard-arch/document';
import { axisChoices, heightChoices, lengthChoices, levelChoices, pierChoices, sizeChoices, type EditedFigure, type FigureChoice } from './figure-edits.ts';
import { headroom, layFigures } from './figures.ts';
import { xOf, yOf, type Viewport } from './viewport.ts';

interface StringsProps {
  view: Viewport;
  /** Width of the sheet, pixels. */
  width: number;
  length: number;
  height: number;
  boxes: readonly Box[];
  chosen: Box | null;
  axes: readonly { id: string; name: string; s: number }[];
  units: Units;
  document: ProjectDocument;
  element: Element;
  onEdit: (figure: EditedFigure) => void;
}

interface Span {
  from: number;
  to: number;
  /** Of the chosen opening. */
  own: boolean;
  edit: { what: string; label: string; choices: () => readonly FigureChoice[] } | null;
}

export function Strings({ view, width, length, height, boxes, chosen, axes, units, document, element, onEdit }: StringsProps) {
  const row = rowOf(boxes, chosen);
  const measures = stringAlong(row, length);
  const size = (box: Box, which: 'width' | 'height'): Span['edit'] => ({ what: which, label: which === 'width' ? 'Width of the opening' : 'Height of the opening', choices: () => sizeChoices(document, box, which) });
  const spans = measures.map((measure): Span => ({ from: measure.from, to: measure.to, own: isOwn(measure, chosen), edit: editOf(measure) }));
  const axisSpans = between([0, ...axes.map((axis) => axis.s).filter((s) => s > 0 && s < length), length]).map(
    (span): Span => ({ ...span, edit: { what: 'bay', label: 'Between axes', choices: () => axisChoices(document, axes, span.from, span.to) } }),
  );
  function editOf(measure: Measure): Span['edit'] {
    if (measure.kind === 'opening') {
      const box = row.find(({ id }) => id === measure.opening);
      // Openings that overlap or hang over the end are not shown in their full width.
      return box && Math.abs(measure.to - measure.from - box.width) < 1e-6 ? size(box, 'width') : null;
    }
    const { before, after, from, to } = measure;
    const [what, label] = chosen && after === chosen.id ? ['before', 'Pier before it'] : chosen && before === chosen.id ? ['after', 'Pier after it'] : ['pier', 'Pier'];
    return { what, label, choices: () => pierChoices(document, row, before, after, to - from, length, chosen?.id ?? null) };
  }
  // Clear of an opening that hangs over the end, as long as the sheet has room.
  const beyond = Math.max(0, chosen ? chosen.s + chosen.width - length : 0) * view.scale;
  // Room is left for both strings where there are two.
  const room = width - xOf(view, length) - (chosen && chosen.s < length ? 90 : 44);
  const right = xOf(view, length) + 30 + Math.max(0, Math.min(beyond, room));
  const upright: Span[] = chosen && chosen.s < length && chosen.s + chosen.width > 0
    ? [
        { from: 0, to: chosen.t, own: true, edit: { what: 'sill', label: 'Base to sill', choices: () => levelChoices(document, chosen, 'sill', chosen.t) } },
        { from: chosen.t, to: chosen.t + chosen.height, own: true, edit: size(chosen, 'height') },
        { from: chosen.t + chosen.height, to: height, own: true, edit: { what: 'head', label: 'Head to top', choices: () => levelChoices(document, chosen, 'head', height - chosen.t - chosen.height) } },
      ].filter((span) => Math.abs(span.to - span.from) > 1e-6)
    : [];
  const about = chosen ? `through ${chosen.mark}` : row.length > 0 ? `through ${row.length} in a row` : '';
  const strings = [
    ...(row.length > 0 ? [{ spans, about }] : []),
    ...(axes.length > 0 ? [{ spans: axisSpans, about: 'axes' }] : []),
    { spans: between([0, length]).map((span): Span => ({ ...span, edit: lengthChoices(element).length === 0 ? null : { what: 'length', label: 'Length of the wall', choices: () => lengthChoices(element) } })), about: 'overall' },
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
      <Upright spans={[{ from: 0, to: height, own: false, edit: heightChoices(element).length === 0 ? null : { what: 'height', label: 'Height of the wall', choices: () => heightChoices(element) } }]} x={right + (upright.length > 0 ? 48 : 0)} view={view} units={units} onEdit={onEdit} />
    </g>
  );
}

function isOwn(measure: Measure, chosen: Box | null): boolean {
  return chosen !== null && [measure.opening, measure.before, measure.after].includes(chosen.id);
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
  const start = () => {
    const choices = edit.choices();
    if (choices.length > 0) onEdit({ what: edit.what, label: edit.label, value: span.to - span.from, x, y, choices });
  };
  return (
    <g
      className={`measure editable${span.own ? ' own' : ''}`}
      role="button"
      tabIndex={span.own || ['bay', 'length', 'height'].includes(edit.what) ? 0 : -1}
      aria-label={`${edit.label}: ${text}. Change it`}
      data-figure={edit.what}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={start}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        event.stopPropagation();
        start();
      }}
    >
      <title>{edit.label}: click to type another</title>
      {children}
    </g>
  );
}
