/** File formats: kept apart, so that only what writes files carries the libraries that they take. */
export * from './formats.ts';
export * from './glb.ts';
export { bringMesh, keptMeshFacts, type BroughtMesh } from './import-mesh.ts';
export * from './left-out.ts';
export * from './obj.ts';
export * from './picture.ts';
export * from './picture-file.ts';
export * from './project-file.ts';
export * from './read-mesh.ts';
export * from './writers.ts';
