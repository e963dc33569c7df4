/** Pictures of materials over HTTP against a real PostgreSQL: kept once, sent along in project files and exports, refused where they are not what they say. */
import { deflateRawSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { WebIO } from '@gltf-transform/core';
import { KHRTextureTransform } from '@gltf-transform/extensions';
import { bringMesh, digestOf } from '@yard-arch/core/format';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, type Asset, type ProjectDocument } from '@yard-arch/document';
import { dropPicture, putPicture, removeMaterial } from '@yard-arch/edit';
import { encode } from 'fast-png';
import { strFromU8, strToU8, unzipSync, Zip, ZipPassThrough, zipSync, type ZipInputFile } from 'fflate';
import { usualLimits } from '../src/asset-uses.ts';
import { Assets, factsOfAsset } from '../src/assets.ts';
import { Projects } from '../src/projects.ts';
import { startHarness, type Harness } from './harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('assets');
});
afterAll(() => harness?.remove());

const png = (width: number, height: number, shade = 90): Uint8Array =>
  encode({ width, height, channels: 3, data: new Uint8Array(3 * width * height).map((_, i) => (i * 7 + shade) % 256) });

async function send(path: string, bytes: Uint8Array | string, type: string): Promise<{ status: number; body: never }> {
  const response = await harness.app.request(`/api${path}`, {
    method: 'POST',
    headers: { 'content-type': type, host: 'localhost' },
    body: bytes as string,
  });
  return { status: response.status, body: (await response.json()) as never };
}
const fetched = async (path: string): Promise<Response> =>
  harness.app.request(`/api${path}`, { headers: { host: 'localhost' } });
const bytesOf = async (response: Response): Promise<Uint8Array> => new Uint8Array(await response.arrayBuffer());

type Facts = Omit<Asset, 'id' | 'name'>;

async function kept(bytes: Uint8Array): Promise<Facts> {
  const { status, body } = await send('/assets', bytes, 'image/png');
  expect(status).toBe(201);
  return body;
}

/** A ZIP of a number of pictures of nothing but zeros, squeezed once for all of them. */
function swollen(number: number, size: number): Uint8Array {
  const zeros = new ZipPassThrough('zeros');
  zeros.ondata = () => {};
  zeros.push(new Uint8Array(size), true);
  const squeezed = deflateRawSync(new Uint8Array(size));
  const chunks: Uint8Array[] = [];
  const zip = new Zip((_, chunk) => chunks.push(chunk));
  const add = (filename: string): void => {
    const file: ZipInputFile = { filename, size, crc: zeros.crc, compression: 8 };
    zip.add(file);
    file.ondata!(null, squeezed, true);
  };
  for (let i = 0; i < number; i++) add(`assets/${i}.png`);
  add('project.json');
  zip.end();
  return Buffer.concat(chunks);
}

/** The granary with a picture on its old brick. */
async function pictured(): Promise<{ document: ProjectDocument; bytes: Uint8Array; facts: Facts }> {
  const bytes = png(12, 8);
  const facts = await kept(bytes);
  const document = granary();
  const edit = putPicture(document, document.materials.brick!, 'colour', { ...facts, name: 'brick.png' });
  return { document: applyChangeSet(document, edit).document, bytes, facts };
}

describe('a picture', () => {
  it('is kept once by what it holds, and given back as it is', async () => {
    const bytes = png(20, 10);
    const facts = await kept(bytes);
    expect(facts).toEqual({ sha256: digestOf(bytes), type: 'image/png', bytes: bytes.length, width: 20, height: 10 });
    expect(await kept(bytes)).toEqual(facts);
    const response = await fetched(`/assets/${facts.sha256}`);
    expect(response.headers.get('content-type')).toBe('image/png');
    expect(response.headers.get('cache-control')).toContain('immutable');
    expect(await bytesOf(response)).toEqual(bytes);
  });

  it.each([
    ['nothing', new Uint8Array(0), 'is empty'],
    ['text', strToU8('not a picture'), 'no PNG, JPEG or WebP'],
    ['a picture cut short', png(20, 10).slice(0, 12), 'no PNG, JPEG or WebP'],
    ['an SVG', strToU8('<svg xmlns="http://www.w3.org/2000/svg" width="5" height="5"/>'), 'no PNG, JPEG or WebP'],
  ])('that is %s is refused with what to do', async (_, bytes, reason) => {
    const { status, body } = await send('/assets', bytes, 'image/png');
    expect(status).toBe(422);
    expect((body as { detail: string }).detail).toContain(reason);
  });

  it('of 30,000 dots, or of more bytes than may be, is refused before it is kept', async () => {
    const huge = png(20, 10);
    new DataView(huge.buffer, huge.byteOffset).setUint32(16, 30_000);
    const wide = await send('/assets', huge, 'image/png');
    expect(wide).toMatchObject({ status: 422, body: { detail: expect.stringContaining('30,000 by 10 dots') } });
    const heavy = new Uint8Array(21 * 1024 * 1024);
    heavy.set(png(2, 2));
    expect(await send('/assets', heavy, 'image/png')).toMatchObject({ status: 422 });
    expect((await fetched(`/assets/${digestOf(huge)}`)).status).toBe(404);
    expect((await fetched('/assets/xyz')).status).toBe(422);
  });
});

