/** How openings are spaced: equal piers, equal centres or a given pier, and what is left at the ends. */
import type { Margins, Spacing } from '@yard-arch/core';
import type { Units } from '@yard-arch/document';
import { Choice, FreeLength, LengthField } from '../fields/Fields.tsx';

export interface Spaced {
  kind: Spacing['kind'];
  pier: number;
  margins: Margins;
}

export const firstSpaced: Spaced = { kind: 'equal piers', pier: 1, margins: { start: null, end: null } };

/** The spacing that the fields give. */
export const spacingOf = ({ kind, pier }: Spaced): Spacing => (kind === 'given pier' ? { kind, pier } : { kind });

export function SpacingFields({
  spaced,
  ends,
  units,
  onChange,
}: {
  spaced: Spaced;
  ends: boolean;
  units: Units;
  onChange: (spaced: Spaced) => void;
}) {
  const otherwise =
    spaced.kind === 'equal piers' ? 'as the piers' : spaced.kind === 'equal centres' ? 'half a bay' : 'what is left';
  return (
    <>
      <Choice
        label="Spacing"
        value={spaced.kind}
        options={(['equal piers', 'equal centres', 'given pier'] as const).map((kind) => ({
          value: kind,
          label: kind,
        }))}
        onChange={(kind) => onChange({ ...spaced, kind: kind as Spacing['kind'] })}
      />
      {spaced.kind === 'given pier' && (
        <LengthField
          label="Pier"
          value={spaced.pier}
          units={units}
          onChange={(pier) => {
            if (pier < 0) return 'A pier must not be negative.';
            onChange({ ...spaced, pier });
            return true;
          }}
        />
      )}
      {ends && (
        <FreeLength
          label="At start"
          value={spaced.margins.start}
          otherwise={otherwise}
          units={units}
          onChange={(start) => onChange({ ...spaced, margins: { ...spaced.margins, start } })}
        />
      )}
      {ends && (
        <FreeLength
          label="At end"
          value={spaced.margins.end}
          otherwise={otherwise}
          units={units}
          onChange={(end) => onChange({ ...spaced, margins: { ...spaced.margins, end } })}
        />
      )}
    </>
  );
}
