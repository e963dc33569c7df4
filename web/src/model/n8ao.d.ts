/** What is used of a package that tells no types. */
declare module 'n8ao' {
  import type { Camera, Scene } from 'three';
  import { Pass } from 'three/examples/jsm/postprocessing/Pass.js';

  export class N8AOPass extends Pass {
    constructor(scene: Scene, camera: Camera, width: number, height: number);
    readonly configuration: Record<string, unknown>;
  }
}
