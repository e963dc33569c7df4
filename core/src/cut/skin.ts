/** Skins: one closed solid between two depths of a sheet with its openings cut, from loops and tubes to a finished mesh. */
import { developedAt, directionsAt, type BentChart, type FlatChart } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import type { Role } from '../mesh/cut-mesh.ts';
import type { MeshBuilder } from '../mesh/builder.ts';
import { FaceLoops, triangulateFace } from '../mesh/face.ts';
import type { Region } from '../mesh/region.ts';
import type { Side } from '../profile/profile.ts';
import { dress, type Dressed } from '../reveal/dress.ts';
import type { EdgeLoop } from '../reveal/loop.ts';
import { placeBent, placeFlat, straightFrame, type FaceLines, type Frame, type PlacedTube } from '../reveal/place.ts';
import { makeTube } from '../reveal/tube.ts';
import type { Placed } from '../setout/resolve.ts';
import { Inexpressible, loopsOfOpening, rangeOf, slabsOf, type Slab } from './group.ts';
import { planeBetween, type PlaneFace } from './plane.ts';
import { laidOut } from './texture.ts';

const same = 1e-9;
/** The chart in which templates are made: right-handed, with depth running down z. */
const local: FlatChart = { kind: 'flat', origin: [0, 0, 0], along: [1, 0, 0], up: [0, 1, 0], inward: [0, 0, -1] };
const localFrame = [1, 0, 0, 0, 1, 0, 0, 0, -1];

/** Sets of openings that are cut together, as found on the face. */
export interface Grouping {
  /** Openings that stand clear of all else. */
  singles: readonly number[];
  /** Openings that meet one another. */
  groups: readonly (readonly number[])[];
  /** Openings that meet the sheet's edge, or whatever else must be cut with it. */
  atEdge: readonly number[];
}

/** One skin of a sheet. */
export interface Skin {
  from: number;
  to: number;
  /** Whether it is all layers together: then faces are divided where layers meet. */
  whole: boolean;
}

interface Template {
  placed: PlacedTube;
  dressed: Dressed;
  /** Patches by side and layer, in the order in which they are written. */
  runs: { side: Side; layer: number; patches: number[] }[];
}

/** What is made of one skin: the outer face that is left, for the drawing, is its region at the lesser depth. */
export interface SkinResult {
  outer: Region;
}

const sideOrder: Record<Side, number> = { sill: 0, 'jamb-right': 1, head: 2, 'jamb-left': 3 };

/** Cuts a skin and writes it into a mesh. @throws Inexpressible, Collapsed, BeyondCurve, NotTriangulable, TooTangled */
export function cutSkin(builder: MeshBuilder, sheet: Sheet, openings: readonly Placed[], grouping: Grouping, skin: Skin, lines: FaceLines | null): SkinResult {
  return new SkinCut(builder, sheet, openings, skin, lines).cut(grouping);
}

class SkinCut {
  private readonly outer = new FaceLoops();
  private readonly inner = new FaceLoops();
  private readonly frames: Frame[] = [{ kind: 'proportional' }];
  private readonly backs: { loops: FaceLoops; role: Role; opening: number; n: number; facing: -1 | 1; layer: number }[] = [];
  private readonly developed = new Map<number, Float64Array>();

  constructor(
    private readonly builder: MeshBuilder,
    private readonly sheet: Sheet,
    private readonly openings: readonly Placed[],
    private readonly skin: Skin,
    private readonly lines: FaceLines | null,
  ) {
    if (sheet.chart.kind === 'bent') for (const opening of openings) this.frames.push(this.frameOf(opening));
  }

  private frameOf(opening: Placed): Frame {
    if (opening.pattern.jambs === 'radial') return { kind: 'proportional' };
    return straightFrame(this.sheet.chart, opening.s + opening.profile.width / 2);
  }

