/** The API: its routes by resource. */
import { answer, ProblemError } from '../problem.ts';
import type { Services } from '../services.ts';
import { bareApi } from './bare.ts';
import { editRoutes } from './edits.ts';
import { fileRoutes } from './files.ts';
import { projectRoutes } from './projects.ts';
import { shelfRoutes } from './shelf.ts';
import { workRoutes } from './work.ts';

/** The API over the services, to be mounted at /api. */
export function makeApi(services: Services) {
  const api = bareApi();
  const routed = projectRoutes(api, services);
  editRoutes(api, services);
  fileRoutes(api, services);
  workRoutes(api, services);
  shelfRoutes(api, services);
  api.doc31('/openapi.json', {
    openapi: '3.1.0',
    info: {
      title: 'Yard Arch',
      version: '1',
      description: 'Projects, their documents, their change logs, and exports. Lengths are metres.',
    },
    servers: [{ url: '/api' }],
  });
  api.all('*', noSuchRoute);
  return routed;
}

/** The API's type, from which the web's client takes its own. */
export type Api = ReturnType<typeof makeApi>;

function noSuchRoute(): Response {
  return answer(
    new ProblemError(
      404,
      { kind: 'no-such-route', title: 'There is nothing here' },
      'The API has no such address; /api/openapi.json lists those that it has.',
    ),
  );
}
