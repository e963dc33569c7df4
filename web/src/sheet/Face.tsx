/** The face on the sheet: what is left of it as it was cut last, and the courses upon it. It is drawn anew with every cut, and the sheet about it is not. */
import { sheetsOf } from '@yard-arch/core';
import { isManyFaced, type Element, type FaceName } from '@yard-arch/document';
import { memo } from 'react';
import { useEditor } from '../state/state.ts';
import { pathOf } from '../boards/OpeningShape.tsx';

/** The name of what clips to the face as it is cut: what lies in it is drawn only where it is. */
export const faceClip = 'face';

interface FaceProps {
  element: Element;
  face: FaceName;
  /** Whether it is drawn without what is cut out of it: among very many openings, which are drawn upon it. */
  whole: boolean;
  /** From metres on the face to pixels on the sheet, as an SVG transform. */
  place: string;
  /** SVG path data, metres. */
  courses: string;
}

export const Face = memo(function Face({ element, face: side, whole, place, courses }: FaceProps) {
  const drawn = useEditor((state) => state.drawn.get(element.id));
  const late = useEditor((state) => state.lateFaces.get(element.id));
  const document = useEditor((state) => state.document);
  if (!drawn || !document) return null;
  const left = side === 'outer' ? (drawn.face ?? late) : side === 'inner' ? drawn.innerFace : (drawn.faces[side] ?? '');
  const sheet = sheetsOf(document).on(element.id, side);
  const face = (whole || !left) && sheet ? pathOf(sheet.outline) : left;
  return (
    <>
      <path
        className={isManyFaced(element) ? 'wall roofed' : 'wall'}
        d={face}
        data-testid="face"
        transform={place}
        vectorEffect="non-scaling-stroke"
      />
      <clipPath id={faceClip}>
        <path d={face} clipRule="evenodd" transform={place} />
      </clipPath>
      {courses && (
        <g clipPath={`url(#${faceClip})`}>
          <path className="course" d={courses} transform={place} vectorEffect="non-scaling-stroke" />
        </g>
      )}
    </>
  );
});

/** The courses of an outer leaf as SVG path data, metres: each, every fourth where they lie too close, or none. */
export function coursesOf(course: number, scale: number, length: number, tall: number): string {
  const every = course <= 0 ? 0 : scale * course > 5 ? course : scale * course * 4 > 6 ? course * 4 : 0;
  if (every <= 0 || tall / every >= 400) return '';
  const from = 1 / scale;
  let path = '';
  for (let t = every; t < tall; t += every) path += `M${from} ${t}H${length - from}`;
  return path;
}
