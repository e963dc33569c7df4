/** Bringing in single sheets from a file of another program: they are read first, shown, and then given a thickness. */
import { readEndings } from '@yard-arch/core/formats';
import { bentWords, singleSheetsOf, usualTolerance, type FoundSheets } from '@yard-arch/core';
import type { ForeignScale } from '@yard-arch/core/read-mesh';
import { limits, formatLength, unitsLabel, type ProjectDocument, type Units } from '@yard-arch/document';
import { bringSheets } from '@yard-arch/edit';
import { useEffect, useId, useState } from 'react';
import { Dialog } from '../common/Dialog.tsx';
import { LengthField } from '../fields/Fields.tsx';
import { MaterialChoice } from '../fields/Sample.tsx';
import { ScaleFields } from '../fields/ScaleFields.tsx';
import { chooseElement } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';

/** What is sensible for sheets of a building, metres; the document would take more. */
const mostTolerance = { least: limits.extent.least, most: 1 };
const mostThickness = { least: limits.extent.least, most: 10 };

type Read = { found: FoundSheets } | { fault: string } | null;

export function SheetsDialog({ document }: { document: ProjectDocument }) {
  const open = useEditor((state) => state.dialog === 'sheets');
  return open ? <Bringing document={document} onClose={() => useEditor.setState({ dialog: null })} /> : null;
}

/** What a file holds, read anew when it, its scale or the tolerance changes. */
function useRead(file: File | null, scale: ForeignScale, tolerance: number): readonly [Read, (read: Read) => void] {
  const [read, setRead] = useState<Read>(null);
  useEffect(() => {
    if (!file) return;
    let late = false;
    void readFrom(file, scale, tolerance).then((result) => !late && setRead(result));
    return () => {
      late = true;
    };
  }, [file, scale, tolerance]);
  return [read, setRead];
}

async function readFrom(file: File, scale: ForeignScale, tolerance: number): Promise<Read> {
  try {
    // Only who brings something in fetches what reads it.
    const { readMesh } = await import('@yard-arch/core/read-mesh');
    const mesh = await readMesh(file.name, new Uint8Array(await file.arrayBuffer()), scale);
    const found = singleSheetsOf(mesh, tolerance);
    if (found.sheets.length + found.bent.length > 0) return { found };
    const solids = found.closed > 0 ? `, but ${told(found.closed, 'closed solid')}, which has a thickness already` : '';
    return { fault: `“${file.name}” holds no single sheet${solids}. Bring in the faces of one side only.` };
  } catch (error) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }
}

function Bringing({ document, onClose }: { document: ProjectDocument; onClose: () => void }) {
  const { units } = document;
  const id = useId();
  const [file, setFile] = useState<File | null>(null);
  const [scale, setScale] = useState<ForeignScale>({ unit: 1, up: 'y' });
  const [tolerance, setTolerance] = useState(usualTolerance);
  const [thickness, setThickness] = useState(0.2);
  const [material, setMaterial] = useState(
    Object.values(document.elements).at(-1)?.layers[0]?.material ?? Object.keys(document.materials)[0] ?? '',
  );
  const [read, setRead] = useRead(file, scale, tolerance);
  const found = read && 'found' in read ? read.found : null;
  const bring = (): void => {
    if (!file) return setRead({ fault: 'Choose a file first.' });
    if (!found) return;
    if (found.sheets.length === 0) return setRead({ fault: 'Nothing of it can be taken within that tolerance.' });
    const name = file.name.replace(/\.[^.]+$/, '').slice(0, 100) || 'Sheet';
    const made = bringSheets(document, found.sheets, { name, thickness, material });
    if (!commit(made.changeSet)) return;
    onClose();
    chooseElement(made.ids[0]!);
  };
  return (
    <Dialog
      open
      title="Bring in single sheets"
      confirm={found && found.sheets.length > 1 ? `Bring in ${found.sheets.length}` : 'Bring it in'}
      error={read && 'fault' in read ? read.fault : null}
      onClose={onClose}
      onConfirm={bring}
    >
      <p className="dialog-why">
        Faces without thickness, drawn in another program, become walls, panels and slabs. Their fronts become outer
        faces; the thickness goes in from there.
      </p>
      <div className="particulars plain">
        <div className="row">
          <label className="label" htmlFor={id}>
            File
          </label>
          <div className="value">
            <input
              id={id}
              type="file"
              accept={readEndings.join(',')}
              data-testid="sheets-file"
              onChange={(event) => {
                setRead(null);
                setFile(event.target.files?.[0] ?? null);
              }}
            />
          </div>
          <div className="note">OBJ or GLB</div>
        </div>
        <ScaleFields name={file?.name} scale={scale} onChange={setScale} />
        <LengthField
          label="Tolerance"
          value={tolerance}
          units={units}
          positive
          note="what is taken may stray so far"
          within={mostTolerance}
          onChange={(metres) => {
            setTolerance(metres);
            return true;
          }}
        />
        <LengthField
          label="Thickness"
          value={thickness}
          units={units}
          positive
          note={unitsLabel(units)}
          within={mostThickness}
          onChange={(metres) => {
            setThickness(metres);
            return true;
          }}
        />
        <MaterialChoice label="Material" value={material} document={document} onChange={setMaterial} />
      </div>
      {found && <Found found={found} document={document} />}
    </Dialog>
  );
}

const told = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

function worded(sheet: FoundSheets['sheets'][number], units: Units): string {
  const sizes = (width: number, height: number): string =>
    `${formatLength(width, units)} × ${formatLength(height, units)}, ${Math.round(sheet.area * 100) / 100} m²`;
  if ('runs' in sheet) {
    const long = sheet.runs.reduce((sum, { length }) => sum + length, 0);
    const swept = Math.round(sheet.runs.reduce((sum, { sweep = 0 }) => sum + Math.abs(sweep), 0) * 10) / 10;
    return `${sizes(long, sheet.height)}, a wall${swept > 0 ? `, curved by ${swept}°` : ''}`;
  }
  const { outline, holes, tilt } = sheet;
  const how = tilt === 90 ? 'upright' : tilt === 0 ? 'level' : `at ${Math.round(tilt * 10) / 10}°`;
  return `${sizes(Math.max(...outline.map(({ x }) => x)), Math.max(...outline.map(({ y }) => y)))}${holes.length > 0 ? `, ${told(holes.length, 'hole')}` : ''}, ${how}`;
}

function Found({
  found: { sheets, closed, leftOut, bent },
  document: { units },
}: {
  found: FoundSheets;
  document: ProjectDocument;
}) {
  const most = 5;
  return (
    <div className="found-sheets" role="status">
      <b>{told(sheets.length, 'sheet')} found</b>
      <ul>
        {sheets.slice(0, most).map((sheet, i) => (
          <li key={i}>{worded(sheet, units)}</li>
        ))}
      </ul>
      {sheets.length > most && <p>and {sheets.length - most} more</p>}
      {closed > 0 && (
        <p>
          {told(closed, 'closed solid')} left out: {closed === 1 ? 'it has' : 'they have'} a thickness already.
        </p>
      )}
      {bent.length > 0 && (
        <p className="bad">
          {bentWords(bent, (metres) => formatLength(Math.ceil(metres * 1e4) / 1e4, units))}{' '}
          {bent.length === 1 ? 'It is' : 'They are'} left out; with a larger tolerance{' '}
          {bent.length === 1 ? 'it is' : 'they are'} taken as flat.
        </p>
      )}
      {leftOut > 0 && <p>{told(leftOut, 'piece')} left out: too small, or of more than 4,000 corners.</p>}
    </div>
  );
}
