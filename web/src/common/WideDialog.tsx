/** A dialog in which something is chosen or made; what it is done with is within. */
import { CloseButton, Dialog as Chakra, Portal } from '@chakra-ui/react';
import type { KeyboardEvent, ReactNode } from 'react';

interface WideDialogProps {
  open: boolean;
  title: string;
  /** Pixels at most. */
  width: number;
  /** Whether only its own button closes it: there is work in it that would be lost. */
  held?: boolean;
  onKeyDown?: (event: KeyboardEvent) => void;
  onClose: () => void;
  children: ReactNode;
}

export function WideDialog({ open, title, width, held = false, onKeyDown, onClose, children }: WideDialogProps) {
  return (
    <Chakra.Root
      open={open}
      onOpenChange={({ open: next }) => !next && onClose()}
      closeOnEscape={!held}
      closeOnInteractOutside={!held}
      placement="center"
      lazyMount
    >
      <Portal>
        <Chakra.Backdrop bg="veil" />
        <Chakra.Positioner>
          <Chakra.Content
            bg="paper"
            borderRadius="lg"
            borderWidth="1px"
            width={`min(${width}px, 94vw)`}
            maxWidth={`${width}px`}
            onKeyDown={onKeyDown}
          >
            <Chakra.Header pb="2">
              <Chakra.Title fontFamily="heading" fontSize="19px">
                {title}
              </Chakra.Title>
            </Chakra.Header>
            <Chakra.Body>{children}</Chakra.Body>
            <Chakra.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Chakra.CloseTrigger>
          </Chakra.Content>
        </Chakra.Positioner>
      </Portal>
    </Chakra.Root>
  );
}
