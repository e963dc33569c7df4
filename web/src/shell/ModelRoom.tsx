/** Where the model is shown, what is left of it where it is folded away, and what stands there where it cannot be shown: the rest of the page goes on without it. */
import { Button, Heading, Text } from '@chakra-ui/react';
import type { ProjectDocument } from '@yard-arch/document';
import { ChevronDown, ChevronUp, Maximize2, Minimize2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { ErrorBoundary, getErrorMessage, type FallbackProps } from 'react-error-boundary';
import { keys } from '../common/keys.ts';
import { later } from '../common/later.tsx';
import { giveRoom } from '../state/choice.ts';
import { post } from '../state/cutting.ts';
import { useEditor } from '../state/state.ts';

const ModelView = later(
  async () => (await import('../model/ModelView.tsx')).default,
  <div className="waiting">Fetching the model view…</div>,
);

/** Fetches what draws the model ahead of when it is shown. */
export function fetchModel(): void {
  if (useEditor.getState().modelRoom !== 'folded') ModelView.fetch();
}

// Where the page opens on a project it is fetched while the document is.
if (location.pathname.startsWith('/projects/')) fetchModel();

/** Whether what stands beside has been drawn: making ready to draw in three dimensions holds the page up, by seconds where there is no graphics card. */
function useDrawn(): boolean {
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => setDrawn(true));
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return drawn;
}

export function ModelRoom({ document }: { document: ProjectDocument }) {
  const drawn = useDrawn();
  const room = useEditor((state) => state.modelRoom);
  const large = room === 'large';
  const what = large ? 'Make the model small' : 'Enlarge the model';
  if (room === 'folded')
    return (
      <aside className="model folded" aria-label="Model">
        <button onClick={() => giveRoom('usual')} title={`Show the model (${keys.fold.shown})`}>
          <ChevronDown size={15} /> Show the model
        </button>
      </aside>
    );
  return (
    <aside className="model" aria-label="Model">
      <ErrorBoundary FallbackComponent={Without}>{drawn && <ModelView document={document} />}</ErrorBoundary>
      <div className="room-tools">
        <button onClick={() => giveRoom(large ? 'usual' : 'large')} aria-label={what} title={what}>
          {large ? <Minimize2 size={15} /> : <Maximize2 size={15} />}
        </button>
        <button
          onClick={() => giveRoom('folded')}
          aria-label="Fold the model away"
          title={`Fold the model away (${keys.fold.shown})`}
        >
          <ChevronUp size={15} />
        </button>
      </div>
    </aside>
  );
}

/** Whether this browser draws in three dimensions at all. */
function drawsSpace(): boolean {
  const context = document.createElement('canvas').getContext('webgl2');
  context?.getExtension('WEBGL_lose_context')?.loseContext();
  return context !== null;
}

function Without({ error, resetErrorBoundary }: FallbackProps) {
  const there = useEditor((state) => state.drawn.size > 0);
  const [able] = useState(drawsSpace);
  // What is told once the model has been drawn is wanted without it too.
  useEffect(() => {
    if (there) post({ kind: 'drawn' });
  }, [there]);
  return (
    <div className="without" role="status">
      <Heading as="h2" size="md">
        The model cannot be shown
      </Heading>
      <Text mt="2">
        {able
          ? 'Drawing it has failed. Try again; if that does not help, load the page again.'
          : 'This browser does not draw in three dimensions: WebGL is switched off, or the driver of the graphics card is too old for it. Look for “hardware acceleration” in the browser’s settings, or take another browser.'}
      </Text>
      <Text mt="2">All else works without it: sheet, plan, pattern book, pictures and exports.</Text>
      {able && (
        <Text mt="2" fontFamily="label" color="ink2">
          {getErrorMessage(error)}
        </Text>
      )}
      <Button mt="3" size="sm" variant="outline" onClick={resetErrorBoundary}>
        Try again
      </Button>
    </div>
  );
}
