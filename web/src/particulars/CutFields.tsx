/** What a pattern does to its element: cut through, a niche, a boss, an imprint, or keep only what lies inside. */
import type { Cut, Pattern, ProjectDocument } from '@yard-arch/document';
import { Choice, LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';

const kinds: { value: Cut['kind']; label: string }[] = [
  { value: 'through', label: 'cuts through' },
  { value: 'niche', label: 'niche to a depth' },
  { value: 'niche to layer', label: 'niche to a layer' },
  { value: 'boss', label: 'boss, raised' },
  { value: 'imprint', label: 'imprint on the face' },
  { value: 'keep inside', label: 'keeps only its inside' },
];

const beginning: Record<Cut['kind'], Cut> = {
  through: { kind: 'through' },
  niche: { kind: 'niche', depth: 0.12 },
  'niche to layer': { kind: 'niche to layer', layers: 1 },
  boss: { kind: 'boss', height: 0.03 },
  imprint: { kind: 'imprint', material: null },
  'keep inside': { kind: 'keep inside' },
};

export function CutFields({
  pattern,
  document,
  onChange,
}: {
  pattern: Pattern;
  document: ProjectDocument;
  onChange: (cut: Cut) => boolean;
}) {
  const cut = pattern.cut ?? beginning.through;
  return (
    <>
      <Choice
        label="Cut"
        value={cut.kind}
        options={kinds}
        onChange={(kind) => onChange(beginning[kind as Cut['kind']])}
      />
      {cut.kind === 'niche' && (
        <LengthField
          label="Depth"
          positive
          value={cut.depth}
          units={document.units}
          onChange={(depth) => onChange({ ...cut, depth })}
        />
      )}
      {cut.kind === 'niche to layer' && (
        <Choice
          label="Through"
          value={String(cut.layers)}
          options={Array.from({ length: 6 }, (_, i) => ({
            value: String(i + 1),
            label: i === 0 ? 'the outer layer' : `${i + 1} layers`,
          }))}
          onChange={(layers) => onChange({ ...cut, layers: Number(layers) })}
        />
      )}
      {cut.kind === 'boss' && (
        <LengthField
          label="Raised by"
          positive
          value={cut.height}
          units={document.units}
          onChange={(height) => onChange({ ...cut, height })}
        />
      )}
      {cut.kind === 'boss' && (
        <Choice
          label="Stands"
          value={String(cut.layers ?? '')}
          options={[
            { value: '', label: 'on the face' },
            ...Array.from({ length: 6 }, (_, i) => ({
              value: String(i + 1),
              label: i === 0 ? 'through the outer layer' : `through ${i + 1} layers`,
            })),
            { value: 'all', label: 'through all layers' },
          ]}
          onChange={(layers) =>
            onChange({
              kind: 'boss',
              height: cut.height,
              ...(layers ? { layers: layers === 'all' ? 'all' : Number(layers) } : {}),
            })
          }
        />
      )}
      {cut.kind === 'imprint' && (
        <MaterialChoice
          label="Material"
          value={cut.material ?? ''}
          none="as the face"
          document={document}
          onChange={(id) => onChange({ ...cut, material: id || null })}
        />
      )}
    </>
  );
}
