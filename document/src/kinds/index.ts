/** The registry of element kinds, and what is asked of an element whichever its kind. */
import { z } from 'zod';
import type { ElementKind, FaceName, FaceOf, Form } from './kind.ts';
import { bayKind } from './bay/bay.ts';
import { domeKind } from './dome/dome.ts';
import { panelKind } from './panel/panel.ts';
import { roofKind, type Roof } from './roof/roof.ts';
import { slabKind } from './slab/slab.ts';
import { vaultKind } from './vault/vault.ts';
import { wallKind, type Wall } from './wall/wall.ts';

/** All kinds, in the order in which they are chosen from. A new one is its folder and a line here. */
export const kinds = {
  wall: wallKind,
  panel: panelKind,
  slab: slabKind,
  vault: vaultKind,
  bay: bayKind,
  dome: domeKind,
  roof: roofKind,
} as const;

export type KindName = keyof typeof kinds;
export const kindNames = Object.keys(kinds) as KindName[];

/** A thing that can be cut. */
export type Element = z.infer<(typeof kinds)[KindName]['schema']>;

const schemas = Object.values(kinds).map(({ schema }) => schema) as unknown as [
  (typeof kinds)['wall']['schema'],
  ...(typeof kinds)[KindName]['schema'][],
];
export const elementSchema = z.discriminatedUnion('kind', schemas, {
  error: `must say its kind: ${kindNames.slice(0, -1).join(', ')} or ${kindNames.at(-1)}`,
});

/** The kind of an element. */
export const kindOf = (element: Element): ElementKind => kinds[element.kind] as unknown as ElementKind;

/** What an element is for the geometry. */
export const formOf = (element: Element): Form => kindOf(element).form(element);

/** Whether an element is drawn by its ends in plan, as walls are. */
export const isInPlan = (element: Element): element is Wall => kindOf(element).inPlan === true;

/** Whether an element has an outline of its own, with holes. */
export const isOutlined = (element: Element): element is Extract<Element, { outline: unknown }> =>
  formOf(element).form === 'plate';

/** Whether an element's face stands upright, so that a level is a height on it. */
export function isUpright(element: Element): boolean {
  const form = formOf(element);
  return form.form === 'course' ? !form.lies : form.form === 'plate' && form.tilt === 90;
}

/** Whether an element is seen from above: its outer face looks up. */
export function isSeenFromAbove(element: Element): boolean {
  const form = formOf(element);
  return form.form === 'course' ? form.lies !== undefined : form.form !== 'plate' || form.tilt === 0;
}

/** The faces of an element on which openings are set out. */
export const facesOf = (element: Element): readonly FaceOf[] => kindOf(element).faces(element);

/** Whether an element has several faces, each with a sheet of its own, such as a roof's planes. */
export const isManyFaced = (element: Element): element is Roof => formOf(element).form === 'roof';

/** Whether an element is a shell, whose openings are set out as seen from above. */
export const isShell = (element: Element): boolean => formOf(element).form === 'shell';

/** Whether an element is a curved sheet that lies, as a barrel vault does. */
export function isBarrel(element: Element): boolean {
  const form = formOf(element);
  return form.form === 'course' && form.lies !== undefined;
}

/** Whether walls can reach up under an element: roofs, vaults and domes. */
export function isOverhead(element: Element): boolean {
  const form = formOf(element);
  return form.form === 'roof' || form.form === 'shell' || isBarrel(element);
}

/** What a face of an element is called. */
export const faceLabel = (element: Element, face: FaceName = 'outer'): string =>
  facesOf(element).find(({ name }) => name === face)?.label ?? face;

/** How long and how high an element's outer face is for setting out, metres: a course's whole length and the height of its start, an outline's reach from its origin. */
export function extentOf(element: Element): { length: number; height: number } {
  const form = formOf(element);
  if (form.form === 'course')
    return { length: form.runs.reduce((sum, run) => sum + run.length, 0), height: form.height };
  if (form.form === 'shell' && form.of === 'dome') return { length: form.span, height: form.span };
  const points = form.form === 'shell' ? form.corners : form.form === 'roof' ? form.edges : form.outline;
  return { length: Math.max(...points.map((point) => point.x)), height: Math.max(...points.map((point) => point.y)) };
}
