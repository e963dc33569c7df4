/** Dimension strings as they stand on a drawing: ticks, lines and figures, those of the chosen opening to be edited where they stand. */
import { rowOf, stringAlong, type Box, type Measure } from '@yard-arch/core';
import { formatLength, type Element, type FaceName, type ProjectDocument, type Units } from '@yard-arch/document';
import {
  axisChoices,
  type FigureChoice,
  heightChoices,
  lengthChoices,
  levelChoices,
  pierChoices,
  sizeChoices,
} from '@yard-arch/edit';
import { memo, useCallback, useLayoutEffect, useRef } from 'react';
import type { EditedFigure } from '../boards/edited-figure.ts';
import { footroom, headroom, layFigures, type Manner } from './figures.ts';
import { stretchesOf, type SpanKind } from './stretches.ts';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';

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
  face: FaceName;
  onEdit: (figure: EditedFigure) => void;
}

interface Span {
  from: number;
  to: number;
  kind: SpanKind;
  /** Of the chosen opening. */
  own: boolean;
  edit: { what: string; label: string; choices: () => readonly FigureChoice[] } | null;
}

/** Spans in a line, and what they go through. */
interface Line {
  spans: readonly Span[];
  about: string;
}

export const Strings = memo(function Strings(props: StringsProps) {
  const { view, height, units, chosen, element, onEdit } = props;
  const upright = uprightSpans(props);
  const right = uprightAt(props);
  const choices = heightChoices(element);
  const edit = choices.length === 0 ? null : { what: 'height', label: 'Height of the wall', choices: () => choices };
  return (
    <g>
      {laidOut([...throughRow(props), ...throughAxes(props), overall(props)], props).map((line) => (
        <Level key={line.about} {...line} view={view} units={units} onEdit={onEdit} />
      ))}
      {chosen && upright.length > 0 && <Upright spans={upright} x={right} view={view} units={units} onEdit={onEdit} />}
      <Upright
        spans={[{ from: 0, to: height, kind: 'pier', own: false, edit }]}
        x={right + (upright.length > 0 ? 48 : 0)}
        view={view}
        units={units}
        onEdit={onEdit}
      />
    </g>
  );
});

/** The string through the chosen opening and those in a row with it, or through the first row. */
function throughRow(props: StringsProps): Line[] {
  const { boxes, chosen, length } = props;
  const row = rowOf(boxes, chosen);
  if (row.length === 0) return [];
  const spans = stringAlong(row, length).map((measure): Span => ({
    from: measure.from,
    to: measure.to,
    kind: measure.kind,
    own: isOwn(measure, chosen),
    edit: rowEdit(measure, row, props),
  }));
  return [{ spans, about: chosen ? `through ${chosen.mark}` : `through ${row.length} in a row` }];
}

/** What a figure of that string changes: an opening's width, or a pier. */
function rowEdit(measure: Measure, row: readonly Box[], { document, chosen, length }: StringsProps): Span['edit'] {
  if (measure.kind === 'opening') {
    const box = row.find(({ id }) => id === measure.opening);
    // Openings that overlap or hang over the end are not shown in their full width.
    return box && Math.abs(measure.to - measure.from - box.width) < 1e-6 ? sizeEdit(document, box, 'width') : null;
  }
  const { before, after, from, to } = measure;
  const [what, label] =
    chosen && after === chosen.id
      ? ['before', 'Pier before it']
      : chosen && before === chosen.id
        ? ['after', 'Pier after it']
        : ['pier', 'Pier'];
  const asked = { row, before, after, value: to - from, length, chosen: chosen?.id ?? null };
  return { what, label, choices: () => pierChoices(document, asked) };
}

const sizeEdit = (document: ProjectDocument, box: Box, which: 'width' | 'height'): Span['edit'] => ({
  what: which,
  label: which === 'width' ? 'Width of the opening' : 'Height of the opening',
  choices: () => sizeChoices(document, box, which),
});

function throughAxes({ document, element, face, axes, length }: StringsProps): Line[] {
  if (axes.length === 0) return [];
  const stops = [0, ...axes.map((axis) => axis.s).filter((s) => s > 0 && s < length), length];
  const spans = between(stops).map((span): Span => {
    const asked = { element, face, axes, from: span.from, to: span.to };
    return {
      ...span,
      edit: { what: 'bay', label: 'Between axes', choices: () => axisChoices(document, asked) },
    };
  });
  return [{ spans, about: 'axes' }];
}

function overall({ element, face, length }: StringsProps): Line {
  const choices = lengthChoices(element, face, length);
  const edit = choices.length === 0 ? null : { what: 'length', label: 'Length of the wall', choices: () => choices };
  return { spans: between([0, length]).map((span) => ({ ...span, edit })), about: 'overall' };
}

