/** The document: schemas, change sets, units and files. Imported by every other room, imports none. */
export { farthest, name as nameSchema, smallest } from './figures.ts';
export * from './outline-schema.ts';
export { layerSchema, splitSchema, textureSchema, type Layer, type Split, type Texture } from './kinds/common.ts';
export * from './kinds/index.ts';
export type {
  BayForm,
  CourseForm,
  DomeForm,
  ElementKind,
  FaceName,
  FaceOf,
  Figure,
  Form,
  PlateForm,
  RoofForm,
  ShellForm,
} from './kinds/kind.ts';
export type { Bay, Ribs } from './kinds/bay/bay.ts';
export type { Dome } from './kinds/dome/dome.ts';
export {
  edgeLabels,
  edgesOfRoof,
  facetsOf,
  likeEdges,
  planesOfEdge,
  roofEdgeSchema,
  roofSchema,
  trimsSchema,
  type Roof,
  type RoofEdge,
  type Trims,
} from './kinds/roof/roof.ts';
export { runsOf, topSchema, wallSchema, type Run, type Top, type Wall, type WallEnd } from './kinds/wall/wall.ts';
export type { Panel } from './kinds/panel/panel.ts';
export type { Slab } from './kinds/slab/slab.ts';
export { catenaryScale, type Arches, type Vault } from './kinds/vault/vault.ts';
export * from './pattern-schema.ts';
export * from './part-schema.ts';
export * from './infill-schema.ts';
export * from './imported-schema.ts';
export * from './tables/assets.ts';
export * from './tables/meshes.ts';
export { patternMeshes } from './tables/patterns.ts';
export * from './tables/axes.ts';
export * from './tables/datums.ts';
export * from './tables/materials.ts';
export * from './tables/openings.ts';
export { tables } from './tables/index.ts';
export * from './schema.ts';
export * from './rings.ts';
export * from './profile-shapes.ts';
export * from './reading.ts';
export * from './faults.ts';
export * from './change-set.ts';
export * from './changed.ts';
export * from './file.ts';
export * from './pattern-file.ts';
export * from './overrides.ts';
export { grouped } from './grouped.ts';
export { omit } from './omit.ts';
export * from './units.ts';
export * from './ids.ts';
export * from './json-schema.ts';
export * from './size-label.ts';
export { limits, limitsAt, type Limits } from './limits.ts';
export * from './difference.ts';
export * from './touched.ts';
export * from './parse-json.ts';
export * from './refused.ts';
export * from './versions/up-to-date.ts';
export { withoutControls } from './versions/controls.ts';
