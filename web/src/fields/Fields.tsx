/** Fields of the particulars: a label, what stands there, and what it is measured from. Each keeps what was typed until it is right. */
import { formatLength, nameSchema, parseLength, smallest, unitsLabel, type Units } from '@yard-arch/document';
import { useId, useState, type ReactNode } from 'react';

export function Row({ label, children, note }: { label: string; children: ReactNode; note?: ReactNode }) {
  return (
    <div className="row">
      <span className="label">{label}</span>
      <div className="value">{children}</div>
      {note !== undefined && <div className="note">{note}</div>}
    </div>
  );
}

interface TypedProps {
  label: string;
  /** The id of a list of what could be typed. */
  list?: string;
  /** Only the figure, in a table whose headings name it. */
  bare?: boolean;
  shown: string;
  note?: ReactNode;
  /** What the field takes, read out and shown on hovering. */
  hint: string;
  /** Takes what was typed. @returns why it cannot be taken, or null. */
  onType: (text: string) => string | null;
  onStep?: (steps: number) => void;
}

function Typed({ label, list, bare, shown, note, hint, onType, onStep }: TypedProps) {
  const id = useId();
  // What was typed, and what stood there when typing began; until then the field follows what it shows.
  const [typed, setTyped] = useState<{ text: string; over: string } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const leave = (): void => {
    setTyped(null);
    setFault(null);
  };
  const take = (): boolean => {
    const why = typed === null || typed.text.trim() === shown.trim() ? null : onType(typed.text);
    if (why === null) leave();
    else setFault(why);
    return why === null;
  };
  const meanwhile = typed !== null && typed.over !== shown;
  const field = (
    <input
      id={id}
      list={list}
      aria-label={bare ? label : undefined}
      value={typed?.text ?? shown}
      title={hint}
      aria-invalid={fault !== null}
      aria-describedby={[fault && `${id}-fault`, meanwhile && `${id}-meanwhile`].filter(Boolean).join(' ') || undefined}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped({ text: event.target.value, over: typed?.over ?? shown })}
      onBlur={() => void take()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        else if (event.key === 'Escape') leave();
        else if (onStep && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
          event.preventDefault();
          if (take()) onStep((event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1));
        }
      }}
    />
  );
  const told = (
    <>
      {meanwhile && (
        <div className="meanwhile" id={`${id}-meanwhile`} role="status">
          It was changed meanwhile, to {shown}. Escape takes that.
        </div>
      )}
      {fault && (
        <div className="fault" id={`${id}-fault`} role="alert">
          {fault}
        </div>
      )}
    </>
  );
  if (bare)
    return (
      <>
        {field}
        {told}
      </>
    );
  return (
    <div className="row">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <div className="value">{field}</div>
      {note !== undefined && <div className="note">{note}</div>}
      {told}
    </div>
  );
}

/** A figure in a table. */
export function Cell(props: Pick<TypedProps, 'label' | 'shown' | 'hint' | 'onType'>) {
  return <Typed bare {...props} />;
}

interface LengthFieldProps {
  label: string;
  /** Metres. */
  value: number;
  units: Units;
  note?: ReactNode;
  /** Whether it must be more than 0. */
  positive?: boolean;
  /** @returns false or a reason when it was refused. */
  onChange: (metres: number) => boolean | string;
}

/** A length, in whatever units it is typed. The arrow keys step it by 10 mm, or with Shift by 100. */
export function LengthField({ label, value, units, note, positive, onChange }: LengthFieldProps) {
  const give = (metres: number): string | null => {
    if (positive && metres < smallest) return `${label} must be more than 0.`;
    const taken = onChange(metres);
    return typeof taken === 'string' ? taken : taken ? null : `${label} was not changed.`;
  };
  return (
    <Typed
      label={label}
      shown={formatLength(value, units)}
      note={note}
      hint={`In ${unitsLabel(units)}, or with its own unit: 1400, 1.4 m, 4' 7 1/8"`}
      onType={(text) => {
        const metres = parseLength(text, units);
        return metres === null ? `“${text}” is not a length. Try 1400, 1.4 m or 4' 7 1/8".` : give(metres);
      }}
      onStep={(steps) => void give(Math.round((value + steps * 0.01) * 1e6) / 1e6)}
    />
  );
}

