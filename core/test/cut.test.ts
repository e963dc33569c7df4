/** The cut by examples: what it gives, and what it says became of each opening. */
import { describe, expect, it } from '@jest/globals';
import { cornerAt, cutModel, prove, type CutMesh, type ElementCut } from '../src/index.ts';
import { expectSameMesh, opening, patterns, project, wall } from './sample.ts';
import type { Opening, Wall } from '@yard-arch/document';

type Point = [number, number, number];

function cut(openings: Opening[], over: Partial<Wall> = {}, more = {}) {
  const model = cutModel(project([wall(over)], openings, more));
  const element = model.cuts.get('w1')!;
  return { model, element, proof: prove(element.mesh), status: (id: string) => model.statuses.get(id)! };
}

function roles(element: ElementCut, id: string): string[] {
  return [...new Set(element.mesh.runs.filter((run) => run.opening === id).map((run) => run.role))].sort();
}

describe('a wall', () => {
  it('without openings is a closed box of twelve triangles', () => {
    const { proof } = cut([]);
    expect(proof).toMatchObject({ closed: true, triangles: 12, collapsed: 0 });
    expect(proof.volume).toBeCloseTo(6 * 4 * 0.4, 12);
    expect(proof.areaByRole).toMatchObject({ 'outer face': 24, 'inner face': 24 });
  });

  it.each<[string, Wall['top'], number, number]>([
    ['raked', { kind: 'raked', end: 6 }, 6 * 5, 4],
    ['gabled', { kind: 'gabled', apex: 7, at: 0.5 }, 6 * 5.5, 5],
    [
      'stepped',
      {
        kind: 'stepped',
        steps: [
          { at: 0.5, height: 5 },
          { at: 0.75, height: 3 },
        ],
      },
      3 * 4 + 1.5 * 5 + 1.5 * 3,
      8,
    ],
    ['stepped to no purpose', { kind: 'stepped', steps: [{ at: 0.5, height: 4 }] }, 24, 4],
  ])('with a %s top is closed and of the area that it says', (_, top, area, corners) => {
    const { proof, element } = cut([], { top });
    expect(proof).toMatchObject({ closed: true, collapsed: 0 });
    expect(element.faceArea).toBeCloseTo(area, 12);
    expect(element.region.count).toBe(corners);
  });

  it('with a gable is notched by what crosses its slope, and is missed by what lies over it', () => {
    const { proof, status } = cut(
      [opening('a', 'oculus', 0.5, 4), opening('b', 'oculus', 0, 6), opening('c', 'oculus', 2.55, 5)],
      { top: { kind: 'gabled', apex: 7, at: 0.5 } },
    );
    expect(proof.closed).toBe(true);
    expect(status('a')).toMatchObject({ state: 'notched', reason: 'runs over the top' });
    expect(status('b').reason).toMatch(/off the wall/);
    expect(status('c').state).toBe('cut');
  });

  it('cut by a window loses the window’s volume and gains four reveals', () => {
    const { proof, element, status } = cut([opening('a', 'window', 1, 1)]);
    expect(proof.closed).toBe(true);
    expect(proof.volume).toBeCloseTo((24 - 1.8) * 0.4, 12);
    expect(roles(element, 'a')).toEqual(['head', 'jamb-left', 'jamb-right', 'sill']);
    expect(proof.triangles).toBe(2 * 8 + 2 * 8);
    expect(status('a')).toMatchObject({ state: 'cut', reason: null });
  });

  it('cut by a door at the floor has a notch and no threshold', () => {
    const { proof, element, status } = cut([opening('a', 'window', 1, 0)]);
    expect(proof.closed).toBe(true);
    expect(roles(element, 'a')).toEqual(['head', 'jamb-left', 'jamb-right']);
    expect(status('a')).toMatchObject({ state: 'notched', reason: 'runs over the base' });
    expect(proof.volume).toBeCloseTo((24 - 1.8) * 0.4, 12);
    // No vertex is left over on the base: two pieces of it, a left and a right one.
    expect(element.region.count).toBe(8);
  });

  it('unites openings that overlap and says so', () => {
    const { proof, status } = cut([opening('a', 'window', 1, 1), opening('b', 'window', 1.6, 1.5)]);
    expect(proof.closed).toBe(true);
    expect(proof.volume).toBeCloseTo((24 - (1.8 + 1.8 - 0.6 * 1)) * 0.4, 9);
    expect(status('a').unitedWith).toEqual(['b']);
    expect(status('b').unitedWith).toEqual(['a']);
  });

  it('unites openings that share a jamb, and leaves no wall between them', () => {
    const { proof, element, status } = cut([opening('a', 'window', 1, 1), opening('b', 'window', 2.2, 1)]);
    expect(proof.closed).toBe(true);
    expect(proof.volume).toBeCloseTo((24 - 3.6) * 0.4, 9);
    expect(roles(element, 'a')).toEqual(['head', 'jamb-left', 'sill']);
    expect(status('b').unitedWith).toEqual(['a']);
  });

  it('joins openings by a hair that touch only in a corner, and stays manifold there', () => {
    const { proof, status } = cut([opening('a', 'window', 1, 1), opening('b', 'window', 2.2, 2.3)], {}, {});
    expect(proof).toMatchObject({ closed: true, nonManifoldEdges: 0, openEdges: 0 });
    expect(status('a').state).toBe('cut');
  });

  it('divided by a full-height opening is two closed pieces', () => {
    const tall = { ...patterns.window!, sizes: { a: { id: 'a', name: '', dimensions: { width: 1, height: 9 } } } };
    const { proof, element } = cut([opening('a', 'window', 2, -1)], {}, { patterns: { ...patterns, window: tall } });
    expect(proof.closed).toBe(true);
    expect(element.pieces).toBe(2);
    expect(proof.volume).toBeCloseTo(5 * 4 * 0.4, 9);
  });

  it('refuses an opening larger than itself, with the sizes and the mend, and stays whole', () => {
    const huge = { ...patterns.window!, sizes: { a: { id: 'a', name: '', dimensions: { width: 7, height: 9 } } } };
    const { proof, status } = cut(
      [opening('a', 'window', -0.5, -1), opening('b', 'arch', 1, 0)],
      {},
      { patterns: { ...patterns, window: huge } },
    );
    expect(status('a').state).toBe('not cut');
    expect(status('a').reason).toMatch(/nothing would be left of the wall: it is 7.000 mm wide/);
    expect(status('a').mend).toMatch(/smaller size/);
    expect(status('b').state).toBe('notched');
    expect(proof.closed).toBe(true);
  });

  it('of exactly its own outline is refused too', () => {
    const same = { ...patterns.window!, sizes: { a: { id: 'a', name: '', dimensions: { width: 6, height: 4 } } } };
    const { proof, status } = cut([opening('a', 'window', 0, 0)], {}, { patterns: { ...patterns, window: same } });
    expect(status('a').state).toBe('not cut');
    expect(proof.volume).toBeCloseTo(9.6, 12);
  });

  it('refuses openings that together leave nothing', () => {
    const half = { ...patterns.window!, sizes: { a: { id: 'a', name: '', dimensions: { width: 3, height: 4 } } } };
    const { proof, status } = cut(
      [opening('a', 'window', 0, 0), opening('b', 'window', 3, 0)],
      {},
      { patterns: { ...patterns, window: half } },
    );
    expect(status('a').reason).toMatch(/together/);
    expect(proof.volume).toBeCloseTo(9.6, 12);
  });

  it('says of an opening off the wall by how much it misses', () => {
    const { status } = cut([opening('a', 'window', 6.5, 1), opening('b', 'window', 1, -3)]);
    expect(status('a')).toMatchObject({ state: 'not cut' });
    expect(status('a').reason).toMatch(/off the wall, 500 mm beyond its end/);
    expect(status('b').reason).toMatch(/1.500 mm below its base/);
  });

  it('tells of an opening that lies wholly within another', () => {
    const big = { ...patterns.oculus!, sizes: { a: { id: 'a', name: '', dimensions: { diameter: 0.5 } } } };
    const { status, proof } = cut(
      [opening('a', 'window', 1, 1), opening('b', 'oculus', 1.2, 1.2)],
      {},
      { patterns: { ...patterns, oculus: big } },
    );
    expect(status('b')).toMatchObject({ state: 'cut', unitedWith: ['a'] });
    expect(status('b').reason).toMatch(/wholly within/);
    expect(proof.volume).toBeCloseTo((24 - 1.8) * 0.4, 9);
  });

  it('is exactly as it was when an opening is blocked up, or removed', () => {
    const before = cut([]).element.mesh;
    const blocked = cut([opening('a', 'arch', 1, 0, { blockedUp: true })]);
    expect(blocked.status('a').state).toBe('blocked up');
    expectSameMesh(blocked.element.mesh, before);
  });

  it('refuses a size that makes no arch, with what would be possible', () => {
    const flat = { ...patterns.arch!, sizes: { a: { id: 'a', name: '', dimensions: { span: 2, height: 0.8 } } } };
    const { status } = cut([opening('a', 'arch', 1, 1)], {}, { patterns: { ...patterns, arch: flat } });
    expect(status('a').reason).toMatch(/rises 1.000 mm, more than its height of 800 mm/);
    expect(status('a').mend).toMatch(/at least 1.000 mm high, or its span at most 1.600 mm/);
  });

  it('survives nonsense that no schema let through: NaN, zero, missing rows', () => {
    const none = { ...patterns.window!, sizes: { a: { id: 'a', name: '', dimensions: { width: 0, height: 1 } } } };
    const { model, proof } = cut(
      [
        opening('zero', 'window', 1, 1),
        opening('nan', 'arch', NaN, 1),
        opening('gone', 'nothing', 1, 1),
        opening('size', 'arch', 1, 1, { size: 'z' }),
        opening('astray', 'arch', 1, 1, { element: 'removed' }),
      ],
      {},
      { patterns: { ...patterns, window: none } },
    );
    expect(proof.volume).toBeCloseTo(9.6, 12);
    for (const id of ['zero', 'nan', 'gone', 'size', 'astray']) {
      expect(model.statuses.get(id)).toMatchObject({ state: 'not cut' });
      expect(model.statuses.get(id)!.mend).toBeTruthy();
    }
    expect(model.statuses.get('astray')!.reason).toMatch(/element was removed/);
  });

  it('takes ten thousand openings on one spot', () => {
    const { proof, status } = cut(Array.from({ length: 10_000 }, (_, i) => opening(`o${i}`, 'arch', 1, 1)));
    expect(proof.closed).toBe(true);
    // Each is told why it is not cut: all the others lie over it.
    expect(status('o9999')).toMatchObject({ state: 'not cut', reason: expect.stringContaining('lie over it') });
  });
});

