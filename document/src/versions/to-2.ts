/** From version 1, under which the format grew without saying so, to 2. */
import { byRows, isObject, type Raw } from './migration.ts';
import { withoutControls } from './controls.ts';

/** The first walls had no tops, and the first bosses could say that they are of the outer layer alone, as all others are by now. Names could hold control characters. */
export const toVersion2 = byRows(
  'Walls say what top they have, bosses reach back only where they say how far, and names hold no control characters.',
  (table, value) => (table === 'elements' ? withTop(value) : table === 'patterns' ? withoutOuter(value) : value),
  withoutControls,
);

function withTop(element: Raw): Raw {
  return element.kind === 'wall' && element.top === undefined ? { ...element, top: { kind: 'level' } } : element;
}

function withoutOuter(pattern: Raw): Raw {
  if (!isObject(pattern.cut) || pattern.cut.kind !== 'boss' || pattern.cut.layers !== 'outer') return pattern;
  const cut = { ...pattern.cut };
  delete cut.layers;
  return { ...pattern, cut };
}
