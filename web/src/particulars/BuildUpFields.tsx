/** The build-up of an element, from its outer face inward: each layer's material and thickness. */
import type { Element, Layer, ProjectDocument } from '@yard-arch/document';
import { LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';

interface BuildUpProps {
  element: Element;
  document: ProjectDocument;
  onChange: (layers: Layer[], what: string) => boolean;
}

export function BuildUpFields({ element, document, onChange }: BuildUpProps) {
  const { layers } = element;
  const set = (i: number, over: Partial<Layer>, what: string): boolean =>
    onChange(
      layers.map((layer, k) => (k === i ? { ...layer, ...over } : layer)),
      what,
    );
  const single = layers.length === 1;
  return (
    <div className="build-up">
      {layers.map((layer, i) => (
        <div key={i} className={single ? undefined : 'size'}>
          <MaterialChoice
            label={single ? 'Material' : `Layer ${i + 1}`}
            value={layer.cavity ? '' : layer.material}
            document={document}
            none={single ? undefined : 'cavity'}
            onChange={(material) =>
              material
                ? set(i, { material, cavity: undefined }, 'change the material of')
                : set(i, { cavity: true }, 'put a cavity into')
            }
          />
          <LengthField
            label={single ? 'Thickness' : 'Thick'}
            positive
            value={layer.thickness}
            units={document.units}
            onChange={(thickness) => set(i, { thickness }, 'thicken')}
          />
          {!single && (
            <button
              className="link"
              onClick={() =>
                onChange(
                  layers.filter((_, k) => k !== i),
                  'take a layer from',
                )
              }
            >
              remove this layer
            </button>
          )}
        </div>
      ))}
      {layers.length < 24 && (
        <button
          className="link"
          onClick={() =>
            onChange([...layers, { ...layers.at(-1)!, cavity: undefined, thickness: 0.1 }], 'add a layer to')
          }
        >
          add a layer inside
        </button>
      )}
    </div>
  );
}
