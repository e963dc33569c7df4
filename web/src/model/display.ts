/** How the model is shown; remembered in this browser. */
import { omit } from '@yard-arch/document';
import { z } from 'zod';
import { create } from 'zustand';

/** Materials with edges, materials alone, all of one clay, see-through, or faces told apart by the side that is seen. */
export type Show = 'edged' | 'plain' | 'clay' | 'see-through' | 'sides';

/** What it stands in: daylight, or the dark of a screening room. */
export type Backdrop = 'light' | 'dark';

/** A plane through the building; what is beyond it in its direction is taken away. */
export interface Section {
  across: 'x' | 'y' | 'z';
  /** Metres. */
  at: number;
  /** Whether the other half is taken away. */
  other: boolean;
}

/** How much of what stands in openings is shown: all, frames and leaves with their glass alone, a block in the place of each infill, or nothing. */
export type Fill = 'full' | 'plain' | 'blocks' | 'none';

export interface Display {
  fill: Fill;
  show: Show;
  parallel: boolean;
  cutters: boolean;
  backdrop: Backdrop;
  /** Whether what rests is drawn with more dots where the processor draws it, and with its contact shade. */
  finer: boolean;
  section: Section | null;
}

const displaySchema = z.object({
  show: z.enum(['edged', 'plain', 'clay', 'see-through', 'sides']).catch('edged'),
  fill: z.enum(['full', 'plain', 'blocks', 'none']).catch('full'),
  parallel: z.boolean().catch(false),
  cutters: z.boolean().catch(false),
  backdrop: z.enum(['light', 'dark']).catch('light'),
  finer: z.boolean().catch(true),
});

/** How it was shown last in this browser; what is not to be understood of that is as at first. */
export function readDisplay(): Display {
  let kept: unknown;
  try {
    kept = JSON.parse(localStorage.getItem('yard-arch-model') ?? '{}');
  } catch {
    kept = {};
  }
  const read = displaySchema.safeParse(kept);
  return { ...(read.success ? read.data : displaySchema.parse({})), section: null };
}

export const useDisplay = create<Display>(() => readDisplay());
useDisplay.subscribe((now) => localStorage.setItem('yard-arch-model', JSON.stringify(omit(now, 'section'))));

/** From where a project was looked at last, in this browser. */
export interface View {
  from: [number, number, number];
  to: [number, number, number];
  zoom: number;
}

export function rememberedView(project: string): View | null {
  try {
    const view = JSON.parse(localStorage.getItem(`yard-arch-view-${project}`) ?? 'null') as View | null;
    const figures = view && [...view.from, ...view.to, view.zoom];
    return figures?.length === 7 && figures.every(Number.isFinite) ? view : null;
  } catch {
    return null;
  }
}

export const rememberView = (project: string, view: View): void =>
  localStorage.setItem(`yard-arch-view-${project}`, JSON.stringify(view));
