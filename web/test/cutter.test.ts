/** What the cutting worker tells the page, and when: the whole of it without a worker, by a clock that only runs when it is told to. */
import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { cutModel, prove } from '@yard-arch/core';
import { solidLibrary } from '@yard-arch/core/solid';
import { demos, facade, granary } from '@yard-arch/demo';
import { emptyDocument, omit, putting, withChanges, type ProjectDocument } from '@yard-arch/document';
import { changeElement, changeOpening, removeAll, removeElement } from '@yard-arch/edit';
import { Cutter } from '../src/state/cutter.ts';
import { pathOf } from '../src/state/drawn-elements.ts';
import type { FromWorker } from '../src/state/cut-messages.ts';

/** A host in memory. */
class Host {
  clock = 0;
  /** By how much the clock runs on at each look. */
  pace = 0;
  readonly told: FromWorker[] = [];
  private waiting: { at: number; what: () => void }[] = [];
  solid = (): Promise<void> => Promise.resolve();
  arrived: () => void = () => {};

  readonly cutter = new Cutter({
    tell: (message) => void this.told.push(message),
    later: (what, ms) => {
      const one = { at: this.clock + ms, what };
      this.waiting.push(one);
      return () => void (this.waiting = this.waiting.filter((other) => other !== one));
    },
    now: () => (this.clock += this.pace),
    fetchSolidPath: () => this.solid(),
    fetchMeshes: (_, arrived) => void (this.arrived = arrived),
  });

  /** Lets so many ms go by. */
  async pass(ms: number): Promise<void> {
    const end = this.clock + ms;
    for (;;) {
      await Promise.resolve();
      const [next] = this.waiting.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at);
      if (!next) break;
      this.waiting = this.waiting.filter((other) => other !== next);
      this.clock = Math.max(this.clock, next.at);
      next.what();
    }
    this.clock = Math.max(this.clock, end);
  }

  /** What was told since the last asking, by kind. */
  take<K extends FromWorker['kind']>(kind: K): Extract<FromWorker, { kind: K }>[] {
    const found = this.told.filter((message): message is Extract<FromWorker, { kind: K }> => message.kind === kind);
    for (const one of found) this.told.splice(this.told.indexOf(one), 1);
    return found;
  }
}

const document = granary();
const cellar = (): ProjectDocument => demos.cellar!();
const names = (messages: readonly Extract<FromWorker, { kind: 'model' }>[]): string[] =>
  messages.flatMap(({ elements }) => elements.map(({ element }) => element));

async function opened(of: ProjectDocument = document): Promise<Host> {
  const host = new Host();
  host.cutter.hear({ kind: 'document', number: 1, document: of, revision: 1 });
  await host.pass(5000);
  host.told.length = 0;
  return host;
}

