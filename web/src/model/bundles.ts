/** Bundles: parts that stand to one another alike in all their openings are one mesh, so that few are drawn however many a pattern has. */
import { LRUCache } from 'lru-cache';
import * as THREE from 'three';
import type { DrawnInstances, DrawnPart } from '../state/cut-messages.ts';

/** What is drawn at once: a geometry, with a group for each of its materials, in all its places. */
export interface Bundle {
  geometry: THREE.BufferGeometry;
  materials: readonly string[];
  triangles: number;
  /** Its lines, as pairs of points. */
  creases: Float32Array;
  /** The opening of each place. */
  openings: readonly string[];
  /** 16 figures each place, column by column. */
  matrices: Float32Array;
}

/** What a bundle is merged of: parts, and where each stands to the first. */
interface Member {
  part: DrawnPart;
  by: THREE.Matrix4;
}

/** Places differ by no more than figures of 32 bits do some hundred metres away, metres. */
const alike = 1e-4;

/** Brings parts together. @param instances of one element @param parts the part of each; what has none is left out */
export function bundlesOf(
  instances: readonly DrawnInstances[],
  parts: readonly (DrawnPart | null | undefined)[],
): Bundle[] {
  const found: { at: DrawnInstances; members: Member[] }[] = [];
  instances.forEach((at, i) => {
    const part = parts[i];
    if (!part) return;
    for (const { at: first, members } of found) {
      const by = standingTo(first, at);
      if (by) return void members.push({ part, by });
    }
    found.push({ at, members: [{ part, by: new THREE.Matrix4() }] });
  });
  return found.map(({ at: { openings, matrices }, members }) => ({ ...mergedOf(members), openings, matrices }));
}

const [base, other] = [new THREE.Matrix4(), new THREE.Matrix4()];

/** Where one stands to another, if that is so in all their openings; or null. */
function standingTo(first: DrawnInstances, second: DrawnInstances): THREE.Matrix4 | null {
  const { openings, matrices: from } = first;
  if (openings.length !== second.openings.length || openings.some((id, i) => id !== second.openings[i])) return null;
  const to = second.matrices;
  const by = base.fromArray(from).clone().invert().multiply(other.fromArray(to));
  for (let i = 1; i < openings.length; i++) {
    const there = base.fromArray(from, 16 * i).multiply(by).elements;
    for (let k = 0; k < 16; k++) if (Math.abs(there[k]! - to[16 * i + k]!) > alike) return null;
  }
  return by;
}

type Merged = Pick<Bundle, 'geometry' | 'materials' | 'triangles' | 'creases'>;

/** What was merged last, by its members; what an edit leaves as it was is not made anew. */
const kept = new LRUCache<string, Merged>({ max: 600, dispose: ({ geometry }) => geometry.dispose() });
const numbers = new WeakMap<DrawnPart, number>();
let last = 0;

function numberOf(part: DrawnPart): number {
  let number = numbers.get(part);
  if (number === undefined) numbers.set(part, (number = ++last));
  return number;
}

function mergedOf(members: readonly Member[]): Merged {
  const key = members
    .map(({ part, by }) => `${numberOf(part)} ${by.elements.map((value) => Math.round(value / alike)).join(' ')}`)
    .join();
  let made = kept.get(key);
  if (!made) kept.set(key, (made = merged(members)));
  return made;
}

function merged(members: readonly Member[]): Merged {
  const geometry = new THREE.BufferGeometry();
  const positions: Float32Array[] = [];
  const normals: Float32Array[] = [];
  const creases: Float32Array[] = [];
  const turn = new THREE.Matrix3();
  for (const { part, by } of members) {
    positions.push(moved(part.positions, by));
    creases.push(moved(part.creases, by));
    turn.setFromMatrix4(by);
    normals.push(new THREE.BufferAttribute(part.normals.slice(), 3).applyMatrix3(turn).array as Float32Array);
  }
  geometry.setAttribute('position', new THREE.BufferAttribute(joined(positions), 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(joined(normals), 3));
  geometry.setAttribute('uv', new THREE.BufferAttribute(joined(members.map(({ part }) => part.uvs)), 2));
  const byMaterial = trianglesOf(members);
  const triangles = new Uint32Array([...byMaterial.values()].reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  [...byMaterial.values()].forEach((list, material) => {
    triangles.set(list, at);
    geometry.addGroup(at, list.length, material);
    at += list.length;
  });
  geometry.setIndex(new THREE.BufferAttribute(triangles, 1));
  return { geometry, materials: [...byMaterial.keys()], triangles: at / 3, creases: joined(creases) };
}

/** The corners of all triangles, by their materials. */
function trianglesOf(members: readonly Member[]): Map<string, number[]> {
  const byMaterial = new Map<string, number[]>();
  let corners = 0;
  for (const { part } of members) {
    const { first, count, material, materials } = part.runs;
    first.forEach((start, i) => {
      const name = materials[material[i]!]!;
      let list = byMaterial.get(name);
      if (!list) byMaterial.set(name, (list = []));
      for (let t = 3 * start; t < 3 * (start + count[i]!); t++) list.push(corners + part.triangles[t]!);
    });
    corners += part.positions.length / 3;
  }
  return byMaterial;
}

const moved = (points: Float32Array, by: THREE.Matrix4): Float32Array =>
  new THREE.BufferAttribute(points.slice(), 3).applyMatrix4(by).array as Float32Array;

function joined(arrays: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(arrays.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const one of arrays) {
    all.set(one, at);
    at += one.length;
  }
  return all;
}
