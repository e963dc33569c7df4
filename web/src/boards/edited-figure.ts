/** The figure on the sheet that is being typed anew. */
import type { FigureChoice } from '@yard-arch/edit';

/** A figure that was clicked, to be typed anew. */
export interface EditedFigure {
  /** What it measures, for tests and the remembered choice. */
  what: string;
  label: string;
  value: number;
  /** Where it stands, pixels. */
  x: number;
  y: number;
  choices: readonly FigureChoice[];
  /** Whether it was drawn out by hand: the value is new, shown while it is looked at, and taken unless it is given up. */
  drawn?: boolean;
  /** What has been typed already. */
  text?: string;
}
