/** Where to look at the model from. */
import { directionsAt, pointAt, resolveOpening, sheetOf } from '@yard-arch/core';
import type { Element, ProjectDocument } from '@yard-arch/document';
import * as THREE from 'three';

/** Where to look from: towards a point, metres. */
export interface Stand {
  from: THREE.Vector3;
  to: THREE.Vector3;
  /** What must be in view about `to`, width and height; the distance is chosen so that it is. */
  frame?: [number, number];
}

/** The space that elements take up. */
export function boundsOf(document: ProjectDocument): THREE.Box3 {
  const box = new THREE.Box3();
  for (const wall of Object.values(document.elements)) {
    const { chart, outline, height, thickness } = sheetOf(wall);
    // A bent wall's own ribs tell how far it reaches.
    const alongs = chart.kind === 'bent' ? [...chart.s] : [Math.min(...outline.xs), Math.max(...outline.xs)];
    const ups = [Math.min(0, ...outline.ys), height];
    for (const s of alongs) for (const t of ups) for (const n of [0, thickness]) box.expandByPoint(new THREE.Vector3(...pointAt(chart, s, t, n)));
  }
  return box;
}

/** The whole of it, from the south and above. */
export function wholeOf(bounds: THREE.Box3): Stand {
  const centre = bounds.getCenter(new THREE.Vector3());
  const size = Math.max(4, bounds.getSize(new THREE.Vector3()).length());
  return { to: centre, from: centre.clone().add(new THREE.Vector3(0.34, -0.78, 0.42).normalize().multiplyScalar(size * 1.32)), frame: [size * 0.92, size * 0.74] };
}

/** Straight down on all of it. */
export function aboveOf(bounds: THREE.Box3): Stand {
  const centre = bounds.getCenter(new THREE.Vector3());
  const { x, y } = bounds.getSize(new THREE.Vector3());
  // A hair to the south, so that north is up.
  return { to: centre, from: centre.clone().add(new THREE.Vector3(0, -0.001, 1)), frame: [Math.max(x, 2), Math.max(y, 2)] };
}

/** Square on to an element's outer face, or its inner one. */
export function faceOn(element: Element, side: 'outer' | 'inner'): Stand {
  const { chart, length, height, thickness } = sheetOf(element);
  const { inward } = directionsAt(chart, length / 2);
  const middle = new THREE.Vector3(...pointAt(chart, length / 2, height / 2, side === 'outer' ? 0 : thickness));
  const away = new THREE.Vector3(...inward).multiplyScalar(side === 'outer' ? -1 : 1);
  // Level faces are looked at with north up.
  if (Math.abs(away.z) > 0.999) away.y -= 0.001;
  return { to: middle, from: middle.clone().add(away), frame: [length, height] };
}

/** Square on to the edge in which an element starts, or ends. */
export function endOn(element: Element, end: 'start' | 'end'): Stand {
  const { chart, length, height, thickness } = sheetOf(element);
  const s = end === 'start' ? 0 : length;
  const { along } = directionsAt(chart, s);
  const middle = new THREE.Vector3(...pointAt(chart, s, height / 2, thickness / 2));
  const away = new THREE.Vector3(...along).multiplyScalar(end === 'start' ? -1 : 1);
  return { to: middle, from: middle.clone().add(away), frame: [Math.max(thickness, height / 2), height] };
}

/** The chosen openings, or the element, seen from where one stands now. */
export function chosenFrom(document: ProjectDocument, element: Element | undefined, ids: readonly string[], now: THREE.Vector3, target: THREE.Vector3): Stand | null {
  const box = new THREE.Box3();
  for (const id of ids) {
    const opening = document.openings[id];
    const wall = opening && document.elements[opening.element];
    const resolved = opening && resolveOpening(document, opening);
    if (!wall || !resolved || !('outline' in resolved)) continue;
    const { chart } = sheetOf(wall);
    const { s, t, profile } = resolved;
    for (const [x, y] of [[s, t], [s + profile.width, t], [s, t + profile.height], [s + profile.width, t + profile.height]] as const) box.expandByPoint(new THREE.Vector3(...pointAt(chart, x, y, 0)));
  }
  if (box.isEmpty() && element) box.union(boundsOf({ ...document, elements: { [element.id]: element } }));
  if (box.isEmpty()) return null;
  const size = Math.max(1, box.getSize(new THREE.Vector3()).length() * 1.15);
  const to = box.getCenter(new THREE.Vector3());
  return { to, from: to.clone().add(now.clone().sub(target)), frame: [size, size] };
}
