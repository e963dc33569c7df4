/** Where to look at the model from. */
import { directionsAt, pointAt, resolveOpening, sheetsOf } from '@yard-arch/core';
import type { Element, FaceName, ProjectDocument } from '@yard-arch/document';
import * as THREE from 'three';
import type { Section } from './display.ts';

/** Where to look from: towards a point, metres. */
export interface Stand {
  from: THREE.Vector3;
  to: THREE.Vector3;
  /** What must be in view, at whatever distance it takes. */
  all: readonly THREE.Vector3[];
}

/** Corners of the space that elements take up. */
export function cornersIn(document: ProjectDocument, elements: readonly Element[]): THREE.Vector3[] {
  const sheets = sheetsOf(document);
  return elements.flatMap((element) => {
    const { chart, outline, height, thickness } = sheets.of(element.id)!;
    // A bent wall's own ribs tell how far it reaches.
    const alongs = chart.kind === 'bent' ? [...chart.s] : [Math.min(...outline.xs), Math.max(...outline.xs)];
    const ups = [Math.min(0, ...outline.ys), height];
    return alongs.flatMap((s) =>
      ups.flatMap((t) => [0, thickness].map((n) => new THREE.Vector3(...pointAt(chart, s, t, n)))),
    );
  });
}

/** Some ground, to be looked at where there is nothing yet. */
const ground = cornersOf(new THREE.Box3(new THREE.Vector3(-5, -5, 0), new THREE.Vector3(5, 5, 3)));

function cornersOf({ min, max }: THREE.Box3): THREE.Vector3[] {
  return [min.x, max.x].flatMap((x) =>
    [min.y, max.y].flatMap((y) => [min.z, max.z].map((z) => new THREE.Vector3(x, y, z))),
  );
}

/** The corners of a rectangle about a point. */
function around(
  middle: THREE.Vector3,
  { along, a }: { along: THREE.Vector3; a: number },
  { up, b }: { up: THREE.Vector3; b: number },
): THREE.Vector3[] {
  return [
    [-a, -b],
    [a, -b],
    [-a, b],
    [a, b],
  ].map(([x, y]) => middle.clone().addScaledVector(along, x!).addScaledVector(up, y!));
}

/** Room that is left about what is shown, as a share of the view, and pixels that the tools cover at its foot. */
const margin = 0.06;
const foot = 44;

/** How a view is looked into: from how far before what point, metres, or by a parallel camera at how many pixels a metre. */
interface Aim {
  to: THREE.Vector3;
  distance: number;
  scale: number;
}

/**
 * Where a camera stands to see all of something as large as it fits into a view of so many pixels, looking the way that the stand says.
 * @param half tangent of half the camera's angle of view upward; null for a parallel one
 * @param head pixels that something covers at its head
 */
export function aimAt(
  { from, to, all }: Stand,
  size: { width: number; height: number },
  half: number | null,
  head = 0,
): Aim {
  const back = from.clone().sub(to).normalize();
  const right = new THREE.Vector3(0, 0, 1).cross(back).normalize();
  const up = back.clone().cross(right);
  const across = (size.width / 2) * (1 - margin);
  const middling = (size.height / 2) * (1 - margin);
  const above = Math.max(middling - head, size.height / 6);
  const below = Math.max(middling - foot, size.height / 6);
  const seen = all
    .map((point) => point.clone().sub(to))
    .map((point) => [point.dot(right), point.dot(up), point.dot(back)] as const);
  const middle = (values: readonly number[]): number => (Math.max(...values) + Math.min(...values)) / 2;
  const aim = (x: number, y: number, distance: number, scale: number): Aim => ({
    to: to.clone().addScaledVector(right, x).addScaledVector(up, y),
    distance,
    scale,
  });
  if (half === null) {
    const [xs, ys] = [seen.map(([x]) => x), seen.map(([, y]) => y)];
    const size = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);
    const scale = Math.min(2000, (2 * across) / Math.max(size(xs), 1e-6), (above + below) / Math.max(size(ys), 1e-6));
    return aim(middle(xs), middle(ys) - (above - below) / (2 * scale), 0, scale);
  }
  // A pixel at a distance of one metre.
  const pixel = (2 * half) / size.height;
  let [x, y] = [0, 0];
  const reach = (): number =>
    seen.reduce(
      (most, [px, py, pz]) =>
        Math.max(
          most,
          pz + Math.abs(px - x) / (across * pixel),
          pz + Math.abs(py - y) / ((py < y ? below : above) * pixel),
        ),
      0.5,
    );
  // What is seen is brought to the middle of the room that there is for it; what is nearer takes more of it, so that this comes about in turns.
  for (let turn = 0; turn < 20; turn++) {
    const distance = reach();
    const pixels = (k: 0 | 1, from: number): number[] =>
      seen.map((point) => (point[k] - from) / ((distance - point[2]) * pixel));
    x += middle(pixels(0, x)) * distance * pixel;
    y += (middle(pixels(1, y)) - (above - below) / 2) * distance * pixel;
  }
  return aim(x, y, reach(), 0);
}

