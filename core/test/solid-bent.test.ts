/** Documents whose bent walls the solid path left with needles, fins or faces that strayed: each is cut clean. */
import { beforeAll, describe, expect, it } from '@jest/globals';
import { checkDocument } from '@yard-arch/document';
import { readdirSync, readFileSync } from 'node:fs';
import { solidLibrary } from '../src/cut/solid.ts';
import { cutModel, prove } from '../src/index.ts';

const folder = new URL('./cases/bent/', import.meta.url);

beforeAll(async () => {
  await solidLibrary();
});

describe('a bent wall that is cut by solids', () => {
  it.each(readdirSync(folder))('has neither needles nor fins, and its texture at true scale: %s', (name) => {
    const model = cutModel(checkDocument(JSON.parse(readFileSync(new URL(name, folder), 'utf8'))));
    const cut = model.cuts.get('w1')!;
    expect([cut.path, cut.sheet.chart.kind]).toEqual(['solid', 'bent']);
    const proof = prove(cut.mesh);
    expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, flaps: 0, collapsed: 0 });
    expect(proof.density[0]).toBeGreaterThan(0.99);
    expect(proof.density[1]).toBeLessThan(1.02);
  });
});
