/** A pattern's detail sheet without a page: chains add up to what they measure, figures change what they stand for, and dragged divisions are kept. */
import { describe, expect, it } from '@jest/globals';
import { studyOf, type Study } from '@yard-arch/core';
import { applyChangeSet, emptyDocument, type Pattern, type ProjectDocument } from '@yard-arch/document';
import { shipped, shippedMaterials } from '@yard-arch/edit';
import {
  chainOf,
  depthChain,
  divisionAt,
  laidAt,
  layoutOf,
  movedDivision,
  sizeEdit,
  sillOnSlope,
  slopePlanDepth,
  slopeReach,
  type Told,
} from '../src/book/detail.ts';

const told = (id: string): Told & { study: Study } => {
  const pattern = shipped.find((one) => one.id === id)!;
  const size = Object.values(pattern.sizes)[0]!;
  const document: ProjectDocument = {
    ...emptyDocument('Detail'),
    materials: shippedMaterials,
    patterns: { [id]: pattern },
  };
  const study = studyOf(
    { document, pattern, size, layers: [{ thickness: 0.35, material: 'brick' }] },
    { open: 0, slid: 0 },
  );
  if (!('cut' in study)) throw new Error(study.reason);
  return { document, pattern, size, study };
};

describe('a detail sheet', () => {
  it('has every drawing on it, whatever the pattern', () => {
    for (const { id } of shipped) {
      const { study } = told(id);
      const [width, height] = [740, 590];
      const { scale, elevation, section, plan } = layoutOf(study, width, height);
      const { profile } = study.placed;
      expect([id, elevation.x - (profile.width / 2) * scale > 0]).toEqual([id, true]);
      expect([id, elevation.y - profile.height * scale > 0]).toEqual([id, true]);
      expect([id, section.x + 0.35 * scale < width]).toEqual([id, true]);
      expect([id, plan.y < height]).toEqual([id, true]);
    }
  });

  it('shows what stands on a slope as it lies, all of it on the sheet', () => {
    const sloping = shipped.filter(({ parts }) => parts?.some(({ kind }) => kind === 'dormer' || kind === 'chimney'));
    expect(sloping.length).toBeGreaterThan(2);
    const [width, height] = [740, 590];
    for (const { id, parts } of sloping) {
      const { study } = told(id);
      const reach = slopeReach(study)!;
      const { scale, elevation, section, plan } = layoutOf(study, width, height);
      // The section is to the right of the elevation, and on the sheet with all that it reaches.
      const beside = elevation.x + (study.placed.profile.width / 2) * scale;
      expect([id, section.x - reach.out * scale > beside]).toEqual([id, true]);
      expect([id, section.x + reach.in * scale < width]).toEqual([id, true]);
      expect([id, section.y - reach.up * scale > 0]).toEqual([id, true]);
      expect([id, plan.y - slopePlanDepth(study) * scale > elevation.y]).toEqual([id, true]);
      expect([id, plan.y < height]).toEqual([id, true]);
      // A stack is as high over its sill as it is over the slope, and stands plumb.
      const stack = parts!.find(({ kind }) => kind === 'chimney');
      if (stack && 'height' in stack) expect(reach.up).toBeGreaterThan(stack.height as number);
      expect(sillOnSlope(study)![2]).toBeGreaterThan(0);
    }
    // What stands in a wall has no slope.
    expect(slopeReach(told('casements').study)).toBeNull();
    // A web to a barrel is no fault of a pattern by itself.
    for (const { id } of shipped.filter((one) => one.parts?.some(({ kind }) => kind === 'lunette')))
      expect([id, told(id).study.reason]).toEqual([id, null]);
  });

  it('measures members and lights that add up to the opening, but for its gaps', () => {
    const { study, ...rest } = told('casements');
    const chain = chainOf(study.laid, 0, 0.5, rest);
    const { width } = study.placed.profile;
    const sum = chain.reduce((all, { from, to }) => all + to - from, 0);
    expect(sum).toBeGreaterThan(width - 0.03);
    expect(sum).toBeLessThan(width);
    chain.slice(1).forEach(({ from }, i) => expect(from).toBeGreaterThanOrEqual(chain[i]!.to - 1e-9));
    // Frame, leaf, pane, bar, pane, leaf, leaf … : the frame's width is typed where it stands.
    expect(chain[0]!.edit?.what).toBe('frame');
    expect(chain[0]!.to - chain[0]!.from).toBeCloseTo(0.06, 6);
    const outcome = chain[0]!.edit!.choices()[0]!.apply(0.075);
    if ('reason' in outcome) throw new Error(outcome.reason);
    const next = applyChangeSet(rest.document, outcome).document;
    expect(next.patterns.casements!.infill!.frame.width).toBe(0.075);
  });

  it('does not measure the small panes of a lattice', () => {
    const { study, ...rest } = told('leaded');
    expect(chainOf(study.laid, 0, 0.5, rest).length).toBeLessThan(7);
  });

  it('has dimensions of the size, of whatever name, and depths from the face', () => {
    const { study, ...rest } = told('fanlight');
    const edit = sizeEdit(rest, ['width', 'span', 'diameter'], 'Width')!;
    const outcome = edit.choices()[0]!.apply(1.5);
    if ('reason' in outcome) throw new Error(outcome.reason);
    expect(applyChangeSet(rest.document, outcome).document.patterns.fanlight!.sizes.s1!.dimensions.span).toBe(1.5);
    expect(sizeEdit(rest, ['chamfer'], 'Chamfer')).toBeNull();
    const depths = depthChain(study, rest);
    expect(depths.map(({ from, to }) => Math.round((to - from) * 1000))).toEqual([110, 70, 170]);
  });

  it('finds the innermost field, and moves a division that is held', () => {
    const { study, pattern } = told('shop');
    const infill = pattern.infill!;
    expect(laidAt(study.laid, [0.3, 0.3], true)!.kind).toBe('panel');
    expect(laidAt(study.laid, [5, 5])).toBeNull();
    // The lower transom stands 550 mm above the frame's foot.
    const bar = study.laid.find(({ path, what }) => path === 'field/bar' && what === 'member')!;
    const middle = bar.loops[0]!.reduce((sum, [, y]) => sum + y / bar.loops[0]!.length, 0);
    const division = divisionAt(study.laid, infill, [0.2, middle])!;
    expect(division).toMatchObject({ path: 'field', way: 'transoms', index: 0 });
    expect(division.places[0]).toBeCloseTo(0.55, 6);
    const next: Pattern = movedDivision(pattern, division, 0.7);
    expect(next.infill!.field).toMatchObject({
      // The other one stays kept from the head.
      lights: {
        kind: 'at',
        places: [
          { from: 'start', value: 0.7 },
          { from: 'end', value: 0.5 },
        ],
      },
    });
    expect(divisionAt(study.laid, infill, [0.3, 0.3])).toBeNull();
  });
});

describe('a detail’s layout', () => {
  it('holds all that stands beside and over an opening, so that no dimension is drawn on it', () => {
    for (const { id } of shipped.filter(({ parts }) =>
      parts?.some(({ kind }) => kind === 'shutters' || kind === 'dormer'),
    )) {
      const { study } = told(id);
      const layout = layoutOf(study, 900, 700);
      const { placed, cut } = study;
      const middle = placed.s + placed.profile.width / 2;
      const wide = cut.parts.flatMap(({ part, placement }) => {
        const { points } = part.mesh;
        return Array.from({ length: points.length / 3 }, (_, i) =>
          Math.abs(
            placement.origin[0] +
              placement.x[0] * points[3 * i]! +
              placement.y[0] * points[3 * i + 1]! +
              placement.z[0] * points[3 * i + 2]! -
              middle,
          ),
        );
      });
      const beside = Math.max(0, ...wide) - placed.profile.width / 2 - layout.beside;
      expect([id, beside <= 0.03 + 1e-9]).toEqual([id, true]);
    }
  });
});
