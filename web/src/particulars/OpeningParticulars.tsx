/** Particulars of an opening: where it is and from what, of which size, what became of it, and what its cut gives. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import {
  alongAt,
  boxOf,
  courseOn,
  datumsOn,
  gripOffset,
  lengthOf,
  resolveOpening,
  rowOf,
  upAt,
  type Box,
} from '@yard-arch/core';
import {
  dimensionLabel,
  dimensionNames,
  faceLabel,
  facesOf,
  measuredFrom,
  sizeLabel,
  type Along,
  type FaceName,
  type Grip,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type Up,
} from '@yard-arch/document';
import {
  blockAll,
  boxesOf,
  changeOpening,
  changeOwn,
  changePatternOf,
  changeSizeOf,
  keepAsSize,
  makeOneOff,
  openingsOf,
  removeAll,
  replaceIntent,
  setOutOn,
  uses,
} from '@yard-arch/edit';
import { AlikeButtons } from '../arrange/AlikeButtons.tsx';
import { CopySection, CopyToSection, MirrorSection } from '../arrange/CopySection.tsx';
import { notify } from '../common/notices.tsx';
import { choose, turnOver } from '../state/choice.ts';
import type { DrawnRuns } from '../state/cut-messages.ts';
import { useEditor, useFace } from '../state/state.ts';
import { commit, undo } from '../state/store.ts';
import type { ComponentProps } from 'react';
import { Choice, LengthField, NameField } from '../fields/Fields.tsx';
import { StatusLine } from './StatusLine.tsx';
import { ThroughFields } from './ThroughFields.tsx';

const grips: { value: string; label: string }[] = (['sill', 'middle', 'head', 'springing'] as const).flatMap((level) =>
  (['left', 'centre', 'right'] as const).map((across) => ({
    value: `${level} ${across}`,
    label: `${level === 'springing' ? 'springing' : level}, ${across}`,
  })),
);

export function OpeningParticulars({ document, opening }: { document: ProjectDocument; opening: Opening }) {
  const status = useEditor((state) => state.statuses.get(opening.id));
  const { units } = document;
  const face = useFace(opening.element);
  const element = document.elements[opening.element];
  const pattern = document.patterns[opening.pattern];
  if (!element || !pattern) return null;
  const resolved = resolveOpening(document, opening);
  const at = 'outline' in resolved ? { s: resolved.s, t: resolved.t } : null;

  const axes = Object.values(document.axes).filter((axis) => axis.element === element.id);
  const datums = datumsOn(document, element);
  const { along: now } = opening;
  const alongFrom =
    now.from === 'axis'
      ? `axis ${now.axis}`
      : now.from === 'neighbour'
        ? `neighbour ${now.opening} ${now.edge}`
        : now.from === 'between'
          ? `between ${now.left ?? '-'} ${now.right ?? '-'}`
          : now.from;
  const box = at && 'outline' in resolved ? boxOf(resolved, opening.mark) : null;
  const neighbours = box ? neighboursOf(document, opening, box) : [];
  const { up: level } = opening;
  const upFrom =
    level.from === 'datum'
      ? `datum ${level.datum}`
      : level.from === 'neighbour'
        ? `neighbour ${level.opening} ${level.edge}`
        : level.from;
  const levels = box ? levelsBeside(document, opening, box) : [];
  const changeAlong = (value: string) => {
    const [from, id = '', edge = ''] = value.split(' ');
    const along: Along =
      from === 'axis'
        ? { from, axis: id, distance: 0 }
        : from === 'neighbour'
          ? { from, opening: id, edge: edge as 'left', distance: 0 }
          : from === 'between'
            ? { from, left: id === '-' ? null : id, right: edge === '-' ? null : edge, distance: 0 }
            : from === 'fraction'
              ? {
                  from,
                  fraction: box
                    ? Math.round(
                        ((box.s + gripOffset(box, opening.grip)[0]) / lengthOf(document, element, opening.face)) * 1e4,
                      ) / 1e4
                    : 0.5,
                  distance: 0,
                }
              : { from: value as 'start', distance: 0 };
    commit(
      at
        ? replaceIntent(document, opening, { along }, at)
        : changeOpening(
            opening,
            { along: { ...along, distance: alongAt(document, element, along, opening.face) ?? 0 } },
            'place differently',
          ),
    );
  };
  const changeUp = (value: string) => {
    const [from, id = '', edge = ''] = value.split(' ');
    const up: Up =
      from === 'datum'
        ? { from, datum: id, distance: 0 }
        : from === 'neighbour'
          ? { from, opening: id, edge: edge as 'sill', distance: 0 }
          : { from: value as 'base', distance: 0 };
    commit(
      at
        ? replaceIntent(document, opening, { up }, at)
        : changeOpening(
            opening,
            { up: { ...up, distance: upAt(document, element, up, opening.face) ?? 0 } },
            'place differently',
          ),
    );
  };
  const changeGrip = (value: string) => {
    const [level, across] = value.split(' ') as [Grip['level'], Grip['across']];
    commit(
      at
        ? replaceIntent(document, opening, { grip: { level, across } }, at)
        : changeOpening(opening, { grip: { level, across } }, 'hold differently'),
    );
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
        <p
          className={status.state === 'not cut' ? 'why bad' : 'why'}
          role={status.state === 'not cut' ? 'alert' : undefined}
        >
          {sentence(status.reason)} {status.mend}
        </p>
      )}
      {status && status.unitedWith.length > 0 && (
        <p className="why">
          United with {status.unitedWith.map((id) => document.openings[id]?.mark ?? id).join(', ')}.
        </p>
      )}

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
      {facesOf(element).length > 1 && (
        <Choice
          label="Set out on"
          value={opening.face ?? 'outer'}
          options={facesOf(element).map(({ name }) => ({ value: name, label: `the ${faceLabel(element, name)}` }))}
          onChange={(value) => {
            const face = value as FaceName;
            if (commit(setOutOn(document, opening, face))) turnOver(element.id, face);
          }}
          note={
            (opening.face ?? 'outer') === face ? undefined : (
              <button className="link" onClick={() => turnOver(element.id, opening.face ?? 'outer')}>
                turn the sheet over
              </button>
            )
          }
        />
      )}
      <LiveLength
        label="Along"
        opening={opening}
        of="along"
        units={units}
        onChange={(distance) => commit(changeOpening(opening, { along: { ...opening.along, distance } }, 'move'))}
        note={
          <select aria-label="Along from" value={alongFrom} onChange={(event) => changeAlong(event.target.value)}>
            <option value="start">from the start</option>
            <option value="middle">from the middle</option>
            <option value="end">back from the end</option>
            <option value="fraction">
              {now.from === 'fraction'
                ? `from ${Math.round(now.fraction * 1e4) / 100} % of the length`
                : 'from a share of the length'}
            </option>
            {axes.map((axis) => (
              <option key={axis.id} value={`axis ${axis.id}`}>
                from axis {axis.name}
              </option>
            ))}
            {now.from === 'between' && <option value={alongFrom}>from half way between</option>}
            {neighbours.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        }
      />
      <LiveLength
        label="Up"
        opening={opening}
        of="up"
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
            {(level.from === 'course' || courseOn(document, element) !== null) && (
              <option value="course">on the nearest course</option>
            )}
            {levels.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        }
      />
      <Choice
        label="Held by"
        value={`${opening.grip.level} ${opening.grip.across}`}
        options={grips}
        onChange={changeGrip}
      />
      <ThroughFields document={document} opening={opening} />
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
      {status && status.state !== 'not cut' && status.state !== 'blocked up' && (
        <CutGives opening={opening} area={status.area} />
      )}
    </section>
  );
}

/** A distance of an opening, as it is while the opening is being dragged too. Nothing else here is drawn again meanwhile. */
function LiveLength({
  opening,
  of,
  ...rest
}: { opening: Opening; of: 'along' | 'up' } & Omit<ComponentProps<typeof LengthField>, 'value'>) {
  const value = useEditor((state) => (state.draft?.openings[opening.id] ?? opening)[of].distance);
  return <LengthField value={value} {...rest} />;
}

