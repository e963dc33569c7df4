/** Vaults and floors of rooms: within a ring of straight walls, vaults over a slab's outline and between two walls too. */
import { courseOf, tidy, tidyAngle, type Impossible, type Point } from '@yard-arch/core';
import {
  isInPlan,
  isOutlined,
  kinds,
  newId,
  putting,
  type Bay,
  type ChangeSet,
  type Element,
  type ProjectDocument,
  type Vault,
  type Wall,
} from '@yard-arch/document';
import { edit, freeElementName } from './make.ts';
import { noRing, ringOf } from './roofs.ts';

/** What can be laid over a room. */
export const vaultings = ['barrel', 'groin', 'cloister'] as const;
export type Vaulting = (typeof vaultings)[number];

/** A room: its corners within its walls, counter-clockwise, and the levels of its floor and of its lowest wall's top (metres). */
interface Room {
  corners: Point[];
  floor: number;
  top: number;
}

const minus = ([ax, ay]: Point, [bx, by]: Point): Point => [ax - bx, ay - by];
const areaOf = (points: readonly Point[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    return sum + (x * ny - nx * y) / 2;
  }, 0);

/** The room that an element stands about or floors, or why there is none. */
const anyRoom = (document: ProjectDocument, element: Element): Room | Impossible =>
  isInPlan(element) ? withinWalls(document, element) : overOutline(element);

/** The room that an element stands about or floors; or why there is none that can be vaulted. */
export function roomOf(document: ProjectDocument, element: Element): Room | Impossible {
  const room = anyRoom(document, element);
  if ('reason' in room) return room;
  const { corners } = room;
  const bulges = corners.every((a, i) => {
    const [b, c] = [corners[(i + 1) % corners.length]!, corners[(i + 2) % corners.length]!];
    const [[ux, uy], [vx, vy]] = [minus(b, a), minus(c, b)];
    return ux * vy - uy * vx > 1e-6;
  });
  if (!bulges || corners.length > 12)
    return {
      reason: bulges ? 'the room has more than twelve corners' : 'the room has corners that turn inward',
      mend: 'Vault it bay by bay: add a vaulted bay and type its corners.',
    };
  return room;
}

function withinWalls(document: ProjectDocument, wall: Extract<Element, { kind: 'wall' }>): Room | Impossible {
  const ring = ringOf(document, wall);
  if (!ring) return noRing(wall);
  const bent = ring.find(({ wall: own }) => own.sweep || own.runs?.length || own.batter);
  if (bent)
    return { reason: `${bent.wall.name} is not straight and plumb`, mend: 'Add a vaulted bay or a dome by itself.' };
  const ends = ring.map(({ wall: own, backward }) => {
    const { start, end } = courseOf(own);
    return backward ? ([end, start] as const) : ([start, end] as const);
  });
  const turn = Math.sign(areaOf(ends.map(([from]) => from)));
  // Each wall's face within the room: its course, or as far beside it as it is thick where its inner face looks in.
  const lines = ring.map(({ wall: own, backward }, i) => {
    const [from, to] = ends[i]!;
    const [dx, dy] = minus(to, from);
    const length = Math.hypot(dx, dy);
    const inner = backward ? turn < 0 : turn > 0;
    const by = inner ? own.layers.reduce((sum, layer) => sum + layer.thickness, 0) : 0;
    const at: Point = [from[0] - (turn * by * dy) / length, from[1] + (turn * by * dx) / length];
    return { at, way: [dx / length, dy / length] as Point };
  });
  const corners = lines.map((line, i) => meeting(lines[(i + lines.length - 1) % lines.length]!, line));
  if (corners.some((corner) => corner === null))
    return { reason: 'two of its walls lie in one line', mend: 'Join them to one wall first.' };
  const round = corners as Point[];
  return {
    corners: turn > 0 ? round : round.reverse(),
    floor: Math.max(...ring.map(({ wall: own }) => own.start.z)),
    top: Math.min(...ring.map(({ wall: own }) => own.start.z + own.height)),
  };
}

function meeting(a: { at: Point; way: Point }, b: { at: Point; way: Point }): Point | null {
  const cross = a.way[0] * b.way[1] - a.way[1] * b.way[0];
  if (Math.abs(cross) < 1e-6) return null;
  const [dx, dy] = minus(b.at, a.at);
  const share = (dx * b.way[1] - dy * b.way[0]) / cross;
  return [a.at[0] + share * a.way[0], a.at[1] + share * a.way[1]];
}

