/**
 * Splits a closed mesh along a curtain, and closes what is kept where it was cut. Faces are divided where the curtain goes through them, by vertices that neighbours share; the edges that are left open
 * then lie in the curtain, and bound what closes it. All in 64-bit figures, by what is joined to what.
 */
import { dot, minus, newell, type Vector } from '../vector.ts';
import { nanometre, verticesAlike } from '../tolerances.ts';
import { MeshBuilder } from './builder.ts';
import { capEdges, Unsplit, type Cap, type OpenEdge } from './caps.ts';
import type { Curtain } from './curtain.ts';
import { type CutMesh, type Run } from './cut-mesh.ts';
import { flatFacesAnew, type FlatFace } from './flat-faces.ts';
import { prove } from './proof.ts';
import { NotTriangulable } from './triangulation.ts';

/** A corner of a piece, with what is drawn there. */
interface Corner {
  v: number;
  /** The first vertex of the mesh that it came from. */
  from: number;
  normal: Vector;
  uv: readonly [number, number];
}

/** A piece of a polygon. */
interface Piece {
  run: number;
  corners: readonly Corner[];
  /** The triangles of a polygon that nothing went through, as they were: places among its corners. */
  triangles: readonly number[] | null;
  touched: boolean;
}

export interface Parted {
  /** What is kept; null where that is nothing. */
  mesh: CutMesh | null;
  /** Whether the curtain went through it at all. */
  cut: boolean;
}

/** What closes a mesh where it was cut: of its own material, or of each layer's. */
export interface Closing {
  material?: string | undefined;
  materialOf: (layer: number) => string;
  /** Whether each layer is a closed solid of its own. */
  apart?: boolean | undefined;
  /** The same body as closed solids of its layers, whose sections show in its own. */
  layered?: CutMesh | undefined;
}

/**
 * Splits a mesh, and sees to it that it is closed: with its layers shown where they can be told, otherwise in one material.
 * @returns null where it cannot be closed, as where an edge of it lies in the curtain.
 */
export function partedClosed(mesh: CutMesh, curtain: Curtain, closing: Closing): Parted | null {
  const tries = closing.layered ? [closing, { ...closing, layered: undefined }] : [closing];
  for (const one of tries)
    try {
      const made = partedMesh(mesh, curtain, one);
      if (!made.mesh) return made;
      const { closed, flaps } = prove(made.mesh);
      if (closed && flaps === 0) return made;
    } catch (error) {
      if (!(error instanceof Unsplit || error instanceof NotTriangulable)) throw error;
    }
  return null;
}

/** Splits a mesh. @throws NotTriangulable, or Unsplit where what is left open cannot be closed */
export function partedMesh(mesh: CutMesh, curtain: Curtain, closing: Closing): Parted {
  const cutting = new Cutting(mesh, curtain, closing.apart === true);
  const { pieces, cut } = cutting.kept();
  if (pieces.length === 0) return { mesh: null, cut };
  if (!cut) return { mesh: pieces.length === mesh.polygonStart.length - 1 ? mesh : cutting.written(pieces, []), cut };
  let caps = capEdges(cutting.open(pieces), cutting.at);
  if (closing.layered && closing.material === undefined) {
    const inLayers = new Cutting(closing.layered, curtain, true);
    const own = capEdges(inLayers.open(inLayers.kept().pieces), inLayers.at);
    caps = cutting.adopted(caps, own, inLayers.at);
  }
  return { mesh: cutting.written(pieces, caps, closing), cut };
}

class Cutting {
  private readonly points: number[];
  /** By drape and vertex the signed distance. */
  private readonly far: Float64Array[];
  private readonly more: number[][];
  private readonly made = new Map<string, number>();
  /** By run and vertex which solid it is of. */
  private readonly solids: (run: number, corner: number) => number;

  constructor(
    private readonly mesh: CutMesh,
    private readonly curtain: Curtain,
    apart: boolean,
  ) {
    this.solids = solidsOf(mesh, apart);
    this.points = Array.from(mesh.points.subarray(0, 3 * mesh.vertexCount));
    this.far = curtain.drapes.map(({ normal, offset }) => {
      const out = new Float64Array(mesh.vertexCount);
      for (let v = 0; v < out.length; v++) {
        const d = dot(normal, this.at(v)) - offset;
        out[v] = Math.abs(d) < nanometre * 10 ? 0 : d;
      }
      return out;
    });
    this.more = curtain.drapes.map(() => []);
  }

  readonly at = (v: number): Vector => [this.points[3 * v]!, this.points[3 * v + 1]!, this.points[3 * v + 2]!];

