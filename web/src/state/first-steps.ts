/** The first steps in a project that was begun in this browser: shown until they are done, or waved away. */
import { create } from 'zustand';

const key = (project: string): string => `yard-arch-steps ${project}`;

interface Steps {
  /** The project whose steps these are. */
  project: string | null;
  shown: boolean;
  taken: boolean;
}

export const useSteps = create<Steps>(() => ({ project: null, shown: false, taken: false }));

/** A project was begun: its first steps are to be shown. */
export function beginSteps(project: string): void {
  localStorage.setItem(key(project), 'begun');
}

/** A project is opened. */
export function openSteps(project: string): void {
  const kept = localStorage.getItem(key(project));
  useSteps.setState({ project, shown: kept !== null, taken: kept === 'taken away' });
}

/** The model was taken away for the first time. */
export function stepTaken(): void {
  const { project, shown } = useSteps.getState();
  if (!project || !shown) return;
  localStorage.setItem(key(project), 'taken away');
  useSteps.setState({ taken: true });
}

/** They are not to be shown any more. */
export function endSteps(): void {
  const { project } = useSteps.getState();
  if (project) localStorage.removeItem(key(project));
  useSteps.setState({ shown: false });
}
