/** Patterns from the shelf and from files: taken in, followed, and let go. */
import {
  newId,
  patternFile,
  patternMeshes,
  putting,
  sizeLabel,
  type Change,
  type ChangeSet,
  type Pattern,
  type PatternFile,
  type ProjectDocument,
} from '@yard-arch/document';
import { edit } from './make.ts';
import { changePattern, freeName } from './patterns.ts';
import { shippedMaterials } from './shipped/index.ts';
import { materialsIn, takenIn } from './taken-in.ts';

/** Something on the shelf, as projects know it. */
export interface ShelfItem {
  id: string;
  revision: number;
  file: PatternFile;
}

/** A pattern of a project as a file of its own, with the materials that it names. */
export const fileOf = ({ materials, meshes }: ProjectDocument, pattern: Pattern): PatternFile =>
  patternFile(
    pattern,
    materialsIn(pattern).flatMap((id) => (materials[id] ? [materials[id]] : [])),
    meshesIn(pattern).flatMap((id) => (meshes[id] ? [meshes[id]] : [])),
  );

/** The ids of all meshes that a pattern names. */
const meshesIn = (pattern: Pattern): string[] => [...new Set(patternMeshes(pattern).map(([, mesh]) => mesh))];

/** The meshes of a file that a project does not have yet. */
const bringing = (document: ProjectDocument, meshes: PatternFile['meshes'] = {}): Change[] =>
  Object.values(meshes)
    .filter(({ id }) => !document.meshes[id])
    .map((mesh) => putting('meshes', mesh));

/** Takes a pattern in from a file. @param item what on the shelf it follows from then on */
export function takeIn(
  document: ProjectDocument,
  { pattern, materials, meshes }: Pick<PatternFile, 'pattern' | 'materials'> & Partial<Pick<PatternFile, 'meshes'>>,
  item?: Pick<ShelfItem, 'id' | 'revision'>,
): { changeSet: ChangeSet; id: string } {
  const id = newId('p');
  const taken = takenIn(document, pattern, materials, id);
  const name = freeName(document, pattern.name);
  const next: Pattern = {
    ...taken.pattern,
    name,
    ...(item ? { shelf: { item: item.id, revision: item.revision } } : {}),
  };
  return {
    id,
    changeSet: edit(`take in ${name}`, ...bringing(document, meshes), ...taken.changes, putting('patterns', next)),
  };
}

/** Takes a shipped pattern into a project. */
export const takeShipped = (document: ProjectDocument, pattern: Pattern): { changeSet: ChangeSet; id: string } =>
  takeIn(document, { pattern, materials: shippedMaterials });

/** Ties a pattern to what it is on the shelf. */
export const tie = (pattern: Pattern, { id, revision }: Pick<ShelfItem, 'id' | 'revision'>): ChangeSet =>
  changePattern(pattern, { shelf: { item: id, revision } }, 'put on the shelf');

/** Lets a pattern follow the shelf no more. */
export const cutTie = (pattern: Pattern): ChangeSet => changePattern(pattern, { shelf: undefined }, 'cut the tie of');

/** A pattern as it would be once it is as on the shelf: its sizes that the shelf does not have stay. */
function followed(document: ProjectDocument, pattern: Pattern, { id, revision, file }: ShelfItem) {
  const taken = takenIn(document, file.pattern, file.materials, pattern.id);
  const next: Pattern = {
    ...taken.pattern,
    name: pattern.name,
    sizes: { ...pattern.sizes, ...taken.pattern.sizes },
    shelf: { item: id, revision },
  };
  return { next, changes: taken.changes, meshes: bringing(document, file.meshes) };
}

/** What would change in a pattern by following the shelf, in words; nothing where it is as it is there. */
export function shelfDifference(document: ProjectDocument, pattern: Pattern, item: ShelfItem): string[] {
  const { next, changes } = followed(document, pattern, item);
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  const parts: [keyof Pattern, string][] = [
    ['profile', 'its profile'],
    ['cut', 'what it does to the wall'],
    ['reveal', 'the materials of its reveal'],
    ['sections', 'the section of its reveal'],
    ['jambs', 'its jambs on curves'],
    ['onFloor', 'whether it stands on the floor'],
    ['infill', 'its infill'],
    ['parts', 'the parts about it'],
    ['texture', 'how its texture lies'],
    ['tags', 'its tags'],
  ];
  const told = parts.filter(([key]) => !same(pattern[key], next[key])).map(([, words]) => words);
  for (const size of Object.values(next.sizes)) {
    const own = pattern.sizes[size.id];
    if (!own) told.push(`a size more: ${sizeLabel(next, size, document.units)}`);
    else if (!same(own, size))
      told.push(`${sizeLabel(pattern, own, document.units)} becomes ${sizeLabel(next, size, document.units)}`);
  }
  const added = changes.length;
  if (added > 0) told.push(`${added} material${added === 1 ? '' : 's'} more`);
  return told;
}

/** Makes a pattern as it is on the shelf now; its openings follow. */
export function followShelf(document: ProjectDocument, pattern: Pattern, item: ShelfItem): ChangeSet {
  const { next, changes, meshes } = followed(document, pattern, item);
  return edit(`update ${pattern.name} from the shelf`, ...meshes, ...changes, putting('patterns', next));
}
