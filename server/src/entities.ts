/** What is kept in the database: projects, every change that was made to them, and long work with what it gave. */
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

/** One project as it now stands. The document is kept as JSON text, so that rows keep their order. */
export const ProjectEntity = defineEntity({
  name: 'Project',
  tableName: 'project',
  properties: {
    id: p.uuid().primary(),
    name: p.text(),
    revision: p.integer(),
    /** The identity of the log as it now stands. */
    mark: p.text(),
    /** Its identity before the first change. */
    firstMark: p.text(),
    document: p.text(),
    elements: p.integer(),
    openings: p.integer(),
    createdAt: p.datetime(),
    updatedAt: p.datetime(),
    /** When it was deleted; it can be brought back for as long as it is kept. */
    deletedAt: p.datetime().nullable(),
  },
});
export type ProjectRow = InferEntity<typeof ProjectEntity>;

/** One change set that was applied, with its inverse: an entry of the change log. */
export const ChangeEntity = defineEntity({
  name: 'Change',
  tableName: 'change',
  properties: {
    project: p.uuid().primary(),
    /** The project's revision after the change. */
    revision: p.integer().primary(),
    /** The sender's own key, by which a change sent twice is known. */
    key: p.text(),
    /** The identity of the log after the change: made anew for each, so that a log that was put back to an earlier state and went on otherwise is not mistaken for this one. */
    mark: p.text(),
    name: p.text(),
    /** The version of the format in which it is written. */
    format: p.integer(),
    changeSet: p.text(),
    inverse: p.text(),
    at: p.datetime(),
  },
});

/** The document as it was at a revision, compressed: no state is farther than so many changes from one of these. */
export const SnapshotEntity = defineEntity({
  name: 'Snapshot',
  tableName: 'snapshot',
  properties: { project: p.uuid().primary(), revision: p.integer().primary(), document: p.blob() },
});

/** A revision of a project that can be gone back to; the document as it was follows from the change log. */
export const VersionEntity = defineEntity({
  name: 'Version',
  tableName: 'version',
  properties: {
    id: p.uuid().primary(),
    project: p.uuid(),
    revision: p.integer(),
    name: p.text(),
    /** Made by itself, before the first edit after a pause. */
    automatic: p.boolean(),
    at: p.datetime(),
  },
});

/** A pattern that is kept for all projects, with the materials that it names. */
export const ShelfEntity = defineEntity({
  name: 'Shelf',
  tableName: 'shelf',
  properties: {
    id: p.uuid().primary(),
    /** Counted up whenever it is put there anew. */
    revision: p.integer(),
    name: p.text(),
    /** A pattern file, as JSON text. */
    file: p.text(),
    at: p.datetime(),
  },
});

/** One piece of long work on a revision of a project: an export, a picture, a check. */
export const JobEntity = defineEntity({
  name: 'Job',
  tableName: 'job',
  properties: {
    id: p.uuid().primary(),
    project: p.uuid(),
    revision: p.integer(),
    kind: p.text(),
    state: p.text(),
    /** From 0 to 1. */
    progress: p.float(),
    /** What is being done, in words. */
    stage: p.text(),
    /** Where it failed: the problem details, as JSON. */
    problem: p.text().nullable(),
    type: p.text().nullable(),
    name: p.text().nullable(),
    /** What is not in the result, since it could not be made: elements with the reason, as JSON. */
    leftOut: p.text().nullable(),
    /** Bytes of the result. */
    size: p.integer().nullable(),
    createdAt: p.datetime(),
    endedAt: p.datetime().nullable(),
  },
});
export type JobRow = InferEntity<typeof JobEntity>;

/** A piece of a job's result. */
export const JobPieceEntity = defineEntity({
  name: 'JobPiece',
  tableName: 'job_piece',
  properties: { job: p.uuid().primary(), number: p.integer().primary(), bytes: p.blob() },
});

/** A picture that documents name, by the SHA-256 of its bytes. */
export const AssetEntity = defineEntity({
  name: 'Asset',
  tableName: 'asset',
  properties: {
    sha256: p.text().primary(),
    type: p.text(),
    width: p.integer(),
    height: p.integer(),
    bytes: p.blob(),
    /** How many there are. */
    size: p.integer(),
    at: p.datetime(),
  },
});
