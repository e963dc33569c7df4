/** The section of the part of the reveal that was chosen on the plan or the section. */
import type { Pattern, ProjectDocument } from '@yard-arch/document';
import { changePattern } from '@yard-arch/edit';
import { X } from 'lucide-react';
import { revealParts, SectionFields, type RevealPart } from '../particulars/SectionFields.tsx';
import { commit } from '../state/store.ts';

interface CardProps {
  document: ProjectDocument;
  pattern: Pattern;
  part: RevealPart;
  /** How deep the pattern cuts, metres. */
  depth: number;
  onClose: () => void;
}

export function RevealCard({ document, pattern, part, depth, onClose }: CardProps) {
  const label = revealParts.find(({ name }) => name === part)!.label;
  return (
    <section
      className="field-card"
      aria-label={`Reveal of the ${label}`}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <header>
        <div className="crumbs">
          <b>Reveal of the {label}</b>
        </div>
        <button aria-label="Close" onClick={onClose}>
          <X size={14} />
        </button>
      </header>
      <SectionFields
        pattern={pattern}
        units={document.units}
        depth={depth}
        only={part}
        onChange={(sections) => commit(changePattern(pattern, { sections }, 'change the section of'))}
      />
    </section>
  );
}
