/** A member's section and material. */
import { limits, type Member, type ProjectDocument } from '@yard-arch/document';
import { LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';

interface MemberProps {
  label: string;
  member: Member;
  document: ProjectDocument;
  onChange: (over: Partial<Member>) => boolean;
}

export function MemberFields({ label, member, document, onChange }: MemberProps) {
  const { units } = document;
  return (
    <>
      <LengthField
        label={label}
        value={member.width}
        within={limits.member}
        units={units}
        note="wide"
        onChange={(width) => onChange({ width })}
      />
      <LengthField
        label=""
        value={member.depth}
        within={limits.member}
        units={units}
        note="deep"
        onChange={(depth) => onChange({ depth })}
      />
      <MaterialChoice
        label="of"
        value={member.material}
        document={document}
        onChange={(material) => onChange({ material })}
      />
    </>
  );
}
