/** The sections of a pattern's reveal: seat, splays, checks and arrises of its sides, with a drawing of what they give. */
import { sectionLine, type SectionUse } from '@yard-arch/core';
import {
  limits,
  formatLength,
  unitsLabel,
  type sideNames,
  type Arris,
  type Pattern,
  type Section,
  type Units,
} from '@yard-arch/document';
import { useState } from 'react';
import { AngleField, Choice, LengthField } from '../fields/Fields.tsx';

/** The parts of a reveal that have a section of their own, and the sides that each is made of. */
export const revealParts: { name: RevealPart; label: string; sides: SideName[] }[] = [
  { name: 'jambs', label: 'jambs', sides: ['jamb-left', 'jamb-right'] },
  { name: 'head', label: 'head', sides: ['head'] },
  { name: 'sill', label: 'sill', sides: ['sill'] },
];

export type RevealPart = 'jambs' | 'head' | 'sill';
type SideName = (typeof sideNames)[number];

/** The sections of a pattern with that of one part of its reveal another; none where all are square. */
export function withSection({ sections }: Pattern, part: RevealPart, section: Section): Pattern['sections'] {
  const next: Section = Object.fromEntries(
    Object.entries(section).filter(([, value]) => value !== undefined && value !== 0),
  );
  const out = { ...sections };
  for (const side of revealParts.find(({ name }) => name === part)!.sides)
    if (Object.keys(next).length > 0) out[side] = next;
    else Reflect.deleteProperty(out, side);
  return Object.keys(out).length > 0 ? out : undefined;
}

interface SectionProps {
  pattern: Pattern;
  units: Units;
  /** Depth over which the sections are drawn, metres. */
  depth: number;
  /** The one part that is shown; without it there is a choice. */
  only?: RevealPart;
  onChange: (sections: Pattern['sections']) => boolean;
}

export function SectionFields({ pattern, units, depth, only, onChange }: SectionProps) {
  const [turnedTo, setShown] = useState<RevealPart>('jambs');
  const shown = only ?? turnedTo;
  const part = revealParts.find(({ name }) => name === shown)!;
  const section = pattern.sections?.[part.sides[0]!] ?? {};
  const kind = pattern.cut?.kind ?? 'through';
  const use: SectionUse =
    kind === 'niche' || kind === 'niche to layer'
      ? 'niche'
      : kind === 'boss' || kind === 'keep inside'
        ? 'raised'
        : 'through';
  const set = (over: Partial<Section>): boolean => onChange(withSection(pattern, shown, { ...section, ...over }));
  return (
    <div className="section">
      {!only && (
        <Choice
          label="Side"
          value={shown}
          options={revealParts.map(({ name, label }) => ({ value: name, label }))}
          onChange={(value) => setShown(value as RevealPart)}
        />
      )}
      <SectionDrawing section={section} depth={depth} use={use} units={units} />
      <LengthField
        label="Seat at"
        value={section.seat ?? 0}
        units={units}
        note={section.seat ? undefined : 'the far face'}
        onChange={(seat) => set({ seat: seat > 0 ? seat : undefined })}
      />
      <AngleField
        label={part.name === 'sill' ? 'Falls out by' : 'Splays out by'}
        value={section.splayOutside ?? 0}
        within={limits.splay}
        onChange={(splayOutside) => set({ splayOutside })}
      />
      <AngleField
        label="Splays in by"
        value={section.splayInside ?? 0}
        within={limits.splay}
        onChange={(splayInside) => set({ splayInside })}
      />
      <Checks checks={section.checks ?? []} depth={depth} units={units} onChange={(checks) => set({ checks })} />
      <ArrisFields label="Arris" arris={section.arris} units={units} onChange={(arris) => set({ arris })} />
      <ArrisFields
        label={use === 'through' ? 'Inner arris' : 'Back corner'}
        arris={section.innerArris}
        units={units}
        onChange={(innerArris) => set({ innerArris })}
      />
    </div>
  );
}

