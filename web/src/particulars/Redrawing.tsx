/** An outline drawn anew, by hand or from a drawing. */
import type { Units } from '@yard-arch/document';
import type { Outlined } from '@yard-arch/edit';
import { useState } from 'react';
import { later } from '../common/later.tsx';
import type { Hand } from '../fields/hand.ts';

const FromDrawing = later(async () => (await import('../fields/FromDrawing.tsx')).FromDrawing);
const DrawOutline = later(async () => (await import('../fields/DrawOutline.tsx')).DrawOutline);

interface RedrawingProps {
  units: Units;
  /** What is done with it, as the button says. */
  confirm: string;
  onDrawn: (drawn: Outlined) => boolean;
  scale?: Hand['scale'];
  /** How it is to be drawn. */
  hint?: string;
}

export function Redrawing({ units, confirm, onDrawn, ...byHand }: RedrawingProps) {
  const [open, setOpen] = useState<'no' | 'read' | 'draw'>('no');
  const common = { units, open: true, confirm, onTake: onDrawn, onClose: () => setOpen('no') };
  return (
    <p className="row-links">
      <button className="link" onClick={() => setOpen('draw')}>
        draw it anew…
      </button>
      <button className="link" onClick={() => setOpen('read')}>
        read it from a drawing…
      </button>
      {open === 'read' && <FromDrawing {...common} />}
      {open === 'draw' && <DrawOutline {...common} {...byHand} />}
    </p>
  );
}
