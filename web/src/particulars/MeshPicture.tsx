/** A mesh drawn from the front and a little from above, shaded by how its faces lie; edges at which it is open are marked. */
import type { PlainMesh } from '@yard-arch/core';
import { useEffect, useRef } from 'react';

interface PictureProps {
  mesh: PlainMesh;
  /** By material, as #rrggbb. */
  colours: readonly (string | undefined)[];
}

const [width, height, margin] = [340, 190, 12];
/** From where it is seen: turned to the right and tipped, radians. */
const [turn, tip] = [0.6, 0.35];

type Seen = [x: number, y: number, depth: number];

function seen(points: Float64Array): Seen[] {
  const [c, s, ct, st] = [Math.cos(turn), Math.sin(turn), Math.cos(tip), Math.sin(tip)];
  return Array.from({ length: points.length / 3 }, (_, i): Seen => {
    const [x, y, z] = [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!];
    const [u, v] = [c * x - s * y, s * x + c * y];
    return [u, z * ct + v * st, v * ct - z * st];
  });
}

export function MeshPicture({ mesh, colours }: PictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (context) paint(context, mesh, colours);
  }, [mesh, colours]);
  return (
    <canvas
      ref={canvas}
      width={2 * width}
      height={2 * height}
      style={{ width, height }}
      role="img"
      aria-label="What the mesh looks like"
    />
  );
}

function paint(context: CanvasRenderingContext2D, mesh: PlainMesh, colours: PictureProps['colours']): void {
  const { triangles, slots } = mesh;
  const all = seen(mesh.points);
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, y] of all) {
    [left, right] = [Math.min(left, x), Math.max(right, x)];
    [low, high] = [Math.min(low, y), Math.max(high, y)];
  }
  const scale = 2 * Math.min((width - 2 * margin) / (right - left || 1), (height - 2 * margin) / (high - low || 1));
  const at = ([x, y]: Seen): [number, number] => [
    width + (x - (left + right) / 2) * scale,
    height - (y - (low + high) / 2) * scale,
  ];
  context.clearRect(0, 0, 2 * width, 2 * height);
  const order = Array.from(slots, (_, t) => t);
  const depth = order.map((t) => [0, 1, 2].reduce((sum, k) => sum + all[triangles[3 * t + k]!]![2], 0));
  order.sort((a, b) => depth[b]! - depth[a]!);
  for (const t of order) {
    const [a, b, c] = [0, 1, 2].map((k) => at(all[triangles[3 * t + k]!]!)) as [Spot, Spot, Spot];
    context.fillStyle = shaded(colours[slots[t]!] ?? '#cfc8b8', light(all, triangles, t));
    context.strokeStyle = context.fillStyle;
    context.beginPath();
    for (const [i, spot] of [a, b, c].entries()) context[i === 0 ? 'moveTo' : 'lineTo'](...spot);
    context.closePath();
    context.fill();
    context.stroke();
  }
  context.strokeStyle = '#b1402a';
  context.lineWidth = 3;
  for (const [from, to] of openEdges(mesh)) {
    context.beginPath();
    context.moveTo(...at(all[from]!));
    context.lineTo(...at(all[to]!));
    context.stroke();
  }
}

type Spot = [number, number];

/** How light a triangle is, from 0 to 1: as its normal is to where the light comes from. */
function light(all: readonly Seen[], triangles: Uint32Array, t: number): number {
  const [a, b, c] = [0, 1, 2].map((k) => all[triangles[3 * t + k]!]!) as [Seen, Seen, Seen];
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
  return Math.abs(0.35 * n[0] + 0.7 * n[1] + 0.62 * n[2]) / (Math.hypot(...n) || 1);
}

function shaded(colour: string, by: number): string {
  const part = (at: number): number => Math.round(Number.parseInt(colour.slice(at, at + 2), 16) * (0.45 + 0.55 * by));
  return `rgb(${part(1)} ${part(3)} ${part(5)})`;
}

/** Edges that are of one triangle only, as pairs of points. */
function openEdges({ triangles }: PlainMesh): [number, number][] {
  const edges = new Map<string, [number, number]>();
  for (let i = 0; i < triangles.length; i++) {
    const from = triangles[i]!;
    const to = triangles[i % 3 === 2 ? i - 2 : i + 1]!;
    if (!edges.delete(`${to} ${from}`)) edges.set(`${from} ${to}`, [from, to]);
  }
  return [...edges.values()];
}
