/** The field that opens over a figure on the sheet. */
import { parseLength, unitsLabel, formatLength, type Units } from '@yard-arch/document';
import { useEffect, useRef, useState } from 'react';
import type { EditedFigure } from './Strings.tsx';

interface FigureFieldProps {
  figure: EditedFigure;
  units: Units;
  /** Called with metres. */
  onDone: (value: number) => void;
  onClose: () => void;
}

export function FigureField({ figure, units, onDone, onClose }: FigureFieldProps) {
  const [text, setText] = useState(formatLength(figure.value, units));
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.select(), []);
  const value = parseLength(text, units);
  return (
    <div className="figure-field" style={{ left: figure.x, top: figure.y }}>
      <label>
        {figure.label}
        <input
          ref={field}
          autoFocus
          value={text}
          aria-invalid={value === null}
          aria-label={`${figure.label} in ${unitsLabel(units)}`}
          onChange={(event) => setText(event.target.value)}
          onBlur={onClose}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Escape') onClose();
            if (event.key === 'Enter' && value !== null) onDone(value);
          }}
        />
      </label>
      {value === null && <span role="alert">Not a length. Try 1400, 1.4 m or 4&apos; 7 1/8&quot;</span>}
    </div>
  );
}
