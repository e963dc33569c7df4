/** What runs in a worker: documents from outside are checked there, models cut, and files written. Nothing of it keeps the server from answering. */
import type { MessagePort } from 'node:worker_threads';
import { cutModel, learnMeshes, reportOn, type Model } from '@yard-arch/core';
import {
  drawPicture,
  isZip,
  leftOutOf,
  readProjectFile,
  writeProjectFile,
  writers,
  writtenFormats,
} from '@yard-arch/core/format';
import { solidLibrary } from '@yard-arch/core/solid';
import { applyChangeSet, checkDocument, Refused, type ChangeSet, type ProjectDocument } from '@yard-arch/document';
import { doScript } from '@yard-arch/edit';
import { LRUCache } from 'lru-cache';
import { factsOfAsset } from '../assets.ts';
import type { MadeTexts } from '../change-log.ts';
import { Malformed, makeEdit, readEdit, readJson } from '../edits.ts';
import { fileName } from './file-name.ts';
import type { JobKind, News, Outcome, Task } from './kinds.ts';

/** The models that were cut last, by the mark of the state. */
const models = new LRUCache<string, { document: ProjectDocument; model: Model }>({ max: 3 });

/** Documents that were edited last, by the mark of their state: what was kept was checked. */
const documents = new LRUCache<string, ProjectDocument>({ max: 3 });

const pictureSize = { width: 640, height: 400 };

export default async function work({ task, port }: { task: Task; port: MessagePort }): Promise<Outcome> {
  const tell = (news: News): void => port.postMessage(news, 'piece' in news ? [news.piece.buffer as ArrayBuffer] : []);
  try {
    if (task.kind === 'upload') return upload(task.bytes, task.known);
    if (task.kind === 'asset') return { asset: factsOfAsset(task.bytes) };
    if (task.kind === 'pack') return pack(task.text, task.assets);
    if (task.kind === 'script') return script(task);
    if (task.kind === 'read edit') return { head: readEdit(task.bytes).head };
    return task.kind === 'edit' ? edit(task) : await make(task, tell);
  } catch (error) {
    if (error instanceof Malformed) return { refused: error.message, faults: [], count: 0, malformed: true };
    if (!(error instanceof Refused)) throw error;
    return { refused: error.message, faults: [...error.faults], count: error.count, malformed: false };
  } finally {
    port.close();
  }
}

function pack(text: string, assets: ReadonlyMap<string, Uint8Array>): Outcome {
  const { bytes, zip } = writeProjectFile(checkDocument(JSON.parse(text)), (sha256) => assets.get(sha256) ?? null);
  return { packed: bytes, zip };
}

function upload(bytes: Uint8Array, known: readonly string[] | 'all'): Outcome {
  // What is no JSON is told as such by the reader of requests.
  if (!isZip(bytes)) readJson(bytes);
  const { document, assets } = readProjectFile(bytes, (sha256) => known === 'all' || known.includes(sha256));
  return {
    assets: [...assets.values()].map((held) => ({ bytes: held, facts: factsOfAsset(held) })),
    text: JSON.stringify(document),
    name: document.name,
    elements: Object.keys(document.elements).length,
    openings: Object.keys(document.openings).length,
  };
}

function edit({ mark, text, edit: sent, between, over }: Extract<Task, { kind: 'edit' }>): Outcome {
  const document = documentOf(mark, text);
  const made = makeEdit(document, 'bytes' in sent ? readEdit(sent.bytes).changeSet : sent.changeSet, between, over);
  if (!made) return { made: null };
  return { made: textsOf(made) };
}

function script({ mark, text, script: sent }: Extract<Task, { kind: 'script' }>): Outcome {
  const document = documentOf(mark, text);
  const { changeSet, made } = doScript(document, sent);
  return { scripted: textsOf({ ...applyChangeSet(document, changeSet), changeSet }), ids: made };
}

function documentOf(mark: string, text: string): ProjectDocument {
  const document = documents.get(mark) ?? (JSON.parse(text) as ProjectDocument);
  documents.set(mark, document);
  return document;
}

function textsOf({
  document,
  changeSet,
  inverse,
}: {
  document: ProjectDocument;
  changeSet: ChangeSet;
  inverse: ChangeSet;
}): MadeTexts {
  const counts = { elements: Object.keys(document.elements).length, openings: Object.keys(document.openings).length };
  return {
    document: JSON.stringify(document),
    ...counts,
    projectName: document.name,
    name: changeSet.name,
    changeSet: JSON.stringify(changeSet),
    inverse: JSON.stringify(inverse),
  };
}

async function make(
  { kind, mark, text, assets }: Extract<Task, { kind: JobKind }>,
  tell: (news: News) => void,
): Promise<Outcome> {
  const { document, model } = models.get(mark) ?? (await cut(mark, text, assets, tell));
  const put = (bytes: Uint8Array): void => tell({ piece: alone(bytes) });
  tell({ progress: 0.6, stage: 'writing the file' });
  const named = (ending: string): string => fileName(document.name, ending);
  if (kind === 'picture') {
    put(drawPicture(document, model, pictureSize));
    return { type: 'image/png', name: named('png'), leftOut: [] };
  }
  if (kind === 'report') {
    put(new TextEncoder().encode(JSON.stringify(reportOn(document, model))));
    return { type: 'application/json', name: named('report.json'), leftOut: [] };
  }
  const { written } = writtenFormats.find(({ id }) => id === kind)!;
  const name = named(written.ending);
  const progress = { done: 0 };
  for (const bytes of await writers[kind].pieces(document, model, name.slice(0, -written.ending.length - 1), {
    onShare: (share) => (progress.done = share),
    source: (sha256) => assets.get(sha256) ?? null,
  })) {
    put(bytes);
    tell({ progress: 0.6 + 0.4 * progress.done, stage: 'writing the file' });
  }
  return { type: written.type, name, leftOut: leftOutOf(document, model) };
}

async function cut(
  mark: string,
  text: string,
  assets: ReadonlyMap<string, Uint8Array>,
  tell: (news: News) => void,
): Promise<{ document: ProjectDocument; model: Model }> {
  tell({ progress: 0.02, stage: 'reading the project' });
  const document = checkDocument(JSON.parse(text));
  await solidLibrary();
  learnMeshes(document, (sha256) => assets.get(sha256) ?? null);
  const model = cutModel(document, undefined, undefined, (done, of) =>
    tell({ progress: 0.1 + (0.5 * done) / of, stage: 'cutting' }),
  );
  models.set(mark, { document, model });
  return { document, model };
}

/** Bytes in a buffer of their own, which can be handed over. */
function alone(bytes: Uint8Array): Uint8Array {
  return bytes.byteLength === bytes.buffer.byteLength ? bytes : bytes.slice();
}
