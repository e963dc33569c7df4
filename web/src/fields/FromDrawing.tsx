/** An outline taken from an SVG or DXF drawing: which of its rings, at what scale, and what in it cannot be used. */
import { Button } from '@chakra-ui/react';
import { DrawingError, largestDrawing, readDrawing, takeOutline, type Drawing } from '@yard-arch/core/drawing';
import { formatLength, limits, unitsLabel, type Units } from '@yard-arch/document';
import type { Outlined } from '@yard-arch/edit';
import { FileUp } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { WideDialog } from '../common/WideDialog.tsx';
import { LengthField } from './Fields.tsx';
import { DrawnRings } from './DrawnRings.tsx';

interface FromDrawingProps {
  units: Units;
  open: boolean;
  /** What is done with the outline, as its button says. */
  confirm: string;
  /** @param name of the drawing, without what tells its format. */
  onTake: (drawn: Outlined, name: string) => boolean;
  onClose: () => void;
}

interface Chosen {
  name: string;
  text: string;
}

export function FromDrawing({ units, open, confirm, onTake, onClose }: FromDrawingProps) {
  const [file, setFile] = useState<Chosen | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const shut = (): void => {
    setFile(null);
    setFault(null);
    onClose();
  };
  const read = async (chosen: File): Promise<void> => {
    setFault(null);
    if (chosen.size > largestDrawing)
      return setFault(
        `${chosen.name} is larger than ${largestDrawing / 1e6} MB. Leave only the outline in the drawing.`,
      );
    setFile({ name: chosen.name, text: await chosen.text() });
  };
  return (
    <WideDialog open={open} title="An outline from a drawing" width={720} onClose={shut}>
      <div className="from-drawing">
        <FileChoice name={file?.name ?? null} onFile={(chosen) => void read(chosen)} />
        {fault && <p role="alert">{fault}</p>}
        {file && (
          <Rings
            key={file.name + file.text.length}
            file={file}
            units={units}
            confirm={confirm}
            onTake={(drawn) => onTake(drawn, file.name.replace(/\.\w+$/, '')) && shut()}
          />
        )}
      </div>
    </WideDialog>
  );
}

function FileChoice({ name, onFile }: { name: string | null; onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <div
      className={name ? 'file' : 'file empty'}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const [dropped] = event.dataTransfer.files;
        if (dropped) onFile(dropped);
      }}
    >
      <button onClick={() => input.current?.click()}>
        <FileUp size={15} /> {name ? 'Another drawing…' : 'Choose a drawing…'}
      </button>
      <span>
        {name ?? 'SVG or DXF, in which the outline is drawn as closed lines and curves. It can be dropped here too.'}
      </span>
      <input
        ref={input}
        type="file"
        hidden
        accept=".svg,.dxf,image/svg+xml"
        aria-label="Drawing to read"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) onFile(chosen);
        }}
      />
    </div>
  );
}

interface RingsProps {
  file: Chosen;
  units: Units;
  confirm: string;
  onTake: (drawn: Outlined) => void;
}

const millimetre = 0.001;

/** Takes whatever is given. */
const taken =
  (set: (to: number) => void) =>
  (to: number): boolean => {
    set(to);
    return true;
  };

/** A drawing as it is read, or what is wrong with it. @param tolerance in its own units */
function useDrawing({ name, text }: Chosen, tolerance: number): Drawing | string {
  return useMemo(() => {
    try {
      return readDrawing(name, text, tolerance);
    } catch (error) {
      if (error instanceof DrawingError) return error.message;
      return 'The drawing cannot be read: it is damaged, or no SVG or DXF.';
    }
  }, [name, text, tolerance]);
}

function Rings({ file, units, confirm, onTake }: RingsProps) {
  const [given, setGiven] = useState<number | null>(null);
  const [tolerance, setTolerance] = useState(millimetre / 2);
  const [ring, setRing] = useState(0);
  // What its unit is, is told by it whatever its curves are followed to.
  const told = useDrawing(file, 1);
  const unit = given ?? (typeof told === 'string' ? null : told.unit) ?? millimetre;
  const drawing = useDrawing(file, tolerance / unit);
  if (typeof drawing === 'string') return <p role="alert">{drawing}</p>;
  const worded = (metres: number): string => `${formatLength(metres, units)} ${unitsLabel(units)}`;
  const at = Math.min(ring, drawing.rings.length - 1);
  const drawn = drawing.rings.length > 0 ? takeOutline(drawing, at, unit, worded) : null;
  const scaledBy =
    (was: number) =>
    (to: number): boolean =>
      taken(setGiven)((unit * to) / was);
  return (
    <>
      <DrawnRings drawing={drawing} chosen={at} crossing={drawn?.crossing ?? null} onChoose={setRing} />
      <div className="scale particulars plain">
        <LengthField label="One unit is" value={unit} units={units} within={limits.extent} onChange={taken(setGiven)} />
        <LengthField
          label="Curves kept to"
          value={tolerance}
          units={units}
          within={limits.extent}
          onChange={taken(setTolerance)}
        />
        {drawn && (
          <>
            <LengthField
              label="Width"
              value={drawn.width}
              units={units}
              within={limits.extent}
              onChange={scaledBy(drawn.width)}
            />
            <LengthField
              label="Height"
              value={drawn.height}
              units={units}
              within={limits.extent}
              onChange={scaledBy(drawn.height)}
            />
          </>
        )}
      </div>
      <Said drawing={drawing} chosen={at} reason={drawn?.reason ?? null} />
      <Button
        alignSelf="end"
        bg="ink"
        color="white"
        disabled={!drawn || drawn.reason !== null}
        onClick={() => drawn && onTake(drawn)}
      >
        {confirm}
      </Button>
    </>
  );
}

/** What is taken of a drawing, and what is not. */
function Said({ drawing, chosen, reason }: { drawing: Drawing; chosen: number; reason: string | null }) {
  const { rings, open, skipped } = drawing;
  const islands = rings.filter(({ within }) => within === chosen).length;
  const others = rings.length - 1 - islands;
  const count = (n: number, one: string, many: string): string => (n === 1 ? `1 ${one}` : `${n} ${many}`);
  return (
    <ul className="said">
      {reason && (
        <li role="alert" className="wrong">
          {reason}
        </li>
      )}
      {rings.length === 0 && (
        <li role="alert" className="wrong">
          Nothing in it is closed. Close the lines whose ends are marked, or keep curves less closely, so that ends that
          far apart are joined.
        </li>
      )}
      {rings.length > 0 && (
        <li>
          {`The outline has ${count(rings[chosen]!.outline.length, 'point', 'points')}`}
          {islands > 0 ? `, and ${count(islands, 'island stands', 'islands stand')} in it.` : '.'}
          {others > 0 &&
            ` ${count(others, 'other ring is', 'other rings are')} left out; click one to take it instead.`}
        </li>
      )}
      {rings.length > 0 && open.length > 0 && (
        <li className="wrong">
          {count(
            open.length,
            'line does not close and is left out; its ends are',
            'lines do not close and are left out; their ends are',
          )}{' '}
          marked.
        </li>
      )}
      {skipped.size > 0 && (
        <li>{`Not read: ${[...skipped].map(([name, n]) => `${name.toLowerCase()}${n > 1 ? ` (${n})` : ''}`).join(', ')}.`}</li>
      )}
    </ul>
  );
}
