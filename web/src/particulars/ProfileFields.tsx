/** What some profiles take besides their dimensions: a text, a number of sides or points, an outline drawn freely. */
import { limits, type Pattern, type Units } from '@yard-arch/document';
import type { Outlined } from '@yard-arch/edit';
import { useState } from 'react';
import { later } from '../common/later.tsx';
import { Choice, NameField } from '../fields/Fields.tsx';
import { OutlinesFields } from './OutlineFields.tsx';

const FromDrawing = later(async () => (await import('../fields/FromDrawing.tsx')).FromDrawing);
const DrawOutline = later(async () => (await import('../fields/DrawOutline.tsx')).DrawOutline);

const sides = Array.from({ length: limits.sides.most - limits.sides.least + 1 }, (_, i) => {
  const value = String(limits.sides.least + i);
  return { value, label: value };
});

export function ProfileFields({
  pattern,
  units,
  onChange,
  onDrawn,
}: {
  pattern: Pattern;
  units: Units;
  /** Where an outline was taken from a drawing. */
  onDrawn: (drawn: Outlined) => boolean;
  onChange: (profile: Pattern['profile'], what: string) => boolean;
}) {
  const { profile } = pattern;
  switch (profile.shape) {
    case 'text':
      return (
        <NameField
          label="Text"
          value={profile.text ?? ''}
          onChange={(text) => onChange({ ...profile, text: text.slice(0, 80) }, 'write')}
        />
      );
    case 'regular-polygon':
    case 'star':
      return (
        <Choice
          label={profile.shape === 'star' ? 'Points' : 'Sides'}
          value={String(profile.sides)}
          options={sides}
          onChange={(sides) => onChange({ ...profile, sides: Number(sides) }, 'redraw')}
        />
      );
    case 'free':
      return (
        <>
          <OutlinesFields
            noun="island"
            outline={profile.outline ?? []}
            inner={profile.islands ?? []}
            units={units}
            onOutline={(outline) => onChange({ ...profile, outline }, 'redraw')}
            onInner={(islands, what) => onChange({ ...profile, islands }, what)}
          />
          <Redrawing units={units} onDrawn={onDrawn} />
        </>
      );
    default:
      return null;
  }
}

/** The outline drawn anew, by hand or from a drawing. */
function Redrawing({ units, onDrawn }: { units: Units; onDrawn: (drawn: Outlined) => boolean }) {
  const [open, setOpen] = useState<'no' | 'read' | 'draw'>('no');
  const common = { units, open: true, confirm: 'Take this outline', onTake: onDrawn, onClose: () => setOpen('no') };
  return (
    <p className="row-links">
      <button className="link" onClick={() => setOpen('draw')}>
        draw it anew…
      </button>
      <button className="link" onClick={() => setOpen('read')}>
        read it from a drawing…
      </button>
      {open === 'read' && <FromDrawing {...common} />}
      {open === 'draw' && <DrawOutline {...common} />}
    </p>
  );
}
