/** The lines in which a roof's planes meet, on its sheet as it is seen from above. */
import { roofInPlan, sheetsOf } from '@yard-arch/core';
import type { Element, FaceName } from '@yard-arch/document';
import { xOf, yOf, type Viewport } from '../boards/viewport.ts';
import { useEditor } from '../state/state.ts';

export function RoofLines({ element, view }: { element: Element; view: Viewport }) {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const sheets = sheetsOf(document);
  const body = sheets.body(element.id);
  const chart = sheets.of(element.id)?.chart;
  if (!body || chart?.kind !== 'flat') return null;
  const { origin, along, up } = chart;
  const on = ([x, y]: readonly [number, number]): string => {
    const [dx, dy] = [x - origin[0], y - origin[1]];
    return `${xOf(view, dx * along[0] + dy * along[1])} ${yOf(view, dx * up[0] + dy * up[1])}`;
  };
  return roofInPlan(body)
    .lines.filter(({ is, step }) => step || (is !== 'eaves' && is !== 'verge' && is !== 'abutment'))
    .map(({ is, from, to }, i) => <path key={i} className={`roof-line ${is}`} d={`M${on(from)}L${on(to)}`} />);
}

/** The groins of a vault, or the crown opening of a dome, on its sheet as it is seen from above. */
export function Seams({ element, view }: { element: Element; view: Viewport }) {
  const document = useEditor((state) => state.draft ?? state.document)!;
  return (sheetsOf(document).of(element.id)?.seams ?? []).map(([ax, ay, bx, by], i) => (
    <path
      key={i}
      className="roof-line valley"
      d={`M${xOf(view, ax)} ${yOf(view, ay)}L${xOf(view, bx)} ${yOf(view, by)}`}
    />
  ));
}

/** The names of a plane's edges, along them on their inner side, where there is room. */
export function EdgeNames({ element, face, view }: { element: Element; face: FaceName; view: Viewport }) {
  const document = useEditor((state) => state.draft ?? state.document)!;
  const outline = sheetsOf(document).on(element.id, face)?.outline;
  if (!outline) return null;
  return outline.names.map((name, i) => {
    const j = outline.next[i]!;
    const [ax, ay] = [xOf(view, outline.xs[i]!), yOf(view, outline.ys[i]!)];
    const [bx, by] = [xOf(view, outline.xs[j]!), yOf(view, outline.ys[j]!)];
    const size = Math.hypot(bx - ax, by - ay);
    if (size < 60) return null;
    let angle = (Math.atan2(by - ay, bx - ax) * 180) / Math.PI;
    // To be read from below or from the right; the plane is on the left of its edges, as drawn up the page.
    const over = angle > 90 || angle <= -90;
    if (over) angle += 180;
    const [inX, inY] = [(by - ay) / size, -(bx - ax) / size];
    return (
      <text
        key={i}
        className="edge-name"
        textAnchor="middle"
        transform={`translate(${(ax + bx) / 2 + inX * 11} ${(ay + by) / 2 + inY * 11}) rotate(${angle})`}
        dy="4"
      >
        {name}
      </text>
    );
  });
}
