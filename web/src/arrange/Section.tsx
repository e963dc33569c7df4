/** A part of the particulars that opens to what can be done with what is chosen; which one was open is remembered. */
import { useState, type ReactNode } from 'react';

const opened = new Set<string>();

export function Section({ title, children }: { title: string; children: ReactNode }) {
  const [open, setOpen] = useState(opened.has(title));
  return (
    <details
      className="reveal"
      open={open}
      onToggle={(event) => {
        const now = event.currentTarget.open;
        setOpen(now);
        if (now) opened.add(title);
        else opened.delete(title);
      }}
    >
      <summary>{title}</summary>
      {open && children}
    </details>
  );
}

/** Why something cannot be done, and what would mend it. */
export function Why({ reason, mend }: { reason: string; mend: string }) {
  return (
    <p className="why bad" role="alert">
      {reason.charAt(0).toUpperCase() + reason.slice(1)}. {mend}
    </p>
  );
}