  private distance(drape: number, v: number): number {
    const own = this.far[drape]!;
    return v < own.length ? own[v]! : this.more[drape]![v - own.length]!;
  }

  /** All that is kept, and whether any of it was divided or taken away. */
  kept(): { pieces: Piece[]; cut: boolean } {
    const pieces: Piece[] = [];
    let cut = false;
    for (const whole of this.polygons()) {
      let parts: Piece[] = [whole];
      this.curtain.drapes.forEach((_, k) => (parts = parts.flatMap((part) => this.divided(part, k))));
      for (const part of parts)
        if (this.keeps(part)) pieces.push(part);
        else cut = true;
    }
    return { pieces, cut };
  }

  private *polygons(): Generator<Piece> {
    const { mesh } = this;
    for (let run = 0; run < mesh.runs.length; run++) {
      const { firstPolygon, polygons, first } = mesh.runs[run]!;
      let triangle = first;
      for (let p = firstPolygon; p < firstPolygon + polygons; p++) {
        const own = mesh.polygonCorners.subarray(mesh.polygonStart[p]!, mesh.polygonStart[p + 1]!);
        const place = new Map(Array.from(own, (corner, i) => [corner, i]));
        const triangles: number[] = [];
        for (let k = 3 * triangle; k < 3 * (triangle + own.length - 2); k++)
          triangles.push(place.get(mesh.triangles[k]!)!);
        triangle += own.length - 2;
        yield { run, corners: Array.from(own, (c) => this.corner(c)), triangles, touched: false };
      }
    }
  }

  private corner(c: number): Corner {
    const { normals, uvs, vertices } = this.mesh;
    return {
      v: vertices[c]!,
      from: vertices[c]!,
      normal: [normals[3 * c]!, normals[3 * c + 1]!, normals[3 * c + 2]!],
      uv: [uvs[2 * c]!, uvs[2 * c + 1]!],
    };
  }

