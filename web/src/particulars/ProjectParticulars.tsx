/** Particulars of the project: its name, how finely arcs are drawn, and its materials. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { defaultChord, formatLength, textureNames, type Material, type ProjectDocument } from '@yard-arch/document';
import { addMaterial, changeMaterial, removeMaterial, renameProject, setChord, usesOfMaterial } from '@yard-arch/edit';
import { commit } from '../state/store.ts';
import { Choice, LengthField, NameField } from '../fields/Fields.tsx';

const textures = [{ value: '', label: 'plain' }, ...textureNames.map((name) => ({ value: name, label: name }))];

export function ProjectParticulars({ document }: { document: ProjectDocument }) {
  const { units } = document;
  return (
    <section aria-label="Particulars of the project" data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        Project
      </Heading>
      <NameField label="Name" value={document.name} onChange={(name) => commit(renameProject(name))} />
      <LengthField
        label="Arcs within"
        positive
        value={document.chord ?? defaultChord}
        units={units}
        note="of their chords"
        onChange={(chord) =>
          chord > 1 ? 'Chords are at most 1 m from their arcs.' : commit(setChord(chord, formatLength(chord, units)))
        }
      />
      <hr />
      <h3>Materials</h3>
      {Object.values(document.materials).map((material) => (
        <MaterialFields key={material.id} material={material} used={usesOfMaterial(document, material.id)} />
      ))}
      <Flex mt="3">
        <Button size="sm" variant="outline" onClick={() => commit(addMaterial(document))}>
          Add a material
        </Button>
      </Flex>
    </section>
  );
}

function MaterialFields({ material, used }: { material: Material; used: number }) {
  const change = (over: Partial<Material>, what: string): boolean => commit(changeMaterial(material, over, what));
  return (
    <div className="size">
      <NameField label="Name" value={material.name} onChange={(name) => change({ name }, 'rename')} />
      <div className="row">
        <label className="label" htmlFor={`colour-${material.id}`}>
          Colour
        </label>
        <div className="value">
          <input
            id={`colour-${material.id}`}
            key={material.colour}
            className="colour"
            type="color"
            defaultValue={material.colour}
            // The picker tells of every shade on the way; only the last is an edit.
            onBlur={(event) =>
              event.target.value.toLowerCase() !== material.colour.toLowerCase() &&
              change({ colour: event.target.value }, 'colour')
            }
          />
        </div>
      </div>
      <Choice
        label="Texture"
        value={material.texture ?? ''}
        options={textures}
        onChange={(name) => change({ texture: (name || undefined) as Material['texture'] }, 'texture')}
      />
      <Choice
        label="Surface"
        value={String(nearest(material.roughness))}
        options={surfaces.map(({ roughness, label }) => ({ value: String(roughness), label }))}
        onChange={(roughness) => change({ roughness: Number(roughness) }, 'polish')}
      />
      <Flex align="baseline" justify="space-between" mt="1">
        <span className="state idle">{used === 0 ? 'unused' : `used ${used === 1 ? 'once' : `${used} times`}`}</span>
        {used === 0 && (
          <button className="link" onClick={() => commit(removeMaterial(material))}>
            remove
          </button>
        )}
      </Flex>
    </div>
  );
}

const surfaces = [
  { roughness: 1, label: 'dull' },
  { roughness: 0.9, label: 'matt' },
  { roughness: 0.6, label: 'satin' },
  { roughness: 0.35, label: 'smooth' },
  { roughness: 0.1, label: 'polished' },
];

function nearest(roughness: number): number {
  return surfaces.reduce(
    (best, { roughness: r }) => (Math.abs(r - roughness) < Math.abs(best - roughness) ? r : best),
    1,
  );
}