describe('a mesh', () => {
  const obj = 'v 0 0 0\nv 0.1 0 0\nv 0 0.1 0\nv 0 0 0.2\nf 1 3 2\nf 1 2 4\nf 2 3 4\nf 1 4 3';

  it('is kept by its SHA-256, goes into exports and with the project’s file; what is no plain GLB is refused', async () => {
    const { bytes, kept } = await bringMesh('boss.obj', strToU8(obj), { unit: 1, up: 'z' });
    const put = await send('/assets', bytes, 'model/gltf-binary');
    expect(put).toMatchObject({
      status: 201,
      body: { sha256: kept.sha256, triangles: 4, openEdges: 0, type: 'model/gltf-binary' },
    });
    const held = await fetched(`/assets/${kept.sha256}`);
    expect(held.headers.get('content-type')).toBe('model/gltf-binary');
    expect(await bytesOf(held)).toEqual(bytes);
    expect(await send('/assets', bytes.slice(0, 60), 'model/gltf-binary')).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('It is cut off') },
    });
    const document = granary();
    const door = document.patterns.door!;
    const fit = { rule: 'keep', at: 'start' } as const;
    const carrying: ProjectDocument = {
      ...document,
      meshes: { [kept.id]: kept },
      patterns: {
        ...document.patterns,
        door: {
          ...door,
          parts: [
            { id: 'boss', kind: 'imported', mesh: kept.id, materials: ['stone'], across: fit, through: fit, up: fit },
          ],
        },
      },
    };
    const { id } = (await send('/projects/upload', JSON.stringify(carrying), 'application/json')).body as {
      id: string;
    };
    const files = unzipSync(await bytesOf(await fetched(`/projects/${id}/file`)));
    expect(files[`assets/${kept.sha256}.glb`]).toEqual(bytes);
    const report = (await (await fetched(`/projects/${id}/check`)).json()) as {
      openings: { findings: { reason: string }[] }[];
    };
    expect(JSON.stringify(report)).not.toContain('not here');
  });
});