  cut({ singles, groups, atEdge }: Grouping): SkinResult {
    const { builder, sheet, skin, openings } = this;
    const pending: (() => void)[] = [];
    this.group(atEdge, true, pending);
    for (const k of singles) this.single(k, pending);
    for (const group of groups) this.group(group, false, pending);

    // Faces first, so that what is largest comes first in the mesh.
    const { layers, chart } = sheet;
    const first = layerAt(sheet, skin.from + same);
    const last = layerAt(sheet, skin.to - same);
    const region = this.outer.region;
    const triangles = triangulateFace(region, this.ribsAt(skin.from));
    builder.begin({ opening: null, role: 'outer face', layer: first, material: layers[first]!.material });
    this.face(this.outer, triangles, skin.from, -1);
    builder.begin({ opening: null, role: 'inner face', layer: last, material: layers[last]!.material });
    const shared = chart.kind === 'flat' && this.inner.isLike(this.outer);
    this.face(this.inner, shared ? triangles : triangulateFace(this.inner.region, this.ribsAt(skin.to)), skin.to, 1);
    for (const write of pending) write();
    for (const back of this.backs) {
      const { pattern, id } = openings[back.opening]!;
      const material = back.role === 'imprint' && pattern.cut?.kind === 'imprint' && pattern.cut.material ? pattern.cut.material : layers[back.layer]!.material;
      builder.begin({ opening: id, role: back.role, layer: back.layer, material });
      this.face(back.loops, triangulateFace(back.loops.region, this.ribsAt(back.n)), back.n, back.facing, back.opening);
    }
    return { outer: region };
  }

  private ribsAt(n: number): Float64Array | null {
    const { chart } = this.sheet;
    if (chart.kind === 'flat') return null;
    let known = this.developed.get(n);
    if (!known) this.developed.set(n, (known = developedAt(chart, n)));
    return known;
  }

  /** The range of an opening within this skin, or null where it does not reach it. */
  private within(opening: Placed): [number, number] | null {
    const { from, to } = this.skin;
    const [a, b] = rangeOf(opening);
    if (opening.kind === 'boss') return from <= same ? [a, b] : null;
    if (opening.kind === 'imprint') return from <= same ? [0, 0] : null;
    return b > from + same ? [from, Math.min(b, to)] : null;
  }

  private single(k: number, pending: (() => void)[]): void {
    const opening = this.openings[k]!;
    const range = this.within(opening);
    if (!range) return;
    const { chart } = this.sheet;
    if (opening.kind === 'imprint') {
      this.imprint(k);
      return;
    }
    if (chart.kind === 'bent' || this.lines) {
      const placed = this.place(makeTube(loopsOfOpening(opening, k + 1, opening.s, opening.t), range[0], range[1], this.sheet.boundaries, this.skin.whole));
      const vertices = this.take(placed);
      this.ends(placed, vertices, k, range);
      pending.push(() => this.write(placed, this.dressed(placed), vertices));
      return;
    }
    const template = templateOf(opening, range, this.sheet, this.skin.whole);
    const { placed } = template;
    const base = this.builder.takeVertices(placed.u.length);
    const vertices = placed.u.map((_, v) => base + v);
    this.stand(placed, opening, base);
    this.ends(placed, vertices, k, range, opening.s, opening.t);
    pending.push(() => this.instance(template, opening, base));
  }

  private place(tube: ReturnType<typeof makeTube>): PlacedTube {
    const { chart } = this.sheet;
    return chart.kind === 'bent' ? placeBent(tube, chart, this.frames) : placeFlat(tube, chart, this.lines);
  }

