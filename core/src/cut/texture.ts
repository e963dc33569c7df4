/** Laying texture: what a document asks of a role's texture, after it was unrolled at true scale. */
import type { Texture } from '@yard-arch/document';
import { turned } from '../element/chart.ts';

type Lay = (u: number, v: number) => readonly [number, number];

/** As it was unrolled. */
export const plain: Lay = (u, v) => [u, v];

/** Mirrored (in u), turned about the origin (degrees), then moved (metres). */
export function laidOut(texture: Texture | undefined): Lay {
  if (!texture || (!texture.mirror && !texture.turn && !texture.offset)) return plain;
  const [cos, sin] = turned(texture.turn ?? 0);
  const { u: du, v: dv } = texture.offset ?? { u: 0, v: 0 };
  const flip = texture.mirror ? -1 : 1;
  return (u, v) => [cos * flip * u - sin * v + du, sin * flip * u + cos * v + dv];
}