/** Level strings below each other, each with the room that its figures take. */
function laidOut(lines: readonly Line[], { view, height, units }: StringsProps): (Line & { y: number })[] {
  let y = Math.max(yOf(view, 0), yOf(view, height)) + 6;
  return lines.map((line) => {
    const shown = shownOf(line.spans, view, units);
    const gaps = shown.map(({ from, to }) => (to - from) * view.scale);
    const texts = shown.map(({ text }) => text);
    const at = y + headroom(gaps, texts);
    y = at + footroom(gaps, texts);
    return { ...line, y: at };
  });
}

/** What has a figure on a string: a span of it, or several that have no room for one each. */
interface Shown extends Span {
  text: string;
  /** Which of the string's spans it is; none where it is several. */
  i: number | null;
}

function shownOf(spans: readonly Span[], view: Viewport, units: Units): Shown[] {
  const measured = spans.map((span) => ({ ...span, size: span.to - span.from }));
  return stretchesOf(measured, view.scale, (metres) => formatLength(metres, units)).map(({ first, last, text }) =>
    first === last
      ? { ...spans[first]!, text, i: first }
      : { ...spans[first]!, to: spans[last]!.to, edit: null, text, i: null },
  );
}

/** The string up through the chosen opening. */
function uprightSpans({ document, chosen, length, height }: StringsProps): Span[] {
  if (!chosen || chosen.s >= length || chosen.s + chosen.width <= 0) return [];
  const head = chosen.t + chosen.height;
  const level = (what: 'sill' | 'head', label: string, value: number): Span['edit'] => ({
    what,
    label,
    choices: () => levelChoices(document, chosen, what, value),
  });
  return [
    { from: 0, to: chosen.t, edit: level('sill', 'Base to sill', chosen.t) },
    { from: chosen.t, to: head, edit: sizeEdit(document, chosen, 'height') },
    { from: head, to: height, edit: level('head', 'Head to top', height - head) },
  ]
    .map((span): Span => ({ ...span, kind: 'pier', own: true }))
    .filter((span) => Math.abs(span.to - span.from) > 1e-6);
}

/** Where upright strings stand: clear of an opening that hangs over the end, as long as the sheet has room. */
function uprightAt({ view, width, length, chosen }: StringsProps): number {
  const beyond = Math.max(0, chosen ? chosen.s + chosen.width - length : 0) * view.scale;
  // Room is left for both strings where there are two.
  const room = width - xOf(view, length) - (chosen && chosen.s < length ? 90 : 44);
  return xOf(view, length) + 30 + Math.max(0, Math.min(beyond, room));
}

function isOwn(measure: Measure, chosen: Box | null): boolean {
  return chosen !== null && [measure.opening, measure.before, measure.after].includes(chosen.id);
}

function between(stops: readonly number[]): Span[] {
  const sorted = [...stops].sort((a, b) => a - b);
  return sorted.slice(1).map((to, i) => ({ from: sorted[i]!, to, kind: 'bay', own: false, edit: null }));
}

interface LineProps {
  spans: readonly Span[];
  view: Viewport;
  units: Units;
  onEdit: (figure: EditedFigure) => void;
}

function Level({ spans, y, about, view, units, onEdit }: LineProps & { y: number; about: string }) {
  const start = useStart(spans, onEdit);
  if (spans.length === 0) return null;
  const xs = [spans[0]!.from, ...spans.map((span) => span.to)].map((s) => xOf(view, s));
  const shown = shownOf(spans, view, units);
  const figures = layFigures(
    shown.map(({ from, to }) => (to - from) * view.scale),
    shown.map(({ text }) => text),
  );
  return (
    <g className="string">
      <line x1={xs[0]! - 5} x2={xs.at(-1)! + 5} y1={y} y2={y} />
      <path className="tick" d={ticks(apart(xs).map((x) => [x, y]))} />
      <text className="about" x={xs[0]! - 14} y={y + 4}>
        {about}
      </text>
      {shown.map(({ i, from, to, text, own, edit }, k) => (
        <Figure
          key={i ?? `from ${k}`}
          i={i ?? -1}
          text={text}
          own={own}
          what={edit?.what}
          label={edit?.label}
          x={(xOf(view, from) + xOf(view, to)) / 2}
          y={y}
          manner={figures[k]!.manner}
          step={figures[k]!.step}
          start={start}
        />
      ))}
    </g>
  );
}

/** How near to each other strokes can stand and still be told apart, pixels. */
const nearest = 3;

