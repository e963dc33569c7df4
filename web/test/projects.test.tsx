/**
 * The page of projects, on a server in memory: begun, renamed, duplicated, deleted and brought back; files taken in or refused; and what is said where the server is away.
 * @jest-environment jsdom
 */
import { ChakraProvider } from '@chakra-ui/react';
import { afterEach, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent, { PointerEventsCheckLevel, type UserEvent } from '@testing-library/user-event';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { emptyDocument, writeDocument } from '@yard-arch/document';
import { MemoryRouter, Route, Routes } from 'react-router';
import { Notices } from '../src/common/notices.tsx';
import { ProjectsPage } from '../src/projects/ProjectsPage.tsx';
import type { ProjectSummary } from '../src/state/api.ts';
import { system } from '../src/theme.ts';
import { asInBrowser } from './opened.tsx';

const summary = (id: string, name: string): ProjectSummary =>
  ({ id, name, revision: 1, elements: 2, openings: 1, updatedAt: new Date().toISOString() }) as ProjectSummary;

/** The server, as far as this page asks it. */
class Server {
  projects: ProjectSummary[] = [];
  deleted: ProjectSummary[] = [];
  away = false;
  asked: string[] = [];

  answer = async (input: string | URL | { url: string }, init: { method?: string; body?: unknown } = {}) => {
    const path = typeof input === 'string' ? input : input instanceof URL ? input.pathname : input.url;
    const method = init.method ?? 'GET';
    this.asked.push(`${method} ${path}`);
    if (this.away) throw new TypeError('fetch failed');
    const [status, body] = this.does(method, path, init.body ? JSON.parse(String(init.body)) : {});
    return { ok: status < 400, status, text: async () => (body === null ? '' : JSON.stringify(body)) };
  };

  private does(method: string, path: string, body: { name?: string; begin?: string }): [number, unknown] {
    const [, id = '', what = ''] = /\/projects\/([^/?]+)(?:\/([a-z]+))?/.exec(path) ?? [];
    const project = this.projects.find((one) => one.id === id);
    if (path.endsWith('/examples')) return [200, [{ id: 'vault', name: 'A vault', about: 'of six bays' }]];
    if (method === 'GET') return [200, this.projects];
    if (id === 'upload' || id === '') return [201, this.make(body.name ?? 'An example')];
    if (what === 'restore') {
      this.projects.push(...this.deleted.splice(0));
      return [200, this.projects.at(-1)];
    }
    if (!project) return [404, { title: 'Not there', detail: 'There is no such project.' }];
    if (what === 'duplicate') return [201, this.make(`${project.name} copy`)];
    if (method === 'DELETE') {
      this.deleted.push(project);
      this.projects = this.projects.filter((one) => one !== project);
      return [204, null];
    }
    if (!body.name?.trim()) return [400, { title: 'No name', detail: 'The name must not be empty.' }];
    project.name = body.name;
    return [200, project];
  }

  private make(name: string): ProjectSummary {
    const made = summary(`p${this.projects.length + this.deleted.length + 1}`, name);
    this.projects = [...this.projects, made];
    return made;
  }
}

const { fetch: fetching } = globalThis;
let server: Server;
let user: UserEvent;

beforeAll(asInBrowser);
beforeEach(() => {
  server = new Server();
  user = userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never });
  Object.assign(globalThis, { fetch: server.answer });
});
afterEach(async () => {
  // Notices stay from page to page, and no more than three are shown.
  for (const close of screen.queryAllByRole('button', { name: 'Dismiss notification' })) fireEvent.click(close);
  await waitFor(() => expect(screen.queryAllByRole('button', { name: 'Dismiss notification' })).toHaveLength(0));
  cleanup();
  Object.assign(globalThis, { fetch: fetching });
});

function show(...projects: ProjectSummary[]): void {
  server.projects = projects;
  render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MemoryRouter>
          <Routes>
            <Route path="/" element={<ProjectsPage />} />
            <Route path="/projects/:project" element={<p>the project is open</p>} />
          </Routes>
        </MemoryRouter>
        <Notices />
      </QueryClientProvider>
    </ChakraProvider>,
  );
}

const names = (): string[] => screen.queryAllByRole('heading', { level: 2 }).map((found) => found.textContent ?? '');

/** Does what the menu of a project's card says, by the keyboard. */
async function does(project: string, what: string): Promise<void> {
  await user.click(await screen.findByRole('button', { name: `More for ${project}` }));
  const item = await screen.findByRole('menuitem', { name: what });
  for (let i = 0; i < 10 && !item.hasAttribute('data-highlighted'); i++) await user.keyboard('{ArrowDown}');
  await user.keyboard('{Enter}');
}

