/** Blocks: bosses that reach back through layers. Where layers are solids of their own, the layers are cut through and the block is one more solid. */
import type { Sheet } from '../element/sheet.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { squareSections } from '../profile/section.ts';
import type { Placed } from '../setout/placed.ts';
import { PieceMaker } from './piece.ts';
import { settingOf } from './setting.ts';
import { reachOf } from './reach.ts';

/** What a block takes out of a layer: the same outline, square through. */
export function voidOf(block: Placed, { thickness }: Sheet): Placed {
  return { ...block, kind: 'through', depth: thickness, sections: squareSections(thickness) };
}

/** The block as a closed solid, of its reveal's material, or the outer layer's. @throws Collapsed, BeyondCurve, NotTriangulable */
export function blockSolid(block: Placed, sheet: Sheet): CutMesh {
  const material = block.pattern.reveal.material ?? sheet.layers[0]!.material;
  // A solid by itself, though it goes through many: all of it is told as of the outer layer.
  const { thickness } = sheet;
  const own = { ...sheet, layers: [{ thickness, material }], boundaries: Float64Array.of(0, thickness) };
  const setting = settingOf(own, { from: 0, to: thickness, whole: true }, null);
  return new PieceMaker(setting, [block]).block(-block.depth, reachOf(block, sheet));
}
