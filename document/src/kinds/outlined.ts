/** What elements with an outline of their own have. */
import { z } from 'zod';
import { freeOutlineSchema } from '../outline-schema.ts';

export const outlined = {
  outline: freeOutlineSchema,
  holes: z.array(freeOutlineSchema).max(200, 'must hold at most 200 holes').optional(),
};
