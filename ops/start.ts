/** npm start: serves the application with what it already holds. */
import { serveApplication } from './serve.ts';

export function main(args: string[]): Promise<number> {
  return serveApplication({ reset: args.includes('--reset') });
}
