/** What the chosen opening is held to: pins at it on the sheet, and words beside the tools; either is taken off with a click. */
import { gripOffset, heldWords, type Box } from '@yard-arch/core';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { letGoOf } from '@yard-arch/edit';
import { Pin, X } from 'lucide-react';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';
import { commit } from '../state/store.ts';

interface Held {
  way: 'along' | 'up';
  text: string;
  letGo: () => void;
}

function heldBy(document: ProjectDocument, opening: Opening): Held[] {
  const words = heldWords(document, opening);
  return (['along', 'up'] as const).flatMap((way) => {
    const text = words[way];
    return text === null ? [] : [{ way, text, letGo: () => void commit(letGoOf(document, opening, way)) }];
  });
}

const hint = 'Let go: it stays where it is, and no longer follows';

/** A pin at the jamb or centre line, and one at the level, by which the opening is held. */
export function HeldPins({
  document,
  opening,
  box,
  view,
}: {
  document: ProjectDocument;
  opening: Opening;
  box: Box;
  view: Viewport;
}) {
  const [dx, dy] = gripOffset(box, opening.grip);
  const [foot, side] = [
    [xOf(view, box.s + dx), yOf(view, box.t) + 4],
    [xOf(view, box.s) - 4, yOf(view, box.t + dy)],
  ] as const;
  return (
    <g className="held-pins">
      {heldBy(document, opening).map(({ way, text, letGo }) => {
        const [x, y] = way === 'along' ? foot : side;
        return (
          <g key={way} data-held={way} onPointerDown={(event) => event.stopPropagation()} onClick={letGo}>
            <title>{`${text}. ${hint}`}</title>
            <circle cx={x} cy={y} r="11" />
            <path d={way === 'along' ? `M${x} ${y}l5 9h-10z` : `M${x} ${y}l-9 -5v10z`} />
          </g>
        );
      })}
    </g>
  );
}

/** What the opening is held to, in words. */
export function HeldChips({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  return heldBy(document, opening).map(({ way, text, letGo }) => (
    <button
      key={way}
      className="held-chip"
      data-testid="held"
      aria-label={`Let ${opening.mark} go: ${text}`}
      title={hint}
      onClick={letGo}
    >
      <Pin size={12} /> {text} <X size={12} />
    </button>
  ));
}
