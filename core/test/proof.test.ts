/** The proof itself: that it finds what is wrong with a mesh that has been broken on purpose. */
import { describe, expect, it } from '@jest/globals';
import { cutModel, prove, reportOn, type CutMesh } from '../src/index.ts';
import { opening, project, wall } from './sample.ts';

function mesh(): CutMesh {
  return structuredClone(cutModel(project([wall()], [opening('a', 'arch', 1, 0)])).cuts.get('w1')!.mesh);
}

describe('a proof', () => {
  it('finds nothing wrong with a sound mesh', () => {
    expect(prove(mesh())).toMatchObject({ closed: true, openEdges: 0, nonManifoldEdges: 0, collapsed: 0 });
  });

  it('finds a missing triangle', () => {
    const broken = mesh();
    broken.triangles = broken.triangles.slice(3);
    expect(prove(broken)).toMatchObject({ closed: false, openEdges: 3 });
  });

  it('finds a triangle turned over', () => {
    const broken = mesh();
    [broken.triangles[0], broken.triangles[1]] = [broken.triangles[1]!, broken.triangles[0]!];
    expect(prove(broken)).toMatchObject({ closed: false, openEdges: 3 });
  });

  it('finds a triangle that is there twice', () => {
    const broken = mesh();
    broken.triangles = Uint32Array.from([...broken.triangles, ...broken.triangles.slice(0, 3)]);
    expect(prove(broken)).toMatchObject({ closed: false, nonManifoldEdges: 3 });
  });

  it('finds a collapsed triangle', () => {
    const broken = mesh();
    const [a, b] = [3 * broken.vertices[broken.triangles[0]!]!, 3 * broken.vertices[broken.triangles[1]!]!];
    for (let k = 0; k < 3; k++) broken.points[a + k] = broken.points[b + k]!;
    expect(prove(broken).collapsed).toBeGreaterThan(0);
  });

  it('tells a mesh that is inside out by its volume', () => {
    const broken = mesh();
    for (let i = 0; i < broken.triangles.length; i += 3)
      [broken.triangles[i], broken.triangles[i + 1]] = [broken.triangles[i + 1]!, broken.triangles[i]!];
    expect(prove(broken).closed).toBe(true);
    expect(prove(broken).volume).toBeCloseTo(-prove(mesh()).volume, 9);
  });
});

describe('a report', () => {
  it('is sound only where every opening is cut or blocked up, and tells of those astray', () => {
    const sound = project([wall()], [opening('a', 'arch', 1, 0), opening('b', 'window', 3, 1, { blockedUp: true })]);
    expect(reportOn(sound, cutModel(sound))).toMatchObject({ sound: true, astray: [] });
    const off = project([wall()], [opening('a', 'arch', 40, 0)]);
    expect(reportOn(off, cutModel(off)).sound).toBe(false);
    const astray = project([wall()], [opening('a', 'arch', 1, 0, { element: 'gone' })]);
    const report = reportOn(astray, cutModel(astray));
    expect(report.sound).toBe(false);
    expect(report.astray).toMatchObject([{ id: 'a', state: 'not cut' }]);
  });

  it('adds up: areas by role make the whole, and the face with the openings makes the wall', () => {
    const document = project([wall()], [opening('a', 'window', 1, 1), opening('b', 'oculus', 4, 1)]);
    const [element] = reportOn(document, cutModel(document)).elements;
    const sum = Object.values(element!.areaByRole).reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(element!.area, 9);
    const taken = element!.openings.reduce((area, o) => area + o.area, 0);
    expect(element!.areaByRole['outer face']! + taken).toBeCloseTo(24, 9);
    expect(element!.volume).toBeCloseTo(element!.areaByRole['outer face']! * 0.4, 9);
  });
});
