/** Particulars of an opening: where it is and from what, of which size, what became of it, and what its cut gives. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { alongAt, datumsOn, resolveOpening, upAt, type Run } from '@yard-arch/core';
import { sizeLabel, type Along, type Grip, type Opening, type ProjectDocument, type Up } from '@yard-arch/document';
import { blockUp, changeOpening, removeOpening, replaceIntent, uses } from '../editor/edits.ts';
import { choose, commit, useEditor } from '../editor/store.ts';
import { Choice, LengthField, NameField } from './Fields.tsx';
import { StatusLine } from './StatusLine.tsx';
import { ThroughFields } from './ThroughFields.tsx';

const grips: { value: string; label: string }[] = (['sill', 'middle', 'head', 'springing'] as const).flatMap((level) =>
  (['left', 'centre', 'right'] as const).map((across) => ({ value: `${level} ${across}`, label: `${level === 'springing' ? 'springing' : level}, ${across}` })),
);

export function OpeningParticulars({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  const shown = useEditor((state) => state.draft ?? state.document)!.openings[opening.id] ?? opening;
  const status = useEditor((state) => state.statuses.get(opening.id));
  const drawn = useEditor((state) => state.drawn.get(opening.element));
  const { units } = document;
  const element = document.elements[opening.element];
  const pattern = document.patterns[opening.pattern];
  if (!element || !pattern) return null;
  const resolved = resolveOpening(document, opening);
  const at = 'outline' in resolved ? { s: resolved.s, t: resolved.t } : null;

  const axes = Object.values(document.axes).filter((axis) => axis.element === element.id);
  const datums = datumsOn(document, element);
  const alongFrom = opening.along.from === 'axis' ? `axis ${opening.along.axis}` : opening.along.from;
  const upFrom = opening.up.from === 'datum' ? `datum ${opening.up.datum}` : opening.up.from;
  const changeAlong = (value: string) => {
    const along: Along = value.startsWith('axis ') ? { from: 'axis', axis: value.slice(5), distance: 0 } : { from: value as 'start', distance: 0 };
    commit(at ? replaceIntent(document, opening, { along }, at) : changeOpening(opening, { along: { ...along, distance: alongAt(document, element, along) ?? 0 } }, 'place differently'));
  };
  const changeUp = (value: string) => {
    const up: Up = value.startsWith('datum ') ? { from: 'datum', datum: value.slice(6), distance: 0 } : { from: value as 'base', distance: 0 };
    commit(at ? replaceIntent(document, opening, { up }, at) : changeOpening(opening, { up: { ...up, distance: upAt(document, element, up) ?? 0 } }, 'place differently'));
  };
  const changeGrip = (value: string) => {
    const [level, across] = value.split(' ') as [Grip['level'], Grip['across']];
    commit(at ? replaceIntent(document, opening, { grip: { level, across } }, at) : changeOpening(opening, { grip: { level, across } }, 'hold differently'));
  };

  return (
    <section aria-label={`Particulars of ${opening.mark}`} data-testid="particulars">
      <Flex align="baseline" justify="space-between" gap="3">
        <Heading as="h2" fontFamily="heading" fontSize="17px">
          Opening {opening.mark}
        </Heading>
        <StatusLine status={status} />
      </Flex>
      {status?.reason && (
        <p className={status.state === 'not cut' ? 'why bad' : 'why'} role={status.state === 'not cut' ? 'alert' : undefined}>
          {sentence(status.reason)} {status.mend}
        </p>
      )}
      {status && status.unitedWith.length > 0 && <p className="why">United with {status.unitedWith.map((id) => document.openings[id]?.mark ?? id).join(', ')}.</p>}

      <NameField label="Mark" value={opening.mark} onChange={(mark) => commit(changeOpening(opening, { mark }, 'rename'))} />
      <Choice
        label="Pattern"
        value={pattern.id}
        options={Object.values(document.patterns).map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(id) => commit(changeOpening(opening, { pattern: id, size: Object.keys(document.patterns[id]!.sizes)[0]! }, 'change the pattern of'))}
        note={
          <button className="link" onClick={() => choose({ kind: 'pattern', id: pattern.id })}>
            edit pattern
          </button>
        }
      />
      <Choice
        label="Size"
        value={opening.size}
        options={Object.values(pattern.sizes).map((size) => ({ value: size.id, label: sizeLabel(pattern, size, units) }))}
        onChange={(size) => commit(changeOpening(opening, { size }, 'change the size of'))}
        note={`${uses(document, pattern.id, opening.size)} use it`}
      />
      <hr />
      <LengthField
        label="Along"
        value={shown.along.distance}
        units={units}
        onChange={(distance) => commit(changeOpening(opening, { along: { ...opening.along, distance } }, 'move'))}
        note={
          <select aria-label="Along from" value={alongFrom} onChange={(event) => changeAlong(event.target.value)}>
            <option value="start">from the start</option>
            <option value="middle">from the middle</option>
            <option value="end">back from the end</option>
            {axes.map((axis) => (
              <option key={axis.id} value={`axis ${axis.id}`}>
                from axis {axis.name}
              </option>
            ))}
          </select>
        }
      />
      <LengthField
        label="Up"
        value={shown.up.distance}
        units={units}
        onChange={(distance) => commit(changeOpening(opening, { up: { ...opening.up, distance } }, 'move'))}
        note={
          <select aria-label="Up from" value={upFrom} onChange={(event) => changeUp(event.target.value)}>
            <option value="base">from the base</option>
            <option value="top">down from the top</option>
            {datums.map((datum) => (
              <option key={datum.id} value={`datum ${datum.id}`}>
                from {datum.name}
              </option>
            ))}
          </select>
        }
      />
      <Choice label="Held by" value={`${opening.grip.level} ${opening.grip.across}`} options={grips} onChange={changeGrip} />
      <ThroughFields document={document} opening={opening} />

      <Flex gap="2" mt="4">
        <Button size="sm" variant="outline" onClick={() => commit(blockUp(opening))}>
          {opening.blockedUp ? 'Open up' : 'Block up'}
        </Button>
        <Button size="sm" variant="outline" color="brick" onClick={() => commit(removeOpening(opening))}>
          Remove
        </Button>
      </Flex>
      {drawn && status && status.state !== 'not cut' && status.state !== 'blocked up' && (
        <>
          <hr />
          <h3>What the cut gives</h3>
          <p>
            takes {status.area.toFixed(2)} m² of the face · {triangles(drawn.runs, opening.id)} triangles of reveal
          </p>
        </>
      )}
    </section>
  );
}

function triangles(runs: readonly Run[], opening: string): number {
  return runs.reduce((sum, run) => sum + (run.opening === opening ? run.count : 0), 0);
}

function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}
