/** The top of a wall: its kind, and the figures that the kind has. */
import { limits, extentOf, type Element, type Top, type Units, type Wall } from '@yard-arch/document';
import { Choice, LengthField } from '../fields/Fields.tsx';

const kinds: { value: Top['kind']; label: string }[] = [
  { value: 'level', label: 'level' },
  { value: 'raked', label: 'raked' },
  { value: 'gabled', label: 'gabled' },
  { value: 'stepped', label: 'stepped' },
  { value: 'under', label: 'under a roof or vault' },
];

/** A top of a kind to begin with, in proportion to the wall. */
function beginning(kind: Top['kind'], wall: Wall, roofs: readonly Element[]): Top {
  const higher = wall.height + Math.round(extentOf(wall).length * 2.5) / 10;
  switch (kind) {
    case 'level':
      return { kind };
    case 'raked':
      return { kind, end: higher };
    case 'gabled':
      return { kind, apex: higher, at: 0.5 };
    case 'under':
      return roofs[0] ? { kind, roof: roofs[0].id } : { kind: 'level' };
    case 'stepped':
      return { kind, steps: [{ at: 0.5, height: higher }] };
  }
}

interface TopFieldsProps {
  wall: Wall;
  units: Units;
  /** The roofs and vaults that it can be under. */
  roofs: readonly Element[];
  onChange: (top: Top) => boolean;
}

export function TopFields({ wall, units, roofs, onChange }: TopFieldsProps) {
  const { top } = wall;
  return (
    <>
      <Choice
        label="Top"
        value={top.kind}
        options={kinds.filter(({ value }) => value !== 'under' || roofs.length > 0 || top.kind === 'under')}
        onChange={(kind) => onChange(beginning(kind as Top['kind'], wall, roofs))}
      />
      {top.kind === 'under' && (
        <Choice
          label="Under"
          value={top.roof}
          options={roofs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(roof) => onChange({ kind: 'under', roof })}
        />
      )}
      {top.kind === 'raked' && (
        <LengthField
          label="At its end"
          positive
          value={top.end}
          units={units}
          onChange={(end) => onChange({ ...top, end })}
        />
      )}
      {top.kind === 'gabled' && <Gable top={top} wall={wall} units={units} onChange={onChange} />}
      {top.kind === 'stepped' && <Steps top={top} wall={wall} units={units} onChange={onChange} />}
    </>
  );
}

/** A place along the wall, typed as a length and kept as a share of it. */
function shareOf(wall: Wall, metres: number, take: (share: number) => boolean): boolean | string {
  const share = metres / extentOf(wall).length;
  return share > 0.001 && share < 0.999 ? take(share) : 'It must be between the start and the end of the wall.';
}

type KindProps<K extends Top['kind']> = Omit<TopFieldsProps, 'roofs'> & { top: Extract<Top, { kind: K }> };

function Gable({ top, wall, units, onChange }: KindProps<'gabled'>) {
  return (
    <>
      <LengthField
        label="Apex"
        positive
        value={top.apex}
        units={units}
        onChange={(apex) => onChange({ ...top, apex })}
      />
      <LengthField
        label="Apex at"
        value={top.at * extentOf(wall).length}
        units={units}
        note="from the start"
        onChange={(metres) => shareOf(wall, metres, (at) => onChange({ ...top, at }))}
      />
      <LengthField
        label="At its end"
        positive
        value={top.end ?? wall.height}
        units={units}
        onChange={(end) => onChange({ ...top, end })}
      />
    </>
  );
}

function Steps({ top, wall, units, onChange }: KindProps<'stepped'>) {
  const { steps } = top;
  const add = (): void => {
    const last = steps.reduce((a, b) => (b.at > a.at ? b : a));
    onChange({ ...top, steps: [...steps, { at: (last.at + 1) / 2, height: wall.height }] });
  };
  return (
    <>
      {steps.map((step, i) => {
        const change = (over: Partial<typeof step>): boolean =>
          onChange({ ...top, steps: steps.map((other, k) => (k === i ? { ...other, ...over } : other)) });
        return (
          <div key={i} className="size">
            <LengthField
              label="From"
              value={step.at * extentOf(wall).length}
              units={units}
              onChange={(metres) => shareOf(wall, metres, (at) => change({ at }))}
            />
            <LengthField
              label="Height"
              positive
              value={step.height}
              units={units}
              onChange={(height) => change({ height })}
            />
            {steps.length > 1 && (
              <button className="link" onClick={() => onChange({ ...top, steps: steps.filter((_, k) => k !== i) })}>
                remove this step
              </button>
            )}
          </div>
        );
      })}
      <button className="link" disabled={steps.length >= limits.steps.most} onClick={add}>
        add a step
      </button>
    </>
  );
}
