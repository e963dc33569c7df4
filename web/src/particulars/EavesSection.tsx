/** An eaves in section: the slope over the head of the wall, pitched and drawn out by its grips, and where it breaks, its second pitch too. */
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

type Grip = 'pitch' | 'over' | 'break' | 'second';

const low = { width: 250, height: 150 };
/** For a slope that breaks. */
const high = { width: 250, height: 200 };
const degrees = (pitch: number): string => `${Number(pitch.toFixed(2))}°`;

export function EavesSection({ edge, thickness, ends, units, onSee, onChange }: EavesSectionProps) {
  const [drawn, setDrawn] = useState<Eaves | null>(null);
  const shown = drawn ?? edge;
  const frame = useRef<SVGSVGElement>(null);
  const size = edge.second ? high : low;
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
  const { bind } = useGestures<Grip>({
    press: (press, grip) => (press.middle ? null : drawing(grip)),
  });
  const drawing = (grip: Grip): Gesture => {
    let to: Eaves | null = null;
    const end = (): void => {
      setDrawn(null);
      onSee(null);
    };
    return {
      move: (spot) => {
        to = drawnTo[grip](edge, place(spot), section, spot);
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
  const { pitch, over, second } = shown;
  const { broken } = section;
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
        <text x={section.at.angle[0]} y={section.at.angle[1]} textAnchor={broken ? 'end' : 'start'}>
          {degrees(pitch)}
        </text>
        {broken && second && (
          <>
            <path className="measure" d={broken.rise} />
            <text x={broken.at.rise[0]} y={broken.at.rise[1]}>
              {formatLength(second.from, units)}
            </text>
            <text x={broken.at.angle[0]} y={broken.at.angle[1]}>
              {degrees(second.pitch)}
            </text>
          </>
        )}
        <circle className="grip" r={5} cx={section.at.over[0]} cy={section.at.over[1]} {...bind('over')}>
          <title>Drag: how far the eaves reach out</title>
        </circle>
        <circle className="grip" r={5} cx={section.at.pitch[0]} cy={section.at.pitch[1]} {...bind('pitch')}>
          <title>Drag: the pitch</title>
        </circle>
        {broken && (
          <>
            <circle className="grip" r={5} cx={broken.at.break[0]} cy={broken.at.break[1]} {...bind('break')}>
              <title>Drag: how high above the eaves it breaks</title>
            </circle>
            <circle className="grip" r={5} cx={broken.at.second[0]} cy={broken.at.second[1]} {...bind('second')}>
              <title>Drag: the second pitch</title>
            </circle>
          </>
        )}
      </svg>
    </figure>
  );
}

const rounded = (value: number, step: number): number => Math.round(value / step) * step;

type Drawing = (edge: Eaves, at: readonly [number, number], section: Section, press: Pick<Press, 'free'>) => Eaves;

const angle = (x: number, z: number): number => (Math.atan2(z, Math.max(0.05, x)) * 180) / Math.PI;

/** The eaves with one of its figures so that it goes through a place. */
const drawnTo: Record<Grip, Drawing> = {
  pitch: (edge, [x, z], { above, at, metres }, { free }) => {
    // Its grip may stand before the wall, where the slope goes down.
    const way = metres(...at.pitch)[0] < 0 ? -1 : 1;
    return withPitch(edge, false, rounded(angle(way * x, way * (z - above)), free ? 0.05 : 0.5)) as Eaves;
  },
  over: (edge, [x], _, { free }) => {
    const { least, most } = limits.overhang;
    return { ...edge, over: Math.min(most, Math.max(least, rounded(-x, free ? 0.001 : 0.01))) };
  },
  break: (edge, [, z], { broken }, { free }) =>
    edge.second && broken
      ? { ...edge, second: { ...edge.second, from: Math.max(0.1, rounded(z - broken.lead, free ? 0.001 : 0.05)) } }
      : edge,
  second: (edge, [x, z], { broken }, { free }) =>
    broken
      ? (withPitch(edge, true, rounded(angle(x - broken.top[0], z - broken.top[1]), free ? 0.05 : 0.5)) as Eaves)
      : edge,
};
