/** Skins: one closed solid between two depths of a sheet, put together from its pieces and its two faces; after an edit, from those that there were. */
import type { Sheet } from '../element/sheet.ts';
import type { MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { pointAt, ribAt } from '../element/chart.ts';
import { FaceLoops, ribLines, triangulateFace } from '../mesh/face.ts';
import { paired } from '../mesh/quads.ts';
import type { Region } from '../mesh/region.ts';
import { repeated } from '../mesh/repeat.ts';
import { retriangulate, type Segment } from '../mesh/retriangulate.ts';
import { transfer } from '../mesh/transfer.ts';
import type { FaceLines } from '../reveal/placed.ts';
import { sameCarrier, standAlike, type Placed } from '../setout/placed.ts';
import { standingOn, writeFace, type Standing } from './face-corners.ts';
import { writePieces, type Written } from './written.ts';
import { crossings, gridLines } from './grid.ts';
import { piecesTogether } from './groups.ts';
import { groupPiece, rimPiece, type KeptPiece, type Piece, type PieceLoop } from './piece.ts';
import { layerAt, settingOf, type Setting, type Skin } from './setting.ts';
import { Singles } from './single.ts';
import { nanometre as same } from '../tolerances.ts';

export type { Skin } from './setting.ts';

/** Sets of openings that are cut together, as found on the face. */
export interface Grouping {
  /** Openings that stand clear of all else. */
  singles: readonly number[];
  /** Openings that meet one another. */
  groups: readonly (readonly number[])[];
  /** Openings that meet the sheet's edge, or whatever else must be cut with it. */
  atEdge: readonly number[];
}

/** Raised where the piece of certain openings cannot be made; `cause` says why. */
export class AtFault extends Error {
  constructor(
    readonly openings: readonly Placed[],
    override readonly cause: unknown,
  ) {
    super('an opening cannot be cut');
  }
}

interface KeptFace {
  region: Region;
  triangles: Uint32Array;
  /** How many of the first triangles are quads in pairs. */
  pairs: number;
  segments: Segment[];
}

/** A skin as it was cut, by which the next cut knows what it may keep. */
export interface SkinCut {
  skin: Skin;
  sheet: Sheet;
  setting: Setting;
  pieces: Map<string, KeptPiece>;
  outer: KeptFace;
  inner: KeptFace;
  written: Written;
  /** The mesh into which it was written, once that is finished. */
  mesh: CutMesh | null;
}

/** What of a sheet is cut: the openings, how they come together, in which skin, and along which lines its faces are divided. */
export interface Cutting {
  sheet: Sheet;
  openings: readonly Placed[];
  grouping: Grouping;
  skin: Skin;
  lines: FaceLines | null;
}

/**
 * Cuts a skin and writes it into a mesh.
 * @param before the same skin as it was cut before an edit.
 * @throws AtFault (whose cause is Inexpressible, Collapsed, BeyondCurve, NotTriangulable or TooTangled); NotTriangulable where a face cannot be divided
 */
export function cutSkin(builder: MeshBuilder, cutting: Cutting, before?: SkinCut): SkinCut {
  const { sheet, skin, lines } = cutting;
  const known = before && before.sheet === sheet && before.setting.lines === lines ? before : undefined;
  const setting = known?.setting ?? settingOf(sheet, skin, lines);
  const pieces = piecesOf(setting, cutting, known?.pieces);
  const need = needOf(pieces);
  builder.reserve(need.vertices, 0, 0, 0, 0);
  // Vertices in the order of the pieces, then the faces that they leave.
  const sides = { outer: sideOf(need.outer), inner: sideOf(need.inner) };
  const bases = takePieces(builder, pieces, sides);
  const outer = dividedFace(builder, setting, { side: sides.outer, n: skin.from, kept: known?.outer });
  const shared = !lines && sheet.chart.kind === 'flat' && sides.inner.loops.isLike(sides.outer.loops);
  const inner = shared
    ? { ...outer, segments: sides.inner.segments }
    : dividedFace(builder, setting, { side: sides.inner, n: skin.to, kept: known?.inner, like: outer });
  writeFaces(builder, setting, { sides, faces: { outer, inner }, skin, need });
  const written = writePieces(builder, pieces, bases, known);
  return { skin, sheet, setting, pieces, outer, inner, written, mesh: null };
}

/** The pieces of a skin: those that there were where their openings are cut alike, and otherwise new ones. */
function piecesOf(
  setting: Setting,
  { sheet, openings, grouping, skin }: Cutting,
  known: ReadonlyMap<string, KeptPiece> | undefined,
): Map<string, KeptPiece> {
  const pieces = new Map<string, KeptPiece>();
  const keep = (
    list: readonly number[],
    make: (members: readonly Placed[]) => Piece | null,
    name: (members: readonly Placed[]) => string,
  ): void => {
    const members = list.map((k) => openings[k]!);
    const named = name(members);
    const kept = known?.get(named);
    if (kept && alike(kept.openings, members)) pieces.set(named, kept);
    else
      try {
        pieces.set(named, { openings: members, piece: make(members) });
      } catch (error) {
        throw new AtFault(members, error);
      }
  };
  const byIds = (members: readonly Placed[]): string => members.map(({ id }) => id).join(' ');
  const singles = new Singles(setting);
  const { rim } = sheet;
  keep(
    grouping.atEdge,
    (members) => (rim ? rimPiece(rim(skin.from, skin.to), members) : groupPiece(setting, members, true)),
    () => 'edge',
  );
  for (const k of grouping.singles) keep([k], ([opening]) => singles.piece(opening!), byIds);
  for (const group of grouping.groups) keep(group, (members) => piecesTogether(setting, members), byIds);
  return pieces;
}

/** How much room pieces take in a mesh, and their loops in its faces. */
interface Need {
  corners: number;
  triangles: number;
  polygons: number;
  polygonCorners: number;
  vertices: number;
  outer: number;
  inner: number;
}

function needOf(pieces: ReadonlyMap<string, KeptPiece>): Need {
  const need: Need = { corners: 0, triangles: 0, polygons: 0, polygonCorners: 0, vertices: 0, outer: 0, inner: 0 };
  for (const { piece } of pieces.values()) {
    if (!piece) continue;
    need.vertices += piece.points.length / 3;
    need.corners += piece.mesh.vertices.length;
    need.triangles += piece.mesh.triangles.length / 3;
    need.polygons += piece.mesh.polygonStart.length - 1;
    need.polygonCorners += piece.mesh.polygonCorners.length;
    for (const { vertices } of piece.outer) need.outer += vertices.length;
    for (const { vertices } of piece.inner) need.inner += vertices.length;
  }
  return need;
}

/** The loops that pieces leave in one of the two faces, and which of them are of which piece. */
interface Side {
  loops: FaceLoops;
  segments: Segment[];
}

type Both<T> = Record<'outer' | 'inner', T>;

function sideOf(vertices: number): Side {
  const loops = new FaceLoops();
  loops.reserve(vertices);
  return { loops, segments: [] };
}

/** Puts the pieces' vertices into the mesh, and their loops into the faces. @returns the first vertex of each piece */
function takePieces(
  builder: MeshBuilder,
  pieces: ReadonlyMap<string, KeptPiece>,
  { outer, inner }: Both<Side>,
): number[] {
  const bases: number[] = [];
  for (const [name, { piece }] of pieces) {
    if (!piece) continue;
    const base = builder.takePoints(piece.points, piece.shift);
    bases.push(base);
    outer.segments.push(take(outer.loops, piece.outer, { base, name, piece }));
    inner.segments.push(take(inner.loops, piece.inner, { base, name, piece }));
    if (piece.pinched) outer.loops.pinched = inner.loops.pinched = true;
  }
  return bases;
}

/** A face divided: as little of it anew as there can be. @param n its depth, metres @param kept it before an edit @param like the other face, which it may be divided like */
function dividedFace(
  builder: MeshBuilder,
  setting: Setting,
  { side, n, kept, like }: { side: Side; n: number; kept: KeptFace | undefined; like?: KeptFace },
): KeptFace {
  const { loops, segments } = side;
  if (setting.lines) return quads({ builder, setting }, side, setting.lines, n);
  const { region } = loops;
  const ribs = setting.ribsAt(n);
  // Divided like the other face, or where all its openings have changed a little, as by a figure of their pattern, like before.
  const from = like ?? kept;
  const triangles =
    (kept && retriangulate(kept, region, segments, ribs)) ??
    (from && transfer(from.triangles, from.region, region, ribLines(region, ribs))) ??
    repeated(region, segments, ribs) ??
    triangulateFace(region, ribs);
  return { region, triangles, pairs: 0, segments };
}

/** Writes both faces into the mesh, before the pieces, so that what is largest comes first in it. */
function writeFaces(
  builder: MeshBuilder,
  setting: Setting,
  { sides, faces, skin, need }: { sides: Both<Side>; faces: Both<KeptFace>; skin: Skin; need: Need },
): void {
  const standing = ({ region, triangles }: KeptFace, n: number): Standing | undefined => {
    const ribs = setting.ribsAt(n);
    return ribs ? standingOn(region.xs, triangles, ribs) : undefined;
  };
  const { outer, inner } = faces;
  const stand = { outer: standing(outer, skin.from), inner: standing(inner, skin.to) };
  const triangles = (outer.triangles.length + inner.triangles.length) / 3;
  const pairs = outer.pairs + inner.pairs;
  builder.reserve(
    0,
    need.corners +
      (stand.outer?.corners ?? sides.outer.loops.count) +
      (stand.inner?.corners ?? sides.inner.loops.count),
    need.triangles + triangles,
    need.polygons + triangles - pairs,
    need.polygonCorners + 3 * triangles - 2 * pairs,
  );
  const { sheet } = setting;
  const { layers, texture, face } = sheet;
  for (const [which, n, facing, layer] of [
    ['outer', skin.from, -1, layerAt(sheet, skin.from + same)],
    ['inner', skin.to, 1, layerAt(sheet, skin.to - same)],
  ] as const) {
    builder.begin({ opening: null, role: `${which} face`, layer, material: layers[layer]!.material, face });
    writeFace(builder, setting, {
      ...faces[which],
      loops: sides[which].loops,
      n,
      facing,
      texture: texture?.[which],
      standing: stand[which],
    });
  }
}

/** A face in quads: divided along rows and columns, and triangles joined where they make quads. */
function quads(
  { builder, setting }: { builder: MeshBuilder; setting: Setting },
  { loops, segments }: { loops: FaceLoops; segments: Segment[] },
  lines: FaceLines,
  n: number,
): KeptFace {
  const { chart } = setting.sheet;
  const ribs = setting.ribsAt(n);
  // On a bent face the ribs are its columns.
  const own: FaceLines = ribs ? { columns: ribs.slice(1, -1), rows: lines.rows } : lines;
  const points = crossings(loops.region, own);
  const base = builder.takeVertices(points.length / 2);
  for (let i = 0; i < points.length; i += 2) {
    const [along, up] = [points[i]!, points[i + 1]!];
    const [x, y, z] =
      chart.kind === 'bent'
        ? [...ribAt(chart, ribs!.indexOf(along), n), chart.origin[2] + up]
        : pointAt(chart, along, up, n);
    builder.put(base + i / 2, x!, y!, z!);
    loops.free(base + i / 2, along, up);
  }
  const { region } = loops;
  const grid = gridLines(region, own);
  const { triangles, pairs } = paired(triangulateFace(region, null, grid), region.xs, region.ys, grid);
  return { region, triangles, pairs, segments };
}

const unmoved = { along: 0, up: 0 };

/** Puts a piece's loops into a face. */
function take(
  face: FaceLoops,
  loops: readonly PieceLoop[],
  { base, name, piece }: { base: number; name: string; piece: Piece },
): Segment {
  const first = face.count;
  const { along, up } = piece.shift ?? unmoved;
  for (const { vertices, xs, ys } of loops) {
    face.open(vertices.length);
    for (let i = 0; i < vertices.length; i++) face.point(base + vertices[i]!, xs[i]! + along, ys[i]! + up);
  }
  return { name, first, count: face.count - first, of: piece, like: loops };
}

/** Whether openings are cut alike. */
function alike(a: readonly Placed[], b: readonly Placed[]): boolean {
  if (a.length !== b.length) return false;
  return a.every((x, i) => {
    const y = b[i]!;
    return x.id === y.id && standAlike(x, y) && sameCarrier(x.carrier, y.carrier);
  });
}