describe('a project that is opened', () => {
  it('is told wall by wall where that takes long, each once, and of its openings with them', async () => {
    const host = new Host();
    host.pace = 150;
    host.cutter.hear({ kind: 'document', number: 1, document, revision: 1 });
    await host.pass(0);
    const models = host.take('model');
    expect(models.length).toBeGreaterThan(2);
    expect(names(models)).toEqual(Object.keys(document.elements));
    const first = models[0]!;
    expect(first.elements).toHaveLength(1);
    const own = Object.values(document.openings).filter(({ element }) => element === first.elements[0]!.element);
    expect(first.statuses.changed.map(({ opening }) => opening).sort()).toEqual(own.map(({ id }) => id).sort());
    // All are told of in the end, those that cut further elements as they are then.
    const model = cutModel(document);
    const last = new Map(models.flatMap(({ statuses }) => statuses.changed.map((one) => [one.opening, one])));
    expect(last).toEqual(new Map([...model.statuses].map(([id, status]) => [id, omit(status, 'area')])));
    const areas = new Map(models.flatMap(({ elements }) => elements.flatMap((one) => [...one.areas])));
    for (const { opening, area } of model.statuses.values()) expect(areas.get(opening)).toBe(area);
    const parts = models.flatMap((message) => message.parts.map(({ key }) => key));
    expect(new Set(parts).size).toBe(parts.length);
  });

  it('is told at once where it takes no time', async () => {
    const host = new Host();
    host.cutter.hear({ kind: 'document', number: 1, document: cellar(), revision: 1 });
    await host.pass(0);
    // The first wall, and then all the others.
    expect(host.take('model').map(({ elements }) => elements.length)).toEqual([
      1,
      Object.keys(cellar().elements).length - 1,
    ]);
  });

  it('has its creases when it has been drawn, once, and is proved after', async () => {
    const host = new Host();
    host.cutter.hear({ kind: 'document', number: 1, document: cellar(), revision: 1 });
    await host.pass(0);
    const told = host.take('model').flatMap(({ elements }) => elements);
    expect(told.every(({ creases, lined }) => creases === null && !lined)).toBe(true);
    host.cutter.hear({ kind: 'drawn', number: 2 });
    const [creases] = host.take('creases');
    expect(creases!.creases.map(([id]) => id)).toEqual(Object.keys(cellar().elements));
    expect(creases!.creases.every(([, lines]) => lines.length > 0)).toBe(true);
    host.cutter.hear({ kind: 'drawn', number: 3 });
    expect(host.take('creases')).toEqual([]);
    await host.pass(1000);
    expect(host.take('proofs')).toEqual([]);
    await host.pass(1000);
    const [proofs] = host.take('proofs');
    expect(proofs!.number).toBe(3);
    for (const [id, proof] of proofs!.proofs) expect(proof).toEqual(prove(cutModel(cellar()).cuts.get(id)!.mesh));
  });

  it('is cut from what was read ahead, which stands where the page has read the same', async () => {
    const host = new Host();
    host.cutter.takeAhead(cellar(), 7);
    await host.pass(0);
    expect(host.take('model').length).toBeGreaterThan(0);
    host.cutter.hear({ kind: 'document', number: 1, document: cellar(), revision: 7 });
    await host.pass(0);
    expect(host.take('model')).toEqual([]);
    await host.pass(3000);
    expect(host.take('proofs').at(-1)!.number).toBe(1);
    // Another state is cut, and what was read later than that is of no use.
    host.cutter.hear({ kind: 'document', number: 2, document, revision: 8 });
    host.cutter.takeAhead(cellar(), 9);
    await host.pass(0);
    const [model] = host.take('model');
    expect(model!.removed.sort()).toEqual(
      Object.keys(cellar().elements)
        .filter((id) => !document.elements[id])
        .sort(),
    );
    expect(names([model!])).toContain('courtyard');
  });

  it('of nothing is told as nothing', async () => {
    const host = new Host();
    host.cutter.hear({ kind: 'preview', number: 1, changeSet: null });
    await host.pass(0);
    expect(host.told).toEqual([]);
    host.cutter.hear({ kind: 'document', number: 2, document: emptyDocument('Nothing'), revision: 1 });
    await host.pass(3000);
    expect(host.take('model')).toMatchObject([{ elements: [], statuses: { changed: [], gone: [] } }]);
    expect(host.take('proofs')).toMatchObject([{ proofs: [] }]);
  });
});

