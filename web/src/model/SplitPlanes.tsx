/** The planes that the chosen element is split by: moved along their arrows and turned by their arcs. */
import { PivotControls } from '@react-three/drei';
import { sheetsOf, splitInSpace, tidy } from '@yard-arch/core';
import type { Element, ProjectDocument, Split } from '@yard-arch/document';
import { alterSplit } from '@yard-arch/edit';
import { useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import { colours } from '../colours.ts';
import { useEditor } from '../state/state.ts';
import { commit, preview } from '../state/store.ts';
import { unmet } from './unmet.ts';

type PlaneSplit = Extract<Split, { at: unknown }>;

interface SplitPlanesProps {
  document: ProjectDocument;
  element: Element | undefined;
  /** Told when a drag begins and ends, so that the view is not turned meanwhile. */
  hold: (held: boolean) => void;
}

export function SplitPlanes({ document, element, hold }: SplitPlanesProps) {
  const chosen = useEditor((state) => state.chosen.kind === 'wall');
  if (!element?.splits || !chosen || element.locked) return null;
  const { outline } = sheetsOf(document).of(element.id)!;
  const reach = (values: Float64Array): number => Math.max(...values) - Math.min(...values);
  const size = Math.min(14, 0.6 * Math.max(2, Math.min(reach(outline.xs), reach(outline.ys))) + 1.2);
  return element.splits.map((split, i) => {
    const lies = splitInSpace(split, element);
    return 'at' in lies ? (
      <SplitPlane
        key={`${i} ${JSON.stringify(lies)}`}
        split={lies}
        size={size}
        element={element}
        which={i}
        hold={hold}
      />
    ) : null;
  });
}

interface SplitPlaneProps {
  split: PlaneSplit;
  size: number;
  element: Element;
  which: number;
  hold: SplitPlanesProps['hold'];
}

function SplitPlane({ split, size, element, which, hold }: SplitPlaneProps) {
  const [matrix, setMatrix] = useState(() => matrixOf(split));
  const now = useRef(split);
  const inverse = useMemo(() => new THREE.Matrix4(), []);
  return (
    <PivotControls
      matrix={matrix}
      autoTransform={false}
      depthTest={false}
      disableScaling
      scale={84}
      fixed
      lineWidth={2.5}
      axisColors={[colours.brick, colours.ink2, colours.ink2]}
      hoveredColor={colours.ink}
      onDragStart={() => hold(true)}
      onDrag={(local) => {
        setMatrix(inverse.copy(local).clone());
        now.current = { ...split, ...readFrom(local) };
        preview(alterSplit(element, which, now.current));
      }}
      onDragEnd={() => {
        hold(false);
        preview(null);
        commit(alterSplit(element, which, now.current));
      }}
    >
      <mesh rotation={[0, Math.PI / 2, 0]} raycast={unmet} renderOrder={9}>
        <planeGeometry args={[size, size]} />
        <meshBasicMaterial
          color={colours.brick}
          transparent
          opacity={0.14}
          side={THREE.DoubleSide}
          depthWrite={false}
        />
      </mesh>
    </PivotControls>
  );
}

/** Its normal along x, level along y. */
function matrixOf({ at, turn, tilt }: PlaneSplit): THREE.Matrix4 {
  const made = new THREE.Matrix4().makeRotationZ((turn * Math.PI) / 180);
  made.multiply(new THREE.Matrix4().makeRotationY((-tilt * Math.PI) / 180));
  return made.setPosition(at.x, at.y, at.z);
}

function readFrom(matrix: THREE.Matrix4): Pick<PlaneSplit, 'at' | 'turn' | 'tilt'> {
  const [x, y, z] = new THREE.Vector3().setFromMatrixPosition(matrix).toArray();
  const normal = new THREE.Vector3().setFromMatrixColumn(matrix, 0).normalize();
  const degrees = (radians: number): number => Math.round((radians * 1800) / Math.PI) / 10;
  return {
    at: {
      x: tidy(Math.round(x * 1000) / 1000),
      y: tidy(Math.round(y * 1000) / 1000),
      z: tidy(Math.round(z * 1000) / 1000),
    },
    turn: degrees(Math.atan2(normal.y, normal.x)),
    tilt: degrees(Math.asin(Math.max(-1, Math.min(1, normal.z)))),
  };
}
