/** Tools of the plan: drawing walls, and what can be done with the chosen one. */
import { FlipVertical2, Minus, Pencil, Scissors, Spline, Unplug } from 'lucide-react';
import type { usePlan } from './use-plan.ts';

export function PlanTools({ plan, focus }: { plan: ReturnType<typeof usePlan>; focus: () => void }) {
  const { mode, setMode, arc, setArc, wall } = plan;
  const pressed = (act: () => void) => () => {
    act();
    focus();
  };
  return (
    <div className="sheet-tools">
      <button
        aria-pressed={mode === 'draw'}
        onClick={pressed(() => setMode(mode === 'draw' ? 'choose' : 'draw'))}
        title="Draw walls one after the other (W). The outer face is on the right of the way in which they are drawn; a ring is turned to face outward"
      >
        <Pencil size={13} /> Draw walls
      </button>
      {mode === 'draw' && (
        <>
          <button
            aria-pressed={!arc}
            onClick={pressed(() => setArc(false))}
            title="The next wall is straight (A changes over)"
          >
            <Minus size={13} /> Straight
          </button>
          <button
            aria-pressed={arc}
            onClick={pressed(() => setArc(true))}
            title="The next wall is an arc that goes on in the direction of the last one (A changes over)"
          >
            <Spline size={13} /> Arc
          </button>
          <button onClick={pressed(() => setMode('choose'))} title="Stop drawing (Escape)">
            Done
          </button>
        </>
      )}
      {mode !== 'draw' && wall && (
        <>
          <button
            aria-pressed={mode === 'split'}
            onClick={pressed(() => setMode(mode === 'split' ? 'choose' : 'split'))}
            title="Make two walls of it, at a place that is clicked"
          >
            <Scissors size={13} /> Split
          </button>
          <button onClick={pressed(plan.joinOn)} title="Make it one wall with the one that begins where it ends">
            <Unplug size={13} /> Join
          </button>
          <button
            onClick={pressed(plan.turnOver)}
            title="Change its outer and inner face over; what is on it stays where it stands"
          >
            <FlipVertical2 size={13} /> Reverse
          </button>
        </>
      )}
    </div>
  );
}
