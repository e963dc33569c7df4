/** The project's own settings. */
import type { ChangeSet, ProjectDocument } from '@yard-arch/document';
import { edit } from './make.ts';

/** Changes the greatest distance of chords from the arcs that they stand for, metres. */
export function setChord(chord: number, shown: string): ChangeSet {
  return edit(`draw arcs to within ${shown}`, { op: 'settings', value: { chord } });
}

export function renameProject(name: string): ChangeSet {
  return edit(`rename the project ${name}`, { op: 'settings', value: { name } });
}

/** Changes the project's units of display. */
export function setUnits(units: ProjectDocument['units']): ChangeSet {
  return edit(`show lengths in ${units === 'ft-in' ? 'feet and inches' : units}`, { op: 'settings', value: { units } });
}
