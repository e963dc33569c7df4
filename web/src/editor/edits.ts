/** Edits as change sets, each named as its undo entry reads. */
import { alongTo, datumsOn, elementsOfSheets, gripOffset, isImpossible, profileOf, profileOfOpening, upTo, type FoundSheets } from '@yard-arch/core';
import {
  firstChoice,
  firstDimensions,
  newId,
  profileShapes,
  putting,
  removing,
  sizeLabel,
  type Along,
  type Change,
  type ChangeSet,
  type Dimensions,
  type Element,
  type Grip,
  type Material,
  type Opening,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Size,
  type Up,
} from '@yard-arch/document';
import { edit } from './edit.ts';

/** Gives out marks that no other opening has: the pattern's initial and the next number. */
export function marks(document: ProjectDocument): (pattern: Pattern) => string {
  const taken = new Set(Object.values(document.openings).map((opening) => opening.mark));
  let n = taken.size;
  return (pattern) => {
    const initial = (/[\p{L}]/u.exec(pattern.name)?.[0] ?? 'O').toUpperCase();
    let mark: string;
    do mark = `${initial}-${String(++n).padStart(2, '0')}`;
    while (taken.has(mark));
    taken.add(mark);
    return mark;
  };
}

/** Places an opening with its lower left corner at (s, t), held by a grip. Where that is on an axis or a datum, it is held to them. */
export function placeOpening(
  document: ProjectDocument,
  element: Element,
  placing: { pattern: string; size: string },
  s: number,
  t: number,
  grip: Grip = { across: 'centre', level: 'sill' },
): { changeSet: ChangeSet; id: string } {
  const pattern = document.patterns[placing.pattern]!;
  const id = newId('o');
  const profile = profileOfOpening(document, placing);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  const axis = Object.values(document.axes).find((a) => a.element === element.id && Math.abs(a.along - (s + dx)) < 1e-6);
  const datum = datumsOn(document, element).find((d) => Math.abs(d.level - element.start.z - (t + dy)) < 1e-6);
  const along: Along = axis ? { from: 'axis', axis: axis.id, distance: 0 } : alongTo(document, element, { from: 'start', distance: 0 }, s + dx);
  const up: Up = datum ? { from: 'datum', datum: datum.id, distance: 0 } : upTo(document, element, { from: 'base', distance: 0 }, t + dy);
  const opening: Opening = { id, mark: marks(document)(pattern), element: element.id, ...placing, along, up, grip, blockedUp: false };
  return { id, changeSet: edit(`place ${opening.mark}`, putting('openings', opening)) };
}

export function changeOpening(opening: Opening, over: Partial<Opening>, what: string): ChangeSet {
  return edit(`${what} ${opening.mark}`, putting('openings', { ...opening, ...over }));
}

/** The same opening at the same place, placed from somewhere else or by another grip. */
export function replaceIntent(document: ProjectDocument, opening: Opening, over: { along?: Along; up?: Up; grip?: Grip }, at: { s: number; t: number }): ChangeSet {
  const element = document.elements[opening.element]!;
  const grip = over.grip ?? opening.grip;
  const profile = profileOfOpening(document, opening);
  const [dx, dy] = profile ? gripOffset(profile, grip) : [0, 0];
  return edit(
    `place ${opening.mark} differently`,
    putting('openings', {
      ...opening,
      grip,
      along: alongTo(document, element, over.along ?? opening.along, at.s + dx),
      up: upTo(document, element, over.up ?? opening.up, at.t + dy),
    }),
  );
}

export function changeElement<T extends Element>(element: T, over: Partial<T>, what: string): ChangeSet {
  return edit(`${what} ${element.name}`, putting('elements', { ...element, ...over } as Element));
}

const kindNames = { wall: 'Wall', panel: 'Panel', slab: 'Slab' } as const;

