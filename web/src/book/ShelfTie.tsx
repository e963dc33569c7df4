/** How a pattern stands to the shelf: put there, as it is there, or behind it; and as a file of its own. */
import type { Pattern, ProjectDocument } from '@yard-arch/document';
import { cutTie, fileOf, followShelf, shelfDifference, tie } from '@yard-arch/edit';
import { saveFile } from '../common/save-file.ts';
import { complain, notify } from '../common/notices.tsx';
import { commit } from '../state/store.ts';
import { withFiles } from './mesh-files.ts';
import { usePutOnShelf, useShelf } from './use-shelf.ts';

export function ShelfTie({ document, pattern }: { document: ProjectDocument; pattern: Pattern }) {
  const { data } = useShelf();
  const put = usePutOnShelf((kept) => {
    if (commit(tie(pattern, kept))) notify(`${pattern.name} is on the shelf for all projects`);
  });
  const { shelf } = pattern;
  const item = shelf && data?.kept.find(({ id }) => id === shelf.item);
  const unread = shelf && data?.unread.find(({ id }) => id === shelf.item);
  const behind = item && shelf && item.revision > shelf.revision;
  const different = item ? shelfDifference(document, pattern, item) : [];
  const file = () => fileOf(document, pattern);
  return (
    <div className="shelf-tie" aria-label="Shelf">
      {behind && (
        <div className="behind" role="status">
          <b>The shelf has a newer one.</b>
          {different.length > 0 ? (
            <ul>
              {different.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          ) : (
            <p>It differs in nothing that this project has.</p>
          )}
          <button onClick={() => commit(followShelf(document, pattern, item))}>update from the shelf</button>
        </div>
      )}
      {shelf && data && !item && (
        <p className="behind">
          {unread
            ? `What is on the shelf cannot be read: ${unread.why} This project keeps its own.`
            : 'It is no longer on the shelf; this project keeps it.'}
        </p>
      )}
      <div className="buttons">
        {!item && (
          <button disabled={put.isPending} onClick={() => put.mutate({ file: file() })}>
            put on the shelf
          </button>
        )}
        {item && !behind && different.length > 0 && (
          <button disabled={put.isPending} onClick={() => put.mutate({ file: file(), item: item.id })}>
            put it there as it is here
          </button>
        )}
        {item && !behind && different.length === 0 && <span className="state idle">as on the shelf</span>}
        {shelf && <button onClick={() => commit(cutTie(pattern))}>cut the tie</button>}
        <button
          onClick={() =>
            void withFiles(file()).then(
              (whole) => saveFile(`${pattern.name}.pattern.json`, 'application/json', JSON.stringify(whole, null, 1)),
              (error: Error) => complain('The pattern was not saved', error.message),
            )
          }
        >
          save as a file
        </button>
      </div>
    </div>
  );
}
