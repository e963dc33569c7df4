/** What a vaulted bay stands over, its ribs, and bays in rows; and how a bay is made of a barrel. */
import {
  isInPlan,
  type Bay,
  type Element,
  type ProjectDocument,
  type Units,
  type Vault,
  type Wall,
} from '@yard-arch/document';
import {
  barrelEnds,
  baseOf,
  bayOfBarrel,
  bayRows,
  floorIn,
  changeElement,
  roomOf,
  setBase,
  vaultBetween,
  vaultings,
  vaultOver,
  wallsFacing,
  wallUpEnd,
  type Vaulting,
} from '@yard-arch/edit';
import { useMemo, useState } from 'react';
import { refuse } from '../common/notices.tsx';
import { Choice, CountField, LengthField, Tick } from '../fields/Fields.tsx';
import { Figures, type Figure } from '../fields/Figures.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { chooseElement } from '../state/choice.ts';
import { commit, commitOr } from '../state/store.ts';

export function BarrelFields({ vault, document }: { vault: Vault; document: ProjectDocument }) {
  const make = (severies: 'groin' | 'cloister') => () => {
    commitOr(bayOfBarrel(document, vault, severies));
  };
  const ends = barrelEnds(vault);
  const wallUp = (which: 'start' | 'end') => () => {
    const { changeSet, id } = wallUpEnd(document, vault, which);
    if (commit(changeSet)) chooseElement(id);
  };
  return (
    <>
      <ArchFields vault={vault} document={document} />
      <div className="row-links">
        <button className="link" onClick={wallUp('start')}>
          wall up its {ends.start} end
        </button>
        <button className="link" onClick={wallUp('end')}>
          wall up its {ends.end} end
        </button>
      </div>
      <div className="row-links">
        <button className="link" onClick={make('groin')}>
          make a groin vault of it
        </button>
        <button className="link" onClick={make('cloister')}>
          make a cloister vault of it
        </button>
      </div>
    </>
  );
}

const archFigures: readonly Figure[] = [
  { key: 'count', label: 'Arches', kind: 'count', within: { least: 1, most: 200 } },
  { key: 'width', label: 'Arches, wide', kind: 'length' },
  { key: 'depth', label: 'Arches, deep', kind: 'length', note: 'below the soffit' },
  { key: 'material', label: 'Arches, of', kind: 'material' },
];

/** Transverse arches under a barrel. */
function ArchFields({ vault, document }: { vault: Vault; document: ProjectDocument }) {
  const { arches } = vault;
  const set = (to: Vault['arches'], what: string): boolean => commit(changeElement<Vault>(vault, { arches: to }, what));
  return (
    <>
      <Tick
        label="Transverse arches"
        value={arches !== undefined}
        onChange={(on) =>
          set(
            on
              ? {
                  count: Math.max(2, Math.round(vault.length / 2.5) + 1),
                  width: 0.35,
                  depth: 0.15,
                  material: vault.layers.at(-1)!.material,
                }
              : undefined,
            on ? 'put arches under' : 'take the arches from',
          )
        }
      />
      {arches && (
        <Figures
          value={arches}
          figures={archFigures}
          document={document}
          onChange={(over) => set({ ...arches, ...over }, 'change the arches of')}
        />
      )}
    </>
  );
}

/** Chooses what was laid, or says why it cannot be. */
function laid(outcome: ReturnType<typeof vaultOver>): void {
  if ('reason' in outcome) return refuse(outcome);
  if (commit(outcome.changeSet)) chooseElement(outcome.id);
}

/** Laying a vault over the room that walls stand about, or that a slab floors; nothing where there is none. */
export function VaultOver({ element, document }: { element: Element; document: ProjectDocument }) {
  const room = useMemo(() => roomOf(document, element), [document, element]);
  if ('reason' in room) return isInPlan(element) ? <VaultBetween wall={element} document={document} /> : null;
  const lay = (as: Vaulting) => () => {
    laid(vaultOver(document, element, as));
  };
  return (
    <p className="row-links">
      <span>{element.kind === 'slab' ? 'Vault over it:' : 'Vault over its room:'}</span>
      {vaultings.map((as) => (
        <button key={as} className="link" onClick={lay(as)}>
          {as}
        </button>
      ))}
    </p>
  );
}

/** So many walls that face one are offered; those farther away are seldom meant. */
const mostFacing = 4;

/** Laying a barrel from one wall to another that runs alongside it, where both are in no room. */
function VaultBetween({ wall, document }: { wall: Wall; document: ProjectDocument }) {
  const facing = useMemo(() => wallsFacing(document, wall).slice(0, mostFacing), [document, wall]);
  if (facing.length === 0) return null;
  const lay = (other: Wall) => () => {
    laid(vaultBetween(document, wall, other));
  };
  return (
    <p className="row-links">
      <span>Barrel vault from it to:</span>
      {facing.map((other) => (
        <button key={other.id} className="link" onClick={lay(other)}>
          {other.name}
        </button>
      ))}
    </p>
  );
}

