/** Parts that are let into the wall: their solids, and the room that each takes out of it, as if it were a niche. */
import { isSetIn, type Pattern, type SetIn, type StoneSill, type Units } from '@yard-arch/document';
import { LRUCache } from 'lru-cache';
import { upright } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { straightFrame } from '../reveal/frame.ts';
import { squareSections } from '../profile/section.ts';
import type { Outline } from '../profile/flatten.ts';
import { across } from '../setout/across.ts';
import { worded, type Placed } from '../setout/placed.ts';
import { micrometre, nanometre } from '../tolerances.ts';
import type { Area, Spot } from './area.ts';
import { Facets } from './facets.ts';
import { extruded } from './fillings.ts';
import { guarded } from './guarded.ts';
import { block } from './hardware.ts';
import type { Front, PartMesh } from './part.ts';
import { prism } from './solids.ts';
import { lintelStones, quoinStones, ringStones, sillRoom, type Setting, type Stone } from './stones.ts';
import { rounded } from '../tidy.ts';

/** A part to be let in: what makes it, and the outlines of the rooms that it takes, from the opening's lower left corner. */
interface LetIn {
  make: () => PartMesh;
  rooms: Room[];
}

/** The outline of a room, with the ways out of the opening at its points on curves. */
type Room = Pick<Setting, 'room' | 'outs'>;

/** Builds a part that is let in, for an opening in its place on its own face. @returns why there is none, in words to follow the opening's mark */
export function letIn(part: SetIn, placed: Placed, units: Units): PartMesh | string {
  const found = laidOut(part, placed, units);
  return typeof found === 'string' ? found : found.make();
}

/** Where a part lies that is let in; its solids are made apart from that, for its rooms are wanted without them. */
function laidOut(part: SetIn, placed: Placed, units: Units): LetIn | string {
  const refused = tooDeep(part, placed, units);
  if (refused) return refused;
  const middle = placed.profile.width / 2;
  const key = (figures: readonly Spot[]): string => JSON.stringify([{ ...part, id: '' }, figures.flat().map(rounded)]);
  if (part.kind === 'stone sill') {
    const found = sillRoom(part, placed);
    if (typeof found === 'string') return found;
    const { room, span, foot } = found;
    const make = (): PartMesh => ({
      key: key(room),
      name: part.kind,
      ...stoneSill(part, [span[0] - middle, span[1] - middle], foot),
    });
    return { make, rooms: [{ room }] };
  }
  const set = settingsOf(part, placed);
  if (typeof set === 'string') return set;
  const stones = set.flatMap((one) => one.stones);
  const make = (): PartMesh => ({
    key: key(stones.flatMap(({ points }) => points)),
    name: part.kind,
    ...ofStones(part, stones, middle),
  });
  return { make, rooms: set };
}

function ofStones({ depth }: SetIn, stones: readonly Stone[], middle: number): Pick<PartMesh, 'mesh' | 'front'> {
  const facets = new Facets(stones[0]!.material);
  const front: Front[] = [];
  for (const stone of stones) {
    const area = areaOfStone(stone, middle);
    prism(facets, stone.material, { area, range: { from: 0 - stone.proud, to: depth } }, [
      stone.along[0],
      0,
      stone.along[1],
    ]);
    front.push({ kind: 'solid', loops: [area.points], material: stone.material });
  }
  return { mesh: facets.finish(), front };
}

function settingsOf(part: Exclude<SetIn, StoneSill>, placed: Placed): Setting[] | string {
  if (part.kind === 'quoins') return quoinStones(part, placed);
  const one = part.kind === 'lintel' ? lintelStones(part, placed) : ringStones(part, placed);
  return typeof one === 'string' ? one : [one];
}

const areaOfStone = ({ points }: Stone, middle: number): Area => ({
  points: points.map(([x, y]): Spot => [x - middle, y]),
  edges: points.map(() => ({ side: null, chord: null })),
});

/** Why a part cannot be let in so deep. */
function tooDeep({ kind, depth }: SetIn, { depth: through, pattern, kind: cut }: Placed, units: Units): string | null {
  if (cut !== 'through' && cut !== 'niche' && cut !== 'niche to layer')
    return `its ${kind} needs an opening that is cut into the wall`;
  if (cut === 'through' && depth > through - nanometre)
    return `its ${kind} would go right through the wall, which is ${worded(through, units)} thick`;
  const step = firstStep(pattern, kind);
  if (step !== null && depth > step + nanometre)
    return `its ${kind} would reach behind the check of its reveal, at ${worded(step, units)}`;
  return null;
}

