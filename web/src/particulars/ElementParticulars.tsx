/** Particulars of an element: its figures, its build-up, and its openings one by one with what became of each. */
import type { MeshProof, Told } from '@yard-arch/core';
import { Button, Flex, Heading } from '@chakra-ui/react';
import {
  limits,
  formatLength,
  isInPlan,
  isManyFaced,
  isOverhead,
  isOutlined,
  kindOf,
  runsOf,
  type Element,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import { changeElement, groupsOf, removeElement, setGroup } from '@yard-arch/edit';
import { EvenOutSection } from '../arrange/EvenOutSection.tsx';
import { FillSection } from '../arrange/FillSection.tsx';
import { FindingList } from '../arrange/FindingList.tsx';
import { SettingOutButtons } from '../arrange/SettingOutSection.tsx';
import { later } from '../common/later.tsx';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { BuildUpFields } from './BuildUpFields.tsx';
import { Fold, MeshFold, PlaceFold } from './ElementFolds.tsx';
import { AngleField, Choice, FreeName, LengthField, NameField } from '../fields/Fields.tsx';
import { PictureChoice, strokesFor } from '../fields/PictureChoice.tsx';
import { OutlinesFields } from './OutlineFields.tsx';
import { OpeningList } from './OpeningList.tsx';
import { StatusLine } from './StatusLine.tsx';
import { TopFields } from './TopFields.tsx';

const SplitFields = later(async () => (await import('./SplitFields.tsx')).SplitFields);
const FloorIn = later(async () => (await import('./VaultFields.tsx')).FloorIn);
const VaultOver = later(async () => (await import('./VaultFields.tsx')).VaultOver);
const BarrelFields = later(async () => (await import('./VaultFields.tsx')).BarrelFields);
const BayFields = later(async () => (await import('./VaultFields.tsx')).BayFields);
const RoofFields = later(async () => (await import('./RoofFields.tsx')).RoofFields);

type Outlined = Extract<Element, { outline: unknown }>;

const ends = [
  { value: 'square', label: 'square' },
  { value: 'mitred', label: 'mitred at the corner' },
  { value: 'butted', label: 'butted to a wall' },
];

export function ElementParticulars({ document, element }: { document: ProjectDocument; element: Element }) {
  const statuses = useEditor((state) => state.statuses);
  const proof = useEditor((state) => state.proofs.get(element.id));
  const drawn = useEditor((state) => state.drawn.get(element.id));
  const { units } = document;
  const kind = kindOf(element);
  const openings = Object.values(document.openings).filter((opening) => opening.element === element.id);
  const change = (over: Partial<Element>, what: string): boolean => commit(changeElement(element, over, what));
  return (
    <section aria-label={`Particulars of ${element.name}`} data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        {kind.title}
      </Heading>
      <FindingList document={document} element={element} />
      <NameField label="Name" value={element.name} onChange={(name) => change({ name }, 'rename')} />
      <FreeName
        label="Group"
        value={element.group ?? null}
        otherwise="none"
        known={groupsOf(document)}
        onChange={(group) => commit(setGroup([element], group))}
      />
      {isInPlan(element) && (
        <WallFields
          wall={element}
          units={units}
          notes={drawn?.joins ?? []}
          roofs={Object.values(document.elements).filter(isOverhead)}
        />
      )}
      {isManyFaced(element) && <RoofFields roof={element} document={document} />}
      <Chosen element={element} />
      <Figures element={element} units={units} />
      {isInPlan(element) && <FloorIn element={element} document={document} />}
      {(isInPlan(element) || element.kind === 'slab') && <VaultOver element={element} document={document} />}
      {element.kind === 'vault' && <BarrelFields vault={element} document={document} />}
      {element.kind === 'bay' && <BayFields bay={element} document={document} />}
      {isOutlined(element) && <PanelOutline panel={element} units={units} />}
      <BuildUpFields element={element} document={document} onChange={(layers, what) => change({ layers }, what)} />
      <PlaceFold element={element} document={document} />
      <Fold title={element.splits ? `Splits, ${element.splits.length}` : 'Splits'} name="splits">
        <SplitFields document={document} element={element} />
      </Fold>
      <MeshFold element={element} units={units} />
      <hr />
      <h3>{openings.length === 0 ? 'No openings yet' : `Openings, ${openings.length}`}</h3>
      <SettingOutButtons document={document} element={element} />
      <FillSection document={document} element={element} />
      {openings.length > 1 && <EvenOutSection document={document} openings={openings} />}
      {openings.length === 0 && <p>Choose a pattern below the sheet, then click where it is to stand.</p>}
      <OpeningList
        document={document}
        openings={openings}
        statuses={statuses}
        end={({ id }) => <StatusLine status={statuses.get(id)} />}
      />
      {proof && <CutGives proof={proof} solid={drawn?.path === 'solid'} element={element} units={units} />}
      <Flex mt="3">
        <Button size="sm" variant="outline" color="brick" onClick={() => commit(removeElement(document, element))}>
          Remove {kind.noun}
          {openings.length > 0 ? ` and its ${openings.length} opening${openings.length === 1 ? '' : 's'}` : ''}
        </Button>
      </Flex>
    </section>
  );
}

/** What of a few a kind's fields hold, chosen by drawings. */
function Chosen({ element }: { element: Element }) {
  return (kindOf(element).choices ?? []).map(({ field, label, verb, options }) => {
    const value = (element as unknown as Record<string, string | undefined>)[field] ?? options[0]!.value;
    return (
      <PictureChoice
        key={field}
        label={label}
        value={value}
        options={options.map((option) => strokesFor(option.value, option.label, option.drawing))}
        onChange={(to) => commit(changeElement(element, { [field]: to } as Partial<Element>, verb))}
      />
    );
  });
}

/** The plain figures that a kind tells of. */
function Figures({ element, units }: { element: Element; units: ProjectDocument['units'] }) {
  return kindOf(element).figures.map(({ field, label, holds, verb, optional }) => {
    const value = (element as unknown as Record<string, number>)[field] ?? 0;
    const set = (to: number): boolean =>
      commit(changeElement(element, { [field]: to === 0 && optional ? undefined : to } as Partial<Element>, verb));
    return holds === 'length' ? (
      <LengthField key={field} label={label} positive={!optional} value={value} units={units} onChange={set} />
    ) : (
      <AngleField key={field} label={label} value={value} onChange={set} />
    );
  });
}

/** The outline and the holes of a panel or slab. */
function PanelOutline({ panel, units }: { panel: Outlined; units: ProjectDocument['units'] }) {
  const change = (over: Partial<Outlined>, what: string): boolean => commit(changeElement<Outlined>(panel, over, what));
  return (
    <OutlinesFields
      noun="hole"
      outline={panel.outline}
      inner={panel.holes ?? []}
      units={units}
      onOutline={(outline) => change({ outline }, 'redraw')}
      onInner={(holes, what) => change({ holes }, what)}
    />
  );
}

interface GivesProps {
  proof: MeshProof;
  /** Whether it was cut by solid booleans. */
  solid: boolean;
  element: Element;
  units: ProjectDocument['units'];
}

/** What the cut of an element gives, in figures. */
function CutGives({ proof, solid, element, units }: GivesProps) {
  return (
    <>
      <hr />
      <h3>What the cut gives</h3>
      <p>
        {proof.closed ? 'closed, 0 open edges' : `${proof.openEdges} open edges`} · {proof.triangles} triangles
        {solid ? ' · by solid booleans' : ''}
        <br />
        {proof.volume.toFixed(2)} m³ · outer face {(proof.areaByRole['outer face'] ?? 0).toFixed(2)} m² ·{' '}
        {formatLength(
          element.layers.reduce((sum, l) => sum + l.thickness, 0),
          units,
        )}{' '}
        thick
      </p>
    </>
  );
}

interface WallFieldsProps {
  wall: Wall;
  units: ProjectDocument['units'];
  notes: readonly Told[];
  /** The roofs that it can be under. */
  roofs: readonly Element[];
}

function WallFields({ wall, units, notes, roofs }: WallFieldsProps) {
  const change = (over: Partial<Wall>, what: string): boolean => commit(changeElement(wall, over, what));
  const runs = runsOf(wall);
  const bent = runs.length > 1 || wall.sweep;
  const end = (which: 'start' | 'end') => (
    <Choice
      label={which === 'start' ? 'Start' : 'End'}
      value={wall.ends?.[which] ?? 'square'}
      options={ends}
      onChange={(kind) =>
        change({ ends: { start: 'square', end: 'square', ...wall.ends, [which]: kind } }, `join the ${which} of`)
      }
    />
  );
  return (
    <>
      <LengthField
        label="Length"
        positive
        value={wall.length}
        units={units}
        onChange={(length) => change({ length }, 'lengthen')}
      />
      <AngleField
        label="Curves by"
        value={wall.sweep ?? 0}
        onChange={(sweep) => change({ sweep: sweep || undefined }, 'curve')}
      />
      {runs.slice(1).map((run, i) => {
        const set = (over: Partial<typeof run>): boolean =>
          change({ runs: wall.runs!.map((other, k) => (k === i ? { ...other, ...over } : other)) }, 'bend');
        return (
          <div key={i} className="size">
            <LengthField
              label={`Run ${i + 2}`}
              positive
              value={run.length}
              units={units}
              onChange={(length) => set({ length })}
            />
            <AngleField label="Turns by" value={run.turn} onChange={(turn) => set({ turn })} />
            <AngleField
              label="Curves by"
              value={run.sweep ?? 0}
              onChange={(sweep) => set({ sweep: sweep || undefined })}
            />
            <button
              className="link"
              onClick={() => change({ runs: wall.runs!.filter((_, k) => k !== i) }, 'take a run from')}
            >
              remove this run
            </button>
          </div>
        );
      })}
      <button
        className="link"
        onClick={() => change({ runs: [...(wall.runs ?? []), { turn: 0, length: wall.length }] }, 'add a run to')}
      >
        add a run
      </button>
      <LengthField
        label="Height"
        positive
        value={wall.height}
        units={units}
        onChange={(height) => change({ height }, 'heighten')}
      />
      <TopFields wall={wall} units={units} roofs={roofs} onChange={(top) => change({ top }, 'change the top of')} />
      {!bent && (
        <AngleField
          label="Leans in by"
          value={wall.batter ?? 0}
          within={limits.batter}
          onChange={(batter) => change({ batter: batter || undefined }, 'lean')}
        />
      )}
      {!bent && !wall.batter && (
        <>
          {end('start')}
          {end('end')}
          {notes.length > 0 && <p className="note">{notes.map(({ reason }) => reason).join('; ')}</p>}
        </>
      )}
    </>
  );
}
