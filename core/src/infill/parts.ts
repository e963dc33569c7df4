/** The parts that an element's openings carry, in their places. */
import type { Part } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import { directionsAt, pointAt, type Rigid } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { turnedOver } from '../element/turned-over.ts';
import { across } from '../setout/across.ts';
import type { Placed } from '../setout/resolve.ts';
import type { PartInstance, PartLeftOut, PartMesh } from './part.ts';
import { sillBoard } from './sill-board.ts';

export interface Parts {
  instances: PartInstance[];
  leftOut: PartLeftOut[];
}

/** What makes each kind of part: its mesh, or why there is none. */
const makers: { [K in Part['kind']]: (part: Extract<Part, { kind: K }>, placed: Placed) => PartMesh | string } = {
  'sill board': sillBoard,
};

/** Meshes by their keys, so that all that are alike share one. */
const meshes = new LRUCache<string, PartMesh>({ max: 4096 });
/** What was made for an outline with its sections, by part. */
const known = new WeakMap<Placed['outline'], WeakMap<Placed['sections'], Map<string, PartMesh | string>>>();

function meshOf(part: Part, placed: Placed): PartMesh | string {
  let bySections = known.get(placed.outline);
  if (!bySections) known.set(placed.outline, (bySections = new WeakMap()));
  let byPart = bySections.get(placed.sections);
  if (!byPart) bySections.set(placed.sections, (byPart = new Map()));
  const key = JSON.stringify([part, placed.depth]);
  let made = byPart.get(key);
  if (made === undefined) {
    made = makers[part.kind](part, placed);
    if (typeof made !== 'string') {
      const shared = meshes.get(made.key);
      if (shared) made = shared;
      else meshes.set(made.key, made);
    }
    byPart.set(key, made);
  }
  return made;
}

/** Where an opening's parts stand: square to its own face at the middle of its width. */
function placementOf({ chart }: Sheet, { s, t, profile }: Placed): Rigid {
  const middle = s + profile.width / 2;
  const { along, up, inward } = directionsAt(chart, middle);
  return {
    origin: pointAt(chart, middle, t, 0),
    x: along,
    y: inward,
    z: up,
  };
}

/** The parts of an element's openings. @param sheet of its outer face. @param openings each as it is placed on its own face. */
export function partsOf(sheet: Sheet, openings: readonly Placed[]): Parts {
  const parts: Parts = { instances: [], leftOut: [] };
  const inner = turnedOver(sheet).sheet;
  for (const own of openings)
    for (const part of own.pattern.parts ?? []) {
      const through = own.depth >= sheet.thickness - 1e-9;
      const placed = part.behind && through ? across(sheet, own) : own;
      const made = part.behind && !through ? 'it does not go through to the face behind' : meshOf(part, placed);
      if (typeof made === 'string') parts.leftOut.push({ opening: own.id, id: part.id, reason: made });
      else
        parts.instances.push({
          part: made,
          element: own.element,
          opening: own.id,
          id: part.id,
          face: placed.face ?? 'outer',
          placement: placementOf(placed.face === 'inner' ? inner : sheet, placed),
        });
    }
  return parts;
}
