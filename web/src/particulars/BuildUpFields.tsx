/** The build-up of an element, from its outer face inward: each layer's material and thickness. */
import { limits, type Element, type Layer, type ProjectDocument } from '@yard-arch/document';
import { LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { later } from '../common/later.tsx';

// What drags is fetched where there is more than one layer to be ordered.
const SortedLayers = later(async () => (await import('./SortedLayers.tsx')).SortedLayers);

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
  const fields = (layer: Layer, i: number) => (
    <LayerFields
      layer={layer}
      name={single ? null : `${i + 1}`}
      document={document}
      onChange={(over, what) => set(i, over, what)}
      onRemove={() =>
        onChange(
          layers.filter((_, k) => k !== i),
          'take a layer from',
        )
      }
    />
  );
  return (
    <div className="build-up">
      {single ? (
        fields(layers[0]!, 0)
      ) : (
        <SortedLayers layers={layers} onOrder={(ordered) => onChange(ordered, 'order the layers of')} fields={fields} />
      )}
      {layers.length < limits.layers.most && (
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

interface LayerProps {
  layer: Layer;
  /** Its number from outside; null for the only one. */
  name: string | null;
  document: ProjectDocument;
  onChange: (over: Partial<Layer>, what: string) => boolean;
  onRemove: () => void;
}

function LayerFields({ layer, name, document, onChange, onRemove }: LayerProps) {
  return (
    <div className={name === null ? undefined : 'size'}>
      <MaterialChoice
        label={name === null ? 'Material' : `Layer ${name}`}
        value={layer.cavity ? '' : layer.material}
        document={document}
        none={name === null ? undefined : 'cavity'}
        onChange={(material) =>
          material
            ? onChange({ material, cavity: undefined }, 'change the material of')
            : onChange({ cavity: true }, 'put a cavity into')
        }
      />
      <LengthField
        label={name === null ? 'Thickness' : 'Thick'}
        positive
        value={layer.thickness}
        units={document.units}
        onChange={(thickness) => onChange({ thickness }, 'thicken')}
      />
      {name !== null && (
        <button className="link" onClick={onRemove}>
          remove this layer
        </button>
      )}
    </div>
  );
}
