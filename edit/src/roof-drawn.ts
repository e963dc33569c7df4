/** Roofs drawn by their grips: planes pitched, ridges raised, overhangs made wider. */
import { tidy, type RoofGrip } from '@yard-arch/core';
import { edgesOfRoof, limits, putting, type ChangeSet, type Roof, type RoofEdge } from '@yard-arch/document';
import { edit } from './make.ts';
import { changeEdge, withEdges } from './roofs.ts';

/** The pitch of an edge's plane, lower or upper; null where it has none. */
export function pitchOf(edge: RoofEdge, upper = false): number | null {
  if (edge.is === 'eaves') return upper ? (edge.second?.pitch ?? null) : edge.pitch;
  return edge.is === 'verge' ? (edge.hip?.pitch ?? null) : null;
}

/** An edge with another pitch, within what there can be and falling the way that it fell. */
export function withPitch(edge: RoofEdge, upper: boolean, wanted: number): RoofEdge {
  const falls = edge.is === 'eaves' && !upper && edge.pitch < 0;
  const { least, most } = limits.rising;
  const pitch = tidy((falls ? -1 : 1) * Math.min(most, Math.max(least, falls ? -wanted : wanted)));
  if (edge.is === 'eaves')
    return upper && edge.second ? { ...edge, second: { ...edge.second, pitch } } : { ...edge, pitch };
  return edge.is === 'verge' && edge.hip ? { ...edge, hip: { ...edge.hip, pitch } } : edge;
}

/**
 * A roof drawn by one of its grips: planes pitched so that they come as much higher there, or an overhang so much wider.
 * @param by metres along the grip's way @param step to what the pitch (degrees) or overhang (metres) that comes of it is rounded
 * @returns the edit, and what the figure is now
 */
export function drawnBy(
  roof: Roof,
  { kind, targets }: RoofGrip,
  by: number,
  step: { degrees: number; metres: number },
): { changeSet: ChangeSet; figure: number } | null {
  const edges = new Map(edgesOfRoof(roof).map((edge) => [edge.id, edge]));
  const [first] = targets;
  const lead = first && edges.get(first.edge);
  if (!first || !lead) return null;
  const whole = (value: number, to: number): number => tidy(Math.round(value / to) * to);
  if (kind === 'overhang') {
    if (lead.is === 'abutment') return null;
    const { least, most } = limits.overhang;
    const over = Math.min(most, Math.max(least, whole(lead.over + by, step.metres)));
    return { changeSet: changeEdge(roof, lead.id, { ...lead, over }, 'change an overhang of'), figure: over };
  }
  const own = pitchOf(lead, first.upper);
  if (own === null) return null;
  const rise = (degrees: number): number => Math.tan((degrees * Math.PI) / 180);
  const asked = (Math.atan(rise(own) + by / first.far) * 180) / Math.PI;
  const led = withPitch(lead, first.upper, whole(asked, step.degrees));
  const now = pitchOf(led, first.upper)!;
  // The others come as much higher as the first does.
  const lifted = (rise(now) - rise(own)) * first.far;
  edges.set(lead.id, led);
  for (const { edge: id, upper, far } of targets.slice(1)) {
    const edge = edges.get(id);
    const pitch = edge ? pitchOf(edge, upper) : null;
    if (edge && pitch !== null)
      edges.set(id, withPitch(edge, upper, (Math.atan(rise(pitch) + lifted / far) * 180) / Math.PI));
  }
  const changed = withEdges(roof, ({ id }) => edges.get(id)!);
  return {
    changeSet: edit(
      `${kind === 'ridge' ? 'raise the ridge of' : 'change a pitch of'} ${roof.name}`,
      putting('elements', changed),
    ),
    figure: now,
  };
}
