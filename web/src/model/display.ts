/** How the model is shown; remembered in this browser. */
import { create } from 'zustand';

/** Materials with edges, materials alone, see-through, or faces told apart by the side that is seen. */
export type Show = 'edged' | 'plain' | 'see-through' | 'sides';

/** A plane through the building; what is beyond it in its direction is taken away. */
export interface Section {
  across: 'x' | 'y' | 'z';
  /** Metres. */
  at: number;
  /** Whether the other half is taken away. */
  other: boolean;
}

interface Display {
  show: Show;
  parallel: boolean;
  cutters: boolean;
  section: Section | null;
}

function remembered(): Display {
  const otherwise: Display = { show: 'edged', parallel: false, cutters: false, section: null };
  try {
    return {
      ...otherwise,
      ...(JSON.parse(localStorage.getItem('yard-arch-model') ?? '{}') as Partial<Display>),
      section: null,
    };
  } catch {
    return otherwise;
  }
}

export const useDisplay = create<Display>(() => remembered());
useDisplay.subscribe(({ show, parallel, cutters }) =>
  localStorage.setItem('yard-arch-model', JSON.stringify({ show, parallel, cutters })),
);
