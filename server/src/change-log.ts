/** The change log of a project: how edits are appended to it, also such as were made on an earlier state, and how any state is read from it. */
import { randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { LockMode } from '@mikro-orm/core';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  changeSetUpToDate,
  checkDocument,
  formatVersion,
  isUpToDate,
  readDocument,
  Refused,
  withChanges,
  type Change,
  type ChangeSet,
  type ProjectDocument,
} from '@yard-arch/document';
import { keepUses, usualLimits, type AssetLimits } from './asset-uses.ts';
import { notifying } from './announcer.ts';
import { ChangeEntity, ProjectEntity, SnapshotEntity, VersionEntity, type ProjectRow } from './entities.ts';
import { makeEdit, readEdit, type Between, type Head } from './edits.ts';
import type { KeptDocuments } from './kept-documents.ts';
import type { Pool } from './jobs/pool.ts';
import { noSuchProject, ProblemError, refusedBy } from './problem.ts';

export interface LogEntry {
  revision: number;
  /** The identity of the log after the change. */
  mark: string;
  /** The sender's own key: whoever sent it knows by it that the entry is his. */
  key: string;
  name: string;
  at: string;
  /** The version of the format in which it is written. */
  format: number;
  changeSet: ChangeSet;
}

/** An edit that is sent: read, or where it is large as it came, to be read by a worker. */
export interface Append extends Head {
  edit: { changeSet: ChangeSet } | { bytes: Uint8Array };
}

/** An edit as it was made, as texts that are written down. */
export interface MadeTexts {
  /** The document after it. */
  document: string;
  elements: number;
  openings: number;
  projectName: string;
  /** What the edit is called. */
  name: string;
  changeSet: string;
  inverse: string;
  /** The document, where it was made here. */
  parsed?: ProjectDocument;
}

/** What became of an edit. */
export interface Appended {
  revision: number;
  mark: string;
  /** What others did between the state on which it was made and it; only the newest where there is more than one answer carries. */
  missed: LogEntry[];
  /** The version of the format in which it is written. */
  format: number;
  /** The edit as it was applied. */
  changeSet: ChangeSet;
}

/** An edit script that is sent. */
export interface SentScript {
  key: string;
  onlyAt?: number | undefined;
  script: unknown;
}

/** What became of a script. */
export interface Scripted {
  revision: number;
  mark: string;
  format: number;
  changeSet: ChangeSet;
  /** By step: the ids of what it has made; none where the script had been done before. */
  made: (readonly string[])[];
}

/** The most entries of the change log that one answer carries. */
export const mostEntries = 500;

/** No state is farther than so many changes from a snapshot. */
export const snapshotEvery = 100;

/** An edit after a pause of so many milliseconds begins a new sitting; the project as it was before is kept as a version. */
const pause = 30 * 60_000;

/** A text of more characters than this is brought up to date in a worker. */
const largeText = 1_000_000;

/** A project of more elements and openings than this is edited in a worker. */
const large = 3000;

const [squeeze, stretch] = [promisify(gzip), promisify(gunzip)];

/** What a document tells in a list, and its text. */
export function columnsOf(document: ProjectDocument): Pick<ProjectRow, 'name' | 'document' | 'elements' | 'openings'> {
  return {
    name: document.name,
    document: JSON.stringify(document),
    elements: Object.keys(document.elements).length,
    openings: Object.keys(document.openings).length,
  };
}

/** A project without its text. @throws ProblemError 404 */
export async function rowOf(em: EntityManager, id: string, lock = false): Promise<Omit<ProjectRow, 'document'>> {
  const row = await em.findOne(
    ProjectEntity,
    { id, deletedAt: null },
    { exclude: ['document'], disableIdentityMap: true, ...(lock ? { lockMode: LockMode.PESSIMISTIC_WRITE } : {}) },
  );
  if (!row) throw noSuchProject();
  return row;
}

const changesOf = (text: string, format: number): ChangeSet => changeSetUpToDate(JSON.parse(text) as ChangeSet, format);

