/** SVG drawings as strokes: paths and basic shapes with all that moves them; what is only declared or hidden is left out. */
import svgpath from 'svgpath';
import { parse } from 'txml/txml';
import { after, at, turnedBy, unmoved, type Affine, type Spot } from './affine.ts';
import { DrawingError, type Budget } from './budget.ts';
import { Pen, type Stroke } from './pen.ts';

interface Node {
  tagName: string;
  attributes: Record<string, string | null>;
  children: (Node | string)[];
}

/** What strokes are read from, and what else was there. */
export interface ReadDrawing {
  strokes: Stroke[];
  /** Metres in one unit of the drawing, where it says so. */
  unit: number | null;
  /** What it holds that is not read, by its name, and how often. */
  skipped: Map<string, number>;
}

/** Metres in the units of CSS. */
const units: Record<string, number> = {
  mm: 1e-3,
  cm: 1e-2,
  in: 0.0254,
  pt: 0.0254 / 72,
  pc: 0.0254 / 6,
  px: 0.0254 / 96,
};

const declared = new Set([
  'defs',
  'clipPath',
  'mask',
  'symbol',
  'marker',
  'pattern',
  'style',
  'metadata',
  'title',
  'desc',
]);
const groups = new Set(['svg', 'g', 'a', 'switch']);

/** @throws DrawingError */
export function readSvg(text: string, budget: Budget): ReadDrawing {
  const root = rootOf(text);
  const pen = new Pen(budget);
  const skipped = new Map<string, number>();
  const visit = (node: Node, frame: Affine): void => {
    if (
      declared.has(node.tagName) ||
      /display\s*:\s*none/.test(node.attributes.style ?? '') ||
      node.attributes.display === 'none'
    )
      return;
    const own = after(frame, moveOf(node.attributes.transform));
    if (groups.has(node.tagName)) {
      for (const child of node.children) if (typeof child !== 'string') visit(child, own);
      return;
    }
    const path = pathOf(node);
    if (path === null) return void skipped.set(node.tagName, (skipped.get(node.tagName) ?? 0) + 1);
    pen.frame = own;
    drawPath(pen, path);
  };
  // Down is up.
  visit(root, [1, 0, 0, -1, 0, 0]);
  return { strokes: pen.strokes, unit: unitOf(root), skipped };
}

function rootOf(text: string): Node {
  let nodes: unknown[];
  try {
    nodes = parse(text) as unknown[];
  } catch (error) {
    throw new DrawingError('The file is not an SVG drawing: its marks cannot be read.', { cause: error });
  }
  const root = nodes.find((node): node is Node => typeof node === 'object' && (node as Node).tagName === 'svg');
  if (!root) throw new DrawingError('The file holds no SVG drawing: it has no “svg” in it.');
  return root;
}

/** What a unit of the drawing measures: from a width in units of length and the box that is shown in it. */
function unitOf({ attributes: { width, viewBox } }: Node): number | null {
  const [, value, name] = /^\s*([\d.]+)\s*(mm|cm|in|pt|pc)\s*$/.exec(width ?? '') ?? [];
  if (value === undefined) return null;
  const box = (viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const metres = Number(value) * units[name!]!;
  const across = box.length === 4 && box[2]! > 0 ? box[2]! : metres / units.px!;
  return metres > 0 ? metres / across : null;
}

/** What a “transform” does. */
function moveOf(text: string | null | undefined): Affine {
  let frame = unmoved;
  for (const [, name, list] of (text ?? '').matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const [a = 0, b, ...more] = list!
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const radians = (a * Math.PI) / 180;
    const moves: Record<string, () => Affine> = {
      matrix: () => [a, b ?? 0, more[0] ?? 0, more[1] ?? 1, more[2] ?? 0, more[3] ?? 0],
      translate: () => [1, 0, 0, 1, a, b ?? 0],
      scale: () => [a, 0, 0, b ?? a, 0, 0],
      skewX: () => [1, 0, Math.tan(radians), 1, 0, 0],
      skewY: () => [1, Math.tan(radians), 0, 1, 0, 0],
      rotate: () => {
        const [x, y] = [b ?? 0, more[0] ?? 0];
        return after([1, 0, 0, 1, x, y], after(turnedBy(radians), [1, 0, 0, 1, -x, -y]));
      },
    };
    const move = moves[name!]?.();
    if (!move || !move.every(Number.isFinite))
      throw new DrawingError(`The drawing moves something by “${name}(${list!.slice(0, 40)})”, which cannot be read.`);
    frame = after(frame, move);
  }
  return frame;
}

/** A shape as the text of a path; null where it is none. */
function pathOf({ tagName, attributes }: Node): string | null {
  const n = (name: string): number => Number.parseFloat(attributes[name] ?? '') || 0;
  switch (tagName) {
    case 'path':
      return attributes.d ?? '';
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon':
      return attributes.points?.trim() ? `M${attributes.points}${tagName === 'polygon' ? 'Z' : ''}` : '';
    case 'circle':
      return oval(n('cx'), n('cy'), n('r'), n('r'));
    case 'ellipse':
      return oval(n('cx'), n('cy'), n('rx'), n('ry'));
    case 'rect':
      return rectangle(attributes, n);
    default:
      return null;
  }
}

const oval = (x: number, y: number, rx: number, ry: number): string =>
  rx > 0 && ry > 0 ? `M${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}Z` : '';

function rectangle(attributes: Node['attributes'], n: (name: string) => number): string {
  const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
  if (!(w > 0 && h > 0)) return '';
  const rx = Math.min(w / 2, attributes.rx === undefined ? n('ry') : n('rx'));
  const ry = Math.min(h / 2, attributes.ry === undefined ? n('rx') : n('ry'));
  if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const arc = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  return `M${x + rx} ${y}H${x + w - rx}${arc(rx, ry)}V${y + h - ry}${arc(-rx, ry)}H${x + rx}${arc(-rx, -ry)}V${y + ry}${arc(rx, -ry)}Z`;
}

const mix = (a: Spot, b: Spot, t: number): Spot => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];