describe('an edit', () => {
  const moved = changeOpening(document.openings.o3!, { along: { from: 'start', distance: 9 } }, 'move');

  it('tells of what it touches alone', async () => {
    const host = await opened();
    host.cutter.hear({ kind: 'apply', number: 2, changeSet: moved });
    await host.pass(0);
    const models = host.take('model');
    expect(models).toHaveLength(1);
    expect(models[0]!.number).toBe(2);
    expect(names(models)).toEqual(['courtyard']);
    expect(models[0]!.parts).toEqual([]);
    await host.pass(200);
    expect(host.take('proofs')).toMatchObject([{ number: 2 }]);
  });

  it('of a figure tells anew how large its openings are, but nothing else of them', async () => {
    const host = await opened(facade(3));
    const area = (): number => host.take('model').at(-1)!.elements[0]!.areas.get('o1')!;
    const { arch } = facade(3).patterns;
    const taller = { ...arch!, sizes: { a: { ...arch!.sizes.a!, dimensions: { span: 1.2, height: 2.5 } } } };
    host.cutter.hear({
      kind: 'apply',
      number: 2,
      changeSet: { name: 'raise', changes: [putting('patterns', taller)] },
    });
    await host.pass(0);
    expect(host.told).toMatchObject([{ kind: 'model', statuses: { changed: [], gone: [] } }]);
    // Half a circle over an upright rectangle, its arc in chords.
    expect(area()).toBeCloseTo(1.2 * 1.9 + 0.18 * Math.PI, 1);
  });

  it('that is being made is shown, and given up again', async () => {
    const host = await opened();
    host.cutter.hear({ kind: 'preview', number: 2, changeSet: moved });
    await host.pass(0);
    expect(names(host.take('model'))).toEqual(['courtyard']);
    host.cutter.hear({ kind: 'preview', number: 3, changeSet: null });
    await host.pass(0);
    const [back] = host.take('model');
    const whole = cutModel(document).cuts.get('courtyard')!;
    expect(back!.elements[0]!.triangles.length).toBe(whole.mesh.triangles.length);
    const states = Object.values(back!.elements[0]!.states).reduce((sum, count) => sum + count, 0);
    expect(states).toBe(whole.statuses.length);
  });

  it('of what has very many triangles is told without creases, which come when it has been drawn', async () => {
    const many = facade(2000);
    const host = await opened(many);
    host.cutter.hear({ kind: 'drawn', number: 2 });
    expect(host.take('creases')).toHaveLength(1);
    const [first] = Object.values(many.openings);
    const edit = (number: number): void =>
      host.cutter.hear({
        kind: 'preview',
        number,
        changeSet: changeOpening(first!, { blockedUp: number % 2 > 0 }, 'block up'),
      });
    edit(3);
    await host.pass(0);
    edit(4);
    await host.pass(0);
    const models = host.take('model');
    expect(models).toHaveLength(2);
    for (const { elements } of models) expect(elements).toMatchObject([{ creases: null, lined: true }]);
    host.cutter.hear({ kind: 'drawn', number: 5 });
    expect(host.take('creases')).toMatchObject([{ number: 5, creases: [['facade', expect.any(Float32Array)]] }]);
  });

  it('of what has very many openings is told without its face, which follows, once for edits that follow each other', async () => {
    const many = facade(700);
    const host = new Host();
    host.cutter.hear({ kind: 'document', number: 1, document: many, revision: 1 });
    await host.pass(0);
    expect(host.take('model')).toMatchObject([{ elements: [{ face: null }] }]);
    expect(host.take('faces')).toEqual([]);
    await host.pass(300);
    const faceOf = (of: ProjectDocument): [string, string] => [
      'facade',
      pathOf(cutModel(of).cuts.get('facade')!.region),
    ];
    expect(host.take('faces')).toEqual([{ kind: 'faces', number: 1, faces: [faceOf(many)] }]);
    const [first] = Object.values(many.openings);
    const changeSet = changeOpening(first!, { blockedUp: true }, 'block up');
    host.cutter.hear({ kind: 'apply', number: 2, changeSet });
    await host.pass(300);
    const after = withChanges(many, changeSet.changes);
    expect(host.take('faces')).toEqual([{ kind: 'faces', number: 2, faces: [faceOf(after)] }]);
    expect(faceOf(after)).not.toEqual(faceOf(many));
    // Few again, it is told with its element.
    host.take('model');
    const most = Object.values(after.openings).slice(0, 200);
    host.cutter.hear({ kind: 'apply', number: 3, changeSet: removeAll(after, most) });
    await host.pass(5000);
    expect(host.take('model')).toMatchObject([{ elements: [{ face: expect.any(String) }] }]);
    expect(host.take('faces')).toEqual([]);
  });

  it('that follows others at once is cut with them, and proved once', async () => {
    const host = await opened();
    for (let k = 1; k <= 5; k++)
      host.cutter.hear({
        kind: 'apply',
        number: 1 + k,
        changeSet: changeOpening(document.openings.o3!, { along: { from: 'start', distance: 9 + k / 10 } }, 'move'),
      });
    await host.pass(0);
    expect(host.take('model').map(({ number }) => number)).toEqual([6]);
    await host.pass(1000);
    expect(host.take('proofs').map(({ number }) => number)).toEqual([6]);
  });

  it('of a removal tells what is gone', async () => {
    const host = await opened();
    const { openings } = document;
    host.cutter.hear({ kind: 'apply', number: 2, changeSet: removeAll(document, [openings.o26!, openings.o27!]) });
    await host.pass(0);
    const [model] = host.take('model');
    expect(model!.statuses.gone.sort()).toEqual(['o26', 'o27']);
    host.cutter.hear({ kind: 'apply', number: 3, changeSet: removeElement(document, document.elements.west!) });
    await host.pass(0);
    expect(host.take('model')[0]!.removed).toEqual(['west']);
  });

  it('that cannot be cut at all is told, and the next one is cut as ever', async () => {
    const host = await opened(cellar());
    const broken = Object.defineProperty({ id: 'x', name: 'x' }, 'changes', {
      get: () => {
        throw new Error('out of reach');
      },
    });
    host.cutter.hear({ kind: 'preview', number: 2, changeSet: broken as never });
    await host.pass(0);
    expect(host.take('failed')).toEqual([{ kind: 'failed', number: 2, message: 'out of reach' }]);
    const [wall] = Object.values(cellar().elements);
    const named = changeElement(wall!, { name: 'Another' } as never, 'rename');
    host.cutter.hear({ kind: 'apply', number: 3, changeSet: named });
    await host.pass(0);
    expect(host.take('model')).toMatchObject([{ number: 3 }]);
  });
});

