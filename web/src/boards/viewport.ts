/** The viewport: how metres on the face become pixels on the sheet. */

/** A point (s, t) is drawn at (x + s·scale, y − t·scale) pixels. */
export interface Viewport {
  x: number;
  y: number;
  scale: number;
}

/** Room round the face for datums, axes, strings and the title block, in pixels. */
export const margin = { left: 108, right: 98, top: 84, bottom: 178 };

/** The viewport that shows a face whole. */
export function fit(width: number, height: number, length: number, tall: number): Viewport {
  const scale = Math.max(
    1e-3,
    Math.min((width - margin.left - margin.right) / length, (height - margin.top - margin.bottom) / tall),
  );
  const spareX = width - margin.left - margin.right - length * scale;
  const spareY = height - margin.top - margin.bottom - tall * scale;
  return { scale, x: margin.left + spareX / 2, y: margin.top + spareY / 2 + tall * scale };
}

/** Nearer or farther by a factor, the point under (px, py) staying where it is. */
export function zoom(view: Viewport, factor: number, px: number, py: number): Viewport {
  const scale = Math.max(0.5, Math.min(4000, view.scale * factor));
  const real = scale / view.scale;
  return { scale, x: px - (px - view.x) * real, y: py - (py - view.y) * real };
}

export const xOf = (view: Viewport, s: number): number => view.x + s * view.scale;
export const yOf = (view: Viewport, t: number): number => view.y - t * view.scale;
export const sOf = (view: Viewport, x: number): number => (x - view.x) / view.scale;
export const tOf = (view: Viewport, y: number): number => (view.y - y) / view.scale;