  private take(placed: PlacedTube): number[] {
    const { positions } = placed;
    const base = this.builder.takeVertices(placed.u.length);
    for (let v = 0; v < placed.u.length; v++) this.builder.put(base + v, positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
    return placed.u.map((_, v) => base + v);
  }

  /** Stands a template's vertices at an opening's place on a flat sheet. */
  private stand({ u, v, n }: PlacedTube, { s, t }: Placed, base: number): void {
    const { along, up, inward, origin } = this.sheet.chart as FlatChart;
    for (let q = 0; q < u.length; q++) {
      const [x, y, z] = [s + u[q]!, t + v[q]!, n[q]!];
      this.builder.put(
        base + q,
        origin[0] + x * along[0] + y * up[0] + z * inward[0],
        origin[1] + x * along[1] + y * up[1] + z * inward[1],
        origin[2] + x * along[2] + y * up[2] + z * inward[2],
      );
    }
  }

  /** Gives the faces the loops at a tube's ends, and a niche its back or a boss its face. */
  private ends(placed: PlacedTube, vertices: readonly number[], k: number, range: readonly [number, number], s = 0, t = 0): void {
    const opening = this.openings[k]!;
    const add = (to: FaceLoops, loops: readonly number[][], backward = false): void => {
      for (const loop of loops) {
        const order = backward ? [...loop].reverse() : loop;
        to.add(
          order.map((v) => vertices[v]!),
          order.map((v) => placed.u[v]! + s),
          order.map((v) => placed.v[v]! + t),
        );
      }
    };
    const { from, to } = this.skin;
    if (opening.kind === 'boss') {
      add(this.outer, placed.far, true);
      const loops = new FaceLoops();
      add(loops, placed.near);
      this.backs.push({ loops, role: 'boss face', opening: k, n: range[0], facing: -1, layer: 0 });
      return;
    }
    if (range[0] <= from + same) add(this.outer, placed.near);
    if (range[1] >= to - same) add(this.inner, placed.far);
    else {
      const loops = new FaceLoops();
      add(loops, placed.far, true);
      this.backs.push({ loops, role: 'back', opening: k, n: range[1], facing: -1, layer: layerAt(this.sheet, range[1] + same) });
    }
  }

  private imprint(k: number): void {
    const opening = this.openings[k]!;
    const loops: EdgeLoop[] = loopsOfOpening({ ...opening, sections: squares }, k + 1, opening.s, opening.t);
    const placed = this.place(makeTube(loops, 0, 0.5 * this.sheet.thickness, this.sheet.boundaries, false));
    const base = this.builder.vertexCount;
    // Only the ring on the face is used.
    const vertices = new Map<number, number>();
    const { positions } = placed;
    for (const loop of placed.near) for (const v of loop) if (!vertices.has(v)) vertices.set(v, base + vertices.size);
    this.builder.takeVertices(vertices.size);
    for (const [v, vertex] of vertices) this.builder.put(vertex, positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
    const inside = new FaceLoops();
    for (const loop of placed.near) {
      const points = (order: readonly number[]): [number[], number[], number[]] => [order.map((v) => vertices.get(v)!), order.map((v) => placed.u[v]!), order.map((v) => placed.v[v]!)];
      this.outer.add(...points(loop));
      inside.add(...points([...loop].reverse()));
    }
    this.backs.push({ loops: inside, role: 'imprint', opening: k, n: 0, facing: -1, layer: 0 });
  }

  /** Cuts openings that meet, slab by slab, and the planes between the slabs. */
  private group(group: readonly number[], atEdge: boolean, pending: (() => void)[]): void {
    const { sheet, skin } = this;
    const members = group.map((k) => ({ opening: this.openings[k]!, operand: k + 1 })).filter(({ opening }) => this.within(opening) !== null);
    if (members.length === 0 && !atEdge) return;
    if (members.some(({ opening }) => opening.kind === 'imprint')) throw new Inexpressible();
    const slabs = slabsOf(sheet, members, atEdge, skin.from, skin.to);
    if (sheet.chart.kind === 'bent') this.checkFrames(slabs);
    const placed = slabs.map((slab) => this.place(makeTube(slab.loops, slab.from, slab.to, sheet.boundaries, skin.whole)));
    const vertices: number[][] = placed.map((tube) => this.take(tube));
    const ends = (i: number, which: 'near' | 'far', to: FaceLoops): void => {
      for (const loop of placed[i]![which])
        to.add(
          loop.map((v) => vertices[i]![v]!),
          loop.map((v) => placed[i]!.u[v]!),
          loop.map((v) => placed[i]!.v[v]!),
        );
    };
    if (slabs[0]!.from < skin.from - same) {
      // Before the face only bosses stand; their outermost loops are faces of their own.
      const loops = new FaceLoops();
      ends(0, 'near', loops);
      this.backs.push({ loops, role: 'boss face', opening: bossIn(members), n: slabs[0]!.from, facing: -1, layer: 0 });
    } else ends(0, 'near', this.outer);
    for (let i = 0; i + 1 < slabs.length; i++) {
      const n = slabs[i]!.to;
      const faces = planeBetween(placed[i]!, vertices[i]!, slabs[i]!.within, placed[i + 1]!, vertices[i + 1]!, slabs[i + 1]!.within, this.builder);
      for (const face of faces) this.planeFace(face, n, members);
    }
    ends(slabs.length - 1, 'far', this.inner);
    placed.forEach((tube, i) => pending.push(() => this.write(tube, this.dressed(tube), vertices[i]!)));
  }

  private planeFace(face: PlaneFace, n: number, members: readonly { opening: Placed; operand: number }[]): void {
    if (Math.abs(n - this.skin.from) < same && face.facing === -1) {
      for (const { vertices, xs, ys } of face.loops) this.outer.add(vertices, xs, ys);
      return;
    }
    const loops = new FaceLoops();
    for (const { vertices, xs, ys } of face.loops) loops.add(vertices, xs, ys);
    const owner = members.find(({ opening }) => Math.abs(rangeOf(opening)[n < 0 ? 0 : 1] - n) < 1e-7) ?? members[0]!;
    const role: Role = n < -same ? 'boss face' : 'back';
    this.backs.push({ loops, role, opening: owner.operand - 1, n, facing: face.facing, layer: layerAt(this.sheet, Math.max(0, n + same)) });
  }

  /** On a bent chart a group must be carried by one frame, and meet the sheet's edge only where that is level. */
  private checkFrames(slabs: readonly Slab[]): void {
    for (const { loops } of slabs)
      for (const loop of loops)
        loop.forEach((edge, i) => {
          const before = loop[(i + loop.length - 1) % loop.length]!;
          if (edge.operand === before.operand) return;
          const frame = this.frames[Math.max(edge.operand, before.operand)]!;
          if (frame.kind === 'proportional' && this.frames[Math.min(edge.operand, before.operand)]!.kind === 'proportional') return;
          if (edge.operand > 0 && before.operand > 0) throw new Inexpressible();
          const own = edge.operand === 0 ? edge : before;
          if (Math.abs(own.dy) > 1e-9) throw new Inexpressible();
        });
  }

  private dressed(placed: PlacedTube): Dressed {
    const { chart } = this.sheet;
    const seam = (edge: { operand: number; side: Side | null; sense: 1 | -1 }): 'start' | 'crown' | 'end' => {
      if (edge.operand === 0 || !edge.side) return 'start';
      return seamAsRun(this.openings[edge.operand - 1]!.pattern.texture?.[edge.side]?.seam, edge.sense);
    };
    if (chart.kind === 'flat') {
      const frame = [...chart.along, ...chart.up, ...chart.inward];
      return dress(placed, () => frame, seam);
    }
    return dress(placed, (v) => this.frameAt(placed, v, chart), seam);
  }

  private frameAt(placed: PlacedTube, v: number, chart: BentChart): number[] {
    const frame = this.frames[placed.frame[v] ?? 0]!;
    if (frame.kind === 'straight') return [...frame.along, 0, 0, 1, ...frame.inward];
    const ribs = this.ribsAt(placed.n[v]!)!;
    const u = placed.u[v]!;
    let f = 0;
    while (f + 2 < ribs.length && ribs[f + 1]! <= u) f += 1;
    const s = chart.s[f]! + ((u - ribs[f]!) / (ribs[f + 1]! - ribs[f]!)) * (chart.s[f + 1]! - chart.s[f]!);
    const { along, up, inward } = directionsAt(chart, s);
    return [...along, ...up, ...inward];
  }

  /** Writes a placed tube, in runs by opening, side and layer. */
  private write(placed: PlacedTube, dressed: Dressed, vertices: readonly number[]): void {
    const { tube, patches } = placed;
    const groups = new Map<number, number[]>();
    patches.forEach((patch, p) => {
      const face = tube.faces[patch.face]!;
      const { operand, side } = tube.edges[face.edge]!;
      const key = (operand * 4 + (side && operand > 0 ? sideOrder[side] : 0)) * 32 + face.layer;
      const list = groups.get(key);
      if (list) list.push(p);
      else groups.set(key, [p]);
    });
    for (const key of [...groups.keys()].sort((a, b) => a - b)) {
      const list = groups.get(key)!;
      const face = tube.faces[patches[list[0]!]!.face]!;
      const { operand, side } = tube.edges[face.edge]!;
      this.beginRun(operand, side, face.layer);
      const lay = this.layOf(operand, side);
      for (const p of list) {
        const first = this.builder.cornerCount - dressed.cornerStart[p]!;
        patches[p]!.nodes.forEach((v, i) => {
          const c = dressed.cornerStart[p]! + i;
          const [u, w] = lay(dressed.uvs[2 * c]!, dressed.uvs[2 * c + 1]!);
          const { normals } = dressed;
          this.builder.corner(vertices[v]!, normals[3 * c]!, normals[3 * c + 1]!, normals[3 * c + 2]!, u, w);
        });
        this.faces(dressed, p, first);
      }
    }
  }

  private faces(dressed: Dressed, p: number, first: number): void {
    const { triangles, triangleStart, cornerStart } = dressed;
    const [from, to] = [triangleStart[p]!, triangleStart[p + 1]!];
    for (let i = 3 * from; i < 3 * to; i += 3) this.builder.triangle(first + triangles[i]!, first + triangles[i + 1]!, first + triangles[i + 2]!);
    this.builder.polygonFrom(first + cornerStart[p]!, cornerStart[p + 1]! - cornerStart[p]!);
  }

  private beginRun(operand: number, side: Side | null, layer: number): void {
    const { layers } = this.sheet;
    if (operand === 0) return this.builder.begin({ opening: null, role: 'edge', layer, material: layers[layer]!.material });
    const { id, pattern } = this.openings[operand - 1]!;
    const { reveal } = pattern;
    this.builder.begin({ opening: id, role: side!, layer, material: reveal.sides?.[side!] ?? reveal.material ?? layers[layer]!.material });
  }

  private layOf(operand: number, side: Side | null): (u: number, v: number) => readonly [number, number] {
    const texture = operand === 0 ? this.sheet.texture?.edge : this.openings[operand - 1]!.pattern.texture?.[side!];
    return laidOut(texture);
  }

  /** Writes a template at an opening's place on a flat sheet. */
  private instance({ placed, dressed, runs }: Template, { s, t, id, pattern }: Placed, base: number): void {
    const { along, up, inward } = this.sheet.chart as FlatChart;
    const { builder, sheet } = this;
    const { normals, uvs, cornerStart } = dressed;
    const material = pattern.reveal.material;
    for (const { side, layer, patches } of runs) {
      builder.begin({ opening: id, role: side, layer, material: pattern.reveal.sides?.[side] ?? material ?? sheet.layers[layer]!.material });
      const lay = pattern.texture?.[side] ? laidOut(pattern.texture[side]) : null;
      for (const p of patches) {
        const first = builder.cornerCount - cornerStart[p]!;
        const { nodes } = placed.patches[p]!;
        for (let i = 0; i < nodes.length; i++) {
          const q = nodes[i]!;
          const c = cornerStart[p]! + i;
          const [nx, ny, nz] = [normals[3 * c]!, normals[3 * c + 1]!, -normals[3 * c + 2]!];
          let [tu, tv] = [s + uvs[2 * c]!, t + uvs[2 * c + 1]!];
          if (lay) [tu, tv] = lay(tu, tv) as [number, number];
          builder.corner(
            base + q,
            nx * along[0] + ny * up[0] + nz * inward[0],
            nx * along[1] + ny * up[1] + nz * inward[1],
            nx * along[2] + ny * up[2] + nz * inward[2],
            tu,
            tv,
          );
        }
        this.faces(dressed, p, first);
      }
    }
  }

  /** Writes a face at depth n: facing out (−1) or in (1). */
  private face(loops: FaceLoops, triangles: Uint32Array, n: number, facing: -1 | 1, opening = -1): void {
    const { builder, sheet } = this;
    const { chart, texture } = sheet;
    const { vertex, xs, ys } = loops;
    const pattern = opening >= 0 ? this.openings[opening]!.pattern : null;
    const lay = laidOut(pattern ? pattern.texture?.[pattern.cut?.kind === 'imprint' ? 'imprint' : 'back'] : facing < 0 ? texture?.outer : texture?.inner);
    const ribs = this.ribsAt(n);
    const long = ribs ? ribs.at(-1)! : sheet.length;
    // Seen from inside, texture runs on from the wall's end.
    const uv = (x: number, y: number): readonly [number, number] => lay(facing < 0 ? x : sheet.length + sheet.thickness + (long - x), y);
    const order = facing < 0 ? [0, 1, 2] : [0, 2, 1];
    if (chart.kind === 'flat') {
      const { inward } = chart;
      const first = builder.cornerCount;
      for (let v = 0; v < vertex.length; v++) {
        const [a, b] = uv(xs[v]!, ys[v]!);
        builder.corner(vertex[v]!, facing * inward[0], facing * inward[1], facing * inward[2], a, b);
      }
      for (let i = 0; i < triangles.length; i += 3) {
        const [a, b, c] = [first + triangles[i]!, first + triangles[i + order[1]!]!, first + triangles[i + order[2]!]!];
        builder.triangle(a, b, c);
        builder.polygon([a, b, c]);
      }
      return;
    }
    // On a bent face a vertex has a corner for each facet that it stands on.
    const known = new Map<number, number>();
    const R = ribs!;
    const cornerAt = (v: number, f: number): number => {
      const key = f * vertex.length + v;
      let c = known.get(key);
      if (c !== undefined) return c;
      const x = xs[v]!;
      const share = (x - R[f]!) / (R[f + 1]! - R[f]!);
      const T = chart.tangents;
      const [tx, ty] = [T[4 * f]! + share * (T[4 * f + 2]! - T[4 * f]!), T[4 * f + 1]! + share * (T[4 * f + 3]! - T[4 * f + 1]!)];
      const size = Math.hypot(tx, ty);
      const [a, b] = uv(x, ys[v]!);
      c = builder.corner(vertex[v]!, (-facing * ty) / size, (facing * tx) / size, 0, a, b);
      known.set(key, c);
      return c;
    };
    for (let i = 0; i < triangles.length; i += 3) {
      const middle = (xs[triangles[i]!]! + xs[triangles[i + 1]!]! + xs[triangles[i + 2]!]!) / 3;
      let [low, high] = [0, R.length - 2];
      while (low < high) {
        const m = (low + high + 1) >> 1;
        if (R[m]! <= middle) low = m;
        else high = m - 1;
      }
      const [a, b, c] = [cornerAt(triangles[i]!, low), cornerAt(triangles[i + order[1]!]!, low), cornerAt(triangles[i + order[2]!]!, low)];
      builder.triangle(a, b, c);
      builder.polygon([a, b, c]);
    }
  }
}

const flatLine = { n: [0, 1e6], offset: [0, 0], smooth: [false, false] };
const squares: Placed['sections'] = { sill: flatLine, head: flatLine, 'jamb-left': flatLine, 'jamb-right': flatLine };

function bossIn(members: readonly { opening: Placed; operand: number }[]): number {
  return (members.find(({ opening }) => opening.kind === 'boss') ?? members[0]!).operand - 1;
}

/** The seam as it is met along a loop: a void's loops run from the left springing to the right one, a raised thing's the other way. */
function seamAsRun(seam: 'start' | 'crown' | 'end' | undefined, sense: 1 | -1): 'start' | 'crown' | 'end' {
  if (seam === 'crown') return 'crown';
  return ((seam ?? 'start') === 'start') === (sense === -1) ? 'start' : 'end';
}

/** The layer at a depth. */
export function layerAt(sheet: Sheet, n: number): number {
  let layer = 0;
  while (layer + 1 < sheet.layers.length && sheet.boundaries[layer + 1]! < n) layer += 1;
  return layer;
}

const templates = new WeakMap<Placed['outline'], Map<string, { sections: Placed['sections']; texture: unknown; template: Template }>>();

/** The dressed tube of an opening in its own coordinates; the same for all openings of one size in one build-up. */
function templateOf(opening: Placed, range: readonly [number, number], sheet: Sheet, whole: boolean): Template {
  const { outline, sections, pattern, kind } = opening;
  const raised = kind === 'boss' || kind === 'keep inside';
  const key = `${raised} ${range.join(' ')} ${whole ? sheet.boundaries.join(' ') : layerAt(sheet, (range[0] + range[1]) / 2)}`;
  let byKey = templates.get(outline);
  if (!byKey) templates.set(outline, (byKey = new Map()));
  const known = byKey.get(key);
  if (known && known.sections === sections && known.texture === pattern.texture) return known.template;
  const placed = placeFlat(makeTube(loopsOfOpening(opening, 1, 0, 0), range[0], range[1], sheet.boundaries, whole), local, null);
  const dressed = dress(placed, () => localFrame, (edge) => seamAsRun(edge.side ? pattern.texture?.[edge.side]?.seam : undefined, edge.sense));
  const groups = new Map<number, Template['runs'][number]>();
  placed.patches.forEach((patch, p) => {
    const face = placed.tube.faces[patch.face]!;
    const side = placed.tube.edges[face.edge]!.side!;
    const group = sideOrder[side] * 32 + face.layer;
    const run = groups.get(group);
    if (run) run.patches.push(p);
    else groups.set(group, { side, layer: face.layer, patches: [p] });
  });
  const template: Template = { placed, dressed, runs: [...groups.entries()].sort(([a], [b]) => a - b).map(([, run]) => run) };
  byKey.set(key, { sections, texture: pattern.texture, template });
  return template;
}

