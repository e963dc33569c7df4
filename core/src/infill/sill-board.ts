/** Sill boards: level on top, bedded on the sill as that falls and steps, as wide as the reveal as that splays (where a jamb steps, as it is at its narrowest), with a nosing and horns before the face. */
import type { SillBoard } from '@yard-arch/document';
import type { SectionLine } from '../profile/section.ts';
import type { Placed } from '../setout/placed.ts';
import type { Stands } from './infill.ts';
import type { PartMesh } from './part.ts';
import { roomIn } from './room.ts';
import { Facets, type Point } from './facets.ts';
import { micrometre, millimetre, nanometre } from '../tolerances.ts';
import { rounded } from '../tidy.ts';

/** A line through the depth: how far in, rising, and a value there. Two at one place are a step. */
type Line = readonly (readonly [number, number])[];

/** The figures of a board, metres. */
interface Figures {
  /** Its sides within the reveal, from the middle of the opening, and its underside above the opening's lowest; each from the face to its back. */
  left: Line;
  right: Line;
  bed: Line;
}

/** The board of an opening on its own face, or why it carries none. */
export function sillBoard(board: SillBoard, placed: Placed & Pick<Stands, 'until'>): PartMesh | string {
  const span = levelSill(placed);
  if (!span) return 'its outline has no level sill for a board';
  const back = backOf(board, placed);
  if (typeof back === 'string') return back;
  const { sections, profile, own, face } = placed;
  // Seen from behind, the jamb on the left is called the right one, as on its own face.
  const turned = own !== undefined && own !== face;
  const half = profile.width / 2;
  // Beside what does not rise upright from the sill it gets no wider with that.
  const beside = ([x, upright]: End, away: 1 | -1, section: SectionLine): Line =>
    unstepped(through(section, back)).map(([y, offset]) => [
      y,
      x - half + away * (upright ? offset : Math.min(0, offset)),
    ]);
  const figures: Figures = {
    left: beside(span[0], -1, sections[turned ? 'jamb-right' : 'jamb-left']),
    right: beside(span[1], 1, sections[turned ? 'jamb-left' : 'jamb-right']),
    bed: through(sections.sill, back).map(([y, offset]) => [y, 0 - offset]),
  };
  const narrowest = Math.min(...figures.right.map(([, x]) => x)) - Math.max(...figures.left.map(([, x]) => x));
  if (narrowest < millimetre) return 'its reveal leaves no room for a board on the sill';
  const key = JSON.stringify([
    'sill board',
    { ...board, id: '' },
    ...Object.values(figures).map((line: Line) => line.flat().map(rounded)),
  ]);
  return { key, name: 'sill board', mesh: made(board, figures) };
}

/** How high above an opening's lowest the top of the board on its sill is, on the face behind its own or on that; null where it has none. */
export function boardTop(placed: Placed, behind = false): number | null {
  const board = placed.pattern.parts?.find(
    (part): part is SillBoard => part.kind === 'sill board' && (part.behind ?? false) === behind,
  );
  const back = board && levelSill(placed) && backOf(board, placed);
  if (!board || typeof back !== 'number') return null;
  return board.thickness - Math.min(...through(placed.sections.sill, back).map(([, offset]) => offset));
}

/** How far in a board's back is: as far as it is to reach, or where what stands in the opening begins. */
const backOf = (board: SillBoard, placed: Placed & Pick<Stands, 'until'>): number | string =>
  board.reach === undefined ? (placed.until ?? roomIn(board, placed)) : Math.min(board.reach, placed.depth);

/** A section from where it begins to a depth. */
function through({ n, offset }: SectionLine, back: number): [number, number][] {
  const line: [number, number][] = [];
  for (let i = 0; i < n.length; i++) {
    if (n[i]! <= back + nanometre) line.push([n[i]!, offset[i]!]);
    const next = n[i + 1];
    if (next !== undefined && n[i]! < back - nanometre && next > back + nanometre)
      line.push([back, offset[i]! + ((offset[i + 1]! - offset[i]!) * (back - n[i]!)) / (next - n[i]!)]);
  }
  // A step just where it ends is of no concern.
  while (line.length > 2 && Math.abs(line.at(-1)![0] - line.at(-2)![0]) < nanometre) line.pop();
  return line;
}