export class ChangeLog {
  constructor(
    private readonly documents: KeptDocuments,
    private readonly pool: Pool | null,
    private readonly limits: AssetLimits = usualLimits,
  ) {}

  /** The document as it stands. */
  async current(em: EntityManager, row: Pick<ProjectRow, 'id' | 'mark'>): Promise<ProjectDocument> {
    const known = this.documents.get(row.mark);
    if (known) return known;
    const { document, mark } = await this.text(em, row.id);
    return this.documents.read(mark, document);
  }

  /**
   * The text of a document as it stands. One of an earlier version is brought up to date, checked, and kept so from now on.
   * @throws ProblemError 404; 422 where what is kept cannot be read
   */
  async text(em: EntityManager, id: string): Promise<Pick<ProjectRow, 'document' | 'revision' | 'mark'>> {
    const row = await em.findOne(
      ProjectEntity,
      { id, deletedAt: null },
      { fields: ['document', 'revision', 'mark'], disableIdentityMap: true },
    );
    if (!row) throw noSuchProject();
    const document = await this.upToDate(row.document);
    if (document !== row.document) await em.nativeUpdate(ProjectEntity, { id, mark: row.mark }, { document });
    return { document, revision: row.revision, mark: row.mark };
  }

  private async upToDate(text: string): Promise<string> {
    if (isUpToDate(text)) return text;
    try {
      if (!this.pool || text.length < largeText) return JSON.stringify(checkDocument(JSON.parse(text)));
      const outcome = await this.pool.run(
        { kind: 'upload', bytes: new TextEncoder().encode(text), known: 'all' },
        { limit: 60_000 },
      );
      if ('refused' in outcome) throw new Refused(outcome.refused, outcome.faults, outcome.count);
      if (!('text' in outcome)) throw new Error('a worker answered what was not asked');
      return outcome.text;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      throw new ProblemError(
        422,
        { kind: 'unreadable', title: 'What is kept of this project cannot be read' },
        `${error.message} Nothing was changed; its file can be downloaded as it is kept.`,
        { faults: error.faults },
      );
    }
  }

  /** Entries after a revision up to another, oldest first. */
  async entries(em: EntityManager, id: string, after: number, upTo?: number): Promise<LogEntry[]> {
    const revision = { $gt: after, ...(upTo === undefined ? {} : { $lte: upTo }) };
    const rows = await em.find(
      ChangeEntity,
      { project: id, revision },
      { exclude: ['inverse'], orderBy: { revision: 'asc' }, limit: mostEntries },
    );
    return rows.map((entry) => ({
      revision: entry.revision,
      mark: entry.mark,
      key: entry.key,
      name: entry.name,
      at: entry.at.toISOString(),
      format: formatVersion,
      changeSet: changesOf(entry.changeSet, entry.format),
    }));
  }

  /** The document as it was at a revision: from the nearest snapshot after it, or from now, change by change back. */
  async at(
    em: EntityManager,
    row: Pick<ProjectRow, 'id' | 'mark' | 'revision'>,
    revision: number,
  ): Promise<ProjectDocument> {
    if (revision >= row.revision) return this.current(em, row);
    const snapshot = await em.findOne(
      SnapshotEntity,
      { project: row.id, revision: { $gte: revision } },
      { orderBy: { revision: 'asc' } },
    );
    let document = snapshot
      ? readDocument((await stretch(snapshot.document)).toString('utf8'))
      : await this.current(em, row);
    for (let to = snapshot?.revision ?? row.revision; to > revision;) {
      const from = Math.max(revision, to - snapshotEvery);
      for (const changes of await this.inverses(em, row.id, from, to)) document = withChanges(document, changes);
      // A log from before there were snapshots gets them as it is read.
      if (from > revision) await this.keepSnapshot(em, row.id, from, JSON.stringify(document));
      to = from;
    }
    return document;
  }

  /** What takes the changes after a revision back, the newest first. */
  private async inverses(em: EntityManager, id: string, after: number, upTo: number): Promise<Change[][]> {
    const rows = await em.find(
      ChangeEntity,
      { project: id, revision: { $gt: after, $lte: upTo } },
      { fields: ['inverse', 'format'], orderBy: { revision: 'desc' } },
    );
    return rows.map(({ inverse, format }) => changesOf(inverse, format).changes);
  }

