/** Outlines point by point: where each stands, and by how much the edge that leaves it bends. */
import {
  formatLength,
  parseLength,
  unitsLabel,
  type FreeOutline,
  type OutlinePoint,
  type Units,
} from '@yard-arch/document';
import { Plus, X } from 'lucide-react';
import { Cell } from '../fields/Fields.tsx';

interface OutlineProps {
  label: string;
  outline: FreeOutline;
  units: Units;
  /** What is told across and up, where that is not along and up. */
  ways?: readonly [string, string];
  onChange: (outline: FreeOutline) => boolean;
  onRemove?: () => void;
}

/** How far the edge that leaves a point turns, degrees. */
const bendOf = ({ bulge = 0 }: OutlinePoint): number => (4 * Math.atan(bulge) * 180) / Math.PI;

/** An outline with another point half way along the edge that leaves one. */
function inserted(outline: FreeOutline, i: number): FreeOutline {
  const [a, b] = [outline[i]!, outline[(i + 1) % outline.length]!];
  const bulge = a.bulge ?? 0;
  // On an arc half way round, and each half bends by half as much.
  const half = bulge === 0 ? {} : { bulge: Math.tan(Math.atan(bulge) / 2) };
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const middle = { x: (a.x + b.x) / 2 + (bulge * dy) / 2, y: (a.y + b.y) / 2 - (bulge * dx) / 2, ...half };
  return [...outline.slice(0, i), { x: a.x, y: a.y, ...half }, middle, ...outline.slice(i + 1)];
}

export function OutlineFields(props: OutlineProps) {
  const { label, outline, ways = ['along', 'up'], onRemove } = props;
  return (
    <table className="points" aria-label={label}>
      <caption className={onRemove ? undefined : 'unseen'}>
        {label}
        {onRemove && (
          <button className="link" onClick={onRemove}>
            remove
          </button>
        )}
      </caption>
      <thead>
        <tr>
          <th scope="col">
            <span className="unseen">Point</span>
          </th>
          <th scope="col">{ways[0]}</th>
          <th scope="col">{ways[1]}</th>
          <th scope="col" title="By how much the edge that leaves the point turns; more than 0 bulges out">
            bends
          </th>
          <th>
            <span className="unseen">Add or remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {outline.map((_, i) => (
          <PointRow key={i} {...props} ways={ways} i={i} />
        ))}
      </tbody>
    </table>
  );
}

/** A point of an outline: where it stands, and by how much the edge that leaves it bends. */
function PointRow({
  label,
  outline,
  units,
  ways,
  onChange,
  i,
}: OutlineProps & { ways: readonly [string, string]; i: number }) {
  const point = outline[i]!;
  const set = (over: Partial<OutlinePoint>): string | null => {
    const next = outline.map((other, k) => (k === i ? { ...other, ...over } : other));
    if (next[i]!.bulge === 0) delete next[i]!.bulge;
    return onChange(next) ? null : 'This was not changed.';
  };
  const length = (text: string, way: 'x' | 'y'): string | null => {
    const metres = parseLength(text, units);
    return metres === null ? `“${text}” is not a length. Try 1400, 1.4 m or 4' 7 1/8".` : set({ [way]: metres });
  };
  const bend = (text: string): string | null => {
    const degrees = Number(text.replace('°', '').replace('−', '-').replace(',', '.').trim());
    if (!Number.isFinite(degrees) || Math.abs(degrees) > 345)
      return 'An edge bends by -345 to 345 degrees; 0 is straight.';
    return set({ bulge: Math.tan((degrees * Math.PI) / 720) });
  };
  const least = outline.some(({ bulge }) => bulge) ? 2 : 3;
  return (
    <tr>
      <th scope="row">{i + 1}</th>
      {(['x', 'y'] as const).map((way, k) => (
        <td key={way}>
          <Cell
            label={`${label}, point ${i + 1} ${ways[k]}`}
            shown={formatLength(point[way], units)}
            hint={`In ${unitsLabel(units)}`}
            onType={(text) => length(text, way)}
          />
        </td>
      ))}
      <td>
        <Cell
          label={`${label}, edge ${i + 1} bends by`}
          shown={`${Number(bendOf(point).toFixed(2))}°`}
          hint="In degrees; 180 is a half circle"
          onType={bend}
        />
      </td>
      <td>
        <button
          onClick={() => onChange(inserted(outline, i))}
          aria-label={`${label}, add a point after point ${i + 1}`}
          title="Add a point on this edge"
        >
          <Plus size={13} />
        </button>
        {outline.length > least && (
          <button
            onClick={() => onChange(outline.filter((_, k) => k !== i))}
            aria-label={`${label}, remove point ${i + 1}`}
            title="Remove this point"
          >
            <X size={13} />
          </button>
        )}
      </td>
    </tr>
  );
}

interface OutlinesProps {
  outline: FreeOutline;
  inner: readonly FreeOutline[];
  /** What those within are called, in lower case. */
  noun: 'hole' | 'island';
  units: Units;
  onOutline: (outline: FreeOutline) => boolean;
  /** @param inner undefined where none is left. */
  onInner: (inner: FreeOutline[] | undefined, what: string) => boolean;
}

/** An outline with what is left out of it or left standing in it. */
export function OutlinesFields({ outline, inner, noun, units, onOutline, onInner }: OutlinesProps) {
  const put = (next: FreeOutline[], what: string): boolean => onInner(next.length > 0 ? next : undefined, what);
  const article = noun === 'island' ? 'an' : 'a';
  return (
    <details className="reveal" open={outline.length <= 12}>
      <summary>
        Outline, {outline.length} points
        {inner.length > 0 ? `, ${inner.length} ${noun}${inner.length === 1 ? '' : 's'}` : ''}
      </summary>
      <OutlineFields label="Outline" outline={outline} units={units} onChange={onOutline} />
      {inner.map((ring, i) => (
        <OutlineFields
          key={i}
          label={`${noun === 'island' ? 'Island' : 'Hole'} ${i + 1}`}
          outline={ring}
          units={units}
          onChange={(next) =>
            put(
              inner.map((other, k) => (k === i ? next : other)),
              'redraw',
            )
          }
          onRemove={() =>
            put(
              inner.filter((_, k) => k !== i),
              `take ${article} ${noun} from`,
            )
          }
        />
      ))}
      <button className="link" onClick={() => put([...inner, squareWithin(outline)], `add ${article} ${noun} to`)}>
        add {article} {noun}
      </button>
    </details>
  );
}

/** A square hole or island in the middle of an outline, to begin with. */
function squareWithin(outline: FreeOutline): FreeOutline {
  const [xs, ys] = [outline.map(({ x }) => x), outline.map(({ y }) => y)];
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const half = Math.min(right - left, high - low) / 8;
  const [x, y] = [(left + right) / 2, (low + high) / 2];
  return [
    { x: x - half, y: y - half },
    { x: x + half, y: y - half },
    { x: x + half, y: y + half },
    { x: x - half, y: y + half },
  ];
}
