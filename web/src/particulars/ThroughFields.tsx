/** How an opening goes through: square to its face or aimed, and which further elements along its axis it cuts as well. */
import { elementsAlong, planesUnder, resolveOpening, sheetsOf } from '@yard-arch/core';
import {
  faceLabel,
  formatLength,
  isSeenFromAbove,
  limits,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import { changeOpening } from '@yard-arch/edit';
import { useMemo } from 'react';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { AngleField, Choice, Tick } from '../fields/Fields.tsx';

/** Elements farther away than this are not offered, metres: those behind a wall, and those below what is set out from above, as deep as a shaft may go. */
const reach = { behind: 6, below: 100 };

export function ThroughFields({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  const status = useEditor((state) => state.statuses.get(opening.id));
  const found = useMemo(() => {
    const resolved = resolveOpening(document, opening);
    return 'outline' in resolved ? elementsAlong(document, opening, resolved) : [];
  }, [document, opening]);
  const element = document.elements[opening.element];
  const fromAbove = element !== undefined && isSeenFromAbove(element) && opening.face === undefined && !opening.aim;
  const near = fromAbove ? reach.below : reach.behind;
  const further = opening.further ?? [];
  // What was asked for stays listed, though the axis passes it by now.
  const listed = [
    ...found,
    ...further
      .filter((id) => !found.some((other) => other.element === id))
      .map((id) => ({ element: id, distance: null })),
  ].filter(({ element: id, distance }) => further.includes(id) || (distance !== null && Math.abs(distance) < near));
  const toggle = (id: string) => {
    const next = further.includes(id) ? further.filter((other) => other !== id) : [...further, id];
    const name = document.elements[id]?.name ?? id;
    commit(
      changeOpening(
        opening,
        { further: next.length > 0 ? next : undefined },
        further.includes(id) ? `leave ${name} whole at` : `cut ${name} too at`,
      ),
    );
  };
  return (
    <>
      <Planes document={document} opening={opening} />
      <Choice
        label="Goes"
        value={opening.aim ? 'aimed' : 'square'}
        options={[
          { value: 'square', label: 'square to the face' },
          { value: 'aimed', label: 'in a direction' },
        ]}
        onChange={(way) =>
          commit(
            changeOpening(
              opening,
              { aim: way === 'aimed' ? { turn: ((element?.turn ?? 0) + 90) % 360 } : undefined },
              'aim',
            ),
          )
        }
      />
      {opening.aim && (
        <AngleField
          label="Direction"
          value={opening.aim.turn}
          onChange={(turn) => commit(changeOpening(opening, { aim: { ...opening.aim, turn } }, 'aim'))}
        />
      )}
      {opening.aim && (
        <AngleField
          label="Rises by"
          value={opening.aim.rise ?? 0}
          within={limits.rise}
          onChange={(rise) =>
            commit(changeOpening(opening, { aim: { turn: opening.aim!.turn, ...(rise ? { rise } : {}) } }, 'aim'))
          }
        />
      )}
      {listed.length > 0 && (
        <fieldset className="further">
          <legend>{fromAbove ? 'Also cuts, below and above it' : 'Also cuts, along its axis'}</legend>
          {listed.map(({ element: id, distance }) => {
            const told = status?.further?.find((one) => one.element === id);
            return (
              <label key={id}>
                <input type="checkbox" checked={further.includes(id)} onChange={() => toggle(id)} />
                <span>{document.elements[id]?.name ?? id}</span>
                <small>
                  {distance === null
                    ? 'no longer on its axis'
                    : `${formatLength(Math.abs(distance), document.units)} ${
                        distance < 0 ? (fromAbove ? 'above' : 'in front') : fromAbove ? 'below' : 'behind'
                      }`}
                </small>
                {told?.state === 'not cut' && (
                  <em>
                    {told.reason}. {told.mend}
                  </em>
                )}
              </label>
            );
          })}
          {listed.length > 1 && listed.some(({ element: id }) => !further.includes(id)) && (
            <button
              type="button"
              className="link"
              onClick={() =>
                commit(
                  changeOpening(
                    opening,
                    { further: [...new Set([...further, ...listed.map(({ element: id }) => id)])] },
                    `cut ${listed.length} elements too at`,
                  ),
                )
              }
            >
              all {listed.length} of them
            </button>
          )}
        </fieldset>
      )}
    </>
  );
}

/** Which of the planes that it comes down on a cut from above goes through: all, unless some are left whole. */
function Planes({ document, opening }: { document: ProjectDocument; opening: Opening }) {
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
