/** A choice among things that are shown by drawings, each with its name. */
import { Menu, Portal } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { Row } from './Fields.tsx';

export interface Pictured {
  value: string;
  label: string;
  /** Draws it so many pixels wide; null where there is nothing to be drawn. */
  picture: ((width: number) => ReactNode) | null;
}

/** A choice with a drawing: strokes in a box of 48 by 30. */
export const strokesFor = (value: string, label: string, drawing: string): Pictured => ({
  value,
  label,
  picture: (width) => (
    <svg viewBox="0 0 48 30" width={width} height={(width * 30) / 48} className="roof-form" aria-hidden="true">
      <path d={drawing} />
    </svg>
  ),
});

interface PictureChoiceProps {
  label: string;
  value: string;
  options: readonly Pictured[];
  note?: ReactNode;
  onChange: (value: string) => void;
}

export function PictureChoice({ label, value, options, note, onChange }: PictureChoiceProps) {
  const now = options.find((option) => option.value === value);
  return (
    <Row label={label} note={note}>
      <Menu.Root onSelect={({ value: next }) => next !== value && onChange(next)} lazyMount unmountOnExit>
        <Menu.Trigger asChild>
          <button className="sample-choice" aria-label={`${label}: ${now?.label ?? 'none'}`}>
            {now?.picture?.(26)}
            <span>{now?.label ?? 'none'}</span>
            <ChevronDown size={15} />
          </button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper" className="sample-menu" aria-label={label}>
              {options.map((option) => (
                <Menu.Item key={option.value} value={option.value} aria-current={option.value === value}>
                  {option.picture ? option.picture(40) : <span className="no-sample" />}
                  {option.label}
                </Menu.Item>
              ))}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </Row>
  );
}
