/** Roofs drawn by their grips: what is drawn comes to where it is drawn, and nothing else goes anywhere. */
import { describe, expect, it } from '@jest/globals';
import { roofGripsOf, sheetsOf, type RoofGrip } from '@yard-arch/core';
import { everyRoof } from '@yard-arch/demo';
import { checkDocument, edgesOfRoof, withChanges, type ProjectDocument, type Roof } from '@yard-arch/document';
import { drawnBy, pitchOf, withPitch } from '../src/index.ts';

const document = everyRoof();
const roofs = Object.values(document.elements).filter((element): element is Roof => element.kind === 'roof');
const gripsIn = (of: ProjectDocument, id: string): RoofGrip[] => roofGripsOf(sheetsOf(of).body(id)!);
const fine = { degrees: 1e-7, metres: 1e-7 };
const same = (a: RoofGrip) => (b: RoofGrip) =>
  a.kind === b.kind &&
  a.targets.every(({ edge, upper }, i) => b.targets[i]?.edge === edge && b.targets[i].upper === upper);

describe('a roof', () => {
  it('has grips on its ridges, on each plane, and on all that reaches out', () => {
    const count = (name: string): Record<string, number> => {
      const grips = gripsIn(document, roofs.find((one) => one.name === name)!.id);
      return Object.fromEntries(
        (['ridge', 'pitch', 'overhang'] as const).map((kind) => [
          kind,
          grips.filter((one) => one.kind === kind).length,
        ]),
      );
    };
    expect(count('Hipped')).toEqual({ ridge: 1, pitch: 4, overhang: 4 });
    expect(count('Gabled')).toEqual({ ridge: 1, pitch: 2, overhang: 4 });
    expect(count('Mansard')).toEqual({ ridge: 1, pitch: 8, overhang: 4 });
    expect(count('Butterfly')).toEqual({ ridge: 1, pitch: 2, overhang: 4 });
    // Both arcs of a cone are one each, whatever their facets.
    expect(count('Cone')).toEqual({ ridge: 0, pitch: 2, overhang: 2 });
    expect(count('Lean-to')).toMatchObject({ ridge: 0, pitch: 1, overhang: 3 });
  });

  it.each(roofs.map((roof) => [roof.name, roof] as const))('comes to where it is drawn: %s', (_, roof) => {
    for (const grip of gripsIn(document, roof.id)) {
      // A steep upper plane is drawn less far, so that none is asked to stand upright.
      const by = grip.kind === 'overhang' ? 0.11 : 0.06 * grip.targets[0]!.far;
      const drawn = drawnBy(roof, grip, by, fine)!;
      const then = checkDocument(withChanges(document, drawn.changeSet.changes));
      const now = then.elements[roof.id] as Roof;
      const targets = new Set(grip.targets.map(({ edge }) => edge));
      for (const edge of edgesOfRoof(now)) if (!targets.has(edge.id)) expect(edgesOfRoof(roof)).toContainEqual(edge);
      const after = gripsIn(then, roof.id).find(same(grip));
      if (!after) continue;
      const moved = after.at.map((value, k) => value - grip.at[k]!);
      if (grip.kind === 'overhang') {
        const out = Math.hypot(grip.way[0], grip.way[1]);
        expect((moved[0]! * grip.way[0] + moved[1]! * grip.way[1]) / out).toBeCloseTo(by, 5);
      } else if (grip.kind === 'ridge') {
        // The slope's own thickness is seen plumb, so it is not to the millimetre.
        expect(Math.abs(moved[2]! - by)).toBeLessThan(0.25 * by + 0.02);
      } else {
        // Its plane, over the same place: its middle has gone elsewhere.
        const [{ edge, upper, far }] = grip.targets as [RoofGrip['targets'][number]];
        const rise = (of: Roof): number =>
          Math.tan(
            (pitchOf(
              edgesOfRoof(of).find(({ id }) => id === edge)!,
              upper,
            )! *
              Math.PI) /
              180,
          );
        expect((rise(now) - rise(roof)) * far).toBeCloseTo(by, 6);
      }
    }
  });

  it('is drawn no further than there can be, falls the way that it fell, and is rounded as asked', () => {
    const gabled = roofs.find((one) => one.name === 'Gabled')!;
    const grips = gripsIn(document, gabled.id);
    const [overhang, pitch] = [
      grips.find((one) => one.kind === 'overhang')!,
      grips.find((one) => one.kind === 'pitch')!,
    ];
    const coarse = { degrees: 0.5, metres: 0.01 };
    expect(drawnBy(gabled, overhang, -5, coarse)!.figure).toBe(0);
    expect(drawnBy(gabled, overhang, 0.1234, coarse)!.figure).toBeCloseTo(0.47, 9);
    expect(drawnBy(gabled, pitch, 500, coarse)!.figure).toBe(85);
    expect(drawnBy(gabled, pitch, -500, coarse)!.figure).toBe(0.5);
    expect(drawnBy(gabled, pitch, 0.1, coarse)!.figure % 0.5).toBeCloseTo(0, 9);
    const falls = roofs.find((one) => one.name === 'Butterfly')!.edges.find((edge) => edge.is === 'eaves')!;
    expect(withPitch(falls, false, 20)).toMatchObject({ pitch: -0.5 });
    expect(withPitch(falls, false, -30)).toMatchObject({ pitch: -30 });
  });
});
