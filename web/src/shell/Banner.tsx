/** What stands across the page when saving is in trouble: why, and what can be done. */
import { useEditor } from '../state/state.ts';
import { bringBack, choosePutBack } from '../state/store.ts';

export function Banner({ project }: { project: string }) {
  const saving = useEditor((state) => state.saving);
  const trouble = useEditor((state) => state.trouble);
  const count = useEditor((state) => state.pendingCount);
  if (saving === 'kept here')
    return (
      <div className="trouble" role="alert">
        {trouble} Your edits are kept in this browser and sent as soon as that is possible.
      </div>
    );
  if (saving === 'deleted')
    return (
      <div className="trouble" role="alert">
        <span>
          This project was deleted.{' '}
          {count > 0
            ? `${count === 1 ? 'An edit that is' : `${count} edits that are`} not saved yet stay${count === 1 ? 's' : ''} in this browser until it is back.`
            : 'Edits made now are kept in this browser until it is back.'}
        </span>
        <button onClick={() => void bringBack(project)}>Bring it back</button>
      </div>
    );
  if (saving === 'put back')
    return (
      <div className="trouble" role="alert">
        <span>
          The server’s data was put back to an earlier state, and what this page shows is not what the server holds.
          Nothing is sent until you choose which of the two is to stand.
        </span>
        <button
          onClick={() => void choosePutBack('ours')}
          title="Puts what this page shows on top of what the server holds, as one edit that can be undone"
        >
          Keep what I see
        </button>
        <button
          onClick={() => void choosePutBack('theirs')}
          title="Shows what the server holds; edits that were not saved are set aside"
        >
          Take the server’s
        </button>
      </div>
    );
  if (saving === 'outdated')
    return (
      <div className="trouble" role="alert">
        <span>
          Yard Arch was renewed on the server, and this page is too old for what it writes now.{' '}
          {count > 0
            ? 'Edits that are not saved yet stay in this browser and are sent when the page has been loaded anew.'
            : ''}
        </span>
        <button onClick={() => location.reload()}>Load the page anew</button>
      </div>
    );
  return null;
}
