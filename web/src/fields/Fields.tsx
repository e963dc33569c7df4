/** Fields of the particulars: a label, what stands there, and what it is measured from. Each keeps what was typed until it is right. */
import {
  formatLength,
  limits,
  nameSchema,
  parseLength,
  smallest,
  unitsLabel,
  type Limits,
  type Units,
} from '@yard-arch/document';
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
  /** What its schema takes; any length unless said otherwise. */
  within?: Limits;
  /** @returns false or a reason when it was refused. */
  onChange: (metres: number) => boolean | string;
}

/** A length, in whatever units it is typed. The arrow keys step it by 10 mm, or with Shift by 100. */
export function LengthField({ label, value, units, note, positive, within, onChange }: LengthFieldProps) {
  const give = (metres: number): string | null => {
    const refused = outside(label, metres, within ?? (positive ? limits.extent : limits.coordinate), (limit) =>
      formatLength(limit, units),
    );
    if (refused) return refused;
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

/** Why a figure lies outside its limits, or null. */
function outside(label: string, value: number, { least, most }: Limits, say: (limit: number) => string): string | null {
  if (value < least) return `${label} must be ${least === smallest ? 'more than 0' : `at least ${say(least)}`}.`;
  return value > most ? `${label} must be at most ${say(most)}.` : null;
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
        const refused = outside(label, metres, { least: 0, most: limits.extent.most }, (limit) =>
          formatLength(limit, units),
        );
        if (refused === null) onChange(metres);
        return refused;
      }}
    />
  );
}

/** A whole number. */
export function CountField({
  label,
  value,
  within: { least, most },
  onChange,
}: {
  label: string;
  value: number;
  within: Limits;
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
  within = limits.degrees,
  onChange,
}: {
  label: string;
  value: number;
  note?: ReactNode;
  /** What its schema takes; a whole turn either way unless said otherwise. */
  within?: Limits;
  onChange: (degrees: number) => boolean | string;
}) {
  const give = (degrees: number): string | null => {
    const refused = outside(label, degrees, within, (limit) => `${limit}°`);
    if (refused) return refused;
    const taken = onChange(degrees);
    return typeof taken === 'string' ? taken : taken ? null : `${label} was not changed.`;
  };
  return (
    <Typed
      label={label}
      shown={`${Number(value.toFixed(4))}°`}
      note={note}
      hint="In degrees, counter-clockwise as seen from above"
      onType={(text) => {
        const degrees = Number(text.replace('°', '').replace('−', '-').replace(',', '.').trim());
        if (text.trim() === '' || !Number.isFinite(degrees)) return `“${text}” is not an angle. Try 90 or -22.5.`;
        return give(degrees);
      }}
      onStep={(steps) => void give(Math.max(within.least, Math.min(within.most, value + steps)))}
    />
  );
}

/** A roof's pitch, in degrees; typed so or as rise to span, such as 1:2. */
export function PitchField({
  label,
  value,
  inward = false,
  note,
  onChange,
}: {
  label: string;
  value: number;
  /** Whether it may fall from its edge, told below nothing. */
  inward?: boolean;
  note?: string | undefined;
  onChange: (degrees: number) => boolean;
}) {
  const { least, most } = limits.rising;
  const within = inward ? limits.pitch : limits.rising;
  const give = (degrees: number): string | null => {
    const refused =
      outside(label, degrees, within, (limit) => `${limit}°`) ??
      (Math.abs(degrees) < least ? `${label} must be at least ${least}°, or fall inward by as much.` : null);
    if (refused) return refused;
    return onChange(degrees) ? null : `${label} was not changed.`;
  };
  const span = Number((2 / Math.tan((Math.abs(value) * Math.PI) / 180)).toFixed(2));
  return (
    <Typed
      label={label}
      shown={`${Number(value.toFixed(3))}°`}
      note={note ?? (value < 0 ? 'falls inward from its edge' : `rise to span 1 : ${span}`)}
      hint={`In degrees, or as rise to span: 42, 1:2.2${inward ? '; −12 falls inward' : ''}`}
      onType={(text) => {
        const [rise, span] = text
          .replaceAll('−', '-')
          .split(/[:/]/)
          .map((part) => Number(part.replace('°', '').replace(',', '.').trim()));
        if (span !== undefined && rise! > 0 && span > 0) return give((Math.atan((2 * rise!) / span) * 180) / Math.PI);
        return text.trim() === '' || span !== undefined || !Number.isFinite(rise!)
          ? `“${text}” is not a pitch. Try 42, or rise to span: 1:2.2.`
          : give(rise!);
      }}
      onStep={(steps) => {
        // From what rises to what falls there is nothing between.
        const next = value + steps;
        const to = Math.abs(next) < least ? least * Math.sign(inward ? next || steps : 1) : next;
        void give(Math.max(inward ? -most : least, Math.min(most, to)));
      }}
    />
  );
}

interface ShareFieldProps {
  label: string;
  /** From 0 to 1. */
  value: number;
  note?: ReactNode;
  /** Whether it may be nothing, or all. */
  ends?: boolean;
  onChange: (share: number) => boolean;
}

/** A share of something, typed in per cent. */
export function ShareField({ label, value, note, ends = false, onChange }: ShareFieldProps) {
  const give = (percent: number): string | null => {
    if (ends && !(percent >= 0 && percent <= 100)) return `${label} must be from 0 to 100 %.`;
    if (!ends && !(percent > 0 && percent < 100)) return `${label} must be more than 0 and less than 100 %.`;
    return onChange(Math.round(percent * 1e4) / 1e6) ? null : `${label} was not changed.`;
  };
  return (
    <Typed
      label={label}
      shown={`${Number((100 * value).toFixed(2))} %`}
      note={note}
      hint="In per cent"
      onType={(text) => give(Number(text.replace('%', '').replace(',', '.').trim() || NaN))}
      onStep={(steps) => void give(100 * value + steps)}
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

/** A line of words that may be left out. */
export function FreeText({
  label,
  value,
  otherwise,
  onChange,
}: {
  label: string;
  value: string;
  otherwise: string;
  onChange: (text: string) => boolean;
}) {
  return (
    <Typed
      label={label}
      shown={value === '' ? otherwise : value}
      hint="Words, set apart by commas"
      onType={(text) => {
        const words = text.trim() === otherwise ? '' : text.trim();
        const checked = words === '' ? null : nameSchema.safeParse(words.slice(0, 120));
        if (checked && !checked.success) return `${label} ${checked.error.issues[0]!.message}.`;
        return onChange(words) ? null : `${label} were not changed.`;
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
