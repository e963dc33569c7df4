/** The shell: reports, exports, and what it says when it is misused. */
import { afterAll, describe, expect, it } from '@jest/globals';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { emptyDocument, type ProjectDocument } from '@yard-arch/document';
import { run } from '../src/index.ts';

const granary = fileURLToPath(new URL('../../demo/granary.json', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'yard-arch-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

async function yard(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const code = await run(
    args,
    (text) => (out += text),
    (text) => (err += text),
  );
  return { code, out, err };
}

describe('yard edit', () => {
  const script = (name: string, value: unknown): string => {
    const path = join(folder, `${name}.json`);
    writeFileSync(path, JSON.stringify(value));
    return path;
  };

  it('does a script and writes what came of it', async () => {
    const out = join(folder, 'edited.json');
    const { code, out: told } = await yard(
      'edit',
      granary,
      '--do',
      script('fill', {
        do: [
          { do: 'move', openings: ['o9'], up: 0.1 },
          { do: 'copy', openings: ['o9'], along: 0.4, up: 0 },
        ],
      }),
      '--out',
      out,
    );
    expect(code).toBe(0);
    const { made } = JSON.parse(told) as { made: string[][] };
    const written = JSON.parse(readFileSync(out, 'utf8')) as { openings: Record<string, unknown> };
    expect(Object.keys(written.openings)).toContain(made[1]![0]);
    expect((await yard('check', out)).out).toContain(made[1]![0]);
  });

  it('writes nothing where a step cannot be done, and says which', async () => {
    const out = join(folder, 'not-edited.json');
    const { code, err } = await yard(
      'edit',
      granary,
      '--do',
      script('bad', {
        do: [
          { do: 'move', openings: ['o9'], up: 0.1 },
          { do: 'move', openings: ['nobody'], up: 1 },
        ],
      }),
      '--out',
      out,
    );
    expect(code).toBe(1);
    expect(err).toContain('do/1/openings/0: names the opening "nobody", which does not exist');
    expect(existsSync(out)).toBe(false);
    expect((await yard('edit', granary, '--do', join(folder, 'none.json'), '--out', out)).code).toBe(2);
    expect((await yard('edit', granary, '--out', out)).err).toContain('--do');
    expect((await yard('edit', '--help')).out).toContain('  place\n');
  });
});

describe('yard check', () => {
  it('finds the demo sound: every element closed, every opening cut or blocked up', async () => {
    const { code, out } = await yard('check', granary);
    const report = JSON.parse(out) as {
      sound: boolean;
      elements: { closed: boolean; volume: number; triangles: number; openings: { state: string }[] }[];
    };
    expect(code).toBe(0);
    expect(report.sound).toBe(true);
    expect(report.elements).toHaveLength(19);
    for (const element of report.elements) {
      expect(element.closed).toBe(true);
      expect(element.volume).toBeGreaterThan(1);
      expect(element.triangles).toBeGreaterThanOrEqual(12);
    }
    expect(report.elements.flatMap((element) => element.openings)).toHaveLength(53);
  });

  it('fails where an opening is not cut, and reports it all the same', async () => {
    const document = JSON.parse(readFileSync(granary, 'utf8')) as { openings: { o22: { along: unknown } } };
    document.openings.o22.along = { from: 'start', distance: 99 };
    const path = join(folder, 'astray.json');
    writeFileSync(path, JSON.stringify(document));
    const { code, out } = await yard('check', path);
    expect(code).toBe(1);
    expect(out).toContain('it lies off the wall');
  });

  it('names each fault of a bad file by its path', async () => {
    const path = join(folder, 'bad.json');
    writeFileSync(path, readFileSync(granary, 'utf8').replace('"length": 19.2', '"length": -1'));
    const { code, err } = await yard('check', path);
    expect(code).toBe(1);
    expect(err).toContain('elements/courtyard/length: must be more than 0');
  });
});

describe('yard export', () => {
  it('writes a GLB of the demo without an error in the format’s validator', async () => {
    const out = join(folder, 'granary.glb');
    expect((await yard('export', granary, '--format', 'glb', '--out', out)).code).toBe(0);
    const validator = createRequire(import.meta.url)('gltf-validator') as {
      validateBytes(bytes: Uint8Array): Promise<{ issues: { numErrors: number; numWarnings: number } }>;
    };
    const { issues } = await validator.validateBytes(new Uint8Array(readFileSync(out)));
    expect(issues).toMatchObject({ numErrors: 0, numWarnings: 0 });
  });

  it('writes OBJ with its MTL beside it, and a picture', async () => {
    expect((await yard('export', granary, '--format', 'obj', '--out', join(folder, 'g.obj'))).code).toBe(0);
    expect(readFileSync(join(folder, 'g.obj'), 'utf8')).toContain('mtllib g.mtl');
    expect(readFileSync(join(folder, 'g.mtl'), 'utf8')).toContain('newmtl Old_brick');
    expect((await yard('picture', granary, '--out', join(folder, 'g.png'))).code).toBe(0);
    expect(readFileSync(join(folder, 'g.png')).subarray(1, 4).toString()).toBe('PNG');
  });
});

describe('yard export of what cannot be made', () => {
  const faulty = JSON.parse(
    readFileSync(new URL('../../core/test/cases/faults/empty-glb-invalid.json', import.meta.url), 'utf8'),
  ) as ProjectDocument;
  const kept = (name: string, document: ProjectDocument): string => {
    const path = join(folder, name);
    writeFileSync(path, JSON.stringify(document));
    return path;
  };

  it.each(['glb', 'glb-instanced', 'obj'])(
    'leaves it out of the %s, says so, and tells by its exit code',
    async (format) => {
      const document = JSON.parse(readFileSync(granary, 'utf8')) as ProjectDocument;
      const path = kept('partly.json', {
        ...document,
        elements: { ...document.elements, ...faulty.elements },
        materials: { ...document.materials, ...faulty.materials },
      });
      const out = join(folder, `partly.${format}`);
      const { code, err } = await yard('export', path, '--format', format, '--out', out);
      expect([code, err]).toEqual([3, expect.stringMatching(/^Left out: “Bay” .+\./)]);
      expect(readFileSync(out).length).toBeGreaterThan(10_000);
    },
  );

  it.each(['glb', 'glb-instanced', 'obj'])('writes no %s where nothing is left', async (format) => {
    const out = join(folder, `nothing.${format}`);
    for (const [document, why] of [
      [faulty, 'None of its elements can be made: “Bay”'],
      [emptyDocument('Nothing'), 'It holds no element'],
    ] as const) {
      const { code, err } = await yard('export', kept('nothing.json', document), '--format', format, '--out', out);
      expect([code, err]).toEqual([1, expect.stringContaining(`There is nothing to write. ${why}`)]);
      expect(existsSync(out)).toBe(false);
    }
  });
});

describe('yard demo', () => {
  it('writes the granary as it is kept', async () => {
    expect((await yard('demo', 'granary')).out).toBe(readFileSync(granary, 'utf8'));
  });

  it.each(['profiles', 'facade-160'])('writes %s, and it is sound', async (name) => {
    const path = join(folder, `${name}.json`);
    expect((await yard('demo', name, '--out', path)).code).toBe(0);
    expect((await yard('check', path)).code).toBe(0);
  });
});

describe('misuse', () => {
  it.each([
    [[], 2],
    [['fly'], 2],
    [['check'], 2],
    [['check', 'no-such-file.json'], 2],
    [['demo', 'toString'], 2],
    [['export', granary, '--format', 'exe', '--out', 'x'], 2],
    [['export', granary, '--format', 'glb'], 2],
    [['check', granary, '--nonsense'], 2],
  ])('%j is answered with what to do', async (args, code) => {
    const { code: ended, out, err } = await yard(...args);
    expect(ended).toBe(code);
    expect(out + err).toContain('Usage:');
  });
});

describe('yard thicken', () => {
  const path = join(folder, 'hoarding.obj');
  const out = join(folder, 'hoarding.json');

  it('gives the single sheets of a file a thickness, so that they can be cut', async () => {
    writeFileSync(path, 'v 0 0 0\nv 4000 0 0\nv 4000 2500 0\nv 0 2500 0\nf 1 2 3 4\n');
    expect(await yard('thicken', path, '--thickness', '0.05', '--unit', '0.001', '--out', out)).toMatchObject({
      code: 0,
      out: '1 sheet\n',
    });
    const report = JSON.parse((await yard('check', out)).out) as {
      sound: boolean;
      elements: { name: string; volume: number }[];
    };
    expect(report).toMatchObject({
      sound: true,
      elements: [{ name: 'hoarding', volume: expect.closeTo(4 * 2.5 * 0.05, 9) }],
    });
  });

  it('says what is missing or wrong', async () => {
    expect(await yard('thicken', path, '--out', out)).toMatchObject({
      code: 2,
      err: expect.stringContaining('--thickness'),
    });
    writeFileSync(path, 'v 0 0 0\n');
    expect(await yard('thicken', path, '--thickness', '0.1', '--out', out)).toMatchObject({
      code: 1,
      err: expect.stringContaining('holds no faces'),
    });
  });
});
