/** Handles on the sheet, by which sides of the chosen opening, or the wall itself, are drawn out. */
import { sideOf, type Box, type BoxSide } from '@yard-arch/core';
import type { WallHandle } from '@yard-arch/edit';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';

const titles: Record<BoxSide, string> = {
  left: 'Drag the left jamb; the right one stays',
  right: 'Drag the right jamb; the left one stays',
  sill: 'Drag the sill; the head stays',
  head: 'Drag the head; the sill stays',
  springing: 'Drag the springing line',
};

interface HandleProps {
  name: string;
  title: string;
  x: number;
  y: number;
  /** The way in which it goes: along, up, or both. */
  way: 'across' | 'upright' | 'free';
  /** Drawn as a lozenge, for what lies between ends. */
  point?: boolean;
}

/** One handle; what can be taken hold of is larger than what is seen. */
function Handle({ name, title, x, y, way, point }: HandleProps) {
  const [wide, high] = way === 'across' ? [6, 13] : [13, 6];
  return (
    <g className={way} data-handle={name}>
      <title>{title}</title>
      <rect className="reach" x={x - 9} y={y - 9} width="18" height="18" />
      {point ? (
        <path d={`M${x} ${y - 6}l6 6l-6 6l-6 -6z`} />
      ) : (
        <rect x={x - wide / 2} y={y - high / 2} width={wide} height={high} rx="1.5" />
      )}
    </g>
  );
}

/** Handles at the sides of an opening. */
export function SideHandles({ box, sides, view }: { box: Box; sides: readonly BoxSide[]; view: Viewport }) {
  // Where there is no room for them they would cover what they are about.
  if (Math.min(box.width, box.height) * view.scale < 22) return null;
  return (
    <g className="handles">
      {sides.map((side) => {
        const along = side === 'left' || side === 'right';
        return (
          <Handle
            key={side}
            name={side}
            title={titles[side]}
            x={xOf(view, along ? sideOf(box, side) : side === 'springing' ? box.s : box.s + box.width / 2)}
            y={yOf(view, along ? box.t + box.height * 0.38 : sideOf(box, side))}
            way={along ? 'across' : 'upright'}
            point={side === 'springing'}
          />
        );
      })}
    </g>
  );
}

/** Handles at a wall's ends, its top and its apex. */
export function WallHandles({ handles, view }: { handles: readonly WallHandle[]; view: Viewport }) {
  return (
    <g className="handles wall-handles">
      {handles.map((handle) => (
        <Handle
          key={handle.kind}
          name={handle.kind}
          title={handle.title}
          x={xOf(view, handle.s)}
          y={yOf(view, handle.t)}
          way={!handle.along ? 'upright' : handle.up ? 'free' : 'across'}
          point={handle.kind === 'apex'}
        />
      ))}
    </g>
  );
}
