/** What some profiles take besides their dimensions: a text, a number of sides or points, an outline drawn freely. */
import type { Pattern, Units } from '@yard-arch/document';
import { Choice, NameField } from '../fields/Fields.tsx';
import { OutlinesFields } from './OutlineFields.tsx';

export function ProfileFields({
  pattern,
  units,
  onChange,
}: {
  pattern: Pattern;
  units: Units;
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
          options={Array.from({ length: 22 }, (_, i) => ({ value: String(i + 3), label: String(i + 3) }))}
          onChange={(sides) => onChange({ ...profile, sides: Number(sides) }, 'redraw')}
        />
      );
    case 'free':
      return (
        <OutlinesFields
          noun="island"
          outline={profile.outline ?? []}
          inner={profile.islands ?? []}
          units={units}
          onOutline={(outline) => onChange({ ...profile, outline }, 'redraw')}
          onInner={(islands, what) => onChange({ ...profile, islands }, what)}
        />
      );
    default:
      return null;
  }
}
