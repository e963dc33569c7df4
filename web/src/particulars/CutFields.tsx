/** What a pattern does to its element: cut through, a niche, a boss, an imprint, or keep only what lies inside. */
import type { Cut, Pattern, ProjectDocument } from '@yard-arch/document';
import { Choice, LengthField } from '../fields/Fields.tsx';
import { PictureChoice } from '../fields/PictureChoice.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';

/** Each as a level section through the wall, its face below: what is solid, and what else is drawn. */
const kinds: { value: Cut['kind']; label: string; solid: string; line?: string }[] = [
  { value: 'through', label: 'cuts through', solid: 'M2 8H15V24H2ZM33 8H46V24H33Z' },
  { value: 'niche', label: 'niche to a depth', solid: 'M2 8H46V24H33V16H15V24H2Z' },
  {
    value: 'niche to layer',
    label: 'niche to a layer',
    solid: 'M2 8H46V16H2ZM2 16.01H15V24H2ZM33 16.01H46V24H33Z',
    line: 'M2 16H46',
  },
  { value: 'boss', label: 'boss, raised', solid: 'M2 6H46V20H33V27H15V20H2Z' },
  { value: 'imprint', label: 'imprint on the face', solid: 'M2 8H46V24H2Z', line: 'M15 24H33' },
  {
    value: 'keep inside',
    label: 'keeps only its inside',
    solid: 'M15 8H33V24H15Z',
    line: 'M2 8H12M2 24H12M36 8H46M36 24H46',
  },
];

const pictured = kinds.map(({ value, label, solid, line }) => ({
  value,
  label,
  picture: (width: number) => (
    <svg className="cut-section" viewBox="0 0 48 32" width={width} height={(width * 32) / 48} aria-hidden="true">
      <path d={solid} />
      {line && <path className={value} d={line} />}
    </svg>
  ),
}));

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
      <PictureChoice
        label="Cut"
        value={cut.kind}
        options={pictured}
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
