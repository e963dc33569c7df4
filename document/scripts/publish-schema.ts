/** Writes the JSON Schema of a project file to docs/project.schema.json. */
import { writeFileSync } from 'node:fs';
import { projectJsonSchema } from '../src/json-schema.ts';

const target = new URL('../../docs/project.schema.json', import.meta.url);
writeFileSync(target, `${JSON.stringify(projectJsonSchema(), null, 2)}\n`);
