/** Drawing sides of openings and points of walls: what was not drawn stays where it is. */
import { describe, expect, it } from '@jest/globals';
import {
  boxOf,
  lengthOf,
  misfitsOn,
  resolveOpening,
  sideOf,
  snapSide,
  type Box,
  type BoxSide,
  type Placed,
} from '@yard-arch/core';
import { granaryWalls as granary } from '@yard-arch/demo';
import { applyChangeSet, extentOf, type ChangeSet, type ProjectDocument, type Wall } from '@yard-arch/document';
import fc from 'fast-check';
import {
  drawnSides,
  drawnTo,
  drawWallPoint,
  isAtLeft,
  onOuter,
  reshaping,
  wallHandles,
  withinOf,
} from '../src/index.ts';

const document = granary();
const box = (d: ProjectDocument, id: string): Box => boxOf(resolveOpening(d, d.openings[id]!) as Placed, '');
const after = (outcome: ChangeSet | { reason: string }): ProjectDocument => {
  if ('reason' in outcome) throw new Error(outcome.reason);
  return applyChangeSet(document, outcome).document;
};
const opposite: Record<BoxSide, BoxSide> = {
  left: 'right',
  right: 'left',
  sill: 'head',
  head: 'sill',
  springing: 'sill',
};

describe('a side of an opening', () => {
  it('comes to where it was drawn, the one opposite stays, whoever takes the dimension', () => {
    let drawn = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(document.openings)),
        fc.integer({ min: -30, max: 60 }),
        fc.nat({ max: 4 }),
        fc.nat({ max: 2 }),
        (id, centimetres, sideAt, way) => {
          const opening = document.openings[id]!;
          const pattern = document.patterns[opening.pattern]!;
          const before = box(document, id);
          const sides = drawnSides(pattern, before);
          const side = sides[sideAt % sides.length]!;
          const to = sideOf(before, side) + centimetres / 100;
          const { choices } = reshaping(document, opening, before, side)!;
          const choice = choices[way % choices.length]!;
          const value = drawnTo(pattern, before, side, to);
          // Nothing shrinks to less than a centimetre.
          if (value <= 0.01) return;
          const outcome = choice.apply(value);
          if ('reason' in outcome) return expect(outcome.mend).toBeTruthy();
          drawn += 1;
          const now = after(outcome);
          const made = box(now, id);
          const arch = side === 'springing' && !('rise' in (opening.own ?? pattern.sizes[opening.size]!.dimensions));
          expect(sideOf(made, side)).toBeCloseTo(to, 6);
          expect(sideOf(made, arch ? 'sill' : side === 'springing' ? 'head' : opposite[side])).toBeCloseTo(
            sideOf(before, arch ? 'sill' : side === 'springing' ? 'head' : opposite[side]),
            6,
          );
          // Others of its size go with it only where all of its size were meant.
          const mates = Object.values(document.openings).filter(
            (other) =>
              other.id !== id && other.pattern === opening.pattern && other.size === opening.size && !other.own,
          );
          const all = choice.label.startsWith('all') || choice.label === 'its size';
          for (const mate of mates.slice(0, 3)) {
            const [p, q] = [box(document, mate.id), box(now, mate.id)];
            const same =
              Math.abs(p.width - q.width) +
                Math.abs(p.height - q.height) +
                Math.abs((p.springing ?? 0) - (q.springing ?? 0)) <
              1e-9;
            expect(same).toBe(!all || centimetres === 0);
          }
          expect(Boolean(now.openings[id]!.own)).toBe(choice.label.endsWith('alone'));
        },
      ),
      { numRuns: 300, seed: 706505 },
    );
    expect(drawn).toBeGreaterThan(200);
  });

  it('is held to what it came into line with: axes, datums, other openings, their widths, the wall’s ends', () => {
    const self: Box = { id: 'a', mark: 'A', s: 2, t: 1, width: 1, height: 1.5, springing: 1 };
    const other: Box = { id: 'b', mark: 'B', s: 5, t: 0.9, width: 1.4, height: 2, springing: 1.2 };
    const lines = {
      length: 8,
      height: 4,
      datums: [{ id: 'd', name: 'Head line', t: 3.3 }],
      axes: [{ id: 'x', name: 'C', s: 2.8 }],
      course: 0.075,
    };
    const at = (side: BoxSide, near: number) => snapSide(self, { side, at: near }, [other], { lines, reach: 0.03 });
    expect(at('right', 3.42)).toMatchObject({ at: 3.4, reason: 'as wide as B' });
    expect(at('right', 3.59)).toMatchObject({ at: expect.closeTo(3.6, 9), reason: 'centred on axis C' });
    expect(at('right', 5.01)).toMatchObject({ at: 5, reason: 'right jamb against B' });
    expect(at('left', -0.01)).toMatchObject({ at: 0, reason: 'to the start of the wall' });
    expect(at('head', 3.28)).toMatchObject({ at: 3.3, reason: 'head on datum Head line' });
    expect(at('head', 2.91)).toMatchObject({ at: 2.9, reason: 'head level with B' });
    expect(at('springing', 2.11)).toMatchObject({ at: expect.closeTo(2.1, 9), reason: 'springing level with B' });
    expect(at('sill', 1.13)).toMatchObject({ at: expect.closeTo(1.125, 9), reason: 'sill on course 15' });
    expect(at('right', 4.4)).toBeNull();
  });
});

