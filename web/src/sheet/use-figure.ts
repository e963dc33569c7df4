/** The figure on the sheet that is being typed anew, and what becomes of it. */
import { misfitsOn, worded } from '@yard-arch/core';
import type { Element, ProjectDocument } from '@yard-arch/document';
import { refitted, type FigureChoice } from '@yard-arch/edit';
import { useCallback, useState } from 'react';
import { notify } from '../common/notices.tsx';
import { useEditor } from '../state/state.ts';
import { commit, undo } from '../state/store.ts';
import type { EditedFigure } from '../boards/edited-figure.ts';

export interface FigureState {
  /** With the document in which it was measured: others may change it meanwhile. */
  edited: { figure: EditedFigure; on: ProjectDocument } | null;
  setFigure: (figure: EditedFigure | null) => void;
  /** Takes a value. @returns why it cannot be, or null. */
  take: (value: number, choice: FigureChoice) => string | null;
}

export function useFigure(element: Element, committed: ProjectDocument): FigureState {
  const [edited, setEdited] = useState<FigureState['edited']>(null);
  const setFigure = useCallback(
    (figure: EditedFigure | null) => setEdited(figure && { figure, on: useEditor.getState().document! }),
    [],
  );
  const take: FigureState['take'] = (value, choice) => {
    const outcome = choice.apply(value);
    if ('reason' in outcome)
      return `${outcome.reason.charAt(0).toUpperCase()}${outcome.reason.slice(1)}. ${outcome.mend}`;
    const before = new Set(misfitsOn(committed, element).map(({ opening }) => opening.id));
    if (!commit(edited ? refitted(outcome, edited.on, committed) : outcome)) return null;
    setFigure(null);
    tellPushed(element.id, before);
    return null;
  };
  return { edited, setFigure, take };
}

/** What a figure pushes over an edge is told at once, with a way back. */
function tellPushed(element: string, before: ReadonlySet<string>): void {
  const after = useEditor.getState().document!;
  const pushed = misfitsOn(after, after.elements[element]!).filter(({ opening }) => !before.has(opening.id));
  const [first] = pushed;
  if (!first) return;
  const said =
    pushed.length === 1
      ? `${first.opening.mark} reaches ${worded(first.by, after.units)} beyond ${first.beyond} now`
      : `${pushed.length} openings reach beyond the wall now`;
  notify(said, { label: 'Undo', onClick: undo });
}
