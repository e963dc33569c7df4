/** Openings that touch in a point: joined by a hair, so that no edge of the written mesh has more than two faces, and told. */
import { describe, expect, it } from '@jest/globals';
import { checkDocument, type ProjectDocument } from '@yard-arch/document';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { cutModel, prove, type CutMesh } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

const readCase = (name: string): ProjectDocument =>
  checkDocument(JSON.parse(readFileSync(new URL(`./cases/${name}`, import.meta.url), 'utf8')));

/** The most faces at any edge, for a reader to whom points in one place are one. */
function mostFaces({ points, vertices, triangles }: CutMesh): number {
  const welded = new Map<string, number>();
  const at = Array.from({ length: points.length / 3 }, (_, v) => {
    const key = [0, 1, 2].map((k) => Math.round(points[3 * v + k]! * 1e6)).join(' ');
    if (!welded.has(key)) welded.set(key, welded.size);
    return welded.get(key)!;
  });
  const uses = new Map<string, number>();
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [at[vertices[triangles[i + k]!]!]!, at[vertices[triangles[i + ((k + 1) % 3)]!]!]!];
      const key = a < b ? `${a} ${b}` : `${b} ${a}`;
      uses.set(key, (uses.get(key) ?? 0) + 1);
    }
  return Math.max(...uses.values());
}

const first = (document: ProjectDocument) => {
  const model = cutModel(document);
  return { model, cut: [...model.cuts.values()][0]! };
};

describe('openings that touch in a point', () => {
  it.each(['touch-corners.json', 'circle-touches-top.json'])(
    '%s: no edge has more than two faces, and it is told',
    (name) => {
      const { model, cut } = first(readCase(name));
      expect(mostFaces(cut.mesh)).toBe(2);
      expect(prove(cut.mesh)).toMatchObject({ closed: true, collapsed: 0, flaps: 0 });
      expect(prove(cut.mesh).thinnest).toBeGreaterThan(1e-5);
      const told = [...model.statuses.values()].filter(({ reason }) => reason?.includes('joined to it by a hair'));
      expect(told.length).toBeGreaterThan(0);
      for (const { state, mend } of told) {
        expect(state).not.toBe('not cut');
        expect(mend).toBeTruthy();
      }
    },
  );

  it('are moved no more than a hair', () => {
    const document = project([wall()], [opening('a', 'window', 1, 1), opening('b', 'window', 4, 1)]);
    const apart = prove(first(document).cut.mesh).volume;
    // The same two corner to corner.
    const { profile } = first(document).cut.placed[0]!;
    const touching = project(
      [wall()],
      [opening('a', 'window', 1, 1), opening('b', 'window', 1 + profile.width, 1 + profile.height)],
    );
    const { cut, model } = first(touching);
    expect(mostFaces(cut.mesh)).toBe(2);
    expect(Math.abs(prove(cut.mesh).volume - apart)).toBeLessThan(1e-4);
    expect([...model.statuses.values()].filter(({ reason }) => reason?.includes('another opening'))).toHaveLength(1);
  });

  it('and those that share a side, overlap or stand clear are left as they are', () => {
    for (const [ds, dt] of [
      [1, 0],
      [0.5, 0.5],
      [3, 0],
      [1, 0.3],
    ] as const) {
      const document = project([wall()], [opening('a', 'window', 1, 1)]);
      const { profile } = first(document).cut.placed[0]!;
      const { cut, model } = first(
        project(
          [wall()],
          [opening('a', 'window', 1, 1), opening('b', 'window', 1 + ds * profile.width, 1 + dt * profile.height)],
        ),
      );
      expect(mostFaces(cut.mesh)).toBe(2);
      expect([...model.statuses.values()].some(({ reason }) => reason?.includes('joined to it by a hair'))).toBe(false);
    }
  });

  it('wherever corners, tangents and edges meet', () => {
    const shapes = ['window', 'oculus', 'arch'] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...shapes),
        fc.constantFrom(...shapes),
        fc.constantFrom(-1, 0, 1),
        fc.constantFrom(-1, 1),
        (p, q, across, up) => {
          const one = first(project([wall({ length: 12, height: 9 })], [opening('a', p, 4, 3), opening('b', q, 9, 0)]))
            .cut.placed;
          const [a, b] = [one[0]!.profile, one[1]!.profile];
          const s = across < 0 ? 4 - b.width : across > 0 ? 4 + a.width : 4 + (a.width - b.width) / 2;
          const t = up < 0 ? 3 - b.height : 3 + a.height;
          const { cut } = first(
            project([wall({ length: 12, height: 9 })], [opening('a', p, 4, 3), opening('b', q, s, t)]),
          );
          expect(mostFaces(cut.mesh)).toBe(2);
          expect(prove(cut.mesh)).toMatchObject({ closed: true, collapsed: 0 });
          expect(prove(cut.mesh).thinnest).toBeGreaterThan(1e-5);
        },
      ),
    );
  });
});
