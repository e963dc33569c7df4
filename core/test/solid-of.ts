/** A mesh as a solid of the library that tests take for an oracle. */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { CutMesh } from '../src/index.ts';

/** @param mesh closed. The library has six figures of its points. */
export const solidIn = (library: ManifoldToplevel, { points, vertices, triangles }: CutMesh): Manifold =>
  new library.Manifold(
    new library.Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(points),
      triVerts: Uint32Array.from(triangles, (c) => vertices[c]!),
    }),
  );
