/** Particulars of a wall: its figures, and its openings one by one with what became of each. */
import { Button, Flex, Heading } from '@chakra-ui/react';
import { formatLength, type Element, type ProjectDocument } from '@yard-arch/document';
import { changeWall, removeWall } from '../editor/edits.ts';
import { chooseOpening, commit, useEditor } from '../editor/store.ts';
import { TopFields } from './TopFields.tsx';
import { AngleField, Choice, LengthField, NameField } from './Fields.tsx';
import { StatusLine } from './StatusLine.tsx';

export function WallParticulars({ document, wall }: { document: ProjectDocument; wall: Element }) {
  const statuses = useEditor((state) => state.statuses);
  const proof = useEditor((state) => state.proofs.get(wall.id));
  const { units } = document;
  const openings = Object.values(document.openings).filter((opening) => opening.element === wall.id);
  const change = (over: Partial<Element>, what: string): boolean => commit(changeWall(wall, over, what));
  const layer = wall.layers[0]!;
  return (
    <section aria-label={`Particulars of ${wall.name}`} data-testid="particulars">
      <Heading as="h2" fontFamily="heading" fontSize="17px">
        Wall
      </Heading>
      <NameField label="Name" value={wall.name} onChange={(name) => change({ name }, 'rename')} />
      <LengthField label="Length" positive value={wall.length} units={units} onChange={(length) => change({ length }, 'lengthen')} />
      <LengthField label="Height" positive value={wall.height} units={units} onChange={(height) => change({ height }, 'heighten')} />
      <TopFields wall={wall} units={units} onChange={(top) => change({ top }, 'change the top of')} />
      {wall.layers.length === 1 && (
        <LengthField label="Thickness" positive value={layer.thickness} units={units} onChange={(thickness) => change({ layers: [{ ...layer, thickness }] }, 'thicken')} />
      )}
      {wall.layers.length === 1 && (
        <Choice
          label="Material"
          value={layer.material}
          options={Object.values(document.materials).map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(material) => change({ layers: [{ ...layer, material }] }, 'change the material of')}
        />
      )}
      <hr />
      <LengthField label="Start, x" value={wall.start.x} units={units} onChange={(x) => change({ start: { ...wall.start, x } }, 'move')} />
      <LengthField label="Start, y" value={wall.start.y} units={units} onChange={(y) => change({ start: { ...wall.start, y } }, 'move')} />
      <LengthField label="Base, z" value={wall.start.z} units={units} onChange={(z) => change({ start: { ...wall.start, z } }, 'move')} />
      <AngleField label="Turned by" value={wall.turn} onChange={(turn) => change({ turn }, 'turn')} />
      <hr />
      <h3>
        {openings.length === 0 ? 'No openings yet' : `Openings, ${openings.length}`}
      </h3>
      {openings.length === 0 && <p>Choose a pattern below the sheet, then click where it is to stand.</p>}
      <ul className="openings">
        {openings.map((opening) => {
          const status = statuses.get(opening.id);
          return (
            <li key={opening.id}>
              <button onClick={() => chooseOpening(opening.id)} title={[status?.reason, status?.mend].filter(Boolean).join('. ')}>
                <b>{opening.mark}</b>
                <span>{document.patterns[opening.pattern]?.name}</span>
                <StatusLine status={status} />
              </button>
            </li>
          );
        })}
      </ul>
      {proof && (
        <>
          <hr />
          <h3>What the cut gives</h3>
          <p>
            {proof.closed ? 'closed, 0 open edges' : `${proof.openEdges} open edges`} · {proof.triangles} triangles
            <br />
            {proof.volume.toFixed(2)} m³ · outer face {(proof.areaByRole['outer face'] ?? 0).toFixed(2)} m² · {formatLength(wall.layers.reduce((sum, l) => sum + l.thickness, 0), units)} thick
          </p>
        </>
      )}
      <Flex mt="3">
        <Button size="sm" variant="outline" color="brick" onClick={() => commit(removeWall(document, wall))}>
          Remove wall{openings.length > 0 ? ` and its ${openings.length} opening${openings.length === 1 ? '' : 's'}` : ''}
        </Button>
      </Flex>
    </section>
  );
}
