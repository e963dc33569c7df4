/** Single sheets from outside: the flat faces of a mesh without thickness, as outlines that can be given one. */
import type { Element, FreeOutline, Layer } from '@yard-arch/document';
import { asWall, withBends } from './bent-sheet.ts';
import type { BentSheet, FlatSheet, ForeignMesh, FoundSheets } from './found-sheet.ts';
import { cross, dot, minus, newell, scaled } from '../vector.ts';
import { flatSheet as flat, micrometre, nanometre, rounding } from '../tolerances.ts';
import { rounded } from '../tidy.ts';

/** Faces that turn by no more than this are one plane: the cosine of half a degree. */
const level = Math.cos(Math.PI / 360);

/** How far what is taken may stray from what was read unless it is said, metres. */
export const usualTolerance = 0.001;

/** A part that falls into more flat pieces than this, each of which meets another at a slight angle, is bent. */
const mostPieces = 8;
/** A slight angle: its cosine, 20°. */
const slight = Math.cos(Math.PI / 9);

type Vector = readonly [number, number, number];

/**
 * The single sheets of a mesh: faces that hang together and lie in one plane become one sheet, however they were divided. Faces that meet in an angle become
 * sheets of their own, or walls where they stand upright and follow one another. Parts that close round a volume are counted, not taken; nor are those taken that bend both ways.
 * @param tolerance how far what is taken may stray from what was read, metres.
 */
export function singleSheetsOf(mesh: ForeignMesh, tolerance = usualTolerance): FoundSheets {
  const { points, polygons } = welded(mesh);
  const edges = new Map<string, number[]>();
  polygons.forEach((polygon, p) =>
    polygon.forEach((v, i) => push(edges, edgeKey(v, polygon[(i + 1) % polygon.length]!), p)),
  );
  const neighbours = (p: number): number[] =>
    polygons[p]!.flatMap((v, i) =>
      edges.get(edgeKey(v, polygons[p]![(i + 1) % polygons[p]!.length]!))!.filter((other) => other !== p),
    );
  const found = { closed: 0, leftOut: 0, bent: [] as FoundSheets['bent'] };
  const sheets: (FlatSheet | BentSheet)[] = [];
  for (const part of partsOf(polygons.length, neighbours)) {
    const open = part.some((p) =>
      polygons[p]!.some((v, i) => edges.get(edgeKey(v, polygons[p]![(i + 1) % polygons[p]!.length]!))!.length === 1),
    );
    if (!open) {
      found.closed += 1;
      continue;
    }
    const normals = new Map(part.map((p) => [p, newell(polygons[p]!.map((v) => points[v]!))]));
    const flats: FlatSheet[] = [];
    const regions: { normal: Vector; area: number }[] = [];
    const taken = new Set<number>();
    // Larger faces first: their planes are the surest.
    for (const seed of [...part].sort((a, b) => length(normals.get(b)!) - length(normals.get(a)!) || a - b)) {
      if (taken.has(seed)) continue;
      const size = length(normals.get(seed)!);
      if (size < rounding) {
        taken.add(seed);
        continue;
      }
      const normal = scaled(normals.get(seed)!, 1 / size);
      const origin = points[polygons[seed]![0]!]!;
      const inPlane = (p: number): boolean => {
        const own = normals.get(p)!;
        return (
          Math.abs(dot(own, normal)) >= level * length(own) &&
          polygons[p]!.every((v) => Math.abs(dot(minus(points[v]!, origin), normal)) <= flat)
        );
      };
      const region = [seed];
      taken.add(seed);
      for (let i = 0; i < region.length; i++)
        for (const other of neighbours(region[i]!))
          if (!taken.has(other) && inPlane(other)) {
            taken.add(other);
            region.push(other);
          }
      // Faces that look the other way are turned round: the larger part says which side is the front.
      const facing = region.map((p) => (dot(normals.get(p)!, normal) < 0 ? [...polygons[p]!].reverse() : polygons[p]!));
      for (const sheet of sheetsIn(points, facing, normal))
        if (sheet.area >= micrometre && [sheet.outline, ...sheet.holes].every((loop) => loop.length <= 4000))
          flats.push(sheet);
        else found.leftOut += 1;
      regions.push({ normal, area: region.reduce((sum, p) => sum + length(normals.get(p)!) / 2, 0) });
    }
    const walls = withBends(flats, tolerance);
    const loose = walls.filter((sheet) => !('runs' in sheet)).length;
    if (loose < 2) {
      sheets.push(...walls);
      continue;
    }
    const whole = asOne(
      points,
      part.map((p) => polygons[p]!),
      tolerance,
    );
    if (whole.sheets) sheets.push(...whole.sheets);
    else if (loose > mostPieces && isSmooth(regions))
      found.bent.push({ pieces: loose, off: whole.off, area: regions.reduce((sum, { area }) => sum + area, 0) });
    else sheets.push(...walls);
  }
  // Walls may meet across parts that do not hang together.
  const loose = sheets.filter((sheet): sheet is FlatSheet => !('runs' in sheet));
  return { ...found, sheets: [...withBends(loose, tolerance), ...sheets.filter((sheet) => 'runs' in sheet)] };
}

