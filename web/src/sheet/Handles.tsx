/** Handles on the sheet, by which sides of the chosen opening, or the wall itself, are drawn out. */
import { sideOf, type Box, type BoxSide } from '@yard-arch/core';
import type { WallHandle } from '@yard-arch/edit';
import type { PointerEvent } from 'react';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';

const titles: Record<BoxSide, string> = {
  left: 'Drag the left jamb; the right one stays',
  right: 'Drag the right jamb; the left one stays',
  sill: 'Drag the sill; the head stays',
  head: 'Drag the head; the sill stays',
  springing: 'Drag the springing line',
};

/** Handles at the sides of an opening. */
export function SideHandles({
  box,
  sides,
  view,
  onBegin,
}: {
  box: Box;
  sides: readonly BoxSide[];
  view: Viewport;
  onBegin: (event: PointerEvent<Element>, side: BoxSide) => void;
}) {
  // Where there is no room for them they would cover what they are about.
  if (Math.min(box.width, box.height) * view.scale < 22) return null;
  return (
    <g className="handles">
      {sides.map((side) => {
        const along = side === 'left' || side === 'right';
        const x = xOf(view, along ? sideOf(box, side) : side === 'springing' ? box.s : box.s + box.width / 2);
        const y = yOf(view, along ? box.t + box.height * 0.38 : sideOf(box, side));
        return (
          <g
            key={side}
            className={along ? 'across' : 'upright'}
            data-handle={side}
            onPointerDown={(event) => onBegin(event, side)}
          >
            <title>{titles[side]}</title>
            <rect className="reach" x={x - 8} y={y - 8} width="16" height="16" />
            {side === 'springing' ? (
              <path d={`M${x} ${y - 5}l5 5l-5 5l-5 -5z`} />
            ) : (
              <rect
                x={x - (along ? 3 : 6)}
                y={y - (along ? 6 : 3)}
                width={along ? 6 : 12}
                height={along ? 12 : 6}
                rx="1.5"
              />
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Handles at a wall's ends, its top and its apex. */
export function WallHandles({
  handles,
  view,
  onBegin,
}: {
  handles: readonly WallHandle[];
  view: Viewport;
  onBegin: (event: PointerEvent<Element>, handle: WallHandle) => void;
}) {
  return (
    <g className="handles wall-handles">
      {handles.map((handle) => {
        const [x, y] = [xOf(view, handle.s), yOf(view, handle.t)];
        const across = handle.along && !handle.up;
        return (
          <g
            key={handle.kind}
            className={across ? 'across' : handle.along ? 'free' : 'upright'}
            data-handle={handle.kind}
            onPointerDown={(event) => onBegin(event, handle)}
          >
            <title>{handle.title}</title>
            <rect className="reach" x={x - 9} y={y - 9} width="18" height="18" />
            {handle.kind === 'apex' ? (
              <path d={`M${x} ${y - 6}l6 6l-6 6l-6 -6z`} />
            ) : (
              <rect
                x={x - (across ? 3 : 7)}
                y={y - (across ? 7 : 3)}
                width={across ? 6 : 14}
                height={across ? 14 : 6}
                rx="1.5"
              />
            )}
          </g>
        );
      })}
    </g>
  );
}