function overOutline(element: Element): Room | Impossible {
  if (!isOutlined(element) || element.kind !== 'slab')
    return { reason: 'a vault is laid over a ring of walls or over a slab', mend: 'Choose one of those.' };
  if (element.outline.some((point) => 'bulge' in point && point.bulge))
    return { reason: 'its outline has arcs', mend: 'Add a dome, or a vaulted bay, by itself.' };
  const [cos, sin] = [Math.cos((element.turn * Math.PI) / 180), Math.sin((element.turn * Math.PI) / 180)];
  const corners = element.outline.map(({ x, y }): Point => [
    element.start.x + cos * x - sin * y,
    element.start.y + sin * x + cos * y,
  ]);
  const floor = element.start.z;
  return { corners: areaOf(corners) > 0 ? corners : corners.reverse(), floor, top: Infinity };
}

/** Lays a floor in the room that a ring of walls stands about, from inner face to inner face; its top at the walls' foot, or with a datum. */
export function floorIn(
  document: ProjectDocument,
  wall: Element,
  datum: string | null = null,
): { changeSet: ChangeSet; id: string } | Impossible {
  const room = isInPlan(wall)
    ? anyRoom(document, wall)
    : { reason: 'a floor is laid within a ring of walls', mend: 'Choose one of those.' };
  if ('reason' in room) return room;
  const on = datum === null ? undefined : document.datums[datum];
  const id = newId('s');
  const [first] = room.corners;
  const level = on ? on.level : room.floor;
  const called = on ? `Floor, ${on.name}` : 'Floor';
  const slab: Element = {
    ...kinds.slab.fresh(
      {
        id,
        name: freeElementName(document, called),
        start: { x: tidy(first![0]), y: tidy(first![1]), z: tidy(level) },
        turn: 0,
      },
      wall.layers.at(-1)!.material,
    ),
    outline: room.corners.map((corner) => {
      const [x, y] = minus(corner, first!);
      return { x: tidy(x), y: tidy(y) };
    }),
    ...(on ? { stands: on.id } : {}),
  };
  return { id, changeSet: edit(`lay ${slab.name}`, putting('elements', slab)) };
}

/** Lays a vault over the room that an element stands about or floors, of its first layer's material; under the tops of its walls where they are high enough. */
export function vaultOver(
  document: ProjectDocument,
  element: Element,
  as: Vaulting,
): { changeSet: ChangeSet; id: string } | Impossible {
  const room = roomOf(document, element);
  if ('reason' in room) return room;
  const { corners } = room;
  const sides = corners.map((a, i) => Math.hypot(...minus(corners[(i + 1) % corners.length]!, a)));
  const square =
    corners.length === 4 && corners.every((a, i) => right(a, corners[(i + 1) % 4]!, corners[(i + 2) % 4]!));
  if (as === 'barrel' && !square)
    return { reason: 'a barrel stands over a rectangle', mend: 'Lay a groin or a cloister vault over it.' };
  // From the shorter side, across which a barrel spans.
  const first = sides.indexOf(Math.min(...sides));
  const own = corners.map((_, i) => corners[(first + i) % corners.length]!);
  const [dx, dy] = minus(own[1]!, own[0]!);
  const long = Math.hypot(dx, dy);
  const [cos, sin] = [dx / long, dy / long];
  const material = element.layers[0]!.material;
  const id = newId(as === 'barrel' ? 'v' : 'b');
  const name = freeElementName(
    document,
    as === 'barrel' ? 'Barrel' : as === 'groin' ? 'Groin vault' : 'Cloister vault',
  );
  const rise = tidy(long / 2);
  const fresh = {
    id,
    name,
    start: { x: tidy(own[0]![0]), y: tidy(own[0]![1]), z: 0 },
    turn: tidyAngle((Math.atan2(dy, dx) * 180) / Math.PI),
  };
  const base = as === 'barrel' ? kinds.vault.fresh(fresh, material) : kinds.bay.fresh(fresh, material);
  const thick = base.layers.reduce((sum, layer) => sum + layer.thickness, 0);
  const springing = Number.isFinite(room.top) ? Math.max(room.floor, room.top - rise - thick) : room.floor;
  const start = { ...fresh.start, z: tidy(springing) };
  const made: Vault | Bay =
    base.kind === 'vault'
      ? { ...base, start, span: tidy(long), rise, length: tidy(sides[(first + 1) % 4]!) }
      : {
          ...base,
          start,
          rise: as === 'groin' ? rise : tidy(Math.min(rise, inRadius(own))),
          ...(as === 'groin'
            ? { profile: 'ellipse' as const }
            : { severies: 'cloister' as const, profile: 'ellipse' as const }),
          corners: own.map((corner) => {
            const [x, y] = minus(corner, own[0]!);
            return { x: tidy(cos * x + sin * y), y: tidy(cos * y - sin * x) };
          }),
        };
  return { id, changeSet: edit(`lay ${name}`, putting('elements', made)) };
}

/** How far apart walls may be that a barrel is laid between, metres. */
const widest = 20;

/** What is between two walls that run alongside each other: the corner from which it goes across, and to the left of that along; metres. */
interface Between {
  at: Point;
  across: Point;
  long: number;
  span: number;
}

