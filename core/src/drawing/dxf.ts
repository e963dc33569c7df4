/** DXF drawings as strokes: lines, polylines, arcs, circles, ellipses and splines of model space, with those in blocks where they are inserted. */
import { parseString, type DxfBlock, type DxfEntity } from 'dxf';
import { after, turnedBy, unmoved, type Affine, type Spot } from './affine.ts';
import { DrawingError, spend, type Budget } from './budget.ts';
import { Pen } from './pen.ts';
import { spanOf, spansOf } from './spline.ts';
import type { ReadDrawing } from './svg.ts';

/** Metres in the units of $INSUNITS, by its number. Source: DXF reference, HEADER section. */
const units: Record<number, number> = {
  1: 0.0254,
  2: 0.3048,
  4: 1e-3,
  5: 1e-2,
  6: 1,
  7: 1000,
  8: 2.54e-8,
  9: 2.54e-5,
  10: 0.9144,
  13: 1e-6,
  14: 0.1,
};

/** How deep blocks may stand in blocks. */
const deepest = 16;

/** @throws DrawingError */
export function readDxf(text: string, budget: Budget): ReadDrawing {
  const { header, blocks, entities } = parsed(text);
  const byName = new Map(blocks.map((block) => [block.name, block]));
  const pen = new Pen(budget);
  const skipped = new Map<string, number>();
  const visit = (entity: DxfEntity, frame: Affine, depth: number): void => {
    if (entity.visible === false || entity.paperSpace) return;
    // Seen from below: x runs the other way.
    const own = entity.extrusionZ !== undefined && entity.extrusionZ < 0 ? after(frame, [-1, 0, 0, 1, 0, 0]) : frame;
    if (entity.type === 'INSERT') {
      const block = byName.get(entity.block ?? '');
      if (!block) return;
      if (depth >= deepest) throw new DrawingError('The drawing’s blocks stand in one another without an end.');
      for (const move of insertsOf(entity, block)) {
        spend(budget);
        for (const one of block.entities) visit(one, after(own, move), depth + 1);
      }
      return;
    }
    pen.frame = own;
    if (!draw(pen, entity)) skipped.set(entity.type, (skipped.get(entity.type) ?? 0) + 1);
    pen.end(false);
  };
  for (const entity of entities) visit(entity, unmoved, 0);
  return { strokes: pen.strokes, unit: units[header.insUnits ?? 0] ?? null, skipped };
}

function parsed(text: string): ReturnType<typeof parseString> {
  if (!/^\s*0\s*\r?\n\s*SECTION/m.test(text))
    throw new DrawingError(
      'The file is not a DXF drawing as text. Save it as DXF (not DWG, and not binary), then take it in.',
    );
  try {
    return parseString(text);
  } catch (error) {
    throw new DrawingError('The file is not a DXF drawing that can be read: it is cut off or damaged.', {
      cause: error,
    });
  }
}

/** Where the copies of a block stand that an insert makes. */
function* insertsOf(insert: DxfEntity, block: DxfBlock): Generator<Affine> {
  const { x = 0, y = 0, scaleX = 1, scaleY = 1, rotation = 0 } = insert;
  const { rowCount = 1, columnCount = 1, rowSpacing = 0, columnSpacing = 0 } = insert;
  const turned = after([1, 0, 0, 1, x, y], turnedBy((rotation * Math.PI) / 180));
  for (let row = 0; row < Math.max(1, rowCount); row++)
    for (let column = 0; column < Math.max(1, columnCount); column++)
      yield after(
        after(turned, [1, 0, 0, 1, column * columnSpacing, row * rowSpacing]),
        after([scaleX, 0, 0, scaleY, 0, 0], [1, 0, 0, 1, -block.x, -block.y]),
      );
}

/** Draws an entity. @returns whether it is one that can be drawn. */
function draw(pen: Pen, entity: DxfEntity): boolean {
  const { x = 0, y = 0, startAngle = 0, endAngle = 2 * Math.PI } = entity;
  switch (entity.type) {
    case 'LINE':
      pen.begin(entity.start!.x, entity.start!.y);
      pen.line(entity.end!.x, entity.end!.y);
      return true;
    case 'LWPOLYLINE':
    case 'POLYLINE':
      return polyline(pen, entity);
    case 'CIRCLE':
      return round(pen, [entity.r!, 0, 0, entity.r!, x, y], 0, 2 * Math.PI);
    case 'ARC':
      return round(pen, [entity.r!, 0, 0, entity.r!, x, y], startAngle, endAngle);
    case 'ELLIPSE': {
      const { majorX: mx = 1, majorY: my = 0, axisRatio: ratio = 1 } = entity;
      return round(pen, [mx, my, -my * ratio, mx * ratio, x, y], startAngle, endAngle);
    }
    case 'SPLINE':
      return spline(pen, entity);
    default:
      return false;
  }
}

function round(pen: Pen, frame: Affine, from: number, to: number): boolean {
  const turn = 2 * Math.PI;
  const rest = (((to - from) % turn) + turn) % turn;
  const over = rest < 1e-9 ? turn : rest;
  const [a, b, c, d, e, f] = frame;
  pen.begin(a * Math.cos(from) + c * Math.sin(from) + e, b * Math.cos(from) + d * Math.sin(from) + f);
  pen.arc(frame, from, over);
  pen.end(over > turn - 1e-9);
  return true;
}

function polyline(pen: Pen, { vertices = [], closed = false, polygonMesh, polyfaceMesh }: DxfEntity): boolean {
  if (polygonMesh || polyfaceMesh) return false;
  vertices.forEach(({ x, y }, i) => {
    const last = vertices[i - 1];
    if (!last) pen.begin(x, y);
    else pen.bulge([last.x, last.y], last.bulge ?? 0, x, y);
  });
  const [first, last] = [vertices[0], vertices.at(-1)];
  if (closed && first && last?.bulge) pen.bulge([last.x, last.y], last.bulge, first.x, first.y);
  pen.end(closed);
  return true;
}

/** A spline by its control points; one that is given by the points that it goes through alone is not drawn. */
function spline(pen: Pen, { controlPoints = [], knots = [], degree = 3, weights, closed = false }: DxfEntity): boolean {
  if (controlPoints.length <= degree || knots.length !== controlPoints.length + degree + 1) return false;
  const points = controlPoints.map(({ x, y }, i): [number, number, number] => [x, y, weights?.[i] ?? 1]);
  const given = { points, knots, degree };
  const spans = spansOf(given);
  spans.forEach((span, i) => {
    const curve = (t: number): Spot => spanOf(given, span, t);
    if (i === 0) pen.begin(...curve(0));
    pen.curve(curve);
  });
  pen.end(closed);
  return spans.length > 0;
}
