/** Parts as they are seen on their face: solids, panes, and the marks of leaves; in metres, y up. */
import type { Front } from '@yard-arch/core';
import type { ProjectDocument } from '@yard-arch/document';

const paths = new WeakMap<Front, string>();

function frontPath(front: Front): string {
  let path = paths.get(front);
  if (path === undefined) {
    path = front.loops
      .map(
        (loop) =>
          loop.map(([x, z], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(4)} ${z.toFixed(4)}`).join('') +
          (front.kind === 'hung' || front.kind === 'joint' ? '' : 'Z'),
      )
      .join('');
    paths.set(front, path);
  }
  return path;
}

interface FrontsProps {
  fronts: readonly Front[];
  /** Materials in whose colours solids are drawn; all alike where it is left out. */
  materials?: ProjectDocument['materials'] | undefined;
}

export function Fronts({ fronts, materials }: FrontsProps) {
  return fronts.map((front, i) => {
    const colour = front.kind === 'solid' && front.material ? materials?.[front.material]?.colour : undefined;
    return (
      <path
        key={i}
        className={front.kind}
        d={frontPath(front)}
        fillRule="evenodd"
        vectorEffect="non-scaling-stroke"
        {...(colour ? { style: { fill: colour } } : {})}
      />
    );
  });
}
