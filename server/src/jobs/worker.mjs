/** How a worker begins: with TypeScript understood, then the work itself. */
import { register } from 'tsx/esm/api';

register();
const { default: work } = await import('./worker.ts');
export default work;
