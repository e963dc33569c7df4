/** A mesh from outside in a field or about openings: of what it is, and how it fits along each axis. */
import { fitRules, limits, type Fit, type Imported, type ProjectDocument } from '@yard-arch/document';
import { Choice, LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';

interface ImportedProps {
  imported: Imported;
  document: ProjectDocument;
  onChange: (over: Partial<Imported>) => boolean;
}

type Axis = 'across' | 'through' | 'up';

const axes: { axis: Axis; label: string; start: string; end: string }[] = [
  { axis: 'across', label: 'Across', start: 'on the left', end: 'on the right' },
  { axis: 'up', label: 'Upward', start: 'on the foot', end: 'at the head' },
  { axis: 'through', label: 'In depth', start: 'at the front', end: 'at the back' },
];

const words: Record<Fit['rule'], string> = { keep: 'keeps its size', stretch: 'is stretched', repeat: 'is repeated' };

export function ImportedFields({ imported, document, onChange }: ImportedProps) {
  const mesh = document.meshes[imported.mesh];
  return (
    <>
      <p>
        {mesh ? `${mesh.name}, ${mesh.triangles.toLocaleString('en')} triangles` : 'Its mesh is not in the project.'}
      </p>
      {mesh && mesh.openEdges > 0 && (
        <p className="why" role="note">
          It is not closed: {mesh.openEdges.toLocaleString('en')} open {mesh.openEdges === 1 ? 'edge' : 'edges'}.
        </p>
      )}
      {imported.materials.map((material, i) => (
        <MaterialChoice
          key={i}
          label={mesh?.materials[i] ?? `Material ${i + 1}`}
          value={material}
          document={document}
          onChange={(next) =>
            onChange({ materials: imported.materials.map((other, k) => (k === i ? (next ?? other) : other)) })
          }
        />
      ))}
      {axes.map(({ axis, label, start, end }) => (
        <FitFields
          key={axis}
          label={label}
          ends={[start, end]}
          fit={imported[axis]}
          document={document}
          onChange={(fit) => onChange({ [axis]: fit })}
        />
      ))}
    </>
  );
}

interface FitProps {
  label: string;
  ends: readonly [string, string];
  fit: Fit;
  document: ProjectDocument;
  onChange: (fit: Fit) => boolean;
}

function FitFields({ label, ends, fit, document, onChange }: FitProps) {
  return (
    <>
      <Choice
        label={label}
        value={fit.rule}
        options={fitRules.map((value) => ({ value, label: words[value] }))}
        onChange={(rule) => onChange({ rule: rule as Fit['rule'], at: fit.at })}
      />
      {fit.rule === 'keep' && (
        <>
          <Choice
            label="stands"
            value={fit.at}
            options={[
              { value: 'start', label: ends[0] },
              { value: 'middle', label: 'in the middle' },
              { value: 'end', label: ends[1] },
            ]}
            onChange={(at) => onChange({ ...fit, at: at as Fit['at'] })}
          />
          <LengthField
            label="moved by"
            value={fit.off ?? 0}
            units={document.units}
            within={limits.coordinate}
            onChange={(off) => onChange({ ...fit, off: off === 0 ? undefined : off })}
          />
        </>
      )}
    </>
  );
}
