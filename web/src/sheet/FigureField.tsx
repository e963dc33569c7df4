/** The field that opens over a figure on the sheet, with the choice of what gives way. */
import type { EditedFigure } from './edited-figure.ts';
import { parseLength, unitsLabel, formatLength, type Units } from '@yard-arch/document';
import type { FigureChoice } from '@yard-arch/edit';
import { useEffect, useId, useRef, useState } from 'react';

interface FigureFieldProps {
  figure: EditedFigure;
  units: Units;
  /** Whether others have changed the project since it was opened. */
  meanwhile: boolean;
  /** Called with metres. @returns why that cannot be, or null. */
  onDone: (value: number, choice: FigureChoice) => string | null;
  onClose: () => void;
}

/** What gave way the last time, by what the figure measured. */
const lastChoice = new Map<string, number>();

export function FigureField({ figure, units, meanwhile, onDone, onClose }: FigureFieldProps) {
  const { choices, what } = figure;
  // What stood there when it was opened: with nothing typed nothing is written.
  const [shown] = useState(() => formatLength(figure.value, units));
  const [text, setText] = useState(shown);
  const [first] = useState(() => Math.min(lastChoice.get(what) ?? 0, choices.length - 1));
  const [chosen, setChosen] = useState(first);
  const [refusal, setRefusal] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const group = useId();
  useEffect(() => field.current?.select(), []);
  const value = parseLength(text, units);
  return (
    <div
      ref={box}
      className="figure-field"
      style={{ left: figure.x, top: figure.y }}
      onBlur={(event) => !box.current?.contains(event.relatedTarget) && onClose()}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onClose();
        if (event.key === 'Enter' && text === shown && chosen === first) onClose();
        else if (event.key === 'Enter' && value !== null) {
          lastChoice.set(what, chosen);
          setRefusal(onDone(value, choices[chosen]!));
        }
      }}
    >
      <label>
        {figure.label}
        <input
          ref={field}
          autoFocus
          value={text}
          aria-invalid={value === null}
          aria-label={`${figure.label} in ${unitsLabel(units)}`}
          onChange={(event) => {
            setText(event.target.value);
            setRefusal(null);
          }}
        />
      </label>
      {choices.length > 1 && (
        <fieldset aria-label="What gives way">
          {choices.map(({ label }, i) => (
            <label key={label} className="way">
              <input type="radio" name={group} checked={chosen === i} onChange={() => setChosen(i)} />
              {label}
            </label>
          ))}
        </fieldset>
      )}
      {meanwhile && <span role="status">The project was changed meanwhile; this figure is as it was.</span>}
      {value === null && <span role="alert">Not a length. Try 1400, 1.4 m or 4&apos; 7 1/8&quot;</span>}
      {refusal && <span role="alert">{refusal}</span>}
    </div>
  );
}
