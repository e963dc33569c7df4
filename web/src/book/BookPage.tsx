/** The pattern book: all patterns of the project, the detail of the one that is chosen beside its model, its sizes side by side, and its particulars. */
import { studyOf } from '@yard-arch/core';
import { isManyFaced, type Element, type Pattern, type ProjectDocument, type Size } from '@yard-arch/document';
import { uses } from '@yard-arch/edit';
import { Suspense, lazy, useEffect, useMemo, useState } from 'react';
import { revealParts } from '../particulars/SectionFields.tsx';
import { PatternParticulars } from '../particulars/PatternParticulars.tsx';
import { choose } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import './book.css';
import { BookList } from './BookList.tsx';
import { DetailSheet } from './DetailSheet.tsx';
import { FieldCard } from './FieldCard.tsx';
import { RevealCard } from './RevealCard.tsx';
import { ShelfTie } from './ShelfTie.tsx';
import { Sizes } from './Sizes.tsx';

const StudyModel = lazy(async () => ({ default: (await import('./StudyModel.tsx')).StudyModel }));

export function BookPage({ document }: { document: ProjectDocument }) {
  const chosen = useEditor((state) => (state.chosen.kind === 'pattern' ? state.chosen.id : null));
  const pattern = (chosen && document.patterns[chosen]) || Object.values(document.patterns)[0];
  useEffect(() => {
    if (pattern && chosen !== pattern.id) choose({ kind: 'pattern', id: pattern.id });
  }, [pattern, chosen]);
  return (
    <div className="book">
      <BookList document={document} chosen={pattern?.id ?? null} />
      {pattern ? (
        <OnePattern document={document} pattern={pattern} />
      ) : (
        <div className="drawing empty">
          <div>
            <h2>No pattern yet</h2>
            <p>A pattern is an opening to be used again. Begin one from its outline, in the list on the left.</p>
          </div>
        </div>
      )}
    </div>
  );
}

/** The layers in which a pattern is drawn: those of what it is used in first, or plain ones. */
function layersFor(document: ProjectDocument, pattern: Pattern): Element['layers'] {
  const first = Object.values(document.openings).find((opening) => opening.pattern === pattern.id);
  const own = document.elements[first?.element ?? ''];
  const dormer = pattern.parts?.find((part) => part.kind === 'dormer');
  // What is for a roof is not shown in a wall's bricks.
  if (dormer && !(own && isManyFaced(own))) return [{ thickness: 0.2, material: dormer.roof.material }];
  const element = own ?? Object.values(document.elements)[0];
  return element?.layers ?? [{ thickness: 0.35, material: Object.keys(document.materials)[0] ?? '' }];
}

/** The size that is used most. */
function usual(document: ProjectDocument, pattern: Pattern): Size {
  const all = Object.values(pattern.sizes);
  return all.reduce((most, size) =>
    uses(document, pattern.id, size.id) > uses(document, pattern.id, most.id) ? size : most,
  );
}

/** What is chosen of a pattern: a size, and a field of its drawing; and the pattern as it would be while a bar of it is dragged. */
interface Looked {
  of: string;
  size: string;
  field: string | null;
  draft: Pattern | null;
}

const atFirst = (document: ProjectDocument, pattern: Pattern): Looked => ({
  of: pattern.id,
  size: usual(document, pattern).id,
  field: null,
  draft: null,
});

/** What is looked at of a pattern; of another one it begins anew. */
function useLooked(document: ProjectDocument, pattern: Pattern): [Looked, (over: Partial<Looked>) => void] {
  const [last, setLooked] = useState(() => atFirst(document, pattern));
  const looked = last.of === pattern.id ? last : atFirst(document, pattern);
  if (looked !== last) setLooked(looked);
  return [looked, (over) => setLooked((now) => ({ ...now, ...over }))];
}

/** A pattern's detail, sizes, model and particulars. The view of the model goes on from one pattern to the next: a new one takes as long as all the rest. */
function OnePattern({ document, pattern: committed }: { document: ProjectDocument; pattern: Pattern }) {
  const [{ size: sizeId, field, draft }, look] = useLooked(document, committed);
  const setField = (path: string | null): void => look({ field: path });
  const pattern = draft ?? committed;
  const size = pattern.sizes[sizeId] ?? usual(document, pattern);
  const layers = layersFor(document, pattern);
  const { materials, units } = document;
  const meshes = useEditor((state) => state.meshes);
  const part = revealParts.find(({ name }) => field === `reveal/${name}`)?.name;
  // Drawings show leaves shut, the model as they stand. What else is in the document does not matter to either.
  const [shut, standing] = useMemo(
    () => {
      const studied = { document, pattern, size, layers };
      const drawn = studyOf(studied, { open: 0, slid: 0 });
      return [drawn, 'cut' in drawn ? studyOf(studied, {}, drawn) : drawn];
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [pattern, size, layers, materials, units, meshes],
  );
  return (
    <>
      <main className="board" aria-label="Detail">
        {'cut' in shut ? (
          <>
            <DetailSheet
              key={committed.id}
              told={{ document, pattern, size }}
              study={shut}
              chosen={field}
              onChoose={setField}
              onDraft={(draft) => look({ draft })}
            />
            {shut.reason && (
              <p className="told bad" role="alert">
                {shut.reason}
              </p>
            )}
          </>
        ) : (
          <div className="drawing empty">
            <p role="alert">{shut.reason}</p>
          </div>
        )}
        <Sizes
          key={committed.id}
          document={document}
          pattern={pattern}
          chosen={size.id}
          onChoose={(size) => look({ size })}
        />
      </main>
      <aside className="side" aria-label="Model and particulars">
        <div className="study-model">
          <Suspense fallback={<div className="waiting">Fetching the model…</div>}>
            {'cut' in standing && <StudyModel document={document} study={standing} />}
          </Suspense>
        </div>
        <div className="particulars" key={committed.id}>
          {part && (
            <RevealCard
              document={document}
              pattern={pattern}
              part={part}
              depth={'cut' in shut ? shut.placed.depth : layers.reduce((sum, { thickness }) => sum + thickness, 0)}
              onClose={() => setField(null)}
            />
          )}
          {field !== null && !part && pattern.infill && (
            <FieldCard document={document} pattern={pattern} path={field} onChoose={setField} />
          )}
          <ShelfTie document={document} pattern={committed} />
          <PatternParticulars document={document} pattern={pattern} proof={false} />
        </div>
      </aside>
    </>
  );
}
