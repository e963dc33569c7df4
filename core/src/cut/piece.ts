/** Pieces: what one opening that stands clear, or a group that meets, brings to a skin: its own surfaces, and the loops that it leaves in the two faces. */
import { directionsAt, type BentChart } from '../element/chart.ts';
import type { Rim } from '../element/sheet.ts';
import { MeshBuilder, type Place } from '../mesh/builder.ts';
import { emptyMesh, type CutMesh, type Role } from '../mesh/cut-mesh.ts';
import { FaceLoops, triangulateFace } from '../mesh/face.ts';
import type { Side } from '../profile/profile.ts';
import { sectionWithin, squareSections, type SectionLine } from '../profile/section.ts';
import { dress, type Dressed } from '../reveal/dress.ts';
import type { LoopEdge } from '../reveal/loop.ts';
import type { PlacedTube } from '../reveal/patches.ts';
import { isCarriedAlike, straightFrame, type Frame } from '../reveal/frame.ts';
import { placeBent } from '../reveal/place-bent.ts';
import { placeFlat } from '../reveal/place-flat.ts';
import { makeTube, type Tube } from '../reveal/tube.ts';
import { zip } from '../reveal/zip.ts';
import type { Placed } from '../setout/placed.ts';
import { writeFace } from './face-corners.ts';
import { drawnOut } from './flush.ts';
import { reachOf } from './reach.ts';
import { Inexpressible, loopsOfOpening, rangeOf, slabsOf, type Slab } from './group.ts';
import { planeBetween, type Joined, type PlaneFace } from './plane.ts';
import { touchInPoints } from './pinched.ts';
import { layerAt, rangeWithin, type Setting, type Skin } from './setting.ts';
import { laidOut, plain } from './texture.ts';
import { tubeOf } from './tubes.ts';
import { nanometre as same, relative, touch } from '../tolerances.ts';

/** Loops on a face by vertices of a piece; x and y developed there. */
export interface PieceLoop {
  vertices: ArrayLike<number>;
  xs: ArrayLike<number>;
  ys: ArrayLike<number>;
}

/** From where a piece was made to where it is: in space, and along and up the face, metres. */
export interface Shift {
  x: number;
  y: number;
  z: number;
  along: number;
  up: number;
}

export interface Piece {
  /** Where its vertices stand, x, y, z, but for the shift. Many pieces may share them. */
  points: Float64Array;
  /** Null where it was made in its place. It is of points and loops; of texture the place tells. */
  shift: Shift | null;
  /** Its own surfaces, by its own vertices; where they were made for another place, what is to change. Where they stand is told by `points` alone. */
  mesh: CutMesh;
  place?: Place;
  outer: PieceLoop[];
  inner: PieceLoop[];
  /** Whether it may leave two vertices on one point. */
  pinched: boolean;
}

/** A piece as it is kept for the next cut; null where its openings leave nothing to be made. */
export interface KeptPiece {
  /** Openings that it is made of, as they were placed. */
  openings: readonly Placed[];
  piece: Piece | null;
}

/** The piece of openings that meet each other or the sheet's edge. @throws Inexpressible and what singlePiece does */
export function groupPiece(setting: Setting, openings: readonly Placed[], atEdge: boolean): Piece | null {
  const reaching = openings.filter((opening) => rangeWithin(opening, setting.skin) !== null);
  if (reaching.length === 0 && !atEdge) return null;
  return new PieceMaker(setting, reaching).group(atEdge);
}

