/** Panes that stand in the openings: unseen, so that the model can be seen through, but there to be clicked and dragged along their wall; the chosen ones are tinted. */
import { colours, modelColours } from '../colours.ts';
import type { ThreeEvent } from '@react-three/fiber';
import { directionsAt, pointAt, resolveOpening, sheetsOf, type Outline } from '@yard-arch/core';
import { emptyDocument, type ProjectDocument } from '@yard-arch/document';
import { openingsOf } from '@yard-arch/edit';
import { memo, useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { chosenIds, useEditor } from '../state/state.ts';
import { isAway } from './surfaces.ts';
import { useDisplay } from './display.ts';
import { useSlide } from './use-slide.ts';
import { unmet } from './unmet.ts';

interface ApertureProps {
  /** A plane beyond which nothing is shown. */
  clip: THREE.Plane | null;
  onPick: (event: ThreeEvent<MouseEvent>, element: string, opening: string) => void;
  /** Told when a drag begins and ends, so that the view is not turned meanwhile. */
  hold: (held: boolean) => void;
}

export const Apertures = memo(function Apertures({ clip, onPick, hold }: ApertureProps) {
  // All is as at the last cut, so that the model is drawn once for both; only what is chosen is shown as the edit that is just being made has it.
  const drawn = useEditor((state) => state.drawn);
  const [document, draft] = useMemo(() => {
    const { document: whole, draft: made } = useEditor.getState();
    const stands = whole ?? emptyDocument('');
    return [stands, (drawn.size > 0 ? made : null) ?? stands];
  }, [drawn]);
  const chosen = useEditor((state) => state.chosen);
  const hidden = useEditor((state) => state.hidden);
  const cutters = useDisplay((state) => state.cutters);
  const slide = useSlide(hold);
  const panes = useMemo(() => panesOf(document).filter(({ element }) => !hidden.has(element)), [document, hidden]);
  const ids = chosenIds(chosen);
  const blocked = useMemo(() => merged(panes.filter(isBlockedUp), false), [panes]);
  const lit = useMemo(
    () =>
      merged(
        panesOf(draft, ids).filter(({ element }) => !hidden.has(element)),
        false,
      ),
    [draft, ids, hidden],
  );
  const solids = useMemo(() => (cutters ? merged(panes, true) : null), [panes, cutters]);
  useDisposed(blocked);
  useDisposed(lit);
  useDisposed(solids);
  const plane = THREE.DoubleSide;
  return (
    <>
      <Met panes={panes} clip={clip} onPick={onPick} slide={slide} />
      <Tint geometry={blocked} clip={clip} side={plane} color={modelColours.blockedUp} opacity={0.28} />
      <Tint geometry={lit} clip={clip} side={plane} color={colours.brick} opacity={0.55} />
      {solids && <Tint geometry={solids} clip={clip} side={THREE.FrontSide} color={colours.ink2} opacity={0.25} />}
    </>
  );
});

const isBlockedUp = ({ blockedUp }: Pane): boolean => blockedUp;

interface MetProps extends Omit<ApertureProps, 'hold'> {
  panes: readonly Pane[];
  slide: ReturnType<typeof useSlide>;
}

/** What the pointer meets of openings; it is not seen. */
function Met({ panes, clip, onPick, slide }: MetProps) {
  // Nothing of it is seen, so it is made when something is first pointed at.
  const all = useMemo(() => onDemand(() => merged(panes, false)), [panes]);
  useEffect(() => all.dispose, [all]);
  const met = (event: ThreeEvent<MouseEvent>): Pane | undefined =>
    isAway(clip, event) ? undefined : panes[all.get().userData.paneOf[event.faceIndex ?? -1]!];
  const pick = (event: ThreeEvent<MouseEvent>): void => {
    const pane = met(event);
    if (pane) onPick(event, pane.element, pane.id);
  };
  return (
    <mesh
      visible={false}
      raycast={function (this: THREE.Mesh, ...ray) {
        this.geometry = all.get();
        THREE.Mesh.prototype.raycast.apply(this, ray);
      }}
      onClick={pick}
      onPointerUp={(event) => event.button === 2 && pick(event)}
      onPointerDown={(event) => {
        const pane = met(event);
        if (pane) slide(event, pane.id);
      }}
    >
      <meshBasicMaterial side={THREE.DoubleSide} />
    </mesh>
  );
}

interface TintProps {
  geometry: THREE.BufferGeometry;
  clip: THREE.Plane | null;
  side: THREE.Side;
  color: string;
  opacity: number;
}

/** Something that is laid over the model in a colour that it is seen through. */
function Tint({ geometry, clip, ...looks }: TintProps) {
  return (
    <mesh geometry={geometry} raycast={unmet} renderOrder={looks.side === THREE.FrontSide ? 3 : 2}>
      <meshBasicMaterial transparent depthWrite={false} clippingPlanes={clip ? [clip] : null} {...looks} />
    </mesh>
  );
}

/** A geometry that is made when it is first asked for. */
function onDemand<G extends THREE.BufferGeometry>(make: () => G): { get: () => G; dispose: () => void } {
  let made: G | null = null;
  return { get: () => (made ??= make()), dispose: () => made?.dispose() };
}

function useDisposed(geometry: THREE.BufferGeometry | null): void {
  useEffect(() => () => geometry?.dispose(), [geometry]);
}

/** An opening's outline in its place in space. */
interface Pane {
  id: string;
  element: string;
  outline: Outline;
  /** From metres of the outline, and outward, to space. */
  matrix: THREE.Matrix4;
  /** How far the outer face lies before the pane, and how deep is cut from there. */
  before: number;
  depth: number;
  blockedUp: boolean;
}

function panesOf(document: ProjectDocument, ids: readonly string[] = Object.keys(document.openings)): Pane[] {
  return openingsOf(document, ids).flatMap((opening) => {
    const wall = document.elements[opening.element];
    const resolved = resolveOpening(document, opening);
    if (!wall || !('outline' in resolved)) return [];
    const { chart, thickness } = sheetsOf(document).on(wall.id, opening.face)!;
    const { outline, profile, s, t, kind, depth } = resolved;
    const middle = s + profile.width / 2;
    const { along, up, inward } = directionsAt(chart, middle);
    const before =
      opening.blockedUp || kind === 'imprint' ? -0.004 : kind === 'boss' ? -depth : Math.min(depth, thickness) / 2;
    const matrix = new THREE.Matrix4().makeBasis(
      new THREE.Vector3(...along),
      new THREE.Vector3(...up),
      new THREE.Vector3(...inward).negate(),
    );
    matrix.setPosition(
      new THREE.Vector3(...pointAt(chart, middle, t, before)).addScaledVector(
        new THREE.Vector3(...along),
        -profile.width / 2,
      ),
    );
    return [{ id: opening.id, element: wall.id, outline, matrix, before, depth, blockedUp: opening.blockedUp }];
  });
}

const flat = new WeakMap<Outline, THREE.ShapeGeometry>();
/** An outline's triangles in its own plane; most openings share theirs with others. */
function triangles(outline: Outline): THREE.ShapeGeometry {
  let known = flat.get(outline);
  if (!known) flat.set(outline, (known = new THREE.ShapeGeometry(shapesOf(outline))));
  return known;
}

function shapesOf(outline: Outline): THREE.Shape[] {
  return outline.loops
    .map((first) => {
      const points: THREE.Vector2[] = [];
      let v = first;
      do {
        points.push(new THREE.Vector2(outline.xs[v]!, outline.ys[v]!));
        v = outline.next[v]!;
      } while (v !== first);
      return new THREE.Shape(points);
    })
    .filter((shape) => !THREE.ShapeUtils.isClockWise(shape.getPoints(1)));
}

type Merged = THREE.BufferGeometry & { userData: { paneOf: Uint32Array } };

/** Panes as one geometry, or the solids that are taken out, a little longer than they cut; for each triangle it knows which pane it is of. */
function merged(panes: readonly Pane[], solid: boolean): Merged {
  const parts = panes.map((pane) => {
    if (!solid) return triangles(pane.outline);
    const deep = pane.depth + 0.3;
    return new THREE.ExtrudeGeometry(shapesOf(pane.outline), { depth: deep, bevelEnabled: false }).translate(
      0,
      0,
      pane.before + 0.15 - deep,
    );
  });
  const indexOf = (part: THREE.BufferGeometry, i: number): number => part.index?.getX(i) ?? i;
  const corners = (part: THREE.BufferGeometry): number => part.index?.count ?? part.attributes.position!.count;
  const [points, triangleCorners] = [
    parts.reduce((sum, part) => sum + part.attributes.position!.count, 0),
    parts.reduce((sum, part) => sum + corners(part), 0),
  ];
  const positions = new Float32Array(3 * points);
  const index = new Uint32Array(triangleCorners);
  const paneOf = new Uint32Array(triangleCorners / 3);
  const at = new THREE.Vector3();
  let [p, c] = [0, 0];
  parts.forEach((part, k) => {
    const position = part.attributes.position!;
    for (let i = 0; i < corners(part); i++) {
      if (i % 3 === 0) paneOf[c / 3] = k;
      index[c++] = p + indexOf(part, i);
    }
    for (let i = 0; i < position.count; i++)
      at.fromBufferAttribute(position, i)
        .applyMatrix4(panes[k]!.matrix)
        .toArray(positions, 3 * p++);
    if (solid) part.dispose();
  });
  const geometry = new THREE.BufferGeometry() as Merged;
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setIndex(new THREE.BufferAttribute(index, 1));
  geometry.userData.paneOf = paneOf;
  return geometry;
}
