/** A vaulted bay: over each side two half severies whose rulings run level, along their axis, from the side (or a groin) to a groin. All its faces are flat, and neighbours meet above the lines from the corners to the middle. */
import type { BayForm } from '@yard-arch/document';
import type { Fineness } from '../profile/flatten.ts';
import type { Vector } from '../vector.ts';
import { halfSoffit, movedOut, type Spot } from './line.ts';
import { between, difference, heightAt, waysOf, type BayPlan, type Half, type InPlan, type Row } from './bay-plan.ts';
import { ribsOf } from './ribs.ts';
import type { Shell, ShellCorner, ShellPolygon } from './solid.ts';

/** Why a bay has no such profile, and what would mend it. */
export interface NoProfile {
  reason: string;
  mend: string;
}

/** @returns null where its layers are thicker than its profile is round, or why it has no such profile. */
export function bayShell(form: BayForm, thickness: number, fineness: Fineness): Shell | NoProfile | null {
  const corners = form.corners.map(({ x, y }): InPlan => [x, y]);
  const middle = middleOf(corners);
  const halves = halvesOf(corners, middle);
  const half = Math.hypot(...difference(halves[0]!.foot, halves[0]!.corner));
  const reach = form.severies === 'groin' ? half : Math.hypot(...difference(middle, halves[0]!.foot));
  if (form.profile === 'segment' && form.rise > reach + 1e-9)
    return {
      reason: `a round profile rises by no more than half of its span, which is ${metres(reach)} m here`,
      mend: 'Give it less rise, or a pointed or elliptic profile.',
    };
  if (form.profile === 'pointed' && form.rise < reach + 1e-9)
    return {
      reason: `a pointed profile rises by more than half of its span, which is ${metres(reach)} m here`,
      mend: 'Give it more rise, or a round or elliptic profile.',
    };
  const soffit = halfSoffit(form.profile, reach, form.rise, fineness);
  const known = new Map<number, Row[]>();
  const rowsAt = (depth: number): Row[] => {
    let rows = known.get(depth);
    if (!rows) {
      const line = movedOut(soffit, thickness - depth, { axis: 0, at: 0 }, { axis: 0, at: reach });
      if (!line) throw new TooThick();
      known.set(depth, (rows = rowsOf(line, reach)));
    }
    return rows;
  };
  try {
    for (const depth of [0, thickness]) rowsAt(depth);
  } catch (error) {
    if (error instanceof TooThick) return null;
    throw error;
  }
  const bay: BayPlan = { halves, middle, groin: form.severies === 'groin', reach };
  const back = rowsAt(0);
  return {
    surface: (depth) => halves.flatMap((one) => severy(bay, one, rowsAt(depth))),
    sides: (from, to) =>
      corners.map((_, i) => side(bay, halves[2 * i]!, halves[2 * i + 1]!, [rowsAt(from), rowsAt(to)])),
    carried: form.ribs
      ? [{ polygons: ribsOf(bay, corners, rowsAt(thickness), form.ribs), material: form.ribs.material }]
      : [],
    outline: corners,
    lines: corners.map((corner) => [corner, middle] as const),
    low: 0,
    high: Math.max(...back.map(({ z }) => z)),
    backAt: (x, y) => heightAt(bay, back, [x, y]),
  };
}

class TooThick extends Error {}

const metres = (value: number): string => String(Math.round(value * 1000) / 1000);

/** The middle of a polygon: its centre of area. */
function middleOf(corners: readonly InPlan[]): InPlan {
  let [area, x, y] = [0, 0, 0];
  const [ox, oy] = corners[0]!;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    const [ax, ay, bx, by] = [a[0] - ox, a[1] - oy, b[0] - ox, b[1] - oy];
    const twice = ax * by - bx * ay;
    area += twice;
    x += twice * (ax + bx);
    y += twice * (ay + by);
  });
  return [ox + x / (3 * area), oy + y / (3 * area)];
}

/** Two halves for each side, in order. The crown of a side stands where the middle is square to it; half way where that is beside it. */
function halvesOf(corners: readonly InPlan[], middle: InPlan): Half[] {
  return corners.flatMap((a, i): Half[] => {
    const b = corners[(i + 1) % corners.length]!;
    const [dx, dy] = difference(b, a);
    const [mx, my] = difference(middle, a);
    const share = (mx * dx + my * dy) / (dx * dx + dy * dy);
    const foot = between(a, b, share > 0.1 && share < 0.9 ? share : 0.5);
    return [
      { corner: a, foot, hand: 1 },
      { corner: b, foot, hand: -1 },
    ];
  });
}

