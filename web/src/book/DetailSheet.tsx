/** A pattern's own drawing: elevation, section and plan as one detail, edited where its dimensions stand; fields are chosen on the elevation. */
import type { Study } from '@yard-arch/core';
import { dimensionNames, formatLength, profileShapes, type Pattern } from '@yard-arch/document';
import type { FigureChoice } from '@yard-arch/edit';
import { useRef, useState, type PointerEvent } from 'react';
import type { EditedFigure } from '../boards/edited-figure.ts';
import { FigureField } from '../boards/FigureField.tsx';
import { commit } from '../state/store.ts';
import { Chain } from './Chain.tsx';
import { PlanView, Section, SlopePlan, SlopeSection } from './CutViews.tsx';
import { chainOf, depthChain, layoutOf, margin, sizeEdit, type Layout, type Span, type Told } from './detail.ts';
import { Elevation } from './Elevation.tsx';
import { Reveals } from './Reveals.tsx';
import { useRoom } from './use-room.ts';

export interface DetailProps {
  told: Told;
  study: Study;
  /** The path of the field that is chosen. */
  chosen: string | null;
  onChoose: (path: string | null) => void;
  /** Shows a pattern as it would be, or again as it is. */
  onDraft: (pattern: Pattern | null) => void;
}

export function DetailSheet(props: DetailProps) {
  const box = useRef<HTMLDivElement>(null);
  const { width, height } = useRoom(box);
  const [figure, setFigure] = useState<EditedFigure | null>(null);
  const { units } = props.told.document;
  return (
    <div className="detail" ref={box} data-testid="detail">
      {width > 0 && <Drawing {...props} width={width} height={height} onEdit={setFigure} />}
      {figure && (
        <FigureField
          key={`${figure.what} ${figure.x} ${figure.y}`}
          figure={figure}
          units={units}
          meanwhile={false}
          onShow={() => {}}
          onClose={() => setFigure(null)}
          onDone={(value, choice) => {
            const outcome = choice.apply(value);
            if ('reason' in outcome)
              return `${outcome.reason.charAt(0).toUpperCase()}${outcome.reason.slice(1)}. ${outcome.mend}`;
            if (!commit(outcome)) return null;
            setFigure(null);
            return null;
          }}
        />
      )}
    </div>
  );
}

interface DrawingProps extends DetailProps {
  width: number;
  height: number;
  onEdit: (figure: EditedFigure) => void;
}

/** Where the section and the plan are taken, as shares of the opening: beside a mullion in the middle, and below a transom. */
const taken = { along: 0.27, up: 0.38 };

