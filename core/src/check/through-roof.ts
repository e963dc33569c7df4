/** Walls that come up through a roof: they stand within what it covers, have a top of their own, and are taller than the roof is there. */
import { isInPlan, isManyFaced, type Element, type ProjectDocument, type Roof, type Wall } from '@yard-arch/document';
import { pointAt } from '../element/chart.ts';
import type { Sheet } from '../element/sheet.ts';
import { sheetsOf } from '../element/sheets.ts';
import type { Told } from '../finding.ts';
import { holdsPoint, type Region } from '../mesh/region.ts';

/** Less than this of a wall's face above the roof's underside is its bearing, square metres for each metre of wall. */
const bearing = 0.05;

/** How often along a wall it is asked whether the roof covers it. */
const samples = 16;

/** In how many strips it is compared with the roof. */
const strips = 64;

const known = new WeakMap<ProjectDocument, Map<string, Roof | null>>();

/** The roof through which a wall comes up; null where it comes through none. */
export function roofPierced(document: ProjectDocument, wall: Wall): Roof | null {
  let byWall = known.get(document);
  if (!byWall) known.set(document, (byWall = new Map()));
  let found = byWall.get(wall.id);
  if (found === undefined) byWall.set(wall.id, (found = piercedBy(document, wall)));
  return found;
}

function piercedBy(document: ProjectDocument, wall: Wall): Roof | null {
  if (wall.top.kind === 'under' || wall.batter) return null;
  const own = sheetsOf(document).of(wall.id);
  if (!own || own.fault) return null;
  for (const roof of Object.values(document.elements)) {
    if (!isManyFaced(roof) || !isUnderRoof(document, wall, roof)) continue;
    const under: Wall = { ...wall, top: { kind: 'under', roof: roof.id } };
    const below = sheetsOf({ ...document, elements: { ...document.elements, [wall.id]: under } }).of(wall.id);
    if (!below || below.fault || below.joins.some(({ code }) => code === 'not-under')) continue;
    if (above(own, below) > bearing * own.length) return roof;
  }
  return null;
}

/** Whether a roof, as it is seen from above, covers a wall from end to end. */
export function isUnderRoof(document: ProjectDocument, wall: Wall, roof: Element): boolean {
  const [own, above] = [sheetsOf(document).of(wall.id), sheetsOf(document).of(roof.id)];
  if (!own || !above || above.fault || above.chart.kind !== 'flat') return false;
  const { chart, length } = own;
  const { origin, along, up } = above.chart;
  const { xs, ys, next } = above.outline;
  const region: Region = { count: xs.length, xs, ys, next };
  return Array.from({ length: samples + 1 }, (_, i) => {
    const [x, y] = pointAt(chart, (length * i) / samples, 0, 0);
    const [dx, dy] = [x - origin[0], y - origin[1]];
    return holdsPoint(region, dx * along[0] + dy * along[1], dx * up[0] + dy * up[1]);
  }).every(Boolean);
}

/** How much of a wall's face is above where it would end under the roof, square metres: by strips, for it only decides whether anything is told. */
function above(own: Sheet, below: Sheet): number {
  const wide = own.length / strips;
  let sum = 0;
  for (let i = 0; i < strips; i++) {
    const s = (i + 0.5) * wide;
    sum += wide * Math.max(0, topAt(own, s) - topAt(below, s));
  }
  return sum;
}

/** The highest point of a sheet's outline so far along it. */
function topAt({ outline: { xs, ys, next } }: Sheet, s: number): number {
  let top = 0;
  for (let i = 0; i < next.length; i++) {
    const j = next[i]!;
    const [from, to] = [xs[i]!, xs[j]!];
    if (from > s === to > s) continue;
    top = Math.max(top, ys[i]! + ((s - from) / (to - from)) * (ys[j]! - ys[i]!));
  }
  return top;
}

/** What is to be told of an element that comes up through a roof. */
export function throughRoof(document: ProjectDocument, element: Element): Told[] {
  const roof = isInPlan(element) ? roofPierced(document, element) : null;
  if (!roof) return [];
  return [
    {
      code: 'through-roof',
      reason: `it comes up through ${roof.name}, which is not cut by it`,
      mend: `Let it end under ${roof.name}, make it lower, or split the roof along it.`,
    },
  ];
}
