/** CutMesh: the one result of a cut, tagged so that whatever comes after need never guess from geometry. */
import type { Side } from '../profile/profile.ts';

/** What a face of a cut element is. */
export type Role = 'outer face' | 'inner face' | 'edge' | Side | 'back' | 'boss face' | 'imprint' | 'part' | 'sheet';

/** A run of polygons, and so of triangles, one after the other, that share all their tags. */
export interface Run {
  /** First triangle, and how many. */
  first: number;
  count: number;
  /** First polygon, and how many. */
  firstPolygon: number;
  polygons: number;
  element: string;
  /** The opening whose reveal it is, or null for the element's own faces and edges. */
  opening: string | null;
  role: Role;
  /** The face that it belongs to, where the element has many. */
  face?: string | undefined;
  /** The layer that the face belongs to, counted from the outside. */
  layer: number;
  /** Id of the material. */
  material: string;
}

/**
 * A closed, tagged mesh. Corners carry what is drawn; several corners may stand on one vertex, which is what tells
 * whether triangles are joined. Within a run neighbours share corners where they look alike. Triangles and polygons run counter-clockwise as seen from outside the solid.
 */
export interface CutMesh {
  /** x, y, z of each vertex, metres. */
  points: Float64Array;
  /** Unit normal of each corner. */
  normals: Float32Array;
  /** u, v of each corner, metres of surface. */
  uvs: Float32Array;
  /** The vertex on which each corner stands. */
  vertices: Uint32Array;
  /** Number of vertices. */
  vertexCount: number;
  /** Three corners a triangle. */
  triangles: Uint32Array;
  /** The same faces as polygons, for formats that know them, in the order of their triangles (each has two fewer than corners): corners of polygon p are polygonCorners[polygonStart[p]] … [polygonStart[p + 1] − 1]. */
  polygonStart: Uint32Array;
  polygonCorners: Uint32Array;
  runs: Run[];
}

/** Where a corner stands, metres. */
export function cornerAt({ points, vertices }: CutMesh, corner: number): [number, number, number] {
  const v = 3 * vertices[corner]!;
  return [points[v]!, points[v + 1]!, points[v + 2]!];
}

/** A mesh of nothing. */
export function emptyMesh(): CutMesh {
  return {
    points: new Float64Array(0),
    normals: new Float32Array(0),
    uvs: new Float32Array(0),
    vertices: new Uint32Array(0),
    vertexCount: 0,
    triangles: new Uint32Array(0),
    polygonStart: new Uint32Array(1),
    polygonCorners: new Uint32Array(0),
    runs: [],
  };
}
