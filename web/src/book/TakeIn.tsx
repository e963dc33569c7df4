/** Taking a pattern in: one of those that ship with the program, from the shelf, or from a file. */
import { parseJson, readPatternFile, type ChangeSet, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { shipped, shippedMaterials, takeIn, takeShipped } from '@yard-arch/edit';
import { Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { WideDialog } from '../common/WideDialog.tsx';
import { complain, notify } from '../common/notices.tsx';
import { choose } from '../state/choice.ts';
import { commit } from '../state/store.ts';
import { keepFiles } from './mesh-files.ts';
import { matches } from '../patterns/matches.ts';
import type { KeptPattern } from '../state/api.ts';
import { useShelf, useTakeFromShelf } from './use-shelf.ts';

interface TakeInProps {
  document: ProjectDocument;
  open: boolean;
  onClose: () => void;
}

export function TakeIn({ document, open, onClose }: TakeInProps) {
  const [from, setFrom] = useState<'shipped' | 'shelf'>('shipped');
  const [text, setText] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const take = ({ changeSet, id }: { changeSet: ChangeSet; id: string }): void => {
    if (!commit(changeSet)) return;
    choose({ kind: 'pattern', id });
    onClose();
  };
  const read = async (chosen: File): Promise<void> => {
    try {
      const value: unknown = parseJson(await chosen.text());
      const file = readPatternFile(value);
      await keepFiles(value);
      take(takeIn(document, file));
    } catch (error) {
      complain(
        'The pattern was not taken in',
        error instanceof SyntaxError ? `${chosen.name} is no pattern file: it is not JSON.` : (error as Error).message,
      );
    }
  };
  return (
    <WideDialog open={open} title="Take a pattern in" width={880} onClose={onClose}>
      <div className="take-in">
        <div className="from" role="tablist" aria-label="From where">
          <button role="tab" aria-selected={from === 'shipped'} onClick={() => setFrom('shipped')}>
            Ready-made
          </button>
          <button role="tab" aria-selected={from === 'shelf'} onClick={() => setFrom('shelf')}>
            The shelf
          </button>
          <button onClick={() => file.current?.click()}>From a file…</button>
          <input
            ref={file}
            type="file"
            hidden
            accept=".json,application/json"
            aria-label="Pattern file"
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              event.target.value = '';
              if (chosen) void read(chosen);
            }}
          />
          <input
            type="search"
            placeholder="Search"
            aria-label="Search what can be taken in"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </div>
        {from === 'shipped' ? (
          <Ready document={document} text={text} onTake={(pattern) => take(takeShipped(document, pattern))} />
        ) : (
          <OnShelf document={document} text={text} onTake={take} />
        )}
      </div>
    </WideDialog>
  );
}

function Picture({ pattern, materials }: { pattern: Pattern; materials: ProjectDocument['materials'] }) {
  return (
    <PatternFigure
      pattern={pattern}
      dimensions={Object.values(pattern.sizes)[0]!.dimensions}
      units="mm"
      width={104}
      height={96}
      most={40}
      materials={materials}
    />
  );
}

interface ReadyProps {
  document: ProjectDocument;
  text: string;
  onTake: (pattern: Pattern) => void;
}

function Ready({ text, onTake }: ReadyProps) {
  const found = shipped.filter((pattern) => matches(pattern, text));
  return (
    <div className="grid" aria-label="Ready-made patterns">
      {found.map((pattern) => (
        <button key={pattern.id} onClick={() => onTake(pattern)}>
          <Picture pattern={pattern} materials={shippedMaterials} />
          <span>{pattern.name}</span>
        </button>
      ))}
      {found.length === 0 && <p>None of that name.</p>}
    </div>
  );
}

interface OnShelfProps {
  document: ProjectDocument;
  text: string;
  onTake: (made: { changeSet: ChangeSet; id: string }) => void;
}

function OnShelf({ document, text, onTake }: OnShelfProps) {
  const { data, error, isPending } = useShelf();
  const remove = useTakeFromShelf();
  if (isPending) return <p>Looking at the shelf…</p>;
  if (error) return <p role="alert">{error.message}</p>;
  const { kept, unread } = data;
  const found = kept.filter(({ file }) => matches(file.pattern, text));
  const takeOff = ({ id, name }: Pick<KeptPattern, 'id' | 'name'>) => (
    <button
      className="off"
      aria-label={`Take ${name} off the shelf`}
      title="Take it off the shelf; projects keep what they took"
      onClick={() => remove.mutate(id, { onSuccess: () => notify(`${name} is no longer on the shelf`) })}
    >
      <Trash2 size={13} />
    </button>
  );
  return (
    <div className="grid" aria-label="Patterns on the shelf">
      {found.map((item) => (
        <div key={item.id} className="item">
          <button onClick={() => onTake(takeIn(document, item.file, item))}>
            <Picture pattern={item.file.pattern} materials={item.file.materials} />
            <span>{item.name}</span>
          </button>
          {takeOff(item)}
        </div>
      ))}
      {unread.map((item) => (
        <div key={item.id} className="item unread">
          <p>
            <b>{item.name}</b> cannot be read: {item.why}
          </p>
          {takeOff(item)}
        </div>
      ))}
      {found.length + unread.length === 0 && (
        <p>
          {kept.length + unread.length === 0
            ? 'Nothing is on the shelf yet. A pattern is put there from its particulars, for all projects.'
            : 'None of that name.'}
        </p>
      )}
    </div>
  );
}
