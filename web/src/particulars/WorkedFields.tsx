/** How the members of a frame are worked: their inner edge, a rebate for what they hold, and their joints. */
import {
  jointKinds,
  limits,
  mouldingKinds,
  type Framing,
  type Moulding,
  type ProjectDocument,
} from '@yard-arch/document';
import { mouldingToDraw } from '@yard-arch/edit';
import { Choice, Tick } from '../fields/Fields.tsx';
import { Figures } from '../fields/Figures.tsx';
import { DrawnMoulding } from './DrawnMoulding.tsx';

interface WorkedProps {
  framing: Framing;
  document: ProjectDocument;
  onChange: (over: Partial<Framing>) => boolean;
}

interface MouldingProps {
  moulding: Moulding | undefined;
  /** How large one is to begin with, metres. */
  first: number;
  document: ProjectDocument;
  onChange: (moulding: Moulding | undefined) => boolean;
}

/** How an edge is worked. */
export function MouldingFields({ moulding, first, document, onChange }: MouldingProps) {
  const size = moulding && 'size' in moulding ? moulding.size : first;
  return (
    <>
      <Choice
        label="Edge"
        value={moulding?.kind ?? 'square'}
        options={[
          { value: 'square', label: 'square' },
          ...mouldingKinds.map((kind) => ({ value: kind, label: kind === 'ogee' ? 'an ogee' : kind })),
          { value: 'drawn', label: 'drawn' },
        ]}
        onChange={(kind) => {
          if (kind === 'square') return onChange(undefined);
          if (kind === 'drawn') return onChange({ kind, outline: mouldingToDraw(size) });
          return onChange({ kind: kind as (typeof mouldingKinds)[number], size });
        }}
      />
      {moulding?.kind === 'drawn' && <DrawnMoulding moulding={moulding} units={document.units} onChange={onChange} />}
      {moulding && moulding.kind !== 'drawn' && (
        <Figures
          value={moulding}
          figures={[{ key: 'size', label: '', kind: 'length', within: limits.moulding, note: 'each way' }]}
          document={document}
          onChange={(over) => onChange({ ...moulding, ...over })}
        />
      )}
    </>
  );
}

export function WorkedFields({ framing, document, onChange }: WorkedProps) {
  const { moulding, rebate, joints = 'mitred' } = framing;
  return (
    <>
      <MouldingFields
        moulding={moulding}
        first={0.015}
        document={document}
        onChange={(next) => onChange({ moulding: next })}
      />
      <Tick
        label="Rebate"
        value={rebate !== undefined}
        onChange={(on) => onChange({ rebate: on ? { width: 0.012, depth: 0.056 } : undefined })}
      />
      {rebate && (
        <Figures
          value={rebate}
          figures={[
            { key: 'width', label: '', kind: 'length', within: limits.member, note: 'over its edge' },
            { key: 'depth', label: '', kind: 'length', within: limits.member, note: 'deep' },
            {
              key: 'from',
              label: 'from the',
              kind: 'choice',
              options: [
                { value: 'back', label: 'back' },
                { value: 'front', label: 'front' },
              ],
              otherwise: 'back',
              unsaid: true,
            },
          ]}
          document={document}
          onChange={(over) => onChange({ rebate: { ...rebate, ...over } })}
        />
      )}
      {!moulding && !rebate && (
        <Choice
          label="Joints"
          value={joints}
          options={jointKinds.map((kind) => ({ value: kind, label: kind }))}
          onChange={(kind) => onChange({ joints: kind === 'mitred' ? undefined : (kind as Framing['joints']) })}
        />
      )}
    </>
  );
}
