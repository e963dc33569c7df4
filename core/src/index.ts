/** The computation: from a document to cut, tagged meshes. No interface, no database. */
export * from './profile/profile.ts';
export * from './profile/shapes.ts';
export * from './profile/flatten.ts';
export * from './element/chart.ts';
export * from './element/sheet.ts';
export * from './element/joins.ts';
export * from './profile/section.ts';
export * from './setout/resolve.ts';
export * from './cut/status.ts';
export * from './mesh/cut-mesh.ts';
export * from './mesh/region.ts';
export * from './mesh/proof.ts';
export * from './model/cut-element.ts';
export * from './model/model.ts';
export * from './check/report.ts';
export * from './setout/snap.ts';
export * from './setout/dimension.ts';
export { creasesOf } from './mesh/creases.ts';
