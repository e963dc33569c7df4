/** Short notices at the foot of the page: what was done, what failed, and a way back where there is one. */
import { createToaster, Portal, Toast, Toaster } from '@chakra-ui/react';

/** The most notices at a time. */
const most = 3;

const toaster = createToaster({ placement: 'bottom', pauseOnPageIdle: true, max: most });

export interface NoticeAction {
  label: string;
  onClick: () => void;
}

interface Notice {
  title: string;
  description?: string;
  type: 'info' | 'error';
  /** How long it is shown, ms. */
  duration: number;
  action?: NoticeAction | undefined;
}

/** Shows a notice. What is said already is not said twice; where there is no more room the oldest gives way, so that none has to wait. */
function show({ action, ...notice }: Notice): void {
  const shown = toaster.getVisibleToasts();
  const same = shown.find(({ title, description }) => title === notice.title && description === notice.description);
  const oldest = !same && shown.length >= most ? shown.at(-1) : undefined;
  if (oldest?.id !== undefined) toaster.dismiss(oldest.id);
  toaster.create({ ...(same?.id ? { id: same.id } : {}), ...notice, ...(action ? { action } : {}), closable: true });
}

/** Says that something was done. */
export function notify(title: string, action?: NoticeAction): void {
  show({ title, type: 'info', duration: action ? 10_000 : 4000, action });
}

/** Says that something failed, and why. It stays longer, or until it is closed. */
export function complain(title: string, description: string, action?: NoticeAction): void {
  show({ title, description, type: 'error', duration: 20_000, action });
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
