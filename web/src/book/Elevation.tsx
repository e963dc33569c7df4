/** The elevation of a pattern's detail: the opening and what is seen in it. Fields are chosen on it, and bars dragged. */
import { frontOf, type Front, type Laid } from '@yard-arch/core';
import type { Pattern } from '@yard-arch/document';
import { useMemo, useRef, type PointerEvent, type SVGProps } from 'react';
import { Fronts } from '../boards/Fronts.tsx';
import { pathOf } from '../boards/OpeningShape.tsx';
import { commit } from '../state/store.ts';
import { divisionAt, divisionEdit, laidAt, margin, movedDivision, type Division, type Layout } from './detail.ts';
import type { DetailProps } from './DetailSheet.tsx';

interface ElevationProps extends DetailProps {
  layout: Layout;
}

/** Where on the detail a pointer is, metres from the middle of the opening's sill. */
type SpotOf = (event: PointerEvent) => readonly [number, number];

/** What a pointer does on the elevation: a field is chosen, a bar dragged. */
function useDivisions(
  { told, study: { laid }, layout: { scale }, onChoose, onDraft }: ElevationProps,
  spotOf: SpotOf,
): Pick<SVGProps<SVGGElement>, 'onPointerDown' | 'onPointerMove' | 'onPointerUp' | 'onPointerCancel'> {
  const held = useRef<{ division: Division; pattern: Pattern } | null>(null);
  const { infill } = told.pattern;
  /** Where the bar that is held would be, to 5 mm. */
  const placeOf = ({ way, reach }: Division, event: PointerEvent): number => {
    const spot = spotOf(event);
    return Math.round(((way === 'mullions' ? spot[0] : spot[1]) - reach[0]) * 200) / 200;
  };
  return {
    onPointerDown: (event) => {
      if (event.button !== 0) return;
      const spot = spotOf(event);
      const division = infill ? divisionAt(laid, infill, spot) : null;
      if (!division) return onChoose(laidAt(laid, spot, true)?.path ?? (laidAt(laid, spot) ? 'field' : null));
      held.current = { division, pattern: told.pattern };
      event.currentTarget.setPointerCapture(event.pointerId);
      onChoose(division.path);
    },
    onPointerMove: (event) => {
      if (!held.current) return;
      const { division, pattern } = held.current;
      onDraft(movedDivision(pattern, division, placeOf(division, event)));
    },
    onPointerUp: (event) => {
      if (!held.current) return;
      const { division, pattern } = held.current;
      held.current = null;
      const to = placeOf(division, event);
      onDraft(null);
      // A click chooses; only what has gone somewhere is an edit.
      if (Math.abs(to - division.places[division.index]!) * scale < 3) return;
      commit(divisionEdit(pattern, movedDivision(pattern, division, to)));
    },
    onPointerCancel: () => {
      held.current = null;
      onDraft(null);
    },
  };
}

export function Elevation(props: ElevationProps) {
  const { told, study, layout, chosen } = props;
  const { scale, elevation } = layout;
  const { placed, laid } = study;
  const { width: wide, height: high } = placed.profile;
  const svg = useRef<SVGGElement>(null);
  const on = useDivisions(props, (event) => {
    const frame = svg.current!.ownerSVGElement!.getBoundingClientRect();
    return [(event.clientX - frame.left - elevation.x) / scale, (elevation.y - (event.clientY - frame.top)) / scale];
  });
  return (
    <g ref={svg} {...on}>
      <rect
        className="wall"
        x={elevation.x - (wide / 2 + layout.beside) * scale}
        y={elevation.y - (high + margin.above) * scale}
        width={(wide + 2 * layout.beside) * scale}
        height={(high + margin.above + (told.pattern.onFloor ? 0 : margin.below)) * scale}
      />
      <g transform={`translate(${elevation.x} ${elevation.y}) scale(${scale} ${-scale})`}>
        <Standing told={told} study={study} />
        {laid
          .filter((one) => isBar(one, told.pattern))
          .map((one, i) => (
            <path key={i} className={`grab ${wayOf(one)}`} d={loopPath(one.loops[0]!)} />
          ))}
        {chosen !== null &&
          laid
            .filter(({ path, what }) => path === chosen && what === 'field')
            .map((one, i) => (
              <path key={i} className="chosen-field" d={loopPath(one.loops[0]!)} vectorEffect="non-scaling-stroke" />
            ))}
      </g>
    </g>
  );
}

/** The opening, and what is seen in it and on the wall about it. */
function Standing({ told, study: { placed, cut } }: Pick<ElevationProps, 'told' | 'study'>) {
  const [inside, about] = useMemo(() => {
    const here = cut.parts.filter(({ face }) => face === (placed.face ?? 'outer')).map(({ part }) => part);
    // What stands in the opening is seen through it; the rest stands on the wall.
    return [here.filter(({ within }) => within), here.filter(({ within }) => !within)].map((list) =>
      list.flatMap(frontOf),
    );
  }, [cut, placed.face]) as [Front[], Front[]];
  const outline = { d: pathOf(placed.outline), transform: `translate(${-placed.profile.width / 2} 0)` };
  const { materials } = told.document;
  return (
    <>
      <path className="hole" {...outline} vectorEffect="non-scaling-stroke" />
      <clipPath id="detail-hole">
        <path {...outline} />
      </clipPath>
      <g className="part-front" clipPath="url(#detail-hole)">
        <Fronts fronts={inside} materials={materials} />
      </g>
      <g className="part-front">
        <Fronts fronts={about} materials={materials} />
      </g>
      <path className="rim" {...outline} vectorEffect="non-scaling-stroke" />
    </>
  );
}

const isBar = ({ what, kind }: Laid, { infill }: Pattern): boolean =>
  what === 'member' && kind === 'divided' && !!infill;

/** Which way a bar is dragged. */
function wayOf({ loops }: Laid): string {
  const [xs, ys] = [0, 1].map((k) => loops[0]!.map((point) => point[k]!)) as [number[], number[]];
  return Math.max(...xs) - Math.min(...xs) < Math.max(...ys) - Math.min(...ys) ? 'mullion' : 'transom';
}

const loopPath = (loop: readonly (readonly [number, number])[]): string =>
  `${loop.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(4)} ${y.toFixed(4)}`).join('')}Z`;
