/** Every edit that a person can make by name, made in random order on whole documents: each applies, leaves a document that can be read, keeps its own promise, and is taken back without a trace. */
import { describe, expect, it } from '@jest/globals';
import { resolveOpening, type Placed } from '@yard-arch/core';
import { demos, granary } from '@yard-arch/demo';
import {
  applyChangeSet,
  firstDimensions,
  parentsOf,
  readDocument,
  type ChangeSet,
  type Element,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type Wall,
} from '@yard-arch/document';
import {
  addAxis,
  addDatum,
  addElement,
  addMaterial,
  addPattern,
  addSize,
  alignAll,
  beginInfill,
  bend,
  blockAll,
  changeOwn,
  changePatternOf,
  copyBy,
  copyPattern,
  copyTo,
  drop,
  duplicateElement,
  infillStarts,
  keepAsSize,
  letGoOf,
  makeOneOff,
  mirrorAll,
  moveAll,
  moveLine,
  partFrom,
  partStarts,
  changePattern,
  pasteSettingOut,
  removeAll,
  removeElement,
  removeLine,
  removeMaterial,
  removePattern,
  removeSize,
  renameLine,
  renameProject,
  resize,
  reverse,
  setGroup,
  setLocked,
  setUnits,
  sizeAll,
  split,
  spreadAll,
  swapAll,
  usesOfMaterial,
  type Line,
} from '@yard-arch/edit';
import fc from 'fast-check';

/** What is picked from a document by a number. */
class Pick {
  constructor(
    readonly document: ProjectDocument,
    private readonly seed: number,
  ) {}

  private from<T>(all: readonly T[], by: number): T | null {
    return all.length > 0 ? all[Math.floor(this.seed * by) % all.length]! : null;
  }
  opening = (by = 1): Opening | null => this.from(Object.values(this.document.openings), by);
  element = (by = 1): Element | null => this.from(Object.values(this.document.elements), by);
  wall = (by = 1): Wall | null =>
    this.from(
      Object.values(this.document.elements).filter((one): one is Wall => one.kind === 'wall'),
      by,
    );
  pattern = (by = 1): Pattern | null => this.from(Object.values(this.document.patterns), by);
  line = (): Line | null => {
    const { datums, axes } = this.document;
    return this.from<Line>(
      [
        ...Object.values(datums).map((datum): Line => ({ kind: 'datum', datum })),
        ...Object.values(axes).map((axis): Line => ({ kind: 'axis', axis })),
      ],
      1,
    );
  };
  /** Some openings on the face of one. */
  some = (most = 4): Opening[] => {
    const first = this.opening();
    return first
      ? Object.values(this.document.openings)
          .filter(({ element, face }) => element === first.element && face === first.face)
          .slice(0, 1 + (Math.floor(this.seed * 3) % most))
      : [];
  };
  /** A figure between two, to the millimetre. */
  figure = (low: number, high: number, by = 7): number =>
    Math.round((low + ((this.seed * by) % 1) * (high - low)) * 1000) / 1000;
}

type Outcome = ChangeSet | { changeSet: ChangeSet } | { reason: string; mend: string } | null;