describe('a semicircular arch', () => {
  it('has a smooth intrados, and its own material on the reveal', () => {
    const { element, proof } = cut([opening('a', 'arch', 1, 0)]);
    expect(proof.closed).toBe(true);
    const head = element.mesh.runs.find((run) => run.opening === 'a' && run.role === 'head')!;
    expect(head.material).toBe('stone');
    const crown = [1.75, 1.5];
    for (let i = 3 * head.first; i < 3 * (head.first + head.count); i++) {
      const c = element.mesh.triangles[i]!;
      const [x, , z] = cornerAt(element.mesh, c);
      const [nx, nz] = [element.mesh.normals[3 * c]!, element.mesh.normals[3 * c + 2]!];
      // Towards the centre of the arch.
      expect(nx * 0.75).toBeCloseTo(crown[0]! - x, 5);
      expect(nz * 0.75).toBeCloseTo(crown[1]! - z, 5);
    }
  });

  it('shares its corners between the faces of its intrados, but not with what is sharp', () => {
    const { mesh } = cut([opening('a', 'arch', 1, 0)]).element;
    const cornersOf = (role: string): number => {
      const run = mesh.runs.find((r) => r.opening === 'a' && r.role === role)!;
      return new Set(mesh.triangles.subarray(3 * run.first, 3 * (run.first + run.count))).size;
    };
    const chords = mesh.runs.find((r) => r.opening === 'a' && r.role === 'head')!.polygons;
    expect(chords).toBeGreaterThan(10);
    expect(cornersOf('head')).toBe(2 * (chords + 1));
    expect(cornersOf('jamb-left')).toBe(4);
  });

  it('by a set angle less than the turn of its chords is faceted, each face by its own normal; by a greater one it is smooth', () => {
    const turnsAt = (smooth: number): number[] => {
      const { mesh } = cutModel({ ...project([{ ...wall(), smooth }], [opening('a', 'arch', 1, 0)]) }).cuts.get('w1')!;
      expect(prove(mesh).closed).toBe(true);
      const run = mesh.runs.find((r) => r.opening === 'a' && r.role === 'head')!;
      return Array.from({ length: run.count }, (_, i) => {
        const [a, b, c] = [0, 1, 2].map((k) => mesh.triangles[3 * (run.first + i) + k]!) as [number, number, number];
        const [p, q, r] = [a, b, c].map((corner) => cornerAt(mesh, corner)) as [Point, Point, Point];
        const [ux, uy, uz] = [0, 1, 2].map((k) => q[k]! - p[k]!) as [number, number, number];
        const [vx, vy, vz] = [0, 1, 2].map((k) => r[k]! - p[k]!) as [number, number, number];
        const own = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
        const most = Math.max(
          ...[a, b, c].map((corner) =>
            Math.acos(
              Math.min(1, own.reduce((sum, x, k) => sum + x * mesh.normals[3 * corner + k]!, 0) / Math.hypot(...own)),
            ),
          ),
        );
        return (most * 180) / Math.PI;
      });
    };
    const [faceted, smooth] = [turnsAt(1), turnsAt(30)];
    expect(Math.max(...faceted)).toBeLessThan(0.1);
    expect(Math.max(...smooth)).toBeGreaterThan(1);
    expect(Math.max(...smooth)).toBeLessThan(15);
  });

  it('takes from the wall what the closed form says, within the chords’ own loss', () => {
    const { proof } = cut([opening('a', 'arch', 1, 0)]);
    const exact = 1.5 * 1.5 + (Math.PI * 0.75 ** 2) / 2;
    const lost = (24 - proof.volume / 0.4) / exact;
    expect(lost).toBeLessThan(1);
    expect(lost).toBeGreaterThan(0.998);
  });
});

