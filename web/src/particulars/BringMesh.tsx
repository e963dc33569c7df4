/** Bringing a mesh in from a file, or taking one that the project has; shown with what is told of it before it is taken. */
import { readPlainGlb, welded, type PlainMesh } from '@yard-arch/core';
import type { BroughtMesh } from '@yard-arch/core/import-mesh';
import type { ForeignScale } from '@yard-arch/core/read-mesh';
import { formatLength, unitsLabel, type Change, type Imported, type ProjectDocument } from '@yard-arch/document';
import { taking } from '@yard-arch/edit';
import { useEffect, useId, useMemo, useState } from 'react';
import { Dialog } from '../common/Dialog.tsx';
import { complain } from '../common/notices.tsx';
import { ScaleFields } from '../fields/ScaleFields.tsx';
import { api } from '../state/api.ts';
import { take } from '../state/meshes.ts';
import { MeshPicture } from './MeshPicture.tsx';

interface BringProps {
  document: ProjectDocument;
  /** @returns whether it was taken. */
  onTake: (imported: Imported, changes: Change[]) => boolean;
  onClose: () => void;
}

type Read = { brought: BroughtMesh } | { fault: string } | null;

/** Reads a file whenever it, or how its figures are meant, is another. */
function useBrought(file: File | null, scale: ForeignScale): Read {
  const [read, setRead] = useState<Read>(null);
  useEffect(() => {
    setRead(null);
    if (!file) return;
    let late = false;
    const reading = async (): Promise<Read> => {
      try {
        const { bringMesh } = await import('@yard-arch/core/import-mesh');
        return { brought: await bringMesh(file.name, new Uint8Array(await file.arrayBuffer()), scale) };
      } catch (error) {
        return { fault: error instanceof Error ? error.message : String(error) };
      }
    };
    void reading().then((result) => !late && setRead(result));
    return () => {
      late = true;
    };
  }, [file, scale]);
  return read;
}

export function BringMesh({ document, onTake, onClose }: BringProps) {
  const [file, setFile] = useState<File | null>(null);
  const [scale, setScale] = useState<ForeignScale>({ unit: 1, up: 'y' });
  const [busy, setBusy] = useState(false);
  const read = useBrought(file, scale);
  const brought = read && 'brought' in read ? read.brought : null;
  const mesh = useMemo(() => brought && welded(readPlainGlb(brought.bytes)), [brought]);
  const held = Object.values(document.meshes);
  const bring = async (): Promise<void> => {
    if (!brought) return;
    setBusy(true);
    try {
      await api.keepMesh(brought.bytes);
      await take(brought.kept.sha256, brought.bytes);
      const { imported, changes } = taking(document, brought.kept, brought.materials);
      if (onTake(imported, changes)) onClose();
    } catch (error) {
      complain('The mesh was not taken in', (error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      title="A mesh from outside"
      confirm="Take it in"
      busy={busy}
      error={read && 'fault' in read ? read.fault : null}
      onClose={onClose}
      onConfirm={() => void bring()}
    >
      <p className="dialog-why">
        A handle, a bracket, a carved panel: it stands in the opening, and keeps its size, is stretched or repeated
        along each axis.
      </p>
      {held.length > 0 && (
        <div className="held" role="group" aria-label="Meshes of this project">
          {held.map((kept) => (
            <button
              key={kept.id}
              type="button"
              onClick={() => {
                const { imported, changes } = taking(document, kept);
                if (onTake(imported, changes)) onClose();
              }}
            >
              {kept.name}
            </button>
          ))}
        </div>
      )}
      <FileFields file={file} scale={scale} onFile={setFile} onScale={setScale} />
      {brought && mesh && <Told brought={brought} mesh={mesh} units={document.units} />}
    </Dialog>
  );
}

interface FileProps {
  file: File | null;
  scale: ForeignScale;
  onFile: (file: File | null) => void;
  onScale: (scale: ForeignScale) => void;
}

function FileFields({ file, scale, onFile, onScale }: FileProps) {
  const id = useId();
  return (
    <div className="particulars plain">
      <div className="row">
        <label className="label" htmlFor={id}>
          File
        </label>
        <div className="value">
          <input
            id={id}
            type="file"
            accept=".glb,.obj"
            aria-label="Mesh to read"
            onChange={(event) => onFile(event.target.files?.[0] ?? null)}
          />
        </div>
        <div className="note">OBJ or GLB</div>
      </div>
      <ScaleFields name={file?.name} scale={scale} onChange={onScale} />
    </div>
  );
}

/** From so many triangles on it is told that it is heavy. */
const heavy = 20_000;

function Told({
  brought: { kept, turned, materials },
  mesh,
  units,
}: {
  brought: BroughtMesh;
  mesh: PlainMesh;
  units: ProjectDocument['units'];
}) {
  const length = (metres: number): string => formatLength(metres, units);
  const [wide, deep, high] = kept.size;
  return (
    <div className="brought">
      <MeshPicture mesh={mesh} colours={materials.map(({ colour }) => colour)} />
      <ul className="said">
        <li>
          {length(wide)} wide, {length(deep)} deep, {length(high)} high, in {unitsLabel(units)};{' '}
          {kept.triangles.toLocaleString('en')} triangles
        </li>
        {kept.openEdges > 0 && (
          <li className="wrong">
            It is not closed: {kept.openEdges.toLocaleString('en')} open{' '}
            {kept.openEdges === 1 ? 'edge is' : 'edges are'} marked. It can be taken all the same.
          </li>
        )}
        {kept.triangles > heavy && (
          <li className="wrong">It is heavy: each opening that carries it draws as many triangles.</li>
        )}
        {turned && <li>All its faces looked inward; they were turned.</li>}
      </ul>
    </div>
  );
}
