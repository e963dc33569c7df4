/** Where an opening is, and from what: the face that it is set out on, along, up, and the point by which it is held. */
import { boxOf, resolveOpening } from '@yard-arch/core';
import {
  faceLabel,
  facesOf,
  type Element,
  type FaceName,
  type Grip,
  type Opening,
  type ProjectDocument,
} from '@yard-arch/document';
import { changeOpening, replaceIntent, setOutOn } from '@yard-arch/edit';
import type { ComponentProps } from 'react';
import { Choice, LengthField } from '../fields/Fields.tsx';
import { turnOver } from '../state/choice.ts';
import { useEditor, useFace } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { alongNow, alongTold, waysAlong, waysUp, upNow, upTold, type Way } from './ways.ts';

interface PlaceProps {
  document: ProjectDocument;
  opening: Opening;
  element: Element;
}

export function PlaceFields({ document, opening, element }: PlaceProps) {
  const resolved = resolveOpening(document, opening);
  const box = 'outline' in resolved ? boxOf(resolved, opening.mark) : null;
  /** Tells it differently, leaving it where it is where it has a place. */
  const retell = (change: Partial<Pick<Opening, 'along' | 'up' | 'grip'>>, without: () => Partial<Opening>): void =>
    void commit(
      box
        ? replaceIntent(document, opening, change, { s: box.s, t: box.t })
        : changeOpening(opening, without(), 'place differently'),
    );
  return (
    <>
      <FaceField document={document} opening={opening} element={element} />
      <LiveLength
        label="Along"
        opening={opening}
        of="along"
        units={document.units}
        onChange={(distance) => commit(changeOpening(opening, { along: { ...opening.along, distance } }, 'move'))}
        note={
          <Ways
            label="Along from"
            now={alongNow(opening.along)}
            ways={waysAlong(document, opening, box)}
            onChoose={(value) => {
              const { along, measured } = alongTold(value, { document, opening, element, box });
              retell({ along }, () => ({ along: measured() }));
            }}
          />
        }
      />
      <LiveLength
        label="Up"
        opening={opening}
        of="up"
        units={document.units}
        onChange={(distance) => commit(changeOpening(opening, { up: { ...opening.up, distance } }, 'move'))}
        note={
          <Ways
            label="Up from"
            now={upNow(opening.up)}
            ways={waysUp(document, opening, element, box)}
            onChoose={(value) => {
              const { up, measured } = upTold(value, { document, opening, element, box });
              retell({ up }, () => ({ up: measured() }));
            }}
          />
        }
      />
      <Choice
        label="Held by"
        value={`${opening.grip.level} ${opening.grip.across}`}
        options={grips}
        onChange={(value) => {
          const [level, across] = value.split(' ') as [Grip['level'], Grip['across']];
          const grip = { level, across };
          retell({ grip }, () => ({ grip }));
        }}
      />
    </>
  );
}

/** The face on which it is set out, where its element has more than one. */
function FaceField({ document, opening, element }: PlaceProps) {
  const shown = useFace(opening.element);
  const own = opening.face ?? 'outer';
  if (facesOf(element).length < 2) return null;
  return (
    <Choice
      label="Set out on"
      value={own}
      options={facesOf(element).map(({ name }) => ({ value: name, label: `the ${faceLabel(element, name)}` }))}
      onChange={(value) => {
        const face = value as FaceName;
        if (commit(setOutOn(document, opening, face))) turnOver(element.id, face);
      }}
      note={
        own === shown ? undefined : (
          <button className="link" onClick={() => turnOver(element.id, own)}>
            turn the sheet over
          </button>
        )
      }
    />
  );
}

interface WaysProps {
  label: string;
  now: string;
  ways: readonly Way[];
  onChoose: (value: string) => void;
}

/** What a distance is measured from. */
function Ways({ label, now, ways, onChoose }: WaysProps) {
  return (
    <select aria-label={label} value={now} onChange={(event) => onChoose(event.target.value)}>
      {ways.map(({ value, label: text }) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </select>
  );
}

const grips: { value: string; label: string }[] = (['sill', 'middle', 'head', 'springing'] as const).flatMap((level) =>
  (['left', 'centre', 'right'] as const).map((across) => ({
    value: `${level} ${across}`,
    label: `${level === 'springing' ? 'springing' : level}, ${across}`,
  })),
);

/** A distance of an opening, as it is while the opening is being dragged too. Nothing else here is drawn again meanwhile. */
function LiveLength({
  opening,
  of,
  ...rest
}: { opening: Opening; of: 'along' | 'up' } & Omit<ComponentProps<typeof LengthField>, 'value'>) {
  const value = useEditor((state) => (state.draft?.openings[opening.id] ?? opening)[of].distance);
  return <LengthField value={value} {...rest} />;
}
