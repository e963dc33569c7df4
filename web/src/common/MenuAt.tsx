/** A menu that opens at a point of the page, as a context menu does. */
import { Menu } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface Spot {
  x: number;
  y: number;
}

interface MenuAtProps {
  /** Where it is open; null while it is not. */
  at: Spot | null;
  onClose: () => void;
  onSelect: (value: string) => void;
  children: ReactNode;
}

export function MenuAt({ at, onClose, onSelect, children }: MenuAtProps) {
  if (!at) return null;
  return (
    <Menu.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      positioning={{ getAnchorRect: () => ({ ...at, width: 0, height: 0 }), placement: 'bottom-start' }}
      onSelect={({ value }) => {
        onClose();
        onSelect(value);
      }}
    >
      {children}
    </Menu.Root>
  );
}
