/** Each element is made and cut under guard: one that fails shows its fault, and the rest of the model stands. */
import type { Element } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import type { Unplaced } from '../setout/resolve.ts';

/** A failure of the program's own, which no check of what is cut has foreseen. */
export interface Trouble {
  reason: string;
  mend: string;
  /** What was raised, for whoever mends the program. */
  trouble: Error;
}

function troubleOf(what: string, raised: unknown): Trouble {
  const trouble = raised instanceof Error ? raised : new Error(String(raised));
  return {
    reason: `${what}, for no reason that is known (${trouble.message || trouble.name})`,
    mend: 'Undo what was done to it last, or give it other dimensions. The project file would help to find the fault.',
    trouble,
  };
}

/** The sheet of an element, or one of nothing that says that it cannot be made. */
export function guardedSheet(element: Element, make: () => Sheet): Sheet {
  try {
    return make();
  } catch (error) {
    return nothingOf(element, troubleOf('it cannot be made', error));
  }
}

/** What a cut gives, or where it fails what it gives for a sheet that is faulty. */
export function guardedCut<T>(sheet: Sheet, cut: (sheet: Sheet) => T): T {
  try {
    return cut(sheet);
  } catch (error) {
    return cut({ ...sheet, fault: troubleOf('it cannot be cut', error) });
  }
}

/** An opening in its place, or why it has none. */
export function guardedPlace<T>(opening: { id: string; element: string }, place: () => T): T | Unplaced {
  try {
    return place();
  } catch (error) {
    const { reason, mend } = troubleOf('it cannot be placed', error);
    return { id: opening.id, element: opening.element, reason, mend };
  }
}

function nothingOf(element: Element, fault: Trouble): Sheet {
  const { x = 0, y = 0, z = 0 } = (element as Partial<Element>).start ?? {};
  return {
    element: element.id,
    chart: { kind: 'flat', origin: [x, y, z], along: [1, 0, 0], up: [0, 0, 1], inward: [0, 1, 0] },
    length: 0,
    height: 0,
    outline: {
      xs: new Float64Array(0),
      ys: new Float64Array(0),
      next: new Uint32Array(0),
      loops: [],
      names: [],
      sections: [],
      chords: [],
    },
    boundaries: new Float64Array(1),
    layers: [],
    thickness: 0,
    noun: element.kind,
    texture: undefined,
    joins: [],
    fault,
  };
}
