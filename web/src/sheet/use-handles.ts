/** Drawing out sides of the chosen opening, and ends and tops of the wall, by their handles on the sheet. */
import { sideOf, snapSide, type Box, type BoxSide, type Guide } from '@yard-arch/core';
import { formatLength, type ChangeSet, type Opening, type ProjectDocument, type Wall } from '@yard-arch/document';
import {
  drawnTo,
  drawWallPoint,
  reshaping,
  wallHandles,
  type FigureChoice,
  type Reshaping,
  type WallHandle,
} from '@yard-arch/edit';
import { useState, type PointerEvent, type RefObject } from 'react';
import { useDrag } from '../boards/use-drag.ts';
import { complain } from '../common/notices.tsx';
import { commit, preview } from '../state/store.ts';
import type { SheetLines } from '../boards/sheet-data.ts';
import { sOf, tOf, xOf, yOf, type Viewport } from '../boards/viewport.ts';
import type { EditedFigure } from './edited-figure.ts';
import { reachPixels } from './use-gestures.ts';

/** What is being drawn out, where it is, and what is to be said of it. */
export interface DrawnOut {
  s: number;
  t: number;
  guide: Guide | null;
  way: 'along' | 'up';
  text: string;
}

type Outcome = ChangeSet | { reason: string; mend: string };

type Held =
  | {
      of: 'opening';
      opening: Opening;
      box: Box;
      side: BoxSide;
      others: readonly Box[];
      ways: Reshaping;
      view: Viewport;
      value: number;
    }
  | { of: 'wall'; wall: Wall; handle: WallHandle; view: Viewport; s: number; t: number };

interface Sheet {
  svg: RefObject<SVGSVGElement | null>;
  committed: ProjectDocument;
  lines: SheetLines;
  view: Viewport;
  setFigure: (figure: EditedFigure) => void;
  /** Keeps the drawing where it is while it is drawn on. */
  hold: (held: boolean) => void;
}

const whole = (value: number): number => Math.round(value * 1000) / 1000;
/** A wall goes by whole centimetres. */
const coarse = (value: number): number => Math.round(value * 100) / 100;

