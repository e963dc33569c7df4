/** Outlines read from drawings. */
export { DrawingError } from './budget.ts';
export { largestDrawing, readDrawing, takeOutline, type Drawing, type TakenOutline } from './drawing.ts';
export type { Gap, Ring } from './rings.ts';
export { bulgeTo, closedRing, drawnTo, onGrid, placeAt, type ByHand } from './by-hand.ts';
