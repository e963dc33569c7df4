/** The setting-out page: register, sheet, strip of patterns, model and particulars of one project. */
import { Button, Flex, Spinner } from '@chakra-ui/react';
import { Maximize2, Minimize2 } from 'lucide-react';
import type { ProjectDocument } from '@yard-arch/document';
import { addElement, openingsOf } from '@yard-arch/edit';
import { useEffect, useState, type ReactNode } from 'react';
import { useNavigate, useNavigationType, useParams } from 'react-router';
import { BoardMenu } from '../commands/BoardMenu.tsx';
import { Finder } from '../commands/Finder.tsx';
import { fetchTheRest, later } from '../common/later.tsx';
import { Banner } from './Banner.tsx';
import { Desk } from './Desk.tsx';
import { Failure } from './Failure.tsx';
import { FirstSteps } from './FirstSteps.tsx';
import { ManyParticulars } from '../particulars/ManyParticulars.tsx';
import { OpeningParticulars } from '../particulars/OpeningParticulars.tsx';
import { LineParticulars } from '../particulars/LineParticulars.tsx';
import { ProjectParticulars } from '../particulars/ProjectParticulars.tsx';
import { PatternParticulars } from '../particulars/PatternParticulars.tsx';
import { ElementParticulars } from '../particulars/ElementParticulars.tsx';
import { Sheet } from '../sheet/Sheet.tsx';
import { PatternStrip } from '../patterns/PatternStrip.tsx';
import { Register } from '../register/Register.tsx';
import { chooseElement, place, turnTo } from '../state/choice.ts';
import { openSteps } from '../state/first-steps.ts';
import { useEditor } from '../state/state.ts';
import { closeProject, commit, openProject, redo, undo } from '../state/store.ts';
import { TopBar } from './TopBar.tsx';

// Fetched when they are wanted; the finder is not one of them, since it is typed into blind.
const KeyList = later(async () => (await import('../commands/KeyList.tsx')).KeyList);
const AsideDialog = later(async () => (await import('./AsideDialog.tsx')).AsideDialog);
const SheetsDialog = later(async () => (await import('./SheetsDialog.tsx')).SheetsDialog);
const HistoryParticulars = later(
  async () => (await import('../particulars/HistoryParticulars.tsx')).HistoryParticulars,
);
const OpeningsTable = later(
  async () => (await import('../table/OpeningsTable.tsx')).OpeningsTable,
  <div className="drawing" />,
);
const Plan = later(async () => (await import('../plan/Plan.tsx')).Plan, <div className="drawing" />);
const ModelView = later(
  async () => (await import('../model/ModelView.tsx')).default,
  <div className="waiting">Fetching the model view…</div>,
);
// Where the page opens on a project it is fetched while the document is.
if (location.pathname.startsWith('/projects/')) ModelView.fetch();

