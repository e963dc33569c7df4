/** A roof: its planes at every depth at which a layer begins or ends, each surface of its own, so that what meets at one depth may meet otherwise at another. */
import type { RoofForm } from '@yard-arch/document';
import { fault, type Fault } from '../finding.ts';
import type { RoofEdge as FrontEdge, Strip } from './front.ts';
import { micrometre } from '../tolerances.ts';
import { dividedTogether } from './divided.ts';
import { isEdgesUpright, partsOf } from './edge-line.ts';
import { outlined, reachAt, type Eave } from './outline.ts';
import { NeverMeets, surfaceOf, type Surface } from './surface.ts';

const radians = Math.PI / 180;

/** What a roof is made of, as seen from its start: z is up from its level, metres. */
export interface Roof {
  /** Its edges one after the other, over all loops. */
  eaves: readonly Eave[];
  loops: readonly (readonly Eave[])[];
  /** One for each depth, outermost first. */
  surfaces: readonly Surface[];
  /** Of eaves with a level soffit how high that is; null of all other edges. */
  soffits: readonly (number | null)[];
}

/** The planes of a roof at each of some depths (metres, the last the whole thickness), or why it has none. */
export function roofOf(form: Pick<RoofForm, 'edges' | 'courts' | 'ends'>, depths: ArrayLike<number>): Roof | Fault {
  const thickness = depths[depths.length - 1]!;
  const outlines: Eave[][][] = [];
  for (const depth of Array.from(depths)) {
    const { loops, fault: wrong } = outlined(form, depth, thickness);
    if (wrong) return wrong;
    outlines.push(loops);
  }
  const loops = outlines[0]!;
  const falls = fallsOf(loops.flat());
  if (falls === null)
    return fault(
      'falls-both-ways',
      'some of its planes rise from their edges, and others fall from theirs',
      'Let all of them rise, or all fall inward.',
    );
  const strips = Array.from(depths, (depth, i) =>
    outlines[i]!.map((loop) =>
      loop.map(({ of, outX: x, outY: y }): FrontEdge => ({
        x,
        y,
        strips: stripsOf(of, thickness - depth, reachAt(of, form.ends, depth, thickness)),
      })),
    ),
  );
  const lowest = Math.min(0, ...strips.flat(2).flatMap((edge) => edge.strips.map(({ from }) => from)));
  try {
    const surfaces = strips.map((edges) => surfaceOf(edges, lowest - 1));
    const stands = dividedTogether(falls ? surfaces.map(upsideDown) : surfaces);
    const eaves = loops.flat();
    const soffits = form.ends === 'level' ? soffitsOf(eaves, stands.slice(-2)) : eaves.map(() => null);
    return { eaves, loops, surfaces: stands, soffits };
  } catch (error) {
    if (error instanceof NeverMeets) return neverMeets(error, loops.flat());
    throw error;
  }
}

/** How high a level soffit is by edge: where the underside is lowest over what reaches out, and no higher than where planes beside it run down before it. @param around the surfaces of the innermost layer */
function soffitsOf(eaves: readonly Eave[], around: readonly Surface[]): (number | null)[] {
  const soffits = eaves.map(({ of }) => {
    if (of.is !== 'eaves' || of.over < micrometre) return null;
    const { lift = 0, over, pitch } = of;
    return pitch > 0 ? lift - over * Math.tan(pitch * radians) : lift;
  });
  for (const surface of around)
    surface.planes.forEach((plane, p) => {
      const own = isEdgesUpright(plane) ? soffits[plane.edge]! : null;
      if (own === null) return;
      soffits[plane.edge] = Math.min(own, ...partsOf(surface, p).main.map((node) => surface.nodes[node]![2]));
    });
  return soffits;
}

/** Whether planes fall from their edges instead of rising; null where some do and some do not. */
function fallsOf(eaves: readonly Eave[]): boolean | null {
  const ways = new Set(
    eaves.flatMap(({ of }) => (of.is === 'eaves' ? [of.pitch < 0] : of.is === 'verge' && of.hip ? [false] : [])),
  );
  return ways.size > 1 ? null : ways.has(true);
}

/** Planes that fall from their edges are those that rise from them, upside down: what was found that way, put right. */
function upsideDown({ nodes, planes, base }: Surface): Surface {
  return {
    base: -base,
    nodes: nodes.map(([x, y, z]) => [x, y, 0 - z] as const),
    // An edge's own upright planes look out as before.
    planes: planes.map((plane) =>
      plane.strip < 0 && plane.edge >= 0
        ? plane
        : { ...plane, nx: 0 - plane.nx, ny: 0 - plane.ny, reach: 0 - plane.reach },
    ),
  };
}

/** The way of an edge: its planes, so far above the underside. @param above metres, square to each plane @param over how far it reaches out there, metres */
function stripsOf(edge: Eave['of'], above: number, over: number): Strip[] {
  if (edge.is === 'abutment') return [];
  if (edge.is === 'verge') return edge.hip ? [stripOf(edge.hip.pitch, edge.hip.from, over, above)] : [];
  const { pitch, lift = 0, second } = edge;
  if (pitch < 0) return [stripOf(-pitch, -lift, over, -above)];
  const first = stripOf(pitch, lift, over, above);
  if (!second || Math.abs(second.pitch - pitch) < 1e-9) return [first];
  // Both planes are moved out square to themselves; they meet where both are as high.
  const [a, b] = [Math.tan(pitch * radians), Math.tan(second.pitch * radians)];
  const [up, upper] = [above / Math.cos(pitch * radians), above / Math.cos(second.pitch * radians)];
  const far = second.from / a;
  const x = (second.from - b * far + upper - up) / (a - b);
  return [first, { from: lift + a * x + up, run: 1 / b }];
}

/** A plane that passes over the drawn edge at a level, so far above that, from where it reaches out to. */
function stripOf(pitch: number, level: number, over: number, above: number): Strip {
  const slope = Math.tan(pitch * radians);
  return { from: level - over * slope + above / Math.cos(pitch * radians), run: 1 / slope };
}

function neverMeets({ edges }: NeverMeets, eaves: readonly Eave[]): Fault {
  const open = edges.map((edge) => eaves[edge]!.of.is);
  return open.every((is) => is !== 'eaves')
    ? fault(
        'never-meets',
        'nothing closes it above its verges and abutments: no plane rises between them',
        'Let at least one edge that lies between them be eaves.',
      )
    : fault(
        'never-meets',
        'its planes run on and never meet',
        'Give its eaves pitches that come together, or let an edge opposite be eaves or an abutment.',
      );
}
