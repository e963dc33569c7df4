/** The title block: what is drawn, at what scale, what is cut, what is not, and whether it is sound. */
import { faceLabel, type Element, type FaceName } from '@yard-arch/document';
import { useEditor } from '../state/state.ts';

const many = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;

export function TitleBlock({ element, face }: { element: Element; face: FaceName }) {
  const drawn = useEditor((state) => state.drawn.get(element.id));
  const proof = useEditor((state) => state.proofs.get(element.id));
  const failure = useEditor((state) => state.cutFailure);
  const count = { cut: 0, notched: 0, niche: 0, boss: 0, imprint: 0, 'blocked up': 0, 'not cut': 0, ...drawn?.states };
  const cut = count.cut + count.notched;
  const faults = count['not cut'];
  const rest = [
    count.niche > 0 && many(count.niche, 'niche'),
    count.boss > 0 && many(count.boss, 'boss', 'bosses'),
    count.imprint > 0 && many(count.imprint, 'imprint'),
    count['blocked up'] > 0 && `${count['blocked up']} blocked up`,
  ].filter(Boolean);
  return (
    <div className="title-block" aria-live="polite" data-testid="title-block">
      <div className="what">
        <strong>{element.name}</strong>
        <span>{face === 'inner' ? `${faceLabel(element, face)}, seen from within` : faceLabel(element, face)}</span>
      </div>
      <div className="how">
        <span>
          {cut} cut{count.notched > 0 ? `, ${count.notched} of them notched` : ''}
          {rest.map((text) => ` · ${text}`).join('')}
        </span>
        {drawn?.fault ? (
          <span className="bad" title={drawn.fault.mend}>
            {drawn.fault.reason}
          </span>
        ) : failure ? (
          <span className="bad">could not be cut: {failure}</span>
        ) : faults > 0 ? (
          <span className="bad">{many(faults, 'opening')} not cut</span>
        ) : !drawn || !proof ? (
          <span>{drawn ? 'being checked…' : 'being cut…'}</span>
        ) : proof.closed ? (
          <span className="good">
            sound: closed{drawn.pieces > 1 ? `, in ${drawn.pieces} pieces` : ''}
            {cut > 0 ? ', all cut' : ''}
          </span>
        ) : (
          <span className="bad">not closed: {many(proof.openEdges + proof.nonManifoldEdges, 'open edge')}</span>
        )}
      </div>
    </div>
  );
}