describe('what has yet to come', () => {
  it('is fetched when all has been shown, and nothing is cut anew for it where all was cut', async () => {
    const host = new Host();
    let asked = 0;
    host.solid = async () => void (asked += 1);
    host.cutter.hear({ kind: 'document', number: 1, document: cellar(), revision: 1 });
    await host.pass(1000);
    expect(asked).toBe(0);
    await host.pass(1000);
    expect(asked).toBe(1);
    host.take('model');
    await host.pass(5000);
    expect(host.take('model')).toEqual([]);
    expect(asked).toBe(1);
  });

  it('is fetched at once where something cannot be cut without it, which is cut when it has come', async () => {
    const mixed = JSON.parse(
      readFileSync(new URL('../../core/test/cases/solid-mixed.json', import.meta.url), 'utf8'),
    ) as ProjectDocument;
    const host = new Host();
    let arrive = (): void => {};
    host.solid = () =>
      new Promise((resolve, reject) => {
        arrive = () => void solidLibrary().then(() => resolve(), reject);
      });
    host.cutter.hear({ kind: 'document', number: 1, document: mixed, revision: 1 });
    await host.pass(0);
    const before = host.take('model').at(-1)!;
    expect(before.statuses.changed.map(({ state }) => state)).toContain('not cut');
    arrive();
    await solidLibrary();
    await host.pass(10);
    const after = host.take('model').at(-1)!;
    expect(after.statuses.changed.length).toBeGreaterThan(0);
    expect(after.statuses.changed.map(({ state }) => state)).not.toContain('not cut');
    expect(after.elements[0]!.path).toBe('solid');
  });

  it('cuts all anew when a mesh has come', async () => {
    const host = await opened(cellar());
    host.arrived();
    host.arrived();
    await host.pass(0);
    expect(names(host.take('model'))).toEqual(Object.keys(cellar().elements));
  });

  it('is done without where it cannot be had', async () => {
    const host = new Host();
    host.solid = () => Promise.reject(new Error('away'));
    host.cutter.hear({ kind: 'document', number: 1, document: cellar(), revision: 1 });
    await host.pass(9000);
    expect(host.take('failed')).toEqual([]);
    expect(host.take('proofs').length).toBeGreaterThan(0);
  });
});
