/** Roofs: laid over a ring of walls or an outline, given a form, and their edges changed. */
import { courseOf, drawnOutline, isUnderRoof, tidy, wallsMeet, type Point } from '@yard-arch/core';
import {
  edgesOfRoof,
  isInPlan,
  kinds,
  newId,
  putting,
  type Change,
  type ChangeSet,
  type Element,
  type Layer,
  type ProjectDocument,
  type Roof,
  type RoofEdge,
  type Wall,
} from '@yard-arch/document';
import { edit, freeElementName } from './make.ts';

/** Forms that a roof can be given at once, by the edges of its outline. */
export const roofForms = [
  'hipped',
  'gabled',
  'half-hipped',
  'lean-to',
  'mansard',
  'bell-cast',
  'flat',
  'butterfly',
] as const;
export type RoofFormName = (typeof roofForms)[number];

/** Why something cannot be, and what would mend that. */
export interface Refused {
  reason: string;
  mend: string;
}

type Corner = Pick<RoofEdge, 'id' | 'x' | 'y' | 'bulge' | 'facets'>;

const usual = { pitch: 40, over: 0.35 };

/** The walls of the ring that a wall is in, from it on, or null where it is in none. Each begins where another ends, whichever way it runs. */
export function ringOf(document: ProjectDocument, wall: Wall): { wall: Wall; backward: boolean }[] | null {
  const walls = Object.values(document.elements).filter(isInPlan);
  const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < wallsMeet;
  const ring = [{ wall, backward: false }];
  const first = courseOf(wall).start;
  let at = courseOf(wall).end;
  while (!near(at, first)) {
    const used = new Set(ring.map((one) => one.wall.id));
    const next = walls.find((other) => {
      if (used.has(other.id)) return false;
      const { start, end } = courseOf(other);
      return near(start, at) || near(end, at);
    });
    if (!next) return null;
    const backward = !near(courseOf(next).start, at);
    ring.push({ wall: next, backward });
    at = backward ? courseOf(next).start : courseOf(next).end;
  }
  // One wall is a ring by itself where it turns back to its own start.
  return ring.length > 1 || wall.sweep || wall.runs?.length ? ring : null;
}

/** Lays a roof over a ring of walls, and lets them reach up under it. */
export function roofOverWalls(
  document: ProjectDocument,
  wall: Wall,
  form: RoofFormName = 'hipped',
): { changeSet: ChangeSet; id: string } | Refused {
  const ring = ringOf(document, wall);
  if (!ring) return noRing(wall, ', or draw the outline of the roof');
  const tops = ring.map((one) => one.wall.start.z + one.wall.height);
  const level = Math.min(...tops);
  const outline = ringOutline(ring, (i) => ({ lift: tidy(tops[i]! - level) }));
  const made = roofOver(document, outline, level, form);
  if ('reason' in made) return made;
  return { id: made.id, changeSet: withWallsUnder(made.changeSet, made.id, ring) };
}

/** Walls in their order round, and whether each runs the other way. */
export type Ring = readonly { wall: Wall; backward: boolean }[];

/** Why nothing can be laid along the ring of a wall that is in none. @param otherwise what else could be done */
export const noRing = (wall: Wall, otherwise = ''): Refused => ({
  reason: `${wall.name} is not part of a ring of walls`,
  mend: `Let walls begin where others end, all the way round${otherwise}.`,
});

/** An edit of a roof, with the walls of a ring that stand plumb reaching up under it. */
export const withWallsUnder = (changeSet: ChangeSet, roof: string, ring: Ring): ChangeSet => ({
  ...changeSet,
  changes: [...changeSet.changes, ...ring.filter(({ wall }) => !wall.batter).map(({ wall }) => under(wall, roof))],
});

const under = (wall: Wall, roof: string): Change => putting('elements', { ...wall, top: { kind: 'under', roof } });

/** The outline along the faces of a ring of walls. @param more what each corner has besides, by its wall */
export const ringOutline = <T extends object = object>(
  ring: Ring,
  more: (i: number) => T = () => ({}) as T,
): ({ x: number; y: number; bulge?: number } & T)[] =>
  ring.flatMap(({ wall, backward }, i) => cornersOf(wall, backward).map((corner) => ({ ...corner, ...more(i) })));

