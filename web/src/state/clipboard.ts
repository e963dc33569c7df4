/** Copying on by as much as the last time, and pasting what was copied. */
import type { Element, Opening, ProjectDocument } from '@yard-arch/document';
import { copyBy, copyTo, openingsOf, pasteSettingOut } from '@yard-arch/edit';
import { complain } from '../common/notices.tsx';
import { chooseOpenings } from './choice.ts';
import { useEditor } from './state.ts';
import { commit } from './store.ts';

/** How far a first copy goes, metres along. */
const firstCopy = { ds: 2, dt: 0 };

/** Copies openings on by as much as the last copy went, or where there was none a little way along. */
export function copyOn(document: ProjectDocument, openings: readonly Opening[]): void {
  const by = useEditor.getState().lastCopy ?? firstCopy;
  const made = copyBy(document, openings, { ds: by.ds, dt: by.dt });
  if (!commit(made.changeSet)) return;
  useEditor.setState({ lastCopy: by });
  chooseOpenings(made.ids);
}

/** Pastes what was copied on to an element. */
export function paste(document: ProjectDocument, element: Element): boolean {
  const { clip } = useEditor.getState();
  if (!clip) return false;
  if (clip.kind === 'wall') {
    const from = document.elements[clip.id];
    if (!from || from.id === element.id) return false;
    const made = pasteSettingOut(document, from, element);
    if (commit(made.changeSet) && made.ids.length > 0) chooseOpenings(made.ids);
    return true;
  }
  const openings = openingsOf(document, clip.ids);
  if (openings.length === 0) return false;
  if (openings[0]!.element === element.id) {
    complain(
      'They are on this wall already',
      'Choose another wall to paste them there. On this one, drag them with Ctrl held down, or copy them by figures.',
    );
    return true;
  }
  const made = copyTo(document, openings, { elements: [element.id], datums: new Map() });
  if (commit(made.changeSet)) chooseOpenings(made.ids);
  return true;
}
