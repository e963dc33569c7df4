/** What of an element is less often wanted, folded away: where it stands, its mesh and texture. */
import type { ReactNode } from 'react';
import {
  isManyFaced,
  isOutlined,
  isSeenFromAbove,
  limits,
  type Element,
  type ProjectDocument,
} from '@yard-arch/document';
import { changeElement, standOn } from '@yard-arch/edit';
import { AngleField, Choice, LengthField } from '../fields/Fields.tsx';
import { commit } from '../state/store.ts';
import { TextureFields } from './TextureFields.tsx';

const openFolds = (): string[] => (localStorage.getItem('yard-arch-folds') ?? '').split(' ').filter(Boolean);

/** What is less often wanted, folded away; whether it is open is remembered in this browser. */
export function Fold({ title, name, children }: { title: string; name: string; children: ReactNode }) {
  return (
    <details
      className="reveal"
      open={openFolds().includes(name)}
      onToggle={(event) => {
        const others = openFolds().filter((other) => other !== name);
        localStorage.setItem('yard-arch-folds', (event.currentTarget.open ? [...others, name] : others).join(' '));
      }}
    >
      <summary>{title}</summary>
      {children}
    </details>
  );
}

const change = (element: Element, over: Partial<Element>, what: string): boolean =>
  commit(changeElement(element, over, what));

/** What the level of an element is of. */
function levelLabel(element: Element): string {
  if (isManyFaced(element)) return 'Eaves, z';
  if (!isSeenFromAbove(element)) return 'Base, z';
  return isOutlined(element) ? 'Top, z' : 'Springing, z';
}

export function PlaceFold({ element, document }: { element: Element; document: ProjectDocument }) {
  const { units } = document;
  const at = (axis: 'x' | 'y' | 'z', label: string) => (
    <LengthField
      label={label}
      value={element.start[axis]}
      units={units}
      onChange={(value) => change(element, { start: { ...element.start, [axis]: value } }, 'move')}
    />
  );
  return (
    <Fold title="Where it stands" name="place">
      {at('x', 'Start, x')}
      {at('y', 'Start, y')}
      {at('z', levelLabel(element))}
      <StandsOn element={element} document={document} />
      <AngleField label="Turned by" value={element.turn} onChange={(turn) => change(element, { turn }, 'turn')} />
    </Fold>
  );
}

/** The datum that an element goes up and down with. */
function StandsOn({ element, document }: { element: Element; document: ProjectDocument }) {
  const datums = Object.values(document.datums).filter(
    (datum) => datum.element === null || datum.id === element.stands,
  );
  if (datums.length === 0) return null;
  return (
    <Choice
      label="Level with"
      value={element.stands ?? ''}
      options={[{ value: '', label: 'by itself' }, ...datums.map(({ id, name }) => ({ value: id, label: name }))]}
      onChange={(id) => commit(standOn(document, element, id || null))}
    />
  );
}

const roles = [
  { value: 'outer', label: 'outer face' },
  { value: 'inner', label: 'inner face' },
  { value: 'edge', label: 'edges' },
] as const;

export function MeshFold({ element, units }: { element: Element; units: ProjectDocument['units'] }) {
  return (
    <Fold title="Mesh and texture" name="mesh">
      <Choice
        label="Layers as"
        value={element.skins ?? 'one'}
        options={[
          { value: 'one', label: 'one skin' },
          { value: 'layers', label: 'a solid for each' },
        ]}
        onChange={(skins) => change(element, { skins: skins as 'one' | 'layers' }, 'divide the layers of')}
      />
      <Choice
        label="Faces as"
        value={element.mesh ?? 'lean'}
        options={[
          { value: 'lean', label: 'fewest triangles' },
          { value: 'quads', label: 'quads in rows' },
        ]}
        onChange={(mesh) => change(element, { mesh: mesh as 'lean' | 'quads' }, 'mesh')}
      />
      <AngleField
        label="Smooth to"
        value={element.smooth ?? 0}
        note={element.smooth === undefined ? 'arcs only' : undefined}
        within={{ least: 0, most: limits.smooth.most }}
        onChange={(smooth) => change(element, { smooth: smooth || undefined }, 'smooth')}
      />
      <TextureFields
        roles={roles}
        textures={element.texture}
        units={units}
        onChange={(texture) => change(element, { texture }, 'lay the texture of')}
      />
    </Fold>
  );
}
