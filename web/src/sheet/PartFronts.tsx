/** What stands in and about openings, as it is seen on the face that the sheet shows. */
import { resolveOpening, type Placed } from '@yard-arch/core';
import type { FaceName } from '@yard-arch/document';
import { memo } from 'react';
import { Fronts } from '../boards/Fronts.tsx';
import { useEditor } from '../state/state.ts';

interface PartFrontsProps {
  element: string;
  face: FaceName;
  placed: readonly Placed[];
}

/** Where a part is drawn: as it is on its own face; what stands in an opening is seen from the other side of the wall as well, mirrored. */
function placeOn(at: Placed, within: boolean, own: boolean): string | null {
  const middle = at.s + at.profile.width / 2;
  if (at.leans) return own ? `matrix(${at.leans.join(' ')})` : null;
  if (own) return `translate(${middle} ${at.t})`;
  if (!within) return null;
  const { document } = useEditor.getState();
  const opening = document?.openings[at.id];
  const told = opening && resolveOpening(document, opening);
  return told && 'outline' in told ? `translate(${middle} ${told.t}) scale(-1 1)` : null;
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
      const place = at && part && placeOn(at, part.within, faces[i] === face);
      if (!place || !part) return null;
      return (
        <g key={`${key} ${id}`} data-part={id} className="part-front" transform={place}>
          <Fronts fronts={part.front} />
        </g>
      );
    }),
  );
});
