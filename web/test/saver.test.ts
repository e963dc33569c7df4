/** The saving of edits against a real server on a real PostgreSQL: conflicts, others' edits, a server that fails, a project that is deleted, data that is put back. */
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, differenceOf, putting, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { ask, startHarness, type Harness } from '../../server/test/harness.ts';
import type { SetAside } from '../src/state/kept.ts';
import {
  Saver,
  type Replaced,
  type SavingServer,
  type SavingState,
  type State,
  type Trouble,
} from '../src/state/saver.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('saver');
});
afterAll(() => harness?.remove());

class Answered extends Error {
  constructor(
    readonly status: number,
    readonly body: { type?: string; title?: string; detail?: string; missed?: Trouble['missed']; revision?: number },
  ) {
    super(body.detail);
  }
}

/** One page at a project, with a server between that can be made to fail. */
class Page {
  document!: ProjectDocument;
  state!: SavingState;
  readonly aside: SetAside[] = [];
  readonly replaced: Replaced[] = [];
  readonly asked: string[] = [];
  /** Called before each append; what it raises is the answer. @returns whether the answer is to be lost. */
  before: (changeSet: ChangeSet) => boolean | void = () => {};
  /** Whether the server has been renewed since: it writes in a version of the format that this page does not know. */
  renewed = false;
  readonly saver: Saver;

  private constructor(readonly project: string) {
    const call = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
      this.asked.push(`${method} ${path}`);
      const answer = await ask<T>(harness.app, method, `/projects/${project}${path}`, body);
      if (answer.status >= 400) throw new Answered(answer.status, answer.body as Answered['body']);
      return answer.body;
    };
    const server: SavingServer = {
      read: () => call('GET', '/document'),
      log: async ({ revision, mark }) => {
        const entries = await call<Awaited<ReturnType<SavingServer['log']>>>(
          'GET',
          `/changes?after=${revision}&mark=${mark}`,
        );
        return this.renewed ? entries.map((entry) => ({ ...entry, format: entry.format + 1 })) : entries;
      },
      append: async (edit) => {
        const lost = this.before(edit.changeSet);
        const answer = await call<Awaited<ReturnType<SavingServer['append']>>>('POST', '/changes', edit);
        if (this.renewed) answer.format += 1;
        if (lost) throw new Answered(0, { title: 'gone' });
        return answer;
      },
      troubleOf: (error) => {
        if (!(error instanceof Answered)) return null;
        const { type = '', title = '', missed = [], revision = null } = error.body;
        return {
          status: error.status,
          kind: type.replace('/problems/', ''),
          title,
          message: error.message,
          missed,
          revision,
          passing: [0, 503, 507].includes(error.status),
        };
      },
    };
    const listener = {
      shows: (document: ProjectDocument) => void (this.document = document),
      stands: (state: SavingState) => void (this.state = state),
      setAside: (edit: SetAside) => void this.aside.push(edit),
      replaced: (replaced: Replaced) => void this.replaced.push(replaced),
    };
    this.saver = new Saver(server, listener, { later: (what, wait) => void setTimeout(what, Math.min(wait, 20)) });
  }

  static async open(project: string, pending: SavingState['pending'] = []): Promise<Page> {
    const page = new Page(project);
    const read = await ask<State & { document: ProjectDocument }>(harness.app, 'GET', `/projects/${project}/document`);
    page.saver.begin(read.body, { pending, aside: [] });
    return page;
  }

  edit(changeSet: ChangeSet): void {
    const { document, inverse } = applyChangeSet(this.document, changeSet);
    this.document = document;
    this.saver.add(changeSet, inverse);
  }

  /** Moves an opening to so far from the start. */
  move(id: string, distance: number): void {
    this.edit({
      name: `move ${id} to ${distance}`,
      changes: [putting('openings', { ...this.document.openings[id]!, along: { from: 'start', distance } })],
    });
  }

  block(id: string): void {
    this.edit({
      name: `block up ${id}`,
      changes: [putting('openings', { ...this.document.openings[id]!, blockedUp: true })],
    });
  }

  until(is: () => boolean): Promise<void> {
    return until(is, () => JSON.stringify(this.state).slice(0, 400));
  }

  saved(): Promise<void> {
    return this.until(() => this.state.saving === 'saved' && this.state.pending.length === 0);
  }

  async hear(): Promise<void> {
    const { revision, mark } = (await ask<State>(harness.app, 'GET', `/projects/${this.project}/document`)).body;
    this.saver.hear({ revision, mark });
  }
}

