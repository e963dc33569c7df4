/** What a roof's edges are trimmed with: each kind of trim, its dimensions and its material. */
import type { ProjectDocument, Roof, Trims } from '@yard-arch/document';
import { changeElement } from '@yard-arch/edit';
import { LengthField, Tick } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { commit } from '../state/store.ts';

const kinds: { key: keyof Trims; label: string; size: 'height' | 'width'; usual: number; thick: number }[] = [
  { key: 'fascia', label: 'Fascia', size: 'height', usual: 0.2, thick: 0.025 },
  { key: 'barge', label: 'Barge board', size: 'height', usual: 0.24, thick: 0.03 },
  { key: 'cap', label: 'Ridge caps', size: 'width', usual: 0.14, thick: 0.02 },
  { key: 'verge', label: 'Verge trim', size: 'width', usual: 0.16, thick: 0.02 },
];

export function TrimFields({ roof, document }: { roof: Roof; document: ProjectDocument }) {
  const { units } = document;
  const set = (trims: Trims, what: string): boolean =>
    commit(changeElement<Roof>(roof, { trims: Object.values(trims).some(Boolean) ? trims : undefined }, what));
  return (
    <>
      <h3>Trims</h3>
      {kinds.map(({ key, label, size, usual, thick }) => {
        const trim = roof.trims?.[key] as { thickness: number; material: string } & Record<typeof size, number>;
        const change = (over: object): boolean =>
          set({ ...roof.trims, [key]: { ...trim, ...over } }, `change the ${label.toLowerCase()} of`);
        return (
          <div key={key}>
            <Tick
              label={label}
              value={trim !== undefined}
              onChange={(on) =>
                set(
                  {
                    ...roof.trims,
                    [key]: on
                      ? {
                          [size]: usual,
                          thickness: thick,
                          material: roof.layers.at(key === 'cap' || key === 'verge' ? 0 : -1)!.material,
                        }
                      : undefined,
                  },
                  on ? `give ${label.toLowerCase()} to` : `take ${label.toLowerCase()} off`,
                )
              }
            />
            {trim && (
              <>
                <LengthField
                  label={`${label}, ${size === 'height' ? 'high' : 'wide'}`}
                  positive
                  value={trim[size]}
                  units={units}
                  onChange={(value) => change({ [size]: value })}
                />
                <LengthField
                  label={`${label}, thick`}
                  positive
                  value={trim.thickness}
                  units={units}
                  onChange={(thickness) => change({ thickness })}
                />
                <MaterialChoice
                  label={`${label}, of`}
                  value={trim.material}
                  document={document}
                  onChange={(material) => material && change({ material })}
                />
              </>
            )}
          </div>
        );
      })}
    </>
  );
}
