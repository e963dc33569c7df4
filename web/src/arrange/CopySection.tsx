/** Copying openings: by figures, mirrored, to other walls and floors. */
import { keys } from '../common/keys.ts';
import { Button } from '@chakra-ui/react';
import { axesOn, axisOn, datumsOn, lengthOf } from '@yard-arch/core';
import { type Element, type Opening, type ProjectDocument } from '@yard-arch/document';
import { boxesOf, copyBy, copyTo, faceOf, type Link, type Made, mirrorAll } from '@yard-arch/edit';
import { useState } from 'react';
import { chooseOpenings } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { Choice, CountField, LengthField } from '../fields/Fields.tsx';
import { copyOn } from '../state/clipboard.ts';
import { Section } from './Section.tsx';

interface Props {
  document: ProjectDocument;
  openings: readonly Opening[];
}

const make = ({ changeSet, ids }: Made): void => {
  if (commit(changeSet)) chooseOpenings(ids);
};

const links = [
  { value: 'linked', label: 'linked: same pattern' },
  { value: 'own patterns', label: 'with a pattern of their own' },
];

export function CopySection({ document, openings }: Props) {
  const { units } = document;
  const [along, setAlong] = useState(2);
  const [up, setUp] = useState(0);
  const [times, setTimes] = useState(1);
  const [link, setLink] = useState<Link>('linked');
  const lastCopy = useEditor((state) => state.lastCopy);
  const taken = (set: (value: number) => void) => (value: number) => {
    set(value);
    return true;
  };
  return (
    <Section title="Copy">
      <LengthField label="Along by" value={along} units={units} onChange={taken(setAlong)} />
      <LengthField label="Up by" value={up} units={units} onChange={taken(setUp)} />
      <CountField label="Times" value={times} within={{ least: 1, most: 200 }} onChange={setTimes} />
      <Choice label="Copies" value={link} options={links} onChange={(value) => setLink(value as Link)} />
      <div className="buttons">
        <Button
          size="xs"
          variant="outline"
          disabled={along === 0 && up === 0}
          onClick={() => {
            useEditor.setState({ lastCopy: { ds: along, dt: up } });
            make(copyBy(document, openings, { ds: along, dt: up, times, link }));
          }}
        >
          Copy{times > 1 ? ` ${times} times` : ''}
        </Button>
        <Button
          size="xs"
          variant="outline"
          disabled={!lastCopy}
          title={`Copy on by as much as the last time (${keys.copyOn.shown})`}
          onClick={() => copyOn(document, openings)}
        >
          Repeat the last copy
        </Button>
      </div>
    </Section>
  );
}

export function MirrorSection({ document, openings }: Props) {
  const element = document.elements[openings[0]!.element]!;
  const axes = axesOn(document, element, faceOf(openings));
  const [about, setAbout] = useState('middle');
  const [as, setAs] = useState<'themselves' | Link>('linked');
  const boxes = boxesOf(document, openings);
  const face = faceOf(openings);
  const at = (): number => {
    if (about === 'middle') return lengthOf(document, element, face) / 2;
    if (about === 'own')
      return (Math.min(...boxes.map(({ s }) => s)) + Math.max(...boxes.map(({ s, width }) => s + width))) / 2;
    const axis = document.axes[about];
    return axis ? axisOn(document, element, axis.along, face) : 0;
  };
  return (
    <Section title="Mirror">
      <Choice
        label="About"
        value={about}
        options={[
          { value: 'middle', label: 'the middle of the wall' },
          { value: 'own', label: 'their own middle' },
          ...axes.map(({ id, name }) => ({ value: id, label: `axis ${name}` })),
        ]}
        onChange={setAbout}
      />
      <Choice
        label="What"
        value={as}
        options={[
          { value: 'themselves', label: 'themselves, no copies' },
          ...links.map(({ value, label }) => ({ value, label: `copies, ${label}` })),
        ]}
        onChange={(value) => setAs(value as Link)}
      />
      <Button
        size="xs"
        variant="outline"
        onClick={() => make(mirrorAll(document, openings, at(), as === 'themselves' ? null : as))}
      >
        Mirror
      </Button>
    </Section>
  );
}

/** Walls and floors that copies go to, with the intent of the originals. */
export function CopyToSection({ document, openings }: Props) {
  const own = openings[0]!.element;
  const [walls, setWalls] = useState<readonly string[]>([]);
  const [levels, setLevels] = useState<readonly string[]>([]);
  const held = new Set(openings.flatMap(({ up }) => (up.from === 'datum' ? [up.datum] : [])));
  const datums = datumsOn(document, document.elements[own]!, openings[0]!.face);
  const toggle = (list: readonly string[], id: string): string[] =>
    list.includes(id) ? list.filter((other) => other !== id) : [...list, id];
  const elements: Element[] = Object.values(document.elements);
  // On the same wall only other levels make sense.
  const to = [...walls, ...(levels.length > 0 && !walls.includes(own) ? [own] : [])];
  return (
    <Section title="Copy to walls and floors">
      <fieldset className="further">
        <legend>Walls</legend>
        {elements
          .filter(({ id }) => id !== own)
          .map(({ id, name }) => (
            <label key={id}>
              <input type="checkbox" checked={walls.includes(id)} onChange={() => setWalls(toggle(walls, id))} /> {name}
            </label>
          ))}
      </fieldset>
      {held.size === 1 && datums.length > 1 && (
        <fieldset className="further">
          <legend>Levels, instead of {document.datums[[...held][0]!]?.name}</legend>
          {datums
            .filter(({ id }) => !held.has(id))
            .map(({ id, name }) => (
              <label key={id}>
                <input type="checkbox" checked={levels.includes(id)} onChange={() => setLevels(toggle(levels, id))} />{' '}
                {name}
              </label>
            ))}
        </fieldset>
      )}
      <Button
        size="xs"
        variant="outline"
        disabled={to.length === 0}
        onClick={() => {
          const [datum] = held;
          make(
            copyTo(document, openings, {
              elements: to,
              datums: new Map(datum && levels.length > 0 ? [[datum, levels]] : []),
            }),
          );
        }}
      >
        Copy there
      </Button>
    </Section>
  );
}
