/** Sections, niches, bosses, layers and curves by example: figures that can be worked out by hand. */
import { describe, expect, it } from '@jest/globals';
import type { Element, Opening, Pattern, ProjectDocument, Wall } from '@yard-arch/document';
import { cornerAt, cutModel, elementsAlong, prove, resolveOpening, sectionLine, type Placed } from '../src/index.ts';
import { opening, patterns, project, wall } from './sample.ts';

const plain = (metres: number): string => `${metres * 1000} mm`;

function cut(elements: readonly Wall[], openings: readonly Opening[], made: Record<string, Partial<Pattern>> = {}) {
  const own: Record<string, Pattern> = { ...patterns };
  for (const [id, over] of Object.entries(made)) own[id] = { ...patterns.window!, id, ...over };
  const document: ProjectDocument = { ...project(elements, openings), patterns: own };
  const model = cutModel(document);
  const proofs = new Map([...model.cuts].map(([id, one]) => [id, prove(one.mesh)]));
  for (const proof of proofs.values()) expect(proof).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
  return { document, model, proofs, proof: proofs.get('w1')!, state: (id: string) => model.statuses.get(id)! };
}

const whole = 6 * 4 * 0.4;

describe('a section', () => {
  it('is refused where it does not fit, with what would', () => {
    expect(sectionLine({ checks: [{ depth: 0.5, step: 0.05 }] }, 0.4, 'through', plain)).toMatchObject({
      mend: 'Put the check at less than 400 mm.',
    });
    expect(sectionLine({ seat: 0.5, splayInside: 10 }, 0.4, 'through', plain)).toMatchObject({
      reason: expect.stringContaining('seat at 500 mm'),
    });
    expect(
      sectionLine(
        { arris: { kind: 'rounded', size: 0.3 }, innerArris: { kind: 'chamfered', size: 0.2 } },
        0.4,
        'through',
        plain,
      ),
    ).toMatchObject({
      reason: expect.stringContaining('more than the reveal'),
    });
    expect(
      sectionLine(
        { arris: { kind: 'chamfered', size: 0.1 }, checks: [{ depth: 0.05, step: 0.02 }] },
        0.4,
        'through',
        plain,
      ),
    ).toHaveProperty('reason');
  });

  it('is refused where jambs step past one another and leave no way through', () => {
    // The web of the section is 61 mm wide; behind 150 mm it goes on beside where it was before.
    const sections: Pattern['sections'] = {
      'jamb-left': {
        checks: [
          { depth: 0.09, step: -0.04 },
          { depth: 0.15, step: 0.06 },
        ],
      },
      'jamb-right': { checks: [{ depth: 0.15, step: -0.04 }] },
    };
    const sizes = {
      a: { id: 'a', name: '', dimensions: { width: 0.505, height: 0.606, web: 0.0606, flange: 0.0606 } },
    };
    for (const mesh of ['lean', 'quads'] as const) {
      const { state } = cut([wall({ mesh })], [{ ...opening('a', 'p', 0.89, 0.7), size: 'a' }], {
        p: { profile: { shape: 't-section' }, sizes, sections },
      });
      expect(state('a')).toMatchObject({
        state: 'not cut',
        reason: 'its sill would cross another of its sides at a depth of 150 mm',
        mend: expect.stringMatching(/\w/),
      });
    }
  });

  it('splays, checks and slopes by its figures', () => {
    expect(sectionLine({ seat: 0.1, splayInside: 45 }, 0.4, 'through', plain)).toMatchObject({
      n: [0, 0.1, 0.4],
      offset: [0, 0, expect.closeTo(0.3, 9)],
    });
    expect(sectionLine({ checks: [{ depth: 0.1, step: 0.05 }] }, 0.4, 'through', plain)).toMatchObject({
      n: [0, 0.1, 0.1, 0.4],
      offset: [0, 0, 0.05, 0.05],
    });
    expect(sectionLine({ arris: { kind: 'chamfered', size: 0.02 } }, 0.4, 'through', plain)).toMatchObject({
      n: [0, 0.02, 0.4],
      offset: [0.02, 0, 0],
    });
  });

  it('takes a check where an arris ends', () => {
    const step = 0.05;
    expect(
      sectionLine({ arris: { kind: 'chamfered', size: 0.02 }, checks: [{ depth: 0.02, step }] }, 0.4, 'through', plain),
    ).toMatchObject({ n: [0, 0.02, 0.02, 0.4], offset: [0.02, 0, step, step] });
    expect(
      sectionLine(
        { innerArris: { kind: 'chamfered', size: 0.02 }, checks: [{ depth: 0.38, step }] },
        0.4,
        'through',
        plain,
      ),
    ).toMatchObject({
      n: [0, 0.38, 0.38, 0.4],
      offset: [0, 0, step, expect.closeTo(step + 0.02, 12)],
    });
  });
});

