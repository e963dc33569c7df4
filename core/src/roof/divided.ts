/** Surfaces of a roof made to share points on the upright planes of edges: where one ends under or over another, and where lines of two cross, both have a node. */
import { hair, micrometre } from '../tolerances.ts';
import { hasStep, isEdgesUpright, isOnePlane, partsOf, standsAt, standsOn, type Node } from './edge-line.ts';
import type { Surface } from './surface.ts';

/** What is to come onto edges of a surface's rings, by plane and the nodes it runs between. */
type More = Map<string, { node: Node; share: number }[]>;

/** An edge of an upright plane's ring that is not plumb itself. */
interface Line {
  key: string;
  from: Node;
  to: Node;
}

/** The surfaces of a roof, with nodes wherever they end or cross on upright planes: any two may bound a side together. */
export function dividedTogether(surfaces: readonly Surface[]): Surface[] {
  const all = plumbTogether(surfaces).map(dividedAtEnds);
  for (let i = 0; i < all.length; i++)
    for (let j = i + 1; j < all.length; j++) [all[i], all[j]] = crossed(all[i]!, all[j]!);
  return all;
}

function crossed(a: Surface, b: Surface): [Surface, Surface] {
  const [onA, onB]: [More, More] = [new Map(), new Map()];
  for (const p of uprights(a))
    for (const q of uprights(b))
      if (isOnePlane(a.planes[p]!, b.planes[q]!) && !areAlike(a, p, b, q)) cross([a, p, onA], [b, q, onB]);
  return [withNodes(a, onA), withNodes(b, onB)];
}

const uprights = ({ planes }: Surface): number[] =>
  [...planes.keys()].filter((p) => planes[p]!.run === 0 && planes[p]!.rings.length > 0);

/** Whether two surfaces end on an edge's upright plane between the same places, within them and without a step. */
function areAlike(a: Surface, p: number, b: Surface, q: number): boolean {
  if (p !== q || !isEdgesUpright(a.planes[p]!) || !isEdgesUpright(b.planes[p]!)) return false;
  const [[[ax, ay], [cx, cy]], [[bx, by], [dx, dy]]] = [standsAt(a, p), standsAt(b, p)];
  const alike = Math.hypot(ax - bx, ay - by) < micrometre && Math.hypot(cx - dx, cy - dy) < micrometre;
  return alike && [a, b].every((surface) => isPlain(surface, p));
}

/** Whether planes of a surface end over one another: beside an upright plane within it, or one of an edge that goes on beyond that edge's ends. */
export function hasSteps(surface: Surface): boolean {
  return uprights(surface).some((p) => !isEdgesUpright(surface.planes[p]!) || !isPlain(surface, p));
}

/** Whether a surface ends on an upright plane within its edge's ends and without a step. */
function isPlain(surface: Surface, p: number): boolean {
  const { main, beyond } = partsOf(surface, p);
  return beyond.every((line) => line.length < 3) && !hasStep(main.map((node) => surface.nodes[node]!));
}

/** Surfaces whose nodes on upright planes stand exactly over each other, where they do but for rounding. */
function plumbTogether(surfaces: readonly Surface[]): Surface[] {
  const places: [number, number][] = [];
  const placeOf = ([x, y, z]: Node): Node => {
    const known = places.find(([u, v]) => Math.hypot(u - x, v - y) < micrometre);
    if (known) return [known[0], known[1], z];
    places.push([x, y]);
    return [x, y, z];
  };
  return surfaces.map((surface) => {
    const nodes = [...surface.nodes];
    for (const p of uprights(surface)) {
      const ends = isEdgesUpright(surface.planes[p]!) ? standsOn(surface, p) : [];
      const on = new Set([...ends, ...surface.planes[p]!.rings.flatMap((ring) => ring.nodes)]);
      for (const node of on) nodes[node] = placeOf(nodes[node]!);
    }
    return { ...surface, nodes };
  });
}

/** A surface with a node wherever what is plumb in an upright plane stands under, or over, what goes on there, as at inner corners where planes of unlike height meet. */
function dividedAtEnds(surface: Surface): Surface {
  const more: More = new Map();
  for (const p of uprights(surface)) standAlong(linesOf(surface, p), plumbsOf(surface, p), surface.planes[p]!, more);
  return withNodes(surface, more);
}

/** Puts onto lines what stands plumb under or over some places. */
function standAlong(
  lines: readonly Line[],
  places: readonly Node[],
  { nx, ny }: Surface['planes'][number],
  more: More,
): void {
  const along = ([x, y]: Node): number => ny * x - nx * y;
  for (const { key, from, to } of lines)
    for (const place of places) {
      const [a, b, at] = [along(from), along(to), along(place)];
      if (at < Math.min(a, b) + hair || at > Math.max(a, b) - hair) continue;
      const share = (at - a) / (b - a);
      // At the very place, so that what is plumb there has one line.
      put(more, key, { node: [place[0], place[1], from[2] + share * (to[2] - from[2])], share });
    }
}

/** Where the edges of an upright plane's rings that are plumb stand. */
function plumbsOf(surface: Surface, p: number): Node[] {
  const places: Node[] = [];
  for (const { nodes } of surface.planes[p]!.rings)
    nodes.forEach((node, i) => {
      const [[x, y, z], [u, v]] = [surface.nodes[node]!, surface.nodes[nodes[(i + 1) % nodes.length]!]!];
      if (x === u && y === v && !places.some((place) => place[0] === x && place[1] === y)) places.push([x, y, z]);
    });
  return places;
}

