/** Documents to try things on, by name. */
import type { ProjectDocument } from '@yard-arch/document';
import { book, manyWindows } from './book.ts';
import { cellar } from './cellar.ts';
import { facade } from './facade.ts';
import { bare, granary, granaryWalls } from './granary.ts';
import { everyCut } from './cuts.ts';
import { everyRoof } from './roofs.ts';
import { everyDormer } from './dormers.ts';
import { everyVault } from './vaults.ts';
import { everyProfile } from './profiles.ts';
import { curvedFacade, layeredWall } from './walls.ts';

export {
  bare,
  book,
  curvedFacade,
  manyWindows,
  everyCut,
  everyDormer,
  facade,
  granary,
  granaryWalls,
  everyProfile,
  everyRoof,
  everyVault,
};
export type { Sample } from './cuts.ts';
export { examples, type Example } from './examples.ts';

/** The named demo documents. */
export const demos: Record<string, () => ProjectDocument> = {
  granary,
  cellar,
  profiles: everyProfile,
  roofs: everyRoof,
  vaults: everyVault,
  dormers: everyDormer,
  curved: () => curvedFacade(24),
  layers: layeredWall,
  book,
  'windows-20': () => manyWindows(20),
  'windows-2000': () => manyWindows(2000),
  'facade-160': () => facade(160),
  'screen-5000': () => facade(5000),
};