/** The corners of a wall's face, in the order of its ring; an arc is one edge with a bulge. */
function cornersOf(wall: Wall, backward: boolean): { x: number; y: number; bulge?: number }[] {
  const runs = [{ turn: 0, length: wall.length, sweep: wall.sweep ?? 0 }, ...(wall.runs ?? [])].flatMap(
    ({ turn, length, sweep = 0 }) => {
      // An edge is no whole circle.
      const parts = Math.max(1, Math.ceil(Math.abs(sweep) / 270 - 1e-9));
      return Array.from({ length: parts }, (_, i) => ({
        turn: i === 0 ? turn : 0,
        length: length / parts,
        sweep: sweep / parts,
      }));
    },
  );
  const corners: { x: number; y: number; bulge?: number }[] = [];
  let { x, y } = wall.start;
  let angle = wall.turn;
  for (const { turn, length, sweep } of runs) {
    angle += turn;
    corners.push({ x, y, ...(sweep ? { bulge: Math.tan((sweep * Math.PI) / 720) } : {}) });
    const half = (sweep * Math.PI) / 360;
    const chord = half === 0 ? length : (length * Math.sin(half)) / half;
    const way = (angle * Math.PI) / 180 + half;
    [x, y] = [x + chord * Math.cos(way), y + chord * Math.sin(way)];
    angle += sweep;
  }
  if (!backward) return corners;
  const all = [...corners, { x, y }].reverse();
  return all.slice(0, -1).map(({ x: u, y: v }, i) => {
    const { bulge } = all[i + 1] as { bulge?: number };
    return { x: u, y: v, ...(bulge ? { bulge: -bulge } : {}) };
  });
}

/** Lays a roof over an outline. @param level metres, where the undersides of its planes pass over it */
export function roofOver(
  document: ProjectDocument,
  outline: readonly { x: number; y: number; bulge?: number; lift?: number }[],
  level: number,
  form: RoofFormName = 'hipped',
): { changeSet: ChangeSet; id: string } | Refused {
  if (outline.length < 2) return { reason: 'its outline encloses nothing', mend: 'Draw at least three corners.' };
  const id = newId('r');
  const [first] = outline;
  const area = outline.reduce((sum, a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    return sum + a.x * b.y - a.y * b.x;
  }, 0);
  // Counter-clockwise, as outlines are told; an edge then begins where it ended.
  const turned = area < 0 ? reversedOutline(outline) : outline;
  const { layers, changes } = usualLayers(document);
  const plain = kinds.roof.fresh(
    {
      id,
      name: freeElementName(document, 'Roof'),
      start: { x: tidy(first!.x), y: tidy(first!.y), z: tidy(level) },
      turn: 0,
    },
    layers[0]!.material,
  );
  const roof: Roof = {
    ...plain,
    layers,
    edges: turned.map(({ x, y, bulge, lift }, i): RoofEdge => ({
      id: `e${i + 1}`,
      x: tidy(x - first!.x),
      y: tidy(y - first!.y),
      ...(bulge ? { bulge } : {}),
      is: 'eaves',
      ...usual,
      ...(lift ? { lift } : {}),
    })),
  };
  const { fault } = drawnOutline(roof);
  if (fault) return { reason: fault.reason, mend: fault.mend };
  return {
    id,
    changeSet: edit(`lay ${roof.name}`, ...changes, putting('elements', formed(roof, form))),
  };
}

/** The same outline run through the other way; edges keep what they are. */
export function reversedOutline<T extends { x: number; y: number; bulge?: number }>(outline: readonly T[]): T[] {
  return outline
    .map((a, i) => {
      const { x, y } = outline[(i + 1) % outline.length]!;
      return { ...a, x, y, ...(a.bulge ? { bulge: -a.bulge } : {}) };
    })
    .reverse();
}

/** What a roof is made of to begin with: slate over battens, boarding and a lining, of materials that there are or are made for it. */
function usualLayers(document: ProjectDocument): { layers: Layer[]; changes: Change[] } {
  const wanted = [
    { id: 'slate', name: 'Slate', colour: '#6d7780', roughness: 0.7, texture: 'slate' as const, thickness: 0.03 },
    { id: 'battens', name: 'Battens', colour: '#b08d62', roughness: 0.9, thickness: 0.05 },
    { id: 'boarding', name: 'Boarding', colour: '#c9a878', roughness: 0.8, texture: 'oak' as const, thickness: 0.12 },
    { id: 'lining', name: 'Lining', colour: '#efe9dc', roughness: 0.9, thickness: 0.02 },
  ];
  const changes: Change[] = [];
  const layers = wanted.map(({ thickness, ...material }): Layer => {
    const known = Object.values(document.materials).find(
      ({ id, name }) => id === material.id || name.toLowerCase() === material.name.toLowerCase(),
    );
    if (!known) changes.push(putting('materials', material));
    return { thickness, material: known?.id ?? material.id };
  });
  return { layers, changes };
}

