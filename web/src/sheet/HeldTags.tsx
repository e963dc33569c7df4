/** What the chosen opening is held to, beside it on the sheet, each to be let go of with a click. */
import { heldWords, type Box } from '@yard-arch/core';
import type { Opening, ProjectDocument } from '@yard-arch/document';
import { letGoOf } from '@yard-arch/edit';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';
import { commit } from '../state/store.ts';

interface HeldTagsProps {
  document: ProjectDocument;
  opening: Opening;
  box: Box;
  view: Viewport;
  /** Of the sheet, pixels: tags are kept within it. */
  width: number;
}

export function HeldTags({ document, opening, box, view, width }: HeldTagsProps) {
  const held = heldWords(document, opening);
  const tags = (['along', 'up'] as const).flatMap((way) => (held[way] === null ? [] : [{ way, text: held[way] }]));
  const middle = xOf(view, box.s + box.width / 2);
  return (
    <g className="held">
      {tags.map(({ way, text }, i) => (
        <Tag key={way} x={middle} y={yOf(view, box.t + box.height) - 30 - 24 * (tags.length - 1 - i)} text={text} width={width} onLetGo={() => commit(letGoOf(document, opening, way))} />
      ))}
    </g>
  );
}

function Tag({ x, y, text, width, onLetGo }: { x: number; y: number; text: string; width: number; onLetGo: () => void }) {
  const wide = text.length * 5.9 + 38;
  const left = Math.max(4, Math.min(width - wide - 4, x - wide / 2));
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Held: ${text}. Let go`}
      data-testid="held"
      onPointerDown={(event) => event.stopPropagation()}
      onClick={onLetGo}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        event.stopPropagation();
        onLetGo();
      }}
    >
      <title>Let go: it stays where it is, and no longer follows</title>
      <rect x={left} y={y - 11} width={wide} height="20" rx="10" />
      <circle cx={left + 12} cy={y - 1} r="3.2" />
      <text x={left + 21} y={y + 3}>
        {text}
      </text>
      <path d={`M${left + wide - 14} ${y - 4}l6 6m0 -6l-6 6`} />
    </g>
  );
}
