/** The server, as the pages see it. */
import type { ProjectSummary, Version } from '@yard-arch/server';
import type { Api } from '@yard-arch/server/api';
import { hc } from 'hono/client';
import type { ChangeSet, Fault, ProjectDocument } from '@yard-arch/document';

const client = hc<Api>('/api');

export type { ProjectSummary, Version };

export interface Missed {
  revision: number;
  changeSet: ChangeSet;
}

/** The server's answer when it could not do what was asked. */
export class ServerProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly faults: Fault[] = [],
    readonly missed: Missed[] = [],
    readonly revision: number | null = null,
  ) {
    super(detail);
  }
  /** Whether the same request may succeed later: the server or its database is away, or the disk is full. */
  get passing(): boolean {
    return this.status === 0 || this.status >= 500;
  }
}

async function told<T>(asked: Promise<{ ok: boolean; status: number; text(): Promise<string> }>): Promise<T> {
  let response;
  try {
    response = await asked;
  } catch {
    throw new ServerProblem(0, 'The server does not answer', 'Is Yard Arch still running? Edits are kept in this browser until it answers again.');
  }
  const text = await response.text();
  if (response.ok) return (text ? JSON.parse(text) : null) as T;
  let problem: Partial<{ title: string; detail: string; faults: Fault[]; missed: Missed[]; revision: number }> = {};
  try {
    problem = JSON.parse(text) as typeof problem;
  } catch {
    // Not from our server: a proxy in between.
  }
  throw new ServerProblem(
    response.status,
    problem.title ?? 'The server failed',
    problem.detail ?? `It answered ${response.status}.`,
    problem.faults,
    problem.missed,
    problem.revision ?? null,
  );
}

const of = (id: string) => ({ param: { id } });

export const api = {
  list: () => told<ProjectSummary[]>(client.projects.$get()),
  create: (name: string) => told<ProjectSummary>(client.projects.$post({ json: { name } })),
  upload: (document: unknown) => told<ProjectSummary>(fetch('/api/projects/upload', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(document) })),
  rename: (id: string, name: string) => told<ProjectSummary>(client.projects[':id'].$patch({ ...of(id), json: { name } })),
  duplicate: (id: string) => told<ProjectSummary>(client.projects[':id'].duplicate.$post(of(id))),
  remove: (id: string) => told<null>(client.projects[':id'].$delete(of(id))),
  restore: (id: string) => told<ProjectSummary>(client.projects[':id'].restore.$post(of(id))),
  /** Takes an answer to a reading that was asked for earlier. */
  readFrom: (asked: Promise<Response>) => told<{ revision: number; document: ProjectDocument }>(asked),
  read: (id: string, revision?: number) => told<{ revision: number; document: ProjectDocument }>(client.projects[':id'].document.$get({ ...of(id), query: revision === undefined ? {} : { revision } })),
  log: (id: string, after: number) => told<Missed[]>(client.projects[':id'].changes.$get({ ...of(id), query: { after } })),
  versions: (id: string) => told<Version[]>(client.projects[':id'].versions.$get(of(id))),
  keepVersion: (id: string, name: string) => told<Version>(client.projects[':id'].versions.$post({ ...of(id), json: { name } })),
  removeVersion: (id: string, version: string) => told<null>(client.projects[':id'].versions[':version'].$delete({ param: { id, version } })),
  append: (id: string, baseRevision: number, key: string, changeSet: ChangeSet) =>
    told<{ revision: number }>(client.projects[':id'].changes.$post({ ...of(id), json: { baseRevision, key, changeSet } })),
};

export const eventsUrl = (id: string): string => `/api/projects/${id}/events`;
export const pictureUrl = (project: ProjectSummary): string => `/api/projects/${project.id}/picture?revision=${project.revision}`;
export const fileUrl = (id: string): string => `/api/projects/${id}/file`;
export const exportUrl = (id: string, format: 'glb' | 'obj'): string => `/api/projects/${id}/export?format=${format}`;
