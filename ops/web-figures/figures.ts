/** What is measured of the page. */
import type { Page } from '@playwright/test';
import type { Projects } from '@yard-arch/server';

/** A measure, beside the one that it is to reach. */
export interface Figure {
  name: string;
  value: number;
  limit: number;
  unit: 'ms' | 'kb' | '×';
}

/** A place on the page, pixels. */
export interface Spot {
  x: number;
  y: number;
}

/** What figures are taken on. */
export interface Bench {
  url: string;
  projects: Projects;
  page: Page;
  told: (figure: Figure) => void;
}

export const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN;
