/** How finely the model is drawn where the processor does the work of a graphics card: roughly while anything moves, finely once it rests; and with contact shade then, wherever it is drawn. */
import { useFrame, useThree } from '@react-three/fiber';
import { useCallback, useEffect, useRef } from 'react';
import { useEditor } from '../state/state.ts';
import { useDisplay } from './display.ts';
import type { MakeShade, Shade } from './shade.ts';
import { withoutTurnedAway } from './turned-away.ts';

const kept = 'yard-arch-webgl';

/** Whether a WebGL context is drawn by the processor. */
function isSoftware(context: WebGL2RenderingContext | WebGLRenderingContext | null): boolean {
  const about = context?.getExtension('WEBGL_debug_renderer_info');
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(
    String((about && context?.getParameter(about.UNMASKED_RENDERER_WEBGL)) ?? ''),
  );
}

let software: boolean | undefined;

/** Whether WebGL is drawn by the processor here: as it was the last time, for making a context only to ask it takes as long as much of the first frame. */
export function bySoftware(): boolean {
  if (software !== undefined) return software;
  const known = localStorage.getItem(kept);
  if (known) return (software = known === 'software');
  const probe = document.createElement('canvas').getContext('webgl2');
  software = isSoftware(probe);
  probe?.getExtension('WEBGL_lose_context')?.loseContext();
  return software;
}

/** Keeps for the next time how a context that is there is drawn. */
export function noteSoftware(context: WebGL2RenderingContext | WebGLRenderingContext): void {
  localStorage.setItem(kept, isSoftware(context) ? 'software' : 'card');
}

/** Dots across a pixel of the page, roughly and finely; at rest four dots make one, so that edges are smooth without the card's own smoothing. */
const rough = 1;
export const fine = 2;

/** How long nothing may be asked of the view before it rests: so many times as long as it took to be drawn roughly, within limits in ms. Drawing finely takes longer by as much, and whatever is asked meanwhile has to wait for it. */
const rest = { times: 8, least: 400, most: 2000 };

export interface Drawing {
  /** Whether the frame that is being drawn is a rough one. */
  rough: boolean;
  /** Where what rests is shown: over the model, dot for pixel. Browsers that draw by the processor do not smooth what they make smaller. */
  still: HTMLCanvasElement | null;
}

/** Shows what has just been drawn, four dots made into one. */
function show(still: HTMLCanvasElement, drawn: HTMLCanvasElement): void {
  [still.width, still.height] = [Math.round(drawn.width / fine), Math.round(drawn.height / fine)];
  const context = still.getContext('2d');
  if (!context) return;
  context.imageSmoothingQuality = 'high';
  context.drawImage(drawn, 0, 0, still.width, still.height);
}

/** Keeps the pace, and says in `drawing` which frame is which. Where there is a graphics card every frame is fine; what rests gets its contact shade. */
export function Pace({ drawing }: { drawing: Drawing }) {
  const { invalidate } = useThree();
  const finer = useDisplay((state) => state.finer);
  // While the processor is cutting what is to be seen first, drawing finely would only hold that up.
  const ready = useEditor((state) => state.proofs.size > 0 || state.cutFailure !== null);
  const rests = finer && ready;
  const resting = useRef(false);
  const stop = useRef(() => {});
  /** Draws finely unless anything is asked of the view before it rests. */
  const restSoon = useCallback((): void => {
    stop.current();
    let timer: ReturnType<typeof setTimeout>;
    const begun = performance.now();
    // Counted from when the frame has been drawn, which is before the next begins.
    const next = requestAnimationFrame(() => {
      timer = setTimeout(
        () => {
          resting.current = true;
          invalidate();
        },
        Math.min(rest.most, Math.max(rest.least, rest.times * (performance.now() - begun))),
      );
    });
    stop.current = () => {
      cancelAnimationFrame(next);
      clearTimeout(timer);
    };
  }, [invalidate]);
  // What is drawn roughly already need not be drawn so once more.
  useEffect(() => (rests ? restSoon() : invalidate()), [rests, restSoon, invalidate]);
  const shade = useRef<Shade | null>(null);
  const asked = useRef(false);
  const maker = useRef<MakeShade | null>(null);
  useEffect(
    () => () => {
      stop.current();
      shade.current?.dispose();
      shade.current = null;
    },
    [],
  );
  useFrame(({ gl }) => {
    drawing.rough = !resting.current;
    resting.current = false;
    if (bySoftware()) gl.setPixelRatio(drawing.rough ? rough : fine);
    stop.current();
    if (drawing.rough && rests) restSoon();
  });
  // With a priority of its own this draws the frame, in place of the library.
  useFrame(({ gl, scene, camera }) => {
    const { still, rough: passing } = drawing;
    if (!passing && maker.current && shade.current?.camera !== camera) {
      shade.current?.dispose();
      shade.current = maker.current(gl, scene, camera, bySoftware());
    }
    // Shadows are cast by what is turned away too, but not while it is drawn roughly.
    if (passing && bySoftware()) withoutTurnedAway(scene, camera, () => gl.render(scene, camera));
    else if (passing || !shade.current) gl.render(scene, camera);
    else shade.current.draw(gl);
    if (!passing && !asked.current) {
      asked.current = true;
      // What makes it is fetched when the model has been seen, and what rests is drawn anew with it.
      import('./shade.ts').then(
        ({ makeShade }) => {
          maker.current = makeShade;
          resting.current = true;
          invalidate();
        },
        // While the server is away it does without, and asks again when it rests the next time.
        () => {
          asked.current = false;
        },
      );
    }
    if (!still || !bySoftware()) return;
    if (!passing) show(still, gl.domElement);
    still.hidden = passing;
  }, 1);
  return null;
}
