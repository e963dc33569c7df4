/** What gestures on the sheet work on: the sheet as it stands at each moment, and what may be shown over it. */
import { boxOf, gripOffset, snap, type Box, type Hold, type Placed } from '@yard-arch/core';
import { isUpright, type Element, type FaceName, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { floorBelow, placeOpening, wouldBe, type Line } from '@yard-arch/edit';
import { useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { Ghost, Rectangle, Tape } from '../../boards/drawn.ts';
import type { Spot } from '../../boards/gesture.ts';
import type { OnElement, SheetLines } from '../../boards/sheet-data.ts';
import { sOf, tOf, type Viewport } from '../../boards/viewport.ts';
import { useEditor } from '../../state/state.ts';
import { commit } from '../../state/store.ts';
import type { EditedFigure } from '../../boards/edited-figure.ts';
import type { DrawnOut } from './drawn-out.ts';

/** How far the pointer pulls towards a line, pixels. */
const reachPixels = 8;

/** What is shown over the sheet while something is done on it. */
export interface Over {
  /** What would be placed. */
  ghost: Ghost | null;
  /** What is dragged, and where it would come to stand. */
  dragged: { box: Box; at: Ghost } | null;
  /** A rectangle that is drawn out. */
  area: { kind: 'window' | 'draw'; at: Rectangle; reason: string | null } | null;
  /** A side, an end or a top that is drawn out. */
  drawnOut: DrawnOut | null;
  tape: Tape | null;
  panning: boolean;
}

const nothing: Over = { ghost: null, dragged: null, area: null, drawnOut: null, tape: null, panning: false };

/** The sheet as it is drawn. */
export interface SheetNow {
  svg: RefObject<SVGSVGElement | null>;
  element: Element;
  face: FaceName;
  committed: ProjectDocument;
  shown: OnElement;
  lines: SheetLines;
  view: Viewport;
  /** Pans; null shows the whole face. */
  setView: (view: Viewport | null) => void;
  setFigure: (figure: EditedFigure) => void;
  /** Keeps the drawing where it is while it is drawn on. */
  hold: (held: boolean) => void;
  lineAt: (target: globalThis.Element) => Line | null;
}

/** What would be placed, and of what. */
export interface Candidate {
  placed: Placed;
  box: Box;
  pattern: Pattern;
}

/** The same object as long as the sheet is shown: what it tells is always of now. */
export class SheetDesk {
  constructor(
    private readonly latest: { current: SheetNow & { candidate: Candidate | null; over: Over } },
    readonly show: (change: Partial<Over>) => void,
  ) {}

  get now(): SheetNow {
    return this.latest.current;
  }

  get candidate(): Candidate | null {
    return this.latest.current.candidate;
  }

  get over(): Over {
    return this.latest.current.over;
  }

  /** How far a line pulls, metres. */
  get reach(): number {
    return reachPixels / this.now.view.scale;
  }

  /** Where on the face a place of the window is, in a view. */
  on({ x, y }: { x: number; y: number }, view = this.now.view): { s: number; t: number } {
    const bounds = this.now.svg.current!.getBoundingClientRect();
    return { s: sOf(view, x - bounds.left), t: tOf(view, y - bounds.top) };
  }

  /** A box put where lines and neighbours pull it; what nothing pulls lands on whole millimetres. */
  snapped(box: Box, others: readonly Box[], free: boolean): Ghost {
    if (free) return { s: box.s, t: box.t, along: null, up: null };
    const result = snap(box, others, this.now.lines, this.reach);
    return { ...result, s: result.along ? result.s : whole(result.s), t: result.up ? result.t : whole(result.t) };
  }

  /** What would be placed with its grip at a point; what stands on the floor is drawn to the floor. */
  ghostAt({ s, t }: { s: number; t: number }, free: boolean): Ghost | null {
    const { candidate } = this;
    if (!candidate) return null;
    const { box, pattern } = candidate;
    const { committed, element, shown } = this.now;
    const [dx, dy] = gripOffset(box, useEditor.getState().grip);
    const spot = this.snapped({ ...box, s: s - dx, t: t - dy }, shown.boxes, free);
    if (!pattern.onFloor || free || !isUpright(element)) return spot;
    const floor = floorBelow(committed, element, t - dy + box.height / 2);
    return {
      ...spot,
      t: floor.t,
      up: { at: floor.t, reason: `stands on ${floor.name}`, hold: { up: floor.up, level: 'sill' } },
    };
  }

  putDown(spot: Ghost): void {
    const { placing, grip } = useEditor.getState();
    if (!placing) return;
    const { committed, element, face } = this.now;
    const { changeSet, id } = placeOpening(committed, element, placing, { ...spot, face, holds: holdsOf(spot), grip });
    if (commit(changeSet)) useEditor.setState({ chosen: { kind: 'openings', ids: [id] } });
  }
}

/** What an opening at a spot is held to from then on. */
export const holdsOf = ({ along, up }: Ghost): Hold[] => [along?.hold, up?.hold].filter((hold) => hold !== undefined);

export const whole = (value: number): number => Math.round(value * 1000) / 1000;

/** How far a spot is from a press, metres on the face. */
export const awayFrom = (press: Spot, { x, y }: Spot, { scale }: Viewport): { s: number; t: number } => ({
  s: (x - press.x) / scale,
  t: (press.y - y) / scale,
});

/** @returns the desk of a sheet, and what is shown over it. */
export function useDesk(now: SheetNow): { desk: SheetDesk; over: Over; candidate: Candidate | null } {
  const { committed, element, face } = now;
  const placing = useEditor((state) => state.placing);
  const taping = useEditor((state) => state.taping);
  const [over, setOver] = useState(nothing);
  const candidate = useMemo(() => candidateOf(committed, element, face, placing), [committed, element, face, placing]);
  const latest = useRef({ ...now, candidate, over });
  const desk = useMemo(() => new SheetDesk(latest, (change) => setOver((before) => ({ ...before, ...change }))), []);
  useLayoutEffect(() => {
    latest.current = { ...now, candidate, over };
  });
  useLayoutEffect(() => {
    if (!placing) desk.show({ ghost: null });
  }, [placing, desk]);
  useLayoutEffect(() => {
    if (!taping) desk.show({ tape: null });
  }, [taping, desk]);
  return { desk, over, candidate };
}

/** What would be placed; null where its size makes no opening. */
function candidateOf(
  document: ProjectDocument,
  element: Element,
  face: FaceName,
  placing: { pattern: string; size: string } | null,
): Candidate | null {
  const pattern = placing && document.patterns[placing.pattern];
  const placed = pattern ? wouldBe(document, element, placing, face) : null;
  return pattern && placed && 'outline' in placed ? { placed, box: boxOf(placed, ''), pattern } : null;
}
