/** What stands in and about a pattern as it is drawn: what draws it is fetched after the page itself. */
import type { patternPicture } from '@yard-arch/core/drawn';
import type { Dimensions, Pattern, Units } from '@yard-arch/document';
import { useEffect, useMemo, useState } from 'react';
import { useEditor } from '../state/state.ts';

type Draw = typeof patternPicture;
type Drawn = ReturnType<Draw>;
type Figured = Pick<Pattern, 'profile' | 'infill' | 'parts' | 'sections'>;

let known: Draw | null = null;
let coming: Promise<Draw> | null = null;

/** Fetches what draws patterns; where that fails it is tried again with the next. */
const fetchIt = (): Promise<Draw> =>
  (coming ??= import('@yard-arch/core/drawn').then(
    (made) => (known = made.patternPicture),
    (error: Error) => {
      coming = null;
      throw error;
    },
  ));

const nothing: Drawn = { front: [], reason: null };

/** Outlines alone until it is there. */
export function usePatternFront(pattern: Figured, dimensions: Dimensions, units: Units): Drawn {
  const [draw, setDraw] = useState<Draw | null>(() => known);
  const wanted = pattern.infill !== undefined || (pattern.parts?.length ?? 0) > 0;
  useEffect(() => {
    if (!wanted || draw) return;
    let gone = false;
    fetchIt().then(
      (made) => !gone && setDraw(() => made),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [wanted, draw]);
  // What it carries may have come in meanwhile.
  const meshes = useEditor((state) => state.meshes);
  return useMemo(
    () => (wanted && draw ? draw(pattern, dimensions, units) : nothing),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [pattern, dimensions, units, meshes, draw, wanted],
  );
}
