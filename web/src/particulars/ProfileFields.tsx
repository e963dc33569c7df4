/** What some profiles take besides their dimensions: a text, a number of sides or points, an outline drawn freely. */
import type { Pattern, Units } from '@yard-arch/document';
import { Choice, NameField } from './Fields.tsx';
import { OutlineFields, squareWithin } from './OutlineFields.tsx';

export function ProfileFields({ pattern, units, onChange }: { pattern: Pattern; units: Units; onChange: (profile: Pattern['profile'], what: string) => boolean }) {
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
    case 'free': {
      const { outline = [], islands = [] } = profile;
      const put = (next: typeof islands, what: string): boolean => onChange({ ...profile, islands: next.length > 0 ? next : undefined }, what);
      return (
        <details className="reveal" open={outline.length <= 12}>
          <summary>
            Outline, {outline.length} points{islands.length > 0 ? `, ${islands.length} island${islands.length === 1 ? '' : 's'}` : ''}
          </summary>
          <OutlineFields label="Outline" outline={outline} units={units} onChange={(next) => onChange({ ...profile, outline: next }, 'redraw')} />
          {islands.map((island, i) => (
            <OutlineFields
              key={i}
              label={`Island ${i + 1}`}
              outline={island}
              units={units}
              onChange={(next) => put(islands.map((other, k) => (k === i ? next : other)), 'redraw')}
              onRemove={() => put(islands.filter((_, k) => k !== i), 'take an island from')}
            />
          ))}
          <button className="link" onClick={() => put([...islands, squareWithin(outline)], 'add an island to')}>
            add an island
          </button>
        </details>
      );
    }
    default:
      return null;
  }
}
