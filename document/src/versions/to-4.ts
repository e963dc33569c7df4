/** From version 3 to 4. */
import type { Migration } from './migration.ts';

/** All that version 3 says is said as it was; what is new could not be said before, and a reader of version 3 must not take it for a fault. */
export const toVersion4: Migration = {
  what: 'There are infills, leaves that stand open by opening, materials that are seen through, and meshes from outside.',
  document: (document) => ({ ...document, meshes: {} }),
  change: (change) => [change],
};
