/** The layers of a build-up, dragged into another order. */
import type { Layer } from '@yard-arch/document';
import type { ReactNode } from 'react';
import { Sortable } from '../fields/Sortable.tsx';

interface SortedProps {
  layers: readonly Layer[];
  onOrder: (layers: Layer[]) => void;
  fields: (layer: Layer, i: number) => ReactNode;
}

export function SortedLayers({ layers, onOrder, fields }: SortedProps) {
  return (
    <Sortable items={layers} nameOf={(_, i) => `layer ${i + 1}`} onOrder={onOrder}>
      {fields}
    </Sortable>
  );
}
