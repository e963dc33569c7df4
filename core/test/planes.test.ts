/** A cut from above through some of the planes that it covers. */
import { beforeAll, expect, it } from '@jest/globals';
import { granary } from '@yard-arch/demo';
import type { ProjectDocument } from '@yard-arch/document';
import { cutModel, planesUnder, prove, resolveOpening, sheetsOf, type Placed } from '../src/index.ts';
import { solidLibrary } from '../src/cut/solid.ts';

beforeAll(async () => {
  await solidLibrary();
});

it('takes from the chosen planes what it would take from them among all, and leaves the others whole', () => {
  const whole = granary();
  const roof = Object.values(whole.elements).find(({ name }) => name === 'Main roof')!;
  const well = Object.values(whole.openings).find(({ element, face }) => element === roof.id && face === undefined)!;
  const document = (over: object | null): ProjectDocument => ({
    ...whole,
    elements: { [roof.id]: roof },
    openings: over ? { [well.id]: { ...well, ...over } } : {},
  });
  const volume = (over: object | null): number => {
    const cut = cutModel(document(over)).cuts.get(roof.id)!;
    const proof = prove(cut.mesh);
    expect(proof.closed).toBe(true);
    return proof.volume;
  };
  const all = document({});
  const sheets = sheetsOf(all);
  const under = planesUnder(resolveOpening(all, well) as Placed, sheets.body(roof.id)!, sheets.of(roof.id)!);
  expect(under).toHaveLength(2);
  const [uncut, both] = [volume(null), volume({})];
  const each = under.map((plane) => uncut - volume({ planes: [plane] }));
  for (const lost of each) expect(lost).toBeGreaterThan(0.3 * (uncut - both));
  // Where both meet their caps overlap a little: what lies over the ridge is of either.
  expect(each[0]! + each[1]!).toBeCloseTo(uncut - both, 1);
  const other = sheets.body(roof.id)!.planes.find(({ face }) => !under.includes(face));
  const nowhere = cutModel(document({ planes: [other?.face ?? 'gone'] }));
  expect(nowhere.statuses.get(well.id)).toMatchObject({ state: 'not cut', reason: /none of the planes/ });
});
