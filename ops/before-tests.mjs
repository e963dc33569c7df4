/** Before the unit tests: the server's workers and the shell are built, as they are used. */
import { register } from 'tsx/esm/api';

export default async function beforeTests() {
  const unregister = register();
  const { buildForNode } = await import('./node-build.ts');
  process.env.YARD_WORKER = await buildForNode('worker');
  process.env.YARD_SHELL = await buildForNode('shell');
  await unregister();
}
