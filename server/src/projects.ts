/** Projects as the API serves them: each call is one transaction. */
import { randomUUID } from 'node:crypto';
import { checkDocument, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import type { EntityManager } from '@mikro-orm/postgresql';
import { keepUses, usualLimits, type AssetLimits } from './asset-uses.ts';
import { notifying, type Announcer } from './announcer.ts';
import {
  ChangeLog,
  columnsOf,
  mostEntries,
  otherLog,
  rowOf,
  type Append,
  type Appended,
  type LogEntry,
  type Scripted,
  type SentScript,
} from './change-log.ts';
import type { Database } from './database.ts';
import { ProjectEntity, VersionEntity, type ProjectRow } from './entities.ts';
import { KeptDocuments } from './kept-documents.ts';
import type { Pool } from './jobs/pool.ts';
import { ProblemError } from './problem.ts';

export type { LogEntry };

/** What a list of projects tells of each. */
export interface ProjectSummary {
  id: string;
  name: string;
  revision: number;
  elements: number;
  openings: number;
  createdAt: string;
  updatedAt: string;
}

/** A revision that can be gone back to. */
export interface Version {
  id: string;
  revision: number;
  name: string;
  automatic: boolean;
  at: string;
}

/** A state of a project, by its revision and the identity of the log there. */
export interface State {
  revision: number;
  mark: string;
}

/** How long a deleted project is kept, in days. */
export const keptDays = 30;

type Summarised = Pick<ProjectRow, 'id' | 'name' | 'revision' | 'elements' | 'openings' | 'createdAt' | 'updatedAt'>;

function summary(row: Summarised): ProjectSummary {
  return {
    id: row.id,
    name: row.name,
    revision: row.revision,
    elements: row.elements,
    openings: row.openings,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
  };
}

/** A document's text under another name; what comes before the name is the same in all of them, so that a large one need not be read. */
function renamed(text: string, name: string): string {
  const changed = text.replace(
    /^(\{"format":"yard-arch","version":\d+,"name":)"(?:[^"\\]|\\.)*"/,
    (_, before: string) => `${before}${JSON.stringify(name)}`,
  );
  return changed !== text ? changed : JSON.stringify({ ...(JSON.parse(text) as ProjectDocument), name });
}

export class Projects {
  private readonly changes: ChangeLog;

  constructor(
    private readonly database: Database,
    /** What other processes tell; without it only what is asked for is heard of. */
    readonly announcer: Announcer | null = null,
    pool: Pool | null = null,
    private readonly limits: AssetLimits = usualLimits,
  ) {
    this.changes = new ChangeLog(new KeptDocuments(), pool, limits);
  }

  private get em(): EntityManager {
    return this.database.em.fork();
  }

  /** Tells of every new state of a project, from the present one on, until the function that is returned is called. */
  async listen(id: string, listener: (state: State & { deleted?: boolean }) => void): Promise<() => void> {
    const look = (): void => void this.state(id).then(listener, () => {});
    const deaf =
      this.announcer?.on('yard_state', (told) => told.project === id && listener(told), look) ?? ((): void => {});
    try {
      listener(await this.state(id));
    } catch (error) {
      deaf();
      throw error;
    }
    return deaf;
  }

  private async state(id: string): Promise<State> {
    const { revision, mark } = await rowOf(this.em, id);
    return { revision, mark };
  }

  async list(): Promise<ProjectSummary[]> {
    const rows = await this.em.find(
      ProjectEntity,
      { deletedAt: null },
      { exclude: ['document'], orderBy: { updatedAt: 'desc', id: 'asc' } },
    );
    return rows.map(summary);
  }

  async get(id: string): Promise<ProjectSummary> {
    return summary(await rowOf(this.em, id));
  }

  /** The document as it stands, as JSON text: it was checked when it was kept, and whoever only passes it on need not read it. */
  async text(id: string): Promise<State & { document: string }> {
    return this.changes.text(this.em, id);
  }

  /** The text of the document as it is kept, whatever may be wrong with it. */
  async kept(id: string): Promise<string> {
    return (await this.em.findOneOrFail(ProjectEntity, { id, deletedAt: null }, { fields: ['document'] })).document;
  }

  /** The document as it stands, or as it was at a revision, with its revision. */
  async read(id: string, at?: number): Promise<State & { document: ProjectDocument }> {
    const em = this.em;
    const row = await rowOf(em, id);
    const revision = Math.min(at ?? row.revision, row.revision);
    return {
      revision,
      mark: await this.changes.markAt(em, row, revision),
      document: await this.changes.at(em, row, revision),
    };
  }

  /** The text of the document as it was at a revision. */
  async textAt(id: string, revision: number): Promise<State & { document: string }> {
    const current = await this.text(id);
    if (current.revision <= revision) return current;
    const { document, ...state } = await this.read(id, revision);
    return { ...state, document: JSON.stringify(document) };
  }

  /** The versions of a project, the newest first. */
  async versions(id: string): Promise<Version[]> {
    const em = this.em;
    await rowOf(em, id);
    const rows = await em.find(
      VersionEntity,
      { project: id },
      { orderBy: { at: 'desc', revision: 'desc' }, limit: mostEntries },
    );
    return rows.map(({ id: version, revision, name, automatic, at }) => ({
      id: version,
      revision,
      name,
      automatic,
      at: at.toISOString(),
    }));
  }

