/** Pieces: what one opening that stands clear, or a group that meets, brings to a skin: its own surfaces, and the loops that it leaves in the two faces. */
import { developedAt, directionsAt, turned, type BentChart, type FlatChart } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh, Role, Run } from '../mesh/cut-mesh.ts';
import { FaceLoops, triangulateFace } from '../mesh/face.ts';
import type { Side } from '../profile/profile.ts';
import { dress, type Dressed } from '../reveal/dress.ts';
import type { LoopEdge } from '../reveal/loop.ts';
import { placeBent, placeFlat, straightFrame, type FaceLines, type Frame, type PlacedTube } from '../reveal/place.ts';
import { makeTube, type Tube } from '../reveal/tube.ts';
import type { Placed } from '../setout/resolve.ts';
import { writeFace } from './face-corners.ts';
import { Inexpressible, loopsOfOpening, rangeOf, slabsOf, type Slab } from './group.ts';
import { planeBetween, type PlaneFace } from './plane.ts';
import { laidOut } from './texture.ts';

const same = 1e-9;

/** One closed solid of a sheet: from one depth to another, metres. `whole` where it is all layers together, whose faces are divided where layers meet. */
export interface Skin {
  from: number;
  to: number;
  whole: boolean;
}

/** Loops on a face by vertices of a piece; x and y developed there. */
export interface PieceLoop {
  vertices: ArrayLike<number>;
  xs: ArrayLike<number>;
  ys: ArrayLike<number>;
}

export interface Piece {
  /** Where its vertices stand, x, y, z. */
  points: Float64Array;
  /** Its own surfaces, by its own vertices. */
  mesh: CutMesh;
  outer: PieceLoop[];
  inner: PieceLoop[];
  /** Whether it may leave two vertices on one point. */
  pinched: boolean;
}

/** What pieces are made in: one skin of a sheet. */
export interface Setting {
  sheet: Sheet;
  skin: Skin;
  lines: FaceLines | null;
  /** Ribs of a bent chart as it is developed at a depth; null on a flat one. */
  ribsAt: (n: number) => Float64Array | null;
}

export function settingOf(sheet: Sheet, skin: Skin, lines: FaceLines | null): Setting {
  const known = new Map<number, Float64Array>();
  return {
    sheet,
    skin,
    lines,
    ribsAt: (n) => {
      if (sheet.chart.kind === 'flat') return null;
      let ribs = known.get(n);
      if (!ribs) known.set(n, (ribs = developedAt(sheet.chart, n)));
      return ribs;
    },
  };
}

/** The range of an opening within a skin, or null where it does not reach it. */
export function rangeWithin(opening: Placed, { from, to }: Skin): [number, number] | null {
  const [a, b] = rangeOf(opening);
  if (opening.kind === 'boss') return from <= same ? [a, b] : null;
  if (opening.kind === 'imprint') return from <= same ? [0, 0] : null;
  return b > from + same ? [from, Math.min(b, to)] : null;
}

/** The layer at a depth. */
export function layerAt(sheet: Sheet, n: number): number {
  let layer = 0;
  while (layer + 1 < sheet.layers.length && sheet.boundaries[layer + 1]! < n) layer += 1;
  return layer;
}

/** The piece of an opening that stands clear, or null where it does not reach the skin. @throws Collapsed, BeyondCurve, NotTriangulable */
export function singlePiece(setting: Setting, opening: Placed): Piece | null {
  const { sheet, skin, lines } = setting;
  const range = rangeWithin(opening, skin);
  if (!range) return null;
  if (opening.kind === 'imprint') return new PieceMaker(setting, [opening]).imprint();
  if (sheet.chart.kind === 'flat' && !lines && !opening.drift) return instance(templateOf(opening, range, sheet, skin), opening, sheet.chart);
  return new PieceMaker(setting, [opening]).single(range);
}

