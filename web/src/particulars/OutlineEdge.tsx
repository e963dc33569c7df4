/** How an edge of a roof is drawn in plan: its length, whether it is an arc, and the corners at its ends. */
import { edgeLabels, facetsOf, formatLength, limits, type Roof, type RoofEdge, type Units } from '@yard-arch/document';
import {
  addOutlineCorner,
  bendOutlineEdge,
  closeCourt,
  edgeBefore,
  isCourts,
  lengthenOutlineEdge,
  outlineLength,
  outlineSweep,
  removeOutlineCorner,
} from '@yard-arch/edit';
import { refusalOf } from '../common/notices.tsx';
import { AngleField, CountField, LengthField } from '../fields/Fields.tsx';
import { choose } from '../state/choice.ts';
import { commit, commitOr } from '../state/store.ts';

interface OutlineEdgeProps {
  roof: Roof;
  edge: RoofEdge;
  units: Units;
  set: (to: RoofEdge) => boolean;
}

/** An outcome as a field takes it: done, or why it is not. */
const given = (outcome: Parameters<typeof commitOr>[0]): boolean | string =>
  'reason' in outcome ? refusalOf(outcome) : commit(outcome);

export function OutlineEdge({ roof, edge, units, set }: OutlineEdgeProps) {
  const { id } = edge;
  const length = outlineLength(roof, id);
  const before = edgeLabels(roof).get(edgeBefore(roof, id).id)!;
  // What goes with the edge leaves nothing to be chosen.
  const gone = (outcome: Parameters<typeof commitOr>[0]): void => {
    if (commitOr(outcome)) choose({ kind: 'wall' });
  };
  return (
    <>
      <h3>In plan</h3>
      {edge.bulge === undefined ? (
        <LengthField
          label="Length"
          value={length}
          units={units}
          positive
          onChange={(to) => given(lengthenOutlineEdge(roof, id, to))}
        />
      ) : (
        <p className="note">Its chord is {formatLength(length, units)} long.</p>
      )}
      <AngleField
        label="Curves by"
        value={outlineSweep(roof, id)}
        within={{ least: -270, most: 270 }}
        note={edge.bulge === undefined ? undefined : 'out where it is more than 0'}
        onChange={(to) => given(bendOutlineEdge(roof, id, to))}
      />
      {edge.bulge !== undefined && (
        <CountField
          label="Facets"
          value={facetsOf(edge)}
          within={limits.facets}
          onChange={(facets) => set({ ...edge, facets })}
        />
      )}
      <div className="row-links">
        <button className="link" onClick={() => commitOr(addOutlineCorner(roof, id))}>
          put a corner into its middle
        </button>
        <button className="link" onClick={() => gone(removeOutlineCorner(roof, id))}>
          take it away, and let the {before.toLowerCase()} go on
        </button>
        {isCourts(roof, id) && (
          <button className="link" onClick={() => gone(closeCourt(roof, id))}>
            close the courtyard
          </button>
        )}
      </div>
    </>
  );
}
