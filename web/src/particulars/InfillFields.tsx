/** What stands in a pattern's openings: a frame at its seat round a field, and the fields within that. */
import {
  limits,
  type Divided,
  type Field,
  type Infill,
  type Lights,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { beginInfill, changeInfill, fieldOf, infillFrom, infillStarts, usualMaterials } from '@yard-arch/edit';
import { useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { later } from '../common/later.tsx';
import { Choice, CountField, LengthField, ShareField, Tick } from '../fields/Fields.tsx';
import { Figures, type Figure } from '../fields/Figures.tsx';
import { commit } from '../state/store.ts';
import { AlikeInOthers } from './AlikeInOthers.tsx';
import { ImportedFields } from './ImportedFields.tsx';
import { LeafFields } from './LeafFields.tsx';
import { MemberFields } from './MemberFields.tsx';
import { MouldingFields, WorkedFields } from './WorkedFields.tsx';

const BringMesh = later(async () => (await import('./BringMesh.tsx')).BringMesh);

interface InfillProps {
  pattern: Pattern;
  document: ProjectDocument;
}

export function InfillFields({ pattern, document }: InfillProps) {
  const { infill } = pattern;
  // It stays open where one has been taken out: another may be begun.
  const [open, setOpen] = useState(infill !== undefined);
  return (
    <details className="reveal" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Infill{infill ? '' : ', none'}</summary>
      {infill ? (
        <Filled pattern={pattern} document={document} infill={infill} />
      ) : (
        // Drawn anew with every figure of the pattern: only where they are seen.
        open && <Starts pattern={pattern} document={document} />
      )}
    </details>
  );
}

/** Infills to begin with, each drawn in the pattern's own first size. */
function Starts({ pattern, document }: InfillProps) {
  const [size] = Object.values(pattern.sizes);
  return (
    <div className="starts" role="group" aria-label="Begin with">
      {infillStarts.map((start) => (
        <button key={start} onClick={() => commit(beginInfill(document, pattern, start))}>
          <PatternFigure
            pattern={{ ...pattern, infill: infillFrom(start, 'timber', 'glass') }}
            dimensions={size!.dimensions}
            units={document.units}
          />
          <span>{start}</span>
        </button>
      ))}
    </div>
  );
}

/** At a layer it is flush with it; elsewhere so deep as it was. */
const seatFrom = (from: Infill['seat']['from'], depth: number): Infill['seat'] =>
  from === 'layer' ? { from, layer: 2, depth: 0 } : { from, depth };

function Filled({ pattern, document, infill }: InfillProps & { infill: Infill }) {
  const { units } = document;
  const set = (over: Partial<Infill>, what = 'change the infill of'): boolean =>
    commit(changeInfill(pattern, { ...infill, ...over }, what));
  const { seat, frame } = infill;
  return (
    <div className="infill">
      <Choice
        label="Seat"
        value={seat.from}
        options={[
          { value: 'outer', label: 'behind its own face' },
          { value: 'inner', label: 'before the face behind' },
          { value: 'check', label: 'behind the check' },
          { value: 'layer', label: 'at a layer' },
        ]}
        onChange={(from) => set({ seat: seatFrom(from as typeof seat.from, seat.depth) }, 'seat the infill of')}
      />
      {seat.from === 'layer' && (
        <CountField
          label="Layer"
          value={seat.layer ?? 1}
          within={limits.seatLayer}
          onChange={(layer) => set({ seat: { ...seat, layer } }, 'seat the infill of')}
        />
      )}
      <LengthField
        label={seat.from === 'check' || seat.from === 'layer' ? 'Behind it' : 'Depth'}
        value={seat.depth}
        within={limits.seat}
        units={units}
        onChange={(depth) => set({ seat: { ...seat, depth } }, 'seat the infill of')}
      />
      <Choice
        label="On curves"
        value={infill.curve ?? 'flat'}
        options={[
          { value: 'flat', label: 'stands flat' },
          { value: 'follows', label: 'follows the curve' },
        ]}
        onChange={(curve) => set({ curve: curve === 'follows' ? curve : undefined })}
      />
      <LengthField label="Gap" value={infill.gap} within={limits.gap} units={units} onChange={(gap) => set({ gap })} />
      <MemberFields
        label="Frame"
        member={frame}
        document={document}
        onChange={(over) => set({ frame: { ...frame, ...over } })}
      />
      <WorkedFields framing={frame} document={document} onChange={(over) => set({ frame: { ...frame, ...over } })} />
      <AlikeInOthers document={document} own={pattern.id} shared={{ what: 'frame', frame }} />
      <Tick
        label="No sill"
        value={frame.without?.includes('sill') ?? false}
        onChange={(without) => {
          const rest = (frame.without ?? []).filter((side) => side !== 'sill');
          const next = without ? [...rest, 'sill' as const] : rest;
          set({ frame: { ...frame, without: next.length > 0 ? next : undefined } });
        }}
      />
      <FieldFields label="Within it" field={infill.field} document={document} onChange={(field) => set({ field })} />
      <button className="link" onClick={() => commit(changeInfill(pattern, undefined, 'take the infill out of'))}>
        take the infill out
      </button>
    </div>
  );
}

export interface FieldProps {
  label: string;
  field: Field;
  document: ProjectDocument;
  onChange: (field: Field) => boolean;
  /** Whether what lies in it has its fields elsewhere. */
  alone?: boolean;
}

const kinds: { value: Field['kind']; label: string }[] = [
  { value: 'glass', label: 'glass' },
  { value: 'panel', label: 'a panel' },
  { value: 'boards', label: 'boards' },
  { value: 'louvres', label: 'louvres' },
  { value: 'perforated', label: 'a perforated sheet' },
  { value: 'leaf', label: 'a leaf' },
  { value: 'divided', label: 'divided' },
  { value: 'fan', label: 'a fan of bars' },
  { value: 'interlacing', label: 'interlacing bars' },
  { value: 'lattice', label: 'a lattice' },
  { value: 'imported', label: 'a mesh from outside' },
  { value: 'empty', label: 'nothing' },
];

const ways = [
  { value: 'upright', label: 'upright' },
  { value: 'level', label: 'level' },
];
const material: Figure = { key: 'material', label: 'of', kind: 'material' };
const thickness: Figure = { key: 'thickness', label: 'Thickness', kind: 'length', within: limits.pane };

/** The figures of fields that hold no others. */
const figuresOf: Partial<Record<Field['kind'], readonly Figure[]>> = {
  glass: [
    { ...thickness, note: 'each pane' },
    { key: 'panes', label: 'Panes', kind: 'count', within: limits.panes, otherwise: 1, unsaid: true },
    { key: 'cavity', label: 'Cavity', kind: 'length', within: limits.cavity, otherwise: 0.016, note: 'between panes' },
    { key: 'sheet', label: 'One sheet', kind: 'tick', otherwise: false, unsaid: true },
    material,
  ],
  panel: [thickness, material],
  boards: [
    { key: 'width', label: 'Boards', kind: 'length', within: limits.member, note: 'at most' },
    { key: 'way', label: 'Run', kind: 'choice', options: ways },
    { key: 'joint', label: 'Joint', kind: 'length', within: limits.joint },
    thickness,
    material,
  ],
  louvres: [
    { key: 'width', label: 'Blades', kind: 'length', within: limits.member, note: 'deep' },
    { key: 'spacing', label: 'Spacing', kind: 'length', within: limits.member },
    { key: 'slope', label: 'Slope', kind: 'angle', within: limits.slope },
    { ...thickness, within: limits.pane },
    material,
  ],
  perforated: [
    { key: 'hole', label: 'Holes', kind: 'length', within: limits.member, note: 'across' },
    { key: 'pitch', label: 'Apart', kind: 'length', within: limits.member },
    thickness,
    material,
  ],
  fan: [
    {
      key: 'about',
      label: 'From',
      kind: 'choice',
      options: [
        { value: 'foot', label: 'the middle of its foot' },
        { value: 'middle', label: 'its middle' },
      ],
    },
    { key: 'count', label: 'Lights', kind: 'count', within: limits.fan },
    { key: 'hub', label: 'Bars from the first ring', kind: 'tick' },
  ],
  interlacing: [{ key: 'count', label: 'Lights', kind: 'count', within: { least: 2, most: 12 } }],
  lattice: [
    { key: 'spacing', label: 'Spacing', kind: 'length', within: limits.member },
    { key: 'slope', label: 'Slope', kind: 'angle', within: { least: 15, most: 75 } },
  ],
};

/** What a field holds, and of what; and what lies in that. */
export function FieldFields({ label, field, document, onChange, alone = false }: FieldProps) {
  const figures = figuresOf[field.kind];
  const [bringing, setBringing] = useState(false);
  return (
    <div className="size field">
      <Choice
        label={label}
        value={field.kind}
        options={kinds}
        onChange={(kind) =>
          kind === 'imported'
            ? setBringing(true)
            : onChange(fieldOf(kind as Field['kind'], field, usualMaterials(document)))
        }
      />
      {field.kind === 'imported' && (
        <ImportedFields imported={field} document={document} onChange={(over) => onChange({ ...field, ...over })} />
      )}
      {bringing && (
        <BringMesh
          document={document}
          onClose={() => setBringing(false)}
          onTake={(imported, changes) =>
            (changes.length === 0 || commit({ name: 'take in a mesh', changes })) && onChange(imported)
          }
        />
      )}
      {figures && (
        <Figures
          value={field}
          figures={figures.filter(({ key }) => key !== 'cavity' || (field.kind === 'glass' && (field.panes ?? 1) > 1))}
          document={document}
          onChange={(over) => onChange({ ...field, ...over } as Field)}
        />
      )}
      {field.kind === 'panel' && <RaisedFields field={field} document={document} onChange={onChange} />}
      {field.kind === 'fan' && <RingFields field={field} document={document} onChange={onChange} />}
      {field.kind === 'leaf' && (
        <LeafFields field={field} document={document} onChange={onChange}>
          {!alone && (
            <FieldFields
              label="In the leaf"
              field={field.field}
              document={document}
              onChange={(inner) => onChange({ ...field, field: inner })}
            />
          )}
        </LeafFields>
      )}
      {'fields' in field && <PartedFields field={field} document={document} onChange={onChange} alone={alone} />}
    </div>
  );
}

type Of<K extends Field['kind']> = Omit<FieldProps, 'label' | 'field'> & { field: Extract<Field, { kind: K }> };

function RaisedFields({ field, document, onChange }: Of<'panel'>) {
  const { raised } = field;
  return (
    <>
      <Tick
        label="Raised"
        value={raised !== undefined}
        onChange={(on) => onChange({ ...field, raised: on ? { margin: 0.05, rise: 0.008 } : undefined })}
      />
      {raised && (
        <Figures
          value={raised}
          figures={[
            { key: 'margin', label: 'Margin', kind: 'length', within: limits.member },
            { key: 'rise', label: 'Rise', kind: 'length' },
          ]}
          document={document}
          onChange={(over) => onChange({ ...field, raised: { ...raised, ...over } })}
        />
      )}
    </>
  );
}

/** Rings of a fan, at shares of its reach. */
function RingFields({ field, onChange }: Of<'fan'>) {
  const { rings } = field;
  return (
    <>
      {rings.map((ring, i) => (
        <ShareField
          key={i}
          label={rings.length === 1 ? 'Ring at' : `Ring ${i + 1} at`}
          value={ring}
          onChange={(share) => onChange({ ...field, rings: rings.map((other, k) => (k === i ? share : other)) })}
        />
      ))}
      <div className="buttons">
        {rings.length < limits.rings.most && (
          <button onClick={() => onChange({ ...field, rings: [...rings, ((rings.at(-1) ?? 0) + 1) / 2] })}>
            one more ring
          </button>
        )}
        {rings.length > 0 && (
          <button onClick={() => onChange({ ...field, rings: rings.slice(0, -1) })}>one fewer</button>
        )}
      </div>
    </>
  );
}

function PartedFields({ field, document, onChange, alone }: Of<'divided' | 'fan' | 'interlacing' | 'lattice'>) {
  const { bar, fields } = field;
  const upright = field.kind === 'divided' && field.way === 'mullions';
  const called = field.kind === 'divided' ? (upright ? 'Mullions' : 'Transoms') : 'Bars';
  const each = field.kind === 'fan' ? 'Band' : 'Light';
  return (
    <>
      {field.kind === 'divided' && (
        <>
          <Choice
            label="By"
            value={field.way}
            options={[
              { value: 'mullions', label: 'mullions' },
              { value: 'transoms', label: 'transoms' },
            ]}
            onChange={(way) => onChange({ ...field, way: way as typeof field.way })}
          />
          <LightsFields field={field} document={document} onChange={onChange} />
          <Tick
            label="With bars"
            value={bar !== undefined}
            onChange={(on) =>
              onChange({
                ...field,
                bar: on ? { width: 0.05, depth: 0.06, material: usualMaterials(document).timber } : undefined,
              })
            }
          />
        </>
      )}
      {bar && (
        <MemberFields
          label={called}
          member={bar}
          document={document}
          onChange={(over) => onChange({ ...field, bar: { ...bar, ...over } } as Field)}
        />
      )}
      {bar && (
        <MouldingFields
          moulding={bar.moulding}
          first={Math.min(0.01, bar.width / 4)}
          document={document}
          onChange={(moulding) => onChange({ ...field, bar: { ...bar, moulding } } as Field)}
        />
      )}
      {(alone ? [] : fields).map((one, i) => (
        <FieldFields
          key={i}
          label={fields.length === 1 ? (field.kind === 'fan' ? 'Each band' : 'Each light') : `${each} ${i + 1}`}
          field={one}
          document={document}
          onChange={(inner) => onChange({ ...field, fields: fields.map((other, k) => (k === i ? inner : other)) })}
        />
      ))}
      <div className="buttons">
        <button
          title={
            field.kind === 'fan'
              ? 'Counted from the middle outward; they begin anew where there are more bands'
              : upright
                ? 'Counted from the left; they begin anew where there are more lights'
                : 'Counted from below; they begin anew where there are more lights'
          }
          disabled={fields.length >= limits.fields.most}
          onClick={() => onChange({ ...field, fields: [...fields, fields.at(-1)!] })}
        >
          make the next {field.kind === 'fan' ? 'band' : 'light'} differ
        </button>
        {fields.length > 1 && (
          <button onClick={() => onChange({ ...field, fields: fields.slice(0, -1) })}>one fewer</button>
        )}
      </div>
    </>
  );
}

const lightsBegun: Record<Lights['kind'], Lights> = {
  equal: { kind: 'equal', count: 2 },
  'at most': { kind: 'at most', size: 0.5 },
  at: { kind: 'at', places: [{ from: 'share', value: 0.5 }] },
};

function LightsFields({ field, document, onChange }: Of<'divided'>) {
  const { lights } = field;
  const set = (next: Lights): boolean => onChange({ ...field, lights: next });
  return (
    <>
      <Choice
        label="Lights"
        value={lights.kind}
        options={[
          { value: 'equal', label: 'so many equal ones' },
          { value: 'at most', label: 'none larger than' },
          { value: 'at', label: 'at kept places' },
        ]}
        onChange={(kind) => set(lightsBegun[kind as Lights['kind']])}
      />
      {lights.kind === 'equal' && (
        <CountField
          label="How many"
          value={lights.count}
          within={limits.lights}
          onChange={(count) => void set({ ...lights, count })}
        />
      )}
      {lights.kind === 'at most' && (
        <LengthField
          label="At most"
          positive
          value={lights.size}
          units={document.units}
          onChange={(size) => set({ ...lights, size })}
        />
      )}
      {lights.kind === 'at' && <PlacesFields field={field} lights={lights} document={document} onChange={set} />}
    </>
  );
}

interface PlacesProps {
  field: Divided;
  lights: Extract<Lights, { kind: 'at' }>;
  document: ProjectDocument;
  onChange: (lights: Lights) => boolean;
}

/** Where members stand, each kept from an end of the field or at a share of it. */
function PlacesFields({ field, lights, document, onChange }: PlacesProps) {
  const { places } = lights;
  const set = (next: typeof places): boolean => onChange({ ...lights, places: next });
  const upright = field.way === 'mullions';
  return (
    <>
      {places.map((place, i) => {
        const change = (over: Partial<typeof place>): boolean =>
          set(places.map((other, k) => (k === i ? { ...other, ...over } : other)));
        const { from, value } = place;
        const note = (
          <select
            aria-label="Measured from"
            value={from}
            onChange={(event) => {
              const next = event.target.value as typeof from;
              // A distance is no share, nor a share a distance: either begins at a half.
              change({ from: next, value: (next === 'share') === (from === 'share') ? value : 0.5 });
            }}
          >
            <option value="start">{upright ? 'from the left' : 'from below'}</option>
            <option value="end">{upright ? 'from the right' : 'from above'}</option>
            <option value="share">of the whole</option>
          </select>
        );
        return from === 'share' ? (
          <ShareField key={i} label="At" value={value} note={note} onChange={(share) => change({ value: share })} />
        ) : (
          <LengthField
            key={i}
            label="At"
            value={value}
            within={limits.lightsPlace}
            units={document.units}
            onChange={(metres) => change({ value: metres })}
            note={note}
          />
        );
      })}
      <div className="buttons">
        {places.length < limits.lightsPlaces.most && (
          <button onClick={() => set([...places, { from: 'share', value: 0.75 }])}>
            one more {upright ? 'mullion' : 'transom'}
          </button>
        )}
        {places.length > 1 && <button onClick={() => set(places.slice(0, -1))}>one fewer</button>}
      </div>
    </>
  );
}
