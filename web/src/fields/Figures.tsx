/** Fields for the figures of something, told by a list: what each is called, and what kind it is of. */
import type { Limits, ProjectDocument } from '@yard-arch/document';
import { AngleField, Choice, CountField, LengthField, ShareField, Tick } from './Fields.tsx';
import { MaterialChoice } from './Sample.tsx';

/** One figure of a value, by its key. */
export interface Figure {
  key: string;
  label: string;
  /** Lengths and angles in metres and degrees, shares from 0 to 1. */
  kind: 'length' | 'angle' | 'count' | 'share' | 'material' | 'choice' | 'tick';
  within?: Limits;
  options?: readonly { value: string; label: string }[];
  note?: string;
  /** What it stands at where nothing is said. */
  otherwise?: number | string | boolean;
  /** Whether what stands at that is left unsaid. */
  unsaid?: boolean;
}

interface FiguresProps<T extends object> {
  value: T;
  figures: readonly Figure[];
  document: ProjectDocument;
  onChange: (over: Partial<T>) => boolean;
}

export function Figures<T extends object>({ value, figures, document, onChange }: FiguresProps<T>) {
  return figures.map((figure) => {
    const { key, label, kind, within, options = [], note, otherwise, unsaid } = figure;
    const held = (value as Record<string, unknown>)[key] ?? otherwise;
    const set = (next: unknown): boolean =>
      onChange({ [key]: unsaid && next === otherwise ? undefined : next } as Partial<T>);
    switch (kind) {
      case 'length':
        return (
          <LengthField
            key={key}
            label={label}
            value={held as number}
            units={document.units}
            {...(note ? { note } : {})}
            {...(within ? { within } : { positive: true })}
            onChange={set}
          />
        );
      case 'angle':
        return (
          <AngleField
            key={key}
            label={label}
            value={held as number}
            {...(note ? { note } : {})}
            {...(within ? { within } : {})}
            onChange={set}
          />
        );
      case 'count':
        return (
          <CountField
            key={key}
            label={label}
            value={held as number}
            within={within ?? { least: 1, most: 64 }}
            onChange={(next) => void set(next)}
          />
        );
      case 'share':
        return <ShareField key={key} label={label} value={held as number} ends note={note} onChange={set} />;
      case 'material':
        return (
          <MaterialChoice
            key={key}
            label={label}
            value={(held as string | undefined) ?? ''}
            none={typeof otherwise === 'string' && unsaid ? note : undefined}
            document={document}
            onChange={(id) => void set(id || otherwise)}
          />
        );
      case 'choice':
        return (
          <Choice
            key={key}
            label={label}
            value={held as string}
            options={options}
            onChange={(next) => void set(next)}
          />
        );
      case 'tick':
        return <Tick key={key} label={label} value={held as boolean} onChange={(next) => void set(next)} />;
    }
  });
}
