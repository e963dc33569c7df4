/** The section and the plan of what stands in a wall or on a slope, as a plane cuts them. */
import { meshIn, sliced, type Plane, type Slice, type Study } from '@yard-arch/core';
import { useMemo } from 'react';
import { useEditor } from '../state/state.ts';
import { margin, sillOnSlope, slopeFront, slopePlanDepth, type Layout } from './detail.ts';

interface ViewProps {
  study: Study;
  layout: Layout;
  /** Where the plane is, along or up, metres in the study. */
  at: number;
}

/** The slices of what was cut: of its wall, and of what stands in and about its opening. */
function useSlices({ mesh, parts }: Study['cut'], plane: Plane): { wall: Slice[]; parts: Slice[] } {
  const { axis, at } = plane;
  return useMemo(
    () => ({
      wall: sliced(mesh, { axis, at }),
      parts: parts.flatMap(({ part, placement }) => sliced(meshIn(placement, part.mesh), { axis, at })),
    }),
    [mesh, parts, axis, at],
  );
}

/** A section through a slope as it lies, with what stands plumb on it upright. */
export function SlopeSection({ study, layout: { scale, section, slope }, at }: ViewProps) {
  const [x, y, z] = sillOnSlope(study)!;
  const { wall, parts } = useSlices(study.standing, { axis: 'x', at: x + at });
  const reach = slope!;
  const place = ([into, up]: readonly [number, number]): string =>
    `${(section.x + (into - y) * scale).toFixed(2)} ${(section.y - (up - z) * scale).toFixed(2)}`;
  const [left, top] = [section.x - reach.out * scale, section.y - reach.up * scale];
  return (
    <g className="cut-view" aria-label="Section">
      <text className="title" x={left} y={top - 14}>
        section, as it lies
      </text>
      <clipPath id="detail-slope">
        <rect
          x={left - 1}
          y={top - 1}
          width={(reach.out + reach.in) * scale + 2}
          height={(reach.up + reach.down) * scale + 2}
        />
      </clipPath>
      <g clipPath="url(#detail-slope)">
        <Cuts wall={wall} parts={parts} place={place} />
      </g>
    </g>
  );
}

export function Section({ study, layout: { scale, section }, at }: ViewProps) {
  const { wall, parts } = useSlices(study.cut, { axis: 'x', at });
  const { t, profile } = study.placed;
  const low = Math.max(0, t - margin.below);
  const top = t + profile.height + margin.above;
  const place = ([y, z]: readonly [number, number]): string =>
    `${(section.x + y * scale).toFixed(2)} ${(section.y - (Math.max(low, Math.min(top, z)) - t) * scale).toFixed(2)}`;
  return (
    <g className="cut-view" aria-label="Section">
      <text className="title" x={section.x} y={section.y - (profile.height + margin.above) * scale - 14}>
        section
      </text>
      <text className="where" x={section.x - 8} y={section.y - (profile.height + margin.above) * scale + 12}>
        outside
      </text>
      <Cuts wall={wall} parts={parts} place={place} />
    </g>
  );
}

/** A level plan of what stands on a slope, as far as that is of interest. */
export function SlopePlan({ study, layout: { scale, plan, beside }, at }: ViewProps) {
  const [x, y, z] = sillOnSlope(study)!;
  const { wall, parts } = useSlices(study.standing, { axis: 'z', at: z + at * Math.SQRT1_2 });
  const { width } = study.placed.profile;
  const place = ([along, into]: readonly [number, number]): string =>
    `${(plan.x + (along - x - width / 2) * scale).toFixed(2)} ${(plan.y - (into - y) * scale).toFixed(2)}`;
  const half = (width / 2 + beside) * scale;
  const deep = slopePlanDepth(study) * scale;
  return (
    <g className="cut-view" aria-label="Plan">
      <text className="title" x={plan.x - half} y={plan.y - deep - 8}>
        plan
      </text>
      <clipPath id="detail-slope-plan">
        <rect x={plan.x - half} y={plan.y - deep} width={2 * half} height={deep + slopeFront * scale} />
      </clipPath>
      <g clipPath="url(#detail-slope-plan)">
        <Cuts wall={wall} parts={parts} place={place} />
      </g>
    </g>
  );
}

export function PlanView({ study, layout: { scale, plan, beside }, at }: ViewProps) {
  const { wall, parts } = useSlices(study.cut, { axis: 'z', at });
  const { s, profile } = study.placed;
  const middle = s + profile.width / 2;
  const [left, right] = [s - beside, s + profile.width + beside];
  const place = ([x, y]: readonly [number, number]): string =>
    `${(plan.x + (Math.max(left, Math.min(right, x)) - middle) * scale).toFixed(2)} ${(plan.y - y * scale).toFixed(2)}`;
  const thick = study.cut.sheet.thickness;
  return (
    <g className="cut-view" aria-label="Plan">
      <text className="title" x={plan.x + (left - middle) * scale} y={plan.y - thick * scale - 8}>
        plan
      </text>
      <text className="where" x={plan.x + (left - middle) * scale - 8} y={plan.y - 4}>
        outside
      </text>
      <Cuts wall={wall} parts={parts} place={place} />
    </g>
  );
}

interface CutsProps {
  wall: readonly Slice[];
  parts: readonly Slice[];
  place: (point: readonly [number, number]) => string;
}

function Cuts({ wall, parts, place }: CutsProps) {
  const materials = useEditor((state) => state.document?.materials);
  const path = (slices: readonly Slice[]): string =>
    slices.map(({ points }) => `M${points.map(place).join('L')}Z`).join('');
  return (
    <>
      <path className="cut-wall" d={path(wall)} fillRule="evenodd" />
      {parts.map((slice, i) => (
        <path
          key={i}
          className="cut-part"
          style={{ fill: materials?.[slice.material]?.colour }}
          fillRule="evenodd"
          d={path([slice])}
        />
      ))}
    </>
  );
}
