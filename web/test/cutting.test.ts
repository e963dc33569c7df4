/**
 * The page's side of the cutting worker: what it is told becomes what is shown, and nothing that has not changed is shown anew.
 * @jest-environment jsdom
 */
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import type { MeshProof, OpeningStatus } from '@yard-arch/core';
import { begin, documentUrl, takeAhead } from '../src/state/ahead.ts';
import type { DrawnElement, DrawnPart, FromWorker, ToWorker } from '../src/state/cut-messages.ts';
import { post, startWorker, stopWorker, whenShown } from '../src/state/cutting.ts';
import { initial, useEditor } from '../src/state/state.ts';

/** A worker that only keeps what it is sent, and says what it is told to. */
class Silent {
  static readonly made: Silent[] = [];
  readonly sent: ToWorker[] = [];
  ended = false;
  onmessage: ((event: { data: FromWorker }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;

  constructor(
    _url: unknown,
    readonly options: { name: string },
  ) {
    Silent.made.push(this);
  }
  postMessage(message: ToWorker): void {
    this.sent.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
  say(message: FromWorker): void {
    this.onmessage!({ data: message });
  }
}

const element = (id: string): DrawnElement => ({ element: id, creases: new Float32Array(0) }) as DrawnElement;
const part = (key: string): DrawnPart => ({ key }) as DrawnPart;
const status = (opening: string, state: OpeningStatus['state']): OpeningStatus => ({ opening, state }) as OpeningStatus;

const model = (over: Partial<Extract<FromWorker, { kind: 'model' }>> = {}): Extract<FromWorker, { kind: 'model' }> => ({
  kind: 'model',
  number: 1,
  elements: [],
  parts: [],
  removed: [],
  statuses: { changed: [], gone: [] },
  ...over,
});

const { getState } = useEditor;
const { Worker: worker, fetch: fetching } = globalThis;

beforeEach(() => {
  Silent.made.length = 0;
  useEditor.setState(initial());
  Object.assign(globalThis, { Worker: Silent, fetch: () => Promise.reject(new Error('away')) });
});
afterEach(() => {
  stopWorker();
  // One that waits is ended where it has been asked for nothing.
  startWorker();
  stopWorker();
  Object.assign(globalThis, { Worker: worker, fetch: fetching });
});

const started = (): Silent => startWorker() as unknown as Silent;

describe('the cutting worker', () => {
  it('is one, numbers what it is sent, and begins anew once it is stopped', () => {
    post({ kind: 'drawn' });
    post({ kind: 'preview', changeSet: null });
    expect(Silent.made).toHaveLength(1);
    expect(Silent.made[0]!.sent).toEqual([
      { kind: 'drawn', number: 1 },
      { kind: 'preview', changeSet: null, number: 2 },
    ]);
    stopWorker();
    expect(Silent.made[0]!.ended).toBe(true);
    post({ kind: 'drawn' });
    expect(Silent.made[1]!.sent).toEqual([{ kind: 'drawn', number: 1 }]);
  });

  it('that has nothing left to do forgets its project and cuts the next one, deaf to what it says of the first', () => {
    post({ kind: 'preview', changeSet: null });
    const [silent] = Silent.made;
    silent!.say(model({ elements: [element('first')] }));
    silent!.say({ kind: 'proofs', number: 1, proofs: [] });
    stopWorker();
    useEditor.setState(initial());
    expect(silent!.ended).toBe(false);
    expect(silent!.sent.at(-1)).toEqual({ kind: 'forget', number: 2 });
    expect(silent!.onmessage).toBeNull();
    post({ kind: 'preview', changeSet: null });
    expect(Silent.made).toHaveLength(1);
    expect(silent!.sent.at(-1)).toEqual({ kind: 'preview', changeSet: null, number: 3 });
    silent!.say({ kind: 'creases', number: 1, creases: [] });
    silent!.say(model({ number: 2, elements: [element('first')] }));
    expect(getState().drawn.size).toBe(0);
    silent!.say(model({ number: 3, elements: [element('second')] }));
    expect([...getState().drawn.keys()]).toEqual(['second']);
    // One that is still cutting is ended, though it has told of the first walls.
    post({ kind: 'preview', changeSet: null });
    silent!.say(model({ number: 4 }));
    stopWorker();
    expect(silent!.ended).toBe(true);
  });

  it('that waits is ended where another has begun with the project', () => {
    post({ kind: 'preview', changeSet: null });
    Silent.made[0]!.say({ kind: 'proofs', number: 1, proofs: [] });
    stopWorker();
    begin('/projects/one');
    startWorker(takeAhead('one')!);
    expect(Silent.made.map(({ ended }) => ended)).toEqual([true, false]);
    Silent.made[1]!.say(model({ number: 0, elements: [element('ahead')] }));
    expect([...getState().drawn.keys()]).toEqual(['ahead']);
  });

  it('adds to what is shown, and takes away what is no more', () => {
    const silent = started();
    silent.say(model({ elements: [element('a'), element('b')], parts: [part('sash')] }));
    silent.say(model({ elements: [element('c')], parts: [part('sill')], removed: ['a'] }));
    expect([...getState().drawn.keys()]).toEqual(['b', 'c']);
    expect([...getState().parts.keys()]).toEqual(['sash', 'sill']);
    expect(getState().cuts).toBe(2);
  });

  it('leaves what stands as the very same, so that nothing is drawn again for it', () => {
    const silent = started();
    silent.say(model({ parts: [part('sash')], statuses: { changed: [status('o1', 'cut')], gone: [] } }));
    const { statuses, parts } = getState();
    silent.say(model({ elements: [element('a')] }));
    expect(getState().statuses).toBe(statuses);
    expect(getState().parts).toBe(parts);
    silent.say(model({ statuses: { changed: [status('o2', 'niche')], gone: ['o1'] } }));
    expect([...getState().statuses]).toEqual([['o2', status('o2', 'niche')]]);
    // Who holds the earlier one has it as it was.
    expect([...statuses.keys()]).toEqual(['o1']);
  });

  it('gives creases to what is there still', () => {
    const silent = started();
    silent.say(model({ elements: [element('a'), element('b')] }));
    const b = getState().drawn.get('b');
    silent.say({
      kind: 'creases',
      number: 1,
      creases: [
        ['a', Float32Array.of(1, 2, 3)],
        ['gone', Float32Array.of(4, 5, 6)],
      ],
    });
    expect([...getState().drawn.keys()]).toEqual(['a', 'b']);
    expect(getState().drawn.get('a')!.creases).toHaveLength(3);
    expect(getState().drawn.get('b')).toBe(b);
  });

  it('has proofs taken only of what was sent last', () => {
    const silent = started();
    post({ kind: 'preview', changeSet: null });
    post({ kind: 'preview', changeSet: null });
    const proofs: [string, MeshProof][] = [['a', { closed: true } as MeshProof]];
    silent.say({ kind: 'proofs', number: 1, proofs });
    expect(getState().proofs.size).toBe(0);
    silent.say({ kind: 'proofs', number: 2, proofs });
    expect(getState().proofs.get('a')!.closed).toBe(true);
  });

  it('gives faces that are told after their elements, each as it was told last', () => {
    const silent = started();
    silent.say({
      kind: 'faces',
      number: 1,
      faces: [
        ['a', 'M0 0'],
        ['b', 'M1 1'],
      ],
    });
    silent.say({ kind: 'faces', number: 1, faces: [['b', 'M2 2']] });
    expect([...getState().lateFaces]).toEqual([
      ['a', 'M0 0'],
      ['b', 'M2 2'],
    ]);
  });

  it('that fails, or stops, says so until something is cut', () => {
    const silent = started();
    silent.say({ kind: 'failed', number: 1, message: 'it is too much' });
    expect(getState().cutFailure).toBe('it is too much');
    silent.say(model());
    expect(getState().cutFailure).toBeNull();
    silent.onerror!({ message: '' });
    expect(getState().cutFailure).toBe('the cutting worker has stopped');
  });
});

describe('what can wait until an edit is seen', () => {
  /** Whether it has been let go on by now. */
  const waits = (): { over: boolean } => {
    const state = { over: false };
    void whenShown().then(() => (state.over = true));
    return state;
  };
  const pass = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

  it('waits for what was sent last to be cut and drawn, whatever else was asked since', async () => {
    const silent = started();
    post({ kind: 'preview', changeSet: null });
    post({ kind: 'preview', changeSet: null });
    const edit = waits();
    post({ kind: 'drawn' });
    silent.say(model({ number: 1 }));
    await pass(80);
    expect(edit.over).toBe(false);
    silent.say(model({ number: 2 }));
    await pass(80);
    expect(edit.over).toBe(true);
    // Nothing is being cut: what comes now need not wait.
    post({ kind: 'drawn' });
    const next = waits();
    await pass(0);
    expect(next.over).toBe(true);
  });

  it('does not wait for ever, for what is left, or for what fails', async () => {
    const silent = started();
    post({ kind: 'preview', changeSet: null });
    const slow = waits();
    await pass(1100);
    expect(slow.over).toBe(true);
    const failed = waits();
    silent.say({ kind: 'failed', number: 1, message: 'it is too much' });
    await pass(80);
    expect(failed.over).toBe(true);
    post({ kind: 'preview', changeSet: null });
    const left = waits();
    stopWorker();
    await pass(80);
    expect(left.over).toBe(true);
  });
});

describe('what is begun ahead', () => {
  it('is the project that the address names, with the document read by the worker itself', () => {
    begin('/projects/a%20b/plan');
    const [silent] = Silent.made;
    expect(silent!.options.name).toBe('/api/projects/a%20b/document');
    expect(documentUrl('a b')).toBe(silent!.options.name);
    silent!.say(model({ elements: [element('early')] }));
    const ahead = takeAhead('a b')!;
    expect(ahead.told).toHaveLength(1);
    startWorker(ahead);
    expect([...getState().drawn.keys()]).toEqual(['early']);
    silent!.say(model({ elements: [element('late')] }));
    expect([...getState().drawn.keys()]).toEqual(['early', 'late']);
    expect(takeAhead('a b')).toBeNull();
  });

  it('is given up where another project is opened', () => {
    begin('/projects/one');
    expect(takeAhead('two')).toBeNull();
    expect(Silent.made[0]!.ended).toBe(true);
  });

  it.each(['/', '/projects', '/about/projects/x'])('is nothing at %s', (path) => {
    begin(path);
    expect(Silent.made).toHaveLength(0);
  });
});