/** The faces of a straight plumb wall, as lines in plan. */
function facesOf(wall: Wall): { from: Point; to: Point; way: Point; off: Point; thick: number } | null {
  if (wall.sweep || wall.runs?.length || wall.batter) return null;
  const { start, end } = courseOf(wall);
  const [dx, dy] = minus(end, start);
  const size = Math.hypot(dx, dy);
  const way: Point = [dx / size, dy / size];
  const thick = wall.layers.reduce((sum, layer) => sum + layer.thickness, 0);
  // Its inner face is on the left of its outer one.
  return { from: start, to: end, way, off: [-way[1], way[0]], thick };
}

/** What is between two walls that run alongside each other; null where they do not. */
function between(wall: Wall, other: Wall): Between | null {
  const [a, b] = [facesOf(wall), facesOf(other)];
  if (!a || !b || Math.abs(a.way[0] * b.way[1] - a.way[1] * b.way[0]) > 1e-4) return null;
  const along = (p: Point): number => (p[0] - a.from[0]) * a.way[0] + (p[1] - a.from[1]) * a.way[1];
  const aside = (p: Point): number => (p[0] - a.from[0]) * a.off[0] + (p[1] - a.from[1]) * a.off[1];
  const facing = (b.off[0] * a.off[0] + b.off[1] * a.off[1]) * b.thick;
  const [low, high] = [
    Math.min(aside(b.from), aside(b.from) + facing),
    Math.max(aside(b.from), aside(b.from) + facing),
  ];
  const left = low >= a.thick - 1e-6;
  const span = left ? low - a.thick : -high;
  const ends = [along(b.from), along(b.to)];
  const from = Math.max(0, Math.min(...ends));
  const long = Math.min(along(a.to), Math.max(...ends)) - from;
  if (span < 0.3 || span > widest || long < 0.3) return null;
  const [begins, face] = left ? [from + long, a.thick] : [from, 0];
  return {
    at: [a.from[0] + begins * a.way[0] + face * a.off[0], a.from[1] + begins * a.way[1] + face * a.off[1]],
    across: left ? a.off : [-a.off[0], -a.off[1]],
    long,
    span,
  };
}

/** The walls that run alongside one, with room for a barrel between; the nearest first. */
export function wallsFacing(document: ProjectDocument, wall: Wall): Wall[] {
  return Object.values(document.elements)
    .filter(isInPlan)
    .flatMap((other) => {
      const gap = other.id === wall.id ? null : between(wall, other);
      return gap ? [{ other, span: gap.span }] : [];
    })
    .sort((p, q) => p.span - q.span)
    .map(({ other }) => other);
}

/** Lays a barrel between two walls, as far as they run alongside each other; it springs so that its crown is under the lower one's top, where that is high enough. */
export function vaultBetween(
  document: ProjectDocument,
  wall: Wall,
  other: Wall,
): { changeSet: ChangeSet; id: string } | Impossible {
  const gap = between(wall, other);
  if (!gap)
    return {
      reason: `${wall.name} and ${other.name} do not run alongside each other`,
      mend: `A barrel is laid between straight plumb walls that are parallel and at most ${widest} m apart.`,
    };
  const { at, across, long, span } = gap;
  const id = newId('v');
  const name = freeElementName(document, 'Barrel');
  const base = kinds.vault.fresh(
    {
      id,
      name,
      start: { x: tidy(at[0]), y: tidy(at[1]), z: 0 },
      turn: tidyAngle((Math.atan2(across[1], across[0]) * 180) / Math.PI),
    },
    wall.layers[0]!.material,
  );
  const thick = base.layers.reduce((sum, layer) => sum + layer.thickness, 0);
  const rise = tidy(span / 2);
  const floor = Math.max(wall.start.z, other.start.z);
  const top = Math.min(wall.start.z + wall.height, other.start.z + other.height);
  const made: Vault = {
    ...base,
    start: { ...base.start, z: tidy(Math.max(floor, top - rise - thick)) },
    span: tidy(span),
    rise,
    length: tidy(long),
  };
  return { id, changeSet: edit(`lay ${name}`, putting('elements', made)) };
}

const right = (a: Point, b: Point, c: Point): boolean => {
  const [[ux, uy], [vx, vy]] = [minus(b, a), minus(c, b)];
  return Math.abs(ux * vx + uy * vy) < 1e-6 * Math.hypot(ux, uy) * Math.hypot(vx, vy);
};

/** How far the middle of a polygon is from its nearest side. */
function inRadius(corners: readonly Point[]): number {
  const x = corners.reduce((sum, [px]) => sum + px, 0) / corners.length;
  const y = corners.reduce((sum, [, py]) => sum + py, 0) / corners.length;
  return Math.min(
    ...corners.map((a, i) => {
      const [dx, dy] = minus(corners[(i + 1) % corners.length]!, a);
      return Math.abs(dx * (y - a[1]) - dy * (x - a[0])) / Math.hypot(dx, dy);
    }),
  );
}
