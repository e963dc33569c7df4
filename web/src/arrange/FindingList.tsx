/** What was found of an element and of what is on it, and the ways in which each can be mended. */
import { findingsOn, isFault, misfitsOn, type Finding } from '@yard-arch/core';
import type { Element, ProjectDocument } from '@yard-arch/document';
import { fixesOf, slideIn } from '@yard-arch/edit';
import { useMemo, useState } from 'react';
import { chooseOpening } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';

/** How many are listed unasked, and how many more each time they are asked for: what would mend each has to be found. */
const [unasked, more] = [6, 60];

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export function FindingList({ document, element }: { document: ProjectDocument; element: Element }) {
  const statuses = useEditor((state) => state.statuses);
  const fault = useEditor((state) => state.drawn.get(element.id)?.fault);
  const [most, setMost] = useState(unasked);
  const faults = useMemo(
    () => findingsOn(document, element, { statuses, faultOf: () => fault }).filter(isFault),
    [document, element, statuses, fault],
  );
  if (faults.length === 0) return null;
  const own = faults.filter(({ subject }) => subject.table === 'elements');
  const ofOpenings = faults.filter(({ subject }) => subject.table === 'openings');
  // One opening may have several.
  const count = new Set(ofOpenings.map(({ subject }) => subject.id)).size;
  return (
    <>
      {own.map((finding, i) => (
        <p key={i} className="why bad" role={finding.code === 'not-joined' ? undefined : 'alert'}>
          {sentence(finding.reason)}. {finding.mend}
          <Fixes document={document} finding={finding} />
        </p>
      ))}
      {ofOpenings.length > 0 && (
        <div className="misfits" role="group" aria-label="What does not fit">
          <h3>
            {count === 1 ? 'One opening does' : `${count} openings do`} not fit
            <SlideAll document={document} element={element} />
          </h3>
          <ul>
            {ofOpenings.slice(0, most).map((finding, i) => (
              <Found key={`${finding.subject.id} ${i}`} document={document} finding={finding} />
            ))}
          </ul>
          {ofOpenings.length > most && (
            <button className="link" onClick={() => setMost(most + more)}>
              and {ofOpenings.length - most} more
            </button>
          )}
        </div>
      )}
    </>
  );
}

function Found({ document, finding }: { document: ProjectDocument; finding: Finding }) {
  const { subject, reason } = finding;
  return (
    <li>
      <span>
        <button className="link" onClick={() => chooseOpening(subject.id)}>
          {document.openings[subject.id]?.mark}
        </button>
        : {reason}
      </span>
      <Fixes document={document} finding={finding} />
    </li>
  );
}

/** What a click can do about it. */
export function Fixes({ document, finding }: { document: ProjectDocument; finding: Finding }) {
  const fixes = useMemo(() => fixesOf(document, finding), [document, finding]);
  if (fixes.length === 0) return null;
  return (
    <span className="buttons">
      {fixes.map(({ label, changeSet }) => (
        <button key={label} onClick={() => commit(changeSet)}>
          {label}
        </button>
      ))}
    </span>
  );
}

/** Slides all in that can be, where there are several. */
function SlideAll({ document, element }: { document: ProjectDocument; element: Element }) {
  const slidable = misfitsOn(document, element).filter(({ slid }) => slid);
  if (slidable.length < 2) return null;
  return (
    <button className="link" onClick={() => commit(slideIn(document, slidable))}>
      slide all in
    </button>
  );
}
