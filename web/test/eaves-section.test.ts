/** An eaves in section: its grips stand where the figures that they draw are read from, and all of it is in the picture. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { slopeIn, type Section } from '../src/particulars/eaves-section.ts';

const size = { width: 250, height: 200 };
const degrees = (x: number, z: number): number => (Math.atan2(z, x) * 180) / Math.PI;
const shown = ([x, y]: readonly [number, number]): boolean => x >= 0 && x <= size.width && y >= 0 && y <= size.height;
const metresAt = ({ metres }: Section, [px, py]: readonly [number, number]): [number, number] => metres(px, py);

const eaves = fc.record({
  pitch: fc.integer({ min: 10, max: 75 }),
  over: fc.integer({ min: 0, max: 80 }).map((n) => n / 100),
});
const second = fc.record({
  from: fc.integer({ min: 5, max: 60 }).map((n) => n / 20),
  pitch: fc.integer({ min: 10, max: 75 }),
});
const roofs = fc.record({
  thickness: fc.integer({ min: 4, max: 40 }).map((n) => n / 100),
  ends: fc.constantFrom('plumb' as const, 'square' as const, 'level' as const),
});

describe('an eaves in section', () => {
  it('has the grip of its pitch on its slope, and that of its overhang where it ends', () => {
    fc.assert(
      fc.property(eaves, roofs, (edge, roof) => {
        const section = slopeIn(edge, { ...roof, before: edge, size });
        expect(section.broken).toBeNull();
        const [x, z] = metresAt(section, section.at.pitch);
        expect(degrees(x, z - section.above)).toBeCloseTo(edge.pitch, 6);
        expect(metresAt(section, section.at.over)[0]).toBeCloseTo(-edge.over, 9);
        // Measured square to the slope, as a build-up is.
        expect(section.above * Math.cos((edge.pitch * Math.PI) / 180)).toBeCloseTo(roof.thickness, 9);
        expect([section.at.pitch, section.at.over].every(shown)).toBe(true);
      }),
    );
  });

  it('that breaks has grips for where it breaks and for its second pitch, on the slope as thick as ever', () => {
    fc.assert(
      fc.property(eaves, second, roofs, (edge, upper, roof) => {
        fc.pre(Math.abs(upper.pitch - edge.pitch) > 4);
        const broken = { ...edge, second: upper };
        const section = slopeIn(broken, { ...roof, before: broken, size });
        // Where a thick roof breaks low, nothing of its first slope is on top.
        if (!section.broken) {
          const [ux, uz] = metresAt(section, section.at.pitch);
          return expect([section.above, degrees(ux, uz)]).toEqual([0, expect.closeTo(edge.pitch, 6)]);
        }
        const { at, top, lead } = section.broken;
        const [bx, bz] = metresAt(section, at.break);
        expect([bx, bz]).toEqual([expect.closeTo(top[0], 9), expect.closeTo(top[1], 9)]);
        expect(bz - lead).toBeCloseTo(upper.from, 9);
        const [x, z] = metresAt(section, at.second);
        expect(degrees(x - bx, z - bz)).toBeCloseTo(upper.pitch, 6);
        const [px, pz] = metresAt(section, section.at.pitch);
        expect(bx > 0.1 ? px > 0 : px <= bx).toBe(true);
        expect(degrees(bx - px, bz - pz)).toBeCloseTo(edge.pitch, 6);
        // From the underside's break to the line of the second top it is as thick as the roof.
        const under = [upper.from / Math.tan((edge.pitch * Math.PI) / 180), upper.from] as const;
        const [nx, nz] = [-Math.sin((upper.pitch * Math.PI) / 180), Math.cos((upper.pitch * Math.PI) / 180)];
        expect((bx - under[0]) * nx + (bz - under[1]) * nz).toBeCloseTo(roof.thickness, 9);
        expect([at.break, at.second, section.at.over].every(shown)).toBe(true);
      }),
    );
  });

  it('keeps its scale while it is drawn', () => {
    const before = { pitch: 35, over: 0.4 };
    const asked = { thickness: 0.2, ends: undefined, before, size };
    const [one, other] = [slopeIn(before, asked), slopeIn({ ...before, pitch: 52 }, asked)];
    expect(other.metres(100, 80)).toEqual(one.metres(100, 80));
  });
});
