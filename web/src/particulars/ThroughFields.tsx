/** How an opening goes through: square to its face or aimed, and which further elements along its axis it cuts as well. */
import { elementsAlong, resolveOpening } from '@yard-arch/core';
import { limits, formatLength, type Opening, type ProjectDocument } from '@yard-arch/document';
import { changeOpening } from '@yard-arch/edit';
import { useMemo } from 'react';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { AngleField, Choice } from '../fields/Fields.tsx';

/** Elements farther away than this are not offered, metres. */
const reach = 6;

export function ThroughFields({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  const status = useEditor((state) => state.statuses.get(opening.id));
  const found = useMemo(() => {
    const resolved = resolveOpening(document, opening);
    return 'outline' in resolved ? elementsAlong(document, opening, resolved) : [];
  }, [document, opening]);
  const element = document.elements[opening.element];
  const further = opening.further ?? [];
  // What was asked for stays listed, though the axis passes it by now.
  const listed = [
    ...found,
    ...further
      .filter((id) => !found.some((other) => other.element === id))
      .map((id) => ({ element: id, distance: null })),
  ].filter(({ element: id, distance }) => further.includes(id) || (distance !== null && Math.abs(distance) < reach));
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
          <legend>Also cuts, along its axis</legend>
          {listed.map(({ element: id, distance }) => {
            const told = status?.further?.find((one) => one.element === id);
            return (
              <label key={id}>
                <input type="checkbox" checked={further.includes(id)} onChange={() => toggle(id)} />
                <span>{document.elements[id]?.name ?? id}</span>
                <small>
                  {distance === null
                    ? 'no longer on its axis'
                    : distance < 0
                      ? `${formatLength(-distance, document.units)} in front`
                      : `${formatLength(distance, document.units)} behind`}
                </small>
                {told?.state === 'not cut' && (
                  <em>
                    {told.reason}. {told.mend}
                  </em>
                )}
              </label>
            );
          })}
        </fieldset>
      )}
    </>
  );
}
