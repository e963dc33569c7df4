/** npm run demo: serves the application with the demo project in it. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readDocument } from '@yard-arch/document';
import { projectFolder } from './data-folder.ts';
import { serveApplication } from './serve.ts';

export function main(args: string[]): Promise<number> {
  return serveApplication({
    reset: args.includes('--reset'),
    prepare: async (projects) => {
      if ((await projects.list()).length > 0) return;
      await projects.create(readDocument(readFileSync(join(projectFolder, 'demo', 'granary.json'), 'utf8')));
    },
  });
}
