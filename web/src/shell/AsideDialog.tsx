/** The edits that were set aside: what each was to do, why it was not taken, and what can be done with it. */
import { Button, CloseButton, Dialog, Portal, Text } from '@chakra-ui/react';
import { saveFile } from '../common/save-file.ts';
import { useEditor } from '../state/state.ts';
import { dropAside, retryAside } from '../state/store.ts';

const when = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

export function AsideDialog() {
  const open = useEditor((state) => state.dialog === 'aside');
  const aside = useEditor((state) => state.aside);
  const name = useEditor((state) => state.document?.name ?? 'project');
  const close = (): void => useEditor.setState({ dialog: null });
  const keys = aside.map(({ key }) => key);
  const download = (): void =>
    saveFile(
      `${name}, edits set aside.json`,
      'application/json',
      `${JSON.stringify(
        aside.map(({ changeSet, reason, at }) => ({ at, reason, changeSet })),
        null,
        2,
      )}\n`,
    );
  return (
    <Dialog.Root open={open} onOpenChange={({ open: next }) => !next && close()} placement="center" size="md">
      <Portal>
        <Dialog.Backdrop bg="veil" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" borderRadius="lg" borderWidth="1px">
            <Dialog.Header pb="2">
              <Dialog.Title fontFamily="heading" fontSize="19px">
                Edits set aside
              </Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Text color="ink2" mb="3">
                {aside.length === 0
                  ? 'There are none any more.'
                  : 'These could not be taken. The others went on without them; they stay here until you try them again or let them go.'}
              </Text>
              <ul className="aside-list">
                {aside.map(({ key, changeSet, reason, at }) => (
                  <li key={key}>
                    <span>
                      <b>{changeSet.name}</b>
                      <small>{when.format(new Date(at))}</small>
                      <p>{reason}</p>
                    </span>
                    <Button
                      size="xs"
                      variant="outline"
                      onClick={() => retryAside([key])}
                      aria-label={`Try “${changeSet.name}” again`}
                    >
                      Try again
                    </Button>
                    <Button
                      size="xs"
                      variant="outline"
                      onClick={() => dropAside([key])}
                      aria-label={`Let go of “${changeSet.name}”`}
                    >
                      Let go
                    </Button>
                  </li>
                ))}
              </ul>
            </Dialog.Body>
            <Dialog.Footer>
              <Button variant="outline" disabled={aside.length === 0} onClick={download}>
                Export them…
              </Button>
              <Button variant="outline" disabled={aside.length < 2} onClick={() => retryAside(keys)}>
                Try all again
              </Button>
              <Button bg="ink" color="white" onClick={close}>
                Close
              </Button>
            </Dialog.Footer>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