/** Whether most of a part's pieces, by their area, have another that looks nearly the same way. */
function isSmooth(regions: readonly { normal: Vector; area: number }[]): boolean {
  const like = regions.filter(({ normal }, i) =>
    regions.some((other, k) => k !== i && Math.abs(dot(normal, other.normal)) > slight),
  );
  const sum = (list: typeof regions): number => list.reduce((total, { area }) => total + area, 0);
  return sum(like) > sum(regions) / 2;
}

/** A part as one flat sheet in the plane that fits it best; where it strays farther from that than the tolerance, by how much. */
function asOne(
  points: readonly Vector[],
  polygons: readonly (readonly number[])[],
  tolerance: number,
): { sheets: FlatSheet[] | null; off: number } {
  const used = [...new Set(polygons.flat())];
  const normals = polygons.map((polygon) => newell(polygon.map((v) => points[v]!)));
  const main = normals.reduce((a, b) => (length(b) > length(a) ? b : a));
  const facing = polygons.map((polygon, i) => (dot(normals[i]!, main) < 0 ? [...polygon].reverse() : polygon));
  const sum = normals.reduce<Vector>(
    (a, n) => (dot(n, main) < 0 ? minus(a, n) : [a[0] + n[0], a[1] + n[1], a[2] + n[2]]),
    [0, 0, 0],
  );
  if (length(sum) < rounding) return { sheets: null, off: Infinity };
  const normal = fittedNormal(
    used.map((v) => points[v]!),
    scaled(sum, 1 / length(sum)),
  );
  const depths = used.map((v) => dot(points[v]!, normal));
  const [least, greatest] = [Math.min(...depths), Math.max(...depths)];
  const off = (greatest - least) / 2;
  if (off > tolerance) return { sheets: null, off };
  // Laid into the plane half way between.
  const level = (least + greatest) / 2;
  const laid = points.map((point) => minus(point, scaled(normal, dot(point, normal) - level)));
  return { sheets: sheetsIn(laid, facing, normal), off };
}

/** The normal of the plane that fits points best near a given one, by least squares of their distances along that. */
function fittedNormal(points: readonly Vector[], near: Vector): Vector {
  const s: Vector =
    Math.abs(near[2]) < 0.9
      ? scaled([-near[1], near[0], 0], 1 / Math.hypot(near[0], near[1]))
      : scaled([0, -near[2], near[1]], 1 / Math.hypot(near[1], near[2]));
  const t = cross(near, s);
  const middle = scaled(
    points.reduce<Vector>((a, p) => [a[0] + p[0], a[1] + p[1], a[2] + p[2]], [0, 0, 0]),
    1 / points.length,
  );
  let [ss, st, tt, sn, tn] = [0, 0, 0, 0, 0];
  for (const point of points) {
    const d = minus(point, middle);
    const [x, y, z] = [dot(d, s), dot(d, t), dot(d, near)];
    ss += x * x;
    st += x * y;
    tt += y * y;
    sn += x * z;
    tn += y * z;
  }
  const det = ss * tt - st * st;
  if (Math.abs(det) < rounding) return near;
  const [a, b] = [(sn * tt - tn * st) / det, (tn * ss - sn * st) / det];
  const tilted: Vector = [near[0] - a * s[0] - b * t[0], near[1] - a * s[1] - b * t[1], near[2] - a * s[2] - b * t[2]];
  return scaled(tilted, 1 / length(tilted));
}

