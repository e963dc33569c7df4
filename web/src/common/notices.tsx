/** Short notices at the foot of the page: what was done, what failed, and a way back where there is one. */
import { createToaster, Portal, Toast, Toaster } from '@chakra-ui/react';

const toaster = createToaster({ placement: 'bottom', pauseOnPageIdle: true, max: 3 });

export interface NoticeAction {
  label: string;
  onClick: () => void;
}

/** Says that something was done. */
export function notify(title: string, action?: NoticeAction): void {
  toaster.create({
    title,
    type: 'info',
    duration: action ? 10_000 : 4000,
    ...(action ? { action } : {}),
    closable: true,
  });
}

/** Says that something failed, and why. It stays until it is closed. */
export function complain(title: string, description: string, action?: NoticeAction): void {
  toaster.create({
    title,
    description,
    type: 'error',
    duration: 20_000,
    ...(action ? { action } : {}),
    closable: true,
  });
}

/** Says why something that was asked for cannot be, and what would mend that. */
export function refuse(refused: { reason: string; mend: string }): void {
  complain('That cannot be done', refusalOf(refused));
}

/** Reason and mend as sentences. */
export const refusalOf = ({ reason, mend }: { reason: string; mend: string }): string =>
  `${reason.charAt(0).toUpperCase()}${reason.slice(1)}. ${mend}`;

export function Notices() {
  return (
    <Portal>
      <Toaster toaster={toaster}>
        {(toast) => (
          <Toast.Root
            bg={toast.type === 'error' ? 'brickPale' : 'ink'}
            color={toast.type === 'error' ? 'ink' : 'white'}
            borderWidth="1px"
            borderColor={toast.type === 'error' ? 'brick' : 'ink'}
            borderRadius="md"
            width="auto"
            maxW="520px"
            px="4"
            py="2.5"
            boxShadow="card"
          >
            <div>
              <Toast.Title fontWeight="600" fontSize="14px">
                {toast.title}
              </Toast.Title>
              {toast.description && <Toast.Description fontSize="13px">{toast.description}</Toast.Description>}
            </div>
            {toast.action && (
              <Toast.ActionTrigger
                borderWidth="1px"
                borderColor={toast.type === 'error' ? 'brick' : 'whiteAlpha.500'}
                color="inherit"
                fontWeight="600"
                px="3"
                ml="4"
                flexShrink="0"
                whiteSpace="nowrap"
              >
                {toast.action.label}
              </Toast.ActionTrigger>
            )}
            {toast.closable && <Toast.CloseTrigger color="inherit" />}
          </Toast.Root>
        )}
      </Toaster>
    </Portal>
  );
}