function Drawing({ told, study, chosen, onChoose, onDraft, width, height, onEdit }: DrawingProps) {
  const layout = layoutOf(study, width, height);
  const { scale, elevation } = layout;
  const { placed, laid } = study;
  const { width: wide, height: high } = placed.profile;
  const [cutAt, setCutAt] = useState(taken);
  const at = { along: (cutAt.along - 0.5) * wide, up: cutAt.up * high };
  const x = (metres: number): number => elevation.x + metres * scale;
  const y = (metres: number): number => elevation.y - metres * scale;
  const { units } = told.document;
  return (
    <svg
      className="sheet"
      width={width}
      height={height}
      role="application"
      aria-label={`Detail of ${told.pattern.name}: click a field to choose it, a figure to type it anew; drag a bar to move it.`}
    >
      <defs>
        <pattern id="detail-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" />
        </pattern>
      </defs>
      <text className="title" x={x(-wide / 2 - layout.beside)} y={y(high + margin.above) - 14 - layout.over}>
        elevation, from {placed.face === 'inner' ? 'inside' : 'outside'}
      </text>
      <Elevation {...{ told, study, layout, chosen, onChoose, onDraft }} />
      <Dimensions
        told={told}
        shown={rising(study)}
        x={x(wide / 2 + layout.beside)}
        y={y(high + margin.above) - 14 - layout.over}
        onEdit={onEdit}
      />
      <CutLines {...{ layout, wide, high, cutAt }} onMove={setCutAt} />
      {study.cut === study.standing ? (
        <Section study={study} layout={layout} at={at.along + wide / 2 + placed.s} />
      ) : (
        <SlopeSection study={study} layout={layout} at={at.along + wide / 2} />
      )}
      {study.cut === study.standing ? (
        <PlanView study={study} layout={layout} at={at.up + placed.t} />
      ) : (
        <SlopePlan study={study} layout={layout} at={at.up} />
      )}
      {study.cut === study.standing && (
        <Reveals {...{ told, study, layout, chosen, onChoose, onEdit }} at={at.along + wide / 2} />
      )}
      <Chain spans={chainOf(laid, 0, at.up, told)} units={units} at={y(-margin.below) + 36} place={x} onEdit={onEdit} />
      <Chain
        spans={[
          {
            from: -wide / 2,
            to: wide / 2,
            edit: sizeEdit(told, ['width', 'span', 'diameter'], 'Width'),
          },
        ]}
        units={units}
        at={y(-margin.below) + 64}
        place={x}
        onEdit={onEdit}
      />
      <Chain
        upright
        spans={chainOf(laid, 1, at.along, told)}
        units={units}
        at={x(-wide / 2 - layout.beside) - 22}
        place={y}
        onEdit={onEdit}
      />
      <Chain
        upright
        spans={heights(study, told)}
        units={units}
        at={x(-wide / 2 - layout.beside) - 56}
        place={y}
        onEdit={onEdit}
      />
      {study.cut === study.standing && <Depths {...{ told, study, layout, onEdit }} />}
    </svg>
  );
}

interface DepthsProps extends Pick<DrawingProps, 'told' | 'study' | 'onEdit'> {
  layout: Layout;
}

/** How deep what stands in the wall is, and the wall itself, below the section. */
function Depths({ told, study, layout: { scale, elevation, section }, onEdit }: DepthsProps) {
  const foot = elevation.y + margin.below * scale;
  const common = { units: told.document.units, place: (metres: number) => section.x + metres * scale, onEdit };
  const whole: Span[] = [{ from: 0, to: study.cut.sheet.thickness, edit: null }];
  const parted = depthChain(study, told);
  return (
    <>
      {parted.length > 1 && <Chain {...common} spans={parted} at={foot + 36} />}
      <Chain {...common} spans={whole} at={foot + 64} />
    </>
  );
}

interface DimensionsProps extends Pick<DrawingProps, 'told' | 'onEdit'> {
  /** Whether its rise is measured elsewhere. */
  shown: boolean;
  x: number;
  y: number;
}

/** What a profile is given besides what its chains measure, as words at the corner of the elevation: the first above the wall, the others on it. */
function Dimensions({ told, shown, x, y, onEdit }: DimensionsProps) {
  const { shape } = told.pattern.profile;
  const others = dimensionNames(shape).filter((name) => !measured.has(name) && !(shown && name === 'rise'));
  return others.map((name, i) => {
    const label = (profileShapes[shape].dimensions as Record<string, string>)[name]!;
    const value = told.size.dimensions[name] ?? 0;
    const edit = sizeEdit(told, [name], label)!;
    const text = `${label} ${formatLength(value, told.document.units)}`;
    const at = { x: i === 0 ? x : x - 6, y: i === 0 ? y : y + 14 + i * 18 };
    const open = (): void => onEdit({ what: name, label, value, ...at, choices: edit.choices() });
    return (
      <g
        key={name}
        className="measure editable own"
        role="button"
        tabIndex={0}
        aria-label={text}
        onClick={open}
        onKeyDown={(event) => event.key === 'Enter' && open()}
      >
        <text {...at} textAnchor="end">
          {text}
        </text>
      </g>
    );
  });
}

