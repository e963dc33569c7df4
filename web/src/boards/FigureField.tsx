/** The field that opens over a figure on the sheet, with the choice of what gives way. */
import type { EditedFigure } from './edited-figure.ts';
import { parseLength, unitsLabel, formatLength, type Units } from '@yard-arch/document';
import type { FigureChoice } from '@yard-arch/edit';
import { useEffect, useId, useLayoutEffect, useRef, useState } from 'react';

interface FigureFieldProps {
  figure: EditedFigure;
  units: Units;
  /** Whether others have changed the project since it was opened. */
  meanwhile: boolean;
  /** Called with metres. @returns why that cannot be, or null. */
  onDone: (value: number, choice: FigureChoice) => string | null;
  onClose: () => void;
  /** Shows what a value would do, before it is done. */
  onShow: (value: number, choice: FigureChoice) => void;
}

/** What gave way the last time, by what the figure measured. */
const lastChoice = new Map<string, number>();

export function FigureField({ figure, units, meanwhile, onDone, onClose, onShow }: FigureFieldProps) {
  const { choices, what, drawn } = figure;
  // What stood there when it was opened: with nothing typed nothing is written.
  const [shown] = useState(() => formatLength(figure.value, units));
  const [text, setText] = useState(figure.text ?? shown);
  const [first] = useState(() => Math.min(lastChoice.get(what) ?? 0, choices.length - 1));
  const [chosen, setChosen] = useState(first);
  const [refusal, setRefusal] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const group = useId();
  useEffect(() => {
    if (figure.text === undefined) field.current?.select();
  }, [figure.text]);
  // What was drawn is kept to the last bit until something else is typed.
  const value = drawn && text === shown ? figure.value : parseLength(text, units);
  const show = useRef(onShow);
  useLayoutEffect(() => {
    show.current = onShow;
  });
  useEffect(() => {
    if (drawn && value !== null) show.current(value, choices[chosen]!);
  }, [drawn, value, choices, chosen]);
  const take = (): void => {
    if (value === null) return;
    lastChoice.set(what, chosen);
    setRefusal(onDone(value, choices[chosen]!));
  };
  return (
    <div
      ref={box}
      className="figure-field"
      style={{ left: figure.x, top: figure.y }}
      onBlur={(event) => {
        if (box.current?.contains(event.relatedTarget)) return;
        // What was drawn by hand is not lost by clicking elsewhere.
        if (drawn && value !== null && refusal === null) take();
        else onClose();
      }}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onClose();
        if (event.key === 'Enter' && text === shown && chosen === first && !drawn) onClose();
        else if (event.key === 'Enter') take();
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
