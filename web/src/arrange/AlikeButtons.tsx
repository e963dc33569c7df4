/** Choosing more of the same: all of one pattern, of one size, on one element. Only openings are ever chosen by these. */
import { kindOf, sizeLabel, type Opening, type ProjectDocument } from '@yard-arch/document';
import { chooseOpenings } from '../state/choice.ts';

export function AlikeButtons({ document, openings }: { document: ProjectDocument; openings: readonly Opening[] }) {
  const first = openings[0]!;
  const here = Object.values(document.openings).filter((opening) => opening.element === first.element);
  const patterns = new Set(openings.map(({ pattern }) => pattern));
  const sizes = new Set(openings.filter(({ own }) => !own).map(({ pattern, size }) => `${pattern} ${size}`));
  const pattern = document.patterns[first.pattern];
  const ofPattern = here.filter((opening) => patterns.has(opening.pattern));
  const ofSize = here.filter((opening) => !opening.own && sizes.has(`${opening.pattern} ${opening.size}`));
  // The one that was chosen first stays first: the others are lined up with it.
  const pick = (list: readonly Opening[]) => () =>
    chooseOpenings([...(list.includes(first) ? [first.id] : []), ...list.map(({ id }) => id)]);
  const size = pattern?.sizes[first.size];
  const element = document.elements[first.element];
  const noun = element ? kindOf(element).noun : 'element';
  if (here.length <= openings.length) return null;
  return (
    <div className="buttons" role="group" aria-label="Choose alike">
      <span>choose all</span>
      {ofPattern.length > openings.length && (
        <button onClick={pick(ofPattern)}>
          {patterns.size === 1 && pattern
            ? `${pattern.name}, ${ofPattern.length}`
            : `of their patterns, ${ofPattern.length}`}
        </button>
      )}
      {ofSize.length > openings.length && ofSize.length < ofPattern.length && (
        <button onClick={pick(ofSize)}>
          {sizes.size === 1 && pattern && size
            ? `${sizeLabel(pattern, size, document.units)}, ${ofSize.length}`
            : `of their sizes, ${ofSize.length}`}
        </button>
      )}
      {here.length > openings.length && <button onClick={pick(here)}>{`on this ${noun}, ${here.length}`}</button>}
    </div>
  );
}
