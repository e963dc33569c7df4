/** What can be done to a document, as change sets: computed, without an interface. */
export * from './copies.ts';
export * from './elements.ts';
export * from './figures.ts';
export * from './groups.ts';
export * from './lines.ts';
export * from './locks.ts';
export * from './make.ts';
export * from './many.ts';
export * from './materials.ts';
export * from './opening.ts';
export * from './patterns.ts';
export * from './placing.ts';
export * from './project.ts';
export * from './script/script.ts';
export * from './starter.ts';
export * from './walls.ts';
export * from './reshape.ts';
