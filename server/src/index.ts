/** The server: API, database and what serves them. */
export * from './application.ts';
export * from './database.ts';
export * from './projects.ts';
export type { Api } from './api.ts';