async function until(is: () => boolean, why: () => string): Promise<void> {
  for (let i = 0; i < 2000; i++) {
    if (is()) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error(`it did not come about: ${why()}`);
}

async function project(): Promise<string> {
  return (await harness.services.projects.create(granary())).id;
}

const held = async (id: string): Promise<ProjectDocument> => (await harness.services.projects.read(id)).document;

describe('edits of several', () => {
  it('that do not touch each other go in at once, though made on an earlier state', async () => {
    const id = await project();
    const [one, two] = [await Page.open(id), await Page.open(id)];
    one.move('o9', 3);
    await one.saved();
    two.block('o9');
    two.move('o10', 4);
    await two.saved();
    expect(two.asked.filter((asked) => asked.startsWith('GET'))).toEqual([]);
    const document = await held(id);
    expect(document.openings.o9).toMatchObject({ along: { distance: 3 }, blockedUp: true });
    expect(document.openings.o10).toMatchObject({ along: { distance: 4 } });
    expect(two.document).toEqual(document);
  });

  it('at the same figure: the later one stands, and the other is told with both values and a way back', async () => {
    const id = await project();
    const [one, two] = [await Page.open(id), await Page.open(id)];
    one.move('o9', 0.801);
    await one.saved();
    two.move('o9', 0.802);
    await two.saved();
    expect((await held(id)).openings.o9!.along.distance).toBe(0.802);
    await one.hear();
    await one.until(() => one.replaced.length > 0);
    expect(two.replaced).toEqual([]);
    expect(one.replaced[0]!.values).toEqual([
      { path: 'openings/o9/along', was: { from: 'start', distance: 0.801 }, now: { from: 'start', distance: 0.802 } },
    ]);
    one.edit(one.replaced[0]!.back);
    await one.saved();
    expect((await held(id)).openings.o9!.along.distance).toBe(0.801);
  });

  it('of something that another removed are told, and the removed can be brought back', async () => {
    const id = await project();
    const [one, two] = [await Page.open(id), await Page.open(id)];
    one.move('o9', 0.801);
    await one.saved();
    await two.hear();
    await two.until(() => two.document.openings.o9!.along.distance === 0.801);
    two.edit({ name: 'remove A-09', changes: [{ op: 'remove', table: 'openings', id: 'o9' }] });
    one.move('o10', 1);
    await Promise.all([one.saved(), two.saved()]);
    await one.hear();
    await one.until(() => one.replaced.length > 0);
    expect(one.replaced[0]).toMatchObject({ by: 'remove A-09', values: [{ path: 'openings/o9', now: undefined }] });
    one.edit(one.replaced[0]!.back);
    await one.saved();
    expect((await held(id)).openings.o9!.along.distance).toBe(0.801);
  });

  it('who are all eager all get theirs in', async () => {
    const id = await project();
    const pages = await Promise.all([0, 1, 2].map(() => Page.open(id)));
    for (let n = 1; n <= 25; n++)
      pages.forEach((page, i) => {
        page.move('o9', n + i / 10);
        page.move(`o${10 + i}`, n);
      });
    await Promise.all(pages.map((page) => page.saved()));
    const document = await held(id);
    for (const i of [0, 1, 2]) expect(document.openings[`o${10 + i}`]!.along.distance).toBe(25);
    expect((await harness.services.projects.get(id)).revision).toBe(150);
    expect(pages.flatMap((page) => page.aside)).toEqual([]);
    for (const page of pages) {
      await page.hear();
      await page.until(() => JSON.stringify(page.document) === JSON.stringify(document));
    }
  });

  it('of which the answer was lost are there once, and are nobody else’s', async () => {
    const id = await project();
    const page = await Page.open(id);
    let lose = true;
    page.before = () => {
      const lost = lose;
      lose = false;
      return lost;
    };
    page.move('o9', 1);
    page.move('o9', 2);
    await page.saved();
    expect((await harness.services.projects.get(id)).revision).toBe(2);
    expect(page.document).toEqual(await held(id));
    expect(page.replaced).toEqual([]);
  });
});

describe('an edit that the server cannot take', () => {
  it('is set aside with the reason, and the others go on; it can be tried again', async () => {
    const id = await project();
    const page = await Page.open(id);
    let broken = true;
    page.before = ({ name }) => {
      if (broken && name.includes('o9')) throw new Answered(500, { title: 'The server failed', detail: 'It tripped.' });
    };
    page.move('o9', 1);
    page.move('o10', 2);
    await page.saved();
    expect(page.aside).toHaveLength(1);
    expect(page.aside[0]).toMatchObject({
      reason: 'The server failed. It tripped.',
      changeSet: { name: 'move o9 to 1' },
    });
    const document = await held(id);
    expect(document.openings.o10!.along.distance).toBe(2);
    expect(document.openings.o9).toEqual(granary().openings.o9);
    expect(page.document).toEqual(document);
    broken = false;
    page.saver.retry(page.state.aside.map(({ key }) => key));
    await page.saved();
    expect(page.state.aside).toEqual([]);
    expect((await held(id)).openings.o9!.along.distance).toBe(1);
  });

  it('holds nothing up that waits behind it when the server is only away', async () => {
    const id = await project();
    const page = await Page.open(id);
    let away = true;
    page.before = () => {
      if (away) throw new Answered(0, { title: 'The server does not answer', detail: 'Is it running?' });
    };
    page.move('o9', 1);
    page.move('o10', 2);
    await page.until(() => page.state.saving === 'kept here');
    expect(page.state.pending).toHaveLength(2);
    away = false;
    await page.saved();
    expect((await held(id)).openings.o9!.along.distance).toBe(1);
  });
});

describe('a project that is deleted', () => {
  it('keeps the edits not yet sent until it is back', async () => {
    const id = await project();
    const page = await Page.open(id);
    await harness.services.projects.remove(id);
    page.move('o9', 1);
    page.move('o9', 2);
    page.move('o10', 3);
    await page.until(() => page.state.saving === 'deleted');
    expect(page.state.pending).toHaveLength(3);
    expect(page.asked.length).toBeLessThan(4);
    await harness.services.projects.restore(id);
    await page.hear();
    await page.saved();
    expect((await held(id)).openings).toMatchObject({
      o9: { along: { distance: 2 } },
      o10: { along: { distance: 3 } },
    });
    expect(page.aside).toEqual([]);
  });
});

/** Takes the database back to a revision, as restoring a backup would. */
async function takeBack(id: string, revision: number): Promise<void> {
  const { document } = await harness.services.projects.read(id, revision);
  const em = harness.services.database.em.fork();
  const [{ mark } = { mark: '' }] = await em.execute<{ mark: string }[]>(
    'select "mark" from "change" where "project" = ? and "revision" = ?',
    [id, revision],
  );
  await em.execute('delete from "change" where "project" = ? and "revision" > ?', [id, revision]);
  await em.execute('update "project" set "revision" = ?, "mark" = ?, "document" = ? where "id" = ?', [
    revision,
    mark,
    JSON.stringify(document),
    id,
  ]);
}

describe('data that was put back to an earlier state', () => {
  async function pageAtFour(): Promise<Page> {
    const page = await Page.open(await project());
    for (const distance of [1, 2, 3, 4]) page.move('o9', distance);
    await page.saved();
    await page.hear();
    await takeBack(page.project, 2);
    return page;
  }

  it('is recognised at the next edit, and nothing is sent until it is chosen what stands', async () => {
    const page = await pageAtFour();
    page.move('o10', 5);
    await page.until(() => page.state.saving === 'put back');
    const asked = page.asked.length;
    await page.hear();
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(page.asked.length - asked).toBeLessThan(3);
    await page.saver.keepOurs(page.document, differenceOf);
    await page.saved();
    expect((await held(page.project)).openings).toMatchObject({
      o9: { along: { distance: 4 } },
      o10: { along: { distance: 5 } },
    });
  });

  it('is recognised by hearing of it, also where it went on otherwise since; the server’s can be taken', async () => {
    const page = await pageAtFour();
    const other = await Page.open(page.project);
    for (const distance of [7, 8, 9]) other.move('o10', distance);
    await other.saved();
    await page.hear();
    await page.until(() => page.state.saving === 'put back');
    page.move('o11', 6);
    await page.saver.takeServers();
    await page.saved();
    expect(page.document).toEqual(await held(page.project));
    expect(page.document.openings.o9!.along.distance).toBe(2);
    expect(page.state.aside.map(({ changeSet }) => changeSet.name)).toEqual(['move o11 to 6']);
  });
});

describe('data that was put back while the page was loaded anew', () => {
  /** A page that could not send its last edit, whose server's data was put back meanwhile. */
  async function left(): Promise<Page> {
    const page = await Page.open(await project());
    for (const distance of [1, 2, 3]) page.move('o9', distance);
    await page.saved();
    page.before = () => {
      throw new Answered(0, { title: 'away' });
    };
    page.move('o10', 5);
    await page.until(() => page.state.saving === 'kept here');
    page.saver.end();
    return page;
  }

  it.each([
    ['and stayed there', 0],
    ['and went on otherwise, farther than before', 4],
  ])('to an earlier state, %s: what is kept is not sent until it is chosen what stands', async (_, more) => {
    const page = await left();
    await takeBack(page.project, 1);
    if (more > 0) {
      const other = await Page.open(page.project);
      for (let i = 0; i < more; i++) other.move('o11', i + 1);
      await other.saved();
    }
    const there = await held(page.project);
    for (const which of ['theirs', 'ours']) {
      const anew = await Page.open(page.project, page.state.pending);
      await anew.until(() => anew.state.saving === 'put back');
      anew.saver.nudge();
      await new Promise((resolve) => setTimeout(resolve, 100));
      expect(await held(page.project)).toEqual(there);
      // It is seen what would stand.
      expect(anew.document.openings.o10!.along).toMatchObject({ distance: 5 });
      if (which === 'ours') await anew.saver.keepOurs(anew.document, differenceOf);
      else await anew.saver.takeServers();
      await anew.saved();
      expect((await held(page.project)).openings.o10!.along).toEqual(
        which === 'ours' ? { from: 'start', distance: 5 } : there.openings.o10!.along,
      );
      expect(anew.state.aside.map(({ changeSet }) => changeSet.name)).toEqual(
        which === 'ours' ? [] : ['move o10 to 5'],
      );
      anew.saver.end();
    }
  });

  it('is not suspected where others have only gone on', async () => {
    const page = await left();
    const other = await Page.open(page.project);
    for (const distance of [1, 2, 3]) other.move('o11', distance);
    await other.saved();
    const anew = await Page.open(page.project, page.state.pending);
    await anew.saved();
    expect((await held(page.project)).openings.o10!.along).toEqual({ from: 'start', distance: 5 });
  });
});

describe('a server that was renewed', () => {
  it('is recognised by the version in which it writes; edits are kept until the page is loaded anew, and then all are there once', async () => {
    const id = await project();
    const page = await Page.open(id);
    page.renewed = true;
    page.move('o9', 3);
    await page.until(() => page.state.saving === 'outdated');
    // That one was taken; what comes after it is kept.
    expect(page.state.pending).toEqual([]);
    page.block('o9');
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(page.state).toMatchObject({ saving: 'outdated', pending: [{ changeSet: { name: 'block up o9' } }] });
    const anew = await Page.open(id, page.state.pending);
    await anew.saved();
    expect((await held(id)).openings.o9).toMatchObject({ along: { distance: 3 }, blockedUp: true });
  });

  it('is recognised in what others did there', async () => {
    const id = await project();
    const [page, other] = [await Page.open(id), await Page.open(id)];
    other.move('o9', 3);
    await other.saved();
    page.renewed = true;
    await page.hear();
    await page.until(() => page.state.saving === 'outdated');
    expect(page.document.openings.o9).toEqual(granary().openings.o9);
  });
});