/** The piece of openings that meet each other or the sheet's edge. @throws Inexpressible and what singlePiece does */
export function groupPiece(setting: Setting, openings: readonly Placed[], atEdge: boolean): Piece | null {
  const reaching = openings.filter((opening) => rangeWithin(opening, setting.skin) !== null);
  if (reaching.length === 0 && !atEdge) return null;
  return new PieceMaker(setting, reaching).group(atEdge);
}

/** What a solid does to the element. */
export type SolidUse = 'subtract' | 'add' | 'keep';

/**
 * An opening as a closed surface for the solid path, overshooting the faces that it is to go through. It is turned as the cut surface will be: for a void, inside out.
 * @throws Collapsed, BeyondCurve, NotTriangulable
 */
export function cutterPiece(setting: Setting, opening: Placed): { mesh: CutMesh; use: SolidUse } | null {
  const range = rangeWithin(opening, setting.skin);
  if (!range || opening.kind === 'imprint') return null;
  const use = opening.kind === 'boss' ? 'add' : opening.kind === 'keep inside' ? 'keep' : 'subtract';
  return { mesh: new PieceMaker(setting, [opening]).cutter(range, use), use };
}

/** How far the solid path's cutters overshoot, metres. */
const overshoot = 0.05;

const sideOrder: Record<Side, number> = { sill: 0, 'jamb-right': 1, head: 2, 'jamb-left': 3 };

class PieceMaker {
  private readonly builder: MeshBuilder;
  private readonly outer: PieceLoop[] = [];
  private readonly inner: PieceLoop[] = [];
  private readonly frames: Frame[] = [{ kind: 'proportional' }];
  private readonly vectors = new Map<Frame, number[]>();

  constructor(
    private readonly setting: Setting,
    private readonly openings: readonly Placed[],
  ) {
    const { sheet } = setting;
    this.builder = new MeshBuilder(sheet.element);
    if (sheet.chart.kind === 'bent')
      for (const opening of openings)
        this.frames.push(frameFor(sheet.chart, opening));
  }

  single(range: readonly [number, number]): Piece {
    const opening = this.openings[0]!;
    const { sheet, skin } = this.setting;
    const placed = this.place(tubeOf(opening, range, sheet, skin));
    const vertices = this.take(placed);
    this.write(placed, this.dressed(placed), vertices);
    endsOf(opening, range, skin, (which, backward, to) => {
      const loops = placed[which].map((loop) => loopOn(backward ? [...loop].reverse() : loop, placed, vertices));
      if (to === 'back') this.back(loops, range[which === 'near' ? 0 : 1], opening.kind === 'boss' ? 'boss face' : 'back', 0, -1);
      else (to === 'outer' ? this.outer : this.inner).push(...loops);
    });
    return this.finish(false);
  }

  cutter(range: readonly [number, number], use: SolidUse): CutMesh {
    const opening = this.openings[0]!;
    const { sheet, skin } = this.setting;
    const from = use === 'add' ? range[0] : skin.from - overshoot;
    const to = use === 'add' ? Math.min(overshoot, sheet.thickness / 2) : range[1] >= skin.to - same ? skin.to + overshoot : range[1];
    const placed = this.place(makeTube(loopsOfOpening(opening, 1, opening.s, opening.t), from, to, sheet.boundaries, skin.whole));
    const vertices = this.take(placed);
    this.write(placed, this.dressed(placed), vertices);
    const inward = use === 'subtract';
    const ends = (rings: readonly number[][]): PieceLoop[] => rings.map((loop) => loopOn(inward ? [...loop].reverse() : loop, placed, vertices));
    this.back(ends(placed.near), from, opening.kind === 'boss' ? 'boss face' : 'back', 0, inward ? 1 : -1);
    this.back(ends(placed.far), to, 'back', 0, inward ? -1 : 1);
    return this.builder.finish();
  }

