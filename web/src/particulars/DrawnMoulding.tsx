/** A moulding that is drawn: its section as it is cut through, drawn anew or read from a drawing, and point by point. */
import type { Moulding, Units } from '@yard-arch/document';
import { pathOf } from '../fields/DrawnRings.tsx';
import { OutlineFields } from './OutlineFields.tsx';
import { Redrawing } from './Redrawing.tsx';

type Drawn = Extract<Moulding, { kind: 'drawn' }>;

interface DrawnMouldingProps {
  moulding: Drawn;
  units: Units;
  onChange: (moulding: Drawn) => boolean;
}

const hint =
  'Draw it as it is cut through: its front below, the opening on its right, its left side and its back straight.';

export function DrawnMoulding({ moulding, units, onChange }: DrawnMouldingProps) {
  return (
    <details className="reveal" open={moulding.outline.length <= 8}>
      <summary>Section, {moulding.outline.length} points</summary>
      <Picture outline={moulding.outline} />
      <OutlineFields
        label="Section"
        outline={moulding.outline}
        units={units}
        ways={['across', 'deep']}
        onChange={(outline) => onChange({ kind: 'drawn', outline })}
      />
      <Redrawing
        units={units}
        confirm="Take this section"
        onDrawn={({ outline }) => onChange({ kind: 'drawn', outline })}
        scale="moulding"
        hint={hint}
      />
    </details>
  );
}

const size = { width: 120, height: 72 };

/** The section, its front below. */
function Picture({ outline }: { outline: Drawn['outline'] }) {
  const [xs, ys] = [outline.map(({ x }) => x), outline.map(({ y }) => y)];
  const [left, low] = [Math.min(...xs), Math.min(...ys)];
  const scale = 0.8 * Math.min(size.width / (Math.max(...xs) - left), size.height / (Math.max(...ys) - low));
  const at = (x: number, y: number): [number, number] => [10 + (x - left) * scale, size.height - 7 - (y - low) * scale];
  return (
    <svg
      className="moulding"
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label="Its section, the front below"
    >
      <path d={pathOf(outline, true, at, scale)} />
    </svg>
  );
}
