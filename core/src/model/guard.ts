/** Each element is cut under guard: one that fails shows its fault, and the rest of the model stands. */
import type { Sheet } from '../element/sheet.ts';
import type { Unplaced } from '../setout/placed.ts';
import { troubleOf } from '../trouble.ts';

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
    const { code, reason, mend } = troubleOf('it cannot be placed', error);
    return { id: opening.id, element: opening.element, code, reason, mend };
  }
}
