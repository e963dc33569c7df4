/**
 * How the model is shown: remembered as it was and never as what it cannot be; and when some of it has grown out of view.
 * @jest-environment jsdom
 */
import { beforeEach, describe, expect, it } from '@jest/globals';
import { renderHook, act } from '@testing-library/react';
import fc from 'fast-check';
import * as THREE from 'three';
import { readDisplay, rememberedView, rememberView, useDisplay } from '../src/model/display.ts';
import { allInView, useOutgrown } from '../src/model/outgrown.ts';
import { fit, margin, sOf, tOf, xOf, yOf, zoom } from '../src/boards/viewport.ts';

beforeEach(() => localStorage.clear());

describe('how the model is shown', () => {
  it('is kept in this browser, but for the plane through it', () => {
    useDisplay.setState({ show: 'clay', backdrop: 'dark', section: { across: 'x', at: 2, other: false } });
    expect(JSON.parse(localStorage.getItem('yard-arch-model')!)).toMatchObject({ show: 'clay', backdrop: 'dark' });
    expect(readDisplay()).toMatchObject({ show: 'clay', backdrop: 'dark', section: null });
  });

  it.each(['', 'null', '7', '"clay"', '[1]', '{"show":"neon","fill":3,"parallel":"yes","finer":null}', '{"show":'])(
    'is as at first where %s is kept of it',
    (kept) => {
      localStorage.setItem('yard-arch-model', kept);
      expect(readDisplay()).toEqual({
        show: 'edged',
        fill: 'full',
        parallel: false,
        cutters: false,
        backdrop: 'light',
        finer: true,
        section: null,
      });
    },
  );

  it('is looked at from where it was last, project by project', () => {
    const view = { from: [1, 2, 3], to: [4, 5, 6], zoom: 1 } as const;
    rememberView('p', { ...view, from: [...view.from], to: [...view.to] });
    expect(rememberedView('p')).toEqual(view);
    expect(rememberedView('q')).toBeNull();
  });

  it.each(['null', '{}', '{"from":[1,2],"to":[1,2,3],"zoom":1}', '{"from":[1,2,"x"],"to":[1,2,3],"zoom":1}', 'x'])(
    'is looked at as at first where %s is kept of that',
    (kept) => {
      localStorage.setItem('yard-arch-view-p', kept);
      expect(rememberedView('p')).toBeNull();
    },
  );
});

describe('a model that grows', () => {
  const camera = new THREE.PerspectiveCamera(40, 1, 0.1, 100);
  camera.position.set(0, 0, 10);
  camera.lookAt(0, 0, 0);
  const small = [new THREE.Vector3(-1, -1, 0), new THREE.Vector3(1, 1, 0)];
  const large = [...small, new THREE.Vector3(30, 0, 0)];

  it('is told of when an edit takes some of it out of view, until it is shown whole', () => {
    expect([allInView(small, camera), allInView(large, camera)]).toEqual([true, false]);
    const hook = renderHook(({ corners }) => useOutgrown(corners, () => camera), { initialProps: { corners: small } });
    expect(hook.result.current[0]).toBe(false);
    hook.rerender({ corners: large });
    expect(hook.result.current[0]).toBe(true);
    act(() => hook.result.current[1]());
    expect(hook.result.current[0]).toBe(false);
    // Who has gone near is not told of it again.
    hook.rerender({ corners: [...large, new THREE.Vector3(40, 0, 0)] });
    expect(hook.result.current[0]).toBe(false);
    hook.rerender({ corners: [...small] });
    expect(hook.result.current[0]).toBe(false);
  });

  it('is none before there is a camera, or anything to see', () => {
    const hook = renderHook(({ corners }) => useOutgrown(corners, () => null), { initialProps: { corners: small } });
    hook.rerender({ corners: large });
    expect(hook.result.current[0]).toBe(false);
    const empty = renderHook(({ corners }) => useOutgrown(corners, () => camera), {
      initialProps: { corners: [] as THREE.Vector3[] },
    });
    empty.rerender({ corners: large });
    expect(empty.result.current[0]).toBe(false);
  });
});

describe('a sheet', () => {
  const length = fc.double({ min: 0.05, max: 500, noNaN: true });
  const pixels = fc.integer({ min: 260, max: 3000 });

  it('shows a face whole, in the middle of the room that there is', () => {
    fc.assert(
      fc.property(pixels, pixels, length, length, (width, height, long, tall) => {
        const view = fit(width, height + 100, long, tall);
        expect(xOf(view, 0)).toBeGreaterThanOrEqual(margin.left - 1e-6);
        expect(xOf(view, long)).toBeLessThanOrEqual(width - margin.right + 1e-6);
        expect(yOf(view, tall)).toBeGreaterThanOrEqual(margin.top - 1e-6);
        expect(yOf(view, 0)).toBeLessThanOrEqual(height + 100 - margin.bottom + 1e-6);
        expect(xOf(view, 0) - margin.left).toBeCloseTo(width - margin.right - xOf(view, long), 6);
      }),
    );
  });

  it('is gone nearer to about what the pointer is on, and within limits', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 100, noNaN: true }), pixels, pixels, (factor, px, py) => {
        const view = { x: 120, y: 700, scale: 80 };
        const nearer = zoom(view, factor, px, py);
        expect(sOf(nearer, px)).toBeCloseTo(sOf(view, px), 6);
        expect(tOf(nearer, py)).toBeCloseTo(tOf(view, py), 6);
        expect(nearer.scale).toBeGreaterThanOrEqual(0.5);
        expect(nearer.scale).toBeLessThanOrEqual(4000);
        expect(xOf(nearer, sOf(nearer, px))).toBeCloseTo(px, 6);
        expect(yOf(nearer, tOf(nearer, py))).toBeCloseTo(py, 6);
      }),
    );
  });
});
