/** Placing on the sheet: by a click, by a rectangle that is drawn out, or by figures. And choosing by a window, and measuring. */
import { gripOffset, snapPoint } from '@yard-arch/core';
import { putting, sizeLabel, type ChangeSet } from '@yard-arch/document';
import { placeOpening, sizeForRectangle, wouldBe } from '@yard-arch/edit';
import type { Rectangle } from '../../boards/drawn.ts';
import type { Gesture, Press, Spot, Typing } from '../../boards/gesture.ts';
import { complain, notify } from '../../common/notices.tsx';
import { choose, chooseOpenings } from '../../state/choice.ts';
import { chosenIds, useEditor } from '../../state/state.ts';
import { commit } from '../../state/store.ts';
import { whole, type SheetDesk } from './desk.ts';
import { lengthsOf } from './move.ts';

/** The point of the face at a spot, at a corner or line where one pulls. */
export function pointAt(desk: SheetDesk, spot: Spot): { s: number; t: number; reason: string | null } {
  const { s, t } = desk.on(spot);
  return spot.free ? { s, t, reason: null } : snapPoint({ s, t }, desk.now.shown.boxes, desk.now.lines, desk.reach);
}

/** Draws out a rectangle between two corners. */
function rectangle(
  desk: SheetDesk,
  kind: 'window' | 'draw',
  corner: (spot: Spot) => { s: number; t: number; reason: string | null },
  press: Press,
): { move: (spot: Spot) => void; last: () => Rectangle | null } {
  let last: Rectangle | null = null;
  return {
    last: () => last,
    move: (spot) => {
      const [a, b] = [corner({ ...press, free: spot.free }), corner(spot)];
      last = { s: Math.min(a.s, b.s), t: Math.min(a.t, b.t), width: Math.abs(a.s - b.s), height: Math.abs(a.t - b.t) };
      desk.show({ ghost: null, area: { kind, at: last, reason: b.reason } });
    },
  };
}

/** Chooses what a window touches; a click on the bare face lets go of what was chosen. */
export function choosing(desk: SheetDesk, press: Press): Gesture {
  const { move, last } = rectangle(desk, 'window', (spot) => ({ ...desk.on(spot), reason: null }), press);
  return {
    move,
    drop: () => {
      const at = last();
      if (!at) return;
      const within = desk.now.shown.boxes
        .filter(
          (box) =>
            box.s < at.s + at.width &&
            box.s + box.width > at.s &&
            box.t < at.t + at.height &&
            box.t + box.height > at.t,
        )
        .map(({ id }) => id);
      chooseOpenings([...(press.shift ? chosenIds(useEditor.getState().chosen) : []), ...within]);
    },
    click: () => !press.shift && choose({ kind: 'wall' }),
  };
}

/** The least side of a rectangle that is meant as one, pixels. */
const leastSide = 12;

/** Places what is about to be placed: where it is clicked, or into the rectangle that is drawn out. */
export function placing(desk: SheetDesk, press: Press): Gesture {
  const { move, last } = rectangle(desk, 'draw', (spot) => pointAt(desk, spot), press);
  const click = (): void => {
    const spot = desk.ghostAt(desk.on(press), press.free);
    if (spot) return desk.putDown(spot);
    complain(
      'This size cannot be placed',
      'Its dimensions make no opening. Change the size in the pattern’s particulars.',
    );
  };
  return {
    move,
    click,
    drop: () => {
      const at = last();
      const { scale } = desk.now.view;
      if (at && at.width * scale > leastSide && at.height * scale > leastSide) putInto(desk, at, press.free);
      else click();
    },
  };
}

/** Places an opening in a rectangle that was drawn out: of the size that is nearest, or of a new one. */
function putInto(desk: SheetDesk, at: Rectangle, free: boolean): void {
  const { committed, element, face } = desk.now;
  const { placing: next, grip } = useEditor.getState();
  const pattern = next && committed.patterns[next.pattern];
  if (!pattern) return;
  const near = free ? 0.0005 : Math.max(0.05, desk.reach);
  const found = sizeForRectangle(committed, pattern, next.size, { width: at.width, height: at.height, reach: near });
  if ('reason' in found)
    return complain(
      'No opening of that size',
      `${found.reason.charAt(0).toUpperCase()}${found.reason.slice(1)}. ${found.mend}`,
    );
  const wide = found.made ? { ...pattern, sizes: { ...pattern.sizes, [found.made.id]: found.made } } : pattern;
  const document = found.made ? { ...committed, patterns: { ...committed.patterns, [pattern.id]: wide } } : committed;
  const size = { pattern: pattern.id, size: found.size };
  const fitted = wouldBe(document, element, size, face);
  if (!('outline' in fitted)) return;
  // The corner where the drawing began stays; what the size takes more or less is at the other end.
  const s = whole(at.s + (at.width - fitted.profile.width) / 2);
  const made = placeOpening(document, element, size, { s, t: at.t, face, grip });
  const label = sizeLabel(wide, wide.sizes[found.size]!, committed.units);
  const changeSet: ChangeSet = found.made
    ? {
        name: `${made.changeSet.name}, of a new size ${label}`,
        changes: [putting('patterns', wide), ...made.changeSet.changes],
      }
    : made.changeSet;
  if (!commit(changeSet)) return;
  useEditor.setState({ chosen: { kind: 'openings', ids: [made.id] }, placing: size });
  notify(found.made ? `${pattern.name} has a new size, ${label}` : `Placed in the nearest size, ${label}`);
}

/** Figures typed while something is about to be placed: where its grip comes to stand. */
export function placingTyped(desk: SheetDesk): Typing | null {
  const { candidate } = desk;
  const { ghost } = desk.over;
  if (!candidate || !ghost) return null;
  return {
    label: 'From the start',
    hint: 'or along; up from the base',
    take: (text) => {
      const given = lengthsOf(text, desk.now.committed);
      if (typeof given === 'string') return given;
      const [a, b] = given;
      const [dx, dy] = gripOffset(candidate.box, useEditor.getState().grip);
      desk.putDown({ s: a - dx, t: b === undefined ? ghost.t : b - dy, along: null, up: null });
      return null;
    },
  };
}

/** Lays the tape: from the first press to the second; a third begins anew. */
export function tapeLaid(desk: SheetDesk, press: Press): void {
  const point = pointAt(desk, press);
  const { tape } = desk.over;
  desk.show({
    tape: tape && !tape.laid ? { ...tape, to: point, laid: true } : { from: point, to: point, laid: false },
  });
}
