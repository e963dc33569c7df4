/** A chain of dimensions on a detail sheet, level or upright; figures that can be typed anew are underlined. */
import { formatLength, type Units } from '@yard-arch/document';
import type { EditedFigure } from '../boards/edited-figure.ts';
import type { Span } from './detail.ts';

interface ChainProps {
  spans: readonly Span[];
  units: Units;
  /** Where it stands: its line's height, or for an upright one its place along; pixels. */
  at: number;
  /** Where on the sheet a metre from the chain's own origin is. */
  place: (metres: number) => number;
  upright?: boolean;
  onEdit: (figure: EditedFigure) => void;
}

/** So wide a figure is taken to be, pixels for each of its characters. */
const wide = 6.2;

export function Chain({ spans, units, at, place, upright = false, onEdit }: ChainProps) {
  const ends = [...new Set(spans.flatMap(({ from, to }) => [from, to]))];
  // Figures too wide for their spans are set further off by turns.
  let off = false;
  return (
    <g className="string">
      {spans.length > 0 && <line {...line(place(Math.min(...ends)), place(Math.max(...ends)), at, upright)} />}
      {ends.map((end) => {
        const [x, y] = upright ? [at, place(end)] : [place(end), at];
        return <path key={end} className="tick" d={`M${x - 4} ${y + 4}L${x + 4} ${y - 4}`} />;
      })}
      {spans.map(({ from, to, edit }) => {
        const text = formatLength(to - from, units);
        const room = Math.abs(place(to) - place(from));
        off = room < text.length * wide + 4 ? !off : false;
        const middle = (place(from) + place(to)) / 2;
        const [x, y] = upright ? [at - (off ? 18 : 6), middle] : [middle, at - (off ? 17 : 5)];
        const open = (): void => {
          if (edit) onEdit({ what: edit.what, label: edit.label, value: to - from, x, y, choices: edit.choices() });
        };
        return (
          <g
            key={`${from} ${to}`}
            className={`measure${edit ? ' editable own' : ''}`}
            {...(edit
              ? {
                  role: 'button',
                  tabIndex: 0,
                  'aria-label': `${edit.label}, ${text}`,
                  onClick: open,
                  onKeyDown: (event: React.KeyboardEvent) => event.key === 'Enter' && open(),
                }
              : {})}
          >
            <text transform={upright ? `translate(${x} ${y}) rotate(-90)` : `translate(${x} ${y})`}>{text}</text>
          </g>
        );
      })}
    </g>
  );
}

const line = (from: number, to: number, at: number, upright: boolean) =>
  upright ? { x1: at, x2: at, y1: from, y2: to } : { x1: from, x2: to, y1: at, y2: at };
