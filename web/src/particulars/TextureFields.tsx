/** How texture is laid on faces of each role: moved, turned, mirrored, and where a rounded reveal begins to be unrolled. */
import type { Texture, Units } from '@yard-arch/document';
import { useState } from 'react';
import { AngleField, Choice, LengthField, Tick } from '../fields/Fields.tsx';

interface TextureProps<R extends string> {
  roles: readonly { value: R; label: string; rounded?: boolean }[];
  textures: Partial<Record<R, Texture>> | undefined;
  units: Units;
  onChange: (textures: Partial<Record<R, Texture>> | undefined) => boolean;
}

const seams = [
  { value: 'start', label: 'left springing' },
  { value: 'crown', label: 'crown' },
  { value: 'end', label: 'right springing' },
];

export function TextureFields<R extends string>({ roles, textures, units, onChange }: TextureProps<R>) {
  const [shown, setShown] = useState<R>(roles[0]!.value);
  const role = roles.find(({ value }) => value === shown)!;
  const texture = textures?.[shown] ?? {};
  const set = (over: Partial<Texture>): boolean => {
    const next = { ...texture, ...over };
    if (!next.turn) delete next.turn;
    if (!next.mirror) delete next.mirror;
    if (!next.seam || next.seam === 'start') delete next.seam;
    if (!next.offset?.u && !next.offset?.v) delete next.offset;
    const all: Partial<Record<R, Texture>> = { ...textures };
    if (Object.keys(next).length > 0) all[shown] = next;
    else Reflect.deleteProperty(all, shown);
    return onChange(Object.keys(all).length > 0 ? all : undefined);
  };
  const offset = { u: 0, v: 0, ...texture.offset };
  return (
    <details className="reveal" open={textures !== undefined}>
      <summary>Texture{textures ? '' : ', as it is unrolled'}</summary>
      <Choice
        label="On the"
        value={shown}
        options={roles.map(({ value, label }) => ({ value, label: textures?.[value] ? `${label} (set)` : label }))}
        onChange={(value) => setShown(value as R)}
      />
      <LengthField
        label="Moved along"
        value={offset.u}
        units={units}
        onChange={(u) => set({ offset: { ...offset, u } })}
      />
      <LengthField
        label="Moved up"
        value={offset.v}
        units={units}
        onChange={(v) => set({ offset: { ...offset, v } })}
      />
      <AngleField label="Turned" value={texture.turn ?? 0} onChange={(turn) => set({ turn })} />
      <Tick label="Mirrored" value={texture.mirror ?? false} onChange={(mirror) => set({ mirror })} />
      {role.rounded && (
        <Choice
          label="Seam at"
          value={texture.seam ?? 'start'}
          options={seams}
          onChange={(seam) => set({ seam: seam as Texture['seam'] })}
        />
      )}
    </details>
  );
}
