/** An eaves in section: the slope over the head of the wall, pitched and drawn out by its two grips. */
import { formatLength, limits, type RoofEdge, type Units } from '@yard-arch/document';
import { withPitch } from '@yard-arch/edit';
import { useRef, useState } from 'react';
import type { Gesture, Press } from '../boards/gesture.ts';
import { useGestures } from '../boards/use-gestures.ts';
import { slopeIn, type Section } from './eaves-section.ts';

type Eaves = Extract<RoofEdge, { is: 'eaves' }>;

interface EavesSectionProps {
  edge: Eaves;
  /** Of the roof, metres. */
  thickness: number;
  ends: 'plumb' | 'square' | 'level' | undefined;
  units: Units;
  /** Shows it as it would be; null: as it is. */
  onSee: (edge: Eaves | null) => void;
  onChange: (edge: Eaves) => boolean;
}

const size = { width: 250, height: 150 };

export function EavesSection({ edge, thickness, ends, units, onSee, onChange }: EavesSectionProps) {
  const [drawn, setDrawn] = useState<Eaves | null>(null);
  const shown = drawn ?? edge;
  const frame = useRef<SVGSVGElement>(null);
  // It keeps its scale while it is drawn.
  const section = slopeIn(shown, { thickness, ends, before: edge, size });
  const place = ({ x, y }: { x: number; y: number }): [number, number] => {
    const bounds = frame.current!.getBoundingClientRect();
    const [px, py] = [
      ((x - bounds.left) / bounds.width) * size.width,
      ((y - bounds.top) / bounds.height) * size.height,
    ];
    return section.metres(px, py);
  };
  const { bind } = useGestures<'pitch' | 'over'>({
    press: (press, grip) => (press.middle ? null : drawing(grip)),
  });
  const drawing = (grip: 'pitch' | 'over'): Gesture => {
    let to: Eaves | null = null;
    const end = (): void => {
      setDrawn(null);
      onSee(null);
    };
    return {
      move: (spot) => {
        to = grip === 'pitch' ? pitched(edge, place(spot), section, spot) : reaching(edge, place(spot), spot);
        setDrawn(to);
        onSee(to);
      },
      drop: () => {
        end();
        if (to) onChange(to);
      },
      giveUp: end,
    };
  };
  const { pitch, over } = shown;
  return (
    <figure className="eaves-section">
      <svg
        ref={frame}
        viewBox={`0 0 ${size.width} ${size.height}`}
        width="100%"
        role="group"
        aria-label="The eaves in section"
      >
        <path className="wall" d={section.wall} />
        <path className="slab" d={section.slab} />
        <path className="level" d={section.level} />
        <path className="measure" d={section.reach} />
        <text x={section.at.reach[0]} y={section.at.reach[1]} textAnchor="middle">
          {formatLength(over, units)}
        </text>
        <text x={section.at.angle[0]} y={section.at.angle[1]}>{`${Number(pitch.toFixed(2))}°`}</text>
        <circle className="grip" r={5} cx={section.at.over[0]} cy={section.at.over[1]} {...bind('over')}>
          <title>Drag: how far the eaves reach out</title>
        </circle>
        <circle className="grip" r={5} cx={section.at.pitch[0]} cy={section.at.pitch[1]} {...bind('pitch')}>
          <title>Drag: the pitch</title>
        </circle>
      </svg>
    </figure>
  );
}

const rounded = (value: number, step: number): number => Math.round(value / step) * step;

/** The eaves with the slope through a place. */
function pitched(
  edge: Eaves,
  [x, z]: readonly [number, number],
  { above }: Section,
  { free }: Pick<Press, 'free'>,
): Eaves {
  const degrees = (Math.atan2(z - above, Math.max(0.05, x)) * 180) / Math.PI;
  return withPitch(edge, false, rounded(degrees, free ? 0.05 : 0.5)) as Eaves;
}

/** The eaves that reach out to a place. */
function reaching(edge: Eaves, [x]: readonly [number, number], { free }: Pick<Press, 'free'>): Eaves {
  const { least, most } = limits.overhang;
  return { ...edge, over: Math.min(most, Math.max(least, rounded(-x, free ? 0.001 : 0.01))) };
}