/** At what depth the sides beside a part step first. */
function firstStep({ sections }: Pattern, kind: SetIn['kind']): number | null {
  const beside = (
    {
      lintel: ['head'],
      'arch ring': ['head'],
      quoins: ['jamb-left', 'jamb-right'],
      'stone sill': ['sill'],
    } as const
  )[kind];
  const steps = beside.flatMap((side) => (sections?.[side]?.checks ?? []).map(({ depth }) => depth));
  return steps.length > 0 ? Math.min(...steps) : null;
}

/** A sill of stone: its falling top between level ends. */
function stoneSill(
  { material, height, depth, proud, fall, drip, ends }: StoneSill,
  [left, right]: [number, number],
  foot: number,
): Pick<PartMesh, 'mesh' | 'front'> {
  const facets = new Facets(material);
  const back = depth;
  const low = foot - height;
  const front: Front[] = [];
  // Its top falls from the back to the nosing; no lower there than a third of its height.
  const nose = Math.max(foot - fall, low + height / 3);
  const groove = drip && proud > 0.03;
  const section: [number, number][] = [
    [0 - proud, low],
    ...(groove
      ? ([
          [0 - proud + 0.012, low],
          [0 - proud + 0.012, low + 0.006],
          [0 - proud + 0.022, low + 0.006],
          [0 - proud + 0.022, low],
        ] as [number, number][])
      : []),
    [back, low],
    [back, foot],
    [0 - proud, nose],
  ];
  extruded(facets, material, section, [left, right]);
  front.push({ kind: 'solid', loops: [rectangle(left, right, low, nose)], material });
  const ended: [number, number][] =
    ends > micrometre
      ? [
          [left - ends, left],
          [right, right + ends],
        ]
      : [];
  for (const reach of ended) {
    facets.begin(material);
    block(facets, reach, [0, back], [low, foot]);
    front.push({ kind: 'solid', loops: [rectangle(reach[0], reach[1], low, foot)], material });
  }
  return { mesh: facets.finish(), front };
}

const rectangle = (x0: number, x1: number, z0: number, z1: number): Spot[] => [
  [x0, z0],
  [x1, z0],
  [x1, z1],
  [x0, z1],
];

const made = new WeakMap<Placed, Map<string, readonly Placed[] | string>>();

/**
 * The rooms that an opening's parts take out of its element, as niches in their places on its outer face; the same objects for the same
 * opening. What cannot be let in takes none.
 * @param own the opening on its own face.
 */
export function roomsOf(sheet: Sheet, own: Placed, units: Units): Placed[] {
  if (own.blockedUp) return [];
  return (own.pattern.parts ?? []).filter(isSetIn).flatMap((part) => {
    const key = JSON.stringify([part, own.face === 'inner' ? sheet.thickness : 0, units]);
    let byPart = made.get(own);
    if (!byPart) made.set(own, (byPart = new Map()));
    let rooms = byPart.get(key);
    if (rooms === undefined) byPart.set(key, (rooms = roomsFor(sheet, own, part, units)));
    return typeof rooms === 'string' ? [] : rooms;
  });
}

/** What a room's id begins with: the opening and the part that it is for. */
const roomId = (opening: string, part: string, k: number): string => `${opening} / ${part} / ${k}`;

/** The opening and the part that a room is for; null for anything else. */
export function roomFor(id: string): { opening: string; part: string } | null {
  // Asked of every opening: most are no rooms.
  if (!id.includes(' / ')) return null;
  const [opening, part, k] = id.split(' / ');
  return opening !== undefined && part !== undefined && k !== undefined ? { opening, part } : null;
}

