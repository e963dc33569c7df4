/** The kinds of long work, and what goes to a worker and comes back. */
import type { LeftOut } from '@yard-arch/core/format';
import { writtenFormats, type WrittenFormat } from '@yard-arch/core/formats';
import type { ChangeSet, Fault } from '@yard-arch/document';
import type { AssetFacts } from '../assets.ts';
import type { MadeTexts } from '../change-log.ts';
import type { Between, Head } from '../edits.ts';

/** Long work on a revision of a project: an export, a picture for a card, or the report of a check. */
export type JobKind = WrittenFormat | 'picture' | 'report';
export const jobKinds = [...writtenFormats.map(({ id }) => id), 'picture', 'report'] as unknown as [
  JobKind,
  ...JobKind[],
];

/** What a worker is asked for. */
export type Task =
  /** Work on a document that was checked: its text, and the mark of its state, by which the model is kept for what is asked next. */
  | { kind: JobKind; mark: string; text: string; assets: ReadonlyMap<string, Uint8Array> }
  /** A project file that came from outside, as its bytes; and which pictures need not come with it. */
  | { kind: 'upload'; bytes: Uint8Array; known: readonly string[] | 'all' }
  /** Bytes that are to be kept as a picture or a mesh. */
  | { kind: 'asset'; bytes: Uint8Array }
  /** A document and its pictures to be packed to a project file. */
  | { kind: 'pack'; text: string; assets: ReadonlyMap<string, Uint8Array> }
  /** A large edit that came from outside, to be read. */
  | { kind: 'read edit'; bytes: Uint8Array }
  /** An edit script to be done to a document. */
  | { kind: 'script'; mark: string; text: string; script: unknown }
  /** An edit to be made on a document. */
  | {
      kind: 'edit';
      mark: string;
      text: string;
      edit: { changeSet: ChangeSet } | { bytes: Uint8Array };
      between: Between | null;
      over: boolean;
    };

/** A picture or mesh that came with a project file. */
export interface HeldAsset {
  bytes: Uint8Array;
  facts: AssetFacts;
}

/** What a worker tells while it works. */
export type News = { progress: number; stage: string } | { piece: Uint8Array };

/** What a worker gives in the end; the result of a job has come in pieces by then. */
export type Outcome =
  | { type: string; name: string; leftOut: readonly LeftOut[] }
  | { text: string; name: string; elements: number; openings: number; assets: readonly HeldAsset[] }
  /** A project file. */
  | { packed: Uint8Array; zip: boolean }
  | { head: Head }
  | { asset: AssetFacts }
  | { made: MadeTexts | null }
  /** What a script has done, and by step the ids of what it has made. */
  | { scripted: MadeTexts; ids: (readonly string[])[] }
  | { refused: string; faults: Fault[]; count: number; malformed: boolean };
