/** The computation: from a document to cut, tagged meshes. No interface, no database. */
export * from './profile/profile.ts';
export * from './profile/shapes.ts';
export * from './profile/flatten.ts';
export * from './element/chart.ts';
export * from './element/sheet.ts';
export { finenessOf, sheetsOf, type Sheets } from './element/sheets.ts';
export { turnedOver, type TurnedOver } from './element/turned-over.ts';
export * from './element/joins.ts';
export * from './profile/section.ts';
export * from './setout/placed.ts';
export * from './setout/measured.ts';
export * from './setout/outlined.ts';
export * from './setout/sections.ts';
export * from './setout/resolve.ts';
export * from './setout/project.ts';
export { across, seenOn } from './setout/across.ts';
export { seenLevel } from './setout/level-seat.ts';
export * from './cut/status.ts';
export type { Front, PartInstance, PartMesh } from './infill/part.ts';
export { swingsOf, type Swing } from './infill/swings.ts';
export { gripAt, leafGripsOf, type LeafGrip } from './infill/grips.ts';
export { frontOf, patternFront } from './infill/parts.ts';
export { infillFront, infillOf, laidOut, seatOf, type InfillPart, type Laid } from './infill/infill.ts';
export { about, studyOf, type Study } from './model/study.ts';
export { sliced, type Plane, type Slice } from './mesh/slice.ts';
export { meshIn } from './element/placed-mesh.ts';
export * from './mesh/cut-mesh.ts';
export * from './mesh/region.ts';
export { isMeshKnown, learnMesh, learnMeshes, meshesLearnt } from './mesh/kept-meshes.ts';
export {
  meshFacts,
  NotPlain,
  readPlainGlb,
  welded,
  writePlainGlb,
  type MeshFacts,
  type PlainMesh,
} from './mesh/plain-glb.ts';
export * from './mesh/proof.ts';
export * from './model/cut-element.ts';
export * from './model/model.ts';
export { innerRegion } from './model/inner-region.ts';
export * from './check/findings.ts';
export * from './check/report.ts';
export * from './finding.ts';
export * from './tolerances.ts';
export * from './setout/box.ts';
export * from './setout/courses.ts';
export * from './setout/hold.ts';
export { snap, snapPoint, type Guide, type Hold, type Lines, type Snapped, type SnappedPoint } from './setout/snap.ts';
export * from './setout/snap-side.ts';
export * from './setout/dimension.ts';
export * from './setout/spread.ts';
export * from './setout/align.ts';
export * from './setout/fit.ts';
export * from './element/course.ts';
export { topAt } from './element/top.ts';
export * from './setout/in-plan.ts';
export * from './element/found-sheet.ts';
export * from './element/single-sheet.ts';
export * from './element/ray.ts';
export { seenFromAbove } from './setout/shell-seat.ts';
export { roofGripsOf, type GripTarget, type RoofGrip } from './element/roof-grips.ts';
export { roofInPlan, type RoofPlan } from './element/roof-plan.ts';
export { isUnderRoof, roofPierced } from './check/through-roof.ts';
export { drawnOutline, meeting } from './roof/outline.ts';
export { surfaceOf } from './roof/surface.ts';
export type { RoofBody } from './element/roof-sheets.ts';
export * from './tidy.ts';
export { creasesOf } from './mesh/creases.ts';
export { curtainOf, keptInPlan, otherSide, splitInSpace, splitOn, splitSide } from './element/splits.ts';
export { planesUnder } from './model/planes-under.ts';