describe('a project with pictures', () => {
  it('is a ZIP of its JSON and them, and comes back from it whole', async () => {
    const { document, bytes, facts } = await pictured();
    const made = await send('/projects/upload', JSON.stringify(document), 'application/json');
    expect(made.status).toBe(201);
    const { id } = made.body as { id: string };
    const file = await fetched(`/projects/${id}/file`);
    expect(file.headers.get('content-type')).toBe('application/zip');
    expect(file.headers.get('content-disposition')).toContain('.zip');
    const zip = await bytesOf(file);
    const files = unzipSync(zip);
    expect(Object.keys(files).sort()).toEqual([`assets/${facts.sha256}.png`, 'project.json']);
    expect(files[`assets/${facts.sha256}.png`]).toEqual(bytes);
    expect(JSON.parse(strFromU8(files['project.json']!))).toEqual(document);
    // Without them it is JSON, as it always was.
    const bare = await fetched(`/projects/${id}/file?pictures=no`);
    expect(await bare.json()).toEqual(document);
    const again = await send('/projects/upload', zip, 'application/zip');
    expect(again.status).toBe(201);
    const copy = await fetched(`/projects/${(again.body as { id: string }).id}/document`);
    expect(((await copy.json()) as { document: unknown }).document).toEqual(document);
  });

  it('brings pictures with it that this server does not have', async () => {
    const bytes = png(9, 9, 33);
    const asset: Asset = {
      id: 'a1',
      name: 'slate.png',
      sha256: digestOf(bytes),
      type: 'image/png',
      bytes: bytes.length,
      width: 9,
      height: 9,
    };
    const document = { ...granary(), assets: { a1: asset } };
    const alone = await send('/projects/upload', JSON.stringify(document), 'application/json');
    expect(alone).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('“slate.png” is not in the file') },
    });
    expect((await fetched(`/assets/${asset.sha256}`)).status).toBe(404);
    const packed = (held: Uint8Array): Uint8Array =>
      zipSync({ 'project.json': strToU8(JSON.stringify(document)), [`assets/${asset.sha256}.png`]: held });
    // Not what it says: nothing of it is taken in.
    expect(await send('/projects/upload', packed(png(9, 9, 34)), 'application/zip')).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('another SHA-256') },
    });
    expect((await fetched(`/assets/${asset.sha256}`)).status).toBe(404);
    expect((await send('/projects/upload', packed(bytes), 'application/zip')).status).toBe(201);
    expect(await bytesOf(await fetched(`/assets/${asset.sha256}`))).toEqual(bytes);
  });

  it.each([
    ['no ZIP', strToU8('PK\u0003\u0004 and no more'), 'The ZIP cannot be read'],
    ['a ZIP of something else', zipSync({ 'readme.txt': strToU8('hello') }), 'holds no project.json'],
    ['a ZIP whose project is not JSON', zipSync({ 'project.json': strToU8('{') }), 'is not JSON'],
    ['a ZIP that unpacks to far more than it holds', swollen(60, 10 * 1024 * 1024), 'more than a project may'],
  ])('that is %s is refused', async (_, bytes, said) => {
    const { status, body } = await send('/projects/upload', bytes, 'application/zip');
    expect(status).toBe(422);
    expect((body as { detail: string }).detail).toContain(said);
  });

  it('carries them into GLB and OBJ at their own size', async () => {
    const { document, bytes } = await pictured();
    const made = await send('/projects/upload', JSON.stringify({ ...document, name: 'Pictured' }), 'application/json');
    const { id } = made.body as { id: string };
    const glb = await bytesOf(await fetched(`/projects/${id}/export?format=glb`));
    const gltf = await new WebIO().registerExtensions([KHRTextureTransform]).readBinary(glb);
    const brick = gltf
      .getRoot()
      .listMaterials()
      .find((material) => material.getName() === 'Old brick')!;
    expect(brick.getBaseColorTexture()!.getImage()).toEqual(bytes);
    const transform = brick.getBaseColorTextureInfo()!.getExtension<never>('KHR_texture_transform') as unknown as {
      getScale: () => number[];
    };
    expect(transform.getScale()).toEqual([1, expect.closeTo(1 / document.materials.brick!.pictures!.height, 6)]);
    const obj = unzipSync(await bytesOf(await fetched(`/projects/${id}/export?format=obj`)));
    const name = Object.keys(obj).find((key) => key.includes('Old_brick') && key.endsWith('.png'))!;
    expect(obj[name]).toEqual(bytes);
    expect(strFromU8(obj[Object.keys(obj).find((key) => key.endsWith('.mtl'))!]!)).toContain(`map_Kd ${name}`);
  });
});

