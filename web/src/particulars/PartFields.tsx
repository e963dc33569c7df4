/** The parts that a pattern's openings carry. */
import { newId, type Part, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { changePattern } from '@yard-arch/edit';
import { commit } from '../state/store.ts';
import { LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';

export function PartFields({ pattern, document }: { pattern: Pattern; document: ProjectDocument }) {
  const parts = pattern.parts ?? [];
  const { units } = document;
  const materials = Object.values(document.materials).map(({ id, name }) => ({ value: id, label: name }));
  const set = (next: readonly Part[], what: string): boolean =>
    commit(changePattern(pattern, { parts: next.length > 0 ? [...next] : undefined }, what));
  const change = (part: Part, over: Partial<Part>): boolean =>
    set(
      parts.map((other) => (other.id === part.id ? { ...part, ...over } : other)),
      'change the sill board of',
    );
  const add = (behind: boolean): boolean =>
    set(
      [
        ...parts,
        {
          id: newId('q'),
          kind: 'sill board',
          material: pattern.reveal.sides?.sill ?? pattern.reveal.material ?? materials[0]!.value,
          thickness: behind ? 0.03 : 0.06,
          nosing: 0.04,
          horns: behind ? 0.05 : 0,
          ...(behind ? { reach: 0.12, behind } : { reach: 0.1 }),
        },
      ],
      behind ? 'put a board on the sill behind of' : 'put a board on the sill of',
    );
  return (
    <details className="reveal" open={parts.length > 0}>
      <summary>Sill boards{parts.length > 0 ? '' : ', none'}</summary>
      {parts.map((part) => (
        <div key={part.id} className="size" data-testid="part">
          <h3>{part.behind ? 'Board on the face behind' : 'Board on its own face'}</h3>
          <MaterialChoice
            label="Material"
            value={part.material}
            document={document}
            onChange={(material) => change(part, { material })}
          />
          <LengthField
            label="Thickness"
            positive
            value={part.thickness}
            units={units}
            onChange={(thickness) => change(part, { thickness })}
          />
          <LengthField
            label="Nosing"
            value={part.nosing}
            units={units}
            onChange={(nosing) => change(part, { nosing })}
          />
          <LengthField label="Horns" value={part.horns} units={units} onChange={(horns) => change(part, { horns })} />
          <LengthField
            label="Reach"
            value={part.reach ?? 0}
            note={part.reach === undefined ? 'all the way' : undefined}
            units={units}
            onChange={(reach) => change(part, { reach: reach > 0 ? reach : undefined })}
          />
          <button
            className="link"
            onClick={() =>
              set(
                parts.filter(({ id }) => id !== part.id),
                'take a board from',
              )
            }
          >
            remove this board
          </button>
        </div>
      ))}
      {materials.length === 0 && <p>Add a material first, under Materials in the register.</p>}
      <div className="buttons" hidden={materials.length === 0}>
        <button onClick={() => add(false)}>add a board</button>
        <button
          onClick={() => add(true)}
          title="As a window board within stands, where the opening is set out from outside"
        >
          add one on the face behind
        </button>
      </div>
    </details>
  );
}
