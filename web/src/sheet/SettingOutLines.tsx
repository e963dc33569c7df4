/** Datums and axes, as they stand on the sheet: chosen by click or Enter, dragged, nudged by arrow keys. */
import { formatLength, type Units } from '@yard-arch/document';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';

interface LinesProps {
  view: Viewport;
  length: number;
  height: number;
  datums: readonly { id: string; name: string; level: number; t: number }[];
  axes: readonly { id: string; name: string; s: number }[];
  /** The axis that the chosen opening is held to. */
  heldAxis: string | null;
  /** The line that is chosen itself. */
  chosen: string | null;
  units: Units;
}

export function SettingOutLines({ view, length, height, datums, axes, heldAxis, chosen, units }: LinesProps) {
  const left = xOf(view, 0);
  const right = xOf(view, length);
  const top = yOf(view, height);
  // Marks that stand close are pushed apart, lowest first.
  let last = Infinity;
  const marks = [...datums]
    .sort((a, b) => a.t - b.t)
    .map((datum) => {
      const y = yOf(view, datum.t);
      const at = Math.min(y, last - 30);
      last = at;
      return { ...datum, y, at };
    });
  return (
    <g>
      {marks.map(({ id, name, level, y, at }) => (
        <g
          key={id}
          className={`datum${id === chosen ? ' chosen' : ''}`}
          data-line={`datum ${id}`}
          role="button"
          tabIndex={0}
          aria-label={`Datum ${name}, ${formatLength(level, units)}`}
          aria-pressed={id === chosen}
        >
          <line x1={left - 26} x2={right + 8} y1={y} y2={y} />
          {at !== y && (
            <path d={`M${left - 36} ${at - 4}L${left - 26} ${y}`} stroke="var(--brick)" fill="none" strokeWidth="0.8" />
          )}
          <path d={`M${left - 36} ${at - 9}h10l-5 9z`} fill="var(--brick)" />
          <text className="level" x={left - 42} y={at - 2} textAnchor="end">
            {formatLength(level, units)}
          </text>
          <text className="name" x={left - 42} y={at + 10} textAnchor="end">
            {name}
          </text>
          <rect className="grip" x={left - 106} y={at - 14} width="84" height="28" />
        </g>
      ))}
      {axes.map(({ id, name, s }) => {
        const x = xOf(view, s);
        return (
          <g
            key={id}
            className={`axis${id === heldAxis || id === chosen ? ' chosen' : ''}`}
            data-line={`axis ${id}`}
            role="button"
            tabIndex={0}
            aria-label={`Axis ${name}, ${formatLength(s, units)} along`}
            aria-pressed={id === chosen}
          >
            {id === chosen && <line className="through" x1={x} x2={x} y1={top - 10} y2={yOf(view, 0)} />}
            <line x1={x} x2={x} y1={top - 10} y2={top - 24} />
            <circle cx={x} cy={top - 35} r="11" />
            <text x={x} y={top - 31}>
              {name}
            </text>
          </g>
        );
      })}
    </g>
  );
}