/** The edits, by their names. Null where a document has nothing to make one of. */
const edits: Record<string, (pick: Pick) => Outcome> = {
  'move openings': (p) => some(p, (all) => moveAll(p.document, all, { ds: p.figure(-1, 1), dt: p.figure(-0.4, 0.4) })),
  'remove openings': (p) => some(p, (all) => removeAll(p.document, all)),
  'block up': (p) => some(p, (all) => blockAll(all)),
  'size alike': (p) => some(p, (all) => sizeAll(all, all[0]!)),
  'align sills': (p) => some(p, (all) => alignAll(p.document, all, 'sills', p.figure(0, 4))),
  'align centres': (p) => some(p, (all) => alignAll(p.document, all, 'centres', p.figure(0, 4))),
  spread: (p) =>
    some(p, (all) =>
      spreadAll(p.document, all, {
        spacing: { kind: 'equal piers' },
        over: 'face',
        margins: { start: null, end: null },
      }),
    ),
  'copy on': (p) => some(p, (all) => copyBy(p.document, all, { ds: p.figure(0.5, 3), dt: 0 })),
  mirror: (p) => some(p, (all) => mirrorAll(p.document, all, p.figure(3, 7), p.figure(0, 1) > 0.5 ? 'linked' : null)),
  'copy to': (p) => {
    const to = p.wall(3);
    return to && some(p, (all) => copyTo(p.document, all, { elements: [to.id], datums: new Map() }));
  },
  drop: (p) => some(p, (all) => drop(p.document, all)),
  swap: (p) => {
    const to = p.pattern(5);
    return to && some(p, (all) => swapAll(p.document, all, to.id));
  },
  'let go along': (p) => one(p.opening(), (opening) => letGoOf(p.document, opening, 'along')),
  'let go up': (p) => one(p.opening(), (opening) => letGoOf(p.document, opening, 'up')),
  'another pattern': (p) =>
    one(p.opening(), (opening) => one(p.pattern(3), (to) => changePatternOf(p.document, opening, to.id))),
  'one-off': (p) => one(p.opening(), (opening) => makeOneOff(opening, p.document.patterns[opening.pattern]!)),
  'own dimensions': (p) =>
    one(p.opening(), (opening) => {
      const { profile, sizes } = p.document.patterns[opening.pattern]!;
      const usual = opening.own ?? sizes[opening.size]?.dimensions ?? firstDimensions(profile.shape);
      const times = p.figure(0.8, 1.3);
      return changeOwn(
        p.document,
        opening,
        Object.fromEntries(
          Object.entries(usual).map(([name, value]) => [name, Math.round(value * times * 1000) / 1000]),
        ),
      );
    }),
  'keep as size': (p) => {
    const own = Object.values(p.document.openings).find((opening) => opening.own);
    return own ? keepAsSize(p.document, own) : null;
  },
  'add a pattern': (p) => addPattern(p.document, 'semicircular-arch'),
  'copy a pattern': (p) => one(p.pattern(), (pattern) => copyPattern(p.document, pattern)),
  'remove a pattern': (p) => one(p.pattern(), (pattern) => removePattern(p.document, pattern)),
  'add a size': (p) => one(p.pattern(), (pattern) => addSize(pattern, Object.values(pattern.sizes)[0]!)),
  'remove a size': (p) =>
    one(p.pattern(), (pattern) => {
      const unused = Object.values(pattern.sizes).find(
        ({ id }) => !Object.values(p.document.openings).some((o) => o.pattern === pattern.id && o.size === id),
      );
      return unused && Object.keys(pattern.sizes).length > 1 ? removeSize(pattern, unused) : null;
    }),
  resize: (p) =>
    one(p.pattern(), (pattern) => {
      const size = Object.values(pattern.sizes)[0]!;
      const times = p.figure(0.9, 1.2);
      return resize(
        p.document,
        pattern,
        size,
        Object.fromEntries(
          Object.entries(size.dimensions).map(([name, value]) => [name, Math.round(value * times * 1000) / 1000]),
        ),
      );
    }),
  'begin an infill': (p) =>
    one(p.pattern(), (pattern) =>
      beginInfill(p.document, pattern, infillStarts[Math.floor(p.figure(0, infillStarts.length - 0.01))]!),
    ),
  'add a part': (p) =>
    one(p.pattern(), (pattern) => {
      const [material] = Object.keys(p.document.materials);
      const start = partStarts[Math.floor(p.figure(0, partStarts.length - 0.01))]!;
      if (!material || (pattern.parts?.length ?? 0) > 4) return null;
      return changePattern(
        pattern,
        { parts: [...(pattern.parts ?? []), partFrom(start, p.document, material)] },
        `put a ${start} about`,
      );
    }),
  'add a datum': (p) => one(p.wall(), (wall) => addDatum(p.document, wall)),
  'add an axis': (p) => one(p.wall(), (wall) => addAxis(p.document, wall)),
  'move a line': (p) => one(p.line(), (line) => moveLine(p.document, line, p.figure(0.5, 6))),
  'rename a line': (p) => one(p.line(), (line) => renameLine(line, `L${p.figure(1, 99)}`)),
  'remove a line': (p) => one(p.line(), (line) => removeLine(p.document, line)),
  'add a material': (p) => addMaterial(p.document),
  'remove a material': (p) =>
    one(
      Object.values(p.document.materials).find(({ id }) => usesOfMaterial(p.document, id) === 0),
      (idle) => removeMaterial(p.document, idle),
    ),
  'add an element': (p) => addElement(p.document, 'slab'),
  'double an element': (p) => one(p.element(), (element) => duplicateElement(p.document, element)),
  'remove an element': (p) => one(p.element(), (element) => removeElement(p.document, element)),
  'group elements': (p) => one(p.element(), (element) => setGroup([element], 'A group')),
  'lock an element': (p) => one(p.element(), (element) => setLocked([element], !element.locked)),
  'bend a wall': (p) => one(p.wall(), (wall) => bend(wall, p.figure(-40, 40))),
  'split a wall': (p) => one(p.wall(), (wall) => split(p.document, wall, p.figure(0.2, 0.8) * wall.length)),
  'reverse a wall': (p) => one(p.wall(), (wall) => reverse(p.document, wall)),
  'paste a setting out': (p) => {
    const [from, to] = [p.wall(), p.wall(5)];
    return from && to && from !== to ? pasteSettingOut(p.document, from, to) : null;
  },
  'rename the project': (p) => renameProject(`Quay ${p.figure(1, 9)}`),
  'change units': () => setUnits('ft-in'),
};

