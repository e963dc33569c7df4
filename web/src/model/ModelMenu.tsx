/** The context menu of the model. The right button also pans there, so it opens when that is let go where it went down, or by the keyboard. */
import { useRef, useState, type ReactNode } from 'react';
import { MenuAt, type Spot } from '../common/MenuAt.tsx';
import { useEditor } from '../state/state.ts';
import { Offered, offered } from '../commands/BoardMenu.tsx';
import type { Command } from '../commands/command.ts';

export function ModelMenu({ children }: { children: ReactNode }) {
  const [at, setAt] = useState<Spot | null>(null);
  const [commands, setCommands] = useState<readonly Command[]>([]);
  const down = useRef<Spot | null>(null);
  const open = (x: number, y: number): void => {
    setCommands(offered(useEditor.getState().chosen.kind === 'openings'));
    setAt({ x, y });
  };
  return (
    <>
      <div
        style={{ position: 'absolute', inset: 0 }}
        onPointerDownCapture={(event) => {
          down.current = event.button === 2 ? { x: event.clientX, y: event.clientY } : null;
        }}
        onPointerUp={({ button, clientX, clientY }) => {
          // By now what is under the pointer has been chosen.
          if (button === 2 && down.current && Math.hypot(clientX - down.current.x, clientY - down.current.y) <= 4)
            open(clientX, clientY);
        }}
        onContextMenu={(event) => {
          event.preventDefault();
          if (event.button === 2) return;
          const box = event.currentTarget.getBoundingClientRect();
          open(box.x + box.width / 2, box.y + box.height / 2);
        }}
      >
        {children}
      </div>
      <MenuAt at={at} onClose={() => setAt(null)} onSelect={(value) => commands[Number(value)]?.run()}>
        <Offered commands={commands} />
      </MenuAt>
    </>
  );
}
