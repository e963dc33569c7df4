/** What gestures on the plan work on: the plan as it stands at each moment, and what is being drawn on it. */
import {
  extentOf,
  isInPlan,
  isManyFaced,
  type ChangeSet,
  type ProjectDocument,
  type Roof,
  type Wall,
} from '@yard-arch/document';
import { isSingle, outlineCorners, wallsOf, type OutlineCorner } from '@yard-arch/edit';
import { alongCourse, courseOf, type Point } from '@yard-arch/core';
import { useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { Viewport } from '../../boards/viewport.ts';
import { refuse } from '../../common/notices.tsx';
import { useEditor } from '../../state/state.ts';
import { commit, preview } from '../../state/store.ts';
import type { SnappedInPlan } from '../snap-plan.ts';

export type Outcome = ChangeSet | { reason: string; mend: string };

/** A chain of walls that is being drawn: where it goes on, the direction there, and the walls that it has. */
export interface Chain {
  first: Point;
  at: Point;
  leaves: number | null;
  walls: string[];
}

/** What is being done on the plan, and what is shown of it. */
export interface PlanState {
  mode: 'choose' | 'draw' | 'split' | 'roof' | 'court' | 'part';
  /** Whether the next wall that is drawn is an arc. */
  arc: boolean;
  chain: Chain | null;
  /** The corners of a roof's outline, or of the path to split along, that is being drawn. */
  corners: readonly Point[];
  /** Whether the path to split along is drawn, and what is to be kept is asked. */
  drawn: boolean;
  pointer: SnappedInPlan | null;
  /** Why what is being dragged cannot be. */
  told: string | null;
  dragging: boolean;
}

const atRest: PlanState = {
  mode: 'choose',
  arc: false,
  chain: null,
  corners: [],
  drawn: false,
  pointer: null,
  told: null,
  dragging: false,
};

export interface PlanNow {
  svg: RefObject<SVGSVGElement | null>;
  view: Viewport;
  /** Pans; null shows the whole. */
  setView: (view: Viewport | null) => void;
  document: ProjectDocument;
  /** The element that is chosen. */
  element: string | null;
}

/** The same object as long as the plan is shown: what it tells is always of now. */
export class PlanDesk {
  constructor(
    private readonly latest: { current: PlanNow & { state: PlanState } },
    readonly show: (change: Partial<PlanState>) => void,
  ) {}

  get now(): PlanNow {
    return this.latest.current;
  }

  get state(): PlanState {
    return this.latest.current.state;
  }

  get walls(): Wall[] {
    return wallsOf(this.now.document);
  }

  /** The chosen element, where it is a wall. */
  get wall(): Wall | null {
    const { document, element } = this.now;
    const chosen = element ? document.elements[element] : undefined;
    return chosen && isInPlan(chosen) ? chosen : null;
  }

  /** The chosen element, where it is a roof. */
  get roof(): Roof | null {
    const { document, element } = this.now;
    const chosen = element ? document.elements[element] : undefined;
    return chosen && isManyFaced(chosen) ? chosen : null;
  }

  /** How far a point or line pulls, metres. */
  get reach(): number {
    return 9 / this.now.view.scale;
  }

  /** Where in plan a place of the window is. */
  on({ x, y }: { x: number; y: number }): Point {
    const bounds = this.now.svg.current!.getBoundingClientRect();
    const { view } = this.now;
    return [(x - bounds.left - view.x) / view.scale, (view.y - (y - bounds.top)) / view.scale];
  }

  setMode(mode: PlanState['mode']): void {
    this.show({ mode, chain: null, corners: [], drawn: false, pointer: null, told: null });
  }

  /** Makes an edit, or says why it cannot be. */
  make(outcome: Outcome): boolean {
    if (!('reason' in outcome)) return commit(outcome);
    preview(null);
    refuse(outcome);
    return false;
  }

  /** Shows what an edit would do, or says why it cannot be. */
  preview(outcome: Outcome): void {
    if ('reason' in outcome) return this.show({ told: outcome.reason });
    this.show({ told: null });
    preview(outcome);
  }
}

/** @returns the desk of the plan, and what is done on it. */
export function useDesk(now: PlanNow): { desk: PlanDesk; state: PlanState } {
  const [state, setState] = useState(atRest);
  const latest = useRef({ ...now, state });
  const desk = useMemo(() => new PlanDesk(latest, (change) => setState((before) => ({ ...before, ...change }))), []);
  useLayoutEffect(() => {
    latest.current = { ...now, state };
  });
  return { desk, state };
}

/** Whether an outline is drawn in it, corner by corner. */
export const isOutlining = (mode: PlanState['mode']): boolean => mode === 'roof' || mode === 'court';

/** Where the outline of a roof can be taken hold of in plan, as it is just being changed. */
export function outlineGripsOf(element: string | null, document: ProjectDocument): OutlineCorner[] {
  const shown = (useEditor.getState().draft ?? document).elements[element ?? ''];
  return shown && isManyFaced(shown) ? outlineCorners(shown) : [];
}

/** Where a wall can be taken hold of in plan, as it is just being changed. */
export function gripsOf(
  element: string | null,
  document: ProjectDocument,
): { kind: 'start' | 'end' | 'bend'; at: Point }[] {
  const shown = (useEditor.getState().draft ?? document).elements[element ?? ''];
  if (!shown || !isInPlan(shown)) return [];
  const { start, end } = courseOf(shown);
  if (Math.hypot(start[0] - end[0], start[1] - end[1]) < 1e-6) return [];
  return [
    { kind: 'start', at: start },
    { kind: 'end', at: end },
    ...(isSingle(shown) && !shown.batter
      ? [{ kind: 'bend' as const, at: alongCourse(shown, extentOf(shown).length / 2).at }]
      : []),
  ];
}
