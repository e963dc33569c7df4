/** How the figures of a file are meant whose format does not say so: its unit, and which of its axes is upright. */
import type { ForeignScale } from '@yard-arch/core/read-mesh';
import { Choice } from './Fields.tsx';

const unitChoices = [
  { value: '1', label: 'metres' },
  { value: '0.01', label: 'centimetres' },
  { value: '0.001', label: 'millimetres' },
  { value: '0.3048', label: 'feet' },
  { value: '0.0254', label: 'inches' },
];

interface ScaleProps {
  /** The file's name: GLB files say both themselves. */
  name: string | undefined;
  scale: ForeignScale;
  onChange: (scale: ForeignScale) => void;
}

export function ScaleFields({ name, scale, onChange }: ScaleProps) {
  if (!name?.toLowerCase().endsWith('.obj')) return null;
  return (
    <>
      <Choice
        label="Its unit"
        value={String(scale.unit)}
        options={unitChoices}
        onChange={(unit) => onChange({ ...scale, unit: Number(unit) })}
        note="OBJ files do not say"
      />
      <Choice
        label="Its upright axis"
        value={scale.up}
        options={[
          { value: 'y', label: 'y' },
          { value: 'z', label: 'z' },
        ]}
        onChange={(up) => onChange({ ...scale, up: up as 'y' | 'z' })}
      />
    </>
  );
}
