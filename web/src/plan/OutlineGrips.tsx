/** Where the outline of the chosen roof, and of its courtyards, can be taken hold of. */
import type { Roof } from '@yard-arch/document';
import { removeOutlineCorner, type OutlineCorner } from '@yard-arch/edit';
import type { PlanDesk } from './gestures/desk.ts';
import type { OnBoard } from './Plan.tsx';

interface OutlineGripsProps {
  roof: Roof;
  corners: readonly OutlineCorner[];
  board: OnBoard;
  desk: PlanDesk;
}

export function OutlineGrips({ roof, corners, board: { x, y }, desk }: OutlineGripsProps) {
  return corners.map(({ edge, at }, i) => (
    <g
      key={edge}
      className="grip corner"
      data-corner={edge}
      role="button"
      tabIndex={0}
      aria-label={`Corner ${i + 1} of ${roof.name}`}
      onDoubleClick={(event) => {
        event.stopPropagation();
        desk.make(removeOutlineCorner(roof, edge));
      }}
    >
      <title>Drag to move the corner, or move it by the arrow keys; a double click or Delete takes it away</title>
      <rect x={x(at) - 5} y={y(at) - 5} width="10" height="10" />
    </g>
  ));
}
