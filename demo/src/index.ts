/** Documents to try things on, by name. */
import type { ProjectDocument } from '@yard-arch/document';
import { cellar } from './cellar.ts';
import { facade } from './facade.ts';
import { granary } from './granary.ts';
import { everyCut } from './cuts.ts';
import { everyProfile } from './profiles.ts';
import { curvedFacade, layeredWall } from './walls.ts';

export { curvedFacade, everyCut, facade, granary, everyProfile };
export type { Sample } from './cuts.ts';
export { examples, type Example } from './examples.ts';

/** The named demo documents. */
export const demos: Record<string, () => ProjectDocument> = {
  granary,
  cellar,
  profiles: everyProfile,
  curved: () => curvedFacade(24),
  layers: layeredWall,
  'facade-160': () => facade(160),
  'screen-5000': () => facade(5000),
};