/** A line without steps: one that has any is level at its least. */
function unstepped(line: [number, number][]): [number, number][] {
  const stepped = line.some(([y], i) => i > 0 && y - line[i - 1]![0] < nanometre);
  if (!stepped) return line;
  const least = Math.min(...line.map(([, value]) => value));
  return [
    [line[0]![0], least],
    [line.at(-1)![0], least],
  ];
}

type End = readonly [x: number, upright: boolean];

/** From where to where an outline runs level at its lowest, and whether it goes upright from there; null where it does nowhere. */
function levelSill({ outline: { count, xs, ys, next, arcs }, profile }: Placed): [End, End] | null {
  let best: number | null = null;
  const long = (i: number): number => xs[next[i]!]! - xs[i]!;
  for (let i = 0; i < count; i++) {
    const j = next[i]!;
    if (arcs[i] || Math.abs(ys[i]!) > micrometre || Math.abs(ys[j]!) > micrometre || xs[j]! <= xs[i]!) continue;
    if (best === null || long(i) > long(best)) best = i;
  }
  if (best === null || long(best) <= 0.05 * profile.width) return null;
  const [start, end] = [best, next[best]!];
  const before = next.indexOf(start);
  const upright = (i: number, j: number): boolean => Math.abs(xs[i]! - xs[j]!) < micrometre;
  return [
    [xs[start]!, upright(before, start)],
    [xs[end]!, upright(end, next[end]!)],
  ];
}

const along: Point = [1, 0, 0];
const inward: Point = [0, 1, 0];

/** The value of a line without steps at a depth. */
function at(line: Line, y: number): number {
  let i = 0;
  while (i + 2 < line.length && y > line[i + 1]![0]) i += 1;
  const [[y0, v0], [y1, v1]] = [line[i]!, line[i + 1]!];
  return v0 + ((v1 - v0) * (y - y0)) / (y1 - y0);
}

function made({ material, thickness, nosing, horns }: SillBoard, { left, right, bed }: Figures): PartMesh['mesh'] {
  const facets = new Facets(material);
  const top = Math.max(...bed.map(([, z]) => z)) + thickness;
  const low = bed[0]![1];
  const [back, lowBehind] = bed.at(-1)!;
  const eared = nosing > 0 && horns > 0;
  // From the face on it is as wide as the reveal; before it, as wide as there, or as its horns reach.
  const forth = (line: Line): Line => (nosing > 0 && !eared ? [[0 - nosing, line[0]![1]], ...line] : line);
  const [sideLeft, sideRight] = [forth(left), forth(right)];
  const under = nosing > 0 && !eared ? ([[0 - nosing, low], ...bed] as Line) : bed;
  const [inLeft, inRight] = [left[0]![1], right[0]![1]];
  const [outLeft, outRight] = eared ? [inLeft - horns, inRight + horns] : [inLeft, inRight];

  const point = ([y, x]: readonly [number, number]): Point => [x, y, top];
  facets.add(
    [
      ...(eared
        ? ([
            [outLeft, 0, top],
            [outLeft, 0 - nosing, top],
            [outRight, 0 - nosing, top],
            [outRight, 0, top],
          ] as Point[])
        : []),
      ...sideRight.map(point),
      ...[...sideLeft].reverse().map(point),
    ],
    along,
  );
  const upright = (x0: number, x1: number, y: number, from: number): void =>
    facets.add(
      [
        [x0, y, from],
        [x1, y, from],
        [x1, y, top],
        [x0, y, top],
      ],
      along,
    );
  upright(outLeft, outRight, 0 - nosing, low);
  upright(at(right, back), at(left, back), back, lowBehind);
  bottom(facets, under, sideLeft, sideRight);
  sideLeft.slice(1).forEach((to, i) => facets.add(beneath(sideLeft[i]!, to, under, top), inward));
  sideRight.slice(1).forEach((to, i) => facets.add(beneath(sideRight[i]!, to, under, top).reverse(), inward));
  if (eared) ears(facets, { outLeft, inLeft, inRight, outRight, nosing, low, top });
  return facets.finish();
}

