/** Groups of a geometry: triangles that are drawn at once, of one material. */
import type * as THREE from 'three';
import type { DrawnRuns } from '../state/cut-messages.ts';

/** Tells a geometry which of its triangles are of which material. @param apart triangles with which a group of its own begins, and after which another does */
export function withGroups(
  geometry: THREE.BufferGeometry,
  { first, count, material }: DrawnRuns,
  apart: ReadonlySet<number> = new Set(),
): void {
  geometry.clearGroups();
  let alone = false;
  first.forEach((start, i) => {
    const last = geometry.groups.at(-1);
    const begins = alone || apart.has(start);
    alone = apart.has(start);
    if (last && !begins && last.materialIndex === material[i] && last.start + last.count === 3 * start)
      last.count += 3 * count[i]!;
    else geometry.addGroup(3 * start, 3 * count[i]!, material[i]);
  });
}
