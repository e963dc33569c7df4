/** Examples that a new user can open: each in a few words. */
import type { ProjectDocument } from '@yard-arch/document';
import { cellar } from './cellar.ts';
import { granary } from './granary.ts';
import { everyProfile } from './profiles.ts';
import { curvedFacade, layeredWall } from './walls.ts';

export interface Example {
  id: string;
  name: string;
  about: string;
  make: () => ProjectDocument;
}

export const examples: readonly Example[] = [
  {
    id: 'granary',
    name: 'Riverside granary',
    about: 'Ten walls round a yard, set out on axes and datums',
    make: granary,
  },
  {
    id: 'cellar',
    name: 'Vaulted cellar',
    about: 'A barrel with light shafts, niches set out within',
    make: cellar,
  },
  {
    id: 'curved',
    name: 'Curved front',
    about: 'Three layers, checked arches, all on a bend',
    make: () => curvedFacade(24),
  },
  { id: 'layers', name: 'Built-up wall', about: 'Cavities, checks and linings, layer by layer', make: layeredWall },
  {
    id: 'profiles',
    name: 'Every profile',
    about: 'All outlines that an opening can have, side by side',
    make: everyProfile,
  },
];
