/** The rings of a drawing, to choose from, with what does not close and where one crosses itself. */
import type { Drawing } from '@yard-arch/core/drawing';
import type { OutlinePoint } from '@yard-arch/document';

interface DrawnRingsProps {
  drawing: Drawing;
  chosen: number;
  /** In the drawing's units. */
  crossing: readonly [number, number] | null;
  onChoose: (ring: number) => void;
}

const [width, height, margin] = [640, 280, 14];

export function DrawnRings({ drawing, chosen, crossing, onChoose }: DrawnRingsProps) {
  const { rings, open } = drawing;
  const xs = [
    ...rings.flatMap(({ box }) => [box[0], box[2]]),
    ...open.flatMap(({ points }) => points.map(({ x }) => x)),
  ];
  const ys = [
    ...rings.flatMap(({ box }) => [box[1], box[3]]),
    ...open.flatMap(({ points }) => points.map(({ y }) => y)),
  ];
  const [left, right, low, high] = [least(xs), -least(xs.map((x) => -x)), least(ys), -least(ys.map((y) => -y))];
  const scale = Math.min((width - 2 * margin) / (right - left || 1), (height - 2 * margin) / (high - low || 1));
  const [dx, dy] = [(width - (right - left) * scale) / 2, (height - (high - low) * scale) / 2];
  const at = (x: number, y: number): [number, number] => [dx + (x - left) * scale, dy + (high - y) * scale];
  const path = (points: readonly OutlinePoint[], closed: boolean): string => pathOf(points, closed, at, scale);
  const kindOf = (i: number): string => (i === chosen ? 'outline' : rings[i]!.within === chosen ? 'island' : 'other');
  return (
    <svg className="rings" viewBox={`0 0 ${width} ${height}`} role="group" aria-label="What is drawn">
      {rings.map(({ outline }, i) => (
        <path
          key={i}
          className={kindOf(i)}
          d={path(outline, true)}
          role="button"
          tabIndex={0}
          aria-pressed={i === chosen}
          aria-label={`Ring ${i + 1} of ${rings.length}`}
          onClick={() => onChoose(i)}
          onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && onChoose(i)}
        />
      ))}
      {open.map(({ points, ends }, i) => (
        <g key={i} className="open">
          <path d={path(points, false)} />
          {ends.map(([x, y], k) => {
            const [cx, cy] = at(x, y);
            return <circle key={k} cx={cx} cy={cy} r={4} />;
          })}
        </g>
      ))}
      {crossing && <circle className="crossing" cx={at(...crossing)[0]} cy={at(...crossing)[1]} r={9} />}
    </svg>
  );
}

const least = (values: readonly number[]): number => values.reduce((low, value) => Math.min(low, value), Infinity);

/** Points with arcs as the text of a path. */
export function pathOf(
  points: readonly OutlinePoint[],
  closed: boolean,
  at: (x: number, y: number) => [number, number],
  scale: number,
): string {
  const steps = points.map(({ x, y }, i) => {
    const to = at(x, y)
      .map((value) => value.toFixed(2))
      .join(' ');
    const last = points[i - 1];
    return last ? `${stepTo(last, { x, y }, scale)}${to}` : `M${to}`;
  });
  if (!closed) return steps.join('');
  const first = at(points[0]!.x, points[0]!.y);
  return `${steps.join('')}${stepTo(points.at(-1)!, points[0]!, scale)}${first[0]} ${first[1]}Z`;
}

function stepTo({ x, y, bulge = 0 }: OutlinePoint, to: OutlinePoint, scale: number): string {
  if (bulge === 0) return 'L';
  const chord = Math.hypot(to.x - x, to.y - y);
  const r = ((chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge))) * scale;
  return `A${r} ${r} 0 ${Math.abs(bulge) > 1 ? 1 : 0} ${bulge > 0 ? 0 : 1} `;
}
