/** The application: theme, queries, routes. */
import '@fontsource/barlow/400.css';
import '@fontsource/barlow/500.css';
import '@fontsource/barlow/600.css';
import '@fontsource/barlow-semi-condensed/400.css';
import '@fontsource/barlow-semi-condensed/500.css';
import '@fontsource/barlow-semi-condensed/600.css';
import './styles.css';
import './fields/fields.css';
import './boards/boards.css';
import './sheet/sheet.css';
import './plan/plan.css';
import './table/table.css';
import './model/model.css';
import './register/register.css';
import './patterns/patterns.css';
import './particulars/particulars.css';
import './commands/commands.css';
import './shell/shell.css';
import './projects/projects.css';
import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Notices } from './common/notices.tsx';
import { Broken } from './common/Broken.tsx';
import { later } from './common/later.tsx';
import { EditorPage } from './shell/EditorPage.tsx';
import { system } from './theme.ts';

const ProjectsPage = later(async () => (await import('./projects/ProjectsPage.tsx')).ProjectsPage);
if (location.pathname === '/') ProjectsPage.fetch();

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true } } });

const router = createBrowserRouter([
  { path: '/', element: <ProjectsPage />, errorElement: <Broken /> },
  { path: '/projects/:project', element: <EditorPage />, errorElement: <Broken /> },
  { path: '/projects/:project/setting-out/:element', element: <EditorPage />, errorElement: <Broken /> },
  { path: '/projects/:project/patterns/:pattern', element: <EditorPage />, errorElement: <Broken /> },
  { path: '*', element: <Navigate to="/" replace /> },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ChakraProvider value={system}>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
        <Notices />
      </QueryClientProvider>
    </ChakraProvider>
  </StrictMode>,
);
