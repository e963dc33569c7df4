/**
 * What is chosen, placed and shown, whatever is done in whatever order: it is there, it can be worked on together, and a reload comes back to it.
 * @jest-environment jsdom
 */
import { beforeEach, describe, expect, it } from '@jest/globals';
import { facesOf, isManyFaced, type FaceName } from '@yard-arch/document';
import { granary } from '@yard-arch/demo';
import fc from 'fast-check';
import {
  choose,
  chooseElement,
  chooseOpening,
  chooseOpenings,
  hide,
  nextFace,
  place,
  rememberedChoice,
  rememberedElement,
  rememberedFaces,
  rememberedHidden,
  slide,
  tape,
  turnOver,
  turnTo,
  underDialog,
} from '../src/state/choice.ts';
import { initial, useEditor } from '../src/state/state.ts';

const document = granary();
const openings = Object.keys(document.openings);
const elements = Object.keys(document.elements);
const patterns = Object.values(document.patterns);
const { getState, setState } = useEditor;

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  setState({ ...initial(), project: 'p', document, element: 'courtyard' });
});

const act = fc.oneof(
  fc.record({ does: fc.constant('choose an opening' as const), which: fc.nat(), more: fc.boolean() }),
  fc.record({ does: fc.constant('choose openings' as const), which: fc.nat(), count: fc.nat({ max: 6 }) }),
  fc.record({ does: fc.constant('choose an element' as const), which: fc.nat() }),
  fc.record({ does: fc.constant('choose the wall' as const) }),
  fc.record({ does: fc.constant('place' as const), which: fc.nat() }),
  fc.record({ does: fc.constant('stop placing' as const) }),
  fc.record({ does: fc.constantFrom('tape' as const, 'slide' as const), on: fc.boolean() }),
  fc.record({ does: fc.constant('turn over' as const), which: fc.nat() }),
  fc.record({
    does: fc.constant('board' as const),
    board: fc.constantFrom('sheet' as const, 'plan' as const, 'table' as const, 'book' as const),
  }),
);
type Act = typeof act extends fc.Arbitrary<infer T> ? T : never;

const at = <T>(all: readonly T[], which: number): T => all[which % all.length]!;

function perform(one: Act): void {
  switch (one.does) {
    case 'choose an opening':
      return chooseOpening(at(openings, one.which), one.more);
    case 'choose openings':
      return chooseOpenings(Array.from({ length: one.count }, (_, i) => at(openings, one.which + 7 * i)));
    case 'choose an element':
      return chooseElement(at(elements, one.which));
    case 'choose the wall':
      return choose({ kind: 'wall' });
    case 'place': {
      const pattern = at(patterns, one.which);
      return place({ pattern: pattern.id, size: Object.keys(pattern.sizes)[0]! });
    }
    case 'stop placing':
      return place(null);
    case 'tape':
      return tape(one.on);
    case 'slide':
      return slide(one.on);
    case 'turn over': {
      const element = document.elements[at(elements, one.which)]!;
      return turnOver(element.id, nextFace(element, getState().faces.get(element.id) ?? 'outer'));
    }
    case 'board':
      return turnTo(one.board);
  }
}

describe('what is chosen', () => {
  it('is on one element and one sheet of it, and comes back after a reload', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
        for (const one of acts) {
          perform(one);
          const { chosen, element, placing, taping, sliding, board } = getState();
          if (chosen.kind === 'openings') {
            const all = chosen.ids.map((id) => document.openings[id]!);
            expect(new Set(chosen.ids).size).toBe(chosen.ids.length);
            expect(all.length).toBeGreaterThan(0);
            // They were all on the element that was shown when they were chosen.
            expect(new Set(all.map((opening) => opening.element)).size).toBe(1);
            if (isManyFaced(document.elements[all[0]!.element]!))
              expect(new Set(all.map(({ face }) => face)).size).toBe(1);
          }
          if (one.does === 'choose an opening' && chosen.kind === 'openings')
            expect(element).toBe(document.openings[chosen.ids[0]!]!.element);
          // One thing at a time is done with the pointer.
          expect([placing !== null, taping, sliding].filter(Boolean).length).toBeLessThanOrEqual(1);
          if (one.does === 'place') expect(chosen).toEqual({ kind: 'pattern', id: placing!.pattern });
          expect(rememberedChoice('p')).toEqual(chosen);
          if (one.does === 'board')
            expect([board, localStorage.getItem('yard-arch-board')]).toEqual([one.board, one.board]);
          if (one.does === 'choose an element') expect(rememberedElement('p')).toBe(element);
          expect([...rememberedFaces('p')]).toEqual([...getState().faces]);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('is taken from the rest when it is chosen once more, and the last one leaves its wall', () => {
    chooseOpening('o8');
    chooseOpening('o9', true);
    expect(getState().chosen).toEqual({ kind: 'openings', ids: ['o8', 'o9'] });
    chooseOpening('o8', true);
    expect(getState().chosen).toEqual({ kind: 'openings', ids: ['o9'] });
    chooseOpening('o9', true);
    expect(getState().chosen).toEqual({ kind: 'wall' });
    // Of another wall, only what is there.
    chooseOpening('o8');
    chooseOpening('o22', true);
    expect(getState()).toMatchObject({ element: 'east', chosen: { kind: 'openings', ids: ['o22'] } });
  });

  it('of a roof turns its sheet to the plane on which it is', () => {
    chooseOpening('o49');
    expect(getState()).toMatchObject({ element: 'main-roof', chosen: { kind: 'openings', ids: ['o49'] } });
    expect(getState().faces.get('main-roof')).toBe('north');
    // What is on another plane cannot be worked on with it.
    chooseOpening('o45', true);
    expect(getState().chosen).toEqual({ kind: 'openings', ids: ['o45'] });
    expect(getState().faces.get('main-roof')).toBe('south');
  });
});

describe('faces', () => {
  it('come round again, each once', () => {
    for (const element of Object.values(document.elements)) {
      const all = facesOf(element).map(({ name }) => name);
      let face: FaceName = all[0]!;
      const seen = all.map(() => (face = nextFace(element, face)));
      expect([...seen].sort()).toEqual([...all].sort());
      expect(face).toBe(all[0]);
    }
  });
});

describe('what a browser keeps', () => {
  it('is nothing where it is no longer what it was', () => {
    hide(new Set(['east', 'quay']));
    expect(rememberedHidden('p')).toEqual(new Set(['east', 'quay']));
    expect(rememberedHidden('another')).toEqual(new Set());
    for (const key of ['hidden', 'faces', 'chosen']) {
      localStorage.setItem(`yard-arch-${key}-p`, '{"broken');
      sessionStorage.setItem(`yard-arch-${key}-p`, '{"broken');
    }
    expect(rememberedHidden('p')).toEqual(new Set());
    expect(rememberedFaces('p')).toEqual(new Map());
    expect(rememberedChoice('p')).toEqual({ kind: 'wall' });
  });

  it('and a dialog has the keys, of which Escape closes it', () => {
    expect(underDialog('Escape')).toBe(false);
    setState({ dialog: 'finder' });
    expect(underDialog('a')).toBe(true);
    expect(getState().dialog).toBe('finder');
    expect(underDialog('Escape')).toBe(true);
    expect(getState().dialog).toBeNull();
  });
});