/** The loops of a sheet that others go on from: no surface of its own. @throws Inexpressible where openings run over them */
export function rimPiece({ outer, inner }: Rim, over: readonly Placed[]): Piece {
  if (over.length > 0) throw new Inexpressible();
  const points: number[] = [];
  const loops = (list: Rim['outer']): PieceLoop[] =>
    list.map(({ points: own, xs, ys }) => {
      const first = points.length / 3;
      for (const point of own) points.push(...point);
      return { vertices: own.map((_, i) => first + i), xs, ys };
    });
  const [near, far] = [loops(outer), loops(inner)];
  return { points: Float64Array.from(points), shift: null, mesh: emptyMesh(), outer: near, inner: far, pinched: false };
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

/** Makes pieces in one setting. */
export class PieceMaker {
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
      for (const opening of openings) {
        const frame = frameFor(sheet.chart, opening);
        this.frames.push(this.frames.find((known) => isCarriedAlike(known, frame)) ?? frame);
      }
  }

  single(range: readonly [number, number]): Piece {
    const opening = this.openings[0]!;
    const { sheet, skin } = this.setting;
    const placed = this.place(tubeOf(opening, range, sheet, skin));
    const vertices = this.take(placed);
    this.write(placed, this.dressed(placed), vertices);
    endsOf(opening, range, skin, (which, backward, to) => {
      const loops = placed[which].map((loop) => loopOn(backward ? [...loop].reverse() : loop, placed, vertices));
      if (to === 'back')
        this.back(loops, {
          n: range[which === 'near' ? 0 : 1],
          role: opening.kind === 'boss' ? 'boss face' : 'back',
          opening: 0,
          facing: which === 'near' && opening.kind !== 'boss' ? 1 : -1,
        });
      else (to === 'outer' ? this.outer : this.inner).push(...loops);
    });
    // A block that reaches right through shows on the other side.
    const { cut, reveal } = opening.pattern;
    if (cut?.kind === 'boss' && reveal.material && skin.whole && reachOf(opening, sheet) >= skin.to - same)
      this.printed('far', skin.to);
    return this.finish(false);
  }

  cutter(range: readonly [number, number], use: SolidUse): CutMesh {
    const opening = this.openings[0]!;
    const { sheet, skin } = this.setting;
    const from = use === 'add' || range[0] > skin.from + same ? range[0] : skin.from - overshoot;
    const to =
      use === 'add'
        ? Math.min(overshoot, sheet.thickness / 2)
        : range[1] >= skin.to - same
          ? skin.to + overshoot
          : range[1];
    const within = use === 'add' ? opening : { ...opening, sections: goingOn(opening.sections, skin.from, skin.to) };
    const placed = this.place(
      makeTube(
        drawnOut(loopsOfOpening(within, 1, opening.s, opening.t), sheet),
        { from, to },
        sheet.boundaries,
        skin.whole,
      ),
    );
    const vertices = this.take(placed);
    this.write(placed, this.dressed(placed), vertices);
    const inward = use === 'subtract';
    const ends = (rings: readonly number[][]): PieceLoop[] =>
      rings.map((loop) => loopOn(inward ? [...loop].reverse() : loop, placed, vertices));
    this.back(ends(placed.near), {
      n: from,
      role: opening.kind === 'boss' ? 'boss face' : 'back',
      opening: 0,
      facing: inward ? 1 : -1,
    });
    this.back(ends(placed.far), { n: to, role: 'back', opening: 0, facing: inward ? -1 : 1 });
    return this.builder.finish();
  }

  /** A block of its own: the boss and what of it stands in the layers, down to a depth, as a closed solid. */
  block(from: number, to: number): CutMesh {
    const { sheet } = this.setting;
    const placed = this.place(
      makeTube(
        loopsOfOpening(this.openings[0]!, 1, this.openings[0]!.s, this.openings[0]!.t),
        { from, to },
        sheet.boundaries,
        false,
      ),
    );
    const vertices = this.take(placed);
    this.write(placed, this.dressed(placed), vertices);
    const ends = (rings: readonly number[][]): PieceLoop[] => rings.map((loop) => loopOn(loop, placed, vertices));
    this.back(ends(placed.near), { n: from, role: 'boss face', opening: 0, facing: -1 });
    this.back(ends(placed.far), { n: to, role: 'back', opening: 0, facing: 1 });
    return this.builder.finish();
  }

  imprint(): Piece {
    this.printed('near', 0);
    return this.finish(false);
  }

  /** Divides the outer (near) or the inner (far) face by the outline, at its depth. */
  private printed(which: 'near' | 'far', n: number): void {
    const opening: Placed = {
      ...this.openings[0]!,
      kind: 'imprint',
      sections: squareSections(this.setting.sheet.thickness),
    };
    const { sheet } = this.setting;
    const half = 0.5 * sheet.thickness;
    const placed = this.place(
      makeTube(
        loopsOfOpening(opening, 1, opening.s, opening.t),
        { from: which === 'near' ? n : half, to: which === 'near' ? half : n },
        sheet.boundaries,
        false,
      ),
    );
    // Only the ring on the face is used.
    const vertices: number[] = [];
    for (const v of placed[which].flat()) {
      vertices[v] = this.builder.takeVertices(1);
      this.builder.put(
        vertices[v],
        placed.positions[3 * v]!,
        placed.positions[3 * v + 1]!,
        placed.positions[3 * v + 2]!,
      );
    }
    (which === 'near' ? this.outer : this.inner).push(...placed[which].map((loop) => loopOn(loop, placed, vertices)));
    this.back(
      placed[which].map((loop) => loopOn([...loop].reverse(), placed, vertices)),
      { n, role: 'imprint', opening: 0, facing: which === 'near' ? -1 : 1 },
    );
  }

  /** Cuts openings that meet, slab by slab, and the planes between the slabs. */
  group(atEdge: boolean): Piece {
    const { sheet, skin } = this.setting;
    const members = this.openings.map((opening, i) => ({ opening, operand: i + 1 }));
    if (members.some(({ opening }) => opening.kind === 'imprint')) throw new Inexpressible();
    const slabs = slabsOf(sheet, { members, atEdge }, { from: skin.from, to: skin.to });
    if (sheet.chart.kind === 'bent') this.checkFrames(slabs);
    const placed = slabs.map((slab) =>
      this.place(makeTube(slab.loops, { from: slab.from, to: slab.to }, sheet.boundaries, skin.whole)),
    );
    const vertices = placed.map((tube) => this.take(tube));
    const raised = slabs[0]!.from < skin.from - same;
    const joined = (i: number): Joined => ({ tube: placed[i]!, vertices: vertices[i]!, outside: slabs[i]!.within });
    const planes: { faces: PlaneFace[]; n: number }[] = [];
    for (let i = 0; i + 1 < slabs.length; i++)
      planes.push({
        n: slabs[i]!.to,
        faces: planeBetween(joined(i), joined(i + 1), this.builder),
      });
    placed.forEach((tube, i) => this.write(tube, this.dressed(tube), vertices[i]!));
    const ends = (i: number, which: 'near' | 'far'): PieceLoop[] =>
      placed[i]![which].map((loop) => loopOn(loop, placed[i]!, vertices[i]!));
    // Before the face only bosses stand; their outermost loops are faces of their own.
    if (raised)
      this.back(ends(0, 'near'), { n: slabs[0]!.from, role: 'boss face', opening: bossIn(members), facing: -1 });
    else this.outer.push(...ends(0, 'near'));
    for (const { faces, n } of planes)
      for (const face of faces) {
        if (Math.abs(n - skin.from) < same && face.facing === -1) {
          this.outer.push(...face.loops);
          continue;
        }
        const owner =
          members.find(({ opening }) => rangeOf(opening).some((end) => Math.abs(end - n) < touch)) ?? members[0]!;
        this.back(face.loops, {
          n,
          role: n < -same ? 'boss face' : 'back',
          opening: owner.operand - 1,
          facing: face.facing,
        });
      }
    this.inner.push(...ends(slabs.length - 1, 'far'));
    return this.finish(this.openings.length > 0 && [this.outer, this.inner].some(touchInPoints));
  }

  private finish(pinched: boolean): Piece {
    return {
      mesh: this.builder.finish(),
      points: this.builder.pointsOf(),
      shift: null,
      outer: this.outer,
      inner: this.inner,
      pinched,
    };
  }

  private place(tube: Tube): PlacedTube {
    const { sheet, lines, ribsAt } = this.setting;
    const placed =
      sheet.chart.kind === 'bent'
        ? placeBent(tube, sheet.chart, this.frames, { lines, ribsAt: (n) => ribsAt(n)! })
        : placeFlat(tube, sheet.chart, lines);
    zip(placed);
    return placed;
  }

  private take(placed: PlacedTube): number[] {
    const { positions } = placed;
    this.builder.reserve(placed.u.length, 0, 0, 0, 0);
    const base = this.builder.takeVertices(placed.u.length);
    for (let v = 0; v < placed.u.length; v++)
      this.builder.put(base + v, positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
    return placed.u.map((_, v) => base + v);
  }

  /** A face across the depth that is the piece's own: a niche's back, a boss's face, an imprint. */
  private back(
    loops: readonly PieceLoop[],
    { n, role, opening, facing }: { n: number; role: Role; opening: number; facing: -1 | 1 },
  ): void {
    const { sheet, ribsAt } = this.setting;
    const { id, pattern } = this.openings[opening]!;
    // What is solid lies behind it, as it looks.
    const layer = layerAt(sheet, Math.max(0, n - facing * same));
    const printed = pattern.cut?.kind === 'imprint' ? pattern.cut.material : pattern.reveal.material;
    const material = role === 'imprint' && printed ? printed : sheet.layers[layer]!.material;
    const face = new FaceLoops();
    // Niches that meet in a corner have backs that touch there.
    face.pinched = loops.length > 1;
    for (const { vertices, xs, ys } of loops) face.add(vertices, xs, ys);
    this.builder.begin({ opening: id, role, layer, material });
    writeFace(this.builder, this.setting, {
      loops: face,
      triangles: triangulateFace(face.region, ribsAt(n)),
      n,
      facing,
      texture: pattern.texture?.[role === 'imprint' ? 'imprint' : 'back'],
    });
  }

  /** On a bent chart a group must be carried by one frame, and meet the sheet's edge only where that is level. */
  private checkFrames(slabs: readonly Slab[]): void {
    for (const { loops } of slabs)
      for (const loop of loops)
        loop.forEach((edge, i) => {
          const before = loop[(i + loop.length - 1) % loop.length]!;
          if (edge.operand === before.operand) return;
          const [low, high] = [
            this.frames[Math.min(edge.operand, before.operand)]!,
            this.frames[Math.max(edge.operand, before.operand)]!,
          ];
          if (low === high) return;
          if (edge.operand > 0 && before.operand > 0) throw new Inexpressible();
          const own = edge.operand === 0 ? edge : before;
          if (Math.abs(own.dy) > relative) throw new Inexpressible();
        });
  }

  private dressed(placed: PlacedTube): Dressed {
    const { chart } = this.setting.sheet;
    const seam = (edge: LoopEdge): 'start' | 'crown' | 'end' =>
      edge.operand === 0 || !edge.side
        ? 'start'
        : seamAsRun(seamSeen(this.openings[edge.operand - 1]!, edge.side), edge.sense);
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
      if (!known)
        this.vectors.set(frame, (known = [...frame.along, 0, 0, 1, frame.inward[0], frame.inward[1], frame.slope]));
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
      // In a roof's plane the lining goes on round the reveal.
      const material = opening
        ? (revealMaterial(opening, side!) ??
          (sheet.rim && this.setting.skin.whole ? sheet.layers.at(-1)!.material : null))
        : null;
      builder.begin({
        opening: opening?.id ?? null,
        role: opening ? side! : 'edge',
        layer: face.layer,
        material: material ?? sheet.layers[face.layer]!.material,
      });
      const lay = laidOut(opening ? opening.pattern.texture?.[side!] : sheet.texture?.edge);
      for (const p of list) {
        const start = cornerStart[p]!;
        const { nodes } = patches[p]!;
        const own: number[] = [];
        for (let i = 0; i < nodes.length; i++) {
          const c = start + i;
          let u = uvs[2 * c]!;
          let w = uvs[2 * c + 1]!;
          if (lay !== plain) [u, w] = lay(u, w);
          own.push(
            builder.sharedCorner(vertices[nodes[i]!]!, normals[3 * c]!, normals[3 * c + 1]!, normals[3 * c + 2]!, u, w),
          );
        }
        for (let i = 3 * triangleStart[p]!; i < 3 * triangleStart[p + 1]!; i += 3)
          builder.triangle(
            own[triangles[i]! - start]!,
            own[triangles[i + 1]! - start]!,
            own[triangles[i + 2]! - start]!,
          );
        builder.polygon(own);
      }
    }
  }
}

