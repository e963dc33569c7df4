/** Random documents of one element, with openings that do all that openings can do. */
import {
  firstChoice,
  firstDimensions,
  profileShapes,
  type Arris,
  type Element,
  type Layer,
  type Pattern,
  type ProfileShape,
  type ProjectDocument,
  type Section,
} from '@yard-arch/document';
import fc from 'fast-check';
import { opening, project, wall } from './sample.ts';

const near = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: Math.round(min * 100), max: Math.round(max * 100) }).map((n) => n / 100);
const maybe = <T>(arbitrary: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> => fc.option(arbitrary, { nil: undefined });

const arris: fc.Arbitrary<Arris> = fc.record({
  kind: fc.constantFrom('chamfered', 'rounded'),
  size: near(0.01, 0.04),
  segments: fc.constantFrom(1, 3, 5),
});
const section: fc.Arbitrary<Section> = fc
  .record({
    seat: maybe(near(0.08, 0.2)),
    splayOutside: maybe(fc.constantFrom(5, 12)),
    splayInside: maybe(fc.constantFrom(-3, 10, 25)),
    checks: maybe(
      fc.array(fc.record({ depth: near(0.06, 0.18), step: fc.constantFrom(-0.04, 0.05, 0.06) }), {
        minLength: 1,
        maxLength: 2,
      }),
    ),
    arris: maybe(arris),
    innerArris: maybe(arris),
  })
  .map((made) => {
    // Two checks at one depth are one; absent parts are left out, as in a document.
    const checks = made.checks?.filter((c, i, all) => all.findIndex((d) => d.depth === c.depth) === i);
    return Object.fromEntries(
      Object.entries({ ...made, checks }).filter(([, value]) => value !== undefined),
    ) as Section;
  });

const layers: fc.Arbitrary<Layer[]> = fc
  .array(fc.record({ thickness: near(0.05, 0.25), material: fc.constantFrom('brick', 'stone') }), {
    minLength: 1,
    maxLength: 3,
  })
  .map((list) =>
    list.reduce((sum, layer) => sum + layer.thickness, 0) < 0.3
      ? [...list, { thickness: 0.3, material: 'brick' }]
      : list,
  );

const shapes = Object.keys(profileShapes) as ProfileShape[];

interface Drawn {
  document: ProjectDocument;
}

/** A wall, panel or slab with up to five openings that do all that openings can do. */
export const anything: fc.Arbitrary<Drawn> = fc
  .record({
    kind: fc.constantFrom('straight', 'straight', 'curved', 'hollow', 'bent', 'leaning', 'gabled', 'panel', 'slab'),
    layers,
    turn: fc.constantFrom(0, 90, 37),
    skins: fc.constantFrom(undefined, undefined, 'layers' as const),
    mesh: fc.constantFrom(undefined, undefined, 'quads' as const),
    openings: fc.array(
      fc.record({
        shape: fc.oneof(
          { weight: 3, arbitrary: fc.constantFrom<ProfileShape>('rectangle', 'semicircular-arch', 'circle') },
          fc.constantFrom(...shapes),
        ),
        size: near(0.6, 1.1),
        s: near(0.1, 5),
        t: fc.oneof(fc.constant(0), near(0.1, 3)),
        cut: fc.constantFrom(
          'through',
          'through',
          'through',
          'niche',
          'niche to layer',
          'boss',
          'imprint',
          'keep inside',
        ),
        depth: near(0.05, 0.25),
        uniform: fc.boolean(),
        sections: fc.tuple(maybe(section), maybe(section), maybe(section), maybe(section)),
        jambs: fc.constantFrom(undefined, 'radial' as const),
        aimed: fc.constantFrom(false, false, false, true),
      }),
      { maxLength: 5 },
    ),
  })
  .map(({ kind, layers: build, turn, skins, mesh, openings }) => {
    const more = { layers: build, turn, ...(skins ? { skins } : {}), ...(mesh ? { mesh } : {}) };
    const outline = [
      { x: 0, y: 0 },
      { x: 6, y: 0 },
      { x: 6, y: 4, bulge: 0.3 },
      { x: 0, y: 4 },
    ];
    const base = { id: 'w1', name: 'Undercroft', start: { x: 3, y: -2, z: 0.5 } };
    const element: Element =
      kind === 'panel'
        ? {
            ...base,
            kind,
            tilt: 50,
            outline,
            holes: [
              [
                { x: 4.6, y: 3 },
                { x: 5.4, y: 3 },
                { x: 5, y: 3.6 },
              ],
            ],
            ...more,
          }
        : kind === 'slab'
          ? { ...base, kind, outline, ...more }
          : wall({
              ...base,
              ...more,
              ...(kind === 'curved' ? { sweep: 50 } : kind === 'hollow' ? { sweep: -35 } : {}),
              ...(kind === 'bent'
                ? {
                    length: 3,
                    runs: [
                      { turn: 40, length: 1.5 },
                      { turn: 0, length: 1.5, sweep: 30 },
                    ],
                  }
                : {}),
              ...(kind === 'leaning' ? { batter: 7 } : {}),
              ...(kind === 'gabled' ? { top: { kind: 'gabled', apex: 5.5, at: 0.4 } } : {}),
            });
    const patterns: Record<string, Pattern> = {};
    const placed = openings.map((o, i) => {
      const id = `p${i}`;
      const [sill, head, left, right] = o.uniform
        ? [o.sections[0], o.sections[0], o.sections[0], o.sections[0]]
        : o.sections;
      const sections = Object.fromEntries(
        Object.entries({ sill, head, 'jamb-left': left, 'jamb-right': right }).filter(
          ([, value]) => value !== undefined,
        ),
      );
      const first = firstDimensions(o.shape);
      patterns[id] = {
        id,
        name: id,
        profile: firstChoice(o.shape),
        sizes: {
          a: {
            id: 'a',
            name: '',
            dimensions: Object.fromEntries(Object.entries(first).map(([name, value]) => [name, value * o.size])),
          },
        },
        reveal: { material: i % 2 === 0 ? 'stone' : null },
        cut:
          o.cut === 'niche'
            ? { kind: 'niche', depth: o.depth }
            : o.cut === 'niche to layer'
              ? { kind: 'niche to layer', layers: 1 }
              : o.cut === 'boss'
                ? { kind: 'boss', height: o.depth }
                : o.cut === 'imprint'
                  ? { kind: 'imprint', material: 'stone' }
                  : o.cut === 'keep inside' && i === 0
                    ? { kind: 'keep inside' }
                    : { kind: 'through' },
        ...(Object.keys(sections).length > 0 && o.cut !== 'imprint' ? { sections } : {}),
        ...(o.jambs ? { jambs: o.jambs } : {}),
      };
      return opening(`o${i}`, id, o.s, o.t, o.aimed ? { aim: { turn: turn + 70 } } : {});
    });
    return { document: { ...project([], placed), elements: { w1: element }, patterns } };
  });