describe('a reveal', () => {
  it('with checked jambs takes the wider outline behind the check', () => {
    const check = { checks: [{ depth: 0.1, step: 0.05 }] };
    const { proof } = cut([wall()], [opening('a', 'p', 1, 1)], {
      p: { sections: { 'jamb-left': check, 'jamb-right': check } },
    });
    expect(proof.volume).toBeCloseTo(whole - 1.2 * 1.5 * 0.1 - 1.3 * 1.5 * 0.3, 9);
    expect(proof.areaByRole['jamb-left']).toBeCloseTo(1.5 * (0.4 + 0.05), 9);
  });

  it('with a fall on the sill is deeper outside', () => {
    const { proof } = cut([wall()], [opening('a', 'p', 1, 1)], { p: { sections: { sill: { splayOutside: 45 } } } });
    expect(proof.volume).toBeCloseTo(whole - 1.2 * (1.5 + 0.2) * 0.4, 9);
    expect(proof.areaByRole.sill).toBeCloseTo(1.2 * 0.4 * Math.SQRT2, 9);
  });

  it('takes the materials of layers by band, of the pattern by side', () => {
    const layers = [
      { thickness: 0.1, material: 'brick' },
      { thickness: 0.3, material: 'stone' },
    ];
    const { model } = cut([wall({ layers })], [opening('a', 'p', 1, 1)], {
      p: { reveal: { material: null, sides: { sill: 'stone' } } },
    });
    const runs = model.cuts.get('w1')!.mesh.runs.filter((run) => run.opening === 'a');
    expect(runs.find((run) => run.role === 'head' && run.layer === 0)!.material).toBe('brick');
    expect(runs.find((run) => run.role === 'head' && run.layer === 1)!.material).toBe('stone');
    expect(runs.find((run) => run.role === 'sill' && run.layer === 0)!.material).toBe('stone');
  });

  it('is refused, and the wall left whole, where a section would eat the outline up', () => {
    const { proof, state } = cut([wall()], [opening('a', 'p', 1, 1)], {
      p: { sections: { 'jamb-left': { splayInside: -80 } } },
    });
    expect(state('a')).toMatchObject({
      state: 'not cut',
      reason: expect.stringContaining('eaten up'),
      mend: expect.any(String),
    });
    expect(proof.volume).toBeCloseTo(whole, 9);
  });
});

