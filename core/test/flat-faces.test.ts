/** Faces of a closed mesh triangulated anew: folds and idle vertices go, what is meant stays. */
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { flatFacesAnew, type FlatFace } from '../src/mesh/flat-faces.ts';

type Point = [number, number, number];

/** A box of 3 × 2 × 1 m whose faces are divided at further points of their edges and within, so many along each edge. */
function box(parts: number): { faces: FlatFace[]; points: Point[] } {
  const points: Point[] = [];
  const known = new Map<string, number>();
  const vertex = (p: Point): number => {
    const key = p.map((x) => x.toFixed(9)).join();
    return known.get(key) ?? known.set(key, points.push(p) - 1).get(key)!;
  };
  const size = [3, 2, 1];
  const faces: FlatFace[] = [];
  for (let axis = 0; axis < 3; axis++)
    for (const side of [0, 1]) {
      const [a, b] = side === 1 ? [(axis + 1) % 3, (axis + 2) % 3] : [(axis + 2) % 3, (axis + 1) % 3];
      const at = (i: number, j: number): number => {
        const p: Point = [0, 0, 0];
        p[axis] = side * size[axis]!;
        p[a] = (size[a]! * i) / parts;
        p[b] = (size[b]! * j) / parts;
        return vertex(p);
      };
      const triangles: number[] = [];
      for (let i = 0; i < parts; i++)
        for (let j = 0; j < parts; j++)
          triangles.push(at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j), at(i + 1, j + 1), at(i, j + 1));
      const normal: Point = [0, 0, 0];
      normal[axis] = side === 1 ? 1 : -1;
      faces.push({ triangles, normal });
    }
  return { faces, points };
}

const cross = (o: Point, a: Point, b: Point): Point => {
  const [u, v] = [a.map((x, k) => x - o[k]!), b.map((x, k) => x - o[k]!)];
  return [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
};

/** The area of a face's triangles, those that are turned over counted as negative. */
function areas({ triangles, normal }: FlatFace, points: readonly Point[]): { net: number; turned: number } {
  let [net, turned] = [0, 0];
  for (let i = 0; i < triangles.length; i += 3) {
    const n = cross(points[triangles[i]!]!, points[triangles[i + 1]!]!, points[triangles[i + 2]!]!);
    const area = (n[0] * normal[0] + n[1] * normal[1] + n[2] * normal[2]) / 2;
    net += area;
    if (area < 0) turned += 1;
  }
  return { net, turned };
}

describe('flat faces triangulated anew', () => {
  it('have no vertices but those of their corners', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5 }), (parts) => {
        const { faces, points } = box(parts);
        const made = flatFacesAnew(faces, (v) => points[v]!);
        expect(made.map((triangles) => triangles.length)).toEqual([6, 6, 6, 6, 6, 6]);
        made.forEach((triangles, i) =>
          expect(areas({ ...faces[i]!, triangles }, points).net).toBeCloseTo(areas(faces[i]!, points).net, 9),
        );
        // Each edge of the whole is met once each way.
        const edges = new Set<string>();
        for (const triangles of made)
          for (let i = 0; i < triangles.length; i++)
            edges.add(`${triangles[i]!} ${triangles[i % 3 === 2 ? i - 2 : i + 1]!}`);
        expect(edges.size).toBe(36);
        for (const edge of edges) expect(edges.has(edge.split(' ').reverse().join(' '))).toBe(true);
      }),
    );
  });

  it('are unfolded where triangles lie over one another', () => {
    const { faces, points } = box(2);
    // The middle of the first face is moved beyond a neighbour, in its plane: four triangles cover some of it twice, and some are turned over.
    const middle = faces[0]!.triangles.find(
      (v) => points[v]!.filter((x, k) => x > 1e-9 && x < [3, 2, 1][k]! - 1e-9).length === 2,
    )!;
    points[middle] = points[middle]!.map((x, k) => (k === 1 ? 1.7 : k === 2 ? -0.4 : x)) as Point;
    expect(areas(faces[0]!, points).turned).toBeGreaterThan(0);
    const made = flatFacesAnew(faces, (v) => points[v]!);
    expect(areas({ ...faces[0]!, triangles: made[0]! }, points)).toEqual({ net: expect.closeTo(2, 9), turned: 0 });
  });

  it('stay as they are where they are not flat, and their neighbours keep what those have', () => {
    const { faces, points } = box(2);
    const top = faces.find(({ normal }) => normal[2] === 1)!;
    const middle = top.triangles.find((v) => Math.hypot(points[v]![0] - 1.5, points[v]![1] - 1) < 1e-9)!;
    points[middle] = [1.5, 1, 1.2];
    const made = flatFacesAnew(faces, (v) => points[v]!);
    expect(made[faces.indexOf(top)]).toBe(top.triangles);
    // The four sides have one vertex more, on the edge that they share with it.
    expect(made.map((triangles) => triangles.length / 3).sort()).toEqual([2, 3, 3, 3, 3, 8]);
  });

  it('have nothing left of fins: of what lies on itself, however either side of it is divided', () => {
    const share = fc.integer({ min: 1, max: 9 }).map((n) => n / 10);
    /** A triangle with a vertex put in on one of its edges. */
    const divided = (corners: number[], ends: number[], middle: number): number[] => {
      const k = [0, 1, 2].find((i) => ends.includes(corners[i]!) && ends.includes(corners[(i + 1) % 3]!));
      if (k === undefined) return corners;
      const [p, q, r] = [0, 1, 2].map((i) => corners[(k + i) % 3]!) as [number, number, number];
      return [p, middle, r, middle, q, r];
    };
    fc.assert(
      fc.property(share, share, share, (x, y, z) => {
        const { faces, points } = box(1);
        const vertex = (...p: Point): number => points.push(p) - 1;
        const corner = (px: number, py: number): number =>
          points.findIndex((p) => p[0] === px && p[1] === py && p[2] === 1);
        // On top a fin along the whole depth; the top is divided by it, and so are the sides that it ends at.
        const [a, b, c, d] = [corner(0, 0), corner(3, 0), corner(3, 2), corner(0, 2)];
        const [front, back] = [vertex(3 * x, 0, 1), vertex(3 * x, 2, 1)];
        const [frontUp, backUp] = [vertex(3 * x, 0, 2), vertex(3 * x, 2, 2)];
        const within = vertex(3 * x, 2 * y, 1 + z);
        const top = faces.find(({ normal }) => normal[2] === 1)!;
        top.triangles = [a, front, back, a, back, d, front, b, c, front, c, back];
        for (const side of faces.filter(({ normal }) => normal[1] !== 0))
          side.triangles = [0, 3].flatMap((i) => {
            const corners = side.triangles.slice(i, i + 3);
            return side.normal[1] < 0 ? divided(corners, [a, b], front) : divided(corners, [c, d], back);
          });
        const round = [front, frontUp, backUp, back];
        const left = round.flatMap((v, k) => [v, round[(k + 1) % 4]!, within]);
        const right = [front, back, backUp, front, backUp, frontUp];
        faces.push({ triangles: left, normal: [-1, 0, 0] }, { triangles: right, normal: [1, 0, 0] });
        const made = flatFacesAnew(faces, (v) => points[v]!);
        expect(made.slice(-2)).toEqual([[], []]);
        const whole = { net: expect.closeTo(6, 9), turned: 0 };
        expect(areas({ ...top, triangles: made[faces.indexOf(top)]! }, points)).toEqual(whole);
      }),
    );
  });
});
