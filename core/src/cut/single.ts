/** Openings that stand clear: the piece of each is made once for all of its size (on a curve, for all at one distance along it), and put in its place. */
import type { FlatChart } from '../element/chart.ts';
import type { CutMesh, Run } from '../mesh/cut-mesh.ts';
import type { Side } from '../profile/profile.ts';
import type { Placed } from '../setout/resolve.ts';
import { PieceMaker, rangeWithin, type Piece, type PieceLoop, type Setting } from './piece.ts';
import { laidOut } from './texture.ts';
import { keyOf } from './tubes.ts';

interface Template {
  piece: Piece;
  sections: Placed['sections'];
  pattern: Placed['pattern'];
  /** Normals in the directions of the last chart that asked. */
  chart: FlatChart | null;
  normals: Float32Array;
}

type Templates = WeakMap<Placed['outline'], Map<string, Template>>;

/** Those on flat sheets serve wherever their size is used. */
const flat: Templates = new WeakMap();

/** Makes the pieces of one skin's openings that stand clear. */
export class Singles {
  /** Those on a bent sheet serve for one cut only: there are as many as places, and an opening that is dragged takes many. */
  private readonly bent: Templates = new WeakMap();

  constructor(private readonly setting: Setting) {}

  /** The piece of an opening, or null where it does not reach the skin. @throws Collapsed, BeyondCurve, NotTriangulable */
  piece(opening: Placed): Piece | null {
    const { setting } = this;
    const { sheet, skin, lines } = setting;
    const range = rangeWithin(opening, skin);
    if (!range) return null;
    if (opening.kind === 'imprint') return new PieceMaker(setting, [opening]).imprint();
    if (lines || opening.drift) return new PieceMaker(setting, [opening]).single(range);
    const { chart } = sheet;
    const own = `${opening.kind} ${range[0]} ${range[1]} ${skin.from} ${skin.to} ${keyOf(sheet)}`;
    if (chart.kind === 'flat') {
      // Made at the origin, in a sheet that is the chart's own axes.
      const template = templateIn(flat, own, { ...opening, s: 0, t: 0 }, range, () => ({ sheet: { ...sheet, chart: local }, skin, lines: null, ribsAt: () => null }));
      if (template.chart !== chart) {
        template.normals = turnedNormals(template.piece.mesh.normals, chart);
        template.chart = chart;
      }
      const { s, t } = opening;
      return instance(template, opening, s, carried(template.piece.points, s, t, chart));
    }
    // A bent sheet stands upright: what is made at its foot only has to be lifted.
    const template = templateIn(this.bent, `${own} ${opening.s} ${JSON.stringify(opening.carrier ?? null)}`, { ...opening, t: 0 }, range, () => setting);
    return instance(template, opening, 0, lifted(template.piece.points, opening.t));
  }
}

/** The chart in which flat templates are made: right-handed, with depth running down z. */
const local: FlatChart = { kind: 'flat', origin: [0, 0, 0], along: [1, 0, 0], up: [0, 1, 0], inward: [0, 0, -1] };

/** The piece of an opening in its own coordinates. Texture is laid later, when it is in its place. */
function templateIn(templates: Templates, key: string, opening: Placed, range: readonly [number, number], setting: () => Setting): Template {
  const { outline, sections, pattern } = opening;
  let byKey = templates.get(outline);
  if (!byKey) templates.set(outline, (byKey = new Map()));
  const known = byKey.get(key);
  if (known && known.sections === sections && known.pattern === pattern) return known;
  const piece = new PieceMaker(setting(), [{ ...opening, pattern: { ...pattern, texture: seamsOnly(pattern.texture) } }]).single(range);
  const template: Template = { piece, sections, pattern, chart: null, normals: piece.mesh.normals };
  byKey.set(key, template);
  return template;
}

function seamsOnly(texture: Placed['pattern']['texture']): Placed['pattern']['texture'] {
  return texture && Object.fromEntries(Object.entries(texture).map(([role, { seam }]) => [role, { seam }]));
}

/** Points of the local chart, moved along a flat chart and into space. */
function carried(own: Float64Array, s: number, t: number, { origin, along, up, inward }: FlatChart): Float64Array {
  const points = new Float64Array(own.length);
  for (let i = 0; i < own.length; i += 3) {
    const [x, y, n] = [s + own[i]!, t + own[i + 1]!, -own[i + 2]!];
    points[i] = origin[0] + x * along[0] + y * up[0] + n * inward[0];
    points[i + 1] = origin[1] + x * along[1] + y * up[1] + n * inward[1];
    points[i + 2] = origin[2] + x * along[2] + y * up[2] + n * inward[2];
  }
  return points;
}

function lifted(own: Float64Array, t: number): Float64Array {
  const points = own.slice();
  for (let i = 2; i < points.length; i += 3) points[i]! += t;
  return points;
}

/** A template at an opening's place, with its vertices given and its texture so far along. Whatever does not depend on the place is shared. */
function instance({ piece, normals }: Template, { t, id, pattern }: Placed, s: number, points: Float64Array): Piece {
  const movedLoops = (loops: readonly PieceLoop[]): PieceLoop[] => loops.map(({ vertices, xs, ys }) => ({ vertices, xs: moved(xs, s), ys: moved(ys, t) }));
  const mesh = { ...piece.mesh, normals };
  let place = { opening: id, u: s, v: t };
  if (pattern.texture) {
    mesh.uvs = Float32Array.from(piece.mesh.uvs, (x, i) => x + (i % 2 === 0 ? s : t));
    for (const run of mesh.runs) layRun(mesh, mesh.uvs, run, laidOut(pattern.texture[run.role as Side | 'back']));
    place = { opening: id, u: 0, v: 0 };
  }
  return { points, mesh, place, outer: movedLoops(piece.outer), inner: movedLoops(piece.inner), pinched: false };
}

function moved(values: ArrayLike<number>, by: number): Float64Array {
  const out = new Float64Array(values.length);
  for (let i = 0; i < out.length; i++) out[i] = values[i]! + by;
  return out;
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