/** The whole of it, from the south and above. */
export function wholeOf(corners: readonly THREE.Vector3[]): Stand {
  const all = corners.length > 0 ? corners : ground;
  const centre = new THREE.Box3().setFromPoints([...all]).getCenter(new THREE.Vector3());
  return { to: centre, from: centre.clone().add(new THREE.Vector3(0.34, -0.78, 0.42)), all };
}

/** Straight down on all of it. */
export function aboveOf(corners: readonly THREE.Vector3[]): Stand {
  const all = corners.length > 0 ? corners : ground;
  const centre = new THREE.Box3().setFromPoints([...all]).getCenter(new THREE.Vector3());
  // A hair to the south, so that north is up.
  return { to: centre, from: centre.clone().add(new THREE.Vector3(0, -0.001, 1)), all };
}

/** Square on to an element's outer face, or its inner one. */
export function faceOn(document: ProjectDocument, element: Element, side: FaceName): Stand {
  const sheets = sheetsOf(document);
  const own = side === 'inner' ? null : sheets.on(element.id, side);
  const { chart, length, height, thickness } = own ?? sheets.of(element.id)!;
  const { inward } = directionsAt(chart, length / 2);
  const middle = new THREE.Vector3(...pointAt(chart, length / 2, height / 2, side === 'inner' ? thickness : 0));
  const away = new THREE.Vector3(...inward).multiplyScalar(side === 'inner' ? 1 : -1);
  // Level faces are looked at with north up.
  if (Math.abs(away.z) > 0.999) away.y -= 0.001;
  const [along, up] = [
    new THREE.Vector3(...directionsAt(chart, length / 2).along),
    new THREE.Vector3(...directionsAt(chart, length / 2).up),
  ];
  return {
    to: middle,
    from: middle.clone().add(away),
    all: around(middle, { along, a: length / 2 }, { up, b: height / 2 }),
  };
}

/** Seen no nearer than this is what is planted on a face itself, or stands before it. */
const beforeFace = 0.3;

/**
 * Where a plane has to cut through the building so that a face is seen from where one stands: half way to the nearest thing before it. None where nothing is, or where the face is aslant to all planes that there are.
 */
export function sectionBefore(scene: THREE.Object3D, { from, to, all }: Stand): Section | null {
  const away = from.clone().sub(to).normalize();
  const across = (['x', 'y', 'z'] as const).find((axis) => Math.abs(away[axis]) > 0.98);
  if (!across) return null;
  const rays = [to, ...all.map((corner) => to.clone().lerp(corner, 0.6))].map(
    (point) => new THREE.Raycaster(point.clone().addScaledVector(away, beforeFace), away),
  );
  const hits = rays.flatMap((ray) =>
    ray
      .intersectObject(scene)
      .filter(({ object }) => object.castShadow)
      .slice(0, 1),
  );
  if (hits.length === 0) return null;
  const room = Math.min(...hits.map(({ distance }) => distance)) + beforeFace;
  const at = to[across] + (away[across] * room) / 2;
  return { across, at, other: (across === 'z') !== away[across] > 0 };
}

/** Square on to the edge in which an element starts, or ends. */
export function endOn(document: ProjectDocument, element: Element, end: 'start' | 'end'): Stand {
  const { chart, length, height, thickness } = sheetsOf(document).of(element.id)!;
  const s = end === 'start' ? 0 : length;
  const { along, up, inward } = directionsAt(chart, s);
  const middle = new THREE.Vector3(...pointAt(chart, s, height / 2, thickness / 2));
  const away = new THREE.Vector3(...along).multiplyScalar(end === 'start' ? -1 : 1);
  return {
    to: middle,
    from: middle.clone().add(away),
    all: around(
      middle,
      { along: new THREE.Vector3(...inward), a: Math.max(thickness / 2, height / 4) },
      { up: new THREE.Vector3(...up), b: height / 2 },
    ),
  };
}

/** The chosen openings, or the element, seen from where one stands now. */
export function chosenFrom(
  document: ProjectDocument,
  element: Element | undefined,
  ids: readonly string[],
  { now, target }: { now: THREE.Vector3; target: THREE.Vector3 },
): Stand | null {
  const box = new THREE.Box3();
  for (const id of ids) {
    const opening = document.openings[id];
    const wall = opening && document.elements[opening.element];
    const resolved = opening && resolveOpening(document, opening);
    if (!wall || !resolved || !('outline' in resolved)) continue;
    const { chart } = sheetsOf(document).on(wall.id, opening.face)!;
    const { s, t, profile } = resolved;
    for (const [x, y] of [
      [s, t],
      [s + profile.width, t],
      [s, t + profile.height],
      [s + profile.width, t + profile.height],
    ] as const)
      box.expandByPoint(new THREE.Vector3(...pointAt(chart, x, y, 0)));
  }
  if (box.isEmpty() && element) box.setFromPoints(cornersIn(document, [element]));
  if (box.isEmpty()) return null;
  // An opening by itself is shown with some of the wall about it.
  box.expandByScalar(0.08 * box.getSize(new THREE.Vector3()).length());
  const to = box.getCenter(new THREE.Vector3());
  return { to, from: to.clone().add(now.clone().sub(target)), all: cornersOf(box) };
}