interface FreeLengthProps {
  label: string;
  /** Metres, or null for what `otherwise` says. */
  value: number | null;
  otherwise: string;
  units: Units;
  onChange: (metres: number | null) => void;
}

/** A length that may be left open. */
export function FreeLength({ label, value, otherwise, units, onChange }: FreeLengthProps) {
  return (
    <Typed
      label={label}
      shown={value === null ? otherwise : formatLength(value, units)}
      hint={`A length in ${unitsLabel(units)}, or nothing for “${otherwise}”`}
      onType={(text) => {
        if (text.trim() === '' || text.trim() === otherwise) {
          onChange(null);
          return null;
        }
        const metres = parseLength(text, units);
        if (metres === null) return `“${text}” is not a length. Leave it empty for “${otherwise}”.`;
        if (metres < 0) return `${label} must not be negative.`;
        onChange(metres);
        return null;
      }}
    />
  );
}

/** A whole number. */
export function CountField({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (count: number) => void;
}) {
  const give = (count: number): string | null => {
    if (!Number.isInteger(count) || count < least || count > most)
      return `${label} must be a whole number from ${least} to ${most}.`;
    onChange(count);
    return null;
  };
  return (
    <Typed
      label={label}
      shown={String(value)}
      hint={`A whole number from ${least} to ${most}`}
      onType={(text) => give(Number(text.trim() || NaN))}
      onStep={(steps) => void give(Math.min(most, Math.max(least, value + steps)))}
    />
  );
}

/** An angle in degrees. */
export function AngleField({
  label,
  value,
  note,
  onChange,
}: {
  label: string;
  value: number;
  note?: ReactNode;
  onChange: (degrees: number) => boolean | string;
}) {
  return (
    <Typed
      label={label}
      shown={`${Number(value.toFixed(4))}°`}
      note={note}
      hint="In degrees, counter-clockwise as seen from above"
      onType={(text) => {
        const degrees = Number(text.replace('°', '').replace('−', '-').replace(',', '.').trim());
        if (text.trim() === '' || !Number.isFinite(degrees)) return `“${text}” is not an angle. Try 90 or -22.5.`;
        if (Math.abs(degrees) > 360) return 'An angle is between -360 and 360 degrees.';
        const taken = onChange(degrees);
        return typeof taken === 'string' ? taken : taken ? null : 'The angle was not changed.';
      }}
      onStep={(steps) => void onChange(Math.max(-360, Math.min(360, value + steps)))}
    />
  );
}

/** A name. */
export function NameField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (name: string) => boolean;
}) {
  return (
    <Typed
      label={label}
      shown={value}
      hint="Up to 120 characters"
      onType={(text) => {
        const checked = nameSchema.safeParse(text);
        if (!checked.success) return `${label} ${checked.error.issues[0]!.message}.`;
        return onChange(checked.data) ? null : `${label} was not changed.`;
      }}
    />
  );
}

/** A name that may be left out, with names that there are already to choose from. */
export function FreeName({
  label,
  value,
  otherwise,
  known,
  onChange,
}: {
  label: string;
  value: string | null;
  otherwise: string;
  known: readonly string[];
  onChange: (name: string | null) => void;
}) {
  const id = useId();
  return (
    <>
      <Typed
        label={label}
        list={id}
        shown={value ?? otherwise}
        hint={`A name, or nothing for “${otherwise}”`}
        onType={(text) => {
          const name = text.trim();
          const checked = name === '' || name === otherwise ? null : nameSchema.safeParse(name);
          if (checked && !checked.success) return `${label} ${checked.error.issues[0]!.message}.`;
          onChange(checked ? checked.data : null);
          return null;
        }}
      />
      <datalist id={id}>
        {known.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  note?: ReactNode;
}

/** One of several. */
export function Choice({ label, value, options, onChange, note }: ChoiceProps) {
  const id = useId();
  return (
    <div className="row">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <div className="value">
        <select id={id} value={value} onChange={(event) => onChange(event.target.value)}>
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      </div>
      {note !== undefined && <div className="note">{note}</div>}
    </div>
  );
}

/** Yes or no. */
export function Tick({
  label,
  value,
  onChange,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  const id = useId();
  return (
    <div className="row">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <div className="value">
        <input
          id={id}
          className="tick"
          type="checkbox"
          checked={value}
          onChange={(event) => onChange(event.target.checked)}
        />
      </div>
    </div>
  );
}
