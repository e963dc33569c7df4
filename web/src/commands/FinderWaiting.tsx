/** What stands for the finder while it is fetched: it is typed into blind, so nothing that is typed may be lost. */
import { useEffect } from 'react';
import { useEditor } from '../state/state.ts';

/** What was typed before the finder was there, and whether it was entered. */
const ahead = { typed: '', entered: false };

/** What was typed ahead, once. */
export function typedAhead(): { typed: string; entered: boolean } {
  const { typed, entered } = ahead;
  Object.assign(ahead, { typed: '', entered: false });
  return { typed, entered };
}

export function FinderWaiting() {
  const open = useEditor((state) => state.dialog === 'finder');
  return open ? <Typing /> : null;
}

function Typing() {
  useEffect(() => void typedAhead(), []);
  return (
    <>
      <div className="finder-back" />
      <div className="finder" role="dialog" aria-label="Find anything">
        <input
          // As the finder itself does.
          autoFocus
          placeholder="What to do, or where to go"
          aria-label="Find anything"
          onChange={(event) => void (ahead.typed = event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') ahead.entered = true;
            if (event.key === 'Escape') useEditor.setState({ dialog: null });
          }}
        />
      </div>
    </>
  );
}
