/** A leaf: how it is hung and stands, its frame, what is on it, and what is in it. */
import { hangings, limits, slides, type Leaf, type ProjectDocument } from '@yard-arch/document';
import { usualMaterials } from '@yard-arch/edit';
import type { ReactNode } from 'react';
import { Choice, Tick } from '../fields/Fields.tsx';
import { Figures, type Figure } from '../fields/Figures.tsx';
import { AlikeInOthers } from './AlikeInOthers.tsx';
import { MemberFields } from './MemberFields.tsx';
import { WorkedFields } from './WorkedFields.tsx';

interface LeafProps {
  field: Leaf;
  document: ProjectDocument;
  onChange: (field: Leaf) => boolean;
}

const hungAs = (hung: Leaf['hung']): string =>
  hung === 'left' || hung === 'right' || hung === 'top' || hung === 'bottom' ? `on the ${hung}` : hung;

const opens: Figure = {
  key: 'opens',
  label: 'Opens',
  kind: 'choice',
  options: [
    { value: 'inward', label: 'inward' },
    { value: 'outward', label: 'outward' },
  ],
};

/** The figures of how a leaf stands. */
function standing(leaf: Leaf): Figure[] {
  if (leaf.hung === 'fixed') return [];
  const varied = leaf.vary ? 'by opening' : 'not at all';
  const vary: Figure = {
    key: 'vary',
    label: 'Varied by',
    kind: 'angle',
    within: limits.vary,
    otherwise: 0,
    unsaid: true,
    note: varied,
  };
  if (slides(leaf))
    return [
      {
        ...opens,
        label: 'Runs',
        options: [
          { value: 'inward', label: 'behind the others' },
          { value: 'outward', label: 'before the others' },
        ],
      },
      { key: 'slid', label: 'Slid by', kind: 'share', otherwise: 0, unsaid: true },
    ];
  return [
    opens,
    ...(leaf.hung.startsWith('folds')
      ? [{ key: 'folds', label: 'Leaves', kind: 'count', within: limits.folds, otherwise: 2 } as Figure]
      : []),
    { key: 'angle', label: 'Stands at', kind: 'angle', within: limits.angle },
    vary,
  ];
}

/** @param props.children the fields of what is in it */
export function LeafFields({ field, document, onChange, children }: LeafProps & { children: ReactNode }) {
  const { frame } = field;
  const change = (over: Partial<Leaf>): boolean => onChange({ ...field, ...over });
  return (
    <>
      <Choice
        label="Hung"
        value={field.hung}
        options={hangings.map((value) => ({ value, label: hungAs(value) }))}
        onChange={(hung) => change({ hung: hung as Leaf['hung'] })}
      />
      <Figures value={field} figures={standing(field)} document={document} onChange={change} />
      <MemberFields
        label="Its frame"
        member={frame}
        document={document}
        onChange={(over) => change({ frame: { ...frame, ...over } })}
      />
      <WorkedFields framing={frame} document={document} onChange={(over) => change({ frame: { ...frame, ...over } })} />
      <Figures
        value={field}
        figures={[{ key: 'clearance', label: 'Clearance', kind: 'length', within: limits.clearance }]}
        document={document}
        onChange={change}
      />
      <OnLeaf field={field} document={document} onChange={onChange} />
      {children}
    </>
  );
}

/** What is on a leaf: a handle, straps, and a strip over the joint to the next. */
function OnLeaf({ field, document, onChange }: LeafProps) {
  const { handle, straps, cover, hung } = field;
  const { timber } = usualMaterials(document);
  const change = (over: Partial<Leaf>): boolean => onChange({ ...field, ...over });
  return (
    <>
      <Choice
        label="Handle"
        value={handle?.kind ?? ''}
        options={[
          { value: '', label: 'none' },
          { value: 'knob', label: 'a knob' },
          { value: 'lever', label: 'a lever' },
          { value: 'pull', label: 'a pull' },
        ]}
        onChange={(kind) =>
          change({
            handle: kind ? { material: frameOr(field, timber), ...handle, kind: kind as 'knob' } : undefined,
          })
        }
      />
      {handle && (
        <Figures
          value={handle}
          figures={[
            {
              key: 'height',
              label: '',
              kind: 'length',
              within: limits.extent,
              otherwise: 1,
              note: handle.height === undefined ? 'in the middle' : 'above its foot',
            },
            { key: 'material', label: 'of', kind: 'material' },
          ]}
          document={document}
          onChange={(over) => change({ handle: { ...handle, ...over } })}
        />
      )}
      {handle && <AlikeInOthers document={document} own="" shared={{ what: 'handle', handle }} />}
      <Tick
        label="Straps"
        value={straps !== undefined}
        onChange={(on) =>
          change({ straps: on ? { count: 3, width: 0.05, share: 0.8, material: frameOr(field, timber) } : undefined })
        }
      />
      {straps && (
        <Figures
          value={straps}
          figures={[
            { key: 'count', label: 'How many', kind: 'count', within: limits.straps },
            { key: 'width', label: 'Width', kind: 'length', within: { least: 0.005, most: 0.3 } },
            { key: 'share', label: 'Reach', kind: 'share', note: 'of its width' },
            { key: 'material', label: 'of', kind: 'material' },
          ]}
          document={document}
          onChange={(over) => change({ straps: { ...straps, ...over } })}
        />
      )}
      {(hung === 'left' || hung === 'right') && (
        <Tick
          label="Cover strip"
          value={cover !== undefined}
          onChange={(on) =>
            change({ cover: on ? { width: 0.05, depth: 0.014, material: field.frame.material } : undefined })
          }
        />
      )}
      {cover && (
        <MemberFields
          label=""
          member={cover}
          document={document}
          onChange={(over) => change({ cover: { ...cover, ...over } })}
        />
      )}
    </>
  );
}

const frameOr = ({ frame }: Leaf, timber: string): string => frame.material || timber;
