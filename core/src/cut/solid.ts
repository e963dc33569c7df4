/**
 * The solid path: the same cut by a solid-boolean library. It is the independent witness against which the sheet path is
 * tested and timed.
 */
import Module, { type Manifold, type ManifoldToplevel } from 'manifold-3d';
import type { Sheet } from '../element/sheet.ts';
import { MeshBuilder } from '../mesh/builder.ts';
import type { CutMesh } from '../mesh/cut-mesh.ts';
import { cutterPiece } from './piece.ts';
import { settingOf } from './setting.ts';
import { cutSkin } from './skin.ts';
import { provideSolidPath } from './solid-path.ts';
import { taggedSolids } from './solid-tagged.ts';
import type { Placed } from '../setout/placed.ts';

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
  const prism = (
    { xs, ys, next, loops }: { xs: Float64Array; ys: Float64Array; next: Uint32Array; loops: number[] },
    { s, t }: { s: number; t: number },
    { depth, at }: { depth: number; at: number },
  ): Manifold => {
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
  const block = prism(sheet.outline, { s: 0, t: 0 }, { depth: sheet.thickness, at: 0 });
  const cutters = openings.map(({ outline, s, t }) =>
    prism(outline, { s, t }, { depth: sheet.thickness + 0.2, at: -0.1 }),
  );
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

/** The solids that the solid path would cut an element by, as plain meshes: the skin without openings, and what each opening takes away. */
export interface PlainSolids {
  block: { points: Float32Array; triangles: Uint32Array };
  voids: { points: Float32Array; triangles: Uint32Array }[];
}

/** Makes the solids of a sheet and its openings (through or niches) beforehand, so that booleans on them can be timed by themselves. */
export function plainSolids(sheet: Sheet, openings: readonly Placed[]): PlainSolids {
  const builder = new MeshBuilder(sheet.element);
  const grouping = { singles: [], groups: [], atEdge: [] };
  cutSkin(builder, { sheet, openings: [], grouping, skin: wholeOf(sheet), lines: null });
  return { block: plain(builder.finish(), false), voids: voidsIn(sheet, openings) };
}

/** The same of a body of many faces: its mesh without openings, and what is set out on each face. */
export function plainSolidsOf(
  bare: CutMesh,
  faces: readonly { sheet: Sheet; openings: readonly Placed[] }[],
): PlainSolids {
  return { block: plain(bare, false), voids: faces.flatMap(({ sheet, openings }) => voidsIn(sheet, openings)) };
}

const wholeOf = ({ thickness }: Sheet): { from: number; to: number; whole: boolean } => ({
  from: 0,
  to: thickness,
  whole: true,
});

function voidsIn(sheet: Sheet, openings: readonly Placed[]): PlainSolids['block'][] {
  const setting = settingOf(sheet, wholeOf(sheet), null);
  return openings.flatMap((opening) => cutterPiece(setting, opening) ?? []).map(({ mesh }) => plain(mesh, true));
}

function plain(mesh: CutMesh, flip: boolean): PlainSolids['block'] {
  const points = Float32Array.from(mesh.points);
  const triangles = Uint32Array.from(mesh.triangles, (c) => mesh.vertices[c]!);
  if (flip)
    for (let i = 0; i < triangles.length; i += 3)
      [triangles[i + 1], triangles[i + 2]] = [triangles[i + 2]!, triangles[i + 1]!];
  return { points, triangles };
}

/** Cuts solids that were made beforehand. */
export function cutPlainSolids(library: ManifoldToplevel, { block, voids }: PlainSolids): SolidCut {
  const made: Manifold[] = [];
  const solid = ({ points, triangles }: PlainSolids['block']): Manifold => {
    const one = new library.Manifold(new library.Mesh({ numProp: 3, vertProperties: points, triVerts: triangles }));
    made.push(one);
    return one;
  };
  const union = library.Manifold.union(voids.map(solid));
  const result = solid(block).subtract(union);
  made.push(union, result);
  const mesh = result.getMesh();
  const outcome = { volume: result.volume(), area: result.surfaceArea(), triangles: mesh.triVerts.length / 3 };
  for (const one of made) one.delete();
  return outcome;
}
