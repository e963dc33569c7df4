/** The outline of a roof as its planes need it: arcs in facets, one way round, and as far out as its eaves and verges reach. Metres, as seen from the roof's start. */
import { facetsOf, type RoofEdge, type RoofForm } from '@yard-arch/document';
import { fault, type Fault } from '../finding.ts';
import { micrometre, parallel } from '../tolerances.ts';

/** A straight edge of a roof: itself or a facet of it, from where it begins to where the next one does. */
export interface Eave {
  of: RoofEdge;
  /** What its plane is called: by its edge, and which facet it is. */
  name: string;
  /** Where it is drawn, and where it is as far out as it reaches. */
  x: number;
  y: number;
  outX: number;
  outY: number;
}

export type Outlined = { loops: Eave[][]; fault: null } | { loops: null; fault: Fault };

/** How far an edge reaches over the drawn outline at a depth (metres): eaves that end square to their slope reach out less the deeper, and where a level soffit is below them their underside begins at the drawn edge. */
export function reachAt(edge: RoofEdge, ends: RoofForm['ends'], depth: number, thickness: number): number {
  if (edge.is === 'abutment') return 0;
  if (edge.is !== 'eaves') return edge.over;
  if (ends === 'level' && depth >= thickness) return 0;
  return ends === 'square' ? edge.over - depth * Math.sin((edge.pitch * Math.PI) / 180) : edge.over;
}

/** The outline of a roof, counter-clockwise, and its courts, clockwise, at a depth of its thickness (metres); or why it has none. */
export function outlined(
  { edges, courts = [], ends }: Pick<RoofForm, 'edges' | 'courts' | 'ends'>,
  depth: number,
  thickness: number,
): Outlined {
  const drawn = drawnOutline({ edges, courts });
  if (drawn.fault) return drawn;
  const { loops } = drawn;
  for (const loop of loops) {
    const fault = reachOut(loop, (edge) => reachAt(edge, ends, depth, thickness));
    if (fault) return { loops: null, fault };
  }
  if (crossing(loops, 'outX', 'outY'))
    return refused(
      'over-too-far',
      'its overhangs run into each other',
      'Make them narrower, or let an edge be an abutment.',
    );
  return { loops, fault: null };
}

/** The outline of a roof and its courts as they are drawn, whatever reaches over them; or why there is none. */
export function drawnOutline({ edges, courts = [] }: Pick<RoofForm, 'edges' | 'courts'>): Outlined {
  const loops = [edges, ...courts].map((list, i) => turnedTo(faceted(list), i === 0 ? 1 : -1));
  const crossed = crossing(loops, 'x', 'y');
  if (crossed)
    return refused(
      'crosses-itself',
      `its outline crosses itself, ${crossed.map((value) => value.toFixed(3)).join(', ')} m from its first corner`,
      'Move its corners apart.',
    );
  if (loops.some((loop) => loop.length < 3 || Math.abs(areaOf(loop, 'x', 'y')) < micrometre))
    return refused('no-outline', 'its outline encloses nothing', 'Draw an outline of at least three edges.');
  const [outer, ...inner] = loops;
  if (inner.some(([first]) => !isWithin(outer!, first!)))
    return refused('no-outline', 'one of its courtyards lies outside it', 'Move the courtyard in, or take it away.');
  return { loops, fault: null };
}

/** Whether a corner lies within a loop, as they are drawn: a line from it goes over an odd number of edges. */
function isWithin(loop: readonly Eave[], { x, y }: Eave): boolean {
  return loop.reduce((inside, a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    const over = a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x);
    return over !== inside;
  }, false);
}

const refused = (...[code, reason, mend]: Parameters<typeof fault>): Outlined => ({
  loops: null,
  fault: fault(code, reason, mend),
});

/** Edges with their arcs in facets, whose corners lie on the arc. */
function faceted(list: readonly RoofEdge[]): Eave[] {
  return list.flatMap((of, i) => {
    const to = list[(i + 1) % list.length]!;
    const count = facetsOf(of);
    const at = (x: number, y: number, name: string): Eave => ({ of, name, x, y, outX: x, outY: y });
    if (!of.bulge) return Math.hypot(to.x - of.x, to.y - of.y) < micrometre ? [] : [at(of.x, of.y, of.id)];
    const sweep = 4 * Math.atan(of.bulge);
    const [cx, cy] = [(of.x + to.x) / 2, (of.y + to.y) / 2];
    const [hx, hy] = [(to.x - of.x) / 2, (to.y - of.y) / 2];
    // The centre is off the chord by its half over the tangent of half the sweep, on the side that the arc bulges away from.
    const off = 1 / Math.tan(sweep / 2);
    const [mx, my] = [cx - hy * off, cy + hx * off];
    return Array.from({ length: count }, (_, k) => {
      if (k === 0) return at(of.x, of.y, `${of.id}-1`);
      const angle = (sweep * k) / count;
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      return at(
        mx + cos * (of.x - mx) - sin * (of.y - my),
        my + sin * (of.x - mx) + cos * (of.y - my),
        `${of.id}-${k + 1}`,
      );
    });
  });
}

