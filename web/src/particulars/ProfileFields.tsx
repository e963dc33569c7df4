/** What some profiles take besides their dimensions: a text, a number of sides or points, an outline drawn freely. */
import { limits, type Pattern, type Units } from '@yard-arch/document';
import type { Outlined } from '@yard-arch/edit';
import { Choice, NameField } from '../fields/Fields.tsx';
import { OutlinesFields } from './OutlineFields.tsx';
import { Redrawing } from './Redrawing.tsx';

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
          <Redrawing units={units} confirm="Take this outline" onDrawn={onDrawn} />
        </>
      );
    default:
      return null;
  }
}
