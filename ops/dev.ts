/** npm run dev: the application with live reload. The page reloads itself; the server starts anew by `rs` and Enter, or Ctrl-C and again. */
import { join } from 'node:path';
import { projectFolder } from './data-folder.ts';
import { serveApplication } from './serve.ts';

export function main(args: string[]): Promise<number> {
  return serveApplication({
    reset: args.includes('--reset'),
    instead: async (api) => {
      const { createServer } = await import('vite');
      const server = await createServer({
        root: join(projectFolder, 'web'),
        server: { host: '127.0.0.1', port: Number(process.env.PORT ?? 4600), proxy: { '/api': api.url } },
      });
      await server.listen();
      return { url: server.resolvedUrls?.local[0] ?? 'http://127.0.0.1', close: () => server.close() };
    },
  });
}