/** Places but for those that are too near to the one before; the last one always. */
function apart(xs: readonly number[]): number[] {
  const kept: number[] = [];
  for (const [i, x] of xs.entries()) if (i === 0 || i === xs.length - 1 || x - kept.at(-1)! >= nearest) kept.push(x);
  return kept;
}

function Upright({ spans, x, view, units, onEdit }: LineProps & { x: number }) {
  const start = useStart(spans, onEdit);
  const ys = [spans[0]!.from, ...spans.map((span) => span.to)].map((t) => yOf(view, t));
  return (
    <g className="string">
      <line x1={x} x2={x} y1={ys[0]! + 5} y2={ys.at(-1)! - 5} />
      <path className="tick" d={ticks(ys.map((y) => [x, y]))} />
      {spans.map(({ from, to, own, edit }, i) => {
        const text = formatLength(to - from, units);
        const narrow = Math.abs(ys[i]! - ys[i + 1]!) < text.length * 6.2 + 6;
        return (
          <Figure
            key={i}
            i={i}
            text={text}
            own={own}
            what={edit?.what}
            label={edit?.label}
            x={x}
            y={(ys[i]! + ys[i + 1]!) / 2}
            manner={narrow ? 'beside' : 'along'}
            step={0}
            start={start}
          />
        );
      })}
    </g>
  );
}

/** Strokes across a string at the points that it measures between. */
const ticks = (points: readonly (readonly [number, number])[]): string =>
  points.map(([x, y]) => `M${x - 4} ${y + 4}L${x + 4} ${y - 4}`).join('');

/** Begins the editing of a string's figure, where it stands. It stays the same whatever the string measures, so that figures which have not changed are not drawn anew. */
function useStart(spans: readonly Span[], onEdit: LineProps['onEdit']): FigureProps['start'] {
  const latest = useRef({ spans, onEdit });
  useLayoutEffect(() => {
    latest.current = { spans, onEdit };
  });
  return useCallback((i, x, y) => {
    const { from, to, edit } = latest.current.spans[i]!;
    const choices = edit?.choices() ?? [];
    if (edit && choices.length > 0)
      latest.current.onEdit({ what: edit.what, label: edit.label, value: to - from, x, y, choices });
  }, []);
}

interface FigureProps {
  /** Which of its string's; less than none where it tells of several. */
  i: number;
  text: string;
  own: boolean;
  /** What it measures, where it can be edited. */
  what: string | undefined;
  label: string | undefined;
  /** The middle of what it measures, on its string. */
  x: number;
  y: number;
  /** On a level string as it is laid out; on an upright one beside it or along it. */
  manner: Manner | 'beside' | 'along';
  step: number;
  start: (i: number, x: number, y: number) => void;
}

const Figure = memo(function Figure({ i, text, own, what, label, x, y, manner, step, start }: FigureProps) {
  const level = manner === 'beside' || manner === 'along' ? y : y - 6;
  const lines = <FigureText text={text} x={x} y={y} manner={manner} step={step} />;
  if (text === '') return null;
  if (!what)
    return (
      <g className={`measure${own ? ' own' : ''}`}>
        {i < 0 && <title>Zoom in: each has a figure of its own there</title>}
        {lines}
      </g>
    );
  return (
    <g
      className={`measure editable${own ? ' own' : ''}`}
      role="button"
      tabIndex={own || ['bay', 'length', 'height'].includes(what) ? 0 : -1}
      aria-label={`${label}: ${text}. Change it`}
      data-figure={what}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={() => start(i, x, level)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        event.stopPropagation();
        start(i, x, level);
      }}
    >
      <title>{label}: click to type another</title>
      {lines}
    </g>
  );
});

const atStart = { textAnchor: 'start' } as const;
const small = { textAnchor: 'start', fontSize: 11 } as const;
const thin = { strokeWidth: 0.7 };

function FigureText({ text, x, y, manner, step }: Pick<FigureProps, 'text' | 'x' | 'y' | 'manner' | 'step'>) {
  const up = 8 + 12 * step;
  switch (manner) {
    case 'level':
      return (
        <text x={x} y={y - 6}>
          {text}
        </text>
      );
    case 'upright':
      return (
        <text transform={`translate(${x + 4} ${y - 5}) rotate(-90)`} style={small}>
          {text}
        </text>
      );
    case 'lifted':
      return (
        <>
          <line x1={x} y1={y} x2={x + 7} y2={y + up} style={thin} />
          <text x={x + 9} y={y + up + 5} style={small}>
            {text}
          </text>
        </>
      );
    case 'beside':
      return (
        <text x={x + 7} y={y + 4} style={atStart}>
          {text}
        </text>
      );
    case 'along':
      return <text transform={`translate(${x - 6} ${y}) rotate(-90)`}>{text}</text>;
  }
}
