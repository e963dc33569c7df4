/** All that the sheet shows of an element, and what is done on it. */
import { lengthOf, misfitsOn, sheetsOf } from '@yard-arch/core';
import type { Element } from '@yard-arch/document';
import type { Line } from '@yard-arch/edit';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { linesOf, onElement, type OnElement } from '../boards/sheet-data.ts';
import { chosenIds, useEditor, useFace } from '../state/state.ts';
import { useDesk } from './gestures/desk.ts';
import { useSheetGestures } from './gestures/use-sheet-gestures.ts';
import { useFigure } from './use-figure.ts';
import { useSheetKeys } from './use-sheet-keys.ts';
import { useSheetView } from './use-sheet-view.ts';

/** What is there to be drawn, as it is just being changed. */
function useShown(element: Element) {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const committed = useEditor((state) => state.document)!;
  const live = document.elements[element.id] ?? element;
  const face = useFace(element.id);
  const tall = useMemo(() => sheetsOf(document).on(element.id, face)?.height ?? 0, [document, element, face]);
  const length = useMemo(() => lengthOf(document, live, face), [document, live, face]);
  const last = useRef<OnElement | null>(null);
  // What was shown before is only compared with, so that what has not changed is not drawn again.
  const shown = useMemo(
    () => (last.current = onElement(document, element, face, last.current)),
    [document, element, face],
  );
  const lines = useMemo(() => linesOf(document, live, face), [document, live, face]);
  const misfits = useMemo(
    () => new Set(misfitsOn(committed, element).map(({ opening }) => opening.id)),
    [committed, element],
  );
  return { element, document, committed, live, face, tall, length, shown, lines, misfits };
}

/** What is chosen of it. */
function useChosen({ shown, committed }: ReturnType<typeof useShown>) {
  const chosen = useEditor((state) => state.chosen);
  const ids = chosenIds(chosen);
  const lit = useMemo(() => new Set(ids), [ids]);
  const [only, second] = ids;
  const one = only && second === undefined ? committed.openings[only] : undefined;
  return { chosen, lit, one, box: one ? (shown.boxes.find(({ id }) => id === one.id) ?? null) : null };
}

export type SheetState = ReturnType<typeof useSheet>;

export function useSheet(element: Element) {
  const drawn = useShown(element);
  const { committed, face, tall, length, shown, lines } = drawn;
  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const board = useRef<SVGGElement>(null);
  const panned = useRef(false);
  const looked = useSheetView({ frame, svg, subject: `${element.id} ${face}`, length, tall }, panned);
  const figure = useFigure(element, committed);
  /** The datum or axis that something on the sheet belongs to. */
  const lineAt = (target: globalThis.Element): Line | null => {
    const [kind, id = ''] = (target.closest('[data-line]')?.getAttribute('data-line') ?? '').split(' ');
    const [datum, axis] = [committed.datums[id], committed.axes[id]];
    return kind === 'datum' && datum ? { kind, datum } : kind === 'axis' && axis ? { kind, axis } : null;
  };
  const { desk, over, candidate } = useDesk({
    svg,
    element,
    face,
    committed,
    shown,
    lines,
    lineAt,
    view: looked.view,
    setView: looked.pan,
    setFigure: figure.setFigure,
    hold: looked.hold,
  });
  panned.current = over.panning;
  const gestures = useSheetGestures(desk, board);
  useSheetKeys({
    desk,
    middle: { s: length / 2, t: tall / 2 },
    showWhole: looked.showWhole,
    nearer: looked.nearer,
  });
  const focus = useFocus(svg);
  return {
    ...drawn,
    ...looked,
    ...useChosen(drawn),
    frame,
    svg,
    board,
    desk,
    over,
    candidate,
    gestures,
    figure,
    focus,
  };
}

/** Gives the sheet the focus; it takes it when something is to be placed or measured, for arrow keys and Enter do that too. */
function useFocus(svg: React.RefObject<SVGSVGElement | null>): () => void {
  const placing = useEditor((state) => state.placing);
  const taping = useEditor((state) => state.taping);
  const focus = useCallback(() => svg.current?.focus({ preventScroll: true }), [svg]);
  useEffect(() => {
    if (placing || taping) focus();
  }, [placing, taping, focus]);
  return focus;
}
