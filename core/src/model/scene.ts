/** A document as it is cut: its elements' sheets, and its openings by the element that they are of. */
import {
  isBarrel,
  isManyFaced,
  row,
  type Element,
  type FaceName,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { sheetsOf, type Sheets } from '../element/sheets.ts';
import type { Fineness } from '../profile/flatten.ts';
import { resolveOpening } from '../setout/resolve.ts';
import type { Placed, Unplaced } from '../setout/placed.ts';

export class Scene {
  readonly sheets: Sheets;
  private readonly byElement = new Map<string, Opening[]>();

  constructor(
    readonly document: ProjectDocument,
    readonly fineness: Fineness,
  ) {
    this.sheets = sheetsOf(document, fineness);
    for (const opening of Object.values(document.openings)) {
      const list = this.byElement.get(opening.element);
      if (list) list.push(opening);
      else this.byElement.set(opening.element, [opening]);
    }
  }

  /** An element's own openings. */
  openingsOf(element: string): readonly Opening[] {
    return this.byElement.get(element) ?? [];
  }

  /** Elements that have openings, with those, in the order of the openings. */
  opened(): Iterable<[string, readonly Opening[]]> {
    return this.byElement;
  }

  /** The openings whose element is not there. */
  orphans(): Opening[] {
    return [...this.byElement].flatMap(([id, openings]) =>
      row(this.document, 'elements', id) === undefined ? openings : [],
    );
  }

  markOf(opening: string): string {
    return this.document.openings[opening]?.mark ?? opening;
  }

  /** The sheet of one of many faces; those of two have it made of the one. */
  sheetOn(element: Element, face: FaceName | undefined): Sheet {
    const sheet = this.sheets.of(element.id)!;
    return isManyFaced(element) ? (this.sheets.on(element.id, face) ?? sheet) : sheet;
  }

  /** The barrels that an opening cuts besides its own element. */
  barrelsOf({ further = [] }: Opening): Sheet[] {
    return further.flatMap((id) => {
      const [other, on] = [row(this.document, 'elements', id), this.sheets.of(id)];
      return other && on && !on.fault && isBarrel(other) ? [on] : [];
    });
  }

  /** An opening where its figures put it on its element. */
  resolved(opening: Opening): Placed | Unplaced {
    return resolveOpening(this.document, opening, this.fineness);
  }
}
