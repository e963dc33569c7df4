/** The sheet: a face of the chosen element as a drawing, on which openings are placed, dragged and dimensioned. */
import { faceLabel, type Element } from '@yard-arch/document';
import { TypedField } from '../boards/Overlays.tsx';
import { useEditor } from '../state/state.ts';
import { preview } from '../state/store.ts';
import { FigureField } from '../boards/FigureField.tsx';
import { SheetDrawing } from './SheetDrawing.tsx';
import { SheetOver } from './SheetOver.tsx';
import { SheetTools } from './SheetTools.tsx';
import { SplitAlongTape } from './SplitAlongTape.tsx';
import { TitleBlock } from './TitleBlock.tsx';
import { useSheet, type SheetState } from './use-sheet.ts';
import { activated } from './use-sheet-keys.ts';

export function Sheet({ element }: { element: Element }) {
  const sheet = useSheet(element);
  const { frame, svg, board, view, ready, face, desk, over, gestures, one, candidate, focus } = sheet;
  const placing = useEditor((state) => state.placing);
  const taping = useEditor((state) => state.taping);
  const sliding = useEditor((state) => state.sliding);
  return (
    <div ref={frame} style={{ position: 'absolute', inset: 0, overflow: 'hidden' }}>
      <svg
        ref={svg}
        className={`sheet${over.panning ? ' panning' : ''}${sliding ? ' sliding' : ''}${placing || taping ? ' placing' : ''}`}
        role="application"
        aria-label={`Sheet of ${element.name}, ${faceLabel(element, face)}. Tab goes from opening to opening, arrow keys move what is chosen.`}
        tabIndex={0}
        data-testid="sheet"
        data-face={face}
        data-scale={view.scale}
        data-x={view.x}
        data-y={view.y}
        {...gestures.bind()}
        onPointerMove={gestures.onPointerMove}
        onPointerLeave={() => gestures.typed === null && desk.show({ ghost: null })}
        onDoubleClick={(event) => event.target === svg.current && sheet.showWhole()}
        onKeyDown={(event) => {
          const { ctrlKey, metaKey, altKey, key } = event;
          if (activated(desk, event) || (!ctrlKey && !metaKey && !altKey && gestures.type(key))) event.preventDefault();
        }}
      >
        <BlockedHatch scale={view.scale} />
        {ready && (
          <g ref={board}>
            <SheetDrawing sheet={sheet} />
            <SheetOver sheet={sheet} />
          </g>
        )}
      </svg>
      <FieldsOver sheet={sheet} />
      {taping && <SplitAlongTape sheet={sheet} />}
      <SheetTools
        element={element}
        face={face}
        springing={(candidate?.box.springing ?? null) !== null}
        focusSheet={focus}
        chosen={placing || taping ? undefined : one}
      />
      <TitleBlock element={element} face={face} />
    </div>
  );
}

/** The hatch of what is blocked up, as fine whatever the scale. */
function BlockedHatch({ scale }: { scale: number }) {
  return (
    <defs>
      <pattern
        id="blocked-hatch"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform={`scale(${1 / scale}) rotate(45)`}
      >
        <rect width="7" height="7" fill="var(--hatch)" />
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--hatch-line)" strokeWidth="1.4" />
      </pattern>
    </defs>
  );
}

/** Fields that open over the sheet: a figure that is typed anew, or one that says how far. */
function FieldsOver({ sheet: { figure, gestures, document, committed, svg, focus } }: { sheet: SheetState }) {
  const { edited, setFigure } = figure;
  const typing = gestures.typed === null ? null : gestures.typing();
  return (
    <>
      {edited && (
        <FigureField
          key={`${edited.figure.what} ${edited.figure.x} ${edited.figure.y}`}
          figure={edited.figure}
          units={document.units}
          meanwhile={edited.on !== committed}
          onDone={(value, choice) => {
            const fault = figure.take(value, choice);
            if (fault === null) svg.current?.focus();
            return fault;
          }}
          onShow={(value, choice) => {
            const outcome = choice.apply(value);
            preview('reason' in outcome ? null : outcome);
          }}
          onClose={() => {
            if (edited.figure.drawn) preview(null);
            setFigure(null);
          }}
        />
      )}
      {gestures.typed !== null && typing && (
        <TypedField gestures={gestures} typing={typing} units={document.units} onDone={focus} />
      )}
    </>
  );
}
