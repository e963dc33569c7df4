/** Tools at the corner of the sheet: lines to be added, the tape, and while something is placed the point by which it is held. */
import { keys } from '../common/keys.ts';
import {
  faceLabel,
  facesOf,
  isManyFaced,
  isUpright,
  type Element,
  type FaceName,
  type Grip,
  type Opening,
} from '@yard-arch/document';
import { addAxis, addDatum } from '@yard-arch/edit';
import { FlipHorizontal2, Hand, Plus, Ruler } from 'lucide-react';
import { memo } from 'react';
import { choose, slide, tape, turnOver } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { HeldChips } from './Held.tsx';

const levels: { level: Grip['level']; name: string }[] = [
  { level: 'head', name: 'head' },
  { level: 'springing', name: 'springing' },
  { level: 'middle', name: 'middle' },
  { level: 'sill', name: 'sill' },
];
const sides = ['left', 'centre', 'right'] as const;

interface SheetToolsProps {
  element: Element;
  face: FaceName;
  springing: boolean;
  /** The one opening that is chosen. */
  chosen: Opening | undefined;
  focusSheet: () => void;
}

export const SheetTools = memo(function SheetTools({ element, face, springing, chosen, focusSheet }: SheetToolsProps) {
  const document = useEditor((state) => state.document)!;
  const placing = useEditor((state) => state.placing);
  const taping = useEditor((state) => state.taping);
  const sliding = useEditor((state) => state.sliding);
  const added = (kind: 'datum' | 'axis', { changeSet, id }: ReturnType<typeof addDatum>): void => {
    if (commit(changeSet)) choose({ kind, id });
  };
  return (
    <div className="sheet-tools">
      {isManyFaced(element) && (
        <select
          aria-label="Face"
          title={`Which of its faces is on the sheet (${keys.turnOver.shown} goes on to the next)`}
          value={face}
          onChange={(event) => turnOver(element.id, event.target.value)}
        >
          {facesOf(element).map(({ name, label }) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </select>
      )}
      {!isManyFaced(element) && facesOf(element).length > 1 && (
        <button
          aria-pressed={face === 'inner'}
          onClick={() => turnOver(element.id, face === 'inner' ? 'outer' : 'inner')}
          title={`Turn the sheet over, to the ${faceLabel(element, face === 'inner' ? 'outer' : 'inner')} (${keys.turnOver.shown})`}
        >
          <FlipHorizontal2 size={13} /> Turn over
        </button>
      )}
      {placing && <GripChoice springing={springing} onChosen={focusSheet} />}
      {isUpright(element) && (
        <button
          onClick={() => added('datum', addDatum(document, element))}
          title="A level to which sills, heads and springings can be held, in the whole building"
        >
          <Plus size={13} /> Datum
        </button>
      )}
      <button
        onClick={() => added('axis', addAxis(document, element, face))}
        title="An upright line on this face to which openings can be held"
      >
        <Plus size={13} /> Axis
      </button>
      <button
        aria-pressed={taping}
        onClick={() => tape(!taping)}
        title={`Measure between any two points (${keys.tape.shown})`}
      >
        <Ruler size={13} /> Tape
      </button>
      <button
        aria-pressed={sliding}
        onClick={() => slide(!sliding)}
        title="Drag the drawing about; so do the middle button, and dragging with Space held"
      >
        <Hand size={13} /> Pan
      </button>
      {chosen && <HeldChips document={document} opening={chosen} />}
    </div>
  );
});

/** Nine points of the bounding rectangle, and those of the springing line where there is one. */
function GripChoice({ springing, onChosen }: { springing: boolean; onChosen: () => void }) {
  const grip = useEditor((state) => state.grip);
  const rows = levels.filter(({ level }) => level !== 'springing' || springing);
  return (
    <div className="grips" role="radiogroup" aria-label="Held by">
      <span>
        held by {grip.level} {grip.across}
      </span>
      <div>
        {rows.map(({ level, name }) =>
          sides.map((across) => {
            const current = grip.level === level && grip.across === across;
            return (
              <button
                key={`${level} ${across}`}
                role="radio"
                aria-checked={current}
                className={level === 'springing' ? 'springing' : ''}
                aria-label={`${name}, ${across}`}
                title={`Hold by the ${name}, ${across}`}
                onClick={() => {
                  useEditor.setState({ grip: { level, across } });
                  // So that figures can be typed at once.
                  onChosen();
                }}
              />
            );
          }),
        )}
      </div>
    </div>
  );
}
