/** The server, as the pages see it. */
import type { ProjectSummary, Version } from '@yard-arch/server';
import type { Api } from '@yard-arch/server/api';
import { hc } from 'hono/client';
import { meshType, type Asset, type Fault, type PatternFile, type ProjectDocument } from '@yard-arch/document';
import type { WrittenFormat } from '@yard-arch/core/formats';
import type { Beginning, ShelfItem } from '@yard-arch/edit';
import type { LogEntry, SavingServer, State, Trouble } from './saver.ts';

const client = hc<Api>('/api');

export type { ProjectSummary, Version };

/** A pattern on the shelf. */
export interface KeptPattern extends ShelfItem {
  name: string;
  at: string;
}

/** One that is on the shelf but that this program cannot read. */
export interface UnreadPattern extends Omit<KeptPattern, 'file'> {
  file: null;
  why: string;
}

/** A state of a project, as the server tells of it. */
export interface ReadState {
  revision: number;
  mark: string;
  document: ProjectDocument;
}

/** The server's answer when it could not do what was asked. */
export class ServerProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly more: { kind?: string; faults?: Fault[]; missed?: LogEntry[]; revision?: number } = {},
  ) {
    super(detail);
  }
  get faults(): Fault[] {
    return this.more.faults ?? [];
  }
  /** Whether the same request may succeed later: the server or its database is away, the disk is full, or one is signed out. */
  get passing(): boolean {
    return [0, 401, 429, 502, 503, 504, 507].includes(this.status);
  }
}

/** What went wrong, for the saving of edits. */
export function troubleOf(error: unknown): Trouble | null {
  if (!(error instanceof ServerProblem)) return null;
  const { status, title, message, passing, more } = error;
  return {
    status,
    kind: more.kind ?? '',
    title,
    message,
    missed: more.missed ?? [],
    revision: more.revision ?? null,
    passing,
  };
}

async function told<T>(asked: Promise<{ ok: boolean; status: number; text(): Promise<string> }>): Promise<T> {
  let response;
  try {
    response = await asked;
  } catch {
    throw new ServerProblem(
      0,
      'The server does not answer',
      'Is Yard Arch still running? Edits are kept in this browser until it answers again.',
    );
  }
  const text = await response.text();
  if (response.ok) return (text ? JSON.parse(text) : null) as T;
  let problem: Partial<{
    type: string;
    title: string;
    detail: string;
    faults: Fault[];
    missed: LogEntry[];
    revision: number;
  }> = {};
  try {
    problem = JSON.parse(text) as typeof problem;
  } catch {
    // Not from our server: a proxy in between.
  }
  const { type = '', title = 'The server failed', detail = `It answered ${response.status}.`, ...more } = problem;
  throw new ServerProblem(response.status, title, detail, { ...more, kind: type.replace('/problems/', '') });
}

/** Sends what the server reads by itself, and not by a route's schema. */
const posted = (url: string, body: unknown): Promise<Response> =>
  fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

const of = (id: string) => ({ param: { id } });

export const api = {
  list: () => told<ProjectSummary[]>(client.projects.$get()),
  /** @param begun what it begins with, or an example to begin from. */
  create: (name: string | undefined, begun: { begin: Beginning } | { example: string }) =>
    told<ProjectSummary>(client.projects.$post({ json: { ...(name === undefined ? {} : { name }), ...begun } })),
  examples: () => told<{ id: string; name: string; about: string }[]>(client.examples.$get()),
  upload: (document: unknown) => told<ProjectSummary>(posted('/api/projects/upload', document)),
  /** Sends a project file with pictures as it is. */
  uploadZip: (file: Blob) =>
    told<ProjectSummary>(
      fetch('/api/projects/upload', { method: 'POST', headers: { 'content-type': 'application/zip' }, body: file }),
    ),
  /** Keeps a picture. */
  keepPicture: (file: Blob) =>
    told<Omit<Asset, 'id' | 'name'>>(
      fetch('/api/assets', {
        method: 'POST',
        headers: { 'content-type': file.type || 'application/octet-stream' },
        body: file,
      }),
    ),
  /** Keeps a mesh, as plain GLB. */
  keepMesh: (bytes: Uint8Array<ArrayBuffer>) =>
    told<{ sha256: string }>(
      fetch('/api/assets', { method: 'POST', headers: { 'content-type': meshType }, body: bytes }),
    ),
  rename: (id: string, name: string) =>
    told<ProjectSummary>(client.projects[':id'].$patch({ ...of(id), json: { name } })),
  duplicate: (id: string) => told<ProjectSummary>(client.projects[':id'].duplicate.$post(of(id))),
  remove: (id: string) => told<null>(client.projects[':id'].$delete(of(id))),
  restore: (id: string) => told<ProjectSummary>(client.projects[':id'].restore.$post(of(id))),
  /** Takes an answer to a reading that was asked for earlier. */
  readFrom: (asked: Promise<Response>) => told<ReadState>(asked),
  read: (id: string, revision?: number) =>
    told<ReadState>(
      client.projects[':id'].document.$get({ ...of(id), query: revision === undefined ? {} : { revision } }),
    ),
  log: (id: string, after: State) =>
    told<LogEntry[]>(
      client.projects[':id'].changes.$get({ ...of(id), query: { after: after.revision, mark: after.mark } }),
    ),
  versions: (id: string) => told<Version[]>(client.projects[':id'].versions.$get(of(id))),
  keepVersion: (id: string, name: string) =>
    told<Version>(client.projects[':id'].versions.$post({ ...of(id), json: { name } })),
  removeVersion: (id: string, version: string) =>
    told<null>(client.projects[':id'].versions[':version'].$delete({ param: { id, version } })),
  append: (id: string, edit: Parameters<SavingServer['append']>[0]) =>
    told<Awaited<ReturnType<SavingServer['append']>>>(posted(`/api/projects/${id}/changes`, edit)),
  begin: (id: string, kind: WrittenFormat | 'report') =>
    told<{ id: string }>(client.projects[':id'].jobs.$post({ ...of(id), json: { kind } })),
  shelf: () => told<(KeptPattern | UnreadPattern)[]>(client.shelf.$get() as Promise<Response>),
  putOnShelf: (file: PatternFile) => told<KeptPattern>(posted('/api/shelf', file)),
  replaceOnShelf: (item: string, file: PatternFile) =>
    told<KeptPattern>(
      fetch(`/api/shelf/${item}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(file),
      }),
    ),
  takeFromShelf: (item: string) => told<null>(client.shelf[':item'].$delete({ param: { item } })),
  cancel: (job: string) => told<null>(client.jobs[':job'].$delete({ param: { job } })),
};

export const assetUrl = (sha256: string): string => `/api/assets/${sha256}`;
export const eventsUrl = (id: string): string => `/api/projects/${id}/events`;
export const pictureUrl = (project: ProjectSummary): string =>
  `/api/projects/${project.id}/picture?revision=${project.revision}`;
export const fileUrl = (id: string): string => `/api/projects/${id}/file`;
export const jobEventsUrl = (job: string): string => `/api/jobs/${job}/events`;
export const jobResultUrl = (job: string): string => `/api/jobs/${job}/result`;
