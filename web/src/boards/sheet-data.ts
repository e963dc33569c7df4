/** What the sheet shows of a document: the openings on an element as they are placed, and the lines that they are set out by. */
import {
  boxOf,
  courseHeightOf,
  datumsOn,
  resolveOpening,
  sheetOf,
  worded,
  type Box,
  type Lines,
  type Placed,
} from '@yard-arch/core';
import { extentOf, type Element, type Opening, type ProjectDocument } from '@yard-arch/document';

/** The openings on an element that have a place. */
export interface OnElement {
  placed: readonly Placed[];
  boxes: readonly Box[];
  opening: ReadonlyMap<string, Opening>;
}

/** Finds them. What stands as it stood in `before` is the very same object, so that it need not be drawn again. */
export function onElement(document: ProjectDocument, element: Element, before: OnElement | null): OnElement {
  const placed: Placed[] = [];
  const boxes: Box[] = [];
  const openings = new Map<string, Opening>();
  const known = new Map(before?.placed.map((item, i) => [item.id, i]));
  for (const opening of Object.values(document.openings)) {
    if (opening.element !== element.id) continue;
    const resolved = resolveOpening(document, opening);
    if (!('outline' in resolved)) continue;
    openings.set(opening.id, opening);
    const i = known.get(opening.id);
    const old = i === undefined ? undefined : before!.placed[i];
    const same =
      old &&
      old.s === resolved.s &&
      old.t === resolved.t &&
      old.outline === resolved.outline &&
      old.blockedUp === resolved.blockedUp &&
      old.pattern === resolved.pattern;
    placed.push(same ? old : resolved);
    const box = i === undefined ? undefined : before!.boxes[i];
    boxes.push(same && box && box.mark === opening.mark ? box : boxOf(resolved, opening.mark));
  }
  return { placed, boxes, opening: openings };
}

export type SheetLines = Lines & {
  datums: { id: string; name: string; level: number; t: number }[];
  axes: { id: string; name: string; s: number }[];
};

/** The datums and axes that show on an element's face, and what else there is to come into line with. */
export function linesOf(document: ProjectDocument, element: Element): SheetLines {
  const tall = sheetOf(element).height;
  const outer = element.layers[0] && document.materials[element.layers[0].material];
  return {
    length: extentOf(element).length,
    height: tall,
    datums: datumsOn(document, element)
      .map((datum) => ({ id: datum.id, name: datum.name, level: datum.level, t: datum.level - element.start.z }))
      .filter((datum) => datum.t >= 0 && datum.t <= tall),
    axes: Object.values(document.axes)
      .filter((axis) => axis.element === element.id)
      .map((axis) => ({ id: axis.id, name: axis.name, s: axis.along })),
    course: courseHeightOf(outer?.texture),
    say: (metres) => worded(metres, document.units),
  };
}
