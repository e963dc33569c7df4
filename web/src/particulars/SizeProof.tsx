/** The proof of a pattern's sizes: smallest, usual and largest side by side at one scale, with what breaks in any of them. */
import { patternFront, profileOf } from '@yard-arch/core';
import { sizeLabel, type Pattern, type ProjectDocument, type Size } from '@yard-arch/document';
import { uses } from '@yard-arch/edit';
import { PatternFigure } from '../boards/PatternFigure.tsx';

interface Proved {
  size: Size;
  width: number;
  height: number;
}

/** The size that is used most, and the least and the largest by their area; each once, the smallest first. */
function provedSizes(document: ProjectDocument, pattern: Pattern): Proved[] {
  const all = Object.values(pattern.sizes).flatMap((size): Proved[] => {
    const profile = profileOf(pattern.profile, size.dimensions, document.units);
    return 'reason' in profile ? [] : [{ size, width: profile.width, height: profile.height }];
  });
  const byArea = [...all].sort((a, b) => a.width * a.height - b.width * b.height);
  const usual = [...all].sort(
    (a, b) => uses(document, pattern.id, b.size.id) - uses(document, pattern.id, a.size.id),
  )[0];
  const wanted = new Set([byArea[0], usual, byArea.at(-1)]);
  return byArea.filter((one) => wanted.has(one));
}

/** The most that one is drawn high and all are wide, pixels. */
const [mostHigh, mostWide] = [104, 250];

export function SizeProof({ document, pattern }: { document: ProjectDocument; pattern: Pattern }) {
  const sizes = provedSizes(document, pattern);
  if (sizes.length === 0) return null;
  const total = sizes.reduce((sum, { width }) => sum + width, 0);
  const scale = Math.min(mostHigh / Math.max(...sizes.map(({ height }) => height)), mostWide / total);
  return (
    <figure className="size-proof" aria-label="The pattern in its sizes">
      {sizes.map(({ size, width, height }) => {
        const fails = patternFront(pattern, size.dimensions, document.units).reason;
        return (
          <div key={size.id}>
            <PatternFigure
              pattern={pattern}
              dimensions={size.dimensions}
              units={document.units}
              width={Math.ceil(width * scale) + 4}
              height={Math.ceil(height * scale) + 4}
              wrong={fails}
            />
            <figcaption className={fails ? 'bad' : undefined}>
              {sizeLabel(pattern, size, document.units)}
              {fails && <span role="alert">{fails}</span>}
            </figcaption>
          </div>
        );
      })}
    </figure>
  );
}