/** The same roof in a form: what each of its edges is. Overhangs and lifts stay; pitches that there are, too. */
export function formed(roof: Roof, form: RoofFormName): Roof {
  return {
    ...roof,
    edges: roof.edges.map((_, i) => edgeIn(roof, i, form)),
    ...(roof.courts ? { courts: roof.courts.map((court) => court.map((edge) => ({ ...edge }))) } : {}),
  };
}

function edgeIn({ edges }: Roof, i: number, form: RoofFormName): RoofEdge {
  const edge = edges[i]!;
  const { pitch, over } = likeOf(edges, edge);
  const corner = cornerOf(edge);
  const lift = edge.is === 'eaves' && edge.lift ? { lift: edge.lift } : {};
  const eaves: RoofEdge = { ...corner, is: 'eaves', pitch, over, ...lift };
  const verge: RoofEdge = { ...corner, is: 'verge', over };
  const wide = widthOf(edges, i);
  switch (form) {
    case 'hipped':
      return eaves;
    case 'gabled':
      return isEnd(edges, i) ? verge : eaves;
    case 'half-hipped':
      return isEnd(edges, i)
        ? {
            ...verge,
            hip: {
              from: tidy(Math.round(wide * Math.tan((pitch * Math.PI) / 180) * 25) / 100),
              pitch: Math.min(60, pitch + 10),
            },
          }
        : eaves;
    case 'mansard':
      return { ...eaves, pitch: 70, second: { from: 2.2, pitch: 30 } };
    case 'bell-cast':
      return { ...eaves, pitch: Math.max(15, pitch - 15), second: { from: 0.5, pitch } };
    case 'butterfly': {
      const low = longest(edges);
      return i === low || i === opposite(edges, low) ? { ...eaves, pitch: -Math.min(pitch, 12) } : verge;
    }
    case 'lean-to':
    case 'flat': {
      const low = longest(edges);
      const high = opposite(edges, low);
      if (i === low) return { ...eaves, pitch: form === 'flat' ? 2 : Math.min(pitch, 25) };
      return i === high && form === 'lean-to' ? { ...corner, is: 'abutment' } : verge;
    }
  }
}

const cornerOf = ({ id, x, y, bulge, facets }: RoofEdge): Corner => ({
  id,
  x,
  y,
  ...(bulge ? { bulge } : {}),
  ...(facets ? { facets } : {}),
});

/** The pitch and overhang that an edge has, or those of the others where it has none. */
function likeOf(edges: readonly RoofEdge[], edge: RoofEdge): { pitch: number; over: number } {
  const eaves = edges.find((one) => one.is === 'eaves' && one.pitch > 5 && !one.second);
  const pitch =
    edge.is === 'eaves' && !edge.second && edge.pitch > 5
      ? edge.pitch
      : eaves?.is === 'eaves'
        ? eaves.pitch
        : usual.pitch;
  return { pitch, over: edge.is === 'abutment' ? usual.over : edge.over };
}

const between = (edges: readonly RoofEdge[], i: number): [number, number] => {
  const [a, b] = [edges[i]!, edges[(i + 1) % edges.length]!];
  return [b.x - a.x, b.y - a.y];
};
const lengthOf = (edges: readonly RoofEdge[], i: number): number => Math.hypot(...between(edges, i));
const widthOf = lengthOf;

/** Whether an edge is the end of a wing: both of its corners turn inward, and what goes on from them runs back alongside, further than it is wide. */
function isEnd(edges: readonly RoofEdge[], i: number): boolean {
  const count = edges.length;
  const [before, after] = [(i + count - 1) % count, (i + 1) % count];
  if (edges[i]!.bulge || count < 4) return false;
  const [a, own, b] = [between(edges, before), between(edges, i), between(edges, after)];
  const cross = (p: [number, number], q: [number, number]): number => p[0] * q[1] - p[1] * q[0];
  if (cross(a, own) <= 0 || cross(own, b) <= 0) return false;
  const cos = (a[0] * b[0] + a[1] * b[1]) / (Math.hypot(...a) * Math.hypot(...b));
  const wide = Math.hypot(...own);
  return cos < -0.9 && wide < Math.max(Math.hypot(...a), Math.hypot(...b)) + 1e-6;
}

