/** Recesses: what is taken out of a wall's layers so that a layer of another wall can run on into it, as if it were an opening. */
import { isInPlan, type Pattern, type ProjectDocument, type Wall } from '@yard-arch/document';
import { joinsOf, type Recess } from '../element/joins.ts';
import { squareSections } from '../profile/section.ts';
import type { Outline } from '../profile/flatten.ts';
import type { Placed } from './placed.ts';

/** The pattern that stands for all of them. */
const pattern: Pattern = {
  id: 'recess',
  name: 'Recess',
  profile: { shape: 'rectangle' },
  sizes: {},
  reveal: { material: null },
};

const known = new Map<string, Placed>();

/** All recesses of a document's walls, by the wall that they are in. */
export function recessesIn(document: ProjectDocument): Map<string, Placed[]> {
  const found = new Map<string, Placed[]>();
  for (const element of Object.values(document.elements)) {
    if (!isInPlan(element) || (element.ends?.start !== 'butted' && element.ends?.end !== 'butted')) continue;
    intoOthers(document, element).forEach((recess, i) => {
      const list = found.get(recess.host) ?? [];
      list.push(placedRecess(recess, i));
      found.set(recess.host, list);
    });
  }
  return found;
}

/** What a wall takes out of others; nothing where its joins cannot be made, which its own sheet tells of. */
function intoOthers(document: ProjectDocument, wall: Wall): readonly Recess[] {
  try {
    return joinsOf(document, wall).into;
  } catch {
    return [];
  }
}

/** One recess as an opening in its place; the same one for the same figures, so that what it is cut from is kept. */
function placedRecess(recess: Recess, i: number): Placed {
  const key = JSON.stringify([recess, i]);
  let made = known.get(key);
  if (!made) {
    const { host, by, from, to, s, t, drift, width, height } = recess;
    made = {
      id: `${by} ${i} in ${host}`,
      element: host,
      s,
      t,
      profile: { width, height, springing: null, edges: [] },
      outline: rectangle(width, height),
      pattern,
      blockedUp: false,
      kind: 'niche',
      ...(from > 0 ? { from } : {}),
      depth: to - from,
      sections: squareSections(to),
      ...(drift !== 0 ? { drift: [drift, 0] as const } : {}),
    };
    if (known.size > 4096) known.delete(known.keys().next().value!);
    known.set(key, made);
  }
  return made;
}

function rectangle(width: number, height: number): Outline {
  return {
    count: 4,
    xs: Float64Array.of(0, width, width, 0),
    ys: Float64Array.of(0, 0, height, height),
    next: Uint32Array.of(1, 2, 3, 0),
    loops: [0],
    side: ['sill', 'jamb-right', 'head', 'jamb-left'],
    arcs: [null, null, null, null],
  };
}
