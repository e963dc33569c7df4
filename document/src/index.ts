/** The document: schemas, change sets, units and files. Imported by every other room, imports none. */
export { farthest, name as nameSchema, smallest } from './figures.ts';
export * from './outline-schema.ts';
export * from './element-schema.ts';
export * from './pattern-schema.ts';
export * from './schema.ts';
export * from './profile-shapes.ts';
export * from './reading.ts';
export * from './faults.ts';
export * from './change-set.ts';
export * from './changed.ts';
export * from './file.ts';
export * from './units.ts';
export * from './ids.ts';
export * from './json-schema.ts';
export * from './size-label.ts';
export * from './difference.ts';
export * from './touched.ts';
export * from './old.ts';