const measured: ReadonlySet<string> = new Set(['width', 'span', 'diameter', 'height']);

/** Whether the height of a profile is told up to its springing and from there on. */
const rising = ({ placed: { profile } }: Study): boolean =>
  profile.springing !== null && profile.springing > 0.001 && profile.springing < profile.height - 0.001;

/** The heights of the profile: up to its springing, and all of it. */
function heights(study: Study, told: Told): Span[] {
  const { profile } = study.placed;
  const { height, springing } = profile;
  const whole = sizeEdit(told, ['height', 'diameter'], 'Height');
  const rise = sizeEdit(told, ['rise'], 'Rise');
  if (springing === null || !rising(study)) return [{ from: 0, to: height, edit: whole }];
  // Up to its springing is what its height is without its rise, which stays.
  const below = whole && {
    ...whole,
    label: 'Height to the springing',
    choices: () => raised(whole, height - springing),
  };
  return [
    { from: 0, to: springing, edit: below },
    { from: springing, to: height, edit: rise ?? whole },
  ];
}

/** The choices of a figure that is so much less than what it changes. */
const raised = (edit: NonNullable<Span['edit']>, by: number): FigureChoice[] =>
  edit.choices().map(({ label, apply }) => ({ label, apply: (value) => apply(value + by) }));

interface CutLinesProps {
  layout: Layout;
  wide: number;
  high: number;
  cutAt: { along: number; up: number };
  onMove: (at: { along: number; up: number }) => void;
}

/** Where section and plan are taken: two lines with arrows, dragged by them. */
function CutLines({ layout, wide, high, cutAt, onMove }: CutLinesProps) {
  const { scale, elevation } = layout;
  const x = elevation.x + (cutAt.along - 0.5) * wide * scale;
  const y = elevation.y - cutAt.up * high * scale;
  const [top, foot] = [elevation.y - (high + margin.above) * scale, elevation.y + margin.below * scale];
  const right = elevation.x + (wide / 2 + layout.beside) * scale;
  const left = elevation.x - (wide / 2 + layout.beside) * scale;
  const clamp = (share: number): number => Math.max(0.02, Math.min(0.98, share));
  const drag = (move: (event: PointerEvent<SVGGElement>, frame: DOMRect) => void) => ({
    onPointerDown: (event: PointerEvent<SVGGElement>) => event.currentTarget.setPointerCapture(event.pointerId),
    onPointerMove: (event: PointerEvent<SVGGElement>) => {
      if (event.buttons === 1) move(event, event.currentTarget.ownerSVGElement!.getBoundingClientRect());
    },
  });
  return (
    <g className="cut-lines">
      <g
        className="mullion"
        {...drag((event, frame) =>
          onMove({ ...cutAt, along: clamp((event.clientX - frame.left - elevation.x) / scale / wide + 0.5) }),
        )}
      >
        <path d={`M${x} ${top - 4}v16M${x} ${foot - 12}v16`} />
        <path className="arrow" d={`M${x} ${top - 4}h9l-4 -3m4 3l-4 3M${x} ${foot + 4}h9l-4 -3m4 3l-4 3`} />
        <rect x={x - 6} y={top - 10} width={20} height={22} />
        <rect x={x - 6} y={foot - 12} width={20} height={22} />
      </g>
      <g
        className="transom"
        {...drag((event, frame) =>
          onMove({ ...cutAt, up: clamp((elevation.y - (event.clientY - frame.top)) / scale / high) }),
        )}
      >
        <path d={`M${left - 4} ${y}h16M${right - 12} ${y}h16`} />
        <path className="arrow" d={`M${left - 4} ${y}v9l-3 -4m3 4l3 -4M${right + 4} ${y}v9l-3 -4m3 4l3 -4`} />
        <rect x={left - 10} y={y - 6} width={22} height={20} />
        <rect x={right - 12} y={y - 6} width={22} height={20} />
      </g>
    </g>
  );
}
