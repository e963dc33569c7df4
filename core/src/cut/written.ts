/** Writing pieces into a mesh; after an edit, all that stood side by side in the mesh before and still does is carried over at once. */
import type { Mark, MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { KeptPiece } from './piece.ts';

/** Where pieces stand in a mesh. */
export interface Written {
  /** Each piece's place in the order of writing. */
  order: ReadonlyMap<string, number>;
  /** Where each begins, and where the last one ends. */
  marks: readonly Mark[];
  /** The first vertex of each. */
  bases: readonly number[];
}

/**
 * Writes pieces one after the other.
 * @param bases the first vertex of each that is not null.
 * @param before the pieces as they were cut and written before an edit.
 */
export function writePieces(
  builder: MeshBuilder,
  pieces: ReadonlyMap<string, KeptPiece>,
  bases: readonly number[],
  before: { pieces: ReadonlyMap<string, KeptPiece>; written: Written; mesh: CutMesh | null } | undefined,
): Written {
  const list = [...pieces].filter(([, { piece }]) => piece !== null);
  const marks: Mark[] = [];
  /** Where a piece that is the very one of before stood then; −1 for any other. */
  const stood = list.map(([name, kept]) =>
    before?.mesh && before.pieces.get(name) === kept ? before.written.order.get(name)! : -1,
  );
  for (let i = 0; i < list.length;) {
    const old = stood[i]!;
    if (old < 0 || !before?.mesh) {
      const { piece } = list[i]![1];
      marks.push(builder.mark());
      builder.append(piece!.mesh, bases[i]!, piece!.place);
      i += 1;
      continue;
    }
    let count = 1;
    while (stood[i + count] === old + count) count += 1;
    const { written, mesh } = before;
    const [here, there] = [builder.mark(), written.marks[old]!];
    for (let k = 0; k < count; k++) marks.push(between(written.marks[old + k]!, there, here));
    builder.carry(mesh, there, written.marks[old + count]!, bases[i]! - written.bases[old]!);
    i += count;
  }
  marks.push(builder.mark());
  return { order: new Map(list.map(([name], i) => [name, i])), marks, bases };
}

/** A mark as far on from one place as it was from another. */
function between(mark: Mark, from: Mark, to: Mark): Mark {
  return {
    corner: mark.corner + to.corner - from.corner,
    triangle: mark.triangle + to.triangle - from.triangle,
    polygon: mark.polygon + to.polygon - from.polygon,
    polygonCorner: mark.polygonCorner + to.polygonCorner - from.polygonCorner,
    run: mark.run + to.run - from.run,
  };
}
