/** The history of this tab's edits, to be stepped through, and the versions of the project, to be gone back to. */
import { Button, Heading } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { api, type Version } from '../state/api.ts';
import { complain, notify } from '../common/notices.tsx';
import { useEditor } from '../state/state.ts';
import { replacedWords } from '../state/replaced-words.ts';
import { goBackTo, putBack, stepTo, undo } from '../state/store.ts';

const when = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

export function HistoryParticulars() {
  const done = useEditor((state) => state.undo);
  const undone = useEditor((state) => state.redo);
  const steps = [
    ...done.map(({ changeSet }) => changeSet.name),
    ...[...undone].reverse().map(({ changeSet }) => changeSet.name),
  ];
  return (
    <section aria-label="History and versions" data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        History
      </Heading>
      <Versions />
      <ReplacedEdits />
      <hr />
      <h3>Edits in this tab, {steps.length}</h3>
      {steps.length === 0 && <p>What you do is listed here, and can be stepped through back and forth.</p>}
      <ol className="history" reversed>
        {steps
          .map((name, i) => ({ name, i }))
          .reverse()
          .map(({ name, i }) => (
            <li key={i} className={i < done.length ? '' : 'undone'}>
              <button
                aria-current={i === done.length - 1}
                onClick={() => stepTo(i + 1)}
                title={i < done.length ? 'Take back all after it' : 'Do again up to it'}
              >
                {name}
              </button>
            </li>
          ))}
        {steps.length > 0 && (
          <li>
            <button aria-current={done.length === 0} onClick={() => stepTo(0)}>
              as it was before
            </button>
          </li>
        )}
      </ol>
    </section>
  );
}

/** What later edits of others replaced of this tab's, with a way back. */
function ReplacedEdits() {
  const replaced = useEditor((state) => state.replaced);
  const document = useEditor((state) => state.document)!;
  if (replaced.length === 0) return null;
  return (
    <>
      <hr />
      <h3>Replaced by others’ later edits</h3>
      <ul className="replaced">
        {[...replaced].reverse().map((one, i) => (
          <li key={i}>
            <span>
              <b>{one.by}</b> {replacedWords(one, document)}
            </span>
            <button className="link" onClick={() => putBack(one)}>
              put mine back
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function Versions() {
  const project = useEditor((state) => state.project)!;
  const saving = useEditor((state) => state.saving);
  const [name, setName] = useState('');
  const queries = useQueryClient();
  const versions = useQuery({ queryKey: ['versions', project], queryFn: () => api.versions(project) });
  const again = (): Promise<void> => queries.invalidateQueries({ queryKey: ['versions', project] });
  const failed = (what: string) => (error: Error) => complain(what, error.message);
  const keep = useMutation({
    mutationFn: () => api.keepVersion(project, name.trim()),
    onSuccess: () => (setName(''), again()),
    onError: failed('The version was not kept'),
  });
  const remove = useMutation({
    mutationFn: (version: Version) => api.removeVersion(project, version.id),
    onSuccess: again,
    onError: failed('The version was not removed'),
  });
  const back = useMutation({
    mutationFn: goBackTo,
    onSuccess: (changed, version) =>
      changed
        ? notify(`The project is as it was at “${version.name}”`, { label: 'Undo', onClick: undo })
        : notify('Nothing has changed since then'),
    onError: failed('The version could not be read'),
  });
  return (
    <>
      <form
        className="keep"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) keep.mutate();
        }}
      >
        <input
          aria-label="Name of the version"
          placeholder="Name a version, e.g. For the client"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
        <Button
          size="xs"
          variant="outline"
          type="submit"
          disabled={!name.trim() || saving !== 'saved'}
          loading={keep.isPending}
          title={saving === 'saved' ? 'Keep the project as it stands' : 'As soon as all edits are saved'}
        >
          Keep
        </Button>
      </form>
      {versions.isError && <p className="why bad">The versions cannot be read. {versions.error.message}</p>}
      {versions.data?.length === 0 && (
        <p>
          Versions that you name, and one before each new sitting, are listed here. Going back to one is an edit that
          can be undone.
        </p>
      )}
      <ul className="versions">
        {versions.data?.map((version) => (
          <li key={version.id}>
            <span>
              <b>{version.name}</b>
              <small>
                {when.format(new Date(version.at))}
                {version.automatic ? ', by itself' : ''}
              </small>
            </span>
            <button className="link" onClick={() => back.mutate(version)}>
              go back to it
            </button>
            <button
              aria-label={`Remove the version ${version.name}`}
              title="Remove it from this list"
              onClick={() => remove.mutate(version)}
            >
              <Trash2 size={13} />
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
