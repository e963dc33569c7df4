/** What the sheet shows of a document: the openings on an element as they are placed, and the lines that they are set out by. */
import {
  boxOf,
  courseHeightOf,
  datumsOn,
  axesOn,
  axisOn,
  lengthOf,
  levelOn,
  resolveOpening,
  seenFromAbove,
  seenLevel,
  seenOn,
  sheetsOf,
  worded,
  type Box,
  type Lines,
  type Placed,
} from '@yard-arch/core';
import {
  isBarrel,
  isManyFaced,
  isShell,
  type Element,
  type FaceName,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';

/** The openings on an element that have a place. */
export interface OnElement {
  placed: readonly Placed[];
  boxes: readonly Box[];
  opening: ReadonlyMap<string, Opening>;
}

/** Finds them, as they are seen on a face. What stands as it stood in `before` is the very same object, so that it need not be drawn again. */
export function onElement(
  document: ProjectDocument,
  element: Element,
  face: FaceName,
  before: OnElement | null,
): OnElement {
  const sheet = sheetsOf(document).of(element.id);
  const many = isManyFaced(element);
  const shell = isShell(element) ? sheetsOf(document).shell(element.id) : null;
  const placed: Placed[] = [];
  const boxes: Box[] = [];
  const openings = new Map<string, Opening>();
  const known = new Map(before?.placed.map((item, i) => [item.id, i]));
  for (const opening of Object.values(document.openings)) {
    if (opening.element !== element.id || (many && (opening.face ?? 'outer') !== face)) continue;
    const own = resolveOpening(document, opening);
    if (!sheet || !('outline' in own)) continue;
    const resolved = many ? own : seenOn(sheet, own, face);
    // On a shell, and level in a barrel, it is drawn as it lies there.
    const isLevel =
      isBarrel(element) && own.pattern.inBarrels === 'level' && !opening.aim && face === 'outer' && resolved === own;
    const drawn = shell ? seenFromAbove(element, shell, resolved) : isLevel ? seenLevel(sheet, resolved) : resolved;
    openings.set(opening.id, opening);
    const i = known.get(opening.id);
    const old = i === undefined ? undefined : before!.placed[i];
    const same =
      old &&
      old.face === drawn.face &&
      old.s === drawn.s &&
      old.t === drawn.t &&
      old.outline === drawn.outline &&
      old.blockedUp === drawn.blockedUp &&
      old.pattern === drawn.pattern;
    placed.push(same ? old : drawn);
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
export function linesOf(document: ProjectDocument, element: Element, face: FaceName): SheetLines {
  const tall = sheetsOf(document).on(element.id, face)?.height ?? 0;
  const layer = element.layers.at(face === 'inner' ? -1 : 0);
  const material = layer && document.materials[layer.material];
  return {
    length: lengthOf(document, element, face),
    height: tall,
    datums: datumsOn(document, element, face)
      .map(({ id, name, level }) => ({ id, name, level, t: levelOn(document, element, level, face) ?? -1 }))
      .filter((datum) => datum.t >= 0 && datum.t <= tall),
    axes: axesOn(document, element, face).map((axis) => ({
      id: axis.id,
      name: axis.name,
      s: axisOn(document, element, axis.along, face),
    })),
    course: courseHeightOf(material?.texture),
    say: (metres) => worded(metres, document.units),
  };
}