const one = <T>(value: T | null | undefined, make: (value: T) => Outcome): Outcome => (value ? make(value) : null);
const some = (p: Pick, make: (all: Opening[]) => Outcome): Outcome => {
  const all = p.some();
  return all.length > 0 ? make(all) : null;
};

const changeSetOf = (outcome: Outcome): ChangeSet | null =>
  !outcome || 'reason' in outcome ? null : 'changeSet' in outcome ? outcome.changeSet : outcome;

/** Where each opening stands, to the micrometre; by its id. */
function places(document: ProjectDocument): Map<string, string> {
  return new Map(
    Object.values(document.openings).map((opening) => {
      const at = resolveOpening(document, opening) as Placed;
      return [opening.id, 'outline' in at ? `${at.s.toFixed(5)} ${at.t.toFixed(5)}` : 'nowhere'];
    }),
  );
}

/** Demo documents, made once. */
const starts = new Map<string, ProjectDocument>();

const rounds = Number(process.env.EDIT_ROUNDS ?? 60);

describe('edits', () => {
  it.each(Object.keys(edits))(
    '“%s” applies to the granary, says what it is, and is taken back without a trace',
    (name) => {
      const document = granary();
      let made = 0;
      for (const seed of [0.13, 7.7, 23.4, 51.9]) {
        const changeSet = changeSetOf(edits[name]!(new Pick(document, seed)));
        if (!changeSet) continue;
        made += 1;
        expect(changeSet.name).toMatch(/^\S.*\S$/);
        const { document: after, inverse } = applyChangeSet(document, changeSet);
        expect(readDocument(JSON.stringify(after))).toEqual(after);
        expect(applyChangeSet(after, inverse).document).toEqual(document);
      }
      // Only what needs a one-off has nothing to do at first.
      expect(made > 0 || name === 'keep as size' || name === 'remove a size' || name === 'remove a material').toBe(
        true,
      );
    },
  );

  it('in any order leave a document that can be read, and all are taken back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('granary', 'cellar', 'roofs', 'vaults', 'dormers', 'layers', 'book'),
        fc.array(fc.tuple(fc.constantFrom(...Object.keys(edits)), fc.double({ min: 0.01, max: 97, noNaN: true })), {
          minLength: 3,
          maxLength: 14,
        }),
        (name, steps) => {
          const start = starts.get(name) ?? readDocument(JSON.stringify(demos[name]!()));
          starts.set(name, start);
          let document = start;
          const inverses: ChangeSet[] = [];
          for (const [step, seed] of steps) {
            const changeSet = changeSetOf(edits[step]!(new Pick(document, seed)));
            if (!changeSet) continue;
            const { document: after, inverse } = applyChangeSet(document, changeSet);
            inverses.push(inverse);
            document = after;
          }
          expect(readDocument(JSON.stringify(document))).toEqual(document);
          for (const inverse of inverses.reverse()) document = applyChangeSet(document, inverse).document;
          expect(document).toEqual(start);
        },
      ),
      { numRuns: rounds },
    );
  });

  it('that take something away leave all else where it stands', () => {
    const document = granary();
    const before = places(document);
    for (const name of ['remove openings', 'remove a line', 'remove a pattern', 'lock an element', 'group elements'])
      for (const seed of [0.4, 3.3, 11.1, 29.2]) {
        const changeSet = changeSetOf(edits[name]!(new Pick(document, seed)));
        if (!changeSet) continue;
        const { document: after } = applyChangeSet(document, changeSet);
        for (const [id, place] of places(after)) expect([name, id, place]).toEqual([name, id, before.get(id)]);
        // Nobody is measured from what is gone.
        for (const opening of Object.values(after.openings))
          for (const way of ['along', 'up'] as const)
            for (const parent of parentsOf(opening, way)) expect(after.openings[parent]).toBeDefined();
      }
  });
});