/** Laying a floor in the room that walls stand about, at their foot or with a datum; nothing where there is none. */
export function FloorIn({ element, document }: { element: Element; document: ProjectDocument }) {
  const room = useMemo(() => floorIn(document, element), [document, element]);
  if ('reason' in room) return null;
  const datums = Object.values(document.datums).filter((datum) => datum.element === null);
  const lay = (datum: string | null) => () => {
    laid(floorIn(document, element, datum));
  };
  return (
    <p className="row-links">
      <span>Floor in its room:</span>
      <button className="link" onClick={lay(null)}>
        at its foot
      </button>
      {datums.map(({ id, name }) => (
        <button key={id} className="link" onClick={lay(id)}>
          {name}
        </button>
      ))}
    </p>
  );
}

export function BayFields({ bay, document }: { bay: Bay; document: ProjectDocument }) {
  const { units } = document;
  const base = baseOf(bay);
  const long = Math.hypot(bay.corners[1]!.x - bay.corners[0]!.x, bay.corners[1]!.y - bay.corners[0]!.y);
  const over = [
    { value: 'rectangle', label: 'a rectangle' },
    { value: 'regular', label: 'a regular polygon' },
    ...(base.over === 'own' ? [{ value: 'own', label: 'corners of its own' }] : []),
  ];
  return (
    <>
      <Choice
        label="Over"
        value={base.over}
        options={over}
        onChange={(value) => {
          if (value === 'rectangle') commit(setBase(bay, { over: 'rectangle', width: long, depth: long }));
          if (value === 'regular') commit(setBase(bay, { over: 'regular', sides: 6, long }));
        }}
      />
      {base.over === 'rectangle' && (
        <>
          <LengthField
            label="Wide"
            positive
            value={base.width}
            units={units}
            onChange={(width) => commit(setBase(bay, { ...base, width }))}
          />
          <LengthField
            label="Deep"
            positive
            value={base.depth}
            units={units}
            onChange={(depth) => commit(setBase(bay, { ...base, depth }))}
          />
        </>
      )}
      {base.over === 'regular' && (
        <>
          <CountField
            label="Sides"
            value={base.sides}
            within={{ least: 3, most: 12 }}
            onChange={(sides) => commit(setBase(bay, { ...base, sides }))}
          />
          <LengthField
            label="Each side"
            positive
            value={base.long}
            units={units}
            onChange={(to) => commit(setBase(bay, { ...base, long: to }))}
          />
        </>
      )}
      <RibFields bay={bay} document={document} units={units} />
      {base.over === 'rectangle' && <Rows bay={bay} document={document} />}
    </>
  );
}

function RibFields({ bay, document, units }: { bay: Bay; document: ProjectDocument; units: Units }) {
  const { ribs } = bay;
  const set = (to: Bay['ribs'], what: string): boolean => commit(changeElement<Bay>(bay, { ribs: to }, what));
  return (
    <>
      <Tick
        label="Ribs"
        value={ribs !== undefined}
        onChange={(on) =>
          set(
            on ? { width: 0.2, depth: 0.15, material: bay.layers[0]!.material } : undefined,
            on ? 'put ribs under' : 'take the ribs from',
          )
        }
      />
      {ribs && (
        <>
          <LengthField
            label="Ribs, wide"
            positive
            value={ribs.width}
            units={units}
            onChange={(width) => set({ ...ribs, width }, 'widen the ribs of')}
          />
          <LengthField
            label="Ribs, deep"
            positive
            value={ribs.depth}
            units={units}
            onChange={(depth) => set({ ...ribs, depth }, 'deepen the ribs of')}
          />
          <MaterialChoice
            label="Ribs, of"
            value={ribs.material}
            document={document}
            onChange={(material) => material && set({ ...ribs, material }, 'change the ribs of')}
          />
          {bay.severies !== 'cloister' && (
            <Tick
              label="Along its sides too"
              value={ribs.sides ?? false}
              onChange={(on) =>
                set({ ...ribs, sides: on || undefined }, on ? 'put ribs along' : 'take ribs from along')
              }
            />
          )}
        </>
      )}
    </>
  );
}

/** Bays side by side. */
function Rows({ bay, document }: { bay: Bay; document: ProjectDocument }) {
  const [along, setAlong] = useState(3);
  const [across, setAcross] = useState(1);
  const repeat = (): void => {
    const outcome = bayRows(document, bay, along, across);
    if ('reason' in outcome) refuse(outcome);
    else commit(outcome.changeSet);
  };
  return (
    <>
      <h3>Bays in rows</h3>
      <CountField label="Along" value={along} within={{ least: 1, most: 50 }} onChange={setAlong} />
      <CountField label="Across" value={across} within={{ least: 1, most: 50 }} onChange={setAcross} />
      <button className="link" onClick={repeat}>
        repeat it {along} by {across}
      </button>
    </>
  );
}