  /** Keeps the project as it stands as a version. */
  async keepVersion(id: string, name: string): Promise<Version> {
    return this.em.transactional(async (em) => {
      const { revision } = await rowOf(em, id, true);
      const made = { id: randomUUID(), revision, name, automatic: false, at: new Date() };
      await em.insert(VersionEntity, { ...made, project: id });
      return { ...made, at: made.at.toISOString() };
    });
  }

  async removeVersion(id: string, version: string): Promise<void> {
    const em = this.em;
    await rowOf(em, id);
    if ((await em.nativeDelete(VersionEntity, { id: version, project: id })) === 0)
      throw new ProblemError(
        404,
        { kind: 'no-such-version', title: 'There is no such version' },
        'It may have been removed in another tab.',
      );
  }

  /** Makes a project of a document. @throws Refused */
  async create(document: ProjectDocument): Promise<ProjectSummary> {
    const { document: text, ...columns } = columnsOf(checkDocument(document));
    return this.createFrom({ text, ...columns });
  }

  /** Makes a project of the text of a document that has been checked elsewhere. */
  async createFrom({
    text,
    name,
    elements,
    openings,
  }: {
    text: string;
    name: string;
    elements: number;
    openings: number;
  }): Promise<ProjectSummary> {
    const [now, mark] = [new Date(), randomUUID()];
    const row = {
      id: randomUUID(),
      revision: 0,
      mark,
      firstMark: mark,
      createdAt: now,
      updatedAt: now,
      deletedAt: null,
      document: text,
      name,
      elements,
      openings,
    };
    return this.em.transactional(async (em) => {
      await em.insert(ProjectEntity, row);
      await keepUses(em, row.id, [text], this.limits);
      return summary(row);
    });
  }

  async duplicate(id: string): Promise<ProjectSummary> {
    const [{ document: text }, { name, elements, openings }] = [await this.text(id), await this.get(id)];
    const names = new Set((await this.list()).map((project) => project.name));
    const ending = (n: number): string => (n === 1 ? ' (copy)' : ` (copy ${n})`);
    const named = (n: number): string => `${name.slice(0, 120 - ending(n).length)}${ending(n)}`;
    let n = 1;
    while (names.has(named(n))) n++;
    return this.createFrom({ text: renamed(text, named(n)), name: named(n), elements, openings });
  }

  /** Renames by a change set of its own, so that the log tells of it and open pages learn of it. */
  async rename(id: string, name: string): Promise<ProjectSummary> {
    const changeSet: ChangeSet = {
      name: `rename project to ${name}`.slice(0, 200),
      changes: [{ op: 'settings', value: { name } }],
    };
    return this.em.transactional(async (em) => {
      const row = await rowOf(em, id, true);
      const { revision } = await this.changes.apply(em, row, randomUUID(), changeSet);
      return { ...summary(row), name, revision, updatedAt: new Date().toISOString() };
    });
  }

  /** Deletes, so that it can be brought back. */
  async remove(id: string): Promise<void> {
    await this.em.transactional(async (em) => {
      const { revision, mark } = await rowOf(em, id, true);
      await em.nativeUpdate(ProjectEntity, { id }, { deletedAt: new Date() });
      await em.execute(...notifying('yard_state', { project: id, revision, mark, deleted: true }));
    });
  }

  async restore(id: string): Promise<ProjectSummary> {
    return this.em.transactional(async (em) => {
      const row = await em.findOne(ProjectEntity, { id }, { exclude: ['document'] });
      if (!row)
        throw new ProblemError(
          404,
          { kind: 'no-such-project', title: 'There is no such project' },
          `Deleted projects are kept for ${keptDays} days; this one is gone.`,
        );
      await em.nativeUpdate(ProjectEntity, { id }, { deletedAt: null });
      await em.execute(...notifying('yard_state', { project: id, revision: row.revision, mark: row.mark }));
      return summary(row);
    });
  }

  /** Forgets for good what was deleted long ago. */
  async purge(now = new Date()): Promise<void> {
    await this.em.nativeDelete(ProjectEntity, { deletedAt: { $lt: new Date(now.getTime() - keptDays * 86_400_000) } });
  }

  /**
   * Appends a change set that was made against a revision. A key that was seen before answers as it did then.
   * @throws ProblemError 409, with what was missed, when the project has moved on in what it touches; Refused when it does not fit.
   */
  append(id: string, sent: Append): Promise<Appended> {
    return this.em.transactional((em) => this.changes.append(em, id, sent));
  }

  /** Does an edit script to the project as it stands, as one edit. @throws ProblemError 409, Refused */
  script(id: string, sent: SentScript): Promise<Scripted> {
    return this.em.transactional((em) => this.changes.script(em, id, sent));
  }

  /**
   * The change log after a revision, oldest first, at most 500 entries at a time.
   * @param mark the identity of the log there, where it is known. @throws ProblemError 409 where the log has no such state.
   */
  async log(id: string, after: number, mark?: string): Promise<LogEntry[]> {
    const em = this.em;
    const row = await rowOf(em, id);
    if (mark !== undefined && (await this.changes.isOther(em, row, { baseRevision: after, baseMark: mark })))
      throw otherLog(row);
    return this.changes.entries(em, id, after);
  }
}
