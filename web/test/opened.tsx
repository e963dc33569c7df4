/** What tests of the page's rooms share: a project that is opened as the page opens it, on a server in memory, cut by the worker's own logic, and drawn without a browser. */
import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import {
  applyChangeSet,
  formatVersion,
  type ChangeSet,
  type Opening,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import { removeElement } from '@yard-arch/edit';
import { bare, granary } from '@yard-arch/demo';
import { cleanup, configure, render, screen, waitFor } from '@testing-library/react';
import userEvent, { PointerEventsCheckLevel, type UserEvent } from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { Notices } from '../src/common/notices.tsx';
import type { FromWorker, ToWorker } from '../src/state/cut-messages.ts';
import { Cutter } from '../src/state/cutter.ts';
import { useEditor } from '../src/state/state.ts';
import { closeProject, openProject } from '../src/state/store.ts';
import { system } from '../src/theme.ts';

/** The worker's logic on the page's own thread; it answers later, as a worker does. */
class Beside {
  onmessage: ((event: { data: FromWorker }) => void) | null = null;
  private ended = false;
  private cutter = this.begun();

  private begun(): Cutter {
    const cutter: Cutter = new Cutter({
      tell: (message) => void setTimeout(() => this.cutter === cutter && this.onmessage?.({ data: message }), 0),
      later: (what, ms) => {
        const timer = setTimeout(() => this.cutter === cutter && !this.ended && what(), ms / 100);
        return () => clearTimeout(timer);
      },
      now: () => performance.now(),
      fetchSolidPath: () => new Promise(() => {}),
      fetchMeshes: () => {},
    });
    return cutter;
  }

  postMessage(message: ToWorker): void {
    if (message.kind === 'forget') this.cutter = this.begun();
    else setTimeout(() => this.ended || this.cutter.hear(message), 0);
  }
  terminate(): void {
    this.ended = true;
  }
}

/** The line on which the server tells of others, of whom there are none. */
class Nobody {
  addEventListener(): void {}
  close(): void {}
}

/** The server, as far as an opened project asks it. */
class Server {
  revision = 0;
  readonly edits: ChangeSet[] = [];
  constructor(
    public document: ProjectDocument,
    private readonly project: string,
  ) {}

  /** As fetch is answered. */
  answer = async (
    input: string | URL | { url: string },
    init: { method?: string; body?: unknown } = {},
  ): Promise<Answer> => {
    const path = typeof input === 'string' ? input : input instanceof URL ? input.pathname : input.url;
    // What is sent of a project that a test before has left comes later than that ends.
    const of = /\/projects\/([^/?]+)/.exec(path)?.[1];
    if (of && of !== this.project) return new Promise(() => {});
    if (/\/document(\?|$)/.test(path)) return this.told({ document: this.document });
    if (/\/changes(\?|$)/.test(path) && init.method === 'POST') {
      const { changeSet } = JSON.parse(String(init.body)) as { changeSet: ChangeSet };
      this.document = applyChangeSet(this.document, changeSet).document;
      this.revision += 1;
      this.edits.push(changeSet);
      return this.told({ missed: [], format: formatVersion, changeSet });
    }
    return { ok: true, status: 200, text: async () => '[]' };
  };

  private told(more: object): Answer {
    const text = JSON.stringify({ revision: this.revision, mark: `m${this.revision}`, ...more });
    return { ok: true, status: 200, text: async () => text };
  }
}

interface Answer {
  ok: boolean;
  status: number;
  text: () => Promise<string>;
}

/** The granary with nothing in its openings. */
export const bareGranary = (): ProjectDocument => bare(granary());

/** Its courtyard wall and quay wall alone. */
export function twoWalls(): ProjectDocument {
  const whole = bareGranary();
  return Object.keys(whole.elements)
    .filter((id) => id !== 'courtyard' && id !== 'quay')
    .reduce((left, id) => applyChangeSet(left, removeElement(left, left.elements[id]!)).document, whole);
}

const before = { Worker: globalThis.Worker, EventSource: globalThis.EventSource, fetch: globalThis.fetch };

/** A project that is open. */
export interface Opened {
  user: UserEvent;
  server: Server;
  /** The document as it is shown. */
  document: () => ProjectDocument;
  opening: (id: string) => Opening;
  wall: (id: string) => Wall;
  /** Types over what stands in a field, and takes it. */
  type: (label: string | RegExp, text: string) => Promise<void>;
}

/** Opens a project, and shows what is made of its document, anew after each edit. */
export async function opened(
  document: ProjectDocument,
  made: (document: ProjectDocument) => ReactElement | null,
): Promise<Opened> {
  const project = `p${Math.random()}`;
  const server = new Server(document, project);
  Object.assign(globalThis, { Worker: Beside, EventSource: Nobody, fetch: server.answer });
  await openProject(project);
  const { failure } = useEditor.getState();
  if (failure) throw new Error(`${failure.title}: ${failure.detail}`);
  const user = userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never });
  render(
    <ChakraProvider value={system}>
      <Made of={made} />
      <Notices />
    </ChakraProvider>,
  );
  const now = (): ProjectDocument => useEditor.getState().document!;
  return {
    user,
    server,
    document: now,
    opening: (id) => now().openings[id]!,
    wall: (id) => now().elements[id] as Wall,
    type: async (label, text) => {
      const [field] = screen.getAllByLabelText<HTMLInputElement>(label);
      await user.clear(field!);
      await user.type(field!, `${text}{Enter}`);
    },
  };
}

function Made({ of }: { of: (document: ProjectDocument) => ReactElement | null }) {
  const document = useEditor((state) => state.document);
  return document && of(document);
}

/** Waits until all openings of a project have become something. */
export const cut = (): Promise<void> =>
  waitFor(
    () => {
      const { document, statuses } = useEditor.getState();
      if (statuses.size < Object.keys(document!.openings).length) throw new Error('Not everything is cut yet.');
    },
    { timeout: 60_000 },
  );

/** After each test. */
export function closed(): void {
  cleanup();
  closeProject();
  localStorage.clear();
  Object.assign(globalThis, before);
}

/** What a browser has and its stand-in does not. */
export function asInBrowser(): void {
  // Whether something is hidden takes its stand-in most of the time that a test has; end-to-end tests ask for it.
  configure({ defaultHidden: true });
  globalThis.ResizeObserver ??= class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  } as unknown as typeof ResizeObserver;
  // Tabs tell by locks that they live; this one is alone.
  Object.defineProperty(navigator, 'locks', {
    configurable: true,
    value: {
      request: async (_: string, __: unknown, held: (lock: object) => unknown) => held({}),
      query: async () => ({ held: [], pending: [] }),
    },
  });
  // Samples of materials are drawn on canvases, which nobody sees here.
  HTMLCanvasElement.prototype.getContext = (() => ({
    createImageData: (width: number, height: number) => ({ data: new Uint8ClampedArray(4 * width * height) }),
    putImageData: () => {},
  })) as unknown as typeof HTMLCanvasElement.prototype.getContext;
  HTMLCanvasElement.prototype.toDataURL = () => 'data:,';
  Element.prototype.scrollIntoView ??= () => {};
  Element.prototype.scrollTo ??= () => {};
}
