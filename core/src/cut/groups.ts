/** Openings that meet one another within a flat sheet, such as those with stones let in about them: the piece of such a set is made once for all that are alike, and put in its place. */
import { LRUCache } from 'lru-cache';
import type { FlatChart } from '../element/chart.ts';
import { emptyMesh, type CutMesh } from '../mesh/cut-mesh.ts';
import { standAlike, type Placed } from '../setout/placed.ts';
import { groupPiece, type Piece } from './piece.ts';
import type { Setting } from './setting.ts';
import { local, turned } from './single.ts';
import { keyOf } from './tubes.ts';

/** The piece of a set, made with the first of its openings at the origin; points and mesh are in the directions of the last chart that asked. */
interface Template {
  members: readonly Placed[];
  piece: Piece | null;
  chart: FlatChart | null;
  points: Float64Array;
  mesh: CutMesh;
}

/** By the outline of the first opening; and for each as many as there can be sets about it that are not alike, within reason. */
const made = new WeakMap<Placed['outline'], LRUCache<string, Template[]>>();
const mostKept = 64;

/** Openings of a set stand as far apart as this, metres, told: what differs by less is rounding, and one set is cut as another. */
const grain = 1e-11;
const inGrains = (metres: number): number => Math.round(metres / grain) * grain;

/** The piece of openings that meet one another, or null where they do not reach the skin. @throws Inexpressible, Collapsed, BeyondCurve, NotTriangulable, TooTangled */
export function piecesTogether(setting: Setting, openings: readonly Placed[]): Piece | null {
  const { sheet, lines, skin } = setting;
  const { chart } = sheet;
  // Texture that is laid in a way of its own, and outlines that drift, depend on the place.
  if (chart.kind !== 'flat' || lines || sheet.rim || openings.some(({ pattern, drift }) => pattern.texture || drift))
    return groupPiece(setting, openings, false);
  const first = openings[0]!;
  const members = openings.map((opening, k): Placed => ({
    ...opening,
    id: String(k),
    s: inGrains(opening.s - first.s),
    t: inGrains(opening.t - first.t),
  }));
  const template = templateOf(`${skin.from} ${skin.to} ${skin.whole} ${keyOf(sheet)}`, members, () => ({
    sheet: { ...sheet, chart: local },
    skin,
    lines: null,
    ribsAt: () => null,
  }));
  if (!template.piece) return null;
  if (template.chart !== chart) {
    template.points = turned(template.piece.points, chart);
    template.mesh = { ...template.piece.mesh, normals: turned(template.piece.mesh.normals, chart) };
    template.chart = chart;
  }
  const { s, t } = first;
  const at = (k: 0 | 1 | 2): number => chart.origin[k] + s * chart.along[k] + t * chart.up[k];
  return {
    ...template.piece,
    points: template.points,
    mesh: template.mesh,
    shift: { x: at(0), y: at(1), z: at(2), along: s, up: t },
    place: { opening: first.id, others: openings.map(({ id }) => id), u: s, v: t },
  };
}

function templateOf(key: string, members: readonly Placed[], setting: () => Setting): Template {
  const { outline } = members[0]!;
  let byKey = made.get(outline);
  if (!byKey) made.set(outline, (byKey = new LRUCache({ max: mostKept })));
  let list = byKey.get(key);
  if (!list) byKey.set(key, (list = []));
  const known = list.find((template) => alike(template.members, members));
  if (known) return known;
  const piece = groupPiece(setting(), members, false);
  const template: Template = {
    members,
    piece,
    chart: null,
    points: new Float64Array(0),
    mesh: piece?.mesh ?? emptyMesh(),
  };
  list.push(template);
  if (list.length > mostKept) list.shift();
  return template;
}

/** Whether two sets are cut alike, each as it stands about its first opening. */
function alike(a: readonly Placed[], b: readonly Placed[]): boolean {
  return (
    a.length === b.length &&
    a.every((x, k) => {
      const y = b[k]!;
      return standAlike(x, y) && x.kind === y.kind && x.depth === y.depth && x.from === y.from && x.own === y.own;
    })
  );
}
