/** Infill edits: what is begun fits, takes the materials that there are, and keeps what both kinds of field have. */
import { describe, expect, it } from '@jest/globals';
import { cutModel, infillFront, prove } from '@yard-arch/core';
import { granary } from '@yard-arch/demo';
import { applyChangeSet, fieldDepth, type Field, type Pattern, type ProjectDocument } from '@yard-arch/document';
import {
  beginInfill,
  changeInfill,
  copyPattern,
  fieldOf,
  infillFrom,
  infillStarts,
  newProject,
  placeOpening,
  uses,
} from '@yard-arch/edit';

const fresh = newProject('Boat house', 'mm', 'wall');
const done = (document: ProjectDocument, change: ReturnType<typeof beginInfill>): ProjectDocument =>
  applyChangeSet(document, change).document;

describe('an infill that is begun', () => {
  it.each(infillStarts)('as a %s fits every size of a new project’s windows and doors', (start) => {
    for (const id of ['window', 'door', 'arch', 'segment']) {
      const pattern = { ...fresh.patterns[id]!, infill: infillFrom(start, 'paint', 'glass') };
      for (const size of Object.values(pattern.sizes))
        expect([id, size.id, infillFront(pattern, size.dimensions, 'mm')]).toEqual([
          id,
          size.id,
          { front: expect.arrayContaining([expect.objectContaining({ kind: 'solid' })]) },
        ]);
    }
  });

  it('takes the project’s own timber and glass, and adds them where there are none', () => {
    const pattern = fresh.patterns.gateway!;
    const own = beginInfill(fresh, pattern, 'casement');
    expect(own.changes).toHaveLength(1);
    expect(done(fresh, own).patterns.gateway!.infill!.frame.material).toBe('paint');
    const bare: ProjectDocument = {
      ...fresh,
      materials: {
        brick: fresh.materials.brick!,
        glass: { id: 'glass', name: 'Bottle', colour: '#335544', roughness: 1 },
      },
      patterns: { gateway: pattern },
    };
    const made = done(bare, beginInfill(bare, pattern, 'casement'));
    // Another material has the id already: it stays what it is.
    expect(made.materials.glass).toEqual(bare.materials.glass);
    expect(made.materials.glass2).toMatchObject({ name: 'Glass', opacity: 0.3 });
    expect(Object.keys(made.materials).sort()).toEqual(['brick', 'glass', 'glass2', 'paint']);
    // A door of boards needs no glass.
    expect(Object.keys(done(bare, beginInfill(bare, pattern, 'door leaf')).materials)).not.toContain('glass2');
  });

  it('is taken out without a trace', () => {
    const { window } = fresh.patterns as { window: Pattern };
    expect(done(fresh, changeInfill(window, undefined, 'empty')).patterns.window).not.toHaveProperty('infill.frame');
  });
});

describe('a field of another kind', () => {
  const materials = { timber: 'paint', glass: 'glass' };
  const pane: Field = { kind: 'glass', material: 'glass', thickness: 0.01 };

  it('keeps what it holds: a pane in a leaf, a leaf divided', () => {
    const leaf = fieldOf('leaf', pane, materials);
    expect(leaf).toMatchObject({ kind: 'leaf', field: pane });
    const divided = fieldOf('divided', leaf, materials);
    expect(divided).toMatchObject({ kind: 'divided', fields: [pane] });
    expect(fieldOf('leaf', divided, materials)).toMatchObject({ field: pane });
    expect(fieldDepth(divided)).toBe(2);
    expect(fieldOf('empty', divided, materials)).toEqual({ kind: 'empty' });
    expect(fieldOf('panel', leaf, materials)).toMatchObject({ kind: 'panel', material: 'paint' });
  });
});

describe('a new project', () => {
  it('has windows and doors that stand in its wall at once, closed and whole', () => {
    let document = fresh;
    let s = 0.4;
    for (const id of ['window', 'door', 'arch', 'segment']) {
      const [size] = Object.keys(document.patterns[id]!.sizes);
      const { changeSet } = placeOpening(document, document.elements.w1!, { pattern: id, size: size! }, { s, t: 0.4 });
      document = applyChangeSet(document, changeSet).document;
      s += 1.9;
    }
    const { parts, statuses } = cutModel(document).cuts.get('w1')!;
    expect(statuses.map(({ findings }) => findings)).toEqual([[], [], [], []]);
    expect(new Set(parts.map(({ opening }) => opening)).size).toBe(4);
    for (const { part } of parts) expect(prove(part.mesh)).toMatchObject({ closed: true, collapsed: 0 });
  });
});

describe('a pattern that is copied', () => {
  it('has a name of its own, all that the first has, and none of its openings', () => {
    const document = granary();
    const arch = document.patterns.arch!;
    const { changeSet, id } = copyPattern(document, arch);
    const after = applyChangeSet(document, changeSet).document;
    expect(after.patterns[id]).toEqual({ ...arch, id, name: 'Granary arch 2' });
    expect([uses(after, id), uses(after, 'arch')]).toEqual([0, uses(document, 'arch')]);
    const again = copyPattern(after, arch);
    expect(applyChangeSet(after, again.changeSet).document.patterns[again.id]!.name).toBe('Granary arch 3');
  });
});
