/** The reveal where plan and section cut it: a click opens its section, and the figures of that stand by it. */
import type { Study } from '@yard-arch/core';
import type { Units } from '@yard-arch/document';
import type { EditedFigure } from '../boards/edited-figure.ts';
import { Chain } from './Chain.tsx';
import type { Layout, Span, Told } from './detail.ts';
import { metAt, revealsOf, type Met, type RevealDrawn } from './reveal.ts';

interface RevealsProps {
  told: Told;
  study: Study;
  layout: Layout;
  /** Where the section is taken, metres along from the opening's left. */
  at: number;
  chosen: string | null;
  onChoose: (path: string | null) => void;
  onEdit: (figure: EditedFigure) => void;
}

/** How far chains stand from the wall, pixels: level ones, and upright ones, whose figures are on the wall's side of them. */
const [above, beside] = [12, 34];

export function Reveals({ told, study, layout, at, chosen, onChoose, onEdit }: RevealsProps) {
  const { scale, section, plan } = layout;
  const { placed, cut } = study;
  const { thickness } = cut.sheet;
  const { width } = placed.profile;
  const reveals = revealsOf(study, told);
  const met = metAt(study, at);
  // Depths are told from the face on which the opening is set out.
  const deep = (n: number): number => (placed.face === 'inner' ? thickness - n : n);
  const jamb = (n: number, offset: number): string =>
    `${plan.x + (width / 2 + offset) * scale} ${plan.y - deep(n) * scale}`;
  const other = (n: number, offset: number): string =>
    `${plan.x - (width / 2 + offset) * scale} ${plan.y - deep(n) * scale}`;
  const upright = (level: number, way: 1 | -1) => (n: number, offset: number) =>
    `${section.x + deep(n) * scale} ${section.y - (level + way * offset) * scale}`;
  const paths = (reveal: RevealDrawn): string[] => {
    if (reveal.part === 'jambs') return [along(reveal, jamb), along(reveal, other)];
    const level = met?.[reveal.part];
    return level ? [along(reveal, upright(level.t, reveal.part === 'head' ? 1 : -1))] : [];
  };
  return (
    <g className="reveals">
      {reveals.map((reveal) => (
        <g
          key={reveal.part}
          className={`reveal-line${chosen === `reveal/${reveal.part}` ? ' chosen' : ''}`}
          role="button"
          tabIndex={0}
          aria-label={`Reveal of the ${reveal.label}`}
          onClick={() => onChoose(`reveal/${reveal.part}`)}
          onKeyDown={(event) => event.key === 'Enter' && onChoose(`reveal/${reveal.part}`)}
        >
          <title>{`Reveal of the ${reveal.label}: its section`}</title>
          {paths(reveal).map((d, i) => (
            <g key={i}>
              <path className="hit" d={d} />
              <path className="shown" d={d} />
            </g>
          ))}
        </g>
      ))}
      <Jambs {...{ reveal: reveals[0]!, layout, width, thickness, deep, units: told.document.units, onEdit }} />
      {reveals.map(
        (reveal) =>
          reveal.part !== 'jambs' &&
          met?.[reveal.part].level && (
            <Levels
              key={reveal.part}
              {...{ reveal, layout, thickness, deep, units: told.document.units, onEdit }}
              level={met[reveal.part]}
            />
          ),
      )}
    </g>
  );
}

const along = ({ line: { n, offset } }: RevealDrawn, place: (n: number, offset: number) => string): string =>
  `M${n.map((depth, i) => place(depth, offset[i]!)).join('L')}`;

interface FiguresProps {
  reveal: RevealDrawn;
  layout: Layout;
  thickness: number;
  deep: (n: number) => number;
  units: Units;
  onEdit: (figure: EditedFigure) => void;
}

/** Figures of the jambs, by the right one in the plan: depths beside the wall, steps above what is inside and below what is outside. */
function Jambs({ reveal, layout, width, thickness, deep, units, onEdit }: FiguresProps & { width: number }) {
  const { scale, plan } = layout;
  const common = { units, onEdit };
  const edge = (offset: number): number => plan.x + (width / 2 + offset) * scale;
  const [within, before] = sidesOf(reveal, deep);
  return (
    <>
      <Chain
        {...common}
        upright
        spans={reveal.depths}
        at={plan.x + (width / 2 + layout.beside) * scale + beside}
        place={(n) => plan.y - deep(n) * scale}
      />
      <Chain {...common} spans={within} at={plan.y - thickness * scale - above} place={edge} />
      <Chain {...common} spans={before} at={plan.y + above + 14} place={edge} />
    </>
  );
}

/** The steps that are measured within, and those on the face before it. */
const sidesOf = ({ steps }: RevealDrawn, deep: (n: number) => number): [Span[], Span[]] => [
  steps.filter(({ at }) => deep(at) > 0),
  steps.filter(({ at }) => deep(at) === 0),
];

/** Steps of the head or the sill, beside the section. */
function Levels({ reveal, layout, thickness, deep, units, onEdit, level }: FiguresProps & { level: Met }) {
  const { scale, section } = layout;
  const way = reveal.part === 'head' ? 1 : -1;
  const [within, before] = sidesOf(reveal, deep);
  const place = (offset: number): number => section.y - (level.t + way * offset) * scale;
  const common = { units, onEdit, place, upright: true };
  return (
    <>
      <Chain {...common} spans={within} at={section.x + thickness * scale + beside} />
      <Chain {...common} spans={before} at={section.x - 20} />
    </>
  );
}