/**
 * Single sheets as elements: bent ones and those that meet as walls, level ones that face up as slabs, all others as panels. Their fronts become outer faces, from which the layers follow inward.
 * @param names a name and an id for each.
 */
export function elementsOfSheets(
  sheets: FoundSheets['sheets'],
  layers: readonly Layer[],
  names: readonly { id: string; name: string }[],
): Element[] {
  return sheets.map((sheet, i): Element => {
    if ('runs' in sheet) return { ...names[i]!, ...asWall(sheet), layers: [...layers] };
    const { start, turn, tilt, outline, holes } = sheet;
    const common = { ...names[i]!, start, turn, outline, ...(holes.length > 0 ? { holes } : {}), layers: [...layers] };
    return tilt === 0 ? { ...common, kind: 'slab' } : { ...common, kind: 'panel', tilt };
  });
}

/** The outlines of polygons in one plane, each with the holes that lie in it. */
function sheetsIn(points: readonly Vector[], polygons: readonly (readonly number[])[], normal: Vector): FlatSheet[] {
  // s runs level; where the sheet itself is level, along x.
  const [nx, ny] = normal;
  const across = Math.hypot(nx, ny);
  const s: Vector = across < micrometre ? [1, 0, 0] : [-ny / across, nx / across, 0];
  const t = cross(normal, s);
  const loops = boundaryLoops(points, polygons, s, t);
  const outlines = loops.filter(({ area }) => area > 0);
  const holes = loops.filter(({ area }) => area < 0);
  return outlines.map((outer) => {
    const within = holes.filter(
      (hole) =>
        outlines.reduce(
          (best, one) => (contains(one.loop, hole.loop[0]!) && (!best || one.area < best.area) ? one : best),
          null as Loop | null,
        ) === outer,
    );
    const [low, left] = [Math.min(...outer.loop.map(([, y]) => y)), Math.min(...outer.loop.map(([x]) => x))];
    const depth = dot(points[polygons[0]![0]!]!, normal);
    const at = (i: 0 | 1 | 2): number => rounded(s[i] * left + t[i] * low + normal[i] * depth);
    const outline = ({ loop }: Loop): FreeOutline =>
      loop.map(([x, y]) => ({ x: rounded(x - left), y: rounded(y - low) }));
    return {
      start: { x: at(0), y: at(1), z: at(2) },
      turn: rounded((Math.atan2(s[1], s[0]) * 180) / Math.PI),
      // How steeply t rises from the level direction on the left of s.
      tilt: rounded((Math.atan2(t[2], t[0] * -s[1] + t[1] * s[0]) * 180) / Math.PI),
      outline: outline(outer),
      holes: within.map(outline),
      area: outer.area + within.reduce((sum, { area }) => sum + area, 0),
    };
  });
}

interface Loop {
  loop: (readonly [number, number])[];
  /** Signed: less than 0 round a hole. */
  area: number;
}

/** The closed ways round polygons, what they hold on the left, without points in the middle of straight edges. */
function boundaryLoops(
  points: readonly Vector[],
  polygons: readonly (readonly number[])[],
  s: Vector,
  t: Vector,
): Loop[] {
  const directed = new Set(
    polygons.flatMap((polygon) => polygon.map((v, i) => `${v} ${polygon[(i + 1) % polygon.length]!}`)),
  );
  const leaving = new Map<number, number[]>();
  for (const polygon of polygons)
    polygon.forEach((v, i) => {
      const w = polygon[(i + 1) % polygon.length]!;
      if (!directed.has(`${w} ${v}`)) push(leaving, v, w);
    });
  const at = (v: number): readonly [number, number] => [dot(points[v]!, s), dot(points[v]!, t)];
  const loops: Loop[] = [];
  for (const first of leaving.keys())
    while (leaving.get(first)!.length > 0) {
      const loop = [first];
      for (let [before, v] = [first, leaving.get(first)!.pop()!]; v !== first;) {
        loop.push(v);
        const ways = leaving.get(v);
        // An edge that three faces share can leave a way without an end; what there is of it is no outline.
        if (!ways || ways.length === 0) {
          loop.length = 0;
          break;
        }
        // Where pieces touch in a point the sharpest turn to the left keeps them apart.
        const next = ways.length === 1 ? 0 : sharpest(at(before), at(v), ways.map(at));
        [before, v] = [v, ways.splice(next, 1)[0]!];
      }
      const straight = withoutMiddles(loop.map(at));
      if (straight.length >= 3) loops.push({ loop: straight, area: areaOf(straight) });
    }
  return loops;
}

