/** Outlines from SVG and DXF drawings, against closed forms and against one another. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DrawingError, readDrawing, takeOutline, type Drawing } from '../src/drawing/index.ts';
import { edgesOf } from '../src/profile/free.ts';
import { arcPoint } from '../src/index.ts';

const svg = (body: string, more = ''): string =>
  `<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg" ${more}>${body}</svg>`;
const read = (body: string, tolerance = 0.01): Drawing => readDrawing('quay.svg', svg(body), tolerance);
const worded = (metres: number): string => `${Math.round(metres * 1000)}`;

/** What an outline encloses, its arcs exactly. */
function areaOf(outline: Drawing['rings'][number]['outline']): number {
  let twice = 0;
  for (const e of edgesOf(outline)) {
    if (e.kind === 'line') {
      twice += e.ax * e.by - e.bx * e.ay;
      continue;
    }
    const [[ax, ay], [bx, by]] = [arcPoint(e, e.from), arcPoint(e, e.to)];
    twice += ax * by - bx * ay + e.rx * e.ry * (e.to - e.from - Math.sin(e.to - e.from));
  }
  return twice / 2;
}

/** A DXF file of entities, each a row of codes and values. */
const dxf = (entities: (string | number)[][], unit = 4, blocks: (string | number)[][] = []): string =>
  [
    [0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, unit, 0, 'ENDSEC'],
    [0, 'SECTION', 2, 'BLOCKS', ...blocks.flat(), 0, 'ENDSEC'],
    [0, 'SECTION', 2, 'ENTITIES', ...entities.flat(), 0, 'ENDSEC', 0, 'EOF'],
  ]
    .flat()
    .join('\n');
const lineOf = ([ax, ay]: number[], [bx, by]: number[]): (string | number)[] => [
  ...[0, 'LINE', 8, '0', 10, ax!, 20, ay!, 11, bx!, 21, by!],
];

describe('an SVG drawing', () => {
  it('gives its shapes, with y upward, circles as exact arcs', () => {
    const { rings, open } = read('<rect x="1" y="2" width="30" height="40"/><circle cx="10" cy="20" r="5"/>');
    expect(open).toEqual([]);
    expect(rings.map(({ within, depth }) => [within, depth])).toEqual([
      [null, 0],
      [0, 1],
    ]);
    expect(rings[0]!.box).toEqual([1, -42, 31, -2]);
    expect(areaOf(rings[1]!.outline)).toBeCloseTo(25 * Math.PI, 10);
    expect(rings[1]!.outline).toHaveLength(2);
  });

  it('moves what stands in moved groups, and leaves out what is only declared or hidden', () => {
    const { rings } = read(
      '<defs><rect width="99" height="99"/></defs><g style="display:none"><rect width="88" height="88"/></g>' +
        '<g transform="translate(100 10) rotate(90)"><g transform="scale(2,1)"><rect width="3" height="4"/></g></g>',
    );
    expect(rings).toHaveLength(1);
    [96, -16, 100, -10].forEach((value, i) => expect(rings[0]!.box[i]).toBeCloseTo(value, 9));
  });

  it.each([
    ['an ellipse', '<ellipse rx="30" ry="10"/>', 300 * Math.PI],
    [
      'a turned ellipse’s arc',
      '<path d="M30 0A30 10 0 1 1 -30 0A30 10 0 1 1 30 0Z" transform="rotate(30)"/>',
      300 * Math.PI,
    ],
    ['a circle drawn aslant', '<circle r="10" transform="skewX(30)"/>', 100 * Math.PI],
    ['rounded corners', '<rect width="40" height="20" rx="5"/>', 800 - (4 - Math.PI) * 25],
    // A parabola's segment is two thirds of its box.
    ['a parabola', '<path d="M0 0Q20 -40 40 0Z"/>', (2 / 3) * 40 * 20],
    // Of a cubic between feet 40 apart with both handles 40 up: three fifths of its box.
    ['a cubic', '<path d="M0 0C0 -40 40 -40 40 0Z"/>', 960],
    ['half a circle told by relative steps', '<path d="m0 0h20a10 10 0 0 0-20 0z"/>', 50 * Math.PI],
  ])('follows %s within its tolerance', (_, body, area) => {
    const { rings } = read(body, 1e-3);
    expect(rings).toHaveLength(1);
    expect(Math.abs(Math.abs(areaOf(rings[0]!.outline)) - area)).toBeLessThan(0.1);
    // Arcs follow closely with few points.
    expect(rings[0]!.outline.length).toBeLessThan(120);
  });

  it('tells what a unit is where it says so', () => {
    expect(
      readDrawing('a.svg', svg('<rect width="1" height="1"/>', 'width="120mm" viewBox="0 0 60 60"'), 0.01).unit,
    ).toBeCloseTo(0.002);
    expect(read('<rect width="1" height="1"/>').unit).toBeNull();
  });

  it.each([
    ['no drawing', 'hello', 'holds no SVG'],
    ['nothing in it', svg(''), 'no lines'],
    ['a path that is none', svg('<path d="M0 0 L wrong"/>'), 'path of the drawing cannot be read'],
    ['a move that is none', svg('<g transform="twist(3)"><rect width="1" height="1"/></g>'), 'twist(3)'],
    ['far too much', svg(`<path d="M0 0${'l1 1l1 -1'.repeat(12_000)}"/>`), 'more than 20,000 points'],
  ])('with %s is refused in words', (_, text, said) => {
    expect(() => readDrawing('x.svg', text, 0.01)).toThrow(DrawingError);
    expect(() => readDrawing('x.svg', text, 0.01)).toThrow(said);
  });

  it('tells what it holds that is not read', () => {
    expect([...read('<rect width="1" height="1"/><text>Quay</text><text>8</text><image/>').skipped]).toEqual([
      ['text', 2],
      ['image', 1],
    ]);
  });
});

