/** Particulars of an opening: where it is and from what, of which size, what became of it, and what its cut gives. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { findingsOfOpening, isFault, type Outcome } from '@yard-arch/core';
import {
  dimensionLabel,
  dimensionNames,
  sizeLabel,
  type Opening,
  type Pattern,
  type ProjectDocument,
} from '@yard-arch/document';
import {
  blockAll,
  changeOpening,
  changeOwn,
  changePatternOf,
  changeSizeOf,
  keepAsSize,
  makeOneOff,
  removeAll,
  uses,
} from '@yard-arch/edit';
import { Fixes } from '../arrange/FindingList.tsx';
import { AlikeButtons } from '../arrange/AlikeButtons.tsx';
import { CopySection, CopyToSection, MirrorSection } from '../arrange/CopySection.tsx';
import { notify, refusalOf } from '../common/notices.tsx';
import { choose } from '../state/choice.ts';
import type { DrawnRuns } from '../state/cut-messages.ts';
import { useEditor } from '../state/state.ts';
import { commit, undo } from '../state/store.ts';
import { Choice, LengthField, NameField } from '../fields/Fields.tsx';
import { OverrideFields } from './OverrideFields.tsx';
import { PlaceFields } from './PlaceFields.tsx';
import { StatusLine } from './StatusLine.tsx';
import { AboutAxis } from './AboutAxis.tsx';
import { ThroughFields } from './ThroughFields.tsx';

export function OpeningParticulars({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  const status = useEditor((state) => state.statuses.get(opening.id));
  const { units } = document;
  const element = document.elements[opening.element];
  const pattern = document.patterns[opening.pattern];
  if (!element || !pattern) return null;
  return (
    <section aria-label={`Particulars of ${opening.mark}`} data-testid="particulars">
      <Flex align="baseline" justify="space-between" gap="3">
        <Heading as="h2" fontFamily="heading" fontSize="17px">
          Opening {opening.mark}
        </Heading>
        <StatusLine status={status} />
      </Flex>
      <Became document={document} status={status} />
      <NameField
        label="Mark"
        value={opening.mark}
        onChange={(mark) => commit(changeOpening(opening, { mark }, 'rename'))}
      />
      <Choice
        label="Pattern"
        value={pattern.id}
        options={Object.values(document.patterns).map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(id) => {
          const { changeSet, told } = changePatternOf(document, opening, id);
          if (commit(changeSet) && told) notify(told, { label: 'Undo', onClick: undo });
        }}
        note={
          <button className="link" onClick={() => choose({ kind: 'pattern', id: pattern.id })}>
            edit pattern
          </button>
        }
      />
      <Choice
        label="Size"
        value={opening.own ? '' : opening.size}
        options={[
          ...(opening.own ? [{ value: '', label: 'its own' }] : []),
          ...Object.values(pattern.sizes).map((size) => ({ value: size.id, label: sizeLabel(pattern, size, units) })),
        ]}
        onChange={(size) => size && commit(changeSizeOf(opening, pattern, size, document))}
        note={opening.own ? 'one-off' : `${uses(document, pattern.id, opening.size)} use it`}
      />
      {opening.own ? (
        <OneOff document={document} opening={opening} pattern={pattern} />
      ) : (
        <div className="buttons">
          <button
            onClick={() => commit(makeOneOff(opening, pattern))}
            title="Dimensions of its own, which no other opening follows"
          >
            make it a one-off
          </button>
        </div>
      )}
      <AlikeButtons document={document} openings={[opening]} />
      <hr />
      <OverrideFields document={document} opening={opening} pattern={pattern} />
      <PlaceFields document={document} opening={opening} element={element} />
      <ThroughFields document={document} opening={opening} />
      {document.elements[opening.element]?.kind === 'dome' && <AboutAxis document={document} opening={opening} />}
      <MirrorSection document={document} openings={[opening]} />
      <CopySection document={document} openings={[opening]} />
      <CopyToSection document={document} openings={[opening]} />

      <Flex gap="2" mt="4">
        <Button size="sm" variant="outline" onClick={() => commit(blockAll([opening]))}>
          {opening.blockedUp ? 'Open up' : 'Block up'}
        </Button>
        <Button size="sm" variant="outline" color="brick" onClick={() => commit(removeAll(document, [opening]))}>
          Remove
        </Button>
      </Flex>
      {status && status.state !== 'not cut' && status.state !== 'blocked up' && <CutGives opening={opening} />}
    </section>
  );
}

/** Why an opening is not as it was meant, with what would mend it, and what it is united with. */
function Became({ document, status }: { document: ProjectDocument; status: Outcome | undefined }) {
  if (!status) return null;
  const bad = status.state === 'not cut';
  return (
    <>
      {status.reason && (
        <p className={bad ? 'why bad' : 'why'} role={bad ? 'alert' : undefined}>
          {sentence(status.reason)} {status.mend}
          {findingsOfOpening(status)
            .filter(isFault)
            .map((finding, i) => (
              <Fixes key={i} document={document} finding={finding} />
            ))}
        </p>
      )}
      {status.unitedWith.length > 0 && (
        <p className="why">
          United with {status.unitedWith.map((id) => document.openings[id]?.mark ?? id).join(', ')}.
        </p>
      )}
    </>
  );
}

/** Dimensions of a one-off. */
function OneOff({ document, opening, pattern }: { document: ProjectDocument; opening: Opening; pattern: Pattern }) {
  const own = opening.own!;
  return (
    <div className="size">
      {dimensionNames(pattern.profile.shape).map((name) => (
        <LengthField
          key={name}
          positive
          label={dimensionLabel(pattern.profile.shape, name)}
          value={own[name] ?? 0}
          units={document.units}
          onChange={(metres) => {
            const outcome = changeOwn(document, opening, { ...own, [name]: metres });
            return 'reason' in outcome ? refusalOf(outcome) : commit(outcome);
          }}
        />
      ))}
      <div className="buttons">
        <button onClick={() => commit(changeSizeOf(opening, pattern, opening.size, document))}>
          bring it back to {sizeLabel(pattern, pattern.sizes[opening.size]!, document.units)}
        </button>
        <button onClick={() => commit(keepAsSize(document, opening))}>keep it as a size of the pattern</button>
      </div>
    </div>
  );
}

/** What the cut of an opening gives; by itself, since it changes with every cut of the wall. */
function CutGives({ opening }: { opening: Opening }) {
  const count = useEditor((state) => triangles(state.drawn.get(opening.element)?.runs, opening.id));
  const area = useEditor((state) => state.drawn.get(opening.element)?.areas.get(opening.id) ?? 0);
  return (
    <>
      <hr />
      <h3>What the cut gives</h3>
      <p>
        takes {area.toFixed(2)} m² of the face · {count} triangles of reveal
      </p>
    </>
  );
}

function triangles(runs: DrawnRuns | undefined, opening: string): number {
  const number = (runs?.openings.indexOf(opening) ?? -1) + 1;
  return number === 0 ? 0 : runs!.count.reduce((sum, count, i) => sum + (runs!.opening[i] === number ? count : 0), 0);
}

function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}