  private async keepSnapshot(em: EntityManager, project: string, revision: number, document: string): Promise<void> {
    await em.upsert(
      SnapshotEntity,
      { project, revision, document: await squeeze(document) },
      { onConflictAction: 'ignore' },
    );
  }

  /**
   * Appends an edit, in a transaction. One that was made on an earlier state is made on what there is now, by the same rule as on the page, where it touches nothing that was changed meanwhile.
   * @throws ProblemError 409 with what was missed where it does, or where the log is another than the sender's; Refused where it does not fit.
   */
  async append(em: EntityManager, id: string, sent: Append): Promise<Appended> {
    const row = await rowOf(em, id, true);
    const known = await em.findOne(ChangeEntity, { project: id, key: sent.key });
    if (known) {
      const missed =
        known.revision > sent.baseRevision ? await this.entries(em, id, sent.baseRevision, known.revision - 1) : [];
      return {
        revision: known.revision,
        mark: known.mark,
        missed,
        format: formatVersion,
        changeSet: changesOf(known.changeSet, known.format),
      };
    }
    if (await this.isOther(em, row, sent)) throw otherLog(row);
    const late = row.revision - sent.baseRevision;
    const missed = late > 0 ? await this.entries(em, id, sent.baseRevision) : [];
    const between =
      late === 0
        ? null
        : {
            inverses: await this.inverses(
              em,
              id,
              Math.max(sent.baseRevision, row.revision - mostEntries),
              row.revision,
            ),
            changes: missed.flatMap(({ changeSet }) => changeSet.changes),
          };
    const made = late > mostEntries ? null : await this.make(em, row, sent, between);
    if (!made) throw stale(row, sent.baseRevision, missed);
    return {
      ...(await this.write(em, row, sent.key, made)),
      missed,
      format: formatVersion,
      changeSet: JSON.parse(made.changeSet) as ChangeSet,
    };
  }

