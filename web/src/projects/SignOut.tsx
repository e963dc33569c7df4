/** The way out, for those who have signed in: of this browser, or of all. */
import { Button, Menu, Portal } from '@chakra-ui/react';
import { LogOut, MonitorX } from 'lucide-react';
import { useRef } from 'react';

/** Forms and not requests, so that the page is left for the one that asks for the passphrase. */
export function SignOut() {
  const here = useRef<HTMLFormElement>(null);
  const everywhere = useRef<HTMLFormElement>(null);
  return (
    <>
      <form ref={here} method="post" action="/sign-out" hidden />
      <form ref={everywhere} method="post" action="/sign-out?everywhere=yes" hidden />
      <Menu.Root
        positioning={{ placement: 'bottom-end' }}
        onSelect={({ value }) => (value === 'here' ? here : everywhere).current?.requestSubmit()}
      >
        <Menu.Trigger asChild>
          <Button variant="ghost" size="sm">
            <LogOut size={16} /> Sign out
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper" minW="220px">
              <Menu.Item value="here">
                <LogOut size={16} /> In this browser
              </Menu.Item>
              <Menu.Item value="everywhere" color="brick">
                <MonitorX size={16} /> Everywhere, for all who are signed in
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </>
  );
}