/** A new element of a thickness usual for brick (a slab: for concrete), beside those that there are. */
export function addElement(document: ProjectDocument, kind: Element['kind']): { changeSet: ChangeSet; id: string } {
  const id = newId(kind.charAt(0));
  const all = Object.values(document.elements);
  const changes: Change[] = [];
  let material = all.at(-1)?.layers[0]?.material ?? Object.keys(document.materials)[0];
  if (!material) {
    material = 'brick';
    changes.push(putting('materials', { id: material, name: 'Brick', colour: '#b97a5c', roughness: 0.9, texture: 'stretcher bond' }));
  }
  const names = new Set(all.map((element) => element.name));
  let n = all.length + 1;
  while (names.has(`${kindNames[kind]} ${n}`)) n++;
  const lowest = all.reduce((y, element) => Math.min(y, element.start.y), 0);
  const y = all.length > 0 ? lowest - (kind === 'slab' ? 8 : 3) : 0;
  const common = { id, name: `${kindNames[kind]} ${n}`, start: { x: 0, y, z: 0 }, turn: 0 };
  const rectangle = (width: number, height: number) => [{ x: 0, y: 0 }, { x: width, y: 0 }, { x: width, y: height }, { x: 0, y: height }];
  const element: Element =
    kind === 'wall'
      ? { ...common, kind, length: 8, height: 3.5, top: { kind: 'level' }, layers: [{ thickness: 0.4, material }] }
      : kind === 'panel'
        ? { ...common, kind, tilt: 90, outline: rectangle(4, 3), layers: [{ thickness: 0.2, material }] }
        : { ...common, kind, outline: rectangle(6, 4), layers: [{ thickness: 0.25, material }] };
  return { id, changeSet: edit(`add ${element.name}`, ...changes, putting('elements', element)) };
}

/** Elements made of single sheets from outside, each given its thickness in one material; named after the file where no name is taken. */
export function bringSheets(document: ProjectDocument, sheets: FoundSheets['sheets'], called: string, thickness: number, material: string): { changeSet: ChangeSet; ids: string[] } {
  const taken = new Set(Object.values(document.elements).map(({ name }) => name));
  const names = sheets.map((_, i) => {
    let n = i + 1;
    const tried = (): string => (sheets.length === 1 && n === 1 ? called : `${called} ${n}`);
    while (taken.has(tried())) n++;
    taken.add(tried());
    return { id: newId('p'), name: tried() };
  });
  const elements = elementsOfSheets(sheets, [{ thickness, material }], names);
  return { ids: names.map(({ id }) => id), changeSet: edit(elements.length === 1 ? `bring in ${elements[0]!.name}` : `bring in ${elements.length} sheets`, ...elements.map((element) => putting('elements', element))) };
}

/** A new material, in the colour and texture of plaster to begin with. */
export function addMaterial(document: ProjectDocument): ChangeSet {
  const names = new Set(Object.values(document.materials).map((material) => material.name));
  let n = names.size + 1;
  while (names.has(`Material ${n}`)) n++;
  return edit(`add Material ${n}`, putting('materials', { id: newId('m'), name: `Material ${n}`, colour: '#d8d2c4', roughness: 0.9, texture: 'plaster' }));
}

export function changeMaterial(material: Material, over: Partial<Material>, what: string): ChangeSet {
  return edit(`${what} ${material.name}`, putting('materials', { ...material, ...over }));
}

export function removeMaterial(material: Material): ChangeSet {
  return edit(`remove ${material.name}`, removing('materials', material.id));
}

/** How many layers, reveals and imprints are of a material. */
export function usesOfMaterial(document: ProjectDocument, id: string): number {
  let count = 0;
  for (const { layers } of Object.values(document.elements)) for (const layer of layers) if (layer.material === id) count += 1;
  for (const { reveal, cut } of Object.values(document.patterns)) {
    if (reveal.material === id) count += 1;
    for (const side of Object.values(reveal.sides ?? {})) if (side === id) count += 1;
    if (cut?.kind === 'imprint' && cut.material === id) count += 1;
  }
  return count;
}

/** Changes the greatest distance of chords from the arcs that they stand for, metres. */
export function setChord(chord: number, shown: string): ChangeSet {
  return edit(`draw arcs to within ${shown}`, { op: 'settings', value: { chord } });
}