describe('niches, bosses, imprints and what is kept', () => {
  it('stop at a depth, or behind a layer whose next one is seen', () => {
    const layers = [
      { thickness: 0.1, material: 'brick' },
      { thickness: 0.3, material: 'stone' },
    ];
    const { proof, model, state } = cut([wall({ layers })], [opening('a', 'p', 1, 1), opening('b', 'q', 3, 1)], {
      p: { cut: { kind: 'niche', depth: 0.25 } },
      q: { cut: { kind: 'niche to layer', layers: 1 } },
    });
    expect(proof.volume).toBeCloseTo(whole - 1.8 * 0.25 - 1.8 * 0.1, 9);
    expect(state('a').state).toBe('niche');
    const back = model.cuts.get('w1')!.mesh.runs.find((run) => run.role === 'back' && run.opening === 'b')!;
    expect(back).toMatchObject({ layer: 1, material: 'stone' });
  });

  it('deeper than the wall is refused with what would do', () => {
    const { state } = cut([wall()], [opening('a', 'p', 1, 1), opening('b', 'q', 3, 1)], {
      p: { cut: { kind: 'niche', depth: 0.4 } },
      q: { cut: { kind: 'niche to layer', layers: 1 } },
    });
    expect(state('a')).toMatchObject({ state: 'not cut', mend: expect.stringContaining('less than 400 mm') });
    expect(state('b')).toMatchObject({ state: 'not cut', reason: expect.stringContaining('1 in all') });
  });

  it('are raised, divide the face, or leave only their inside', () => {
    expect(
      cut([wall()], [opening('a', 'p', 1, 1)], { p: { cut: { kind: 'boss', height: 0.05 } } }).proof.volume,
    ).toBeCloseTo(whole + 1.8 * 0.05, 9);
    const imprint = cut([wall()], [opening('a', 'p', 1, 1)], { p: { cut: { kind: 'imprint', material: 'stone' } } });
    expect(imprint.proof.volume).toBeCloseTo(whole, 9);
    expect(imprint.proof.areaByRole.imprint).toBeCloseTo(1.8, 9);
    expect(imprint.proof.areaByRole['outer face']).toBeCloseTo(24 - 1.8, 9);
    expect(cut([wall()], [opening('a', 'p', 1, 1)], { p: { cut: { kind: 'keep inside' } } }).proof.volume).toBeCloseTo(
      1.8 * 0.4,
      9,
    );
  });

  it('have no collapsed face where a jamb steps past its head in the depth in which two layers meet', () => {
    const layers = [
      { thickness: 0.13, material: 'stone' },
      { thickness: 0.3, material: 'brick' },
    ];
    const { state } = cut([wall({ layers })], [opening('a', 'arch', 2, 1)], {
      arch: {
        profile: { shape: 'semicircular-arch' },
        sizes: { a: { id: 'a', name: '', dimensions: { span: 0.8, height: 1.3 } } },
        sections: {
          'jamb-right': {
            checks: [
              { depth: 0.09, step: -0.04 },
              { depth: 0.13, step: 0.06 },
            ],
          },
        },
      },
    });
    expect(state('a').state).toBe('cut');
  });

  it('stay closed where one that touches the base in a point crosses the plane where another ends', () => {
    const circle: Partial<Pattern> = {
      profile: { shape: 'circle' },
      sizes: { a: { id: 'a', name: '', dimensions: { diameter: 0.8 } } },
      cut: { kind: 'niche', depth: 0.16 },
    };
    for (const mesh of ['lean', 'quads'] as const)
      for (const depth of [0.11, 0.16, 0.2]) {
        const { proof } = cut([wall({ mesh })], [opening('a', 'q', 1, 0), opening('b', 'p', 3.5, 0)], {
          p: circle,
          q: { cut: { kind: 'niche', depth } },
        });
        const { proof: alone } = cut([wall({ mesh })], [opening('b', 'p', 3.5, 0)], { p: circle });
        expect(proof.volume).toBeCloseTo(alone.volume - 1.8 * depth, 9);
      }
  });

  it('cross at different depths', () => {
    const { proof } = cut([wall()], [opening('a', 'p', 1, 1), opening('b', 'q', 1.6, 1.5)], {
      p: { cut: { kind: 'niche', depth: 0.1 } },
      q: { cut: { kind: 'niche', depth: 0.3 } },
    });
    // They share 0.6 × 1.0 m, which is as deep as the deeper one.
    expect(proof.volume).toBeCloseTo(whole - 1.8 * 0.1 - 1.8 * 0.3 + 0.6 * 0.1, 9);
  });
});