/** The frame that carries an opening through a bent chart: radially, square to its middle, or in the direction that it asks for. */
function frameFor(chart: BentChart, { pattern, s, profile, carrier }: Placed): Frame {
  const middle = s + profile.width / 2;
  if (carrier) {
    const { x, y, along, way, slope } = carrier;
    return { kind: 'straight', s: middle, x, y, along: [...along, 0], inward: [...way, 0], slope };
  }
  return pattern.jambs === 'radial' ? { kind: 'proportional' } : straightFrame(chart, middle);
}

/** Sections that go straight on before and behind a skin, so that no step of theirs lies on its faces. */
function goingOn(sections: Placed['sections'], from: number, to: number): Placed['sections'] {
  const made = new Map<SectionLine, SectionLine>();
  const one = (section: SectionLine): SectionLine => {
    let known = made.get(section);
    if (!known) made.set(section, (known = sectionWithin(section, from, to)));
    return known;
  };
  return {
    sill: one(sections.sill),
    head: one(sections.head),
    'jamb-left': one(sections['jamb-left']),
    'jamb-right': one(sections['jamb-right']),
  };
}

function loopOn(loop: readonly number[], placed: PlacedTube, vertices: readonly number[]): PieceLoop {
  return {
    vertices: loop.map((v) => vertices[v]!),
    xs: loop.map((v) => placed.u[v]!),
    ys: loop.map((v) => placed.v[v]!),
  };
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
  else give('near', true, 'back');
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

/** The seam of a side as it is seen from the outer face. */
function seamSeen({ pattern, own }: Placed, side: Side): 'start' | 'crown' | 'end' | undefined {
  const seam = pattern.texture?.[side]?.seam;
  if (own !== 'inner' || !seam || seam === 'crown') return seam;
  return seam === 'start' ? 'end' : 'start';
}

/** The seam as it is met along a loop: a void's loops run from the left springing to the right one, a raised thing's the other way. */
function seamAsRun(seam: 'start' | 'crown' | 'end' | undefined, sense: 1 | -1): 'start' | 'crown' | 'end' {
  if (seam === 'crown') return 'crown';
  return ((seam ?? 'start') === 'start') === (sense === -1) ? 'start' : 'end';
}