function sharpest(
  [px, py]: readonly [number, number],
  [vx, vy]: readonly [number, number],
  ways: readonly (readonly [number, number])[],
): number {
  const turn = ([wx, wy]: readonly [number, number]): number =>
    Math.atan2((vx - px) * (wy - vy) - (vy - py) * (wx - vx), (vx - px) * (wx - vx) + (vy - py) * (wy - vy));
  return ways.reduce((best, way, i) => (turn(way) > turn(ways[best]!) ? i : best), 0);
}

function withoutMiddles(loop: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  return loop.filter(([x, y], i) => {
    const [ax, ay] = loop[(i + loop.length - 1) % loop.length]!;
    const [bx, by] = loop[(i + 1) % loop.length]!;
    const size = Math.hypot(bx - ax, by - ay);
    return (
      size < nanometre ||
      Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / size > micrometre ||
      (x - ax) * (bx - x) + (y - ay) * (by - y) < 0
    );
  });
}

function areaOf(loop: readonly (readonly [number, number])[]): number {
  return loop.reduce(
    (sum, [x, y], i) => sum + (x * loop[(i + 1) % loop.length]![1] - loop[(i + 1) % loop.length]![0] * y) / 2,
    0,
  );
}

function contains(loop: readonly (readonly [number, number])[], [x, y]: readonly [number, number]): boolean {
  let inside = false;
  loop.forEach(([ax, ay], i) => {
    const [bx, by] = loop[(i + 1) % loop.length]!;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/** Points that fall together made one; polygons that thereby lose their third corner left out. */
function welded({ positions, polygons }: ForeignMesh): { points: Vector[]; polygons: number[][] } {
  const points: Vector[] = [];
  const cells = new Map<string, number>();
  const index = Array.from({ length: positions.length / 3 }, (_, i) => {
    const point: Vector = [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
    const [x, y, z] = point.map((value) => Math.floor(value / flat));
    for (const dx of [0, -1, 1])
      for (const dy of [0, -1, 1])
        for (const dz of [0, -1, 1]) {
          const near = cells.get(`${x! + dx},${y! + dy},${z! + dz}`);
          if (near !== undefined && length(minus(points[near]!, point)) <= flat) return near;
        }
    cells.set(`${x},${y},${z}`, points.length);
    return points.push(point) - 1;
  });
  const kept = polygons
    .map((polygon) => polygon.map((v) => index[v]!).filter((v, i, all) => v !== all[(i + 1) % all.length]))
    .filter((polygon) => polygon.length >= 3);
  // The same face twice, front and back, is one sheet.
  const seen = new Set<string>();
  return {
    points,
    polygons: kept.filter((polygon) => seen.size !== seen.add([...polygon].sort((a, b) => a - b).join(' ')).size),
  };
}

function partsOf(count: number, neighbours: (p: number) => readonly number[]): number[][] {
  const seen = new Uint8Array(count);
  const parts: number[][] = [];
  for (let first = 0; first < count; first++) {
    if (seen[first]) continue;
    const part = [first];
    seen[first] = 1;
    for (let i = 0; i < part.length; i++)
      for (const other of neighbours(part[i]!))
        if (!seen[other]) {
          seen[other] = 1;
          part.push(other);
        }
    parts.push(part);
  }
  return parts;
}

const edgeKey = (v: number, w: number): string => (v < w ? `${v} ${w}` : `${w} ${v}`);
const length = (a: Vector): number => Math.hypot(...a);

function push<K>(map: Map<K, number[]>, key: K, value: number): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
