/** A roof in plan: its planes with the way they fall, the lines in which they meet, its edges, and the openings on it. */
import { pointAt, resolveOpening, roofInPlan, sheetsOf, type Point } from '@yard-arch/core';
import { edgeLabels, type ProjectDocument, type Roof } from '@yard-arch/document';
import { addOutlineCorner, outlineCorners } from '@yard-arch/edit';
import { chooseElement } from '../state/choice.ts';
import { useEditor, useFace } from '../state/state.ts';
import { commitOr } from '../state/store.ts';
import type { OnBoard } from './Plan.tsx';

interface RoofShapeProps {
  roof: Roof;
  document: ProjectDocument;
  chosen: boolean;
  /** Whether it can be chosen. */
  choosing: boolean;
  board: OnBoard;
}

export function RoofShape({ roof, document, chosen, choosing, board }: RoofShapeProps) {
  const hidden = useEditor((state) => state.hidden.has(roof.id));
  const body = sheetsOf(document).body(roof.id);
  const own = {
    'data-element': roof.id,
    role: 'button',
    tabIndex: choosing ? 0 : undefined,
    'aria-label': roof.name,
    'aria-pressed': chosen,
    onKeyDown: (event: React.KeyboardEvent) => {
      if (event.key !== 'Enter' && event.key !== ' ') return;
      event.preventDefault();
      event.stopPropagation();
      chooseElement(roof.id);
    },
  };
  const { path } = board;
  if (!body) return <Unmade roof={roof} own={own} board={board} />;
  const plan = roofInPlan(body);
  return (
    <g className={`walled roof${chosen ? ' chosen' : ''}${hidden ? ' away' : ''}`} {...own}>
      <title>{roof.name}</title>
      {/* Over the walls it is seen through: they can be taken hold of where it is not chosen. */}
      {plan.planes.map(({ face, loops }) => (
        <path key={face} className="plane" data-face={face} fillRule="evenodd" d={loops.map((l) => path(l)).join('')} />
      ))}
      {chosen && <ChosenPlane roof={roof} plan={plan} board={board} />}
      {plan.lines.map(({ is, from, to }, i) => (
        <path key={i} className={`roof-line ${is}`} d={path([from, to], false)} />
      ))}
      <OnPlanes roof={roof} document={document} board={board} />
      {plan.planes.map((plane) => (
        <Fall key={plane.face} {...plane} board={board} />
      ))}
      {chosen && <Edges roof={roof} plan={plan} board={board} />}
    </g>
  );
}

type Plan = ReturnType<typeof roofInPlan>;

/** The plane whose sheet is on the board. */
function ChosenPlane({ roof, plan, board: { path } }: { roof: Roof; plan: Plan; board: OnBoard }) {
  const face = useFace(roof.id);
  const plane = plan.planes.find((one) => one.face === face);
  return plane ? (
    <path className="plane shown" fillRule="evenodd" d={plane.loops.map((l) => path(l)).join('')} />
  ) : null;
}

/** An arrow down the slope, with the pitch beside it, where there is room. */
function Fall({ face, loops, pitch, middle, falls, board: { x, y } }: Plan['planes'][number] & { board: OnBoard }) {
  const across = Math.min(
    ...[0, 1].map((k) => {
      const at = loops.flat().map((p) => p[k]!);
      return Math.max(...at) - Math.min(...at);
    }),
  );
  const scale = Math.abs(x([1, 0]) - x([0, 0]));
  if (across * scale < 34) return null;
  const [mx, my] = [x(middle), y(middle)];
  const [fx, fy] = [falls[0], -falls[1]];
  const long = Math.min(22, across * scale * 0.3);
  const [ex, ey] = [mx + fx * long, my + fy * long];
  const head = [-1, 1].map((s) => `${ex - fx * 6 + s * fy * 4} ${ey - fy * 6 - s * fx * 4}`);
  return (
    <g className="fall">
      <path d={`M${mx - fx * long} ${my - fy * long}L${ex} ${ey}M${head[0]}L${ex} ${ey}L${head[1]}`} />
      {!isFurtherFacet(face) && (
        <text x={mx + Math.abs(fy) * 14 + 4} y={my + Math.abs(fx) * 14 + 4}>
          {Number(pitch.toFixed(1))}°
        </text>
      )}
    </g>
  );
}

/** Whether a plane is a facet of an arc besides the first, which tells the pitch of all. */
const isFurtherFacet = (face: string): boolean => /-\d+$/.test(face) && !face.endsWith('-1');

/** The openings on its planes, as they are seen from above. */
function OnPlanes({ roof, document, board: { path } }: { roof: Roof; document: ProjectDocument; board: OnBoard }) {
  const statuses = useEditor((state) => state.statuses);
  const sheets = sheetsOf(document);
  return Object.values(document.openings).map((opening) => {
    if (opening.element !== roof.id) return null;
    const placed = resolveOpening(document, opening);
    const sheet = sheets.on(roof.id, opening.face);
    if (!sheet || !('outline' in placed)) return null;
    const { outline, s, t } = placed;
    const points = Array.from(outline.xs, (px, i): Point => {
      const [a, b] = pointAt(sheet.chart, px + s, outline.ys[i]! + t, 0);
      return [a, b];
    });
    const failed = statuses.get(opening.id)?.state === 'not cut';
    return (
      <path
        key={opening.id}
        className={`gap${opening.blockedUp ? ' blocked' : ''}${failed ? ' not-cut' : ''}`}
        d={path(points)}
      />
    );
  });
}

/** The edges of the chosen roof, each to be chosen. */
function Edges({ roof, plan, board: { path } }: { roof: Roof; plan: Plan; board: OnBoard }) {
  const now = useEditor(({ chosen }) => (chosen.kind === 'edge' ? chosen.id : null));
  const labels = edgeLabels(roof);
  return plan.edges.map(({ of, from, to }, i) => (
    <g
      key={i}
      className={`roof-edge${of.id === now ? ' chosen' : ''}`}
      data-edge={of.id}
      onDoubleClick={(event) => {
        event.stopPropagation();
        commitOr(addOutlineCorner(roof, of.id));
      }}
    >
      <title>{`${labels.get(of.id)}: ${of.is}. Drag it out or in; a double click puts a corner into it`}</title>
      <path className="reach" d={path([from, to], false)} />
      <path d={path([from, to], false)} />
    </g>
  ));
}

/** A roof that cannot be made: its outline as it was drawn. */
function Unmade({ roof, own, board: { path } }: { roof: Roof; own: object; board: OnBoard }) {
  // Its own corners come before those of its courtyards.
  const points = outlineCorners(roof)
    .slice(0, roof.edges.length)
    .map(({ at }) => at);
  return (
    <g className="walled roof failed" {...own}>
      <title>{roof.name}</title>
      <path className="plane" d={path(points)} />
      <path className="roof-line eaves" d={path(points)} />
    </g>
  );
}
