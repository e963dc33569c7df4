/** What a roof is: its form, the figures that its edges have in common, and its edges one by one. */
import {
  edgeLabels,
  edgesOfRoof,
  limits,
  sameValue,
  type ProjectDocument,
  type Roof,
  type RoofEdge,
} from '@yard-arch/document';
import {
  changeAllEdges,
  type EdgeFigures,
  formed,
  giveForm,
  roofForms,
  putUnder,
  wallsBelow,
  wallsUnder,
  type RoofFormName,
} from '@yard-arch/edit';
import { LengthField, PitchField } from '../fields/Fields.tsx';
import { PictureChoice, strokesFor, type Pictured } from '../fields/PictureChoice.tsx';
import { choose, chooseElement } from '../state/choice.ts';
import { commit, preview } from '../state/store.ts';
import { EavesSection } from './EavesSection.tsx';
import { TrimFields } from './TrimFields.tsx';

/** Each form from its side: strokes in a box of 48 by 30. */
const drawings: Record<RoofFormName, string> = {
  hipped: 'M3 26H45L35 8H13ZM13 8L20 26M35 8L28 26',
  gabled: 'M6 26V18L24 6L42 18V26ZM3 20L24 6L45 20',
  'half-hipped': 'M3 26H45L39 12L34 6H14L9 12ZM9 12H14V6M39 12H34V6',
  'lean-to': 'M6 26V20L42 7V26ZM3 21L42 7',
  mansard: 'M3 26H45L40 13L28 6H20L8 13ZM8 13H40',
  'bell-cast': 'M1 26H47L38 20L27 6H21L10 20ZM10 20H38',
  flat: 'M3 26V16L45 14V26ZM3 20L45 18',
  butterfly: 'M6 26V14L24 19L42 14V26ZM3 8L24 14L45 8L45 13L24 19L3 13Z',
};

export const pictured: Pictured[] = roofForms.map((form) => strokesFor(form, form, drawings[form]));

/** What an edge is, in a few words. */
export function edgeWords(edge: RoofEdge): string {
  if (edge.is === 'abutment') return 'abutment';
  if (edge.is === 'verge') return edge.hip ? `verge, half-hip ${degrees(edge.hip.pitch)}` : 'verge';
  return `eaves ${degrees(edge.pitch)}${edge.second ? `, then ${degrees(edge.second.pitch)}` : ''}`;
}

const degrees = (value: number): string => `${Number(value.toFixed(2))}°`;

type Eaves = Extract<RoofEdge, { is: 'eaves' }>;

/** What of an eaves is otherwise than it was. */
const changedOf = (before: Eaves, { pitch, over, second }: Eaves): EdgeFigures => ({
  ...(pitch === before.pitch ? {} : { pitch }),
  ...(over === before.over ? {} : { over }),
  ...(!second || sameValue(second, before.second) ? {} : { second }),
});

export function RoofFields({ roof, document }: { roof: Roof; document: ProjectDocument }) {
  const { units } = document;
  const edges = edgesOfRoof(roof);
  const eaves = edges.filter((edge) => edge.is === 'eaves');
  const reaching = edges.filter((edge) => edge.is !== 'abutment');
  const form = roofForms.find((name) => sameValue(formed(roof, name), roof)) ?? null;
  const labels = edgeLabels(roof);
  const under = wallsUnder(document, roof);
  const below = wallsBelow(document, roof);
  const various = (all: readonly number[]): string | undefined =>
    all.some((value) => value !== all[0]) ? 'the first of several' : undefined;
  return (
    <>
      <PictureChoice
        label="Form"
        value={form ?? 'own'}
        options={form ? pictured : [...pictured, { value: 'own', label: 'a form of its own', picture: null }]}
        onChange={(value) => value !== 'own' && commit(giveForm(roof, value as RoofFormName))}
      />
      {eaves[0] && (
        <EavesSection
          edge={eaves[0]}
          thickness={roof.layers.reduce((sum, layer) => sum + layer.thickness, 0)}
          ends={roof.ends}
          units={units}
          onSee={(to) => preview(to && changeAllEdges(roof, changedOf(eaves[0]!, to), 'draw'))}
          onChange={(to) => commit(changeAllEdges(roof, changedOf(eaves[0]!, to), 'change the eaves of'))}
        />
      )}
      {eaves[0] && (
        <PitchField
          label="Pitch"
          inward
          value={eaves[0].pitch}
          note={various(eaves.map(({ pitch }) => pitch))}
          onChange={(pitch) => commit(changeAllEdges(roof, { pitch }, 'change the pitch of'))}
        />
      )}
      {reaching[0] && (
        <LengthField
          label="Overhang"
          value={reaching[0].over}
          units={units}
          note={various(reaching.map(({ over }) => over))}
          within={limits.overhang}
          onChange={(over) => commit(changeAllEdges(roof, { over }, 'change the overhang of'))}
        />
      )}
      <h3>Edges, {edges.length}</h3>
      <ul className="roof-edges" aria-label={`Edges of ${roof.name}`}>
        {edges.map((edge) => (
          <li key={edge.id}>
            <button onClick={() => choose({ kind: 'edge', id: edge.id })}>
              <span>{labels.get(edge.id)}</span> <small>{edgeWords(edge)}</small>
            </button>
          </li>
        ))}
      </ul>
      <TrimFields roof={roof} document={document} />
      {below.length > 0 && (
        <button className="link" onClick={() => commit(putUnder(roof, below))}>
          let {below.length === 1 ? below[0]!.name : `${below.length} walls below`} reach up to it
        </button>
      )}
      {under.length > 0 && (
        <>
          <h3>Walls under it, {under.length}</h3>
          <p className="note">
            {under.map((wall, i) => (
              <span key={wall.id}>
                {i > 0 && ', '}
                <button className="link" onClick={() => chooseElement(wall.id)}>
                  {wall.name}
                </button>
              </span>
            ))}
          </p>
        </>
      )}
    </>
  );
}
