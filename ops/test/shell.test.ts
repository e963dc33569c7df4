/** The shell as it is built: one file that plain Node.js runs. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { expect, it } from '@jest/globals';

const shell = process.env.YARD_SHELL!;
const running = (...args: string[]): string[] => [
  '--input-type=module',
  '-e',
  `import { run } from ${JSON.stringify(pathToFileURL(shell).href)};
   process.exitCode = await run(${JSON.stringify(args)}, (text) => void process.stdout.write(text), (text) => void process.stderr.write(text));`,
];

it('writes a demo document and checks it, the solid path and its file beside it included', () => {
  const folder = mkdtempSync(join(tmpdir(), 'yard-arch-shell-'));
  try {
    const file = join(folder, 'granary.json');
    execFileSync(process.execPath, running('demo', 'granary', '--out', file));
    const report = JSON.parse(execFileSync(process.execPath, running('check', file)).toString()) as {
      sound: boolean;
      elements: unknown[];
    };
    expect(report.sound).toBe(true);
    expect(report.elements).toHaveLength(19);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

it('says what it does not know, and how it is used', () => {
  const { status, stderr } = spawnSync(process.execPath, running('chisel'));
  expect(status).not.toBe(0);
  expect(stderr.toString()).toContain('Usage');
});
