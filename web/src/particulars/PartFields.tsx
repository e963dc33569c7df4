/** The parts about a pattern's openings: sills, lintels, arch rings, quoins, surrounds, shutters, rails and bars. */
import {
  dormerForms,
  formatLength,
  limits,
  newId,
  profileShapes,
  sizeLabel,
  type Change,
  type ChangeSet,
  type Part,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import { changePattern, partFrom, partStarts, windowFrom, type PartStart } from '@yard-arch/edit';
import { Fragment, useState } from 'react';
import { later } from '../common/later.tsx';
import { Choice, Tick } from '../fields/Fields.tsx';
import { Figures, type Figure } from '../fields/Figures.tsx';
import { PictureChoice, strokesFor } from '../fields/PictureChoice.tsx';
import { commit } from '../state/store.ts';
import { AlikeInOthers } from './AlikeInOthers.tsx';
import { calledOf } from './called.ts';
import { ImportedFields } from './ImportedFields.tsx';
import { FieldFields } from './InfillFields.tsx';
import { MemberFields } from './MemberFields.tsx';
import { MouldingFields } from './WorkedFields.tsx';

const BringMesh = later(async () => (await import('./BringMesh.tsx')).BringMesh);

type Changing<P extends Part> = (over: Partial<P>) => boolean;

export function PartFields({ pattern, document }: { pattern: Pattern; document: ProjectDocument }) {
  const [bringing, setBringing] = useState(false);
  const parts = pattern.parts ?? [];
  const materials = Object.values(document.materials);
  const set = (next: readonly Part[], what: string): boolean =>
    commit(changePattern(pattern, { parts: next.length > 0 ? [...next] : undefined }, what));
  const change =
    <P extends Part>(part: P): Changing<P> =>
    (over) =>
      set(
        parts.map((other) => (other.id === part.id ? { ...part, ...over } : other)),
        `change the ${calledOf(part).toLowerCase()} of`,
      );
  const material = pattern.reveal.sides?.sill ?? pattern.reveal.material ?? materials[0]?.id ?? '';
  return (
    <details className="reveal" open={parts.length > 0}>
      <summary>Parts about it{parts.length > 0 ? '' : ', none'}</summary>
      {parts.map((part) => (
        <div key={part.id} className="size" data-testid="part">
          <h3>{calledOf(part)}</h3>
          <OnePart part={part} document={document} onChange={change(part)} />
          <AlikeInOthers document={document} own={pattern.id} shared={{ what: 'part', part }} />
          <button
            className="link"
            onClick={() =>
              set(
                parts.filter(({ id }) => id !== part.id),
                `take the ${calledOf(part).toLowerCase()} from`,
              )
            }
          >
            remove
          </button>
        </div>
      ))}
      {materials.length === 0 && <p>Add a material first, under Materials in the register.</p>}
      {materials.length > 0 && parts.length < limits.parts.most && (
        <Choice
          label="Add"
          value=""
          options={[
            { value: '', label: 'a part…' },
            ...partStarts.map((start) => ({ value: start, label: start })),
            { value: 'mesh', label: 'a mesh from outside…' },
          ]}
          onChange={(start) => {
            if (start === 'mesh') setBringing(true);
            else if (start) set([...parts, partFrom(start as PartStart, document, material)], `put a ${start} about`);
          }}
        />
      )}
      {bringing && (
        <BringMesh
          document={document}
          onClose={() => setBringing(false)}
          onTake={(imported, changes) =>
            commit(
              withChanges(
                changePattern(pattern, { parts: [...parts, { id: newId('q'), ...imported }] }, 'put a mesh about'),
                changes,
              ),
            )
          }
        />
      )}
    </details>
  );
}

/** An edit with what goes before it. */
const withChanges = ({ name, changes }: ChangeSet, before: readonly Change[]): ChangeSet => ({
  name,
  changes: [...before, ...changes],
});

const material: Figure = { key: 'material', label: 'Material', kind: 'material' };
const width: Figure = { key: 'width', label: 'Width', kind: 'length', within: limits.surround };
const thickness: Figure = { key: 'thickness', label: 'Thickness', kind: 'length', within: limits.board };
const reach: Figure = {
  key: 'reach',
  label: 'Reach',
  kind: 'length',
  within: { least: 0, most: limits.extent.most },
  otherwise: 0,
  unsaid: true,
  note: 'nothing: to the infill',
};
const height: Figure = { key: 'height', label: 'Height', kind: 'length', within: limits.inFace };
const inFace: Figure[] = [
  { key: 'depth', label: 'Let in', kind: 'length', within: limits.inFace, note: 'into the wall' },
  { key: 'proud', label: 'Proud', kind: 'length', within: limits.proud, note: 'before the face' },
];
const joint: Figure[] = [
  { key: 'joint', label: 'Joints', kind: 'length', within: limits.joint },
  { key: 'mortar', label: 'Mortar', kind: 'material', otherwise: '', unsaid: true, note: 'left open' },
];

/** The figures of parts, by their kind. */
const figuresOf: Record<Part['kind'], readonly Figure[]> = {
  'sill board': [
    material,
    thickness,
    { key: 'nosing', label: 'Nosing', kind: 'length', within: limits.nosing },
    { key: 'horns', label: 'Horns', kind: 'length', within: limits.horns },
    reach,
  ],
  surround: [
    material,
    width,
    { ...thickness, note: 'before the face' },
    {
      key: 'off',
      label: 'Off',
      kind: 'length',
      within: limits.off,
      otherwise: 0,
      unsaid: true,
      note: 'from the opening',
    },
  ],
  lining: [material, { ...thickness, within: limits.lining }, reach],
  lintel: [
    material,
    height,
    { key: 'bearing', label: 'Bearing', kind: 'length', within: limits.bearing, note: 'either side' },
    ...inFace,
  ],
  'arch ring': [
    material,
    height,
    { key: 'stones', label: 'Stones', kind: 'count', within: limits.stones },
    ...joint,
    ...inFace,
  ],
  quoins: [
    material,
    { ...height, note: 'at most' },
    { key: 'long', label: 'Long', kind: 'length', within: limits.extent },
    { key: 'short', label: 'Short', kind: 'length', within: limits.extent },
    ...joint,
    ...inFace,
  ],
  'stone sill': [
    material,
    { ...height, within: { least: 0.001, most: 1 } },
    { key: 'ends', label: 'Ends', kind: 'length', within: limits.ends, note: 'into the jambs' },
    { key: 'fall', label: 'Fall', kind: 'length', within: limits.fall, note: 'outward' },
    { key: 'drip', label: 'Drip', kind: 'tick' },
    ...inFace,
  ],
  shutters: [
    {
      key: 'leaves',
      label: 'Leaves',
      kind: 'choice',
      options: [
        { value: 'pair', label: 'a pair' },
        { value: 'left', label: 'one, hung on the left' },
        { value: 'right', label: 'one, hung on the right' },
      ],
    },
    { key: 'lap', label: 'Lap', kind: 'length', within: limits.lap, note: 'over the reveal' },
    { key: 'angle', label: 'Stand at', kind: 'angle', within: limits.angle },
    { key: 'vary', label: 'Varied by', kind: 'angle', within: limits.vary, otherwise: 0, unsaid: true },
  ],
  imported: [],
  lunette: [material, { ...thickness, within: { least: 0.001, most: 1 }, note: 'about the outline' }],
  chimney: [
    { ...material, label: 'Stack, of' },
    { key: 'gap', label: 'Clear', kind: 'length', within: { least: 0, most: 0.5 }, note: 'all round, in the opening' },
    {
      key: 'above',
      label: 'Above',
      kind: 'length',
      within: { least: 0.001, most: 20 },
      note: 'the opening’s upper edge',
    },
    { key: 'below', label: 'Below', kind: 'length', within: { least: 0, most: 20 }, note: 'the opening’s foot' },
  ],
  dormer: [
    { ...material, label: 'Cheeks, of' },
    { key: 'wall', label: 'Cheeks, thick', kind: 'length', within: { least: 0.001, most: 1 } },
    { ...height, within: { least: 0.001, most: 10 }, note: 'of its eaves' },
    { key: 'pitch', label: 'Pitch', kind: 'angle', within: { least: 0, most: 75 } },
  ],
  guard: [
    material,
    {
      key: 'height',
      label: 'Height',
      kind: 'length',
      within: { least: 0, most: limits.extent.most },
      otherwise: 0,
      unsaid: true,
      note: 'nothing: all of it',
    },
    { key: 'bar', label: 'Bars', kind: 'length', within: { least: 0.001, most: 0.3 } },
    { key: 'rail', label: 'Rails', kind: 'length', within: limits.rail },
    { key: 'spacing', label: 'Spacing', kind: 'length', within: limits.surround, note: 'at most' },
    { key: 'depth', label: 'Behind', kind: 'length', within: limits.barDepth, note: 'the face' },
  ],
};

interface OneProps<P extends Part> {
  part: P;
  document: ProjectDocument;
  onChange: Changing<P>;
}

function OnePart({ part, document, onChange }: OneProps<Part>) {
  return (
    <>
      {part.kind === 'dormer' && (
        <PictureChoice
          label="Form"
          value={part.form}
          options={dormerPictures}
          onChange={(form) => onChange({ form: form as typeof part.form })}
        />
      )}
      <Figures value={part} figures={figuresOf[part.kind]} document={document} onChange={onChange} />
      {part.kind === 'surround' && <SurroundFields part={part} document={document} onChange={onChange} />}
      {part.kind === 'lining' && <SideTicks sides={part.sides} onChange={(sides) => onChange({ sides })} />}
      {part.kind === 'arch ring' && <KeystoneFields part={part} document={document} onChange={onChange} />}
      {part.kind === 'imported' && (
        <>
          <ImportedFields imported={part} document={document} onChange={onChange} />
          <Tick label="Behind" value={part.behind ?? false} onChange={(on) => onChange({ behind: on || undefined })} />
        </>
      )}
      {part.kind === 'chimney' && <ChimneyFields part={part} document={document} onChange={onChange} />}
      {part.kind === 'dormer' && <DormerFields part={part} document={document} onChange={onChange} />}
      {part.kind === 'shutters' && (
        <>
          <MemberFields
            label="Frame"
            member={part.frame}
            document={document}
            onChange={(over) => onChange({ frame: { ...part.frame, ...over } })}
          />
          <FieldFields
            label="Within it"
            field={part.field}
            document={document}
            onChange={(field) => onChange({ field })}
          />
        </>
      )}
    </>
  );
}

const chimneyExtras: {
  key: 'upstand' | 'cap' | 'pots';
  label: string;
  usual: (material: string) => Extract<Part, { kind: 'chimney' }>['upstand' | 'cap' | 'pots'];
  figures: readonly Figure[];
}[] = [
  {
    key: 'upstand',
    label: 'Upstand',
    usual: (material) => ({ material, height: 0.15, thickness: 0.03 }),
    figures: [
      { key: 'height', label: '', kind: 'length', within: { least: 0.001, most: 1 }, note: 'high, on the roof' },
      { key: 'thickness', label: '', kind: 'length', within: { least: 0.001, most: 0.5 }, note: 'thick' },
      { key: 'material', label: 'of', kind: 'material' },
    ],
  },
  {
    key: 'cap',
    label: 'Cap',
    usual: (material) => ({ material, over: 0.05, thickness: 0.08 }),
    figures: [
      { key: 'over', label: '', kind: 'length', within: { least: 0, most: 0.5 }, note: 'over the stack' },
      { key: 'thickness', label: '', kind: 'length', within: { least: 0.001, most: 1 }, note: 'thick' },
      { key: 'material', label: 'of', kind: 'material' },
    ],
  },
  {
    key: 'pots',
    label: 'Pots',
    usual: (material) => ({ material, count: 1, diameter: 0.22, height: 0.4 }),
    figures: [
      { key: 'count', label: '', kind: 'count', within: { least: 1, most: 12 }, note: 'in a row' },
      { key: 'diameter', label: '', kind: 'length', within: { least: 0.01, most: 1 }, note: 'wide' },
      { key: 'height', label: '', kind: 'length', within: { least: 0.01, most: 3 }, note: 'high' },
      { key: 'material', label: 'of', kind: 'material' },
    ],
  },
];

/** What a chimney has besides its stack. */
function ChimneyFields({ part, document, onChange }: OneProps<Extract<Part, { kind: 'chimney' }>>) {
  return chimneyExtras.map(({ key, label, usual, figures }) => {
    const extra = part[key];
    return (
      <Fragment key={key}>
        <Tick
          label={label}
          value={extra !== undefined}
          onChange={(on) => onChange({ [key]: on ? usual(part.material) : undefined })}
        />
        {extra && (
          <Figures
            value={extra}
            figures={figures}
            document={document}
            onChange={(over) => onChange({ [key]: { ...extra, ...over } })}
          />
        )}
      </Fragment>
    );
  });
}

/** Each form of dormer from before, on its slope: strokes in a box of 48 by 30. */
const dormerDrawings: Record<(typeof dormerForms)[number], string> = {
  gabled: 'M13 26V15M35 26V15M9 17L24 5L39 17M19 26V17H29V26',
  hipped: 'M13 26V14M35 26V14M9 14H39L29 5H19ZM19 26V17H29V26',
  'lean-to': 'M13 26V14M35 26V14M10 14H38L42 6H6ZM19 26V17H29V26',
  flat: 'M13 26V12M35 26V12M9 9H39V12H9ZM19 26V16H29V26',
  segmental: 'M13 26V14M35 26V14M9 15A18 18 0 0 1 39 15M19 26V17H29V26',
  eyebrow: 'M2 26C12 26 14 12 24 12S36 26 46 26M18 26A6 6 0 0 1 30 26',
};

const dormerPictures = dormerForms.map((form) => strokesFor(form, form, dormerDrawings[form]));

/** A dormer's roof, and the window of its front: taken over from a size of a pattern of the book. */
function DormerFields({ part, document, onChange }: OneProps<Extract<Part, { kind: 'dormer' }>>) {
  const { window } = part;
  const patterns = Object.values(document.patterns).filter(
    ({ profile, parts }) => !profile.outline && !parts?.some(({ kind }) => kind === 'dormer'),
  );
  const sizes = patterns.flatMap((pattern) =>
    Object.values(pattern.sizes).map((size) => ({
      value: `${pattern.id} ${size.id}`,
      label: `${pattern.name}, ${sizeLabel(pattern, size, document.units)}`,
    })),
  );
  const now = window
    ? `${profileShapes[window.shape].name.toLowerCase()}, ${Object.values(window.dimensions)
        .map((length) => formatLength(length, document.units))
        .join(' × ')}`
    : 'no window';
  return (
    <>
      <Figures
        value={part.roof}
        figures={[
          { key: 'material', label: 'Roof, of', kind: 'material' },
          { key: 'thickness', label: 'Roof, thick', kind: 'length', within: { least: 0.001, most: 1 } },
          { key: 'over', label: 'Overhang', kind: 'length', within: { least: 0, most: 2 } },
        ]}
        document={document}
        onChange={(over) => onChange({ roof: { ...part.roof, ...over } })}
      />
      <Choice
        label="Front"
        value=""
        options={[{ value: '', label: now }, ...(window ? [{ value: 'none', label: 'no window' }] : []), ...sizes]}
        onChange={(value) => {
          if (value === '') return;
          if (value === 'none') return void onChange({ window: undefined });
          const [pattern, size] = value.split(' ') as [string, string];
          onChange({ window: windowFrom(document, part, pattern, size) });
        }}
      />
      {window && (
        <Figures
          value={window}
          figures={[
            { key: 'sill', label: 'Sill', kind: 'length', within: { least: 0, most: 5 }, note: 'above the roof' },
          ]}
          document={document}
          onChange={(over) => onChange({ window: { ...window, ...over } })}
        />
      )}
    </>
  );
}

const sideTicks = [
  { side: 'jamb-left', label: 'Left jamb' },
  { side: 'jamb-right', label: 'Right jamb' },
  { side: 'head', label: 'Head' },
  { side: 'sill', label: 'Sill' },
] as const;

type Sides = Extract<Part, { kind: 'surround' }>['sides'];

/** Along which sides a part goes: one at least. */
function SideTicks({ sides, onChange }: { sides: Sides; onChange: (sides: Sides) => void }) {
  return sideTicks.map(({ side, label }) => (
    <Tick
      key={side}
      label={label}
      value={sides.includes(side)}
      onChange={(on) => {
        const next = sideTicks.map((one) => one.side).filter((one) => (one === side ? on : sides.includes(one)));
        if (next.length > 0) onChange(next);
      }}
    />
  ));
}

function SurroundFields({ part, document, onChange }: OneProps<Extract<Part, { kind: 'surround' }>>) {
  return (
    <>
      <MouldingFields
        moulding={part.moulding}
        first={Math.min(0.02, part.thickness / 2)}
        document={document}
        onChange={(next) => onChange({ moulding: next })}
      />
      <SideTicks sides={part.sides} onChange={(sides) => onChange({ sides })} />
    </>
  );
}

function KeystoneFields({ part, document, onChange }: OneProps<Extract<Part, { kind: 'arch ring' }>>) {
  const { keystone } = part;
  return (
    <>
      <Tick
        label="Keystone"
        value={keystone !== undefined}
        onChange={(on) => onChange({ keystone: on ? { rise: 0.06, proud: 0.02, material: part.material } : undefined })}
      />
      {keystone && (
        <Figures
          value={keystone}
          figures={[
            { key: 'rise', label: '', kind: 'length', within: limits.keystone, note: 'higher' },
            { key: 'proud', label: '', kind: 'length', within: limits.proud, note: 'further out' },
            { key: 'material', label: 'of', kind: 'material' },
          ]}
          document={document}
          onChange={(over) => onChange({ keystone: { ...keystone, ...over } })}
        />
      )}
    </>
  );
}