/** The jambs and centres of openings beside one that it can be measured from, nearest first; the one that it is measured from now among them. */
function neighboursOf(document: ProjectDocument, opening: Opening, box: Box): { value: string; label: string }[] {
  const others = Object.values(document.openings).filter(
    (other) => other.element === opening.element && other.id !== opening.id,
  );
  const row = rowOf(boxesOf(document, others, opening.face ?? 'outer'), box).sort(
    (a, b) => Math.abs(a.s - box.s) - Math.abs(b.s - box.s),
  );
  const { along } = opening;
  const near = row.slice(0, 6).map(({ id }) => id);
  if (along.from === 'neighbour' && !near.includes(along.opening)) near.push(along.opening);
  const its = measuredFrom(document, opening.id);
  return near
    .filter((id) => !its.has(id))
    .flatMap((id) =>
      (['right', 'centre', 'left'] as const).map((edge) => ({
        value: `neighbour ${id} ${edge}`,
        label: `from ${document.openings[id]?.mark}, ${edge === 'centre' ? 'centre' : `${edge} jamb`}`,
      })),
    );
}

/** Sills, springing lines and heads of openings beside one from which its level can be measured. */
function levelsBeside(document: ProjectDocument, opening: Opening, box: Box): { value: string; label: string }[] {
  const others = Object.values(document.openings).filter(
    (other) => other.element === opening.element && other.id !== opening.id,
  );
  const near = boxesOf(document, others, opening.face ?? 'outer')
    .sort((a, b) => Math.hypot(a.s - box.s, a.t - box.t) - Math.hypot(b.s - box.s, b.t - box.t))
    .slice(0, 6);
  const { up } = opening;
  if (up.from === 'neighbour' && !near.some(({ id }) => id === up.opening))
    near.push(...boxesOf(document, openingsOf(document, [up.opening])));
  const its = measuredFrom(document, opening.id, 'up');
  return near
    .filter(({ id }) => !its.has(id))
    .flatMap(({ id, mark, springing }) =>
      (['sill', 'head', ...(springing === null ? [] : ['springing'])] as const).map((edge) => ({
        value: `neighbour ${id} ${edge}`,
        label: `from the ${edge} of ${mark}`,
      })),
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
            return 'reason' in outcome ? `${sentence(outcome.reason)} ${outcome.mend}` : commit(outcome);
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
function CutGives({ opening, area }: { opening: Opening; area: number }) {
  const count = useEditor((state) => triangles(state.drawn.get(opening.element)?.runs, opening.id));
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
