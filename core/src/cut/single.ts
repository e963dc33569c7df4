/** Openings that stand clear: the piece of each is made once for all of its size (on a curve, for all at one distance along it), and put in its place. */
import type { FlatChart } from '../element/chart.ts';
import type { CutMesh, Run } from '../mesh/cut-mesh.ts';
import type { Side } from '../profile/profile.ts';
import type { Placed } from '../setout/placed.ts';
import { PieceMaker, type Piece, type Shift } from './piece.ts';
import { rangeWithin, type Setting } from './setting.ts';
import { laidOut } from './texture.ts';
import { keyOf } from './tubes.ts';

interface Template {
  piece: Piece;
  sections: Placed['sections'];
  pattern: Placed['pattern'];
  /** The last flat chart that asked; points and mesh are in its directions. */
  chart: FlatChart | null;
  points: Float64Array;
  mesh: CutMesh;
}

type Templates = WeakMap<Placed['outline'], Map<string, Template>>;

/** Those on flat sheets serve wherever their size is used. */
const flat: Templates = new WeakMap();

/** Makes the pieces of one skin's openings that stand clear. */
export class Singles {
  /** Those on a bent sheet serve for one cut only: there are as many as places, and an opening that is dragged takes many. */
  private readonly bent: Templates = new WeakMap();

  /** What the last piece but for its outline depended on: mostly all have it in common. */
  private last: { kind: string; from: number; to: number; key: string } | null = null;

  constructor(private readonly setting: Setting) {}

  private keyFor(kind: string, [from, to]: readonly [number, number]): string {
    const { last, setting } = this;
    if (last && last.kind === kind && last.from === from && last.to === to) return last.key;
    const { sheet, skin } = setting;
    const key = `${kind} ${from} ${to} ${skin.from} ${skin.to} ${keyOf(sheet)}`;
    this.last = { kind, from, to, key };
    return key;
  }

  /** The piece of an opening, or null where it does not reach the skin. @throws Collapsed, BeyondCurve, NotTriangulable */
  piece(opening: Placed): Piece | null {
    const { setting } = this;
    const { sheet, skin, lines } = setting;
    const range = rangeWithin(opening, skin);
    if (!range) return null;
    if (opening.kind === 'imprint') return new PieceMaker(setting, [opening]).imprint();
    if (lines || opening.drift) return new PieceMaker(setting, [opening]).single(range);
    const { chart } = sheet;
    const own = this.keyFor(opening.kind, range);
    if (chart.kind === 'flat') {
      // Made at the origin, in a sheet that is the chart's own axes.
      const template = templateIn(
        flat,
        own,
        { ...opening, s: 0, t: 0 },
        {
          range,
          setting: () => ({
            sheet: { ...sheet, chart: local },
            skin,
            lines: null,
            ribsAt: () => null,
          }),
        },
      );
      if (template.chart !== chart) {
        const { points, mesh } = template.piece;
        template.points = turned(points, chart);
        template.mesh = { ...mesh, normals: turned(mesh.normals, chart) };
        template.chart = chart;
      }
      const { s, t } = opening;
      const at = (k: 0 | 1 | 2): number => chart.origin[k] + s * chart.along[k] + t * chart.up[k];
      return instance(template, opening, { x: at(0), y: at(1), z: at(2), along: s, up: t });
    }
    // A bent sheet stands upright: what is made at its foot only has to be lifted.
    const template = templateIn(
      this.bent,
      `${own} ${opening.s} ${JSON.stringify(opening.carrier ?? null)}`,
      { ...opening, t: 0 },
      { range, setting: () => setting },
    );
    return instance(template, opening, { x: 0, y: 0, z: opening.t, along: 0, up: opening.t });
  }
}

/** The chart in which flat templates are made: right-handed, with depth running down z. */
export const local: FlatChart = {
  kind: 'flat',
  origin: [0, 0, 0],
  along: [1, 0, 0],
  up: [0, 1, 0],
  inward: [0, 0, -1],
};

/** The piece of an opening in its own coordinates. Texture is laid later, when it is in its place. */
function templateIn(
  templates: Templates,
  key: string,
  opening: Placed,
  { range, setting }: { range: readonly [number, number]; setting: () => Setting },
): Template {
  const { outline, sections, pattern } = opening;
  let byKey = templates.get(outline);
  if (!byKey) templates.set(outline, (byKey = new Map()));
  const known = byKey.get(key);
  if (known && known.sections === sections && known.pattern === pattern) return known;
  const piece = new PieceMaker(setting(), [
    { ...opening, pattern: { ...pattern, texture: seamsOnly(pattern.texture) } },
  ]).single(range);
  const template: Template = { piece, sections, pattern, chart: null, points: piece.points, mesh: piece.mesh };
  byKey.set(key, template);
  return template;
}

function seamsOnly(texture: Placed['pattern']['texture']): Placed['pattern']['texture'] {
  return texture && Object.fromEntries(Object.entries(texture).map(([role, { seam }]) => [role, { seam }]));
}

/** A template at an opening's place, with its texture so far along. Whatever does not depend on the place is shared. */
function instance({ piece, points, mesh }: Template, { id, pattern }: Placed, shift: Shift): Piece {
  const { outer, inner } = piece;
  if (!pattern.texture)
    return { points, shift, mesh, place: { opening: id, u: shift.along, v: shift.up }, outer, inner, pinched: false };
  const uvs = mesh.uvs.slice();
  for (let i = 0; i < uvs.length; i += 2) {
    uvs[i]! += shift.along;
    uvs[i + 1]! += shift.up;
  }
  for (const run of mesh.runs) layRun(mesh, uvs, run, laidOut(pattern.texture[run.role as Side | 'back']));
  return { points, shift, mesh: { ...mesh, uvs }, place: { opening: id, u: 0, v: 0 }, outer, inner, pinched: false };
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

/** Points or normals of a template (x, y, z each), turned into the directions of a chart. */
export function turned<T extends Float32Array | Float64Array>(own: T, { along, up, inward }: FlatChart): T {
  const out = own.slice() as T;
  for (let i = 0; i < own.length; i += 3) {
    const [x, y, z] = [own[i]!, own[i + 1]!, -own[i + 2]!];
    for (let k = 0; k < 3; k++) out[i + k] = x * along[k]! + y * up[k]! + z * inward[k]!;
  }
  return out;
}
