/** A pen that draws strokes: rows of points joined by straight lines and arcs, with y upward, in the drawing's own units. */
import type { OutlinePoint } from '@yard-arch/document';
import { after, at, keepsCircles, mirrors, unmoved, type Affine, type Spot } from './affine.ts';
import { spend, type Budget } from './budget.ts';
import { follow, type Curve } from './follow.ts';

export interface Stroke {
  points: OutlinePoint[];
  closed: boolean;
}

export class Pen {
  readonly strokes: Stroke[] = [];
  /** Where what is drawn is put. */
  frame: Affine = unmoved;
  private points: OutlinePoint[] = [];

  constructor(readonly budget: Budget) {}

  /** Begins at a point; what was drawn so far stays open. */
  begin(x: number, y: number): void {
    this.end(false);
    this.to(x, y);
  }

  line(x: number, y: number): void {
    this.to(x, y);
  }

  /** A curve that begins where the pen is. */
  curve(curve: Curve): void {
    const { frame } = this;
    follow(this.points, (t) => at(frame, ...curve(t)), this.budget);
  }

  /** An arc of the circle of radius 1 about the origin of a frame, from an angle over another (radians): exact where it stays a circle's. */
  arc(own: Affine, from: number, over: number): void {
    const whole = after(this.frame, own);
    const circle = (angle: number): Spot => [Math.cos(angle), Math.sin(angle)];
    if (!keepsCircles(whole)) return this.curve((t) => at(own, ...circle(from + over * t)));
    // None of more than half a circle, whose bulge would tell little.
    const pieces = Math.max(1, Math.ceil(Math.abs(over) / Math.PI - 1e-9));
    const bulge = Math.tan(over / pieces / 4) * (mirrors(whole) ? -1 : 1);
    for (let i = 1; i <= pieces; i++) {
      this.points.at(-1)!.bulge = bulge;
      this.to(...at(own, ...circle(from + (over * i) / pieces)));
    }
  }

  /** An arc to a point, told by the tangent of a quarter of its angle; from the point at which the pen is, in its own place. */
  bulge([ax, ay]: Spot, bulge: number, bx: number, by: number): void {
    if (bulge === 0) return this.line(bx, by);
    const [dx, dy] = [bx - ax, by - ay];
    const off = (1 - bulge * bulge) / (4 * bulge);
    const [cx, cy] = [(ax + bx) / 2 - dy * off, (ay + by) / 2 + dx * off];
    const r = Math.hypot(ax - cx, ay - cy);
    this.arc([r, 0, 0, r, cx, cy], Math.atan2(ay - cy, ax - cx), 4 * Math.atan(bulge));
  }

  end(closed: boolean): void {
    const { points } = this;
    this.points = [];
    if (points.length < 2) return;
    this.strokes.push({ points, closed });
  }

  private to(x: number, y: number): void {
    spend(this.budget);
    const [px, py] = at(this.frame, x, y);
    this.points.push({ x: px, y: py });
  }
}
