/** Documents to try things on, by name. */
import type { ProjectDocument } from '@yard-arch/document';
import { facade } from './facade.ts';
import { granary } from './granary.ts';
import { everyProfile } from './profiles.ts';

export { facade, granary, everyProfile };

/** The named demo documents. */
export const demos: Record<string, () => ProjectDocument> = {
  granary,
  profiles: everyProfile,
  'facade-160': () => facade(160),
  'screen-5000': () => facade(5000),
};