  imprint(): Piece {
    const opening = this.openings[0]!;
    const { sheet } = this.setting;
    const loops = loopsOfOpening({ ...opening, sections: squares }, 1, opening.s, opening.t);
    const placed = this.place(makeTube(loops, 0, 0.5 * sheet.thickness, sheet.boundaries, false));
    // Only the ring on the face is used.
    const vertices: number[] = [];
    for (const v of placed.near.flat()) {
      vertices[v] = this.builder.takeVertices(1);
      this.builder.put(vertices[v], placed.positions[3 * v]!, placed.positions[3 * v + 1]!, placed.positions[3 * v + 2]!);
    }
    this.outer.push(...placed.near.map((loop) => loopOn(loop, placed, vertices)));
    this.back(
      placed.near.map((loop) => loopOn([...loop].reverse(), placed, vertices)),
      0,
      'imprint',
      0,
      -1,
    );
    return this.finish(false);
  }

  /** Cuts openings that meet, slab by slab, and the planes between the slabs. */
  group(atEdge: boolean): Piece {
    const { sheet, skin } = this.setting;
    const members = this.openings.map((opening, i) => ({ opening, operand: i + 1 }));
    if (members.some(({ opening }) => opening.kind === 'imprint')) throw new Inexpressible();
    const slabs = slabsOf(sheet, members, atEdge, skin.from, skin.to);
    if (sheet.chart.kind === 'bent') this.checkFrames(slabs);
    const placed = slabs.map((slab) => this.place(makeTube(slab.loops, slab.from, slab.to, sheet.boundaries, skin.whole)));
    const vertices = placed.map((tube) => this.take(tube));
    const raised = slabs[0]!.from < skin.from - same;
    const planes: { faces: PlaneFace[]; n: number }[] = [];
    for (let i = 0; i + 1 < slabs.length; i++)
      planes.push({
        n: slabs[i]!.to,
        faces: planeBetween(placed[i]!, vertices[i]!, slabs[i]!.within, placed[i + 1]!, vertices[i + 1]!, slabs[i + 1]!.within, this.builder),
      });
    placed.forEach((tube, i) => this.write(tube, this.dressed(tube), vertices[i]!));
    const ends = (i: number, which: 'near' | 'far'): PieceLoop[] => placed[i]![which].map((loop) => loopOn(loop, placed[i]!, vertices[i]!));
    // Before the face only bosses stand; their outermost loops are faces of their own.
    if (raised) this.back(ends(0, 'near'), slabs[0]!.from, 'boss face', bossIn(members), -1);
    else this.outer.push(...ends(0, 'near'));
    for (const { faces, n } of planes)
      for (const face of faces) {
        if (Math.abs(n - skin.from) < same && face.facing === -1) {
          this.outer.push(...face.loops);
          continue;
        }
        const owner = members.find(({ opening }) => Math.abs(rangeOf(opening)[n < 0 ? 0 : 1] - n) < 1e-7) ?? members[0]!;
        this.back(face.loops, n, n < -same ? 'boss face' : 'back', owner.operand - 1, face.facing);
      }
    this.inner.push(...ends(slabs.length - 1, 'far'));
    return this.finish(this.openings.length > 0);
  }

  private finish(pinched: boolean): Piece {
    return { mesh: this.builder.finish(), points: this.builder.pointsOf(), outer: this.outer, inner: this.inner, pinched };
  }

  private place(tube: Tube): PlacedTube {
    const { sheet, lines } = this.setting;
    return sheet.chart.kind === 'bent' ? placeBent(tube, sheet.chart, this.frames, lines) : placeFlat(tube, sheet.chart, lines);
  }

