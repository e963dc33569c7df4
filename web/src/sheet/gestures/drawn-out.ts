/** Drawing out sides of the chosen opening, and ends and tops of the wall, by their handles on the sheet. */
import { sideOf, snapSide, type Box, type BoxSide, type Guide } from '@yard-arch/core';
import { formatLength, type ChangeSet, type Opening, type Wall } from '@yard-arch/document';
import { drawnTo, drawWallPoint, isAtLeft, onOuter, reshaping, type Reshaping, type WallHandle } from '@yard-arch/edit';
import type { Gesture } from '../../boards/gesture.ts';
import { xOf, yOf } from '../../boards/viewport.ts';
import { complain } from '../../common/notices.tsx';
import { commit, preview } from '../../state/store.ts';
import type { EditedFigure } from '../../boards/edited-figure.ts';
import { whole, type SheetDesk } from './desk.ts';

/** What is being drawn out, where it is, and what is to be said of it. */
export interface DrawnOut {
  s: number;
  t: number;
  guide: Guide | null;
  way: 'along' | 'up';
  text: string;
}

type Outcome = ChangeSet | { reason: string; mend: string };

/** A wall goes by whole centimetres. */
const coarse = (value: number): number => Math.round(value * 100) / 100;

/** What a figure with its measure says, and why it cannot be or what it came into line with. */
const told = (figure: string, also: string | undefined | null): string => [figure, also].filter(Boolean).join(' · ');

/** Shows an edit. @returns why it cannot be. */
function shown(outcome: Outcome): string | null {
  if ('reason' in outcome) return `${outcome.reason}. ${outcome.mend}`;
  preview(outcome);
  return null;
}

function finish(outcome: Outcome): void {
  if (!('reason' in outcome)) return void commit(outcome);
  preview(null);
  complain(outcome.reason.charAt(0).toUpperCase() + outcome.reason.slice(1), outcome.mend);
}

/** What both have in common: the sheet stays where it is meanwhile, and a figure that is begun to be typed is taken in the field over it. */
function drawingOut(
  desk: SheetDesk,
  own: Required<Pick<Gesture, 'move' | 'drop'>>,
  figure: () => EditedFigure,
): Gesture {
  const over = (): void => {
    desk.show({ drawnOut: null });
    desk.now.hold(false);
  };
  return {
    begin: () => desk.now.hold(true),
    move: own.move,
    drop: () => {
      over();
      own.drop();
    },
    giveUp: () => {
      over();
      preview(null);
    },
    typed: (text) => {
      over();
      desk.now.setFigure({ ...figure(), text });
      return true;
    },
  };
}

/** Draws out a side of an opening. */
export function drawingSide(desk: SheetDesk, opening: Opening, box: Box, side: BoxSide): Gesture | null {
  const { committed, shown: on, view, lines } = desk.now;
  const ways = reshaping(committed, opening, box, side);
  if (!ways) return null;
  const others = on.boxes.filter(({ id }) => id !== box.id);
  const along = side === 'left' || side === 'right';
  let value = 0;
  const figure = (): EditedFigure => ({
    what: ways.drawn,
    label: ways.label,
    value,
    x: xOf(desk.now.view, along ? sideOf(box, side) : box.s + box.width / 2),
    y: yOf(desk.now.view, along ? box.t + box.height / 2 : sideOf(box, side)),
    choices: ways.choices,
    drawn: true,
  });
  return drawingOut(
    desk,
    {
      move: (spot) => {
        const { s, t } = desk.on(spot, view);
        const guide = spot.free
          ? null
          : snapSide(box, { side, at: along ? s : t }, others, { lines, reach: desk.reach });
        const to = guide?.at ?? (spot.free ? (along ? s : t) : whole(along ? s : t));
        value = drawnTo(desk.now.committed.patterns[opening.pattern]!, box, side, to);
        const refused = shown(firstShown(ways).apply(value));
        desk.show({
          drawnOut: {
            s: along ? to : box.s + box.width / 2,
            t: along ? box.t + box.height / 2 : to,
            guide,
            way: along ? 'along' : 'up',
            text: told(`${ways.drawn} ${formatLength(value, committed.units)}`, refused ?? guide?.reason),
          },
        });
      },
      drop: () => {
        const [only, second] = ways.choices;
        if (only && !second) finish(only.apply(value));
        else desk.now.setFigure(figure());
      },
    },
    figure,
  );
}

/** The choice that shows what a figure would do: the one alone where there is one. */
const firstShown = ({ choices }: Reshaping): Reshaping['choices'][number] => choices[1] ?? choices[0]!;

/** Draws out an end, the top or the apex of a wall. */
export function drawingWall(desk: SheetDesk, wall: Wall, handle: WallHandle): Gesture {
  const { view, lines, committed } = desk.now;
  const at = { s: handle.s, t: handle.t };
  const length = handle.along && !handle.up;
  const draw = (s: number, t: number): Outcome => drawWallPoint(wall, handle.kind, onOuter(handle, s), t);
  const left = isAtLeft(handle);
  /** What its figure says. */
  const says = (): number => (left ? lines.length - at.s : length ? at.s : at.t);
  return drawingOut(
    desk,
    {
      move: (spot) => {
        const { s, t } = desk.on(spot, view);
        const step = spot.free ? whole : coarse;
        at.s = handle.along ? step(s) : handle.s;
        at.t = handle.up ? step(t) : handle.t;
        const guide = spot.free || handle.kind !== 'apex' ? null : overMiddle(s, middleOf(wall, handle), desk.reach);
        if (guide) at.s = guide.at;
        const outcome = draw(at.s, at.t);
        // What is at the left stands at 0 whatever its place: it is drawn where it goes to, and the wall with it when it is let go.
        const refused = left ? ('reason' in outcome ? outcome.reason : null) : shown(outcome);
        desk.show({
          drawnOut: {
            ...at,
            // Where it is drawn to, as long as nothing else shows that.
            guide: left ? { at: at.s, reason: '' } : guide,
            way: handle.along ? 'along' : 'up',
            text: told(
              `${length ? 'length' : 'height'} ${formatLength(says(), committed.units)}`,
              refused ?? guide?.reason,
            ),
          },
        });
      },
      drop: () => finish(draw(at.s, at.t)),
    },
    () => wallFigure(desk, handle, { place: at, value: says(), draw }),
  );
}

/** The middle of a wall on the face on which a handle of it is seen. */
const middleOf = (wall: Wall, { s, outer }: WallHandle): number => s + (wall.length / 2 - outer.s) / outer.each;

/** The middle of a wall, where an apex is near to it. */
const overMiddle = (s: number, middle: number, reach: number): Guide | null =>
  Math.abs(s - middle) < reach ? { at: middle, reason: 'over the middle of the wall' } : null;

/** The figure of a wall's length or height, to be typed. */
function wallFigure(
  desk: SheetDesk,
  handle: WallHandle,
  {
    place: { s, t },
    value,
    draw,
  }: { place: { s: number; t: number }; value: number; draw: (s: number, t: number) => Outcome },
): EditedFigure {
  const { lines, view } = desk.now;
  const length = handle.along && !handle.up;
  return {
    what: length ? 'length' : 'height',
    label: length ? 'Length of the wall' : 'Height',
    value,
    x: xOf(view, s),
    y: yOf(view, t),
    drawn: true,
    choices: [
      {
        label: '',
        apply: (typed) => draw(isAtLeft(handle) ? lines.length - typed : length ? typed : s, length ? t : typed),
      },
    ],
  };
}
