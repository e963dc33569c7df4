/** What stands on the planes of a roof, on its sheet as it is seen from above: outlines and what is in and about them, as they lie on the slope. */
import { resolveOpening, sheetsOf, type Placed } from '@yard-arch/core';
import type { Element, FaceName } from '@yard-arch/document';
import { useMemo } from 'react';
import { pathOf } from '../boards/OpeningShape.tsx';
import { useEditor } from '../state/state.ts';
import { PartFronts } from './PartFronts.tsx';

type Vector = readonly [number, number, number];

/** A plane with what is set out on it, and how it lies on the sheet from above. */
interface Plane {
  face: FaceName;
  placed: Placed[];
  /** The six figures of an SVG matrix. */
  place: readonly number[];
}

/** @param scale pixels a metre */
export function OnPlanes({ element, scale }: { element: Element; scale: number }) {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const planes = useMemo((): Plane[] => {
    const sheets = sheetsOf(document);
    const above = sheets.of(element.id)?.chart;
    const byFace = new Map<FaceName, Placed[]>();
    for (const opening of Object.values(document.openings)) {
      if (opening.element !== element.id || opening.face === undefined) continue;
      const placed = resolveOpening(document, opening);
      if ('outline' in placed) byFace.set(opening.face, [...(byFace.get(opening.face) ?? []), placed]);
    }
    return [...byFace].flatMap(([face, placed]): Plane[] => {
      const chart = sheets.on(element.id, face)?.chart;
      if (chart?.kind !== 'flat' || above?.kind !== 'flat') return [];
      const seen = (way: Vector): [number, number] => [dot(way, above.along), dot(way, above.up)];
      const [dx, dy, dz] = [0, 1, 2].map((k) => chart.origin[k]! - above.origin[k]!) as [number, number, number];
      return [{ face, placed, place: [seen(chart.along), seen(chart.up), seen([dx, dy, dz])].flat() }];
    });
  }, [document, element.id]);
  return planes.map(({ face, placed, place }) => (
    <g key={face} className="on-plane" data-plane={face}>
      <g transform={`matrix(${place.join(' ')})`}>
        {placed.map(({ id, outline, s, t }) => (
          <path key={id} d={pathOf(outline)} transform={`translate(${s} ${t})`} />
        ))}
        <PartFronts element={element.id} face={face} placed={placed} />
      </g>
      {placed.map((one) => (
        <Mark key={one.id} text={document.openings[one.id]!.mark} at={middleOf(one, place)} scale={scale} />
      ))}
    </g>
  ));
}

/** The middle of an opening, as it is seen from above. */
function middleOf({ s, t, profile: { width, height } }: Placed, place: readonly number[]): readonly [number, number] {
  const [a, b, c, d, e, f] = place as [number, number, number, number, number, number];
  const [x, y] = [s + width / 2, t + height / 2];
  return [a * x + c * y + e, b * x + d * y + f];
}

function Mark({ text, at: [x, y], scale }: { text: string; at: readonly [number, number]; scale: number }) {
  return (
    <g className="filled-mark">
      <text className="mark" y="4" transform={`translate(${x} ${y}) scale(${1 / scale} ${-1 / scale})`}>
        {text}
      </text>
    </g>
  );
}

const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