describe('layers as solids', () => {
  it('leave cavities empty, each layer closed', () => {
    const layers = [
      { thickness: 0.1, material: 'brick' },
      { thickness: 0.05, material: 'stone', cavity: true },
      { thickness: 0.25, material: 'stone' },
    ];
    const { proof, model } = cut([wall({ layers, skins: 'layers' })], [opening('a', 'window', 1, 1)]);
    expect(proof.volume).toBeCloseTo((24 - 1.8) * 0.35, 9);
    expect(
      model.cuts
        .get('w1')!
        .mesh.runs.filter((run) => run.role === 'outer face')
        .map((run) => run.layer),
    ).toEqual([0, 2]);
  });
});

describe('walls', () => {
  it('that meet in mitres enclose the ring between their two outlines', () => {
    const ends = { start: 'mitred', end: 'mitred' } as const;
    const ring = [0, 90, 180, 270].map((turn, i) =>
      wall({ id: `w${i + 1}`, turn, start: { x: i === 1 || i === 2 ? 6 : 0, y: i >= 2 ? 6 : 0, z: 0 }, ends }),
    );
    const { proofs } = cut(ring, []);
    const sum = [...proofs.values()].reduce((total, proof) => total + proof.volume, 0);
    expect(sum).toBeCloseTo((36 - 5.2 * 5.2) * 4, 9);
  });

  it('butt against the face that they come to first', () => {
    const { proofs, model } = cut(
      [
        wall(),
        wall({
          id: 'w2',
          start: { x: 3, y: 0.2, z: 0 },
          turn: 90,
          length: 3,
          ends: { start: 'butted', end: 'square' },
        }),
      ],
      [],
    );
    expect(proofs.get('w2')!.volume).toBeCloseTo((3 - 0.2) * 4 * 0.4, 9);
    expect(model.cuts.get('w2')!.sheet.joins.map(({ reason }) => reason)).toEqual(['start butted with Courtyard wall']);
  });

  it('that curve hold the ring between their faces, within the chord’s millimetre', () => {
    const { proof } = cut([wall({ sweep: 90 })], [opening('a', 'window', 2, 1)]);
    const radius = 6 / (Math.PI / 2);
    const ring = (Math.PI / 4) * (radius ** 2 - (radius - 0.4) ** 2) * 4;
    expect(Math.abs(proof.volume - (ring - 1.2 * 1.5 * 0.4))).toBeLessThan(0.02 * ring);
  });

  it('as thick as they are round are refused, with all that is on them', () => {
    const { model, state } = cut([wall({ length: 0.5, sweep: 120 })], [opening('a', 'window', 0, 1)]);
    expect(model.cuts.get('w1')!.fault).toMatchObject({
      reason: expect.stringContaining('round'),
      mend: expect.any(String),
    });
    expect(state('a')).toMatchObject({ state: 'not cut', mend: expect.any(String) });
  });

  it('that lean keep base and top level', () => {
    const { model, proof } = cut([wall({ batter: 10 })], []);
    const { mesh } = model.cuts.get('w1')!;
    const levels = new Set(Array.from(mesh.vertices, (_, c) => Math.abs(cornerAt(mesh, c)[2]).toFixed(9)));
    expect(levels.size).toBe(2);
    expect(proof.volume).toBeCloseTo(whole, 9);
  });
});

