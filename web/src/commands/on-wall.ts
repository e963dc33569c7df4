/** What can be done on the wall, or other element, whose sheet is shown. */
import { faceLabel, facesOf, isUpright, type Element, type ProjectDocument } from '@yard-arch/document';
import { addAxis, addDatum, duplicateElement, setLocked } from '@yard-arch/edit';
import { choose, chooseElement, chooseOpenings, hide, nextFace, tape, turnOver, turnTo } from '../state/choice.ts';
import { paste } from '../state/clipboard.ts';
import { faceNow, useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import type { Command, Now } from './command.ts';

type Own = Omit<Command, 'group'>;

export function onWall({ document, element }: Now): Command[] {
  if (!element) return [];
  return [...itsOpenings(document, element), ...itsSheet(document, element), ...itself(document, element)].map(
    (command) => ({ ...command, group: 'On this wall' }),
  );
}

function itsOpenings(document: ProjectDocument, element: Element): Own[] {
  const { clip } = useEditor.getState();
  const here = Object.values(document.openings).filter((opening) => opening.element === element.id);
  const pasted =
    clip?.kind === 'wall'
      ? `Paste the setting-out of ${document.elements[clip.id]?.name ?? 'the wall'}`
      : 'Paste the copied openings';
  return [
    ...(here.length > 0
      ? [
          {
            name: `Choose all openings of ${element.name}`,
            key: 'all' as const,
            run: () => chooseOpenings(here.map(({ id }) => id)),
          },
        ]
      : []),
    ...(clip ? [{ name: pasted, key: 'paste' as const, run: () => void paste(document, element) }] : []),
    ...(here.length > 0
      ? [
          {
            name: `Copy the setting-out of ${element.name}`,
            run: () => useEditor.setState({ clip: { kind: 'wall', id: element.id } }),
          },
        ]
      : []),
  ];
}

function itsSheet(document: ProjectDocument, element: Element): Own[] {
  const other = nextFace(element, faceNow(element.id));
  const added = (kind: 'datum' | 'axis', { changeSet, id }: ReturnType<typeof addDatum>): void => {
    if (commit(changeSet)) choose({ kind, id });
  };
  return [
    ...(facesOf(element).length > 1
      ? [
          {
            name: `Turn the sheet over, to the ${faceLabel(element, other)}`,
            key: 'turnOver' as const,
            run: () => {
              turnTo('sheet');
              turnOver(element.id, other);
            },
          },
        ]
      : []),
    ...(isUpright(element) ? [{ name: 'Add a datum', run: () => added('datum', addDatum(document, element)) }] : []),
    { name: 'Add an axis', run: () => added('axis', addAxis(document, element, faceNow(element.id))) },
    {
      name: useEditor.getState().taping ? 'Put the tape away' : 'Measure with the tape',
      key: 'tape',
      run: () => {
        const { taping, board } = useEditor.getState();
        if (board !== 'sheet') turnTo('sheet');
        tape(!taping);
      },
    },
  ];
}

function itself(document: ProjectDocument, element: Element): Own[] {
  const { hidden } = useEditor.getState();
  return [
    {
      name: `Duplicate ${element.name} with everything on it`,
      run: () => {
        const made = duplicateElement(document, element);
        if (commit(made.changeSet)) chooseElement(made.id);
      },
    },
    {
      name: hidden.has(element.id) ? `Show ${element.name}` : `Hide ${element.name}`,
      run: () => {
        const next = new Set(hidden);
        if (!next.delete(element.id)) next.add(element.id);
        hide(next);
      },
    },
    {
      name: `Show ${element.name} alone`,
      run: () => hide(new Set(Object.keys(document.elements).filter((other) => other !== element.id))),
    },
    {
      name: element.locked ? `Unlock ${element.name}` : `Lock ${element.name}`,
      run: () => commit(setLocked([element], !element.locked)),
    },
  ];
}
