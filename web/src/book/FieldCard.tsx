/** What the field that was chosen on the elevation holds: divided, hung, glazed or panelled here. */
import type { Field, Infill, Pattern, ProjectDocument } from '@yard-arch/document';
import { changeInfill, fieldAt, withAt } from '@yard-arch/edit';
import { X } from 'lucide-react';
import { FieldFields } from '../particulars/InfillFields.tsx';
import { commit } from '../state/store.ts';

interface CardProps {
  document: ProjectDocument;
  pattern: Pattern;
  path: string;
  onChoose: (path: string | null) => void;
}

const names: Record<Field['kind'], string> = {
  glass: 'glass',
  panel: 'panel',
  boards: 'boards',
  louvres: 'louvres',
  perforated: 'perforated sheet',
  empty: 'open',
  imported: 'mesh',
  divided: 'divided',
  fan: 'fan',
  interlacing: 'interlacing',
  lattice: 'lattice',
  leaf: 'leaf',
};

/** The fields in which a field lies, outermost first, itself last. */
export function fieldsTo(infill: Infill, path: string): { path: string; name: string }[] {
  const keys = path.split('/');
  const found: { path: string; name: string }[] = [];
  keys.forEach((key, i) => {
    if (key === 'fields') return;
    const at = keys.slice(0, i + 1).join('/');
    const field = fieldAt(infill, at);
    if (!field) return;
    const nth = keys[i - 1] === 'fields' ? `${Number(key) + 1}: ` : '';
    found.push({ path: at, name: `${nth}${names[field.kind]}` });
  });
  return found;
}

export function FieldCard({ document, pattern, path, onChoose }: CardProps) {
  const infill = pattern.infill!;
  const field = fieldAt(infill, path);
  if (!field) return null;
  const change = (next: Field): boolean =>
    commit(changeInfill(pattern, withAt(infill, path, next), 'change a field of'));
  return (
    <section
      className="field-card"
      aria-label="The chosen field"
      onKeyDown={(event) => event.key === 'Escape' && onChoose(null)}
    >
      <header>
        <div className="crumbs">
          {fieldsTo(infill, path).map(({ path: at, name }) => (
            <button key={at} aria-current={at === path} onClick={() => onChoose(at)}>
              {name}
            </button>
          ))}
        </div>
        <button aria-label="Close" onClick={() => onChoose(null)}>
          <X size={14} />
        </button>
      </header>
      <div>
        <FieldFields label="Holds" field={field} document={document} onChange={change} alone />
      </div>
    </section>
  );
}
