/** The list of keys. */
import { CloseButton, Dialog, Portal } from '@chakra-ui/react';
import { useEditor } from '../state/state.ts';
import { keyList } from '../common/keys.ts';

export function KeyList() {
  const open = useEditor((state) => state.dialog === 'keys');
  return (
    <Dialog.Root
      open={open}
      onOpenChange={({ open: next }) => !next && useEditor.setState({ dialog: null })}
      placement="center"
      size="lg"
      lazyMount
      unmountOnExit
    >
      <Portal>
        <Dialog.Backdrop bg="veil" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" borderRadius="lg" borderWidth="1px" maxW="900px">
            <Dialog.Header pb="1">
              <Dialog.Title fontFamily="heading" fontSize="19px">
                Keys
              </Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <div className="key-list">
                {keyList.map(({ title, keys }) => (
                  <section key={title}>
                    <h3>{title}</h3>
                    <dl>
                      {keys.map(([key, does]) => (
                        <div key={key}>
                          <dt>
                            <kbd>{key}</kbd>
                          </dt>
                          <dd>{does}</dd>
                        </div>
                      ))}
                    </dl>
                  </section>
                ))}
              </div>
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