function areaOf(loop: readonly Eave[], x: 'x' | 'outX', y: 'y' | 'outY'): number {
  return (
    loop.reduce((sum, a, i) => {
      const b = loop[(i + 1) % loop.length]!;
      return sum + a[x] * b[y] - b[x] * a[y];
    }, 0) / 2
  );
}

/** The same loop run through one way; edges keep what they are. */
function turnedTo(loop: Eave[], way: 1 | -1): Eave[] {
  if (Math.sign(areaOf(loop, 'x', 'y')) !== -way) return loop;
  // An edge then begins where it ended.
  return loop
    .map((eave, i) => {
      const { x, y } = loop[(i + 1) % loop.length]!;
      return { ...eave, x, y, outX: x, outY: y };
    })
    .reverse();
}

/** Moves every edge out as far as it reaches. @returns what is wrong where one is left with nothing, or two in one line reach out unlike */
function reachOut(loop: Eave[], overOf: (edge: RoofEdge) => number): Fault | null {
  const lines = loop.map((a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    const size = Math.hypot(b.x - a.x, b.y - a.y);
    return { dx: (b.x - a.x) / size, dy: (b.y - a.y) / size, over: overOf(a.of) };
  });
  for (let i = 0; i < loop.length; i++) {
    const eave = loop[i]!;
    const [a, b] = [lines[(i + loop.length - 1) % loop.length]!, lines[i]!];
    const det = a.dx * b.dy - a.dy * b.dx;
    if (Math.abs(det) < parallel) {
      if (Math.abs(a.over - b.over) > micrometre)
        return fault(
          'over-too-far',
          'two of its edges in one line reach out unlike',
          'Give both the same overhang, or make them one edge.',
        );
      [eave.outX, eave.outY] = [eave.x + b.dy * b.over, eave.y - b.dx * b.over];
    } else {
      eave.outX = eave.x + (b.over * a.dx - a.over * b.dx) / det;
      eave.outY = eave.y + (b.over * a.dy - a.over * b.dy) / det;
    }
  }
  for (let i = 0; i < loop.length; i++) {
    const [a, b] = [loop[i]!, loop[(i + 1) % loop.length]!];
    const { dx, dy } = lines[i]!;
    if ((b.outX - a.outX) * dx + (b.outY - a.outY) * dy < micrometre)
      return fault(
        'over-too-far',
        'the overhangs beside one of its edges leave nothing of that edge',
        'Make them narrower, or the edge longer.',
      );
  }
  return null;
}

/** Where loops cross themselves or each other; null where they do not. */
function crossing(
  loops: readonly (readonly Eave[])[],
  x: 'x' | 'outX',
  y: 'y' | 'outY',
): readonly [number, number] | null {
  const spot = (eave: Eave): Spot => [eave[x], eave[y]];
  const all = loops.flatMap((loop) => loop.map((a, i) => [spot(a), spot(loop[(i + 1) % loop.length]!)] as const));
  for (let i = 0; i < all.length; i++)
    for (let j = i + 1; j < all.length; j++) {
      const [p, q] = [all[i]!, all[j]!];
      const follow = (a: Spot, b: Spot): boolean => a[0] === b[0] && a[1] === b[1];
      const met = follow(p[1], q[0]) || follow(q[1], p[0]) ? null : meeting(...p, ...q);
      if (met) return met;
    }
  return null;
}

type Spot = readonly [number, number];

/** Where two straight lines from point to point meet or touch, to a micrometre; null where they do not. */
export function meeting(a: Spot, b: Spot, c: Spot, d: Spot): Spot | null {
  const side = (p: Spot, q: Spot, r: Spot): number => (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  const on = (p: Spot, q: Spot, r: Spot): boolean => {
    const size = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const along = (q[0] - p[0]) * (r[0] - p[0]) + (q[1] - p[1]) * (r[1] - p[1]);
    return (
      Math.abs(side(p, q, r)) < micrometre * size && along > -micrometre * size && along < size * (size + micrometre)
    );
  };
  const [ca, da] = [side(a, b, c), side(a, b, d)];
  if (ca * da < 0 && side(c, d, a) * side(c, d, b) < 0) {
    const share = ca / (ca - da);
    return [c[0] + share * (d[0] - c[0]), c[1] + share * (d[1] - c[1])];
  }
  if (on(a, b, c)) return c;
  if (on(a, b, d)) return d;
  if (on(c, d, a)) return a;
  return on(c, d, b) ? b : null;
}
