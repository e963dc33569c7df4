/** The independent oracle: the same elements and openings built by a solid-boolean library from prisms and hulls, sharing nothing with the sheet path but the resolved places. */
import type { Section } from '@yard-arch/document';
import type { CrossSection, Manifold, ManifoldToplevel } from 'manifold-3d';
import { pointAt, directionsAt, type Placed, type Sheet } from '../src/index.ts';

type Ring = [number, number][];

/** Where a section's offset stands at breakpoints, by its definition: depth and offset, steps as two points of one depth. */
function breakpoints(section: Section | undefined, depth: number, raised: boolean, niche: boolean): [number, number][] {
  if (!section)
    return [
      [0, 0],
      [depth, 0],
    ];
  const tan = (degrees = 0): number => Math.tan((degrees * Math.PI) / 180);
  const [out, into] = [section.seat ?? depth, section.seat ?? 0];
  const outer = section.arris?.size ?? 0;
  const inner = section.innerArris?.size ?? 0;
  const base = (n: number, after: boolean): number =>
    Math.max(0, out - n) * tan(section.splayOutside) +
    Math.max(0, n - into) * tan(section.splayInside) +
    (section.checks ?? []).reduce(
      (sum, c) => sum + (c.depth < n - 1e-12 || (after && c.depth <= n + 1e-12) ? c.step : 0),
      0,
    );
  const extra = (n: number): number => {
    const cut = (size: number, from: number, kind?: string, segments = 3): number => {
      if (size === 0 || from >= size) return 0;
      if (kind === 'chamfered') return size - from;
      // Along the chords of a quarter circle.
      for (let i = 0; i < segments; i++) {
        const [a, b] = [(Math.PI / 2) * (i / segments), (Math.PI / 2) * ((i + 1) / segments)];
        const [n0, n1, o0, o1] = [
          size * (1 - Math.cos(a)),
          size * (1 - Math.cos(b)),
          size * (1 - Math.sin(a)),
          size * (1 - Math.sin(b)),
        ];
        if (from <= n1 + 1e-12) return o0 + ((o1 - o0) * (from - n0)) / (n1 - n0);
      }
      return 0;
    };
    return (
      (raised ? -1 : 1) * cut(outer, n, section.arris?.kind, section.arris?.segments) +
      (raised || niche ? -1 : 1) * cut(inner, depth - n, section.innerArris?.kind, section.innerArris?.segments)
    );
  };
  // A seat within an arris is taken off with it.
  const seat = section.seat ?? 0;
  const at = new Set([
    0,
    depth,
    ...(seat > outer && seat < depth - inner ? [seat] : []),
    ...(section.checks ?? []).map((c) => c.depth),
  ]);
  for (const [size, arris, side] of [
    [outer, section.arris, 0],
    [inner, section.innerArris, 1],
  ] as const)
    if (arris)
      for (let i = 0; i <= (arris.segments ?? 3); i++) {
        const n =
          arris.kind === 'chamfered' ? size : size * (1 - Math.cos((Math.PI / 2) * (i / (arris.segments ?? 3))));
        at.add(side === 0 ? n : depth - n);
      }
  return [...at]
    .filter((n) => n >= 0 && n <= depth)
    .sort((a, b) => a - b)
    .flatMap((n): [number, number][] =>
      Math.abs(base(n, true) - base(n, false)) > 1e-12
        ? [
            [n, base(n, false) + extra(n)],
            [n, base(n, true) + extra(n)],
          ]
        : [[n, base(n, false) + extra(n)]],
    );
}

