/** The server: API, database and what serves them. */
export * from './application.ts';
export * from './database.ts';
export * from './projects.ts';
export * from './services.ts';
export { isLoopback } from './guard.ts';
export { leastLength, newPassphrase } from './sign-in.ts';
export type { Api } from './api/index.ts';
