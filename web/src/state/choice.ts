/** What is chosen, what is about to be placed, which drawing is on the board, how much room the model has, and what is hidden. */
import { facesOf, isManyFaced, type Element, type FaceName } from '@yard-arch/document';
import { chosenIds, faceNow, useEditor, type Board, type Chosen, type ModelRoom } from './state.ts';

const { getState, setState } = useEditor;

/** The elements of a project that are hidden in this browser. */
export function rememberedHidden(project: string): ReadonlySet<string> {
  try {
    return new Set(JSON.parse(localStorage.getItem(`yard-arch-hidden-${project}`) ?? '[]') as string[]);
  } catch {
    return new Set();
  }
}

/** Shows only some elements: hides those given. */
export function hide(hidden: ReadonlySet<string>): void {
  const { project } = getState();
  if (project) localStorage.setItem(`yard-arch-hidden-${project}`, JSON.stringify([...hidden]));
  setState({ hidden });
}

/** The element of a project that was shown last. */
export function rememberedElement(project: string): string | null {
  return localStorage.getItem(`yard-arch-element-${project}`);
}

// What is chosen is remembered for this tab, so that a reload comes back to it.
useEditor.subscribe(({ project, document, chosen }, before) => {
  if (project && document && chosen !== before.chosen)
    sessionStorage.setItem(`yard-arch-chosen-${project}`, JSON.stringify(chosen));
});

/** What was chosen in this tab. */
export function rememberedChoice(project: string): Chosen {
  try {
    return (
      (JSON.parse(sessionStorage.getItem(`yard-arch-chosen-${project}`) ?? 'null') as Chosen | null) ?? { kind: 'wall' }
    );
  } catch {
    return { kind: 'wall' };
  }
}

/** The faces that elements' sheets show in this tab. */
export function rememberedFaces(project: string): ReadonlyMap<string, FaceName> {
  try {
    return new Map(JSON.parse(sessionStorage.getItem(`yard-arch-faces-${project}`) ?? '[]') as [string, FaceName][]);
  } catch {
    return new Map();
  }
}

/** The face after another, round all that an element has. */
export function nextFace(element: Element, face: FaceName): FaceName {
  const faces = facesOf(element);
  const at = faces.findIndex(({ name }) => name === face);
  return faces[(at + 1) % faces.length]!.name;
}

/** Turns an element's sheet to one of its faces. */
export function turnOver(element: string, face: FaceName): void {
  const { project, faces } = getState();
  const next = new Map(faces);
  if (face === 'outer') next.delete(element);
  else next.set(element, face);
  if (project) sessionStorage.setItem(`yard-arch-faces-${project}`, JSON.stringify([...next]));
  setState({ faces: next });
}

/** Chooses an element, and remembers it. */
export function chooseElement(element: string | null): void {
  const { project } = getState();
  if (project && element) localStorage.setItem(`yard-arch-element-${project}`, element);
  setState((state) => ({
    element,
    chosen: state.element === element && state.chosen.kind !== 'openings' ? state.chosen : { kind: 'wall' },
  }));
}

/** Chooses an opening, and the wall that it is in; or adds it to those chosen on the same wall, or takes it from them. */
export function chooseOpening(id: string, more = false): void {
  const ids = more ? chosenIds(getState().chosen) : [];
  chooseOpenings(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id]);
}

/** Chooses openings, all those given that are on the element of the last one. */
export function chooseOpenings(ids: readonly string[]): void {
  const openings = getState().document?.openings ?? {};
  const known = [...new Set(ids)].filter((id) => openings[id]);
  const last = known.at(-1);
  if (!last) return setState({ chosen: { kind: 'wall' } });
  const { element, face } = openings[last]!;
  if (getState().element !== element) chooseElement(element);
  // Of many faces each has a sheet of its own, and those on it are what can be worked on together.
  const many = isManyFaced(getState().document!.elements[element]!);
  if (many && faceNow(element) !== (face ?? 'outer')) turnOver(element, face ?? 'outer');
  setState({
    chosen: {
      kind: 'openings',
      ids: known.filter((id) => openings[id]!.element === element && (!many || openings[id]!.face === face)),
    },
    placing: null,
  });
}

export function choose(chosen: Chosen): void {
  setState({ chosen });
}

export function place(placing: { pattern: string; size: string } | null): void {
  setState(
    placing
      ? { placing, taping: false, sliding: false, chosen: { kind: 'pattern', id: placing.pattern } }
      : { placing: null },
  );
}

/** Whether a dialog lies over the page. It has the keys then, and Escape closes it even before it has the focus. */
export function underDialog(key: string): boolean {
  if (getState().dialog === null) return false;
  if (key === 'Escape') setState({ dialog: null });
  return true;
}

/** Begins or ends measuring. */
export function tape(on: boolean): void {
  setState(on ? { taping: true, sliding: false, placing: null } : { taping: false });
}

/** Begins or ends moving the drawing by dragging anywhere on it. */
export function slide(on: boolean): void {
  setState(on ? { sliding: true, taping: false, placing: null } : { sliding: false });
}

/** Puts a drawing on the board, and remembers which. */
export function turnTo(board: Board): void {
  localStorage.setItem('yard-arch-board', board);
  setState({ board, placing: null, taping: false, sliding: false });
}

/** Gives the model more room, less, or none, and remembers it. */
export function giveRoom(modelRoom: ModelRoom): void {
  localStorage.setItem('yard-arch-model-room', modelRoom);
  setState({ modelRoom });
}

/** Folds the model away, or shows it again. */
export const foldModel = (): void => giveRoom(getState().modelRoom === 'folded' ? 'usual' : 'folded');