describe('an opening', () => {
  it('cuts further elements only where it is asked to, and they are listed', () => {
    const lining = wall({
      id: 'w2',
      name: 'Lining',
      start: { x: 0, y: 0.6, z: 0 },
      layers: [{ thickness: 0.1, material: 'stone' }],
    });
    const alone = cut([wall(), lining], [opening('a', 'window', 1, 1)]);
    expect(alone.proofs.get('w2')!.volume).toBeCloseTo(2.4, 9);
    const placed = resolveOpening(alone.document, alone.document.openings.a!) as Placed;
    expect(elementsAlong(alone.document, alone.document.openings.a!, placed)).toEqual([
      { element: 'w2', distance: expect.closeTo(0.6, 9) },
    ]);
    const both = cut([wall(), lining], [opening('a', 'window', 1, 1, { further: ['w2'] })]);
    expect(both.proofs.get('w2')!.volume).toBeCloseTo(2.4 - 1.8 * 0.1, 9);
    expect(both.state('a').further).toMatchObject([
      { element: 'w2', state: 'cut', findings: [], reason: null, mend: null },
    ]);
  });

  it('aimed on skew takes as much as its shadow is wide', () => {
    const { proof } = cut([wall()], [opening('a', 'window', 2, 1, { aim: { turn: 60 } })]);
    expect(proof.volume).toBeCloseTo(whole - (1.2 / Math.cos(Math.PI / 6)) * 1.5 * 0.4, 9);
  });

  it('as a boss may be a block of its own through some layers, or all', () => {
    const layers = [
      { thickness: 0.1, material: 'brick' },
      { thickness: 0.1, material: 'stone' },
      { thickness: 0.2, material: 'brick' },
    ];
    for (const [through, reach] of [
      [1, 0.1],
      [2, 0.2],
      ['all', 0.4],
    ] as const)
      for (const sweep of [undefined, 60]) {
        const made = (skins: 'one' | 'layers') =>
          cut([wall({ layers, skins, ...(sweep ? { sweep } : {}) })], [opening('a', 'p', 1, 1)], {
            p: {
              cut: { kind: 'boss', height: 0.05, layers: through },
              reveal: { material: 'stone' },
              ...(sweep ? { jambs: 'radial' as const } : {}),
            },
          });
        const [one, apart] = [made('one'), made('layers')];
        expect(one.state('a').state).toBe('boss');
        if (!sweep) expect(one.proof.volume).toBeCloseTo(whole + 1.8 * 0.05, 9);
        expect(apart.proof.volume).toBeCloseTo(one.proof.volume, sweep ? 4 : 9);
        // The block's sides are as long as it reaches; where it goes right through, its end shows on the inner face.
        if (!sweep) expect(apart.proof.areaByRole.sill).toBeCloseTo(1.2 * (0.05 + 2 * reach), 9);
        const end = one.model.cuts
          .get('w1')!
          .mesh.runs.some(({ role, material }) => role === 'imprint' && material === 'stone');
        expect(end).toBe(through === 'all');
      }
  });

  it('that a block through layers meets is refused the block', () => {
    const { state } = cut([wall()], [opening('a', 'p', 1, 1), opening('b', 'window', 1.5, 1.5)], {
      p: { cut: { kind: 'boss', height: 0.05, layers: 'all' } },
    });
    expect(state('a')).toMatchObject({ state: 'not cut', mend: expect.stringContaining('clear') });
    expect(state('b').state).toBe('cut');
  });

  it('whose head and jambs step at one depth by different offsets has nothing without area where they join', () => {
    const sections = {
      head: {
        splayOutside: 5,
        checks: [{ depth: 0.09, step: 0.06 }],
        arris: { kind: 'rounded' as const, size: 0.03, segments: 5 },
        innerArris: { kind: 'rounded' as const, size: 0.01, segments: 5 },
      },
      'jamb-left': {
        splayOutside: 12,
        splayInside: -3,
        checks: [{ depth: 0.09, step: -0.04 }],
        innerArris: { kind: 'rounded' as const, size: 0.01, segments: 5 },
      },
      'jamb-right': {
        seat: 0.16,
        splayOutside: 5,
        checks: [{ depth: 0.09, step: 0.06 }],
        arris: { kind: 'chamfered' as const, size: 0.01 },
      },
    };
    // Nothing collapsed, as for every cut here.
    for (const at of [1, 1.3])
      cut(
        [
          wall({
            layers: [
              { thickness: 0.12, material: 'stone' },
              { thickness: 0.3, material: 'brick' },
            ],
          }),
        ],
        [{ ...opening('a', 'p', at, 0.65), size: 'a' }],
        { p: { profile: { shape: 'semicircular-arch' }, sizes: patterns.arch!.sizes, sections } },
      );
  });

  it('of a wall that butts with layers like the other’s lets them run on, and nothing overlaps', () => {
    // Host: brick outside, block, plaster inside. What butts against its inner face: plaster, block, plaster.
    const layer = (thickness: number, material: string) => ({ thickness, material });
    for (const turn of [90, 60, 120])
      for (const [host, height] of [
        [5, 4],
        [4, 4],
      ] as const) {
        const outer = wall({ layers: [layer(0.1, 'brick'), layer(0.2, 'stone'), layer(0.05, 'lime')], height: host });
        const partition = wall({
          id: 'w2',
          start: { x: 3, y: 0.3, z: 0 },
          turn,
          length: 3,
          height,
          layers: [layer(0.02, 'lime'), layer(0.1, 'stone'), layer(0.02, 'lime')],
          ends: { start: 'butted', end: 'square' },
        });
        const made = (materials: string[]) =>
          cut(
            [outer, { ...partition, layers: partition.layers.map((l, i) => ({ ...l, material: materials[i]! })) }],
            [opening('a', 'window', 0.5, 1)],
          );
        const [apart, joined] = [made(['oak', 'brick', 'oak']), made(['lime', 'stone', 'lime'])];
        const [before, after] = [apart, joined].map(({ proofs }) => [
          proofs.get('w1')!.volume,
          proofs.get('w2')!.volume,
        ]) as [number[], number[]];
        // The core goes through the plaster to the block: one wall gains there what the other loses.
        const strip = (0.1 / Math.sin((turn * Math.PI) / 180)) * 0.05 * height;
        expect(after[1]! - before[1]!).toBeCloseTo(strip, 9);
        expect(before[0]! - after[0]!).toBeCloseTo(strip, 9);
        expect(joined.model.cuts.get('w2')!.sheet.joins[0]!.reason).toContain('running on');
        expect([...joined.model.statuses.keys()]).toEqual(['a']);
      }
  });

  it('in a slab is set out as seen from above', () => {
    const slab: Element = {
      id: 'w1',
      kind: 'slab',
      name: 'Loft floor',
      start: { x: 0, y: 0, z: 3 },
      turn: 0,
      outline: [
        { x: 0, y: 0 },
        { x: 6, y: 0 },
        { x: 6, y: 4 },
        { x: 0, y: 4 },
      ],
      layers: [{ thickness: 0.3, material: 'brick' }],
    };
    const model = cutModel({ ...project([], [opening('a', 'window', 1, 1)]), elements: { w1: slab } });
    const { mesh } = model.cuts.get('w1')!;
    expect(prove(mesh)).toMatchObject({ closed: true, volume: expect.closeTo((24 - 1.8) * 0.3, 9) });
    expect(Math.max(...Array.from(mesh.vertices, (_, c) => cornerAt(mesh, c)[2]))).toBe(3);
  });

  it('meshed in quads leaves nearly everything four-sided', () => {
    const { proof } = cut([wall({ mesh: 'quads' })], [opening('a', 'window', 1, 1), opening('b', 'arch', 3, 0.5)]);
    const all = Object.values(proof.polygonsBySides).reduce((a, b) => a + b, 0);
    expect(proof.polygonsBySides[4]! / all).toBeGreaterThan(0.9);
    expect(proof.volume).toBeCloseTo(
      cut([wall()], [opening('a', 'window', 1, 1), opening('b', 'arch', 3, 0.5)]).proof.volume,
      9,
    );
  });

  it('with texture that is moved, turned and mirrored keeps its scale', () => {
    const { proof, model } = cut([wall()], [opening('a', 'p', 1, 1)], {
      p: { texture: { sill: { offset: { u: 0.3, v: 0.1 }, turn: 30, mirror: true }, head: { seam: 'crown' } } },
    });
    expect(proof.density[0]).toBeCloseTo(1, 4);
    const plainCut = cut([wall()], [opening('a', 'p', 1, 1)], { p: {} });
    expect(model.cuts.get('w1')!.mesh.uvs).not.toEqual(plainCut.model.cuts.get('w1')!.mesh.uvs);
  });
});
