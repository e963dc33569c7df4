/** Tools of the plan: drawing walls, and what can be done with the chosen one. */
import { keys } from '../common/keys.ts';
import { FlipVertical2, House, Slice, Minus, Pencil, Scissors, Spline, SquareDashed, Unplug } from 'lucide-react';
import { isOutlining } from './gestures/desk.ts';
import type { PlanWork } from './use-plan.ts';

export function PlanTools({ work, focus }: { work: PlanWork; focus: () => void }) {
  const { desk } = work;
  const { mode, arc } = work.state;
  const setMode = (next: typeof mode): void => desk.setMode(next);
  const pressed = (act: () => void) => () => {
    act();
    focus();
  };
  return (
    <div className="sheet-tools">
      <button
        aria-pressed={mode === 'draw'}
        onClick={pressed(() => setMode(mode === 'draw' ? 'choose' : 'draw'))}
        title={`Draw walls one after the other (${keys.draw.shown}). The outer face is on the right of the way in which they are drawn; a ring is turned to face outward`}
      >
        <Pencil size={13} /> Draw walls
      </button>
      <button
        aria-pressed={mode === 'roof'}
        onClick={pressed(() => setMode(mode === 'roof' ? 'choose' : 'roof'))}
        title="Lay a roof: click a ring of walls, or draw its outline corner by corner"
      >
        <House size={13} /> Lay a roof
      </button>
      {desk.roof && (mode === 'choose' || mode === 'court') && (
        <button
          aria-pressed={mode === 'court'}
          onClick={pressed(() => setMode(mode === 'court' ? 'choose' : 'court'))}
          title="Open a courtyard in the chosen roof: click a ring of walls, or draw its outline corner by corner"
        >
          <SquareDashed size={13} /> Open a courtyard
        </button>
      )}
      {isOutlining(mode) && (
        <button onClick={pressed(() => setMode('choose'))} title={`Stop (${keys.giveUp.shown})`}>
          Done
        </button>
      )}
      {mode === 'draw' && (
        <>
          <button
            aria-pressed={!arc}
            onClick={pressed(() => desk.show({ arc: false }))}
            title={`The next wall is straight (${keys.drawArc.shown} changes over)`}
          >
            <Minus size={13} /> Straight
          </button>
          <button
            aria-pressed={arc}
            onClick={pressed(() => desk.show({ arc: true }))}
            title={`The next wall is an arc that goes on in the direction of the last one (${keys.drawArc.shown} changes over)`}
          >
            <Spline size={13} /> Arc
          </button>
          <button onClick={pressed(() => setMode('choose'))} title={`Stop drawing (${keys.giveUp.shown})`}>
            Done
          </button>
        </>
      )}
      {mode !== 'draw' && !isOutlining(mode) && desk.now.element && (
        <button
          aria-pressed={mode === 'part'}
          onClick={pressed(() => setMode(mode === 'part' ? 'choose' : 'part'))}
          title="Split the chosen element along a line, or a chain of lines, and keep one side or both"
        >
          <Slice size={13} /> Split along a line
        </button>
      )}
      {mode === 'part' && (
        <button onClick={pressed(() => setMode('choose'))} title={`Stop (${keys.giveUp.shown})`}>
          Done
        </button>
      )}
      {mode !== 'draw' && !isOutlining(mode) && mode !== 'part' && desk.wall && (
        <>
          <button
            aria-pressed={mode === 'split'}
            onClick={pressed(() => setMode(mode === 'split' ? 'choose' : 'split'))}
            title="Make two walls of it, at a place that is clicked"
          >
            <Scissors size={13} /> Split
          </button>
          <button onClick={pressed(work.joinOn)} title="Make it one wall with the one that begins where it ends">
            <Unplug size={13} /> Join
          </button>
          <button
            onClick={pressed(work.turnOver)}
            title="Change its outer and inner face over; what is on it stays where it stands"
          >
            <FlipVertical2 size={13} /> Reverse
          </button>
        </>
      )}
    </div>
  );
}
