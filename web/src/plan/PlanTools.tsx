/** Tools of the plan: drawing walls, and what can be done with the chosen one. */
import { keys } from '../common/keys.ts';
import { FlipVertical2, House, Slice, Minus, Pencil, Scissors, Spline, SquareDashed, Unplug } from 'lucide-react';
import type { ReactNode } from 'react';
import { isOutlining, type PlanState } from './gestures/desk.ts';
import type { PlanWork } from './use-plan.ts';

/** What the tools have in common: the work, and what is done after a click on one. */
interface ToolsProps {
  work: PlanWork;
  pressed: (act: () => void) => () => void;
}

export function PlanTools({ work, focus }: { work: PlanWork; focus: () => void }) {
  const { desk } = work;
  const { mode } = work.state;
  const pressed = (act: () => void) => () => {
    act();
    focus();
  };
  const tools = { work, pressed };
  const idle = mode !== 'draw' && !isOutlining(mode);
  return (
    <div className="sheet-tools">
      <ModeTool
        {...tools}
        mode="draw"
        title={`Draw walls one after the other (${keys.draw.shown}). The outer face is on the right of the way in which they are drawn; a ring is turned to face outward`}
      >
        <Pencil size={13} /> Draw walls
      </ModeTool>
      <ModeTool {...tools} mode="roof" title="Lay a roof: click a ring of walls, or draw its outline corner by corner">
        <House size={13} /> Lay a roof
      </ModeTool>
      {desk.roof && (mode === 'choose' || mode === 'court') && (
        <ModeTool
          {...tools}
          mode="court"
          title="Open a courtyard in the chosen roof: click a ring of walls, or draw its outline corner by corner"
        >
          <SquareDashed size={13} /> Open a courtyard
        </ModeTool>
      )}
      {isOutlining(mode) && <Done {...tools} title="Stop" />}
      {mode === 'draw' && <DrawTools {...tools} />}
      {idle && desk.now.element && (
        <ModeTool
          {...tools}
          mode="part"
          title="Split the chosen element along a line, or a chain of lines, and keep one side or both"
        >
          <Slice size={13} /> Split along a line
        </ModeTool>
      )}
      {mode === 'part' && <Done {...tools} title="Stop" />}
      {idle && mode !== 'part' && desk.wall && <WallTools {...tools} />}
    </div>
  );
}

/** Begins something that goes on until it is done, or ends it. */
function ModeTool({
  work: { desk, state },
  pressed,
  mode,
  title,
  children,
}: ToolsProps & { mode: PlanState['mode']; title: string; children: ReactNode }) {
  const on = state.mode === mode;
  return (
    <button aria-pressed={on} onClick={pressed(() => desk.setMode(on ? 'choose' : mode))} title={title}>
      {children}
    </button>
  );
}

function Done({ work, pressed, title }: ToolsProps & { title: string }) {
  return (
    <button onClick={pressed(() => work.desk.setMode('choose'))} title={`${title} (${keys.giveUp.shown})`}>
      Done
    </button>
  );
}

/** How the next wall is drawn. */
function DrawTools({ work, pressed }: ToolsProps) {
  const { desk } = work;
  const { arc } = work.state;
  return (
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
      <Done work={work} pressed={pressed} title="Stop drawing" />
    </>
  );
}

/** What can be done with the chosen wall. */
function WallTools({ work, pressed }: ToolsProps) {
  return (
    <>
      <ModeTool work={work} pressed={pressed} mode="split" title="Make two walls of it, at a place that is clicked">
        <Scissors size={13} /> Split
      </ModeTool>
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
  );
}