/** The underside, part by part as it falls and steps, with a corner wherever a side turns. */
function bottom(facets: Facets, under: Line, left: Line, right: Line): void {
  under.slice(1).forEach((to, i) => {
    const from = under[i]!;
    const rise = (y: number): number => from[1] + ((to[1] - from[1]) * (y - from[0])) / (to[0] - from[0]);
    const edge = (side: Line): Point[] => [
      [at(side, from[0]), ...from],
      ...side.filter(([y]) => y > from[0] + nanometre && y < to[0] - nanometre).map(([y, x]): Point => [x, y, rise(y)]),
      [at(side, to[0]), ...to],
    ];
    facets.add([...edge(left), ...edge(right).reverse()], along);
  });
}

/** One straight part of a side, from the top down to the underside as that falls and steps; as the left one is seen. */
function beneath(from: readonly [number, number], to: readonly [number, number], under: Line, top: number): Point[] {
  const x = (y: number): number => from[1] + ((to[1] - from[1]) * (y - from[0])) / (to[0] - from[0]);
  const line: [number, number][] = [];
  const near = (a: number, b: number): boolean => Math.abs(a - b) < nanometre;
  const rise = (y: number, ahead: boolean): number => {
    const i = under.findIndex(
      ([at], k) => k > 0 && (ahead ? at > y + nanometre : at > y - nanometre) && at - under[k - 1]![0] > nanometre,
    );
    const [[y0, z0], [y1, z1]] = [under[i - 1]!, under[i]!];
    return z0 + ((z1 - z0) * (y - y0)) / (y1 - y0);
  };
  const [first, last] = [rise(from[0], true), rise(to[0], false)];
  // Where the underside steps just at the end of this part, the higher of both is a corner of it too.
  const steps = (y: number, own: number): number[] =>
    under.filter(([at, z]) => near(at, y) && z > own + nanometre).map(([, z]) => z);
  line.push(...steps(from[0], first).map((z): [number, number] => [from[0], z]), [from[0], first]);
  for (const [y, z] of under) if (y > from[0] + nanometre && y < to[0] - nanometre) line.push([y, z]);
  line.push([to[0], last], ...steps(to[0], last).map((z): [number, number] => [to[0], z]));
  return [[from[1], from[0], top], [to[1], to[0], top], ...line.reverse().map(([y, z]): Point => [x(y), y, z])];
}

interface Ears {
  outLeft: number;
  inLeft: number;
  inRight: number;
  outRight: number;
  nosing: number;
  low: number;
  top: number;
}

/** The underside of the nosing, and what of its horns stands before the face. */
function ears(facets: Facets, { outLeft, inLeft, inRight, outRight, nosing, low, top }: Ears): void {
  const before = 0 - nosing;
  facets.add(
    [
      [outLeft, before, low],
      [outLeft, 0, low],
      [inLeft, 0, low],
      [inRight, 0, low],
      [outRight, 0, low],
      [outRight, before, low],
    ],
    along,
  );
  for (const [x0, x1] of [
    [inLeft, outLeft],
    [outRight, inRight],
  ] as const)
    facets.add(
      [
        [x0, 0, low],
        [x1, 0, low],
        [x1, 0, top],
        [x0, 0, top],
      ],
      along,
    );
  const end = (x: number): Point[] => [
    [x, before, top],
    [x, 0, top],
    [x, 0, low],
    [x, before, low],
  ];
  facets.add(end(outLeft), inward);
  facets.add(end(outRight).reverse(), inward);
}