function roomsFor(sheet: Sheet, own: Placed, part: SetIn, units: Units): readonly Placed[] | string {
  const found = guarded(part.kind, () => laidOut(part, own, units));
  if (typeof found === 'string') return found;
  return found.rooms.map(({ room: points, outs }, k) => {
    const [x, y] = [Math.min(...points.map(([x]) => x)), Math.min(...points.map(([, y]) => y))];
    const width = Math.max(...points.map(([px]) => px)) - x;
    const room: Placed = {
      id: roomId(own.id, part.id, k),
      element: own.element,
      s: own.s + x,
      t: own.t + y,
      profile: {
        width,
        height: Math.max(...points.map(([, py]) => py)) - y,
        springing: null,
        edges: [],
      },
      outline: outlineOfRoom(points, x, y, outs ?? []),
      pattern: own.pattern.jambs === 'radial' ? radialRoom : roomPattern,
      blockedUp: false,
      kind: 'niche',
      depth: part.depth,
      sections: squareSections(part.depth),
      ...(own.face ? { face: own.face } : {}),
      ...(own.drift ? { drift: own.drift } : {}),
    };
    return carriedAlong(sheet, own, room, x + width / 2 - own.profile.width / 2);
  });
}

/**
 * A room as it goes into the outer face: square through a curved one as its opening goes, where that does.
 * @param aside how far the room's middle is from the opening's, as it is seen from their own face
 */
function carriedAlong(sheet: Sheet, own: Placed, room: Placed, aside: number): Placed {
  const { chart } = sheet;
  const onOuter = (one: Placed): Placed => (one.face === 'inner' ? across(sheet, one) : one);
  const placed = onOuter(room);
  if (chart.kind === 'flat' || own.pattern.jambs === 'radial') return placed;
  const opening = onOuter(own);
  const middle = opening.s + opening.profile.width / 2;
  const way = own.face === 'inner' ? 0 - aside : aside;
  const { x, y, along, inward } = straightFrame(upright(chart), middle);
  const { carrier = { x, y, along: [along[0], along[1]], way: [inward[0], inward[1]], slope: 0 } } = opening;
  // It begins where its opening does on the outer face, and as high as what rises has come there.
  const ahead = (x - carrier.x) * carrier.way[0] + (y - carrier.y) * carrier.way[1];
  return {
    ...placed,
    s: middle + way - placed.profile.width / 2,
    t: placed.t + carrier.slope * ahead,
    carrier: { ...carrier, x: x + way * carrier.along[0], y: y + way * carrier.along[1] },
  };
}

/** The pattern that stands for all rooms. */
const roomPattern: Pattern = {
  id: 'room',
  name: 'Room',
  profile: { shape: 'rectangle' },
  sizes: {},
  reveal: { material: null },
  cut: { kind: 'niche', depth: 0.1 },
};
const radialRoom: Pattern = { ...roomPattern, jambs: 'radial' };

/** Outlines of rooms by their figures: those about openings that are alike are the very same, so that one is cut as the other. */
const outlines = new LRUCache<string, Outline>({ max: 2048 });

function outlineOfRoom(points: readonly Spot[], x: number, y: number, outs: readonly (Spot | null)[]): Outline {
  const key = JSON.stringify([points, outs]);
  let known = outlines.get(key);
  if (!known) outlines.set(key, (known = outlineAbout(points, x, y, outs)));
  return known;
}

function outlineAbout(points: readonly Spot[], x: number, y: number, outs: readonly (Spot | null)[]): Outline {
  const count = points.length;
  return {
    count,
    xs: Float64Array.from(points, ([px]) => px - x),
    ys: Float64Array.from(points, ([, py]) => py - y),
    next: Uint32Array.from(points, (_, i) => (i + 1) % count),
    loops: [0],
    side: points.map(([px, py], i) => {
      const [nx, ny] = points[(i + 1) % count]!;
      if (Math.abs(nx - px) < micrometre) return ny > py ? 'jamb-right' : 'jamb-left';
      return nx > px ? 'sill' : 'head';
    }),
    arcs: points.map((from, i) => {
      const [a, b] = [outs[i], outs[(i + 1) % count]];
      const to = points[(i + 1) % count]!;
      if (!a || !b) return null;
      // Steps between stones of unlike heights run along the way out.
      const length = Math.hypot(to[0] - from[0], to[1] - from[1]) * Math.hypot(...a);
      if (Math.abs((to[0] - from[0]) * a[0] + (to[1] - from[1]) * a[1]) > 0.5 * length) return null;
      const [p, q] = [Math.hypot(...a), Math.hypot(...b)];
      return { ax: -a[0] / p, ay: -a[1] / p, bx: -b[0] / q, by: -b[1] / q, seam: !outs[(i + count - 1) % count] };
    }),
  };
}