  /** A piece on both sides of a drape's plane, if it is on both. */
  private divided(piece: Piece, drape: number): Piece[] {
    const { corners, triangles, run } = piece;
    const sides = corners.map(({ v }) => this.distance(drape, v));
    if (!sides.some((d) => d > 0) || !sides.some((d) => d < 0)) return [piece];
    // Whatever may be hollow goes in triangles.
    if (triangles && corners.length > 3 && !this.convex(corners)) {
      const parts: Piece[] = [];
      for (let i = 0; i < triangles.length; i += 3)
        parts.push({
          run,
          corners: [0, 1, 2].map((k) => corners[triangles[i + k]!]!),
          triangles: null,
          touched: true,
        });
      return parts.flatMap((part) => this.divided(part, drape));
    }
    const [before, beyond]: [Corner[], Corner[]] = [[], []];
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % corners.length]!;
      const [p, q] = [sides[i]!, sides[(i + 1) % corners.length]!];
      if (p >= 0) before.push(a);
      if (p <= 0) beyond.push(a);
      if ((p > 0 && q < 0) || (p < 0 && q > 0)) {
        const between = this.between(drape, a, b);
        before.push(between);
        beyond.push(between);
      }
    });
    return [before, beyond].map((own) => ({ run, corners: own, triangles: null, touched: true }));
  }

  private convex(corners: readonly Corner[]): boolean {
    const points = corners.map(({ v }) => this.at(v));
    const normal = newell(points);
    return points.every((b, i) => {
      const [a, c] = [points[(i + points.length - 1) % points.length]!, points[(i + 1) % points.length]!];
      return dot(newell([a, b, c]), normal) > 0;
    });
  }

  /** Where an edge goes through a drape: the same vertex for both that share it. */
  private between(drape: number, a: Corner, b: Corner): Corner {
    const [low, high] = a.v < b.v ? [a, b] : [b, a];
    const [p, q] = [this.distance(drape, low.v), this.distance(drape, high.v)];
    const share = p / (p - q);
    const key = `${drape} ${low.v} ${high.v}`;
    let v = this.made.get(key);
    if (v === undefined) {
      const [from, to] = [this.at(low.v), this.at(high.v)];
      v = this.add([0, 1, 2].map((k) => from[k]! + share * (to[k]! - from[k]!)) as unknown as Vector, drape);
      this.made.set(key, v);
    }
    const mix = (x: number, y: number): number => x + share * (y - x);
    const normal = low.normal.map((x, k) => mix(x, high.normal[k]!));
    const size = Math.hypot(...normal) || 1;
    return {
      v,
      from: low.from,
      normal: normal.map((x) => x / size) as unknown as Vector,
      uv: [mix(low.uv[0], high.uv[0]), mix(low.uv[1], high.uv[1])],
    };
  }

  /** A new vertex, on a drape where one is named. */
  private add(point: Vector, on?: number): number {
    const v = this.points.length / 3;
    this.points.push(...point);
    this.curtain.drapes.forEach(({ normal, offset }, k) => {
      const d = dot(normal, point) - offset;
      this.more[k]!.push(k === on || Math.abs(d) < nanometre * 10 ? 0 : d);
    });
    return v;
  }

  /** Whether a piece is on the side that is kept: judged a little within the solid, for what lies in the curtain itself. */
  private keeps({ corners }: Piece): boolean {
    const points = corners.map(({ v }) => this.at(v));
    const normal = newell(points);
    const size = Math.hypot(...normal) || 1;
    const within = 1e-6;
    const [x, y, z] = [0, 1, 2].map(
      (k) => points.reduce((sum, point) => sum + point[k]!, 0) / points.length - (within * normal[k]!) / size,
    ) as [number, number, number];
    const inCurtain = this.curtain.drapes.some((_, k) => corners.every(({ v }) => this.distance(k, v) === 0));
    return inCurtain
      ? this.curtain.keeps(x, y, z)
      : this.curtain.keeps(
          x + (within * normal[0]) / size,
          y + (within * normal[1]) / size,
          z + (within * normal[2]) / size,
        );
  }

  /** The edges of what is kept that nothing is joined to; all of them lie in the curtain. */
  open(pieces: readonly Piece[]): OpenEdge[] {
    const edges = new Map<string, OpenEdge>();
    for (const { corners, run } of pieces)
      corners.forEach(({ v: from, from: first }, i) => {
        const to = corners[(i + 1) % corners.length]!.v;
        const on = this.curtain.drapes.findIndex(
          (_, k) => this.distance(k, from) === 0 && this.distance(k, to) === 0 && this.reaches(k, from, to),
        );
        if (on < 0 || edges.delete(`${to} ${from}`)) return;
        const { layer, opening } = this.mesh.runs[run]!;
        edges.set(`${from} ${to}`, {
          from,
          to,
          drape: on,
          layer: opening === null ? layer : null,
          solid: this.solids(run, first),
        });
      });
    return [...edges.values()];
  }

  /** Whether the middle of an edge is within a drape's own reach. */
  private reaches(drape: number, from: number, to: number): boolean {
    const { along, from: begin, to: end } = this.curtain.drapes[drape]!;
    const middle = (dot(along, this.at(from)) + dot(along, this.at(to))) / 2;
    return middle > begin - nanometre && middle < end + nanometre;
  }

  /** Caps as the layers' own bodies have them, their vertices made those of this one; the caps as they were where the two do not cover the same. */
  adopted(caps: readonly Cap[], layers: readonly Cap[], at: (v: number) => Vector): Cap[] {
    const known = new Map<string, number[]>();
    const cell = (x: number): number => Math.floor(x / (4 * verticesAlike));
    const remember = (v: number): void => {
      const key = this.at(v).map(cell).join(' ');
      const list = known.get(key);
      if (list) list.push(v);
      else known.set(key, [v]);
    };
    for (const v of new Set(caps.flatMap(({ edges }) => edges))) remember(v);
    const given = new Map<number, number>();
    const ownOf = (v: number): number => {
      let own = given.get(v);
      if (own !== undefined) return own;
      const point = at(v);
      const [x, y, z] = point.map(cell) as [number, number, number];
      own = nearest(point);
      if (own === undefined) remember((own = this.add(point)));
      given.set(v, own);
      return own;
      function nearest(p: Vector): number | undefined {
        for (let i = -1; i < 2; i++)
          for (let j = -1; j < 2; j++)
            for (let k = -1; k < 2; k++)
              for (const other of known.get(`${x + i} ${y + j} ${z + k}`) ?? [])
                if (Math.hypot(...minus(here(other), p)) < verticesAlike) return other;
        return undefined;
      }
    };
    const here = this.at;
    const carried = layers.map((cap) => ({ ...cap, edges: cap.edges.map(ownOf) }));
    const byDrape = this.curtain.drapes.map((_, k) => {
      // Trims are solids of their own in both.
      const [whole, own] = [caps, carried].map((all) => all.filter(({ drape, solid }) => drape === k && solid <= 0));
      const points = [...new Set([...whole!, ...own!].flatMap(({ edges }) => edges))];
      const divided = own!.map((cap) => ({ ...cap, edges: dividedAt(cap.edges, points, this.at) }));
      const area = (all: readonly Cap[]): number => all.reduce((sum, cap) => sum + this.areaOf(cap), 0);
      return Math.abs(area(whole!) - area(divided)) < 1e-5 ? divided : whole!;
    });
    return [...byDrape.flat(), ...caps.filter(({ solid }) => solid > 0)];
  }

  private areaOf({ edges, drape }: Cap): number {
    const { along, up } = this.curtain.drapes[drape]!;
    const o = edges.length > 0 ? this.at(edges[0]!) : [0, 0, 0];
    let twice = 0;
    for (let i = 0; i < edges.length; i += 2) {
      const [a, b] = [minus(this.at(edges[i]!), o as Vector), minus(this.at(edges[i + 1]!), o as Vector)];
      twice += dot(a, along) * dot(b, up) - dot(b, along) * dot(a, up);
    }
    return Math.abs(twice) / 2;
  }

  /** What is kept and what closes it, as a mesh: flat faces that were gone through are triangulated anew. */
  written(pieces: readonly Piece[], caps: readonly Cap[], closing?: Closing): CutMesh {
    const groups = this.grouped(pieces);
    const drapes = this.curtain.drapes;
    const faces: FlatFace[] = [
      ...groups.map(({ own, normal, anew }) => ({ triangles: own.flatMap(trianglesOf), normal, fixed: !anew })),
      ...caps.map(({ edges, drape }) => ({
        triangles: [],
        edges,
        normal: drapes[drape]!.normal.map((x) => -x) as unknown as Vector,
      })),
    ];
    const made = flatFacesAnew(faces, this.at);
    const builder = new MeshBuilder(this.mesh.runs[0]?.element ?? '');
    const taken = new Map<number, number>();
    const vertex = (v: number): number => {
      let own = taken.get(v);
      if (own === undefined) {
        taken.set(v, (own = builder.takeVertices(1)));
        builder.put(own, ...this.at(v));
      }
      return own;
    };
    groups.forEach((group, i) => {
      builder.begin(this.mesh.runs[group.run]!);
      if (group.anew) writeAnew(builder, group.own, made[i]!, vertex);
      else for (const piece of group.own) writeAsItWas(builder, piece, vertex);
    });
    caps.forEach((cap, i) => {
      const { normal, along, up } = drapes[cap.drape]!;
      builder.begin({
        opening: null,
        role: 'edge',
        layer: cap.layer,
        material: closing?.material ?? closing?.materialOf(cap.layer) ?? '',
      });
      const triangles = made[groups.length + i]!;
      for (let k = 0; k < triangles.length; k += 3) {
        const corners = [0, 1, 2].map((j) => {
          const v = triangles[k + j]!;
          const p = this.at(v);
          return builder.sharedCorner(vertex(v), -normal[0], -normal[1], -normal[2], dot(p, along), dot(p, up));
        }) as [number, number, number];
        builder.triangle(...corners);
        builder.polygon(corners);
      }
    });
    return builder.finish();
  }

  /** Pieces by run, those of one flat face together where something went through it; what is of four or more corners stays as it is. */
  private grouped(pieces: readonly Piece[]): Group[] {
    const byRun = new Map<number, { plain: Piece[]; flat: Map<string, Group> }>();
    for (const piece of pieces) {
      let run = byRun.get(piece.run);
      if (!run) byRun.set(piece.run, (run = { plain: [], flat: new Map() }));
      if (!isFace(this.mesh.runs[piece.run]!)) {
        run.plain.push(piece);
        continue;
      }
      const points = piece.corners.map(({ v }) => this.at(v));
      const long = newell(points);
      const size = Math.hypot(...long) || 1;
      const normal: Vector = [long[0] / size, long[1] / size, long[2] / size];
      const key = `${normal.map((x) => Math.round(x * 1e5)).join(' ')} | ${laidAs(points, piece.corners)}`;
      let group = run.flat.get(key);
      if (!group) run.flat.set(key, (group = { run: piece.run, normal, own: [], anew: false }));
      group.own.push(piece);
      if (piece.touched) group.anew = true;
    }
    return [...byRun].flatMap(([run, { plain, flat }]) => [
      ...(plain.length > 0 ? [{ run, normal: [0, 0, 1] as Vector, own: plain, anew: false }] : []),
      ...flat.values(),
    ]);
  }
}

