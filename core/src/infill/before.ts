/** What stands before an opening or across it: shutters on the face, and bars and guard rails in the reveal. */
import type { Guard, Leaf, Shutters } from '@yard-arch/document';
import { nanometre } from '../tolerances.ts';
import { areaOf, extentOf, half, moved, type Area, type Spot } from './area.ts';
import { dividedInto, NotDivided } from './divide.ts';
import { Facets } from './facets.ts';
import { builtLeaf, centred, clearOf, type InfillPart, type Stands } from './infill.ts';
import type { Front, PartMesh } from './part.ts';
import { prism } from './solids.ts';
import { rounded } from '../tidy.ts';

/** The shutters of an opening on its own face, each a mesh that turns; or why it carries none. */
export function shutters(part: Shutters, placed: Stands): InfillPart[] | string {
  const outline = areaOf(placed.outline);
  if (!outline) return 'its outline has islands, and carries no shutters';
  const own = centred(outline, placed.profile.width / 2);
  const lapped = moved(own, ({ side }) => (side === 'sill' ? 0 : part.lap));
  if (!lapped) return 'it is too small for its shutters';
  const { frame, field, leaves, angle, vary } = part;
  const leafOn = (hung: 'left' | 'right'): Leaf => ({
    kind: 'leaf',
    frame,
    clearance: 0.002,
    hung,
    opens: 'outward',
    angle,
    ...(vary === undefined ? {} : { vary }),
    field,
  });
  const ahead = rounded(placed.ahead ?? 0);
  const key = JSON.stringify(['shutters', frame, field, leaves, angle, ahead, lapped.area.points.flat().map(rounded)]);
  const range = { from: ahead - frame.depth, to: ahead };
  try {
    if (leaves !== 'pair')
      return builtLeaf(leafOn(leaves), { area: lapped.area, range }, { key, name: 'shutter' }).map(asItStands);
    const [left, right] = extentOf(lapped.area, 0);
    const middle = (left + right) / 2;
    const sides = [half(lapped.area, 0, middle, false), half(lapped.area, 0, middle, true)];
    if (sides.some((side) => !side || side === 'apart')) return 'its outline comes apart where its shutters meet';
    return (['left', 'right'] as const).flatMap((hung, i) =>
      builtLeaf(leafOn(hung), { area: sides[i] as Area, range }, { key: `${key} ${hung}`, name: 'shutter' }).map(
        asItStands,
      ),
    );
  } catch (error) {
    if (error instanceof NotDivided) return error.message.replace('leaf', 'shutter');
    throw error;
  }
}

/** A shutter is drawn as it stands open, not as it would be shut before the window. */
function asItStands({ part, motions, ...rest }: InfillPart): InfillPart {
  const [turn] = motions;
  if (!turn || !part.front) return { part, motions, ...rest };
  const [hinge] = turn.at;
  const cos = Math.cos((turn.by * Math.PI) / 180);
  const front = part.front
    .filter(({ kind }) => kind !== 'hung')
    .map((one): Front => ({
      ...one,
      loops: one.loops.map((loop) => loop.map(([x, z]) => [hinge + (x - hinge) * cos, z] as const)),
    }));
  return { part: { ...part, front }, motions, ...rest };
}

/** Bars across an opening, with rails above and below them where they have any; or why it carries none. */
export function guard(part: Guard, placed: Stands): PartMesh | string {
  const { material, bar, rail, spacing, depth, height } = part;
  if (depth + bar > placed.depth) return 'its bars would stand behind its reveal';
  const range = { from: depth, to: depth + bar };
  const own = clearOf(placed, range);
  if (own === null) return 'its outline has islands, and carries no bars';
  if (own === 'none') return 'its reveal leaves no room for its bars';
  const [low, top] = extentOf(own, 1);
  const high = height === undefined ? top : low + height;
  if (high > top + nanometre) return 'its guard rail is higher than it is';
  const pieces: { area: Area; along: Spot }[] = [];
  const between = (from: number, to: number): Area | null => {
    const above = half(own, 1, from, true);
    const found = above && above !== 'apart' ? half(above, 1, to, false) : above;
    return found === 'apart' ? null : found;
  };
  const [foot, head] = [low + (rail > 0 ? rail : 0), high - (height !== undefined && rail > 0 ? rail : 0)];
  const barred = between(foot, head);
  if (!barred) return 'its bars have no room between their rails';
  if (rail > 0) {
    const under = between(low, foot);
    const over = height === undefined ? null : between(head, high);
    for (const area of [under, over]) if (area) pieces.push({ area, along: [1, 0] });
  }
  try {
    const { bars } = dividedInto(barred, {
      kind: 'divided',
      way: 'mullions',
      bar: { width: bar, depth: bar, material },
      lights: { kind: 'at most', size: spacing },
      fields: [{ kind: 'empty' }],
    });
    pieces.push(...bars.map((area) => ({ area, along: [0, 1] as Spot })));
  } catch (error) {
    if (error instanceof NotDivided) return error.message;
    throw error;
  }
  if (pieces.length === 0) return 'it is too narrow for bars so far apart';
  const facets = new Facets(material);
  const front: Front[] = [];
  for (const { area, along } of pieces) {
    prism(facets, material, { area, range }, [along[0], 0, along[1]]);
    front.push({ kind: 'solid', loops: [area.points], material });
  }
  const key = JSON.stringify(['guard', { ...part, id: '' }, own.points.flat().map(rounded)]);
  return { key, name: 'guard', mesh: facets.finish(), front, within: true };
}
