/** What stands in and about openings, as it is seen on the face that the sheet shows. */
import type { Placed } from '@yard-arch/core';
import type { FaceName } from '@yard-arch/document';
import { memo } from 'react';
import { useEditor } from '../state/state.ts';

interface PartFrontsProps {
  element: string;
  face: FaceName;
  placed: readonly Placed[];
}

export const PartFronts = memo(function PartFronts({ element, face, placed }: PartFrontsProps) {
  const instances = useEditor((state) => state.drawn.get(element)?.parts);
  const parts = useEditor((state) => state.parts);
  if (!instances || instances.length === 0) return null;
  const byOpening = new Map(placed.map((one) => [one.id, one]));
  return instances.map(({ key, openings, faces }) =>
    openings.map((id, i) => {
      const at = byOpening.get(id);
      const part = parts.get(key);
      if (!at || !part || faces[i] !== face) return null;
      const [left, low, right, high] = part.front;
      return (
        <rect
          key={`${key} ${id}`}
          className="part-front"
          data-part={id}
          x={at.s + at.profile.width / 2 + left}
          y={at.t + low}
          width={right - left}
          height={high - low}
          vectorEffect="non-scaling-stroke"
        />
      );
    }),
  );
});
