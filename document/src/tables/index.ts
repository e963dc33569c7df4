/** The document's tables, each told of in its own file. */
import { assets } from './assets.ts';
import { axes } from './axes.ts';
import { datums } from './datums.ts';
import { elements } from './elements.ts';
import { materials } from './materials.ts';
import { meshes } from './meshes.ts';
import { openings } from './openings.ts';
import { patterns } from './patterns.ts';

/** All tables, in the order in which a file holds them. A new one is a line here, and a step to the version that has it: what is kept has none of it yet. */
export const tables = { elements, patterns, openings, materials, datums, axes, assets, meshes } as const;