  private take(placed: PlacedTube): number[] {
    const { positions } = placed;
    const base = this.builder.takeVertices(placed.u.length);
    for (let v = 0; v < placed.u.length; v++) this.builder.put(base + v, positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
    return placed.u.map((_, v) => base + v);
  }

  /** A face across the depth that is the piece's own: a niche's back, a boss's face, an imprint. */
  private back(loops: readonly PieceLoop[], n: number, role: Role, opening: number, facing: -1 | 1): void {
    const { sheet, ribsAt } = this.setting;
    const { id, pattern } = this.openings[opening]!;
    const layer = layerAt(sheet, Math.max(0, n + same));
    const material = role === 'imprint' && pattern.cut?.kind === 'imprint' && pattern.cut.material ? pattern.cut.material : sheet.layers[layer]!.material;
    const face = new FaceLoops();
    for (const { vertices, xs, ys } of loops) face.add(vertices, xs, ys);
    this.builder.begin({ opening: id, role, layer, material });
    writeFace(this.builder, this.setting, face, triangulateFace(face.region, ribsAt(n)), n, facing, pattern.texture?.[role === 'imprint' ? 'imprint' : 'back']);
  }

  /** On a bent chart a group must be carried by one frame, and meet the sheet's edge only where that is level. */
  private checkFrames(slabs: readonly Slab[]): void {
    for (const { loops } of slabs)
      for (const loop of loops)
        loop.forEach((edge, i) => {
          const before = loop[(i + loop.length - 1) % loop.length]!;
          if (edge.operand === before.operand) return;
          const [low, high] = [this.frames[Math.min(edge.operand, before.operand)]!, this.frames[Math.max(edge.operand, before.operand)]!];
          if (low.kind === 'proportional' && high.kind === 'proportional') return;
          if (edge.operand > 0 && before.operand > 0) throw new Inexpressible();
          const own = edge.operand === 0 ? edge : before;
          if (Math.abs(own.dy) > 1e-9) throw new Inexpressible();
        });
  }

  private dressed(placed: PlacedTube): Dressed {
    const { chart } = this.setting.sheet;
    const seam = (edge: LoopEdge): 'start' | 'crown' | 'end' =>
      edge.operand === 0 || !edge.side ? 'start' : seamAsRun(this.openings[edge.operand - 1]!.pattern.texture?.[edge.side]?.seam, edge.sense);
    if (chart.kind === 'flat') {
      const { along, up, inward } = chart;
      // An outline that drifts with the depth is lined along the way that it drifts.
      const frames = [undefined, ...this.openings.map(({ drift }) => drift)].map((drift) => {
        const [a, b] = drift ?? [0, 0];
        return [...along, ...up, ...[0, 1, 2].map((k) => inward[k]! + a * along[k]! + b * up[k]!)];
      });
      return dress(placed, (v) => frames[placed.frame[v] ?? 0]!, seam);
    }
    return dress(placed, (v) => this.frameAt(placed, v, chart), seam);
  }

  private frameAt(placed: PlacedTube, v: number, chart: BentChart): number[] {
    const frame = this.frames[placed.frame[v] ?? 0]!;
    if (frame.kind === 'straight') {
      let known = this.vectors.get(frame);
      if (!known) this.vectors.set(frame, (known = [...frame.along, 0, 0, 1, ...frame.inward]));
      return known;
    }
    const ribs = this.setting.ribsAt(placed.n[v]!)!;
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
    const { builder } = this;
    const { sheet } = this.setting;
    const groups = new Map<number, number[]>();
    patches.forEach((patch, p) => {
      const face = tube.faces[patch.face]!;
      const { operand, side } = tube.edges[face.edge]!;
      const key = (operand * 4 + (side && operand > 0 ? sideOrder[side] : 0)) * 32 + face.layer;
      const list = groups.get(key);
      if (list) list.push(p);
      else groups.set(key, [p]);
    });
    const { normals, uvs, cornerStart, triangles, triangleStart } = dressed;
    const corners = cornerStart[patches.length]!;
    builder.reserve(0, corners, triangles.length / 3, patches.length, corners);
    for (const key of [...groups.keys()].sort((a, b) => a - b)) {
      const list = groups.get(key)!;
      const face = tube.faces[patches[list[0]!]!.face]!;
      const { operand, side } = tube.edges[face.edge]!;
      const opening = operand === 0 ? null : this.openings[operand - 1]!;
      const material = opening ? revealMaterial(opening, side!) : null;
      builder.begin({ opening: opening?.id ?? null, role: opening ? side! : 'edge', layer: face.layer, material: material ?? sheet.layers[face.layer]!.material });
      const lay = laidOut(opening ? opening.pattern.texture?.[side!] : sheet.texture?.edge);
      for (const p of list) {
        const first = builder.cornerCount - cornerStart[p]!;
        patches[p]!.nodes.forEach((v, i) => {
          const c = cornerStart[p]! + i;
          const [u, w] = lay(uvs[2 * c]!, uvs[2 * c + 1]!);
          builder.corner(vertices[v]!, normals[3 * c]!, normals[3 * c + 1]!, normals[3 * c + 2]!, u, w);
        });
        for (let i = 3 * triangleStart[p]!; i < 3 * triangleStart[p + 1]!; i += 3) builder.triangle(first + triangles[i]!, first + triangles[i + 1]!, first + triangles[i + 2]!);
        builder.polygonFrom(first + cornerStart[p]!, cornerStart[p + 1]! - cornerStart[p]!);
      }
    }
  }
}

/** The frame that carries an opening through a bent chart: radially, square to its middle, or in the direction that it asks for. */
function frameFor(chart: BentChart, { pattern, s, profile, aim }: Placed): Frame {
  const middle = s + profile.width / 2;
  if (aim) {
    const [cos, sin] = turned(aim.turn);
    return { ...straightFrame(chart, middle), along: [sin, -cos, 0], inward: [cos, sin, 0] };
  }
  return pattern.jambs === 'radial' ? { kind: 'proportional' } : straightFrame(chart, middle);
}

const tubes = new WeakMap<Placed['outline'], Map<string, { sections: Placed['sections']; tube: Tube }>>();

/** The tube of an opening that stands clear: made once for all of its size in one build-up, and moved to its place. */
function tubeOf(opening: Placed, range: readonly [number, number], sheet: Sheet, skin: Skin): Tube {
  const { outline, sections, s, t, drift } = opening;
  if (drift) return makeTube(loopsOfOpening(opening, 1, s, t), range[0], range[1], sheet.boundaries, skin.whole);
  const key = `${opening.kind} ${range[0]} ${range[1]} ${skin.from} ${skin.to} ${keyOf(sheet)}`;
  let byKey = tubes.get(outline);
  if (!byKey) tubes.set(outline, (byKey = new Map()));
  let known = byKey.get(key);
  if (known?.sections !== sections) byKey.set(key, (known = { sections, tube: makeTube(loopsOfOpening(opening, 1, 0, 0), range[0], range[1], sheet.boundaries, skin.whole) }));
  const { tube } = known!;
  return { ...tube, x: moved(tube.x, s), y: moved(tube.y, t) };
}

function moved(values: readonly number[], by: number): number[] {
  const out = new Array<number>(values.length);
  for (let i = 0; i < values.length; i++) out[i] = values[i]! + by;
  return out;
}

function loopOn(loop: readonly number[], placed: PlacedTube, vertices: readonly number[]): PieceLoop {
  return { vertices: loop.map((v) => vertices[v]!), xs: loop.map((v) => placed.u[v]!), ys: loop.map((v) => placed.v[v]!) };
}

/** Where the ends of a single opening's tube go: to the outer or inner face, or to a face of its own. */
function endsOf(
  opening: Placed,
  range: readonly [number, number],
  skin: Skin,
  give: (which: 'near' | 'far', backward: boolean, to: 'outer' | 'inner' | 'back') => void,
): void {
  if (opening.kind === 'boss') {
    give('far', true, 'outer');
    give('near', false, 'back');
    return;
  }
  if (range[0] <= skin.from + same) give('near', false, 'outer');
  if (range[1] >= skin.to - same) give('far', false, 'inner');
  else give('far', true, 'back');
}

/** The material of one side's reveal, or null for that of the layers. */
function revealMaterial({ pattern: { reveal } }: Placed, side: Side): string | null {
  return reveal.sides?.[side] ?? reveal.material;
}

function bossIn(members: readonly { opening: Placed; operand: number }[]): number {
  return (members.find(({ opening }) => opening.kind === 'boss') ?? members[0]!).operand - 1;
}

/** The seam as it is met along a loop: a void's loops run from the left springing to the right one, a raised thing's the other way. */
function seamAsRun(seam: 'start' | 'crown' | 'end' | undefined, sense: 1 | -1): 'start' | 'crown' | 'end' {
  if (seam === 'crown') return 'crown';
  return ((seam ?? 'start') === 'start') === (sense === -1) ? 'start' : 'end';
}

const flatLine = { n: [0, 1e6], offset: [0, 0], smooth: [false, false] };
const squares: Placed['sections'] = { sill: flatLine, head: flatLine, 'jamb-left': flatLine, 'jamb-right': flatLine };

/** The chart in which templates are made: right-handed, with depth running down z. */
const local: FlatChart = { kind: 'flat', origin: [0, 0, 0], along: [1, 0, 0], up: [0, 1, 0], inward: [0, 0, -1] };

interface Template {
  /** Coordinates of its vertices on the face, and their depths. */
  x: Float64Array;
  y: Float64Array;
  n: Float64Array;
  piece: Piece;
  /** Normals in the directions of the last chart that asked. */
  chart: FlatChart | null;
  normals: Float32Array;
}

const templates = new WeakMap<Placed['outline'], Map<string, { sections: Placed['sections']; pattern: Placed['pattern']; template: Template }>>();

/** The piece of an opening in its own coordinates; the same for all openings of one size and pattern in one build-up. */
function templateOf(opening: Placed, range: readonly [number, number], sheet: Sheet, skin: Skin): Template {
  const { outline, sections, pattern, kind } = opening;
  const key = `${kind} ${range[0]} ${range[1]} ${skin.from} ${skin.to} ${keyOf(sheet)}`;
  let byKey = templates.get(outline);
  if (!byKey) templates.set(outline, (byKey = new Map()));
  const known = byKey.get(key);
  if (known && known.sections === sections && known.pattern === pattern) return known.template;
  // Made at the origin, in a sheet that is the chart's own axes; texture is laid later, when it is in its place.
  const setting: Setting = { sheet: { ...sheet, chart: local }, skin, lines: null, ribsAt: () => null };
  const piece = new PieceMaker(setting, [{ ...opening, s: 0, t: 0, pattern: { ...pattern, texture: seamsOnly(pattern.texture) } }]).single(range);
  const count = piece.points.length / 3;
  const template: Template = {
    x: Float64Array.from({ length: count }, (_, v) => piece.points[3 * v]!),
    y: Float64Array.from({ length: count }, (_, v) => piece.points[3 * v + 1]!),
    n: Float64Array.from({ length: count }, (_, v) => -piece.points[3 * v + 2]!),
    piece,
    chart: null,
    normals: piece.mesh.normals,
  };
  byKey.set(key, { sections, pattern, template });
  return template;
}

const sheetKeys = new WeakMap<Sheet, string>();

/** What templates depend on of a sheet: its build-up, and whose it is. */
function keyOf(sheet: Sheet): string {
  let key = sheetKeys.get(sheet);
  if (key === undefined) sheetKeys.set(sheet, (key = `${sheet.element} ${sheet.boundaries.join(' ')} ${sheet.layers.map((layer) => layer.material).join(' ')}`));
  return key;
}

function seamsOnly(texture: Placed['pattern']['texture']): Placed['pattern']['texture'] {
  return texture && Object.fromEntries(Object.entries(texture).map(([role, { seam }]) => [role, { seam }]));
}

/** A template at an opening's place on a flat sheet. Whatever does not depend on the place is shared. */
function instance(template: Template, { s, t, id, pattern }: Placed, chart: FlatChart): Piece {
  const { x, y, n, piece } = template;
  const { origin, along, up, inward } = chart;
  if (template.chart !== chart) {
    template.normals = turnedNormals(piece.mesh.normals, chart);
    template.chart = chart;
  }
  const count = x.length;
  const points = new Float64Array(3 * count);
  for (let v = 0; v < count; v++) {
    const [px, py, pz] = [s + x[v]!, t + y[v]!, n[v]!];
    points[3 * v] = origin[0] + px * along[0] + py * up[0] + pz * inward[0];
    points[3 * v + 1] = origin[1] + px * along[1] + py * up[1] + pz * inward[1];
    points[3 * v + 2] = origin[2] + px * along[2] + py * up[2] + pz * inward[2];
  }
  const { vertices } = piece.mesh;
  const positions = new Float64Array(3 * vertices.length);
  const uvs = new Float32Array(2 * vertices.length);
  const own = piece.mesh.uvs;
  for (let c = 0; c < vertices.length; c++) {
    const v = 3 * vertices[c]!;
    positions[3 * c] = points[v]!;
    positions[3 * c + 1] = points[v + 1]!;
    positions[3 * c + 2] = points[v + 2]!;
    uvs[2 * c] = own[2 * c]! + s;
    uvs[2 * c + 1] = own[2 * c + 1]! + t;
  }
  const runs = piece.mesh.runs.map((run): Run => ({
    first: run.first,
    count: run.count,
    firstPolygon: run.firstPolygon,
    polygons: run.polygons,
    element: run.element,
    opening: id,
    role: run.role,
    layer: run.layer,
    material: run.material,
  }));
  if (pattern.texture) for (const run of runs) layRun(piece.mesh, uvs, run, laidOut(pattern.texture[run.role as Side | 'back']));
  const movedLoops = (loops: readonly PieceLoop[]): PieceLoop[] =>
    loops.map(({ vertices: loop, xs, ys }) => {
      const out = { vertices: loop, xs: new Float64Array(xs.length), ys: new Float64Array(xs.length) };
      for (let i = 0; i < xs.length; i++) {
        out.xs[i] = xs[i]! + s;
        out.ys[i] = ys[i]! + t;
      }
      return out;
    });
  return {
    points,
    mesh: {
      positions,
      normals: template.normals,
      uvs,
      vertices,
      vertexCount: count,
      triangles: piece.mesh.triangles,
      polygonStart: piece.mesh.polygonStart,
      polygonCorners: piece.mesh.polygonCorners,
      runs,
    },
    outer: movedLoops(piece.outer),
    inner: movedLoops(piece.inner),
    pinched: false,
  };
}

/** Lays the texture of a run's corners, which are its polygons' own. */
function layRun(mesh: CutMesh, uvs: Float32Array, run: Run, lay: ReturnType<typeof laidOut>): void {
  const seen = new Set<number>();
  for (let i = mesh.polygonStart[run.firstPolygon]!; i < mesh.polygonStart[run.firstPolygon + run.polygons]!; i++) {
    const c = mesh.polygonCorners[i]!;
    if (seen.has(c)) continue;
    seen.add(c);
    const [u, v] = lay(uvs[2 * c]!, uvs[2 * c + 1]!);
    uvs[2 * c] = u;
    uvs[2 * c + 1] = v;
  }
}

/** Normals of a template, turned into the directions of a chart. */
function turnedNormals(normals: Float32Array, { along, up, inward }: FlatChart): Float32Array {
  const out = new Float32Array(normals.length);
  for (let i = 0; i < normals.length; i += 3) {
    const [x, y, z] = [normals[i]!, normals[i + 1]!, -normals[i + 2]!];
    for (let k = 0; k < 3; k++) out[i + k] = x * along[k]! + y * up[k]! + z * inward[k]!;
  }
  return out;
}
