/**
 * The solid path: the same cut by a solid-boolean library. It is the independent witness against which the sheet path is
 * tested and timed.
 */
import Module, { type Manifold, type ManifoldToplevel } from 'manifold-3d';
import type { Sheet } from '../element/sheet.ts';
import { provideSolidPath } from './solid-path.ts';
import { taggedSolids } from './solid-tagged.ts';
import type { Placed } from '../setout/resolve.ts';

let loaded: Promise<ManifoldToplevel> | null = null;

/** Loads the library once, and makes the solid path available to the core. */
export function solidLibrary(wasm?: string): Promise<ManifoldToplevel> {
  loaded ??= Module(wasm === undefined ? undefined : { locateFile: () => wasm }).then((library) => {
    library.setup();
    provideSolidPath(taggedSolids(library));
    return library;
  });
  return loaded;
}

/** What the library says of the cut solid. Volume in cubic metres, area in square metres. */
export interface SolidCut {
  volume: number;
  area: number;
  triangles: number;
}

/** Cuts openings through a sheet: the sheet's prism less the union of the openings' prisms, which overshoot both faces by 100 mm. */
export function cutSolid(library: ManifoldToplevel, sheet: Sheet, openings: readonly Placed[]): SolidCut {
  const made: Manifold[] = [];
  const prism = ({ xs, ys, next, loops }: { xs: Float64Array; ys: Float64Array; next: Uint32Array; loops: number[] }, s: number, t: number, depth: number, at: number): Manifold => {
    const polygons = loops.map((first) => {
      const points: [number, number][] = [];
      let v = first;
      do {
        points.push([xs[v]! + s, ys[v]! + t]);
        v = next[v]!;
      } while (v !== first);
      return points;
    });
    const section = new library.CrossSection(polygons, 'Positive');
    const solid = section.extrude(depth);
    const moved = solid.translate([0, 0, at]);
    section.delete();
    solid.delete();
    made.push(moved);
    return moved;
  };
  const block = prism(sheet.outline, 0, 0, sheet.thickness, 0);
  const cutters = openings.map(({ outline, s, t }) => prism(outline, s, t, sheet.thickness + 0.2, -0.1));
  let result = block;
  if (cutters.length > 0) {
    const union = library.Manifold.union(cutters);
    result = block.subtract(union);
    made.push(union, result);
  }
  // Reading the mesh is part of a cut: the library works lazily until then.
  const mesh = result.getMesh();
  const outcome = { volume: result.volume(), area: result.surfaceArea(), triangles: mesh.triVerts.length / 3 };
  for (const solid of made) solid.delete();
  return outcome;
}

