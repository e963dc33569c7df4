/** What we use of `obj-file-parser`, which ships no types. */
declare module 'obj-file-parser' {
  export default class ObjFile {
    constructor(text: string, name?: string);
    /** @throws a string where a line cannot be read. */
    parse(): {
      models: {
        vertices: { x: number; y: number; z: number }[];
        faces: { material: string; vertices: { vertexIndex: number }[] }[];
      }[];
    };
  }
}