describe('a point of a wall', () => {
  const walls = Object.values(document.elements).filter((element): element is Wall => element.kind === 'wall');

  it.each(walls.map((wall) => [wall.name, wall] as const))('of %s is drawn to where the handle goes', (_, wall) => {
    const handles = wallHandles(wall);
    expect(handles.length).toBeGreaterThan(0);
    for (const { kind, s, t, along, up } of handles) {
      const now = after(drawWallPoint(wall, kind, along ? s + (kind === 'apex' ? 0.2 : 0.5) : s, up ? t + 0.4 : t));
      const made = now.elements[wall.id] as Wall;
      const { length } = extentOf(made);
      if (kind === 'end') expect(length).toBeCloseTo(extentOf(wall).length + 0.5, 9);
      if (kind === 'start') {
        expect(length).toBeCloseTo(extentOf(wall).length - 0.5, 9);
        // Its end stays where it is.
        const end = (one: Wall): number[] => {
          const turn = (one.turn * Math.PI) / 180;
          return [one.start.x + one.length * Math.cos(turn), one.start.y + one.length * Math.sin(turn)];
        };
        end(made).forEach((value, i) => expect(value).toBeCloseTo(end(wall)[i]!, 6));
      }
      if (up) {
        const again = wallHandles(made).find((handle) => handle.kind === kind)!;
        expect(again.t).toBeCloseTo(t + 0.4, 6);
      }
      expect(misfitsOn(now, made)).toBeDefined();
    }
  });

  it.each(walls.map((wall) => [wall.name, wall] as const))('of %s is drawn on its inner face too', (_, wall) => {
    // By itself: where it meets others its inner face ends where theirs do.
    const alone: ProjectDocument = { ...document, elements: { [wall.id]: wall }, openings: {}, axes: {} };
    const seen = lengthOf(alone, wall, 'inner');
    const handles = wallHandles(wall, withinOf(alone, wall, 'inner'));
    expect(handles.map(({ kind }) => kind)).toEqual(wallHandles(wall).map(({ kind }) => kind));
    expect(withinOf(alone, wall, 'outer')).toBeNull();
    for (const handle of handles) {
      const { kind, s, t, along, up } = handle;
      expect(isAtLeft(handle)).toBe(kind === 'end');
      // Seen from within, its end is at the left.
      if (kind === 'start' || kind === 'end') expect(s).toBeCloseTo(kind === 'end' ? 0 : seen, 6);
      const by = !along ? 0 : kind === 'end' ? -0.3 : 0.3;
      const made = drawWallPoint(wall, kind, onOuter(handle, s + by), up ? t + 0.4 : t);
      if ('reason' in made) throw new Error(made.reason);
      const now = applyChangeSet(alone, made).document;
      const changed = now.elements[wall.id] as Wall;
      if (!up) {
        // An arc is measured along its facets, which are others where its radius is another.
        expect(lengthOf(now, changed, 'inner')).toBeCloseTo(seen + 0.3, wall.sweep ? 2 : 6);
        continue;
      }
      const again = wallHandles(changed, withinOf(now, changed, 'inner')).find((one) => one.kind === kind)!;
      expect([again.s, again.t]).toEqual([expect.closeTo(s + by, 4), expect.closeTo(t + 0.4, 6)]);
    }
  });

  it('never shrinks to nothing, and says where there is no apex', () => {
    const wall = walls.find(({ top }) => top.kind === 'level')!;
    expect((after(drawWallPoint(wall, 'end', -3, 0)).elements[wall.id] as Wall).length).toBeCloseTo(0.1, 9);
    expect(drawWallPoint(wall, 'apex', 1, 1)).toMatchObject({ reason: 'it has no apex' });
  });
});
