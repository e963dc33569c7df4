/** The shell's commands, to be run by a script or a test. */
export { run } from './main.ts';
