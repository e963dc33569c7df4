/** Gaps between a roof's planes, told. */
import { faceLabel, isManyFaced, type Element, type ProjectDocument } from '@yard-arch/document';
import { gapsOf } from '../element/roof-gaps.ts';
import { sheetsOf } from '../element/sheets.ts';
import type { Told } from '../finding.ts';
import { worded } from '../setout/placed.ts';

/** What is to be told of a roof one of whose planes ends in the air above another. */
export function gapsTold(document: ProjectDocument, element: Element): Told[] {
  const body = isManyFaced(element) ? sheetsOf(document).body(element.id) : null;
  if (!body) return [];
  return gapsOf(body).map(({ upper, lower, high }) => ({
    code: 'open-step',
    reason: `its ${faceLabel(element, upper)} ends ${worded(high, document.units)} above its ${faceLabel(element, lower)}, and it is open between them`,
    mend: 'Close that with a wall under the roof, make the roof thicker, or let both planes end nearer to each other.',
  }));
}