/** An opening's volume in (along, up, depth), overshooting whatever faces it goes through; null where the oracle cannot make it. */
function openingSolid(
  library: ManifoldToplevel,
  placed: Placed,
  thickness: number,
  made: { delete(): void }[],
): Manifold | null {
  const { outline, pattern, kind, depth, s, t } = placed;
  const keep = <T extends { delete(): void }>(thing: T): T => {
    made.push(thing);
    return thing;
  };
  const raised = kind === 'boss' || kind === 'keep inside';
  const niche = kind.startsWith('niche');
  const rings: Ring[] = outline.loops.map((first) => {
    const ring: Ring = [];
    let v = first;
    do {
      ring.push([outline.xs[v]! + s, outline.ys[v]! + t]);
      v = outline.next[v]!;
    } while (v !== first);
    return ring;
  });
  const texts = ['sill', 'head', 'jamb-left', 'jamb-right'].map((side) =>
    JSON.stringify(pattern.sections?.[side as 'sill'] ?? null),
  );
  const uniform = new Set(texts).size === 1;
  const rectangle = pattern.profile.shape === 'rectangle';
  if (!uniform && !rectangle) return null;
  const square = texts.every((text) => text === 'null');
  const convex =
    rectangle ||
    ['circle', 'ellipse', 'semicircular-arch', 'segmental-arch', 'pointed-arch', 'regular-polygon'].includes(
      pattern.profile.shape,
    );
  if (!square && !convex) return null;
  const over = 0.1;
  const [from, to] = kind === 'boss' ? [-depth, over] : [-over, niche ? depth : thickness + over];
  if (square) {
    const section = keep(new library.CrossSection(rings, 'Positive'));
    return keep(keep(section.extrude(to - from)).translate([0, 0, from]));
  }
  const ringAt = (offset: (side: string) => number): Ring => {
    if (rectangle) {
      const { width, height } = placed.profile;
      const [l, r, b, h] = [
        s - offset('jamb-left'),
        s + width + offset('jamb-right'),
        t - offset('sill'),
        t + height + offset('head'),
      ];
      return [
        [l, b],
        [r, b],
        [r, h],
        [l, h],
      ];
    }
    const section: CrossSection = keep(new library.CrossSection(rings, 'Positive'));
    const grown = keep(section.offset(offset('sill'), 'Miter', 20));
    return grown.toPolygons()[0] as Ring;
  };
  const sections = Object.fromEntries(
    (['sill', 'head', 'jamb-left', 'jamb-right'] as const).map((side) => [
      side,
      breakpoints(pattern.sections?.[side], depth, raised, niche),
    ]),
  );
  const depths = [...new Set(Object.values(sections).flatMap((list) => list.map(([n]) => n)))].sort((a, b) => a - b);
  const at = (side: string, n: number, after: boolean): number => {
    const list = sections[side]!;
    const here = list.filter(([m]) => Math.abs(m - n) < 1e-12);
    if (here.length > 0) return here[after ? here.length - 1 : 0]![1];
    const i = list.findIndex(([m]) => m > n);
    const [[m0, o0], [m1, o1]] = [list[i - 1]!, list[i]!];
    return o0 + ((o1 - o0) * (n - m0)) / (m1 - m0);
  };
  const shift = kind === 'boss' ? -depth : 0;
  const parts: Manifold[] = [];
  for (let i = 0; i + 1 < depths.length; i++) {
    const [a, b] = [depths[i]!, depths[i + 1]!];
    const near = ringAt((side) => at(side, a, true)).map(([x, y]): [number, number, number] => [x, y, a + shift]);
    const far = ringAt((side) => at(side, b, false)).map(([x, y]): [number, number, number] => [x, y, b + shift]);
    parts.push(keep(library.Manifold.hull([...near, ...far])));
  }
  const prism = (n: number, to2: number, after: boolean): void => {
    const ring = ringAt((side) => at(side, n, after));
    parts.push(
      keep(
        keep(keep(new library.CrossSection([ring], 'Positive')).extrude(Math.abs(to2 - n))).translate([
          0,
          0,
          Math.min(n, to2) + shift,
        ]),
      ),
    );
  };
  if (kind !== 'boss') prism(0, -over, true);
  if (!niche) prism(depths.at(-1)!, depths.at(-1)! + over, false);
  return keep(library.Manifold.union(parts));
}

/** The volume of a sheet with openings cut, cubic metres, or null where the oracle cannot say. */
export function oracleVolume(library: ManifoldToplevel, sheet: Sheet, openings: readonly Placed[]): number | null {
  const made: { delete(): void }[] = [];
  const keep = <T extends { delete(): void }>(thing: T): T => {
    made.push(thing);
    return thing;
  };
  try {
    const { chart, outline, thickness } = sheet;
    let block: Manifold;
    let into = (solid: Manifold, placed: Placed): Manifold => {
      void placed;
      return solid;
    };
    if (chart.kind === 'flat') {
      if (outline.sections.some((section) => section !== null)) return null;
      const loops = outline.loops.map((first) => {
        const ring: Ring = [];
        let v = first;
        do {
          ring.push([outline.xs[v]!, outline.ys[v]!]);
          v = outline.next[v]!;
        } while (v !== first);
        return ring;
      });
      block = keep(keep(new library.CrossSection(loops, 'Positive')).extrude(thickness));
    } else {
      // A curved wall of level top: its plan between the two faces, drawn up.
      if (
        outline.xs.length !== 4 ||
        openings.some(({ kind, pattern }) => kind !== 'through' || pattern.sections || pattern.jambs === 'radial')
      )
        return null;
      const plan: Ring = [];
      for (let i = 0; i < chart.s.length; i++) plan.push([chart.x[i]!, chart.y[i]!]);
      for (let i = chart.s.length - 1; i >= 0; i--)
        plan.push([chart.x[i]! + thickness * chart.mx[i]!, chart.y[i]! + thickness * chart.my[i]!]);
      block = keep(
        keep(keep(new library.CrossSection([plan], 'NonZero')).extrude(sheet.height)).translate([
          0,
          0,
          chart.origin[2],
        ]),
      );
      into = (solid, placed) => {
        const middle = placed.s + placed.profile.width / 2;
        const [x, y] = pointAt(chart, middle, 0, 0);
        const { along, inward } = directionsAt(chart, middle);
        // Columns: along, up, inward, then the origin, with (s, t, n) measured from the middle.
        const m = [along[0], along[1], 0, 0, 0, 0, 1, 0, inward[0], inward[1], 0, 0, x, y, chart.origin[2], 1] as const;
        const centred = keep(solid.translate([-middle, 0, 0]));
        // The prism must reach the faces wherever they curve to; mirrored coordinates turn it inside out, which transform() mends.
        return keep(centred.transform([...m] as never));
      };
    }
    const voids: Manifold[] = [];
    let result = block;
    for (const kind of ['keep inside', 'boss', 'void'] as const)
      for (const placed of openings) {
        const is = placed.kind === 'keep inside' || placed.kind === 'boss' ? placed.kind : 'void';
        if (is !== kind || placed.kind === 'imprint') continue;
        const own = openingSolid(library, placed, chart.kind === 'bent' ? thickness + 4 : thickness, made);
        if (!own) return null;
        const solid = into(chart.kind === 'bent' ? keep(own.translate([0, 0, -1])) : own, placed);
        if (kind === 'keep inside') result = keep(result.intersect(solid));
        else if (kind === 'boss') result = keep(result.add(solid));
        else voids.push(solid);
      }
    if (voids.length > 0) result = keep(result.subtract(keep(library.Manifold.union(voids))));
    return result.volume();
  } finally {
    for (const thing of made) thing.delete();
  }
}
