/** Projects as the API serves them: each call is one transaction. */
import { randomUUID } from 'node:crypto';
import {
  applyChangeSet,
  checkDocument,
  readDocument,
  type ChangeSet,
  type ProjectDocument,
} from '@yard-arch/document';
import { LockMode } from '@mikro-orm/core';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { Database } from './database.ts';
import { ChangeEntity, ProjectEntity, VersionEntity, type ProjectRow } from './entities.ts';
import { ProblemError } from './problem.ts';

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

export interface LogEntry {
  revision: number;
  name: string;
  at: string;
  changeSet: ChangeSet;
}

/** A revision that can be gone back to. */
export interface Version {
  id: string;
  revision: number;
  name: string;
  automatic: boolean;
  at: string;
}

/** An edit after a pause of so many milliseconds begins a new sitting; the project as it was before is kept as a version. */
const pause = 30 * 60_000;

/** How long a deleted project is kept, in days. */
const keptDays = 30;

/** The most entries of the change log that one answer carries. */
const mostEntries = 500;

function summary(row: ProjectRow): ProjectSummary {
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

function counts(document: ProjectDocument): { name: string; document: string; elements: number; openings: number } {
  return {
    name: document.name,
    document: JSON.stringify(document),
    elements: Object.keys(document.elements).length,
    openings: Object.keys(document.openings).length,
  };
}

export class Projects {
  private readonly listeners = new Map<string, Set<(revision: number) => void>>();

  constructor(private readonly database: Database) {}

  /** Tells of every new revision of a project, until the function that is returned is called. */
  listen(id: string, listener: (revision: number) => void): () => void {
    const known = this.listeners.get(id) ?? new Set();
    this.listeners.set(id, known.add(listener));
    return () => {
      known.delete(listener);
      if (known.size === 0 && this.listeners.get(id) === known) this.listeners.delete(id);
    };
  }

  private tell(id: string, revision: number): void {
    for (const listener of this.listeners.get(id) ?? []) listener(revision);
  }

  private get em(): EntityManager {
    return this.database.em.fork();
  }

  private async find(em: EntityManager, id: string, lock = false): Promise<ProjectRow> {
    const row = await em.findOne(ProjectEntity, { id, deletedAt: null }, lock ? { lockMode: LockMode.PESSIMISTIC_WRITE } : {});
    if (!row)
      throw new ProblemError(404, 'no-such-project', 'There is no such project', 'It may have been deleted. Go back to the projects to see those that there are.');
    return row;
  }

  async list(): Promise<ProjectSummary[]> {
    const rows = await this.em.find(ProjectEntity, { deletedAt: null }, { exclude: ['document'], orderBy: { updatedAt: 'desc', id: 'asc' } });
    return rows.map((row) => summary(row as ProjectRow));
  }

  async get(id: string): Promise<ProjectSummary> {
    return summary(await this.find(this.em, id));
  }

  /** The document as it stands, as JSON text: it was checked when it was kept, and whoever only passes it on need not read it. */
  async text(id: string): Promise<{ revision: number; document: string }> {
    const { revision, document } = await this.find(this.em, id);
    return { revision, document };
  }

  /** The document as it stands, or as it was at a revision, with its revision. */
  async read(id: string, at?: number): Promise<{ revision: number; document: ProjectDocument }> {
    const em = this.em;
    const row = await this.find(em, id);
    let document = readDocument(row.document);
    if (at === undefined || at >= row.revision) return { revision: row.revision, document };
    for (let to = row.revision; to > at; ) {
      const entries = await em.find(ChangeEntity, { project: id, revision: { $gt: at, $lte: to } }, { orderBy: { revision: 'desc' }, limit: mostEntries });
      if (entries.length === 0) break;
      for (const entry of entries) document = applyChangeSet(document, JSON.parse(entry.inverse) as ChangeSet).document;
      to = entries.at(-1)!.revision - 1;
    }
    return { revision: at, document };
  }

  /** The versions of a project, the newest first. */
  async versions(id: string): Promise<Version[]> {
    const em = this.em;
    await this.find(em, id);
    const rows = await em.find(VersionEntity, { project: id }, { orderBy: { at: 'desc', revision: 'desc' }, limit: mostEntries });
    return rows.map(({ id: version, revision, name, automatic, at }) => ({ id: version, revision, name, automatic, at: at.toISOString() }));
  }

  /** Keeps the project as it stands as a version. */
  async keepVersion(id: string, name: string): Promise<Version> {
    return this.em.transactional(async (em) => {
      const row = await this.find(em, id, true);
      const made = em.create(VersionEntity, { id: randomUUID(), project: id, revision: row.revision, name, automatic: false, at: new Date() });
      em.persist(made);
      await em.flush();
      return { id: made.id, revision: made.revision, name, automatic: false, at: made.at.toISOString() };
    });
  }

  async removeVersion(id: string, version: string): Promise<void> {
    const em = this.em;
    await this.find(em, id);
    if ((await em.nativeDelete(VersionEntity, { id: version, project: id })) === 0)
      throw new ProblemError(404, 'no-such-version', 'There is no such version', 'It may have been removed in another tab.');
  }

  /** Makes a project of a document. @throws Refused */
  async create(document: ProjectDocument): Promise<ProjectSummary> {
    const checked = checkDocument(document);
    return this.em.transactional(async (em) => {
      const now = new Date();
      const row = em.create(ProjectEntity, { id: randomUUID(), revision: 0, createdAt: now, updatedAt: now, deletedAt: null, ...counts(checked) });
      em.persist(row);
      await em.flush();
      return summary(row);
    });
  }

  async duplicate(id: string): Promise<ProjectSummary> {
    const { document } = await this.read(id);
    const names = new Set((await this.list()).map((project) => project.name));
    let name = `${document.name} (copy)`;
    for (let n = 2; names.has(name); n++) name = `${document.name} (copy ${n})`;
    return this.create({ ...document, name: name.slice(0, 120) });
  }

  /** Renames by a change set of its own, so that the log tells of it and open pages learn of it. */
  async rename(id: string, name: string): Promise<ProjectSummary> {
    const changeSet: ChangeSet = { name: `rename project to ${name}`.slice(0, 200), changes: [{ op: 'settings', value: { name } }] };
    const renamed = await this.em.transactional(async (em) => {
      const row = await this.find(em, id, true);
      await this.apply(em, row, randomUUID(), changeSet);
      return summary(row);
    });
    this.tell(id, renamed.revision);
    return renamed;
  }

  /** Deletes, so that it can be brought back. */
  async remove(id: string): Promise<void> {
    await this.em.transactional(async (em) => {
      (await this.find(em, id, true)).deletedAt = new Date();
    });
  }

  async restore(id: string): Promise<ProjectSummary> {
    return this.em.transactional(async (em) => {
      const row = await em.findOne(ProjectEntity, { id });
      if (!row) throw new ProblemError(404, 'no-such-project', 'There is no such project', `Deleted projects are kept for ${keptDays} days; this one is gone.`);
      row.deletedAt = null;
      return summary(row);
    });
  }

  /** Forgets for good what was deleted long ago. */
  async purge(now = new Date()): Promise<void> {
    await this.em.nativeDelete(ProjectEntity, { deletedAt: { $lt: new Date(now.getTime() - keptDays * 86_400_000) } });
  }

  /**
   * Appends a change set that was made against a revision. A key that was seen before answers as it did then.
   * @throws ProblemError 409 with what was missed, when the project has moved on since; Refused when it does not fit.
   */
  async append(id: string, baseRevision: number, key: string, changeSet: ChangeSet): Promise<{ revision: number }> {
    const appended = await this.em.transactional(async (em) => {
      const row = await this.find(em, id, true);
      const known = await em.findOne(ChangeEntity, { project: id, key });
      if (known) return { revision: known.revision };
      if (row.revision !== baseRevision) {
        const missed = await this.entries(em, id, baseRevision);
        throw new ProblemError(
          409,
          'stale-revision',
          'The project has been changed meanwhile',
          `This edit was made on revision ${baseRevision}; the project is at ${row.revision}. Apply what was missed, then send it again.`,
          { revision: row.revision, missed },
        );
      }
      return this.apply(em, row, key, changeSet);
    });
    this.tell(id, appended.revision);
    return appended;
  }

  private async apply(em: EntityManager, row: ProjectRow, key: string, changeSet: ChangeSet): Promise<{ revision: number }> {
    const { document, inverse } = applyChangeSet(readDocument(row.document), changeSet);
    const now = new Date();
    if (row.revision > 0 && now.getTime() - row.updatedAt.getTime() > pause)
      em.persist(em.create(VersionEntity, { id: randomUUID(), project: row.id, revision: row.revision, name: `before “${changeSet.name}”`.slice(0, 120), automatic: true, at: row.updatedAt }));
    row.revision += 1;
    row.updatedAt = now;
    Object.assign(row, counts(document));
    em.persist(
      em.create(ChangeEntity, {
        project: row.id,
        revision: row.revision,
        key,
        name: changeSet.name,
        changeSet: JSON.stringify(changeSet),
        inverse: JSON.stringify(inverse),
        at: now,
      }),
    );
    await em.flush();
    return { revision: row.revision };
  }

  private async entries(em: EntityManager, id: string, after: number): Promise<LogEntry[]> {
    const rows = await em.find(ChangeEntity, { project: id, revision: { $gt: after } }, { orderBy: { revision: 'asc' }, limit: mostEntries });
    return rows.map((entry) => ({
      revision: entry.revision,
      name: entry.name,
      at: entry.at.toISOString(),
      changeSet: JSON.parse(entry.changeSet) as ChangeSet,
    }));
  }

  /** The change log after a revision, oldest first, at most 500 entries at a time. */
  async log(id: string, after: number): Promise<LogEntry[]> {
    const em = this.em;
    await this.find(em, id);
    return this.entries(em, id, after);
  }
}

