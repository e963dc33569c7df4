/** What is kept in the database: projects, and every change that was made to them. */
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

/** One project as it now stands. The document is kept as JSON text, so that rows keep their order. */
export const ProjectEntity = defineEntity({
  name: 'Project',
  tableName: 'project',
  properties: {
    id: p.uuid().primary(),
    name: p.text(),
    revision: p.integer(),
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
    name: p.text(),
    changeSet: p.text(),
    inverse: p.text(),
    at: p.datetime(),
  },
});
export type ChangeRow = InferEntity<typeof ChangeEntity>;

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
