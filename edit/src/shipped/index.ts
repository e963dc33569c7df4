/** The patterns that ship with the program. */
import type { Pattern } from '@yard-arch/document';
import { arches } from './arches.ts';
import { doors } from './doors.ts';
import { others } from './others.ts';
import { windows } from './windows.ts';

export { shippedMaterials } from './make.ts';

/** All of them, windows first. */
export const shipped: readonly Pattern[] = [...windows, ...arches, ...doors, ...others];