describe('the list', () => {
  it('has a card for each project, with how much there is in it', async () => {
    show(summary('a', 'Granary'), { ...summary('b', 'Chapel'), elements: 1, openings: 12 });
    await waitFor(() => expect(names()).toEqual(['Granary', 'Chapel']));
    expect(screen.getByText(/2 elements · 1 opening · edited just now/)).toBeTruthy();
    expect(screen.getByText(/1 element · 12 openings/)).toBeTruthy();
  });

  it('that is empty says how to begin', async () => {
    show();
    expect(await screen.findByText('No projects yet')).toBeTruthy();
    expect(screen.getAllByRole('button', { name: /New project/ }).length).toBeGreaterThan(0);
  });

  it('that cannot be read says so, and is asked for again', async () => {
    server.away = true;
    show(summary('a', 'Granary'));
    expect(await screen.findByText('The server does not answer')).toBeTruthy();
    server.away = false;
    await user.click(screen.getByRole('button', { name: 'Try again' }));
    await waitFor(() => expect(names()).toEqual(['Granary']));
  });
});

describe('a project', () => {
  it('is renamed; a name that cannot be is refused in the dialog', async () => {
    show(summary('a', 'Granary'));
    await does('Granary', 'Rename…');
    const field = await screen.findByLabelText('Name');
    await user.clear(field);
    await user.click(screen.getByRole('button', { name: 'Rename' }));
    expect(await screen.findByText(/must not be empty/)).toBeTruthy();
    await user.type(field, 'Old granary');
    await user.click(screen.getByRole('button', { name: 'Rename' }));
    await waitFor(() => expect(names()).toContain('Old granary'));
  });

  it('is duplicated, deleted, and brought back', async () => {
    show(summary('a', 'Granary'));
    await does('Granary', 'Duplicate');
    await waitFor(() => expect(names()).toEqual(['Granary', 'Granary copy']));
    await does('Granary', 'Delete');
    await waitFor(() => expect(names()).toEqual(['Granary copy']));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(names()).toEqual(['Granary copy', 'Granary']));
  });

  it('that is gone meanwhile is told of, and nothing is lost', async () => {
    show(summary('a', 'Granary'));
    await screen.findByRole('button', { name: 'More for Granary' });
    server.projects = [];
    await does('Granary', 'Duplicate');
    expect(await screen.findByText('The project was not duplicated')).toBeTruthy();
    expect(screen.getByText('There is no such project.')).toBeTruthy();
  });
});

describe('a new project', () => {
  const begin = async (): Promise<void> => {
    show();
    await user.click((await screen.findAllByRole('button', { name: /New project/ }))[0]!);
    await screen.findByRole('radio', { name: /^A vault/ });
  };

  it('needs a name, begins with what was chosen, and is opened', async () => {
    await begin();
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect(await screen.findByText(/^The name /)).toBeTruthy();
    expect(server.projects).toHaveLength(0);
    await user.type(screen.getByLabelText('Name'), 'Quay');
    await user.click(screen.getByRole('radio', { name: /^Nothing/ }));
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect(await screen.findByText('the project is open')).toBeTruthy();
    expect(server.projects.map(({ name }) => name)).toEqual(['Quay']);
  });

  it('of an example brings its own name', async () => {
    await begin();
    await user.click(screen.getByRole('radio', { name: /^A vault/ }));
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect(await screen.findByText('the project is open')).toBeTruthy();
    expect(server.projects.map(({ name }) => name)).toEqual(['An example']);
  });
});

describe('a file', () => {
  // Reading and checking it takes its time, and notices come in one after the other.
  const patient = { timeout: 20_000 };
  const take = async (text: string, name = 'quay.json'): Promise<void> => {
    const file = new File([text], name, { type: 'application/json' });
    // The stand-in for a browser cannot read files as text.
    Object.assign(file, { text: async () => text, slice: () => ({ text: async () => text.slice(0, 2) }) });
    await user.upload(screen.getByTestId('file'), file);
  };

  it('is taken in as a project of its own', async () => {
    show(summary('a', 'Granary'));
    await take(writeDocument(emptyDocument('Quay')));
    expect(await screen.findByText('Opened “Quay” from quay.json', {}, patient)).toBeTruthy();
    await waitFor(() => expect(names()).toEqual(['Granary', 'Quay']));
  });

  it.each([
    ['no JSON', 'hello there'],
    ['of another shape', '{"format":"yard-arch","version":1,"name":7}'],
    [
      'of a version that is to come',
      JSON.stringify({ ...JSON.parse(writeDocument(emptyDocument('Quay'))), version: 900 }),
    ],
  ])('that is %s is refused with the reason, and never sent', async (_, text) => {
    show(summary('a', 'Granary'));
    await waitFor(() => expect(names()).toEqual(['Granary']));
    await take(text);
    const said = await screen.findByText('quay.json was not taken in', {}, patient);
    expect(said.parentElement!.textContent!.length).toBeGreaterThan(40);
    expect(server.asked.some((line) => line.includes('/upload'))).toBe(false);
  });
});
