/** Builds in a process of its own: building takes a gigabyte, which a server would go on holding. */
import { spawn } from 'node:child_process';
import type { InlineConfig } from 'vite';
import { projectFolder } from './data-folder.ts';

const code = `import { build } from 'vite'; await build(JSON.parse(process.argv[1]));`;

/** Builds by a configuration that is nothing but data. @throws Error where it fails; what is wrong has been said then. */
export function buildApart(config: InlineConfig): Promise<void> {
  const child = spawn(process.execPath, ['--input-type=module', '-e', code, JSON.stringify(config)], {
    cwd: projectFolder,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error('It could not be built; see above.'))));
  });
}
