/** Writes demo/granary.json anew. */
import { writeFileSync } from 'node:fs';
import { writeDocument } from '@yard-arch/document';
import { granary } from '../src/granary.ts';

writeFileSync(new URL('../granary.json', import.meta.url), writeDocument(granary()));
