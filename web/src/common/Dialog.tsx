/** A dialog with one question and its answers. */
import { Button, CloseButton, Dialog as Chakra, Portal, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface DialogProps {
  open: boolean;
  title: string;
  /** Why what was asked for failed, if it did. */
  error?: string | null;
  confirm: string;
  busy?: boolean;
  onConfirm: () => void;
  onClose: () => void;
  children?: ReactNode;
}

export function Dialog({ open, title, error, confirm, busy, onConfirm, onClose, children }: DialogProps) {
  return (
    <Chakra.Root open={open} onOpenChange={({ open: next }) => !next && onClose()} placement="center" size="sm">
      <Portal>
        <Chakra.Backdrop bg="veil" />
        <Chakra.Positioner>
          <Chakra.Content bg="paper" borderRadius="lg" borderWidth="1px">
            <form
              onSubmit={(event) => {
                event.preventDefault();
                onConfirm();
              }}
            >
              <Chakra.Header pb="2">
                <Chakra.Title fontFamily="heading" fontSize="19px">
                  {title}
                </Chakra.Title>
              </Chakra.Header>
              <Chakra.Body>
                {children}
                {error && (
                  <Text role="alert" mt="3" color="brick" fontWeight="500">
                    {error}
                  </Text>
                )}
              </Chakra.Body>
              <Chakra.Footer>
                <Button variant="outline" onClick={onClose} type="button">
                  Cancel
                </Button>
                <Button bg="ink" color="white" type="submit" loading={busy ?? false}>
                  {confirm}
                </Button>
              </Chakra.Footer>
              <Chakra.CloseTrigger asChild>
                <CloseButton size="sm" aria-label="Close" />
              </Chakra.CloseTrigger>
            </form>
          </Chakra.Content>
        </Chakra.Positioner>
      </Portal>
    </Chakra.Root>
  );
}
