/** Particulars of one edge of a roof: what it is, its pitches, how far it reaches. */
import { Heading } from '@chakra-ui/react';
import { edgeLabels, edgesOfRoof, limits, type ProjectDocument, type Roof, type RoofEdge } from '@yard-arch/document';
import { changeEdge, edgeAs } from '@yard-arch/edit';
import { FindingList } from '../arrange/FindingList.tsx';
import { Choice, LengthField, PitchField } from '../fields/Fields.tsx';
import { choose } from '../state/choice.ts';
import { commit, preview } from '../state/store.ts';
import { EavesSection } from './EavesSection.tsx';
import { OutlineEdge } from './OutlineEdge.tsx';

const kinds = [
  { value: 'eaves', label: 'eaves' },
  { value: 'verge', label: 'verge' },
  { value: 'abutment', label: 'abutment' },
];

export function EdgeParticulars({ document, roof, id }: { document: ProjectDocument; roof: Roof; id: string }) {
  const edge = edgesOfRoof(roof).find((one) => one.id === id)!;
  const label = edgeLabels(roof).get(id)!;
  const set = (to: RoofEdge, what = `change the ${label.toLowerCase()} of`): boolean =>
    commit(changeEdge(roof, id, to, what));
  return (
    <section aria-label={`${label} of ${roof.name}`} data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        {label} of {roof.name}
      </Heading>
      <FindingList document={document} element={roof} />
      <Choice
        label="Is"
        value={edge.is}
        options={kinds}
        onChange={(is) =>
          set(edgeAs(roof, edge, is as RoofEdge['is']), `make ${article(is)} of the ${label.toLowerCase()} of`)
        }
      />
      {edge.is === 'eaves' && (
        <EavesSection
          edge={edge}
          thickness={roof.layers.reduce((sum, layer) => sum + layer.thickness, 0)}
          ends={roof.ends}
          units={document.units}
          onSee={(to) => preview(to && changeEdge(roof, id, to, 'draw'))}
          onChange={set}
        />
      )}
      {edge.is === 'eaves' && <EavesFields edge={edge} units={document.units} set={set} />}
      {edge.is === 'verge' && <VergeFields edge={edge} units={document.units} set={set} />}
      <OutlineEdge roof={roof} edge={edge} units={document.units} set={set} />
      <p>
        <button className="link" onClick={() => choose({ kind: 'wall' })}>
          the whole of {roof.name}
        </button>
      </p>
    </section>
  );
}

const article = (is: string): string => (is === 'verge' ? 'a verge' : is === 'abutment' ? 'an abutment' : 'eaves');

interface OwnProps<Is extends RoofEdge['is']> {
  edge: Extract<RoofEdge, { is: Is }>;
  units: ProjectDocument['units'];
  set: (to: RoofEdge) => boolean;
}

function OverhangField({ edge, units, set }: OwnProps<'eaves' | 'verge'>) {
  return (
    <LengthField
      label="Overhang"
      value={edge.over}
      units={units}
      within={limits.overhang}
      onChange={(over) => set({ ...edge, over })}
    />
  );
}

function EavesFields({ edge, units, set }: OwnProps<'eaves'>) {
  const { second } = edge;
  return (
    <>
      <PitchField label="Pitch" inward={!second} value={edge.pitch} onChange={(pitch) => set({ ...edge, pitch })} />
      <OverhangField edge={edge} units={units} set={set} />
      <LengthField
        label="Lifted by"
        value={edge.lift ?? 0}
        units={units}
        onChange={(lift) => set({ ...edge, lift: lift || undefined })}
      />
      {second ? (
        <>
          <LengthField
            label="Breaks at"
            positive
            value={second.from}
            units={units}
            note="above the eaves"
            onChange={(from) => set({ ...edge, second: { ...second, from } })}
          />
          <PitchField
            label="Second pitch"
            value={second.pitch}
            onChange={(pitch) => set({ ...edge, second: { ...second, pitch } })}
          />
          <button className="link" onClick={() => set({ ...edge, second: undefined })}>
            one pitch only
          </button>
        </>
      ) : edge.pitch < 0 ? null : (
        <button
          className="link"
          onClick={() =>
            set({ ...edge, second: { from: 2, pitch: edge.pitch > 50 ? 30 : Math.min(70, edge.pitch + 20) } })
          }
        >
          a second pitch from a height on
        </button>
      )}
    </>
  );
}

function VergeFields({ edge, units, set }: OwnProps<'verge'>) {
  const { hip } = edge;
  return (
    <>
      <OverhangField edge={edge} units={units} set={set} />
      {hip ? (
        <>
          <LengthField
            label="Half-hip from"
            positive
            value={hip.from}
            units={units}
            note="above the eaves"
            onChange={(from) => set({ ...edge, hip: { ...hip, from } })}
          />
          <PitchField
            label="Hip’s pitch"
            value={hip.pitch}
            onChange={(pitch) => set({ ...edge, hip: { ...hip, pitch } })}
          />
          <button className="link" onClick={() => set({ ...edge, hip: undefined })}>
            a whole gable
          </button>
        </>
      ) : (
        <button className="link" onClick={() => set({ ...edge, hip: { from: 1.5, pitch: 50 } })}>
          a half-hip from a height on
        </button>
      )}
    </>
  );
}
