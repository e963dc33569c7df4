/** A mesh that was made upright, put where a rigid frame has it. */
import type { CutMesh } from '../mesh/cut-mesh.ts';
import type { Rigid } from './chart.ts';

/** Nothing but points and normals is other than before; the rest is shared. */
export function meshIn(frame: Rigid, mesh: CutMesh): CutMesh {
  return { ...mesh, points: turned(frame, mesh.points, frame.origin), normals: turned(frame, mesh.normals, [0, 0, 0]) };
}

function turned<T extends Float32Array | Float64Array>({ x, y, z }: Rigid, from: T, [ox, oy, oz]: Rigid['origin']): T {
  const out = from.slice() as T;
  for (let i = 0; i < from.length; i += 3) {
    const [a, b, c] = [from[i]!, from[i + 1]!, from[i + 2]!];
    out[i] = ox + a * x[0] + b * y[0] + c * z[0];
    out[i + 1] = oy + a * x[1] + b * y[1] + c * z[1];
    out[i + 2] = oz + a * x[2] + b * y[2] + c * z[2];
  }
  return out;
}