interface Group {
  run: number;
  normal: Vector;
  own: Piece[];
  anew: boolean;
}

/** How texture lies on a flat piece: the direction in which u rises, and u at the origin; what is laid alike is one face. */
function laidAs(points: readonly Vector[], corners: readonly Corner[]): string {
  const { uv: from } = corners[0]!;
  let [best, most] = ['', 0];
  for (let i = 1; i + 1 < corners.length; i++) {
    const [a, b] = [minus(points[i]!, points[0]!), minus(points[i + 1]!, points[0]!)];
    const [p, q] = [corners[i]!.uv, corners[i + 1]!.uv].map(([u, v]) => [u - from[0], v - from[1]] as const);
    const area = p![0] * q![1] - q![0] * p![1];
    if (Math.abs(area) <= most) continue;
    const way = [0, 1, 2].map((k) => (a[k]! * q![1] - b[k]! * p![1]) / area) as unknown as Vector;
    const size = dot(way, way);
    most = Math.abs(area);
    best = [...way, from[0] - dot(way, points[0]!) / size].map((x) => Math.round(x * 1e3)).join(' ');
  }
  return best;
}

/** Whether a run is of a face, in triangles as they fall; of reveals and parts the polygons are meant. */
const isFace = ({ role }: Run): boolean =>
  role === 'outer face' || role === 'inner face' || role === 'edge' || role === 'back' || role === 'boss face';

