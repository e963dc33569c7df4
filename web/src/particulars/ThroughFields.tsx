/** How an opening goes through: square to its face or aimed, and which further elements along its axis it cuts as well. */
import { elementsAlong, planesUnder, resolveOpening, sheetsOf } from '@yard-arch/core';
import {
  faceLabel,
  formatLength,
  isSeenFromAbove,
  limits,
  type Opening,
  type ProjectDocument,
  type Units,
} from '@yard-arch/document';
import { changeOpening } from '@yard-arch/edit';
import { useMemo } from 'react';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { AngleField, Choice, Tick } from '../fields/Fields.tsx';

/** Elements farther away than this are not offered, metres: those behind a wall, and those below what is set out from above, as deep as a shaft may go. */
const reach = { behind: 6, below: 100 };

interface ThroughProps {
  document: ProjectDocument;
  opening: Opening;
}

export function ThroughFields({ document, opening }: ThroughProps) {
  return (
    <>
      <Planes document={document} opening={opening} />
      <Way document={document} opening={opening} />
      <Further document={document} opening={opening} />
    </>
  );
}

/** Whether it goes square to its face, or in a direction of its own. */
function Way({ document, opening }: ThroughProps) {
  const { aim } = opening;
  const set = (next: Opening['aim']): boolean => commit(changeOpening(opening, { aim: next }, 'aim'));
  return (
    <>
      <Choice
        label="Goes"
        value={aim ? 'aimed' : 'square'}
        options={[
          { value: 'square', label: 'square to the face' },
          { value: 'aimed', label: 'in a direction' },
        ]}
        onChange={(way) =>
          set(way === 'aimed' ? { turn: ((document.elements[opening.element]?.turn ?? 0) + 90) % 360 } : undefined)
        }
      />
      {aim && <AngleField label="Direction" value={aim.turn} onChange={(turn) => set({ ...aim, turn })} />}
      {aim && (
        <AngleField
          label="Rises by"
          value={aim.rise ?? 0}
          within={limits.rise}
          onChange={(rise) => set({ turn: aim.turn, ...(rise ? { rise } : {}) })}
        />
      )}
    </>
  );
}

/** An element that an opening can cut as well; without a distance where its axis passes it by now. */
interface Listed {
  element: string;
  distance: number | null;
}

/** What lies along an opening's axis, near enough to be offered, and all that was asked for. */
function useListed({ document, opening }: ThroughProps, fromAbove: boolean): Listed[] {
  const found = useMemo(() => {
    const resolved = resolveOpening(document, opening);
    return 'outline' in resolved ? elementsAlong(document, opening, resolved) : [];
  }, [document, opening]);
  const near = fromAbove ? reach.below : reach.behind;
  const further = opening.further ?? [];
  const gone = further.filter((id) => !found.some((other) => other.element === id));
  return [...found, ...gone.map((id): Listed => ({ element: id, distance: null }))].filter(
    ({ element: id, distance }) => further.includes(id) || (distance !== null && Math.abs(distance) < near),
  );
}

/** The further elements that it cuts as well. */
function Further({ document, opening }: ThroughProps) {
  const element = document.elements[opening.element];
  const fromAbove = element !== undefined && isSeenFromAbove(element) && opening.face === undefined && !opening.aim;
  const listed = useListed({ document, opening }, fromAbove);
  const further = opening.further ?? [];
  const set = (next: string[], what: string): boolean =>
    commit(changeOpening(opening, { further: next.length > 0 ? next : undefined }, what));
  const toggle = (id: string): void => {
    const name = document.elements[id]?.name ?? id;
    if (further.includes(id))
      set(
        further.filter((other) => other !== id),
        `leave ${name} whole at`,
      );
    else set([...further, id], `cut ${name} too at`);
  };
  if (listed.length === 0) return null;
  const all = [...new Set([...further, ...listed.map(({ element: id }) => id)])];
  return (
    <fieldset className="further">
      <legend>{fromAbove ? 'Also cuts, below and above it' : 'Also cuts, along its axis'}</legend>
      {listed.map((one) => (
        <label key={one.element}>
          <input type="checkbox" checked={further.includes(one.element)} onChange={() => toggle(one.element)} />
          <span>{document.elements[one.element]?.name ?? one.element}</span>
          <small>{whereIs(one, fromAbove, document.units)}</small>
          <NotCut opening={opening.id} element={one.element} />
        </label>
      ))}
      {listed.length > 1 && all.length > further.length && (
        <button type="button" className="link" onClick={() => set(all, `cut ${listed.length} elements too at`)}>
          all {listed.length} of them
        </button>
      )}
    </fieldset>
  );
}

function whereIs({ distance }: Listed, fromAbove: boolean, units: Units): string {
  if (distance === null) return 'no longer on its axis';
  const [before, beyond] = fromAbove ? ['above', 'below'] : ['in front', 'behind'];
  return `${formatLength(Math.abs(distance), units)} ${distance < 0 ? before : beyond}`;
}

/** Why an opening does not cut a further element. */
function NotCut({ opening, element }: { opening: string; element: string }) {
  const told = useEditor((state) => state.statuses.get(opening)?.further?.find((one) => one.element === element));
  return told?.state === 'not cut' ? (
    <em>
      {told.reason}. {told.mend}
    </em>
  ) : null;
}

/** Which of the planes that it comes down on a cut from above goes through: all, unless some are left whole. */
function Planes({ document, opening }: ThroughProps) {
  const under = useMemo(() => {
    const body = sheetsOf(document).body(opening.element);
    const above = sheetsOf(document).of(opening.element);
    const placed = resolveOpening(document, opening);
    return body && above && opening.face === undefined && 'outline' in placed ? planesUnder(placed, body, above) : [];
  }, [document, opening]);
  const element = document.elements[opening.element];
  if (!element || (under.length < 2 && !opening.planes)) return null;
  const chosen = opening.planes ?? under;
  const set = (face: string, on: boolean): boolean => {
    const next = on ? [...chosen, face] : chosen.filter((other) => other !== face);
    const all = under.every((one) => next.includes(one));
    if (next.length === 0) return false;
    const label = faceLabel(element, face);
    return commit(
      changeOpening(
        opening,
        { planes: all ? undefined : next },
        on ? `cut the ${label} too at` : `leave the ${label} whole at`,
      ),
    );
  };
  return (
    <>
      <h3>Planes that it cuts</h3>
      {[...new Set([...under, ...chosen])].map((face) => (
        <Tick
          key={face}
          label={faceLabel(element, face)}
          value={chosen.includes(face)}
          onChange={(on) => set(face, on)}
        />
      ))}
    </>
  );
}
