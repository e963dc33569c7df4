/** Patches laid flat at true scale, side by side: where each stands in the texture. */
import { nanometre as same } from '../tolerances.ts';
import type { LocalFrames } from './local-frames.ts';
import type { PlacedTube } from './patches.ts';

/** A place in the texture, or a way in it, metres. */
export type Uv = readonly [number, number];

export class LaidPatches {
  /** Where each patch is laid: texture at the origin of its own plane, and the way of its edge there, a unit vector. */
  private readonly u: Float64Array;
  private readonly v: Float64Array;
  private readonly cos: Float64Array;
  private readonly sin: Float64Array;
  /** Corners that lie in no plane with their patch, where they are laid. */
  private readonly bent = new Map<number, Uv>();

  constructor(
    readonly placed: PlacedTube,
    readonly local: LocalFrames,
    readonly cornerStart: Uint32Array,
  ) {
    const count = placed.patches.length;
    this.u = new Float64Array(count);
    this.v = new Float64Array(count);
    this.cos = new Float64Array(count);
    this.sin = new Float64Array(count);
  }

  /** The face's own texture at a node of the tube. */
  faceUv(node: number): Uv {
    return [this.placed.u[node]!, this.placed.v[node]!];
  }

  /** Where a corner of a patch is laid, in the patch's own plane. */
  uvOf(p: number, corner: number): Uv {
    const c = this.cornerStart[p]! + corner;
    const [a, l, cos, sin] = [this.local.a[c]!, this.local.l[c]!, this.cos[p]!, this.sin[p]!];
    return [this.u[p]! + a * cos + l * sin, this.v[p]! + a * sin - l * cos];
  }

  laidAt(p: number, corner: number): Uv {
    return this.bent.get(this.cornerStart[p]! + corner) ?? this.uvOf(p, corner);
  }

  /** Puts corners, by their own numbers, where they do not lie in the plane of their patch. */
  put(laid: ReadonlyMap<number, Uv>): void {
    laid.forEach((uv, corner) => this.bent.set(corner, uv));
  }

  /** Lays a patch so that its corner stands at a place, its edge going a given way. */
  private lay(p: number, corner: number, [u, v]: Uv, [cos, sin]: Uv): void {
    const c = this.cornerStart[p]! + corner;
    this.u[p] = u - (this.local.a[c]! * cos + this.local.l[c]! * sin);
    this.v[p] = v - (this.local.a[c]! * sin - this.local.l[c]! * cos);
    this.cos[p] = cos;
    this.sin[p] = sin;
  }

  /** Lays a patch so that one of its sides, given by its corners, lies on a side of patch q, which is laid already. */
  private layOn(p: number, [near, far]: Uv, q: number, [onNear, onFar]: Uv): void {
    const { local } = this;
    const [u, v] = this.uvOf(q, onNear);
    const [fu, fv] = this.uvOf(q, onFar);
    const [c, d] = [this.cornerStart[p]! + near, this.cornerStart[p]! + far];
    const [x, y] = [local.a[d]! - local.a[c]!, local.l[c]! - local.l[d]!];
    const [du, dv] = [fu - u, fv - v];
    // The turn that takes (x, y) to (du, dv).
    const [cos, sin] = [x * du + y * dv, x * dv - y * du];
    const size = Math.sqrt(cos * cos + sin * sin);
    const nothing = du * du + dv * dv < same * same || x * x + y * y < same * same;
    this.lay(p, near, [u, v], nothing ? [this.cos[q]!, this.sin[q]!] : [cos / size, sin / size]);
  }

  /** Lays the patches of one row of edges, given in order, from its start on, or from its end back; the first of them goes a given way. */
  run(list: readonly number[], from: Uv, way: Uv, backward: boolean): void {
    const { patches } = this.placed;
    for (let k = 0; k < list.length; k++) {
      const i = backward ? list.length - 1 - k : k;
      const { startNear, startFar, endNear, endFar } = patches[list[i]!]!;
      if (k === 0) {
        this.lay(list[i]!, backward ? endNear : startNear, from, way);
        continue;
      }
      const q = list[backward ? i + 1 : i - 1]!;
      const other = patches[q]!;
      if (backward) this.layOn(list[i]!, [endNear, endFar], q, [other.startNear, other.startFar]);
      else this.layOn(list[i]!, [startNear, startFar], q, [other.endNear, other.endFar]);
    }
  }

  /** Writes the texture of a patch's corners. */
  write(p: number, uvs: Float64Array): void {
    const { local, cornerStart, bent } = this;
    const [u, v, cos, sin] = [this.u[p]!, this.v[p]!, this.cos[p]!, this.sin[p]!];
    for (let c = cornerStart[p]!; c < cornerStart[p + 1]!; c++) {
      const a = local.a[c]!;
      const l = local.l[c]!;
      const own = bent.size > 0 ? bent.get(c) : undefined;
      uvs[2 * c] = own ? own[0] : u + a * cos + l * sin;
      uvs[2 * c + 1] = own ? own[1] : v + a * sin - l * cos;
    }
  }
}
