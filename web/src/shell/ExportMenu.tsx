/** The menu of exports: files are made by the server, with progress for what takes long and a way to stop it. */
import { Button, Menu, Portal } from '@chakra-ui/react';
import { leftOutWords, writtenFormats, type WrittenFormat } from '@yard-arch/core/formats';
import { useEffect, useRef, useState } from 'react';
import { api, fileUrl, jobEventsUrl, jobResultUrl } from '../state/api.ts';
import { complain } from '../common/notices.tsx';
import { saveFrom } from '../common/save-file.ts';
import { chooseElement } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { stepTaken } from '../state/first-steps.ts';

/** What a file is called while it is made. */
const titles = Object.fromEntries(writtenFormats.map(({ id, label }) => [id, label])) as Record<WrittenFormat, string>;
type Format = WrittenFormat;

interface Making {
  format: Format;
  job: string;
  progress: number;
  stage: string;
}

interface Told {
  state: 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
  progress: number;
  stage: string;
  problem: { title: string; detail: string } | null;
  /** Elements that are not in the file, since they could not be made. */
  leftOut: readonly { element: string; name: string; reason: string }[];
}

export function ExportMenu({ project }: { project: string }) {
  const saving = useEditor((state) => state.saving);
  const ready = saving === 'saved' || saving === 'saving';
  const { making, begin, cancel } = useExport(project);
  if (making)
    return (
      <span className="making" role="status" data-testid="making">
        <progress max={1} value={making.progress} aria-label={`${titles[making.format]}: ${making.stage}`} />
        <span title={making.stage}>
          {titles[making.format]}, {making.stage}…
        </span>
        <button className="link" onClick={cancel}>
          cancel
        </button>
      </span>
    );
  return (
    <Menu.Root onSelect={({ value }) => (value === 'file' ? saveFrom(fileUrl(project)) : void begin(value as Format))}>
      <Menu.Trigger asChild>
        <Button
          size="xs"
          bg="ink"
          color="white"
          disabled={!ready}
          title={ready ? 'Export' : 'Export waits until the edits are saved'}
        >
          Export
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper">
            {writtenFormats.map(({ id, about }) => (
              <Menu.Item key={id} value={id}>
                {about}
              </Menu.Item>
            ))}
            <Menu.Item value="file">Project file (JSON)</Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}

/** Says what is not in a file, with a way to the first of it. */
function tellLeftOut(title: string, leftOut: Told['leftOut']): void {
  const [first] = leftOut;
  const count = leftOut.length === 1 ? 'an element' : `${leftOut.length} elements`;
  complain(`The ${title} was made without ${count}`, `What could not be made is not in it: ${leftOutWords(leftOut)}`, {
    label: 'Show it',
    onClick: () => chooseElement(first!.element),
  });
}

/** One export at a time: begun, followed, and its file saved when it is made. */
function useExport(project: string) {
  const [making, setMaking] = useState<Making | null>(null);
  const line = useRef<EventSource | null>(null);
  useEffect(() => () => line.current?.close(), []);
  const end = (): void => {
    line.current?.close();
    setMaking(null);
  };
  const failed = (format: Format, detail: string): void => {
    end();
    complain(`The ${titles[format]} was not made`, detail);
  };
  const begin = async (format: Format): Promise<void> => {
    setMaking({ format, job: '', progress: 0, stage: 'waiting' });
    try {
      const { id } = await api.begin(project, format);
      line.current = new EventSource(jobEventsUrl(id));
      line.current.addEventListener('job', ({ data }) => {
        const { state, progress, stage, problem, leftOut } = JSON.parse(data as string) as Told;
        if (state === 'failed')
          failed(format, problem ? `${problem.title}. ${problem.detail}` : 'It ended without a word. Try it again.');
        else if (state === 'waiting' || state === 'working')
          setMaking({ format, job: id, progress, stage: stage || 'working' });
        else {
          end();
          if (state !== 'done') return;
          saveFrom(jobResultUrl(id));
          if (leftOut.length > 0) tellLeftOut(titles[format], leftOut);
          stepTaken();
        }
      });
    } catch (error) {
      failed(format, (error as Error).message);
    }
  };
  const cancel = (): void => {
    if (making?.job) void api.cancel(making.job).catch(() => {});
    end();
  };
  return { making, begin, cancel };
}
