/** Surrounds: bands planted on the face round an opening's jambs and head, mitred at corners, that go round an arch with it. */
import type { Surround } from '@yard-arch/document';
import { offsetAt } from '../profile/section.ts';
import type { Placed } from '../setout/placed.ts';
import { areaOf, moved, type Area } from './area.ts';
import { NotDivided } from './divide.ts';
import { Facets } from './facets.ts';
import { banded } from './framing.ts';
import type { Front, PartMesh } from './part.ts';
import { boardTop } from './sill-board.ts';
import { frame } from './solids.ts';
import { rounded } from '../tidy.ts';

/** The surround of an opening on its own face, or why it carries none. */
export function surround(part: Surround, placed: Placed): PartMesh | string {
  const outline = areaOf(placed.outline);
  if (!outline) return 'its outline has islands, round which no surround goes';
  // Where an arris or a splay opens the reveal at the face, the band begins at its edge; and where a board stands before the face, on that.
  const foot = part.sides.includes('sill') ? null : boardTop(placed, part.behind);
  const edge = moved(outline, ({ side }) => {
    if (side === 'sill' && foot !== null) return 0 - foot;
    return offsetAt(placed.sections[side!], 0, 1) + (part.sides.includes(side!) ? (part.off ?? 0) : 0);
  });
  if (!edge) return 'its reveal leaves nothing for a surround to go round';
  const inner: Area = {
    points: edge.area.points.map(([x, y]) => [x - placed.profile.width / 2, y] as const),
    edges: edge.area.edges,
  };
  const outer = moved(inner, ({ side }) => (side && part.sides.includes(side) ? part.width : 0));
  if (!outer) return 'its surround would cross itself';
  const key = JSON.stringify(['surround', { ...part, id: '' }, inner.points.flat().map(rounded)]);
  const facets = new Facets(part.material);
  const front: Front[] = [];
  const range = { from: -part.thickness, to: 0 };
  const { width, thickness, material, moulding } = part;
  if (!moulding) {
    frame(facets, material, { outer: inner, within: outer, range });
    front.push({ kind: 'solid', loops: [outer.area.points, inner.points], material });
  } else {
    try {
      banded({ facets, front }, { width, depth: thickness, material, moulding }, part.sides, { area: inner, range });
    } catch (error) {
      if (error instanceof NotDivided) return error.message;
      throw error;
    }
  }
  return { key, name: 'surround', mesh: facets.finish(), front };
}