function rowsOf(line: readonly Spot[], reach: number): Row[] {
  const normals = line.slice(1).map(([x, z], i): Spot => {
    const [dx, dz] = [x - line[i]![0], z - line[i]![1]];
    const size = Math.hypot(dx, dz);
    return [-dz / size, dx / size];
  });
  return line.map(([x, z], i) => {
    const [a, b] = [normals[i - 1] ?? normals[i]!, normals[i] ?? normals[i - 1]!];
    const [nx, nz] = [a[0] + b[0], a[1] + b[1]];
    const size = Math.hypot(nx, nz);
    return { w: Math.min(1, Math.max(0, x / reach)), z, out: [nx / size, nz / size] };
  });
}

/** Half a severy at one depth, its polygons seen from above. */
function severy(bay: BayPlan, one: Half, rows: readonly Row[]): ShellPolygon[] {
  const { middle, groin, reach } = bay;
  const { corner, foot, hand } = one;
  const { across, level, wide } = waysOf(bay, one);
  const total = lengthOf(rows, wide);
  // Textures are counted from the crown of the side either way, so that they go on there.
  const [cx, cy] = groin ? corner : foot;
  let length = 0;
  const placed = rows.map((row, k) => {
    const last = rows[k - 1];
    if (last) length += Math.hypot((row.w - last.w) * wide, row.z - last.z);
    const [x, z] = [(row.out[0] * reach) / wide, row.out[1]];
    const size = Math.hypot(x, z);
    const normal: Vector = [(across[0] * x) / size, (across[1] * x) / size, z / size];
    const near = groin ? between(corner, foot, row.w) : between(corner, middle, row.w);
    const far = groin ? between(corner, middle, row.w) : between(foot, middle, row.w);
    const run = length;
    const shown = (place: InPlan): ShellCorner => {
      const along = (place[0] - cx) * level[0] + (place[1] - cy) * level[1];
      return { at: [...place, row.z], normal, uv: groin ? [hand * (run - total), along] : [hand * along, run] };
    };
    return { near: shown(near), far: shown(far) };
  });
  const polygons: ShellPolygon[] = [];
  for (let k = 0; k + 1 < placed.length; k++) {
    const [a, b] = [placed[k]!, placed[k + 1]!];
    // Rows run from the side inward (cloister), or from the corner along it (groin).
    const round = groin ? [a.near, b.near, b.far, a.far] : [a.near, a.far, b.far, b.near];
    const own = withoutDoubles(hand === 1 ? round : [...round].reverse());
    if (own.length > 2) polygons.push(own);
  }
  return polygons;
}

/** How long rows are over so wide a half severy, metres. */
function lengthOf(rows: readonly Row[], wide: number): number {
  return rows.reduce((sum, row, k) => {
    const last = rows[k - 1];
    return last ? sum + Math.hypot((row.w - last.w) * wide, row.z - last.z) : 0;
  }, 0);
}

function withoutDoubles(corners: readonly ShellCorner[]): ShellCorner[] {
  return corners.filter(({ at }, i) => {
    const [x, y, z] = corners[(i + 1) % corners.length]!.at;
    return Math.hypot(at[0] - x, at[1] - y, at[2] - z) > 1e-9;
  });
}

/** The upright side between two depths, seen from outside. */
function side({ groin }: BayPlan, left: Half, right: Half, [upper, lower]: readonly [Row[], Row[]]): ShellPolygon {
  const [dx, dy] = difference(right.corner, left.corner);
  const length = Math.hypot(dx, dy);
  const normal: Vector = [dy / length, -dx / length, 0];
  const chain = (rows: readonly Row[]): ShellCorner[] => {
    const z = rows[0]!.z;
    const spots: (readonly [InPlan, number])[] = groin
      ? [
          ...rows.map((row) => [between(left.corner, left.foot, row.w), row.z] as const),
          // The crown is there once.
          ...rows
            .slice(0, -1)
            .map((row) => [between(right.corner, right.foot, row.w), row.z] as const)
            .reverse(),
        ]
      : [left.corner, left.foot, right.corner].map((place) => [place, z] as const);
    return spots.map(([place, z]) => {
      const [px, py] = difference(place, left.corner);
      return { at: [...place, z], normal, uv: [(px * dx + py * dy) / length, z] };
    });
  };
  return withoutDoubles([...chain(lower), ...chain(upper).reverse()]);
}