export function renameProject(name: string): ChangeSet {
  return edit(`rename the project ${name}`, { op: 'settings', value: { name } });
}

/** Removes an element with all that is on it, in one step. Openings elsewhere that also cut it no longer do. */
export function removeElement(document: ProjectDocument, wall: Element): ChangeSet {
  const openings = Object.values(document.openings).filter((opening) => opening.element === wall.id);
  const axes = Object.values(document.axes).filter((axis) => axis.element === wall.id);
  const datums = Object.values(document.datums).filter((datum) => datum.element === wall.id);
  const further = Object.values(document.openings)
    .filter((opening) => opening.element !== wall.id && opening.further?.includes(wall.id))
    .map((opening) => putting('openings', { ...opening, further: opening.further!.filter((id) => id !== wall.id) }));
  return edit(
    `remove ${wall.name}`,
    ...further,
    ...openings.map((opening) => removing('openings', opening.id)),
    ...axes.map((axis) => removing('axes', axis.id)),
    ...datums.map((datum) => removing('datums', datum.id)),
    removing('elements', wall.id),
  );
}

export function addPattern(document: ProjectDocument, shape: ProfileShape): { changeSet: ChangeSet; id: string } {
  const id = newId('p');
  const names = new Set(Object.values(document.patterns).map((pattern) => pattern.name));
  const plain: string = profileShapes[shape].name;
  let name = plain;
  for (let n = 2; names.has(name); n++) name = `${plain} ${n}`;
  const pattern: Pattern = {
    id,
    name,
    profile: firstChoice(shape),
    sizes: { a: { id: 'a', name: '', dimensions: firstDimensions(shape) } },
    reveal: { material: null },
  };
  return { id, changeSet: edit(`add pattern ${name}`, putting('patterns', pattern)) };
}

export function changePattern(pattern: Pattern, over: Partial<Pattern>, what: string): ChangeSet {
  return edit(`${what} ${pattern.name}`, putting('patterns', { ...pattern, ...over }));
}

export function removePattern(pattern: Pattern): ChangeSet {
  return edit(`remove pattern ${pattern.name}`, removing('patterns', pattern.id));
}

/** How many openings have a pattern, or one size of it. */
export function uses(document: ProjectDocument, pattern: string, size?: string): number {
  let count = 0;
  for (const opening of Object.values(document.openings)) if (opening.pattern === pattern && (size === undefined || opening.size === size)) count += 1;
  return count;
}

/** Gives a size other dimensions; all its openings follow. @returns the change set, or why those dimensions make no profile. */
export function resize(document: ProjectDocument, pattern: Pattern, size: Size, dimensions: Dimensions): ChangeSet | { reason: string; mend: string } {
  const made = profileOf(pattern.profile, dimensions, document.units);
  if (isImpossible(made)) return made;
  const next: Size = { ...size, dimensions: { ...dimensions } };
  const count = uses(document, pattern.id, size.id);
  return edit(
    `resize ${pattern.name} to ${sizeLabel(pattern, next, document.units)}${count > 1 ? ` (${count} openings)` : ''}`,
    putting('patterns', { ...pattern, sizes: { ...pattern.sizes, [size.id]: next } }),
  );
}

export function addSize(pattern: Pattern, from: Size): { changeSet: ChangeSet; id: string } {
  const id = newId('s');
  const size: Size = { ...from, id, name: '' };
  return { id, changeSet: edit(`add a size to ${pattern.name}`, putting('patterns', { ...pattern, sizes: { ...pattern.sizes, [id]: size } })) };
}

export function removeSize(pattern: Pattern, size: Size): ChangeSet {
  const sizes = { ...pattern.sizes };
  Reflect.deleteProperty(sizes, size.id);
  return edit(`remove a size of ${pattern.name}`, putting('patterns', { ...pattern, sizes }));
}

/** Changes the project's units of display. */
export function setUnits(units: ProjectDocument['units']): ChangeSet {
  return edit(`show lengths in ${units === 'ft-in' ? 'feet and inches' : units}`, { op: 'settings', value: { units } });
}