describe('texture', () => {
  it('runs on round the arris from the outer face onto every reveal', () => {
    const { element } = cut([opening('a', 'arch', 1, 1), opening('b', 'oculus', 4, 1)]);
    const { mesh } = element;
    const onFace = new Map<number, [number, number]>();
    const faces = mesh.runs.find((run) => run.role === 'outer face')!;
    for (let i = 3 * faces.first; i < 3 * (faces.first + faces.count); i++) {
      const c = mesh.triangles[i]!;
      onFace.set(mesh.vertices[c]!, [mesh.uvs[2 * c]!, mesh.uvs[2 * c + 1]!]);
    }
    for (const run of mesh.runs.filter((r) => r.role.startsWith('jamb') || r.role === 'sill')) {
      if (run.opening === 'b') continue;
      for (let i = 3 * run.first; i < 3 * (run.first + run.count); i++) {
        const c = mesh.triangles[i]!;
        const uv = onFace.get(mesh.vertices[c]!);
        if (!uv) continue;
        expect(mesh.uvs[2 * c]!).toBeCloseTo(uv[0], 5);
        expect(mesh.uvs[2 * c + 1]!).toBeCloseTo(uv[1], 5);
      }
    }
    // The soffit begins at the left springing where the left jamb ends.
    const head = mesh.runs.find((run) => run.opening === 'a' && run.role === 'head')!;
    const vs = Array.from({ length: 3 * head.count }, (_, i) => mesh.uvs[2 * mesh.triangles[3 * head.first + i]! + 1]!);
    expect(Math.min(...vs)).toBeCloseTo(1 + 1.5, 5);
    expect(Math.max(...vs)).toBeGreaterThan(2.5 + 0.998 * Math.PI * 0.75);
  });
});