function longest(edges: readonly RoofEdge[]): number {
  return edges.reduce((best, _, i) => (lengthOf(edges, i) > lengthOf(edges, best) + 1e-6 ? i : best), 0);
}

/** The edge that runs back the most, farthest away. */
function opposite(edges: readonly RoofEdge[], low: number): number {
  const [dx, dy] = between(edges, low);
  const size = Math.hypot(dx, dy);
  const away = (i: number): number => {
    const [ex, ey] = between(edges, i);
    if (ex * dx + ey * dy > -0.9 * size * Math.hypot(ex, ey)) return -Infinity;
    return ((edges[i]!.y - edges[low]!.y) * dx - (edges[i]!.x - edges[low]!.x) * dy) / size;
  };
  return edges.reduce((best, _, i) => (away(i) > away(best) ? i : best), (low + 2) % edges.length);
}

/** A roof with each of its edges, its courts' included, made into another. */
export const withEdges = (roof: Roof, to: (edge: RoofEdge) => RoofEdge): Roof => ({
  ...roof,
  edges: roof.edges.map(to),
  ...(roof.courts ? { courts: roof.courts.map((court) => court.map(to)) } : {}),
});

/** Changes one edge of a roof. */
export const changeEdge = (roof: Roof, id: string, to: RoofEdge, what: string): ChangeSet =>
  edit(
    `${what} ${roof.name}`,
    putting(
      'elements',
      withEdges(roof, (edge) => (edge.id === id ? to : edge)),
    ),
  );

/** An edge made into another kind, with what it had kept where it still says something. */
export function edgeAs(roof: Roof, edge: RoofEdge, is: RoofEdge['is']): RoofEdge {
  const { pitch, over } = likeOf(edgesOfRoof(roof), edge);
  const corner = cornerOf(edge);
  if (is === 'eaves') return { ...corner, is, pitch, over };
  return is === 'verge' ? { ...corner, is, over } : { ...corner, is };
}

/** What the edges of a roof can be given all at once: pitch and overhang, degrees and metres, and the second pitch of those that have one. */
export type EdgeFigures = Partial<Pick<Extract<RoofEdge, { is: 'eaves' }>, 'pitch' | 'over' | 'second'>>;

/** Changes every edge of a roof that has what is changed: all eaves get one pitch, all that reach out one overhang. */
export function changeAllEdges(roof: Roof, to: EdgeFigures, what: string): ChangeSet {
  const one = (edge: RoofEdge): RoofEdge => ({
    ...edge,
    ...(edge.is === 'eaves' && to.pitch !== undefined ? { pitch: to.pitch } : {}),
    ...(edge.is === 'eaves' && edge.second && to.second ? { second: to.second } : {}),
    ...(edge.is !== 'abutment' && to.over !== undefined ? { over: to.over } : {}),
  });
  return edit(`${what} ${roof.name}`, putting('elements', withEdges(roof, one)));
}

/** Gives a roof a form. */
export const giveForm = (roof: Roof, form: RoofFormName): ChangeSet =>
  edit(`make ${roof.name} ${form}`, putting('elements', formed(roof, form)));

/** The walls that stand under a roof by their outline: those whose face lies on it or within. */
export function wallsUnder(document: ProjectDocument, roof: Element): Wall[] {
  return Object.values(document.elements).filter(
    (element): element is Wall => isInPlan(element) && element.top.kind === 'under' && element.top.roof === roof.id,
  );
}

/** Walls that stand plumb below a roof and do not reach up to it yet: it covers them from end to end. */
export const wallsBelow = (document: ProjectDocument, roof: Element): Wall[] =>
  Object.values(document.elements).filter(
    (element): element is Wall =>
      isInPlan(element) &&
      element.top.kind !== 'under' &&
      !element.batter &&
      element.start.z < roof.start.z &&
      isUnderRoof(document, element, roof),
  );

/** Lets walls reach up under a roof. */
export function putUnder(roof: Roof, walls: readonly Wall[]): ChangeSet {
  return edit(
    `put ${walls.length === 1 ? walls[0]!.name : `${walls.length} walls`} under ${roof.name}`,
    ...walls.map((wall) => under(wall, roof.id)),
  );
}
