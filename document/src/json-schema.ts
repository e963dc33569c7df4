/** The JSON Schema of a project file, made from the Zod schema. */
import { z } from 'zod';
import { documentSchema } from './schema.ts';

/** JSON Schema (2020-12) of a project file. It says the shape; that names lead somewhere is checked on reading. */
export function projectJsonSchema(): Record<string, unknown> {
  return {
    ...z.toJSONSchema(documentSchema, { target: 'draft-2020-12' }),
    title: 'Yard Arch project',
    description: 'One project of Yard Arch. Lengths are metres, angles degrees, z is up.',
  };
}
