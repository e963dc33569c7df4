/** Starting and stopping as a person does from a shell. */
import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { Application } from './application.ts';

const running = (folder: string): string => spawnSync('pgrep', ['-f', folder], { encoding: 'utf8' }).stdout.trim();

test('the demo is served, kept over a second start, and started over when asked', async ({ request }) => {
  const demo = await Application.make('demo');
  try {
    expect(await demo.start()).toBeNull();
    expect(demo.output).toContain(demo.url);
    const list = async () =>
      (await (await request.get(`${demo.url}/api/projects`)).json()) as { id: string; name: string }[];
    const [granary] = await list();
    expect(granary!.name).toBe('Fennel Quay Granary');
    await request.patch(`${demo.url}/api/projects/${granary!.id}`, { data: { name: 'Renamed' } });

    const second = await Application.make('demo');
    const beside = Object.assign(Object.create(Application.prototype) as Application, {
      ...second,
      folder: demo.folder,
    });
    expect(await beside.start()).toBe(1);
    expect(beside.output).toContain(`already running from this folder, at ${demo.url}`);
    await second.remove();
    expect((await list())[0]!.name).toBe('Renamed');

    expect(await demo.stop()).toBe(0);
    expect(running(demo.folder)).toBe('');

    expect(await demo.start()).toBeNull();
    expect((await list()).map((project) => project.name)).toEqual(['Renamed']);
    await demo.crash();
    expect(await demo.start('--reset')).toBeNull();
    expect((await list()).map((project) => project.name)).toEqual(['Fennel Quay Granary']);
  } finally {
    await demo.remove();
  }
  expect(running(demo.folder)).toBe('');
});