  /** Makes an edit, in a worker where it or the document is large. */
  private async make(
    em: EntityManager,
    row: Omit<ProjectRow, 'document'>,
    { edit, over }: Append,
    between: Between | null,
  ): Promise<MadeTexts | null> {
    if (!this.pool || ('changeSet' in edit && row.elements + row.openings < large)) {
      const changeSet = 'changeSet' in edit ? edit.changeSet : readEdit(edit.bytes).changeSet;
      const made = makeEdit(await this.current(em, row), changeSet, between, over);
      return (
        made && {
          ...columnsOf(made.document),
          parsed: made.document,
          name: made.changeSet.name,
          projectName: made.document.name,
          changeSet: JSON.stringify(made.changeSet),
          inverse: JSON.stringify(made.inverse),
        }
      );
    }
    const { document } = await this.text(em, row.id);
    const outcome = await this.pool.run(
      { kind: 'edit', mark: row.mark, text: document, edit, between, over: over ?? false },
      { limit: 60_000 },
    );
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('made' in outcome)) throw new Error('a worker answered what was not asked');
    return outcome.made;
  }

  /**
   * Does an edit script to the present state, as one edit.
   * @param onlyAt the revision at which it is to be done, where that matters. @throws ProblemError 409 where the project is at another; Refused where a step cannot be done.
   */
  async script(em: EntityManager, id: string, { key, onlyAt, script }: SentScript): Promise<Scripted> {
    const row = await rowOf(em, id, true);
    const known = await em.findOne(ChangeEntity, { project: id, key });
    if (known)
      return {
        revision: known.revision,
        mark: known.mark,
        format: formatVersion,
        changeSet: changesOf(known.changeSet, known.format),
        made: [],
      };
    if (onlyAt !== undefined && onlyAt !== row.revision) throw stale(row, onlyAt, []);
    if (!this.pool) throw new Error('scripts are done in a worker, and there is none');
    const { document } = await this.text(em, row.id);
    const outcome = await this.pool.run({ kind: 'script', mark: row.mark, text: document, script }, { limit: 60_000 });
    if ('refused' in outcome) throw refusedBy(outcome);
    if (!('scripted' in outcome)) throw new Error('a worker answered what was not asked');
    return {
      ...(await this.write(em, row, key, outcome.scripted)),
      format: formatVersion,
      changeSet: JSON.parse(outcome.scripted.changeSet) as ChangeSet,
      made: outcome.ids,
    };
  }

  /** Whether a state, such as that on which an edit was made, is none of this log. */
  async isOther(
    em: EntityManager,
    row: Pick<ProjectRow, 'id' | 'mark' | 'firstMark' | 'revision'>,
    { baseRevision, baseMark }: Pick<Append, 'baseRevision' | 'baseMark'>,
  ): Promise<boolean> {
    if (baseRevision > row.revision) return true;
    return baseMark !== undefined && baseMark !== (await this.markAt(em, row, baseRevision));
  }

  /** The identity of the log at a revision. */
  async markAt(
    em: EntityManager,
    row: Pick<ProjectRow, 'id' | 'mark' | 'firstMark' | 'revision'>,
    revision: number,
  ): Promise<string> {
    if (revision >= row.revision) return row.mark;
    if (revision <= 0) return row.firstMark;
    return (await em.findOneOrFail(ChangeEntity, { project: row.id, revision }, { fields: ['mark'] })).mark;
  }

  /** Applies an edit of the server's own to the state that there is. @throws Refused where it does not fit. */
  async apply(
    em: EntityManager,
    row: Omit<ProjectRow, 'document'>,
    key: string,
    changeSet: ChangeSet,
  ): Promise<{ revision: number; mark: string }> {
    const made = await this.make(em, row, { baseRevision: row.revision, key, edit: { changeSet } }, null);
    return this.write(em, row, key, made!);
  }

  private async write(
    em: EntityManager,
    row: Omit<ProjectRow, 'document'>,
    key: string,
    made: MadeTexts,
  ): Promise<{ revision: number; mark: string }> {
    const [now, revision, mark] = [new Date(), row.revision + 1, randomUUID()];
    if (row.revision > 0 && now.getTime() - row.updatedAt.getTime() > pause)
      await em.insert(VersionEntity, {
        id: randomUUID(),
        project: row.id,
        revision: row.revision,
        name: `before “${made.name}”`.slice(0, 120),
        automatic: true,
        at: row.updatedAt,
      });
    const { document, elements, openings, projectName } = made;
    await em.nativeUpdate(
      ProjectEntity,
      { id: row.id },
      { revision, mark, updatedAt: now, document, elements, openings, name: projectName },
    );
    await em.insert(ChangeEntity, {
      project: row.id,
      revision,
      key,
      mark,
      name: made.name,
      format: formatVersion,
      changeSet: made.changeSet,
      inverse: made.inverse,
      at: now,
    });
    await keepUses(em, row.id, [made.changeSet, made.inverse], this.limits);
    if (revision % snapshotEvery === 0) await this.keepSnapshot(em, row.id, revision, document);
    await em.execute(...notifying('yard_state', { project: row.id, revision, mark }));
    // Kept before the transaction is done: a mark of one that is rolled back is never asked for.
    if (made.parsed) this.documents.keep(mark, made.parsed, document.length);
    return { revision, mark };
  }
}

export function otherLog(row: Pick<ProjectRow, 'revision' | 'mark'>): ProblemError {
  return new ProblemError(
    409,
    { kind: 'other-log', title: 'The project was put back to an earlier state' },
    'What the server holds is not what this edit was made on: its data was put back, and may have gone on otherwise since. Read the project anew, and choose which of the two is to stand.',
    { revision: row.revision, mark: row.mark },
  );
}

function stale(row: Pick<ProjectRow, 'revision' | 'mark'>, base: number, missed: LogEntry[]): ProblemError {
  return new ProblemError(
    409,
    { kind: 'stale-revision', title: 'The project has been changed meanwhile' },
    `This edit was made on revision ${base}; the project is at ${row.revision}, and what was changed meets it. Apply what was missed, then send it again.`,
    { revision: row.revision, mark: row.mark, missed },
  );
}
