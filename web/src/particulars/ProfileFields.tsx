/** What some profiles take besides their dimensions: a text, a number of sides or points. */
import type { Pattern } from '@yard-arch/document';
import { Choice, NameField, Row } from './Fields.tsx';

export function ProfileFields({ pattern, onChange }: { pattern: Pattern; onChange: (profile: Pattern['profile'], what: string) => boolean }) {
  const { profile } = pattern;
  switch (profile.shape) {
    case 'text':
      return <NameField label="Text" value={profile.text ?? ''} onChange={(text) => onChange({ ...profile, text: text.slice(0, 80) }, 'write')} />;
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
        <Row label="Outline">
          {profile.outline?.length} points{profile.islands?.length ? `, ${profile.islands.length} island${profile.islands.length === 1 ? '' : 's'}` : ''}
        </Row>
      );
    default:
      return null;
  }
}
