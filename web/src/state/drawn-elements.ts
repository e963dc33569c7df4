/** Elements as the cutting worker tells the page of them. */
import {
  creasesOf,
  innerRegion,
  originOf,
  type CutMesh,
  type ElementCut,
  type OpeningStatus,
  type PartMesh,
  type Region,
  type State,
} from '@yard-arch/core';
import type { DrawnElement } from './cut-messages.ts';
import { drawnInstances } from './drawn-parts.ts';
import { drawnTrianglesOf, flatsOf } from './drawn-runs.ts';

function statesOf(statuses: readonly OpeningStatus[]): Partial<Record<State, number>> {
  const count: Partial<Record<State, number>> = {};
  for (const { state } of statuses) count[state] = (count[state] ?? 0) + 1;
  return count;
}

/** The most openings that a sheet draws one by one. Of more the face is told after the element: it is seen without, or as it was, until then. */
const mostDrawn = 600;

/** The most triangles of an element whose creases are told with it: those of more take about as long as the cut. */
const mostCreased = 60_000;

/** An element ready to be drawn. @param lined whether the page has drawn something without its lines already @param onMesh hears of each part's mesh */
export function drawnElement(result: ElementCut, lined: boolean, onMesh: (part: PartMesh) => void): DrawnElement {
  const { mesh, sheet } = result;
  const many = result.placed.length > mostDrawn;
  const [x, y, z] = originOf(sheet.chart);
  const origin: [number, number, number] = [x, y, z];
  const positions = positionsOf(mesh, origin);
  const { triangles, runs } = drawnTrianglesOf(mesh);
  return {
    element: result.element,
    origin,
    positions,
    sphere: sphereOf(mesh, origin),
    normals: mesh.normals.slice(),
    uvs: mesh.uvs.slice(),
    creases: lined && mesh.triangles.length <= 3 * mostCreased ? creasesOf(mesh, origin) : null,
    lined,
    triangles,
    runs,
    flats: flatsOf({ triangles, runs, positions, normals: mesh.normals }),
    parts: drawnInstances(result, onMesh),
    face: many ? null : pathOf(result.region),
    innerFace: result.faces || many ? '' : pathOf(innerRegion(result)),
    faces: Object.fromEntries((result.faces ?? []).map(({ face, region }) => [face, pathOf(region)])),
    states: statesOf(result.statuses),
    faceArea: result.faceArea,
    areas: new Map(result.statuses.map(({ opening, area }) => [opening, area])),
    pieces: result.pieces,
    path: result.path,
    joins: result.sheet.joins,
    fault: result.fault,
  };
}

/** Where each corner stands, relative to an origin. */
function positionsOf({ points, vertices }: CutMesh, [x, y, z]: readonly [number, number, number]): Float32Array {
  const positions = new Float32Array(3 * vertices.length);
  for (let c = 0; c < vertices.length; c++) {
    const v = 3 * vertices[c]!;
    positions[3 * c] = points[v]! - x;
    positions[3 * c + 1] = points[v + 1]! - y;
    positions[3 * c + 2] = points[v + 2]! - z;
  }
  return positions;
}

/** A sphere about all corners, relative to an origin: x, y, z of its centre, and its radius; metres. */
function sphereOf({ points }: CutMesh, origin: readonly [number, number, number]): [number, number, number, number] {
  if (points.length === 0) return [0, 0, 0, 0];
  let [left, front, foot] = [Infinity, Infinity, Infinity];
  let [right, back, head] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 3) {
    const [x, y, z] = [points[i]!, points[i + 1]!, points[i + 2]!];
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < front) front = y;
    if (y > back) back = y;
    if (z < foot) foot = z;
    if (z > head) head = z;
  }
  const [x, y, z] = origin;
  const radius = Math.hypot(right - left, back - front, head - foot) / 2;
  return [(left + right) / 2 - x, (front + back) / 2 - y, (foot + head) / 2 - z, radius];
}

/** Loops as SVG path data in metres, y up. */
export function pathOf(region: Region): string {
  const seen = new Uint8Array(region.count);
  const parts: string[] = [];
  const figure = (value: number): number => Math.round(value * 1e5) / 1e5;
  for (let first = 0; first < region.count; first++) {
    if (seen[first]) continue;
    let command = 'M';
    for (let v = first; !seen[v]; v = region.next[v]!) {
      seen[v] = 1;
      parts.push(`${command}${figure(region.xs[v]!)} ${figure(region.ys[v]!)}`);
      command = 'L';
    }
    parts.push('Z');
  }
  return parts.join('');
}