/** A Bézier curve of any order, by de Casteljau. */
const bezier =
  (...points: Spot[]) =>
  (t: number): Spot => {
    let row = points;
    while (row.length > 1) row = row.slice(1).map((next, i) => mix(row[i]!, next, t));
    return row[0]!;
  };

function drawPath(pen: Pen, d: string): void {
  const path = svgpath(d).abs().unshort();
  const fault = (path as unknown as { err?: string }).err;
  if (fault) throw new DrawingError(`A path of the drawing cannot be read: ${fault.replace(/^SvgPath: /, '')}.`);
  let [start, here]: [Spot, Spot] = [
    [0, 0],
    [0, 0],
  ];
  let drawing = false;
  // What goes on after it was closed begins where it had begun.
  const begun = (): void => {
    if (!drawing) pen.begin(...start);
    drawing = true;
  };
  path.iterate(([command, ...v]: [string, ...number[]]) => {
    const to = v.slice(-2) as unknown as Spot;
    if (command === 'M') {
      pen.begin(...to);
      start = here = to;
      drawing = true;
      return;
    }
    if (command === 'Z' || command === 'z') {
      pen.end(true);
      here = start;
      drawing = false;
      return;
    }
    begun();
    if (command === 'H') here = [v[0]!, here[1]];
    else if (command === 'V') here = [here[0], v[0]!];
    else if (command === 'C') pen.curve(bezier(here, [v[0]!, v[1]!], [v[2]!, v[3]!], to));
    else if (command === 'Q') pen.curve(bezier(here, [v[0]!, v[1]!], to));
    else if (command === 'A') drawArc(pen, here, v, to);
    if ('HVL'.includes(command)) {
      if (command === 'L') here = to;
      pen.line(...here);
    } else here = to;
  });
  pen.end(false);
}

/** An arc as SVG tells it: by radii, their turn, which of the four it is, and its end. Source: SVG 2, appendix B.2.4. */
function drawArc(pen: Pen, from: Spot, [rx0, ry0, turn, large, sweep]: number[], to: Spot): void {
  if (from[0] === to[0] && from[1] === to[1]) return;
  let [rx, ry] = [Math.abs(rx0!), Math.abs(ry0!)];
  if (rx === 0 || ry === 0) return pen.line(...to);
  const turned = turnedBy((turn! * Math.PI) / 180);
  const back = turnedBy((-turn! * Math.PI) / 180);
  const [x, y] = at(back, (from[0] - to[0]) / 2, (from[1] - to[1]) / 2);
  const short = (x * x) / (rx * rx) + (y * y) / (ry * ry);
  if (short > 1) [rx, ry] = [rx * Math.sqrt(short), ry * Math.sqrt(short)];
  const off = (!!large === !!sweep ? -1 : 1) * Math.sqrt(Math.max(0, 1 / short - 1));
  const [u, v] = [(off * rx * y) / ry, (-off * ry * x) / rx];
  const [cx, cy] = at(turned, u, v);
  const begin = Math.atan2((y - v) / ry, (x - u) / rx);
  let over = Math.atan2((-y - v) / ry, (-x - u) / rx) - begin;
  if (sweep && over < 0) over += 2 * Math.PI;
  if (!sweep && over > 0) over -= 2 * Math.PI;
  const centre: Affine = [1, 0, 0, 1, cx + (from[0] + to[0]) / 2, cy + (from[1] + to[1]) / 2];
  pen.arc(after(centre, after(turned, [rx, 0, 0, ry, 0, 0])), begin, over);
}
