/** The tape as a line to split along: laid over the sheet, the element is split through its whole depth where it lies. */
import { splitOnSheet, type Keep } from '@yard-arch/edit';
import { Slice } from 'lucide-react';
import { useState } from 'react';
import { KeepAsk } from '../boards/KeepAsk.tsx';
import { xOf, yOf } from '../boards/viewport.ts';
import { refuse } from '../common/notices.tsx';
import { chooseElement, tape as layTape } from '../state/choice.ts';
import { commit } from '../state/store.ts';
import type { SheetState } from './use-sheet.ts';

export function SplitAlongTape({ sheet }: { sheet: SheetState }) {
  const { view, room, over, committed, element, face, desk, focus } = sheet;
  const [asking, ask] = useState(false);
  const { tape } = over;
  if (!tape?.laid || Math.hypot(tape.to.s - tape.from.s, tape.to.t - tape.from.t) < 1e-3) return null;
  const [x, y] = [xOf(view, tape.to.s), yOf(view, tape.to.t)];
  const take = (keep: Keep): void => {
    const outcome = splitOnSheet(committed, element, { face, from: tape.from, to: tape.to }, keep);
    ask(false);
    if ('reason' in outcome) return refuse(outcome);
    if (!commit(outcome.changeSet)) return;
    desk.show({ tape: null });
    layTape(false);
    chooseElement(outcome.id ?? element.id);
    focus();
  };
  if (asking) return <KeepAsk x={x} y={y} width={room.width} take={take} />;
  return (
    <button
      className="split-ask"
      style={{ left: Math.max(8, Math.min(room.width - 150, x + 14)), top: Math.max(44, y + 14) }}
      onClick={() => ask(true)}
    >
      <Slice size={13} /> Split along the tape
    </button>
  );
}
