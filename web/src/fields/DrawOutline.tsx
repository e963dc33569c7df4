/** An outline drawn by hand: points by clicks or typed lengths, edges straight or arcs; closed, it is checked and taken. */
import { Button } from '@chakra-ui/react';
import { takeOutline, type TakenOutline } from '@yard-arch/core/drawing';
import { formatLength, unitsLabel, type Units } from '@yard-arch/document';
import type { Outlined } from '@yard-arch/edit';
import { useState, type KeyboardEvent } from 'react';
import { WideDialog } from '../common/WideDialog.tsx';
import { DrawingBoard } from './DrawingBoard.tsx';
import { drawTyped, useHand, type Hand } from './hand.ts';

interface DrawOutlineProps {
  units: Units;
  open: boolean;
  /** What is done with the outline, as its button says. */
  confirm: string;
  onTake: (drawn: Outlined) => boolean;
  onClose: () => void;
  scale?: Hand['scale'];
  /** How it is to be drawn. */
  hint?: string;
}

export function DrawOutline({ units, open, confirm, onTake, onClose, scale, hint }: DrawOutlineProps) {
  const work = useHand(scale);
  const { points, closed } = work;
  const drawn = closed && taken(closed, units);
  return (
    // Escape takes back a point first.
    <WideDialog
      open={open}
      title="Draw an outline"
      width={720}
      held={points.length > 0}
      onKeyDown={(event) => keyed(event, work)}
      onClose={onClose}
    >
      <div className="from-drawing by-hand">
        <DrawingBoard work={work} units={units} crossing={drawn ? drawn.crossing : null} />
        <Typed work={work} units={units} />
        <p role="status" className={drawn && drawn.reason !== null ? 'wrong' : undefined}>
          {points.length === 0 && hint ? `${hint} ` : ''}
          {told(work, drawn, units)}
        </p>
        <Button
          alignSelf="end"
          bg="ink"
          color="white"
          disabled={!drawn || drawn.reason !== null}
          onClick={() => drawn && onTake(drawn) && onClose()}
        >
          {confirm}
        </Button>
      </div>
    </WideDialog>
  );
}

/** The outline that a closed ring is, in metres. */
const taken = (ring: NonNullable<Hand['closed']>, units: Units): TakenOutline =>
  takeOutline({ rings: [ring], open: [] }, 0, 1, (metres) => `${formatLength(metres, units)} ${unitsLabel(units)}`);

function told({ points, closed }: Hand, drawn: TakenOutline | null, units: Units): string {
  if (drawn?.reason) return drawn.reason;
  if (closed && drawn)
    return `${formatLength(drawn.width, units)} × ${formatLength(drawn.height, units)} ${unitsLabel(units)}, of ${closed.outline.length} points.`;
  if (points.length === 0) return 'Click where it begins.';
  return points.length < 2
    ? 'Click the next point, or type how long the edge is.'
    : 'Click the first point, or press Enter with nothing typed, to close it.';
}

/** Keys of the dialog: what they do on the page beneath they do not do here. */
function keyed(event: KeyboardEvent, work: Hand): void {
  if (event.key === 'Tab') return;
  event.stopPropagation();
  if (event.key === 'Escape') return work.back();
  if (event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey) return;
  // Figures are typed without going to their field first.
  if (/^[\d.]$/.test(event.key)) event.currentTarget.querySelector('input')?.focus();
  if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) work.close();
  if (event.key === 'a') work.setArc(!work.arc);
  if (event.key === 'Backspace') work.back();
}

/** The next edge as it is typed: its length, or length and direction. */
function Typed({ work, units }: { work: Hand; units: Units }) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const take = (): void => {
    if (text.trim() === '') return work.close();
    const refused = drawTyped(text, work, units);
    setFault(refused);
    if (refused === null) setText('');
  };
  return (
    <div className="typed">
      <label>
        Next edge
        <input
          value={text}
          disabled={work.closed !== null || work.points.length === 0}
          placeholder="length, or length; direction"
          aria-label={`Next edge in ${unitsLabel(units)}`}
          onChange={(event) => {
            setText(event.target.value);
            setFault(null);
          }}
          onKeyDown={(event) => event.key === 'Enter' && take()}
        />
      </label>
      <button aria-pressed={work.arc} title="A" disabled={work.closed !== null} onClick={() => work.setArc(!work.arc)}>
        Arc
      </button>
      <button disabled={work.points.length === 0} onClick={work.back}>
        {work.closed ? 'Open it again' : 'Take back a point'}
      </button>
      <button disabled={work.closed !== null || work.points.length < 2} onClick={work.close}>
        Close it
      </button>
      {fault && <span role="alert">{fault}</span>}
    </div>
  );
}
