/** A wall as a template: its setting-out copied on to others, or the wall itself a second time. */
import type { Element, ProjectDocument } from '@yard-arch/document';
import { duplicateElement } from '@yard-arch/edit';
import { notify } from '../common/notices.tsx';
import { chooseElement, chooseOpenings } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { paste } from '../state/clipboard.ts';

export function SettingOutButtons({ document, element }: { document: ProjectDocument; element: Element }) {
  const clip = useEditor((state) => state.clip);
  const from = clip?.kind === 'wall' ? document.elements[clip.id] : undefined;
  const own = Object.values(document.openings).filter((opening) => opening.element === element.id);
  return (
    <div className="buttons">
      {own.length > 0 && (
        <button
          onClick={() => chooseOpenings(own.map(({ id }) => id))}
          title="Choose all openings of this wall (Ctrl A on the sheet)"
        >
          choose all
        </button>
      )}
      {own.length > 0 && (
        <button
          onClick={() => {
            useEditor.setState({ clip: { kind: 'wall', id: element.id } });
            notify(`The setting-out of ${element.name} can be pasted: choose another wall`);
          }}
        >
          copy its setting-out
        </button>
      )}
      {from && from.id !== element.id && (
        <button
          onClick={() => paste(document, element)}
          title="Openings, axes and its own datums, with the intent that they have there"
        >
          paste the setting-out of {from.name}
        </button>
      )}
      <button
        onClick={() => {
          const made = duplicateElement(document, element);
          if (commit(made.changeSet)) chooseElement(made.id);
        }}
      >
        duplicate with everything on it
      </button>
    </div>
  );
}
