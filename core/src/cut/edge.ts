/** Openings that meet the edge of their sheet: what is cut of them, and what became of each. */
import type { Units } from '@yard-arch/document';
import type { Sheet } from '../element/sheet.ts';
import { fault, type Fault, type Told } from '../finding.ts';
import { TooTangled, type Loop } from '../mesh/arrangement.ts';
import { outlineArea } from '../profile/flatten.ts';
import { worded, type Placed } from '../setout/placed.ts';
import { clip, type Clipped, type Part } from './clip.ts';
import { outlinesBehind } from './group.ts';
import { outsideStatus, placedLoop, stateOf, tangled, unclear, withinOthers } from './said.ts';
import { notCut, statusOf, type OpeningStatus } from './status.ts';

/** Edges in which the planes of a roof meet: what runs over them is cut on its own plane alone. */
const shared: ReadonlySet<string> = new Set(['hip', 'ridge', 'valley', 'fold']);

/**
 * Clips what meets the edge, tells what became of it, and returns what is to be cut there.
 * @param outline the sheet's
 * @param cluster the openings that meet it
 */
export function atTheEdge(
  sheet: Sheet,
  { outline, cluster }: { outline: Loop; cluster: readonly number[] },
  openings: readonly Placed[],
  { statuses, units }: { statuses: OpeningStatus[]; units: Units },
): number[] {
  if (cluster.length === 0) return [];
  const edge = new Edge(sheet, outline, openings, units);
  try {
    edge.clip(cluster);
  } catch (error) {
    if (!(error instanceof TooTangled)) throw error;
    for (const k of cluster) statuses[k] = tangled(openings[k]!);
    return [];
  }
  for (const [k, found] of edge.refused) statuses[k] = notCut(openings[k]!.id, found);
  return edge.taken.filter((k, i) => {
    const status = edge.statusAt(i);
    statuses[k] = status;
    return status.state !== 'not cut';
  });
}

/** What meets a sheet's edge, while it is found out which of it can be cut. */
class Edge {
  /** Those that are cut, as far as is known. */
  taken: number[] = [];
  readonly refused = new Map<number, Fault>();
  private clipped: Clipped = { loops: [], openings: [] };

  constructor(
    private readonly sheet: Sheet,
    private readonly outline: Loop,
    private readonly openings: readonly Placed[],
    private readonly units: Units,
  ) {}

  /** Clips openings with the edge, those left out that cannot be cut. @throws TooTangled */
  clip(cluster: readonly number[]): void {
    this.taken = [...cluster];
    for (const k of cluster) {
      const { kind } = this.openings[k]!;
      if (kind === 'imprint' || kind === 'boss') this.refuse([k], () => unclear(this.openings[k]!, this.sheet.noun));
    }
    this.clipped = this.clippedOf(this.taken);
    const tooLarge = this.taken.filter(
      (k, i) => this.openings[k]!.kind === 'through' && !this.clipped.openings[i + 1]!.leaves,
    );
    if (tooLarge.length > 0) {
      this.refuse(tooLarge, (k) => this.tooLarge(this.openings[k]!));
      this.clipped = this.clippedOf(this.taken);
    }
    const through = this.taken.filter((k) => ['through', 'keep inside'].includes(this.openings[k]!.kind));
    const left = through.length === this.taken.length ? this.clipped : this.clippedOf(through);
    if (left.loops.length > 0) return;
    this.refuse(through, () =>
      fault(
        'nothing-left',
        `${this.nothingLeft}: together with its neighbours it covers it all`,
        'Move or narrow some of them, or block them up.',
      ),
    );
    this.clipped = this.clippedOf(this.taken);
  }

  private refuse(list: readonly number[], why: (k: number) => Fault): void {
    for (const k of list) this.refused.set(k, why(k));
    this.taken = this.taken.filter((k) => !this.refused.has(k));
  }

  private clippedOf(list: readonly number[]): Clipped {
    return clip(
      this.outline,
      list.map((k) => placedLoop(this.openings[k]!)),
      list.map((k) => partOf(this.openings[k]!)),
    );
  }

  private get nothingLeft(): string {
    return `with it nothing would be left of the ${this.sheet.noun}`;
  }

  private tooLarge({ profile }: Placed): Fault {
    const { noun, length, height, larger } = this.sheet;
    const say = (metres: number): string => worded(metres, this.units);
    return fault(
      'nothing-left',
      `${this.nothingLeft}: it is ${say(profile.width)} wide and ${say(profile.height)} high, ` +
        `the ${noun} ${say(length)} long and ${say(height)} high`,
      `Choose a smaller size, or make the ${noun} ${larger}.`,
    );
  }

  /** What became of one of those taken. */
  statusAt(i: number): OpeningStatus {
    const { sheet, openings, taken } = this;
    const opening = openings[taken[i]!]!;
    const report = this.clipped.openings[i + 1]!;
    if (opening.kind === 'keep inside')
      return statusOf({
        opening: opening.id,
        state: 'cut',
        findings: [{ code: 'keeps-inside', reason: 'only what lies within it is kept', mend: null }],
        area: outlineArea(opening.outline),
      });
    if (!report.inside)
      return taken.some((other) => openings[other]!.kind === 'keep inside')
        ? notCut(opening.id, offKept(sheet))
        : outsideStatus(sheet, opening, this.units);
    const onFace = report.over.map((edge) => sheet.outline.names[edge]!);
    const over = [...new Set(onFace.length > 0 ? onFace : this.overBehind(opening))];
    const runsOver: Told = {
      code: 'over-edge',
      reason: `runs over the ${over.join(' and the ')}${onFace.length > 0 ? '' : ' behind its profile'}`,
      mend: over.some((name) => shared.has(name))
        ? 'Move it clear of that, or set it out from above, where it cuts all planes that it covers.'
        : null,
    };
    return statusOf({
      opening: opening.id,
      state: over.length > 0 && opening.kind === 'through' ? 'notched' : stateOf(opening),
      findings: [...(over.length > 0 ? [runsOver] : []), ...(report.shows ? [] : [withinOthers])],
      unitedWith: report.with.map((other) => openings[taken[other - 1]!]!.id),
      area: report.area,
    });
  }

  /** The edges that an opening whose profile keeps clear of them runs over further in, where its sections make it wider. */
  private overBehind(opening: Placed): string[] {
    return outlinesBehind(opening).flatMap((loop) =>
      clip(this.outline, [loop]).openings[1]!.over.map((edge) => this.sheet.outline.names[edge]!),
    );
  }
}

const offKept = ({ noun }: Sheet): Fault =>
  fault('off-kept', `it lies where nothing is kept of the ${noun}`, 'Move it within the outline that is kept.');

function partOf({ kind }: Placed): Part {
  return kind === 'keep inside' ? 'keep' : kind === 'boss' || kind === 'imprint' ? 'raised' : 'void';
}
