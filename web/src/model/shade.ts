/** Contact shade: corners and reveals darken where little light comes in. It takes its time, so only what rests is drawn with it. */
import { modelColours } from '../colours.ts';
import { N8AOPass } from 'n8ao';
import * as THREE from 'three';
import { EffectComposer } from 'three/examples/jsm/postprocessing/EffectComposer.js';
import { OutputPass } from 'three/examples/jsm/postprocessing/OutputPass.js';

/** How far shade reaches from a corner, metres. */
const reach = 0.9;

export interface Shade {
  /** What it is made for: another camera may see otherwise. */
  camera: THREE.Camera;
  /** Draws the scene with its shade. */
  draw: (gl: THREE.WebGLRenderer) => void;
  dispose: () => void;
}

/** @param slow whether the processor does the work of a graphics card. */
export function makeShade(gl: THREE.WebGLRenderer, scene: THREE.Scene, camera: THREE.Camera, slow: boolean): Shade {
  const composer = new EffectComposer(gl);
  const size = gl.getSize(new THREE.Vector2());
  const pass = new N8AOPass(scene, camera, size.x, size.y);
  Object.assign(pass.configuration, {
    aoRadius: reach,
    distanceFalloff: 0.6,
    intensity: 2.6,
    color: new THREE.Color(modelColours.shade),
    aoSamples: slow ? 8 : 16,
    denoiseSamples: slow ? 4 : 8,
    denoiseRadius: 8,
    halfRes: slow,
    gammaCorrection: false,
  });
  composer.addPass(pass);
  composer.addPass(new OutputPass());
  return {
    camera,
    draw: (renderer) => {
      const { x, y } = renderer.getSize(new THREE.Vector2());
      composer.setPixelRatio(renderer.getPixelRatio());
      composer.setSize(x, y);
      composer.render();
    },
    dispose: () => composer.dispose(),
  };
}

export type MakeShade = typeof makeShade;
