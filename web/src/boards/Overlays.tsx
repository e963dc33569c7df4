/** What stands on the sheet while something is being done: guides, the preview of what is placed, windows, the tape, and reasons in words. */
import type { Placed } from '@yard-arch/core';
import { formatLength, parseLength, unitsLabel, type Units } from '@yard-arch/document';
import { useState } from 'react';
import type { Typing } from './gesture.ts';
import type { Gestures } from './use-gestures.ts';
import { pathOf } from './OpeningShape.tsx';
import type { Ghost, Rectangle, Tape } from './drawn.ts';
import { xOf, yOf, type Viewport } from './viewport.ts';

/** Words beside what they are about, kept within the sheet. */
export function Reason({ x, y, text, width }: { x: number; y: number; text: string; width: number }) {
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

/** The lines that something came into line with. */
export function Guides({
  at,
  view,
  length,
  top,
  base,
}: {
  at: Ghost;
  view: Viewport;
  length: number;
  top: number;
  base: number;
}) {
  return (
    <>
      {at.along && (
        <line className="guide" x1={xOf(view, at.along.at)} x2={xOf(view, at.along.at)} y1={top - 20} y2={base + 20} />
      )}
      {at.up && (
        <line
          className="guide"
          x1={xOf(view, 0) - 24}
          x2={xOf(view, length) + 24}
          y1={yOf(view, at.up.at)}
          y2={yOf(view, at.up.at)}
        />
      )}
    </>
  );
}

/** What would be placed. */
export function GhostShape({ at, outline, view }: { at: Ghost; outline: Placed; view: Viewport }) {
  return (
    <g className="ghost" data-testid="ghost">
      <path
        className="shape"
        d={pathOf(outline.outline)}
        transform={`translate(${xOf(view, at.s)} ${yOf(view, at.t)}) scale(${view.scale} ${-view.scale})`}
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}

/** A window that chooses, or a rectangle that is drawn out to be filled. */
export function Area({
  kind,
  at,
  reason,
  view,
  units,
  width,
}: {
  kind: 'window' | 'draw';
  at: Rectangle;
  reason: string | null;
  view: Viewport;
  units: Units;
  width: number;
}) {
  const [x, y] = [xOf(view, at.s), yOf(view, at.t + at.height)];
  return (
    <g className={`area ${kind}`} data-testid={kind}>
      <rect x={x} y={y} width={at.width * view.scale} height={at.height * view.scale} />
      {kind === 'draw' && (
        <Reason
          x={x + (at.width * view.scale) / 2}
          y={yOf(view, at.t) + 22}
          text={[`${formatLength(at.width, units)} × ${formatLength(at.height, units)}`, reason]
            .filter(Boolean)
            .join(' · ')}
          width={width}
        />
      )}
    </g>
  );
}

/** A tape between two points: the straight distance, and how far that is along and up. */
export function TapeLine({
  tape: { from, to, laid },
  view,
  units,
  width,
}: {
  tape: Tape;
  view: Viewport;
  units: Units;
  width: number;
}) {
  const [x1, y1, x2, y2] = [xOf(view, from.s), yOf(view, from.t), xOf(view, to.s), yOf(view, to.t)];
  const [along, up] = [to.s - from.s, to.t - from.t];
  const text = `${formatLength(Math.hypot(along, up), units)}  ·  ${formatLength(Math.abs(along), units)} along  ·  ${formatLength(Math.abs(up), units)} up`;
  return (
    <g className={`tape${laid ? ' laid' : ''}`} data-testid="tape">
      <line x1={x1} y1={y1} x2={x2} y2={y2} />
      <circle cx={x1} cy={y1} r="3.5" />
      <circle cx={x2} cy={y2} r="3.5" />
      <Reason
        x={(x1 + x2) / 2}
        y={(y1 + y2) / 2 - 14}
        text={to.reason && !laid ? `${text}  ·  ${to.reason}` : text}
        width={width}
      />
    </g>
  );
}

/** Takes figures that are typed while something is dragged or placed. */
export function TypedField({
  gestures,
  typing: { label, hint },
  units,
  onDone,
}: {
  gestures: Pick<Gestures<never>, 'typed' | 'take' | 'giveUp'>;
  typing: Typing;
  units: Units;
  /** Taken or given up: the board has the focus again. */
  onDone: () => void;
}) {
  const [text, setText] = useState(gestures.typed ?? '');
  const [fault, setFault] = useState<string | null>(null);
  const take = (): void => {
    const refused = gestures.take(text);
    setFault(refused);
    if (refused === null) onDone();
  };
  const close = (): void => {
    gestures.giveUp();
    onDone();
  };
  return (
    <div className="typed-field">
      <label>
        {label}
        <input
          autoFocus
          value={text}
          aria-label={`${label}, in ${unitsLabel(units)}`}
          aria-invalid={fault !== null}
          onChange={(event) => {
            setText(event.target.value);
            setFault(null);
          }}
          onBlur={close}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Escape') close();
            if (event.key === 'Enter') take();
          }}
        />
      </label>
      <small>{parseLength(text.split(';')[0]!.trim(), units) === null ? 'a length' : hint}, Enter</small>
      {fault && <span role="alert">{fault}</span>}
    </div>
  );
}
