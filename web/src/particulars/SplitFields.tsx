/** What an element is split along: each split moved, turned, closed in a material, taken away; and how a plane is put through it. */
import { otherSide, splitInSpace } from '@yard-arch/core';
import { omit, type Element, type ProjectDocument, type Split } from '@yard-arch/document';
import { alterSplit, keepBoth, planeAcross, splitElement } from '@yard-arch/edit';
import { refuse } from '../common/notices.tsx';
import { AngleField, Choice, LengthField } from '../fields/Fields.tsx';
import { chooseElement } from '../state/choice.ts';
import { commit } from '../state/store.ts';

interface SplitFieldsProps {
  document: ProjectDocument;
  element: Element;
}

/** Makes an edit, or says why it cannot be. */
function take(outcome: ReturnType<typeof splitElement>): void {
  if ('reason' in outcome) return refuse(outcome);
  if (commit(outcome.changeSet) && outcome.id) chooseElement(outcome.id);
}

export function SplitFields({ document, element }: SplitFieldsProps) {
  const splits = element.splits ?? [];
  return (
    <>
      {splits.length === 0 && (
        <p className="note">
          Split it along a line drawn in plan, or by a plane that is moved and turned in the model.
        </p>
      )}
      {splits.map((split, i) => (
        <OneSplit
          key={i}
          document={document}
          split={splitInSpace(split, element)}
          set={(to, what) => commit(alterSplit(element, i, to, what))}
          both={() => take(keepBoth(document, element, i))}
        />
      ))}
      <button
        className="link"
        onClick={() => take(splitElement(document, element, planeAcross(document, element), 'this'))}
      >
        put a plane through it
      </button>
    </>
  );
}

interface OneSplitProps {
  document: ProjectDocument;
  /** As it lies in space. */
  split: Split;
  set: (to: Split | undefined, what?: string) => boolean;
  both: () => void;
}

function OneSplit({ document, split, set, both }: OneSplitProps) {
  const { units } = document;
  const closedIn = [
    { value: '', label: 'its layers' },
    ...Object.values(document.materials).map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <div className="size" role="group" aria-label="Split">
      {'path' in split ? (
        <p className="note">
          along a {split.path.length === 2 ? 'line' : `chain of ${split.path.length - 1} lines`} drawn in plan
        </p>
      ) : (
        <>
          {(['x', 'y', 'z'] as const).map((axis) => (
            <LengthField
              key={axis}
              label={`Plane at ${axis}`}
              value={split.at[axis]}
              units={units}
              onChange={(value) => set({ ...split, at: { ...split.at, [axis]: value } })}
            />
          ))}
          <AngleField
            label="Kept towards"
            value={split.turn}
            onChange={(turn) => set({ ...split, turn }, 'turn a split of')}
          />
          <AngleField
            label="Rising by"
            value={split.tilt}
            within={{ least: -90, most: 90 }}
            onChange={(tilt) => set({ ...split, tilt }, 'tilt a split of')}
          />
        </>
      )}
      <Choice
        label="Closed in"
        value={split.material ?? ''}
        options={closedIn}
        onChange={(value) => {
          set(value ? { ...split, material: value } : (omit(split, 'material') as Split), 'close a split of');
        }}
      />
      <div className="row-links">
        <button className="link" onClick={() => set(otherSide(split), 'keep the other side of')}>
          keep the other side
        </button>
        <button className="link" onClick={both}>
          keep both, as two
        </button>
        <button className="link" onClick={() => set(undefined)}>
          take it away
        </button>
      </div>
    </div>
  );
}
