/** A command: one thing that can be done now, as the finder and the menus offer it. */
import type { Element, Opening, ProjectDocument } from '@yard-arch/document';
import { openingsOf } from '@yard-arch/edit';
import { chosenIds, useEditor } from '../state/state.ts';
import type { KeyId } from '../common/keys.ts';

export interface Command {
  name: string;
  /** Where it stands in the finder. */
  group: 'With what is chosen' | 'On this wall' | 'Project' | 'Go to' | 'Place';
  /** The key that does it. */
  key?: KeyId;
  run: () => void;
}

/** What commands are about: the document and the choice as they are. */
export interface Now {
  document: ProjectDocument;
  element: Element | undefined;
  openings: Opening[];
}

/** @returns null where no project is open. */
export function now(): Now | null {
  const { document, element, chosen } = useEditor.getState();
  return (
    document && {
      document,
      element: element ? document.elements[element] : undefined,
      openings: openingsOf(document, chosenIds(chosen)),
    }
  );
}