function linesOf(surface: Surface, p: number): Line[] {
  const lines = surface.planes[p]!.rings.flatMap(({ nodes, beyond }) =>
    nodes.map((from, i) => {
      const to = nodes[(i + 1) % nodes.length]!;
      const line = { key: `${p} ${from} ${to}`, from: surface.nodes[from]!, to: surface.nodes[to]! };
      return { line, beyond: beyond[i]! };
    }),
  );
  return lines
    .filter(
      ({ line: { from, to }, beyond }) => beyond >= 0 && Math.hypot(from[0] - to[0], from[1] - to[1]) > micrometre,
    )
    .map(({ line }) => line);
}

function put(more: More, key: string, at: { node: Node; share: number }): void {
  const known = more.get(key);
  if (known) known.push(at);
  else more.set(key, [at]);
}

/** A surface, one of its upright planes, and what is to come onto its lines. */
type On = [surface: Surface, plane: number, more: More];

/** Where lines of two surfaces on one upright plane cross, or end on each other. */
function cross([a, p, onA]: On, [b, q, onB]: On): void {
  const own = a.planes[p]!;
  const along = ([x, y]: Node): number => own.ny * x - own.nx * y;
  const [as, bs] = [linesOf(a, p), linesOf(b, q)];
  standAlong(as, plumbsOf(b, q), own, onA);
  standAlong(bs, plumbsOf(a, p), own, onB);
  const flat = ({ from, to }: Line): [number, number, number, number] => [
    along(from),
    from[2],
    along(to) - along(from),
    to[2] - from[2],
  ];
  for (const one of as)
    for (const other of bs) {
      const [[ax, az, aw, ah], [bx, bz, bw, bh]] = [flat(one), flat(other)];
      endOn(one, other, along, onB);
      endOn(other, one, along, onA);
      const det = aw * bh - ah * bw;
      const [la, lb] = [Math.hypot(aw, ah), Math.hypot(bw, bh)];
      if (Math.abs(det) < 1e-9 * la * lb) continue;
      const t = ((bx - ax) * bh - (bz - az) * bw) / det;
      const u = ((bx - ax) * ah - (bz - az) * aw) / det;
      const within = (share: number, size: number): boolean =>
        share * size > micrometre && (1 - share) * size > micrometre;
      if (!within(t, la) || !within(u, lb)) continue;
      const mixed = (k: 0 | 1 | 2): number => one.from[k] + t * (one.to[k] - one.from[k]);
      const node: Node = [mixed(0), mixed(1), mixed(2)];
      put(onA, one.key, { node, share: t });
      put(onB, other.key, { node, share: u });
    }
}

/** Puts the ends of one line onto another that they lie on. */
function endOn({ from, to }: Line, other: Line, along: (node: Node) => number, more: More): void {
  const [x, z] = [along(other.from), other.from[2]];
  const [w, h] = [along(other.to) - x, other.to[2] - z];
  const size = Math.hypot(w, h);
  for (const node of [from, to]) {
    const [dx, dz] = [along(node) - x, node[2] - z];
    const at = (dx * w + dz * h) / size;
    if (at < micrometre || at > size - micrometre || Math.abs(dx * h - dz * w) / size > micrometre) continue;
    put(more, other.key, { node, share: at / size });
  }
}

/** The plane on the other side of an edge of a plane's rings. */
function beyondOf(surface: Surface, p: number, from: number, to: number): number {
  for (const { nodes, beyond } of surface.planes[p]!.rings)
    for (const [i, node] of nodes.entries())
      if (node === from && nodes[(i + 1) % nodes.length] === to) return beyond[i]!;
  return -1;
}

/** A surface with nodes put onto edges of its rings, for the planes on both sides of them. */
function withNodes(surface: Surface, more: More): Surface {
  if (more.size === 0) return surface;
  const nodes = [...surface.nodes];
  const between = new Map<string, number[]>();
  for (const [key, list] of more) {
    const [p, from, to] = key.split(' ').map(Number) as [number, number, number];
    const fresh: { node: Node; number: number }[] = [];
    for (const { node } of list.sort((s, t) => s.share - t.share)) {
      const before = fresh.at(-1)?.node;
      if (before && Math.hypot(node[0] - before[0], node[1] - before[1], node[2] - before[2]) < micrometre) continue;
      fresh.push({ node, number: nodes.push(node) - 1 });
    }
    const numbers = fresh.map(({ number }) => number);
    between.set(key, numbers);
    between.set(`${beyondOf(surface, p, from, to)} ${to} ${from}`, [...numbers].reverse());
  }
  const planes = surface.planes.map((plane, p) => ({
    ...plane,
    rings: plane.rings.map((ring) => {
      const after = ring.nodes.map(
        (from, i) => between.get(`${p} ${from} ${ring.nodes[(i + 1) % ring.nodes.length]!}`) ?? [],
      );
      return {
        ...ring,
        nodes: ring.nodes.flatMap((node, i) => [node, ...after[i]!]),
        beyond: ring.beyond.flatMap((other, i) => [other, ...after[i]!.map(() => other)]),
      };
    }),
  }));
  return { ...surface, nodes, planes };
}
