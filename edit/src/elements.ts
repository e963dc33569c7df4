/** Elements: made, changed, brought in and removed. */
import { elementsOfSheets, type FoundSheets } from '@yard-arch/core';
import {
  kinds,
  newId,
  putting,
  removing,
  type Change,
  type ChangeSet,
  type Element,
  type KindName,
  type ProjectDocument,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { byItself, standingOn } from './lines.ts';
import { wallsUnder } from './roofs.ts';

export function changeElement<T extends Element>(element: T, over: Partial<T>, what: string): ChangeSet {
  return edit(`${what} ${element.name}`, putting('elements', { ...element, ...over } as Element));
}

/** A new element of its kind's usual dimensions, beside those that there are. */
export function addElement(document: ProjectDocument, kind: KindName): { changeSet: ChangeSet; id: string } {
  const { title, apart, fresh } = kinds[kind];
  const id = newId(kind.charAt(0));
  const all = Object.values(document.elements);
  const changes: Change[] = [];
  let material = all.at(-1)?.layers[0]?.material ?? Object.keys(document.materials)[0];
  if (!material) {
    material = 'brick';
    changes.push(
      putting('materials', {
        id: material,
        name: 'Brick',
        colour: '#b97a5c',
        roughness: 0.9,
        texture: 'stretcher bond',
      }),
    );
  }
  const names = new Set(all.map((element) => element.name));
  let n = all.length + 1;
  while (names.has(`${title} ${n}`)) n++;
  const lowest = all.reduce((y, element) => Math.min(y, element.start.y), 0);
  const y = all.length > 0 ? lowest - apart : 0;
  const element = fresh({ id, name: `${title} ${n}`, start: { x: 0, y, z: 0 }, turn: 0 }, material);
  return { id, changeSet: edit(`add ${element.name}`, ...changes, putting('elements', element)) };
}

/** Elements made of single sheets from outside, each given its thickness in one material; named after the file where no name is taken. */
export function bringSheets(
  document: ProjectDocument,
  sheets: FoundSheets['sheets'],
  { name: called, thickness, material }: { name: string; thickness: number; material: string },
): { changeSet: ChangeSet; ids: string[] } {
  const taken = new Set(Object.values(document.elements).map(({ name }) => name));
  const names = sheets.map((_, i) => {
    let n = i + 1;
    const tried = (): string => (sheets.length === 1 && n === 1 ? called : `${called} ${n}`);
    while (taken.has(tried())) n++;
    taken.add(tried());
    return { id: newId('p'), name: tried() };
  });
  const elements = elementsOfSheets(sheets, [{ thickness, material }], names);
  return {
    ids: names.map(({ id }) => id),
    changeSet: edit(
      elements.length === 1 ? `bring in ${elements[0]!.name}` : `bring in ${elements.length} sheets`,
      ...elements.map((element) => putting('elements', element)),
    ),
  };
}

/** Removes an element with all that is on it, in one step. Openings elsewhere that also cut it no longer do. */
export function removeElement(document: ProjectDocument, wall: Element): ChangeSet {
  const openings = Object.values(document.openings).filter((opening) => opening.element === wall.id);
  const axes = Object.values(document.axes).filter((axis) => axis.element === wall.id);
  const datums = Object.values(document.datums).filter((datum) => datum.element === wall.id);
  const further = Object.values(document.openings)
    .filter((opening) => opening.element !== wall.id && opening.further?.includes(wall.id))
    .map((opening) => putting('openings', { ...opening, further: opening.further!.filter((id) => id !== wall.id) }));
  const gone = datums.map(({ id }) => id);
  const under = wallsUnder(document, wall).map((one): Element => ({ ...one, top: { kind: 'level' as const } }));
  const loose = new Map(
    [...under, ...standingOn(document, gone).filter(({ id }) => id !== wall.id)].map((one) => [one.id, one]),
  );
  for (const one of under) loose.set(one.id, one);
  return edit(
    `remove ${wall.name}`,
    ...further,
    ...[...loose.values()].map((one) =>
      putting('elements', one.stands !== undefined && gone.includes(one.stands) ? byItself(one) : one),
    ),
    ...openings.map((opening) => removing('openings', opening.id)),
    ...axes.map((axis) => removing('axes', axis.id)),
    ...datums.map((datum) => removing('datums', datum.id)),
    removing('elements', wall.id),
  );
}
