/** Meshes as solids of the library that tests take for an oracle, and how much of them lies in one another. */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { meshIn, type CutMesh, type ElementCut } from '../src/index.ts';

/** @param mesh closed. The library has six figures of its points. */
export const solidIn = (library: ManifoldToplevel, { points, vertices, triangles }: CutMesh): Manifold =>
  new library.Manifold(
    new library.Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(points),
      triVerts: Uint32Array.from(triangles, (c) => vertices[c]!),
    }),
  );

/** How much of an element's parts lies in it or in one another, cubic metres. */
export function overlapIn(library: ManifoldToplevel, { mesh, parts }: ElementCut): number {
  const all = [
    solidIn(library, mesh),
    ...parts.flatMap(({ part, placement }) => solidIn(library, meshIn(placement, part.mesh)).decompose()),
  ];
  return all.reduce((sum, solid) => sum + solid.volume(), 0) - library.Manifold.union(all).volume();
}
