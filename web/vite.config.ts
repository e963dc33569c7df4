import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Names the application's own chunk, what it imports and its styles in the page, so that they are fetched along with the entry that asks for it; not compiled, lest the entry wait. */
const preloadApplication: Plugin = {
  name: 'preload-application',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle }) =>
      Object.values(bundle ?? {})
        .filter((file) => file.type === 'chunk')
        .filter(({ isDynamicEntry, facadeModuleId }) => isDynamicEntry && facadeModuleId?.endsWith('/src/app.tsx'))
        .flatMap(({ fileName, imports, viteMetadata }) => [
          ...[fileName, ...imports].map((script) => ({
            tag: 'link',
            attrs: { rel: 'preload', as: 'script', crossorigin: true, href: `/${script}` },
            injectTo: 'head' as const,
          })),
          ...[...(viteMetadata?.importedCss ?? [])].map((css) => ({
            tag: 'link',
            attrs: { rel: 'stylesheet', crossorigin: true, href: `/${css}` },
            injectTo: 'head' as const,
          })),
        ]),
  },
};

export default defineConfig({
  plugins: [react(), preloadApplication],
  build: { target: 'es2022', chunkSizeWarningLimit: 1500 },
  worker: { format: 'es' },
});
