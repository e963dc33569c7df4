/** Particulars of the project: its name, how finely arcs are drawn, and its materials. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import {
  limits,
  defaultChord,
  formatLength,
  pictureTypes,
  textureNames,
  type Asset,
  type Material,
  type Pictures,
  type PictureSlot,
  type ProjectDocument,
} from '@yard-arch/document';
import {
  addMaterial,
  changeMaterial,
  dropPicture,
  putPicture,
  removeMaterial,
  renameProject,
  setChord,
  usesOfMaterial,
} from '@yard-arch/edit';
import { useState } from 'react';
import { complain } from '../common/notices.tsx';
import { api, assetUrl } from '../state/api.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { Choice, LengthField, NameField, Row } from '../fields/Fields.tsx';
import { Sample, SampleChoice } from '../fields/Sample.tsx';

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
        within={limits.chord}
        onChange={(chord) => commit(setChord(chord, formatLength(chord, units)))}
      />
      <hr />
      <h3>Materials</h3>
      {Object.values(document.materials).map((material) => (
        <MaterialFields key={material.id} material={material} document={document} />
      ))}
      <Flex mt="3">
        <Button size="sm" variant="outline" onClick={() => commit(addMaterial(document))}>
          Add a material
        </Button>
      </Flex>
    </section>
  );
}

const slots: readonly { slot: PictureSlot; label: string }[] = [
  { slot: 'colour', label: 'Colour' },
  { slot: 'roughness', label: 'Roughness' },
  { slot: 'normal', label: 'Normals' },
];

function MaterialFields({ material, document }: { material: Material; document: ProjectDocument }) {
  const change = (over: Partial<Material>, what: string): boolean => commit(changeMaterial(material, over, what));
  const used = usesOfMaterial(document, material.id);
  const { colour, texture } = material;
  return (
    <div className="size material">
      <Sample look={material} assets={document.assets} width={84} />
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
      <SampleChoice
        label="Texture"
        value={texture ?? ''}
        assets={document.assets}
        options={[
          { value: '', label: 'plain', look: { colour } },
          ...textureNames.map((name) => ({ value: name, label: name, look: { colour, texture: name } })),
        ]}
        onChange={(name) => change({ texture: (name || undefined) as Material['texture'] }, 'texture')}
      />
      <Choice
        label="Surface"
        value={String(nearest(material.roughness))}
        options={surfaces.map(({ roughness, label }) => ({ value: String(roughness), label }))}
        onChange={(roughness) => change({ roughness: Number(roughness) }, 'polish')}
      />
      <Choice
        label="Seen through"
        value={String(throughNear(material.opacity))}
        options={seenThrough.map(({ opacity, label }) => ({ value: String(opacity), label }))}
        onChange={(value) =>
          change({ opacity: Number(value) < 1 ? Number(value) : undefined }, 'change how much is seen through')
        }
      />
      <PictureFields material={material} document={document} />
      <Flex align="baseline" justify="space-between" mt="1">
        <span className="state idle">{used === 0 ? 'unused' : `used ${used === 1 ? 'once' : `${used} times`}`}</span>
        {used === 0 && (
          <button className="link" onClick={() => commit(removeMaterial(document, material))}>
            remove
          </button>
        )}
      </Flex>
    </div>
  );
}

/** Pictures of a material's own: chosen from files, or dropped here, and how large a piece of surface they show. */
function PictureFields({ material, document }: { material: Material; document: ProjectDocument }) {
  const { pictures } = material;
  const [busy, setBusy] = useState<PictureSlot | null>(null);
  const take = async (slot: PictureSlot, file: File | undefined): Promise<void> => {
    if (!file) return;
    setBusy(slot);
    try {
      const facts = await api.keepPicture(file);
      const name =
        file.name
          .replace(/\p{Cc}/gu, ' ')
          .trim()
          .slice(0, 120) || 'picture';
      const now = useEditor.getState().document;
      const then = now?.materials[material.id];
      if (now && then) commit(putPicture(now, then, slot, { ...facts, name }));
    } catch (error) {
      complain(`${file.name} was not taken`, (error as Error).message);
    } finally {
      setBusy(null);
    }
  };
  const size = (over: Partial<Pictures>): boolean =>
    commit(changeMaterial(material, { pictures: { ...pictures!, ...over } }, 'size the pictures of'));
  return (
    <details className="reveal" open={pictures !== undefined}>
      <summary>Pictures of its own{pictures ? '' : ', none'}</summary>
      {slots.map(({ slot, label }) => {
        const asset = document.assets[pictures?.[slot] ?? ''];
        return (
          <Row
            key={slot}
            label={label}
            note={
              asset && (
                <button className="link" onClick={() => commit(dropPicture(document, material, slot))}>
                  take off
                </button>
              )
            }
          >
            <label
              className="picture"
              onDragOver={(event) => event.preventDefault()}
              onDrop={(event) => {
                event.preventDefault();
                void take(slot, event.dataTransfer.files[0]);
              }}
            >
              {asset && <Picture asset={asset} />}
              <span>{busy === slot ? 'being kept…' : asset ? asset.name : 'choose a picture'}</span>
              <input
                type="file"
                accept={pictureTypes.join(',')}
                aria-label={`${label} picture of ${material.name}`}
                onChange={(event) => {
                  void take(slot, event.target.files?.[0]);
                  event.target.value = '';
                }}
              />
            </label>
          </Row>
        );
      })}
      {pictures && (
        <>
          <LengthField
            label="Shows, across"
            positive
            value={pictures.width}
            units={document.units}
            onChange={(width) => size({ width, height: (pictures.height * width) / pictures.width })}
          />
          <LengthField
            label="Shows, up"
            positive
            value={pictures.height}
            units={document.units}
            onChange={(height) => size({ height })}
          />
        </>
      )}
    </details>
  );
}

/** A kept picture, small; where it is missing that is said. */
function Picture({ asset }: { asset: Asset }) {
  const [gone, setGone] = useState(false);
  if (gone)
    return (
      <span className="bad" role="alert" title="It may have been brought in on another server. Choose it anew.">
        missing
      </span>
    );
  return (
    <img
      src={assetUrl(asset.sha256)}
      width="34"
      height="34"
      alt={`${asset.width} by ${asset.height} dots`}
      onError={() => setGone(true)}
    />
  );
}

const seenThrough = [
  { opacity: 1, label: 'no' },
  { opacity: 0.8, label: 'a little' },
  { opacity: 0.55, label: 'by half' },
  { opacity: 0.3, label: 'as glass' },
  { opacity: 0.12, label: 'almost all' },
];

function throughNear(opacity = 1): number {
  return seenThrough.reduce(
    (best, one) => (Math.abs(one.opacity - opacity) < Math.abs(best - opacity) ? one.opacity : best),
    1,
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