export function EditorPage() {
  const { project = '', element: named } = useParams();
  const navigate = useNavigate();
  const came = useNavigationType();
  const document = useEditor((state) => state.document);
  const failure = useEditor((state) => state.failure !== null);
  const element = useEditor((state) => state.element);
  const board = useEditor((state) => state.board);
  const [large, setLarge] = useState(() => localStorage.getItem('yard-arch-model-large') === 'yes');

  useEffect(() => {
    openSteps(project);
    if (named) localStorage.setItem(`yard-arch-element-${project}`, named);
    // Fetched while the document is.
    ModelView.fetch();
    void openProject(project);
    return closeProject;
    // The address follows the chosen wall afterwards; only another project is opened anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [project]);
  useEffect(() => {
    if (element && document && element !== named)
      void navigate(`/projects/${project}/setting-out/${element}`, { replace: named === undefined });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [element, document !== null]);
  useEffect(() => {
    const timer = setTimeout(() => void fetchTheRest(), 6000);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    // Back and forward in the browser lead from wall to wall. The page's own steps do not: one that lands late would lead away from what was chosen since.
    if (came !== 'POP') return;
    const { document: now, element: shown } = useEditor.getState();
    if (named && now?.elements[named] && named !== shown) chooseElement(named);
  }, [named, came]);
  useEffect(() => {
    window.document.title = document ? `${document.name} · Yard Arch` : 'Yard Arch';
  }, [document?.name, document]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !(event.target instanceof HTMLInputElement)) place(null);
      const key = event.key.toLowerCase();
      const typing =
        event.target instanceof HTMLInputElement ||
        event.target instanceof HTMLSelectElement ||
        event.target instanceof HTMLTextAreaElement;
      if (!event.ctrlKey && !event.metaKey && !event.altKey && !typing) {
        if (key === '?') useEditor.setState({ dialog: 'keys' });
        else if (key === 'p') turnTo(useEditor.getState().board === 'plan' ? 'sheet' : 'plan');
        else return;
        event.preventDefault();
        return;
      }
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      if (key === 'k') {
        event.preventDefault();
        return useEditor.setState(({ dialog }) => ({ dialog: dialog === 'finder' ? null : 'finder' }));
      }
      if (typing) return;
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      if (key === 'y' || event.shiftKey) redo();
      else undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  if (failure) return <Failure project={project} />;
  if (!document)
    return (
      <Flex h="100%" align="center" justify="center" gap="3" color="ink2">
        <Spinner size="sm" /> Opening the project…
      </Flex>
    );

  const wall = element ? document.elements[element] : undefined;
  const toggle = () => {
    localStorage.setItem('yard-arch-model-large', large ? 'no' : 'yes');
    setLarge(!large);
  };
  return (
    <div className="editor">
      <TopBar document={document} project={project} />
      <Banner project={project} />
      <Desk
        large={large}
        register={<Register document={document} />}
        board={
          <main className="board" aria-label="Board">
            <div className="boards" role="tablist" aria-label="Drawing">
              <button role="tab" aria-selected={board === 'sheet'} onClick={() => turnTo('sheet')}>
                Sheet{wall ? ` of ${wall.name}` : ''}
              </button>
              <button role="tab" aria-selected={board === 'plan'} onClick={() => turnTo('plan')}>
                Plan
              </button>
              <button role="tab" aria-selected={board === 'table'} onClick={() => turnTo('table')}>
                Openings
              </button>
            </div>
            {board === 'table' ? (
              <OpeningsTable document={document} />
            ) : board === 'plan' ? (
              <BoardMenu>
                <Plan />
              </BoardMenu>
            ) : wall ? (
              <BoardMenu>
                <Sheet element={wall} />
              </BoardMenu>
            ) : (
              <div className="drawing empty">
                <div>
                  <h2>No wall yet</h2>
                  <p>A sheet is the face of a wall. Add one, or draw walls in plan, then set out their openings.</p>
                  <Flex gap="3" justify="center">
                    <Button
                      bg="ink"
                      color="white"
                      onClick={() => {
                        const made = addElement(document, 'wall');
                        if (commit(made.changeSet)) chooseElement(made.id);
                      }}
                    >
                      Add a wall
                    </Button>
                    <Button variant="outline" onClick={() => turnTo('plan')}>
                      Draw in plan
                    </Button>
                  </Flex>
                </div>
              </div>
            )}
            {board === 'sheet' && <PatternStrip document={document} />}
          </main>
        }
        model={
          <aside className="model" aria-label="Model">
            <ModelView document={document} />
            <button
              className="enlarge"
              onClick={toggle}
              aria-label={large ? 'Make the model small' : 'Enlarge the model'}
              title={large ? 'Make the model small' : 'Enlarge the model'}
            >
              {large ? <Minimize2 size={15} /> : <Maximize2 size={15} />}
            </button>
          </aside>
        }
        particulars={
          <aside className="particulars" aria-label="Particulars">
            <FirstSteps document={document} />
            <Particulars />
          </aside>
        }
      />
      <Dialogs document={document} />
    </div>
  );
}

function Dialogs({ document }: { document: ProjectDocument }) {
  const dialog = useEditor((state) => state.dialog);
  return (
    <>
      <FromThenOn when={dialog === 'finder'}>
        <Finder />
      </FromThenOn>
      <FromThenOn when={dialog === 'keys'}>
        <KeyList />
      </FromThenOn>
      <FromThenOn when={dialog === 'aside'}>
        <AsideDialog />
      </FromThenOn>
      <FromThenOn when={dialog === 'sheets'}>
        <SheetsDialog document={document} />
      </FromThenOn>
    </>
  );
}

/** What is there from when it is first wanted on; it knows by itself whether it is to be seen. */
function FromThenOn({ when, children }: { when: boolean; children: ReactNode }) {
  const [wanted, setWanted] = useState(when);
  if (when && !wanted) setWanted(true);
  return wanted ? children : null;
}

function Particulars() {
  const document = useEditor((state) => state.document)!;
  const element = useEditor((state) => state.element);
  const chosen = useEditor((state) => state.chosen);
  if (chosen.kind === 'openings') {
    const openings = openingsOf(document, chosen.ids);
    if (openings.length === 1)
      return <OpeningParticulars key={openings[0]!.id} document={document} opening={openings[0]!} />;
    if (openings.length > 1) return <ManyParticulars document={document} openings={openings} />;
  }
  if (chosen.kind === 'pattern' && document.patterns[chosen.id])
    return <PatternParticulars key={chosen.id} document={document} pattern={document.patterns[chosen.id]!} />;
  if (chosen.kind === 'datum' && document.datums[chosen.id])
    return (
      <LineParticulars
        key={chosen.id}
        document={document}
        line={{ kind: 'datum', datum: document.datums[chosen.id]! }}
      />
    );
  if (chosen.kind === 'axis' && document.axes[chosen.id])
    return (
      <LineParticulars key={chosen.id} document={document} line={{ kind: 'axis', axis: document.axes[chosen.id]! }} />
    );
  if (chosen.kind === 'history') return <HistoryParticulars />;
  if (chosen.kind === 'project') return <ProjectParticulars document={document} />;
  const wall = element ? document.elements[element] : undefined;
  return wall ? (
    <ElementParticulars key={wall.id} document={document} element={wall} />
  ) : (
    <p className="why">Nothing is chosen.</p>
  );
}