describe('following', () => {
  const intents: [string, Partial<Opening>, number][] = [
    ['from the start', { along: { from: 'start', distance: 1 } }, 1],
    ['from the end', { along: { from: 'end', distance: 2 } }, 8 - 2],
    ['from the middle', { along: { from: 'middle', distance: 0 }, grip: { across: 'centre', level: 'sill' } }, 4 - 0.6],
  ];
  it.each(intents)('an opening placed %s is where its intent puts it when the wall is lengthened', (_, over, s) => {
    const { element } = cut([opening('a', 'window', 0, 1, over)], { length: 8 });
    expect(element.placed[0]!.s).toBeCloseTo(s, 12);
  });

  it('a datum lifts what is held to it', () => {
    const datums = { d: { id: 'd', name: 'First sill', level: 3.15, element: null } };
    const { element } = cut(
      [opening('a', 'oculus', 1, 0, { up: { from: 'datum', datum: 'd', distance: 0.1 } })],
      { start: { x: 0, y: 0, z: 1 } },
      { datums },
    );
    expect(element.placed[0]!.t).toBeCloseTo(3.15 + 0.1 - 1, 12);
  });
});

describe('an edit', () => {
  it('cuts only what it touches again', () => {
    const before = project(
      [wall(), wall({ id: 'w2' })],
      [opening('a', 'window', 1, 1), opening('b', 'arch', 1, 0, { element: 'w2' })],
    );
    const first = cutModel(before);
    const after = { ...before, openings: { ...before.openings, a: opening('a', 'window', 2, 1) } };
    const second = cutModel(after, first);
    expect(second.cuts.get('w2')).toBe(first.cuts.get('w2'));
    expect(second.cuts.get('w1')).not.toBe(first.cuts.get('w1'));
  });

  it.each([
    {},
    { sweep: 60 },
    {
      skins: 'layers',
      layers: [
        { thickness: 0.1, material: 'brick' },
        { thickness: 0.2, material: 'stone' },
      ],
    },
  ] as Partial<Wall>[])('gives what a cut from nothing gives, edit upon edit, on a wall with %j', (over) => {
    const row = Array.from({ length: 12 }, (_, i) =>
      opening(`o${i}`, i % 3 === 0 ? 'arch' : 'window', 1 + 2.2 * i, 0.8),
    );
    let document = project([wall({ length: 28, ...over })], row);
    let model = cutModel(document);
    const put = (...made: Opening[]): void => {
      document = {
        ...document,
        openings: { ...document.openings, ...Object.fromEntries(made.map((one) => [one.id, one])) },
      };
    };
    const edits = [
      () => put({ ...row[5]!, along: { from: 'start', distance: 12.13 } }),
      () => put({ ...row[0]!, pattern: 'window' }, { ...row[11]!, blockedUp: true }),
      () => put(opening('o5b', 'oculus', 12.5, 2.6)),
      () => {
        document = {
          ...document,
          openings: Object.fromEntries(Object.entries(document.openings).filter(([id]) => id !== 'o3')),
        };
      },
      () => put(row[0]!, row[3]!, row[11]!),
    ];
    for (const edit of edits) {
      edit();
      model = cutModel(document, model);
      expectSameMesh(model.cuts.get('w1')!.mesh, cutModel(document).cuts.get('w1')!.mesh);
    }
  });

  it.each([{}, { sweep: 40 }] as Partial<Wall>[])(
    'gives what a cut from nothing gives on a facade of like windows, whether it moves one, a row or most of them (%j)',
    (over) => {
      const [columns, rows] = [12, 14];
      const placed = (moved: (i: number) => number): ReturnType<typeof project> => {
        const openings = Array.from({ length: columns * rows }, (_, i) =>
          opening(
            `o${i}`,
            i % columns < 9 ? 'arch' : 'window',
            0.6 + 2.1 * (i % columns) + moved(i),
            0.5 + 2.9 * Math.floor(i / columns),
          ),
        );
        return project([wall({ length: 2.1 * columns + 0.6, height: 2.9 * rows + 0.8, ...over })], openings);
      };
      let model = cutModel(placed(() => 0));
      expect(prove(model.cuts.get('w1')!.mesh)).toMatchObject({ closed: true, collapsed: 0 });
      for (const moved of [
        (i: number) => (i === 80 ? 0.13 : 0),
        (i: number) => (Math.floor(i / columns) === 4 ? 0.11 : 0),
        (i: number) => (i % 5 === 0 ? 0.07 : 0),
        () => 0,
      ]) {
        const document = placed(moved);
        model = cutModel(document, model);
        const [steps, nothing] = [model, cutModel(document)].map(({ cuts }) => cuts.get('w1')!.mesh) as [
          CutMesh,
          CutMesh,
        ];
        for (const name of [
          'points',
          'normals',
          'uvs',
          'vertices',
          'triangles',
          'polygonStart',
          'polygonCorners',
        ] as const)
          expect(Buffer.from(steps[name].buffer).equals(Buffer.from(nothing[name].buffer))).toBe(true);
      }
    },
  );

  it('that only renames cuts nothing again', () => {
    const before = project([wall()], [opening('a', 'window', 1, 1)]);
    const first = cutModel(before);
    const second = cutModel({ ...before, elements: { w1: wall({ name: 'North wall' }) } }, first);
    expect(second.cuts.get('w1')).toBe(first.cuts.get('w1'));
  });
});

describe('a niche in a wall with a cavity', () => {
  const layers = [
    { thickness: 0.1, material: 'brick' },
    { thickness: 0.06, material: 'brick', cavity: true },
    { thickness: 0.15, material: 'stone' },
  ];
  const niche = (depth: number) => {
    const pattern = { ...patterns.window!, id: 'niche', cut: { kind: 'niche' as const, depth } };
    return cut(
      [opening('a', 'niche', 1, 1)],
      { layers, skins: 'layers' },
      { patterns: { ...patterns, niche: pattern } },
    ).status('a');
  };
  it.each([
    [0.05, false],
    [0.1, true],
    [0.13, true],
    [0.16, false],
    [0.2, false],
  ])('of %d m says whether it opens it', (depth, opens) => {
    const { state, reason, mend } = niche(depth);
    expect(state).toBe('niche');
    expect(reason?.includes('opens the cavity behind layer 1') ?? false).toBe(opens);
    if (opens) expect(mend).toContain('less than 100');
  });
});
