/** What elements are split along: told in their own directions in documents, in those of space where they are cut. Metres, degrees. */
import type { Element, Split } from '@yard-arch/document';
import { chainCurtain, planeCurtain, type Curtain } from '../mesh/curtain.ts';
import { tidy } from '../tidy.ts';
import { hair } from '../tolerances.ts';
import type { Outline } from '../profile/flatten.ts';
import { pointAt, turned } from './chart.ts';
import type { Sheet } from './sheet.ts';

type Frame = Pick<Element, 'start' | 'turn'>;

/** A split as it lies in space. @param on the element whose directions it is told in */
export function splitInSpace(split: Split, { start, turn }: Frame): Split {
  const [cos, sin] = turned(turn);
  const at = ({ x, y }: { x: number; y: number }) => ({
    x: tidy(start.x + cos * x - sin * y),
    y: tidy(start.y + sin * x + cos * y),
  });
  if ('path' in split) return { ...split, path: split.path.map(at) };
  return { ...split, at: { ...at(split.at), z: tidy(start.z + split.at.z) }, turn: withinTurn(split.turn + turn) };
}

/** A split that lies in space, as an element tells it. */
export function splitOn(split: Split, { start, turn }: Frame): Split {
  const [cos, sin] = turned(turn);
  const at = ({ x, y }: { x: number; y: number }) => {
    const [dx, dy] = [x - start.x, y - start.y];
    return { x: tidy(cos * dx + sin * dy), y: tidy(cos * dy - sin * dx) };
  };
  if ('path' in split) return { ...split, path: split.path.map(at) };
  return { ...split, at: { ...at(split.at), z: tidy(split.at.z - start.z) }, turn: withinTurn(split.turn - turn) };
}

/** The split that keeps the other side. */
export function otherSide(split: Split): Split {
  if ('path' in split) return { ...split, path: [...split.path].reverse() };
  return { ...split, turn: withinTurn(split.turn + 180), tilt: tidy(0 - split.tilt) };
}

/** An angle within half a turn either way. */
const withinTurn = (degrees: number): number => tidy(degrees - 360 * Math.round(degrees / 360));

/**
 * The curtain of a split in space.
 * @param aside by how many hairs it is moved off: along an edge of what it splits it would leave faces of no width.
 * @returns null where its path crosses itself.
 */
export function curtainOf(split: Split, aside = 0): Curtain | null {
  const by = aside * hair;
  if ('path' in split) return chainCurtain(split.path.map(({ x, y }) => [x + 0.6 * by, y + 0.8 * by] as const));
  const [cos, sin] = turned(split.turn);
  const [flat, up] = turned(split.tilt);
  const normal = [flat * cos, flat * sin, up] as const;
  const { x, y, z } = split.at;
  return planeCurtain([x + by * normal[0], y + by * normal[1], z + by * normal[2]], normal);
}

/** As far as anything is drawn, metres: figures of the page are not as fine as those of the mesh. */
const drawnFar = 3000;

/** What a split keeps of a level, as a polygon in plan that goes far beyond what is built there; null where it is all or nothing of it, or the split cannot be. */
export function keptInPlan(split: Split, level: number): readonly (readonly [number, number])[] | null {
  if ('path' in split)
    return (
      chainCurtain(
        split.path.map(({ x, y }) => [x, y] as const),
        drawnFar,
      )?.inPlan ?? null
    );
  const [cos, sin] = turned(split.turn);
  const [flat, up] = turned(split.tilt);
  // A level plane has no line at any level.
  if (Math.abs(flat) < 1e-6) return null;
  const by = -((level - split.at.z) * up) / flat;
  const [x, y] = [split.at.x + by * cos, split.at.y + by * sin];
  const line = [
    [x - sin, y + cos],
    [x + sin, y - cos],
  ] as const;
  return chainCurtain([line[0], line[1]], drawnFar)!.inPlan!;
}

/** On which side of some curtains an opening lies, through the whole depth of its element. */
export function splitSide(
  { s, t, outline }: { s: number; t: number; outline: Pick<Outline, 'count' | 'xs' | 'ys'> },
  { chart, thickness }: Pick<Sheet, 'chart' | 'thickness'>,
  kept: readonly Curtain[],
): 'kept' | 'off' | 'across' {
  let [within, without] = [false, false];
  for (let i = 0; i < outline.count; i++)
    for (const n of [0, thickness]) {
      const [x, y, z] = pointAt(chart, s + outline.xs[i]!, t + outline.ys[i]!, n);
      if (kept.every((curtain) => curtain.keeps(x, y, z))) within = true;
      else without = true;
    }
  return within && without ? 'across' : within ? 'kept' : 'off';
}
