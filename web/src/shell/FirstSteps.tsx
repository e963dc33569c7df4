/** The first three steps, until they are done: each says how, and is ticked off by doing it. */
import type { ProjectDocument } from '@yard-arch/document';
import { addElement } from '@yard-arch/edit';
import { Check, X } from 'lucide-react';
import { chooseElement, place, turnTo } from '../state/choice.ts';
import { endSteps, useSteps } from '../state/first-steps.ts';
import { commit } from '../state/store.ts';

export function FirstSteps({ document }: { document: ProjectDocument }) {
  const { shown, taken } = useSteps();
  if (!shown) return null;
  const [walls, openings, patterns] = [document.elements, document.openings, document.patterns].map(
    (rows) => Object.keys(rows).length,
  );
  const steps = [
    {
      done: walls! > 0,
      title: 'Draw a wall',
      how: 'Its outer face is the sheet on which openings are set out.',
      acts: [
        ['add one', () => void addWall(document)],
        ['draw in plan', () => turnTo('plan')],
      ],
    },
    {
      done: openings! > 0,
      title: 'Put an opening into it',
      how: 'Choose a pattern below the sheet, then click where it is to stand. It is held to what it comes into line with.',
      acts: walls! > 0 && patterns! > 0 ? [['take the first pattern', () => takeFirst(document)]] : [],
    },
    {
      done: taken,
      title: 'Take the model away',
      how: 'Cut, closed and textured, as GLB or OBJ: Export, at the top right.',
      acts: [],
    },
  ] as { done: boolean; title: string; how: string; acts: [string, () => void][] }[];
  const left = steps.filter(({ done }) => !done).length;
  return (
    <section className="first-steps" aria-label="First steps" data-testid="first-steps">
      <header>
        <b>{left === 0 ? 'All three are done' : 'First steps'}</b>
        <button aria-label="Close the first steps" title="Not shown again for this project" onClick={endSteps}>
          <X size={14} />
        </button>
      </header>
      <ol>
        {steps.map(({ done, title, how, acts }, i) => (
          <li key={title} className={done ? 'done' : steps.findIndex((step) => !step.done) === i ? 'next' : ''}>
            <span className="number">{done ? <Check size={13} aria-label="done" /> : i + 1}</span>
            <div>
              <b>{title}</b>
              {!done && <p>{how}</p>}
              {!done &&
                acts.map(([label, act]) => (
                  <button key={label} className="link" onClick={act}>
                    {label}
                  </button>
                ))}
            </div>
          </li>
        ))}
      </ol>
    </section>
  );
}

function addWall(document: ProjectDocument): void {
  const made = addElement(document, 'wall');
  if (commit(made.changeSet)) chooseElement(made.id);
}

function takeFirst(document: ProjectDocument): void {
  const [pattern] = Object.values(document.patterns);
  turnTo('sheet');
  if (pattern) place({ pattern: pattern.id, size: Object.keys(pattern.sizes)[0]! });
}
