/** How much a drawing may hold, and what is said where it cannot be read. */

/** A drawing that cannot be read; the message says why, and what to do. */
export class DrawingError extends Error {}

/** The most points that a drawing's strokes may have in all. */
const mostPoints = 20_000;

/** How near (in the drawing's units) curves are followed, and how many points there are so far. */
export interface Budget {
  tolerance: number;
  used: number;
}

/** @throws DrawingError where the drawing is too full. */
export function spend(budget: Budget, points = 1): void {
  budget.used += points;
  if (budget.used > mostPoints)
    throw new DrawingError(
      `The drawing has more than ${mostPoints.toLocaleString('en')} points. Leave only the outline in it, or follow its curves less closely.`,
    );
}