describe('a DXF drawing', () => {
  it('joins lines that meet, in whatever order and way they were drawn', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 24 }),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        (count, random) => {
          const next = (): number => random.next().value as number;
          const corners = Array.from({ length: count }, (_, i) => {
            const [r, angle] = [50 + 50 * next(), (2 * Math.PI * i) / count];
            return [r * Math.cos(angle), r * Math.sin(angle)];
          });
          const lines = corners.map((corner, i) => {
            const other = corners[(i + 1) % count]!;
            return next() < 0.5 ? lineOf(corner, other) : lineOf(other, corner);
          });
          const order = lines.map((line) => ({ line, key: next() })).sort((a, b) => a.key - b.key);
          const { rings, open } = readDrawing('a.dxf', dxf(order.map(({ line }) => line)), 1e-6);
          expect(open).toEqual([]);
          expect(rings).toHaveLength(1);
          const twice = corners.reduce((sum, [ax, ay], i) => {
            const [bx, by] = corners[(i + 1) % count]!;
            return sum + ax! * by! - bx! * ay!;
          }, 0);
          expect(areaOf(rings[0]!.outline)).toBeCloseTo(twice / 2, 4);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('points at both ends of what does not close', () => {
    const { open, rings } = readDrawing('a.dxf', dxf([lineOf([0, 0], [10, 0]), lineOf([10, 8], [10, 0.002])]), 0.01);
    expect(rings).toEqual([]);
    expect(open.map(({ ends }) => ends)).toEqual([
      [
        [10, 8],
        [0, 0],
      ],
    ]);
    expect(readDrawing('a.dxf', dxf([lineOf([0, 0], [10, 0]), lineOf([10, 8], [10, 0.002])]), 1e-4).open).toHaveLength(
      2,
    );
  });

  it('reads polylines with bulges, arcs, circles, ellipses and splines', () => {
    const weight = Math.SQRT1_2;
    const points = [
      [1, 0],
      [1, 1],
      [0, 1],
      [-1, 1],
      [-1, 0],
      [-1, -1],
      [0, -1],
      [1, -1],
      [1, 0],
    ];
    const circle = [
      ...[0, 'SPLINE', 8, '0', 70, 5, 71, 2],
      ...[0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4].flatMap((knot) => [40, knot]),
      ...points.flatMap((_, i) => [41, i % 2 === 0 ? 1 : weight]),
      ...points.flatMap(([x, y]) => [10, 20 * x! + 200, 20, 20 * y!]),
    ];
    const { rings } = readDrawing(
      'a.dxf',
      dxf([
        [0, 'LWPOLYLINE', 8, '0', 70, 1, 10, 0, 20, 0, 42, 1, 10, 20, 20, 0, 42, 1],
        [0, 'CIRCLE', 8, '0', 10, 50, 20, 0, 40, 5],
        [0, 'ARC', 8, '0', 10, 80, 20, 0, 40, 5, 50, 0, 51, 180],
        lineOf([75, 0], [85, 0]),
        [0, 'ELLIPSE', 8, '0', 10, 120, 20, 0, 11, 0, 21, 12, 40, 0.5, 41, 0, 42, 2 * Math.PI],
        circle,
      ]),
      1e-4,
    );
    expect(
      rings
        .map(({ outline }) => Math.abs(areaOf(outline)) / Math.PI)
        .sort((a, b) => a - b)
        .map((x) => x.toFixed(2)),
    ).toEqual(['12.50', '25.00', '72.00', '100.00', '400.00']);
  });

  it('puts blocks where they are inserted, and sees what is drawn from behind the other way round', () => {
    const block = [
      0,
      'BLOCK',
      8,
      '0',
      2,
      'PANE',
      10,
      1,
      20,
      1,
      ...[0, 'LWPOLYLINE', 8, '0', 70, 1, 10, 1, 20, 1, 10, 5, 20, 1, 10, 1, 20, 3],
      0,
      'ENDBLK',
    ];
    const { rings, unit } = readDrawing(
      'a.dxf',
      dxf(
        [
          [0, 'INSERT', 8, '0', 2, 'PANE', 10, 100, 20, 0, 41, 2, 42, 1, 50, 90, 70, 2, 44, 30],
          [0, 'LWPOLYLINE', 8, '0', 70, 1, 230, -1, 10, 1, 20, 0, 10, 4, 20, 0, 10, 1, 20, 9],
        ],
        5,
        [block],
      ),
      1e-6,
    );
    expect(unit).toBe(0.01);
    const boxes = rings
      .map(({ box }) => box.map((x) => Math.round(x * 1e6) / 1e6 + 0))
      .sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
    expect(boxes).toEqual([
      [-4, 0, -1, 9],
      [98, 0, 100, 8],
      [98, 30, 100, 38],
    ]);
  });

  it('whose blocks hold themselves, or make a million copies, is refused', () => {
    const loop = [0, 'BLOCK', 8, '0', 2, 'A', 10, 0, 20, 0, 0, 'INSERT', 8, '0', 2, 'A', 10, 0, 20, 0, 0, 'ENDBLK'];
    const insert = (more: (string | number)[]): string =>
      dxf([[0, 'INSERT', 8, '0', 2, 'A', 10, 0, 20, 0, ...more]], 4, [loop]);
    expect(() => readDrawing('a.dxf', insert([]), 1)).toThrow('in one another without an end');
    expect(() => readDrawing('a.dxf', insert([70, 30_000, 71, 30_000]), 1)).toThrow(DrawingError);
    expect(() => readDrawing('a.dxf', 'AutoCAD binary\u0000\u0001', 1)).toThrow('not a DXF drawing as text');
  });
});

describe('an outline taken from a drawing', () => {
  it('is the largest ring with what lies directly in it, in metres from its own corner', () => {
    const drawing = read(
      '<rect x="5" y="5" width="900" height="600"/><rect x="105" y="105" width="200" height="200"/><rect x="150" y="150" width="20" height="20"/><rect x="2000" width="3" height="3"/>',
    );
    const taken = takeOutline(drawing, 0, 0.001, worded);
    expect([taken.width, taken.height].map((x) => x.toFixed(6))).toEqual(['0.900000', '0.600000']);
    expect(taken.islands).toHaveLength(1);
    expect(taken.reason).toBeNull();
    expect(Math.min(...taken.outline.map(({ x }) => x))).toBe(0);
  });

  it('says where it crosses itself, and when its scale cannot be', () => {
    const drawing = read('<polygon points="0,0 200,100 200,0 0,100 -100,100"/>');
    const { reason, crossing } = takeOutline(drawing, 0, 0.01, worded);
    expect(reason).toContain('crosses itself at 2000 along and 500 up');
    expect(crossing!.map((x) => Math.round(x))).toEqual([100, -50]);
    expect(takeOutline(drawing, 0, 10, worded).reason).toContain('another unit');
  });
});