/**
 * Which solid a corner is of, by run and vertex: what is put on is one for each that hangs together (above 0), the body is one (0), or where its layers are apart one for each that does (below 0).
 */
function solidsOf(mesh: CutMesh, apart: boolean): (run: number, vertex: number) => number {
  const { runs, polygonCorners, polygonStart, vertices } = mesh;
  const root = new Map<number, number>();
  const find = (v: number): number => {
    let at = v;
    while (root.get(at) !== undefined && root.get(at) !== at) at = root.get(at)!;
    return at;
  };
  for (const { role, firstPolygon, polygons } of runs) {
    if (role !== 'part' && !apart) continue;
    for (let p = firstPolygon; p < firstPolygon + polygons; p++) {
      const first = find(vertices[polygonCorners[polygonStart[p]!]!]!);
      root.set(first, first);
      for (let c = polygonStart[p]! + 1; c < polygonStart[p + 1]!; c++)
        root.set(find(vertices[polygonCorners[c]!]!), first);
    }
  }
  return (run, vertex) => (runs[run]!.role === 'part' ? find(vertex) + 1 : apart ? -1 - find(vertex) : 0);
}

/** Its triangles, three vertices each. */
function trianglesOf({ corners, triangles }: Piece): number[] {
  return (triangles ?? fan(corners.length)).map((i) => corners[i]!.v);
}

function fan(count: number): number[] {
  return Array.from({ length: count - 2 }, (_, i) => [0, i + 1, i + 2]).flat();
}

function writeAsItWas(builder: MeshBuilder, { corners, triangles }: Piece, vertex: (v: number) => number): void {
  const own = corners.map(({ v, normal, uv }) => builder.sharedCorner(vertex(v), ...normal, ...uv));
  const places = triangles ?? fan(corners.length);
  for (let i = 0; i < places.length; i += 3)
    builder.triangle(own[places[i]!]!, own[places[i + 1]!]!, own[places[i + 2]!]!);
  builder.polygon(own);
}

function writeAnew(
  builder: MeshBuilder,
  own: readonly Piece[],
  triangles: readonly number[],
  vertex: (v: number) => number,
): void {
  const dressed = new Map(own.flatMap(({ corners }) => corners.map((corner) => [corner.v, corner])));
  for (let i = 0; i < triangles.length; i += 3) {
    const three = [0, 1, 2].map((k) => {
      const { v, normal, uv } = dressed.get(triangles[i + k]!)!;
      return builder.sharedCorner(vertex(v), ...normal, ...uv);
    }) as [number, number, number];
    builder.triangle(...three);
    builder.polygon(three);
  }
}

/** Directed edges, each divided where one of the points lies on it. */
function dividedAt(edges: readonly number[], points: readonly number[], at: (v: number) => Vector): number[] {
  const out: number[] = [];
  for (let i = 0; i < edges.length; i += 2) {
    const [from, to] = [edges[i]!, edges[i + 1]!];
    if (from === to) continue;
    const a = at(from);
    const way = minus(at(to), a);
    const length = Math.hypot(...way);
    const on = points.flatMap((v) => {
      if (v === from || v === to) return [];
      const p = minus(at(v), a);
      const share = dot(p, way) / (length * length);
      if (share <= 0 || share >= 1) return [];
      const off = Math.hypot(...minus(p, [share * way[0], share * way[1], share * way[2]]));
      return off < verticesAlike ? [{ v, share }] : [];
    });
    on.sort((x, y) => x.share - y.share);
    const chain = [from, ...on.map(({ v }) => v), to];
    for (let k = 0; k + 1 < chain.length; k++) out.push(chain[k]!, chain[k + 1]!);
  }
  return out;
}