describe('what is kept of pictures', () => {
  /** A server with little room on the same database. */
  const small = (limits: object) => new Assets(harness.services.database, { ...usualLimits, ...limits });
  const age = (sha256: string, days: number) =>
    harness.services.database.em
      .fork()
      .execute(`update "asset" set "at" = now() - interval '${days} days' where "sha256" = ?`, [sha256]);
  const there = async (sha256: string): Promise<boolean> => (await fetched(`/assets/${sha256}`)).status === 200;
  const made = async (document: ProjectDocument): Promise<string> =>
    ((await send('/projects/upload', JSON.stringify(document), 'application/json')).body as { id: string }).id;

  it('is cleared away a week after the last project has let go of it, with its history', async () => {
    const [stray, fresh] = [await kept(png(5, 5, 1)), await kept(png(5, 5, 2))];
    const { document, facts } = await pictured();
    const id = await made(document);
    const taken = dropPicture(document, document.materials.brick!, 'colour');
    await harness.services.projects.append(id, { baseRevision: 0, key: 'off', edit: { changeSet: taken } });
    const shelved = await kept(png(5, 5, 3));
    const em = harness.services.database.em.fork();
    await em.execute(
      `insert into "shelf" ("id", "revision", "name", "file", "at") values (gen_random_uuid(), 1, 'held', ?, now())`,
      [JSON.stringify({ sha256: shelved.sha256 })],
    );
    for (const { sha256 } of [stray, facts, shelved]) await age(sha256, 8);
    await age(fresh.sha256, 6);
    await harness.services.assets.purge();
    // Undoing would need the one that was taken off.
    expect(await Promise.all([stray, fresh, facts, shelved].map(({ sha256 }) => there(sha256)))).toEqual([
      false,
      true,
      true,
      true,
    ]);
    // Other tests have named it too.
    await em.execute(`delete from "project"`);
    await em.execute(`delete from "shelf" where "name" = 'held'`);
    await age(facts.sha256, 8);
    await harness.services.assets.purge();
    expect(await there(facts.sha256)).toBe(false);
  });

  it('makes room for what comes, by what nobody has named for an hour, or says that there is none', async () => {
    const bytes = png(40, 40, 4);
    const facts = factsOfAsset(bytes);
    await harness.services.database.em.fork().execute(`delete from "asset"`);
    const old = await kept(png(40, 40, 5));
    const assets = small({ unnamed: 1.5 * bytes.length });
    await expect(assets.keep(bytes, facts)).rejects.toMatchObject({ status: 507, kind: 'no-room' });
    await age(old.sha256, 1);
    await assets.keep(bytes, facts);
    expect([await there(old.sha256), await there(facts.sha256)]).toEqual([false, true]);
    // What is there already takes no more.
    await assets.keep(bytes, facts);
    const full = small({ ofAll: 1.5 * bytes.length });
    const more = png(40, 40, 6);
    await expect(full.keep(more, factsOfAsset(more))).rejects.toThrow('YARD_ASSETS_GB');
  });

  it('is no more of one project than it may be, whichever way it comes', async () => {
    const { document, bytes } = await pictured();
    const projects = new Projects(harness.services.database, null, null, {
      ...usualLimits,
      ofProject: 1.5 * bytes.length,
    });
    const { id } = await projects.create(document);
    const facts = await kept(png(12, 8, 7));
    const changeSet = putPicture(document, document.materials.stone!, 'colour', { ...facts, name: 'stone.png' });
    await expect(projects.append(id, { baseRevision: 0, key: 'more', edit: { changeSet } })).rejects.toMatchObject({
      status: 413,
      kind: 'too-many-pictures',
    });
    expect((await projects.get(id)).revision).toBe(0);
    const both = applyChangeSet(document, changeSet).document;
    const before = (await projects.list()).length;
    await expect(projects.create(both)).rejects.toMatchObject({ status: 413 });
    expect((await projects.list()).length).toBe(before);
  });
});

describe('edits of pictures', () => {
  it('let go of what nothing names any more, and are undone', async () => {
    const { document } = await pictured();
    const [id] = Object.keys(document.assets);
    const shared = applyChangeSet(
      document,
      putPicture(document, document.materials.stone!, 'roughness', document.assets[id!]!),
    ).document;
    expect(Object.keys(shared.assets)).toEqual([id]);
    const off = applyChangeSet(shared, dropPicture(shared, shared.materials.brick!, 'colour'));
    expect(off.document.materials.brick!.pictures).toBeUndefined();
    expect(Object.keys(off.document.assets)).toEqual([id]);
    const last = applyChangeSet(off.document, dropPicture(off.document, off.document.materials.stone!, 'roughness'));
    expect(last.document.assets).toEqual({});
    expect(applyChangeSet(last.document, last.inverse).document).toEqual(off.document);
    const bare = {
      ...document,
      materials: { ...document.materials, spare: { ...document.materials.brick!, id: 'spare' } },
    };
    const gone = applyChangeSet(bare, removeMaterial(bare, bare.materials.spare));
    expect(Object.keys(gone.document.assets)).toEqual([id]);
  });
});
