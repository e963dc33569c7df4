/** npm run dev: the application with live reload, of the page by Vite and of the server by starting it anew when its files change. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { freePort } from './cluster.ts';
import { projectFolder } from './data-folder.ts';
import { serveApplication } from './serve.ts';

export function main(args: string[]): Promise<number> {
  return serveApplication({
    reset: args.includes('--reset'),
    instead: async (databaseUrl) => {
      const port = await freePort();
      const watched = ['server', 'edit', 'core', 'document'].map((room) => `--watch-path=${join(room, 'src')}`);
      const api = spawn(
        process.execPath,
        [...watched, '--watch-preserve-output', '--import', 'tsx', join('ops', 'dev-api.ts')],
        {
          cwd: projectFolder,
          stdio: ['ignore', 'inherit', 'inherit'],
          env: { ...process.env, YARD_DATABASE_URL: databaseUrl, YARD_API_PORT: String(port) },
        },
      );
      const { createServer } = await import('vite');
      const vite = await createServer({
        root: join(projectFolder, 'web'),
        server: {
          host: '127.0.0.1',
          port: Number(process.env.PORT ?? 4600),
          proxy: { '/api': `http://127.0.0.1:${port}` },
        },
      });
      await vite.listen();
      return {
        url: vite.resolvedUrls?.local[0] ?? '',
        close: async () => {
          api.kill();
          await vite.close();
        },
      };
    },
  });
}