export function useHandles({ svg, committed, lines, view, setFigure, hold }: Sheet) {
  const [drawn, setDrawn] = useState<DrawnOut | null>(null);
  const { units } = committed;

  const shown = (outcome: Outcome): string | null => {
    if ('reason' in outcome) return `${outcome.reason}. ${outcome.mend}`;
    preview(outcome);
    return null;
  };

  /** The choice that shows what a figure would do, the one alone where there is one. */
  const shownBy = (choices: readonly FigureChoice[]): FigureChoice => choices[1] ?? choices[0]!;

  const followSide = (held: Extract<Held, { of: 'opening' }>, s: number, t: number, free: boolean): void => {
    const { box, side, others, opening, ways } = held;
    const along = side === 'left' || side === 'right';
    const at = along ? s : t;
    const guide = free ? null : snapSide(box, side, at, others, lines, reachPixels / held.view.scale);
    const to = guide?.at ?? (free ? at : whole(at));
    held.value = drawnTo(committed.patterns[opening.pattern]!, box, side, to);
    const refused = shown(shownBy(ways.choices).apply(held.value));
    setDrawn({
      s: along ? to : box.s + box.width / 2,
      t: along ? box.t + box.height / 2 : to,
      guide,
      way: along ? 'along' : 'up',
      text: [`${ways.drawn} ${formatLength(held.value, units)}`, refused ?? guide?.reason].filter(Boolean).join(' · '),
    });
  };

  const followWall = (held: Extract<Held, { of: 'wall' }>, s: number, t: number, free: boolean): void => {
    const { handle, wall } = held;
    const step = free ? whole : coarse;
    held.s = handle.along ? step(s) : handle.s;
    held.t = handle.up ? step(t) : handle.t;
    const middle = lines.length / 2;
    let guide: Guide | null = null;
    if (handle.kind === 'apex' && !free && Math.abs(s - middle) < reachPixels / held.view.scale) {
      held.s = middle;
      guide = { at: middle, reason: 'over the middle of the wall' };
    }
    const outcome = drawWallPoint(wall, handle.kind, held.s, held.t);
    // The start stands at 0 whatever its place: it is drawn where it goes to, and the wall with it when it is let go.
    const refused = handle.kind === 'start' ? ('reason' in outcome ? outcome.reason : null) : shown(outcome);
    const says = handle.kind === 'end' ? held.s : handle.kind === 'start' ? lines.length - held.s : held.t;
    setDrawn({
      s: held.s,
      t: held.t,
      guide,
      way: handle.along ? 'along' : 'up',
      text: [
        `${handle.along && !handle.up ? 'length' : 'height'} ${formatLength(says, units)}`,
        refused ?? guide?.reason,
      ]
        .filter(Boolean)
        .join(' · '),
    });
  };

  const finish = (outcome: Outcome): void => {
    if (!('reason' in outcome)) return void commit(outcome);
    preview(null);
    complain(outcome.reason.charAt(0).toUpperCase() + outcome.reason.slice(1), outcome.mend);
  };

  const figureOf = (held: Held, text?: string): EditedFigure => {
    if (held.of === 'opening') {
      const { box, side, ways, value } = held;
      const along = side === 'left' || side === 'right';
      return {
        what: ways.drawn,
        label: ways.label,
        value,
        x: xOf(view, along ? sideOf(box, side) : box.s + box.width / 2),
        y: yOf(view, along ? box.t + box.height / 2 : sideOf(box, side)),
        choices: ways.choices,
        drawn: true,
        ...(text ? { text } : {}),
      };
    }
    const { handle, wall, s, t } = held;
    const length = handle.along && !handle.up;
    const given = handle.kind === 'start' ? lines.length - s : length ? s : t;
    return {
      what: length ? 'length' : 'height',
      label: length ? 'Length of the wall' : 'Height',
      value: given,
      x: xOf(view, s),
      y: yOf(view, t),
      drawn: true,
      choices: [
        {
          label: '',
          apply: (value) =>
            drawWallPoint(
              wall,
              handle.kind,
              handle.kind === 'start' ? lines.length - value : length ? value : s,
              length ? t : value,
            ),
        },
      ],
      ...(text ? { text } : {}),
    };
  };

  const begin = useDrag<Held>({
    onBegin: () => hold(true),
    onMove: (held, x, y, free) => {
      const bounds = svg.current!.getBoundingClientRect();
      const [s, t] = [sOf(held.view, x - bounds.left), tOf(held.view, y - bounds.top)];
      if (held.of === 'opening') followSide(held, s, t, free);
      else followWall(held, s, t, free);
    },
    onEnd: (held, keep) => {
      setDrawn(null);
      hold(false);
      if (!keep) return preview(null);
      if (held.of === 'wall') return finish(drawWallPoint(held.wall, held.handle.kind, held.s, held.t));
      const [only, second] = held.ways.choices;
      if (only && !second) finish(only.apply(held.value));
      else setFigure(figureOf(held));
    },
    onTyped: (held, key) => {
      setDrawn(null);
      hold(false);
      setFigure(figureOf(held, key));
      return true;
    },
  });

  return {
    drawn,
    drawSide: (
      event: PointerEvent<Element>,
      opening: Opening,
      box: Box,
      side: BoxSide,
      boxes: readonly Box[],
    ): void => {
      const ways = reshaping(committed, opening, box, side);
      if (!ways) return;
      begin(event, {
        of: 'opening',
        opening,
        box,
        side,
        others: boxes.filter(({ id }) => id !== box.id),
        ways,
        view,
        value: 0,
      });
    },
    drawWall: (event: PointerEvent<Element>, wall: Wall, handle: WallHandle): void => {
      begin(event, { of: 'wall', wall, handle, view, s: handle.s, t: handle.t });
    },
    handlesOf: wallHandles,
  };
}
