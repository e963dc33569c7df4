/** Shells as elements: their bodies, and the sheet on which their openings are set out, which shows them from above. */
import { kindOf, type Element, type ShellForm } from '@yard-arch/document';
import type { Fault } from '../finding.ts';
import type { Fineness } from '../profile/flatten.ts';
import { bayShell } from '../shell/bay.ts';
import { domeShell } from '../shell/dome.ts';
import type { Shell } from '../shell/solid.ts';
import type { Vector } from '../vector.ts';
import { turned, turnedOut, type Rigid } from './chart.ts';
import { boundariesOf, type Sheet } from './sheet.ts';

/** A shell where it stands. */
export interface ShellBody {
  shell: Shell;
  frame: Rigid;
  boundaries: Float64Array;
}

export function shellBody({ layers }: Pick<Element, 'layers'>, form: ShellForm, fineness: Fineness): ShellBody | Fault {
  const boundaries = boundariesOf(layers);
  const thickness = boundaries[layers.length]!;
  const shell = form.of === 'bay' ? bayShell(form, thickness, fineness) : domeShell(form, thickness, fineness);
  if (!shell)
    return {
      code: 'too-thick',
      reason: 'it is as thick as its profile is round',
      mend: 'Make it thinner, or give it a larger span.',
    };
  if ('reason' in shell) return { code: 'no-vault', ...shell };
  const [cos, sin] = turned(form.turn);
  const { x, y, z } = form.start;
  const frame: Rigid = { origin: [x, y, z], x: [cos, sin, 0], y: [0 - sin, cos, 0], z: [0, 0, 1] };
  return { shell, frame, boundaries };
}

/** A point of a shell in space. */
export function shellPoint({ frame }: Pick<ShellBody, 'frame'>, point: Vector): Vector {
  const [x, y, z] = turnedOut(frame, point);
  return [frame.origin[0] + x, frame.origin[1] + y, frame.origin[2] + z];
}

/** How far its sheet begins above it, metres: clear of what is cut. */
const above = 0.05;

/** The sheet of a shell: as it is seen from above, from a little above its highest point down to below its lowest. */
export function shellFromAbove(body: ShellBody, element: Pick<Element, 'id' | 'layers' | 'kind'>): Sheet {
  const { shell, frame } = body;
  const [xs, ys] = [shell.outline.map(([x]) => x), shell.outline.map(([, y]) => y)];
  const [left, foot] = [Math.min(...xs), Math.min(...ys)];
  const { outline, low, high } = shell;
  const ribs = Math.max(0, ...shell.carried.flatMap(({ polygons }) => polygons.flat().map(({ at }) => low - at[2])));
  const deep = high - low + ribs + 2 * above;
  return {
    element: element.id,
    chart: {
      kind: 'flat',
      origin: shellPoint(body, [left, foot, high + above]) as [number, number, number],
      along: frame.x,
      up: frame.y,
      inward: [0, 0, -1],
    },
    length: Math.max(...xs) - left,
    height: Math.max(...ys) - foot,
    outline: {
      xs: Float64Array.from(xs, (x) => x - left),
      ys: Float64Array.from(ys, (y) => y - foot),
      next: Uint32Array.from(outline, (_, i) => (i + 1) % outline.length),
      loops: [0],
      names: outline.map(() => 'edge' as const),
      sections: outline.map(() => null),
      chords: outline.map(() => null),
    },
    seams: shell.lines.map(([[ax, ay], [bx, by]]) => [ax - left, ay - foot, bx - left, by - foot] as const),
    boundaries: Float64Array.of(0, deep),
    layers: element.layers.slice(0, 1),
    thickness: deep,
    noun: kindOf(element as Element).noun,
    larger: 'larger',
    texture: undefined,
    joins: [],
    fault: null,
  };
}