/** The checks of a side: at what depth it steps, and by how much. */
function Checks({
  checks,
  depth,
  units,
  onChange,
}: {
  checks: NonNullable<Section['checks']>;
  /** Depth of the reveal, metres. */
  depth: number;
  units: Units;
  onChange: (checks: Section['checks']) => boolean;
}) {
  const put = (next: NonNullable<Section['checks']>): boolean => onChange(next.length > 0 ? next : undefined);
  const add = (): void => {
    const at = Math.min(depth / 2, (checks.at(-1)?.depth ?? 0) + 0.1025);
    put([...checks, { depth: Math.round(1000 * at) / 1000, step: 0.0575 }]);
  };
  return (
    <>
      {checks.map((check, i) => {
        const change = (over: Partial<typeof check>): boolean =>
          put(checks.map((other, k) => (k === i ? { ...other, ...over } : other)));
        return (
          <div key={i} className="size">
            <LengthField
              label="Check at"
              positive
              value={check.depth}
              units={units}
              onChange={(at) => change({ depth: at })}
            />
            <LengthField
              label="Steps by"
              value={check.step}
              units={units}
              note="wider inside"
              within={limits.checkStep}
              onChange={(step) => change({ step })}
            />
            <button className="link" onClick={() => put(checks.filter((_, k) => k !== i))}>
              remove this check
            </button>
          </div>
        );
      })}
      {checks.length < limits.checks.most && (
        <button className="link" onClick={add}>
          add a check
        </button>
      )}
    </>
  );
}

function ArrisFields({
  label,
  arris,
  units,
  onChange,
}: {
  label: string;
  arris: Arris | undefined;
  units: Units;
  onChange: (arris: Arris | undefined) => boolean;
}) {
  return (
    <>
      <Choice
        label={label}
        value={arris?.kind ?? 'sharp'}
        options={[
          { value: 'sharp', label: 'sharp' },
          { value: 'chamfered', label: 'chamfered' },
          { value: 'rounded', label: 'rounded' },
        ]}
        onChange={(kind) =>
          onChange(kind === 'sharp' ? undefined : { size: arris?.size ?? 0.012, ...arris, kind: kind as Arris['kind'] })
        }
      />
      {arris && (
        <LengthField
          label="Size"
          positive
          value={arris.size}
          units={units}
          within={limits.arris}
          onChange={(size) => onChange({ ...arris, size })}
        />
      )}
    </>
  );
}

/** A side cut across: the solid hatched, the outer face below. */
function SectionDrawing({
  section,
  depth,
  use,
  units,
}: {
  section: Section;
  depth: number;
  use: SectionUse;
  units: Units;
}) {
  const line = sectionLine(
    section,
    depth,
    use,
    (metres) => `${formatLength(metres, units)}${units === 'ft-in' ? '' : ` ${unitsLabel(units)}`}`,
  );
  if ('reason' in line)
    return (
      <p className="why bad" role="alert">
        {line.reason.charAt(0).toUpperCase()}
        {line.reason.slice(1)}. {line.mend}
      </p>
    );
  const width = 268;
  const scale = Math.min(150 / depth, 400);
  const height = depth * scale;
  const out = Math.max(0.02, ...line.offset.map((o) => Math.abs(o)));
  const across = Math.min(scale, 110 / out);
  const point = (n: number, offset: number): string =>
    `${(width / 2 - offset * across).toFixed(1)} ${(8 + n * scale).toFixed(1)}`;
  const edge = line.n.map((n, i) => point(n, line.offset[i]!)).join('L');
  return (
    <svg
      className="section-drawing"
      width={width}
      height={height + 30}
      role="img"
      aria-label="Section of the side, outer face above"
    >
      <defs>
        <pattern id="section-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--section)" strokeWidth="1.4" />
        </pattern>
      </defs>
      <path d={`M0 8L${edge}L0 ${(8 + height).toFixed(1)}Z`} fill="url(#section-hatch)" stroke="none" />
      <path d={`M0 8L${edge}L0 ${(8 + height).toFixed(1)}`} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <text x={width - 4} y={12} textAnchor="end">
        outside
      </text>
      <text x={width - 4} y={8 + height} textAnchor="end">
        {use === 'through' ? 'inside' : 'back'}, {formatLength(depth, units)} deep
      </text>
    </svg>
  );
}
