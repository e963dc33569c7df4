/** Cutting the rooms of parts that are let in: a room that runs over the edge, or into what is not its opening's, is not cut, and its part left out. */
import type { OpeningStatus } from '../cut/status.ts';
import { statusOf } from '../cut/status.ts';
import { roomFor } from '../infill/set-in.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { Placed } from '../setout/placed.ts';
import type { ElementCut } from './cut-element.ts';

/** Why a room cannot be taken out of the wall; null where it can. @param edges what its own opening is told to run over */
function refusal(
  { opening, state, unitedWith, reason, findings }: OpeningStatus,
  noun: string,
  edges: ReadonlySet<string>,
): string | null {
  const own = roomFor(opening)!.opening;
  if (state === 'not cut') return `could not be let in: ${reason ?? 'it is not cut'}`;
  const over = findings.filter(({ code }) => code === 'over-edge');
  if (over.some((found) => !edges.has(found.reason))) return `would run over the ${noun}’s edge`;
  const other = unitedWith.find((id) => (roomFor(id)?.opening ?? id) !== own);
  return other === undefined ? null : 'would run into another opening, or what is about it';
}

/**
 * Cuts an element with rooms, and again without those that cannot be taken out of it.
 * @param taken what is taken out of it besides its openings, rooms among it.
 * @param cut cuts it with so much of that.
 * @returns the cut, and why parts that were to be let in were not, by opening and part.
 */
export function withRooms(
  taken: readonly Placed[],
  cut: (taken: readonly Placed[]) => ElementCut,
): { cut: ElementCut; without: ReadonlyMap<string, string> } {
  const without = new Map<string, string>();
  let left = taken;
  let made = cut(left);
  for (let round = 0; round < 3; round++) {
    const refused = made.taken.flatMap((status) => {
      const room = status && roomFor(status.opening);
      // Blocks beside a door stand on the base as the door does.
      const own = room && made.statuses.find((one) => one.opening === room.opening);
      const edges = new Set(
        (own?.findings ?? []).filter(({ code }) => code === 'over-edge').map((found) => found.reason),
      );
      const why = room && refusal(status, made.sheet.noun, edges);
      return why ? [{ ...room, why }] : [];
    });
    if (refused.length === 0) break;
    for (const { opening, part, why } of refused) without.set(`${opening} / ${part}`, why);
    left = left.filter(({ id }) => {
      const room = roomFor(id);
      return !room || !without.has(`${room.opening} / ${room.part}`);
    });
    made = cut(left);
  }
  return { cut: { ...made, mesh: ofOpenings(made.mesh), statuses: made.statuses.map(asItself) }, without };
}

/** A mesh whose rooms are of the openings that they are for. */
function ofOpenings(mesh: CutMesh): CutMesh {
  if (!mesh.runs.some(({ opening }) => opening !== null && roomFor(opening))) return mesh;
  return {
    ...mesh,
    runs: mesh.runs.map((run) => ({ ...run, opening: run.opening && (roomFor(run.opening)?.opening ?? run.opening) })),
  };
}

/** What became of an opening, its own rooms left out of it. */
function asItself(status: OpeningStatus): OpeningStatus {
  if (!status.unitedWith.some((id) => roomFor(id))) return status;
  const unitedWith = status.unitedWith.filter((id) => !roomFor(id));
  const findings = status.findings.filter(({ code }) => unitedWith.length > 0 || code !== 'within-others');
  return { ...status, ...statusOf({ ...status, unitedWith, findings }) };
}
