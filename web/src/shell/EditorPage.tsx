/** The setting-out page: register, sheet, strip of patterns, model and particulars of one project. */
import { Button, Flex, Spinner } from '@chakra-ui/react';
import { edgesOfRoof, faceLabel, facesOf, isManyFaced, type ProjectDocument } from '@yard-arch/document';
import { addElement, openingsOf } from '@yard-arch/edit';
import { useEffect, useState, type ReactNode } from 'react';
import { useNavigate, useNavigationType, useParams } from 'react-router';
import { BoardMenu } from '../commands/BoardMenu.tsx';
import { FinderWaiting } from '../commands/FinderWaiting.tsx';
import { usePageKeys } from '../commands/use-page-keys.ts';
import { fetchTheRest, later } from '../common/later.tsx';
import { Banner } from './Banner.tsx';
import { Desk } from './Desk.tsx';
import { Failure } from './Failure.tsx';
import { FirstSteps } from './FirstSteps.tsx';
import { fetchModel, ModelRoom } from './ModelRoom.tsx';
import { OpeningParticulars } from '../particulars/OpeningParticulars.tsx';
import { ElementParticulars } from '../particulars/ElementParticulars.tsx';
import { Sheet } from '../sheet/Sheet.tsx';
import { PatternStrip } from '../patterns/PatternStrip.tsx';
import { Register } from '../register/Register.tsx';
import { choose, chooseElement, turnOver, turnTo } from '../state/choice.ts';
import { openSteps } from '../state/first-steps.ts';
import { useMeshes } from '../state/meshes.ts';
import { useEditor, useFace } from '../state/state.ts';
import { closeProject, commit, openProject } from '../state/store.ts';
import { TopBar } from './TopBar.tsx';

// Fetched when they are wanted.
const Finder = later(async () => (await import('../commands/Finder.tsx')).Finder, <FinderWaiting />);
const KeyList = later(async () => (await import('../commands/KeyList.tsx')).KeyList);
const AsideDialog = later(async () => (await import('./AsideDialog.tsx')).AsideDialog);
const SheetsDialog = later(async () => (await import('./SheetsDialog.tsx')).SheetsDialog);
const PatternParticulars = later(
  async () => (await import('../particulars/PatternParticulars.tsx')).PatternParticulars,
);
const ManyParticulars = later(async () => (await import('../particulars/ManyParticulars.tsx')).ManyParticulars);
const LineParticulars = later(async () => (await import('../particulars/LineParticulars.tsx')).LineParticulars);
const ProjectParticulars = later(
  async () => (await import('../particulars/ProjectParticulars.tsx')).ProjectParticulars,
);
const EdgeParticulars = later(async () => (await import('../particulars/EdgeParticulars.tsx')).EdgeParticulars);
const HistoryParticulars = later(
  async () => (await import('../particulars/HistoryParticulars.tsx')).HistoryParticulars,
);
const OpeningsTable = later(
  async () => (await import('../table/OpeningsTable.tsx')).OpeningsTable,
  <div className="drawing" />,
);
const Plan = later(async () => (await import('../plan/Plan.tsx')).Plan, <div className="drawing" />);
const BookPage = later(
  async () => (await import('../book/BookPage.tsx')).BookPage,
  <div className="waiting">Fetching the pattern book…</div>,
);
/** Opens the project of the address, and keeps the address to the wall that is chosen. */
function useAddress(): string {
  const { project = '', element: named, pattern: shown } = useParams();
  const navigate = useNavigate();
  const came = useNavigationType();
  const there = useEditor((state) => state.document !== null);
  const name = useEditor((state) => state.document?.name);
  const element = useEditor((state) => state.element);
  useEffect(() => {
    openSteps(project);
    if (named) localStorage.setItem(`yard-arch-element-${project}`, named);
    // Fetched while the document is.
    fetchModel();
    void openProject(project);
    return closeProject;
    // The address follows the chosen wall afterwards; only another project is opened anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [project]);
  const book = useEditor((state) => state.board === 'book');
  const pattern = useEditor((state) => (state.chosen.kind === 'pattern' ? state.chosen.id : null));
  useEffect(() => {
    if (!there) return;
    const wanted =
      book && pattern
        ? `/projects/${project}/patterns/${pattern}`
        : !book && element
          ? `/projects/${project}/setting-out/${element}`
          : null;
    if (wanted && wanted !== location.pathname)
      void navigate(wanted, { replace: named === undefined && shown === undefined });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [element, there, book, pattern]);
  useEffect(() => {
    const timer = setTimeout(() => void fetchTheRest(), 6000);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    // Back and forward in the browser lead from wall to wall. The page's own steps do not: one that lands late would lead away from what was chosen since.
    if (came !== 'POP') return;
    const { document: now, element: on, board } = useEditor.getState();
    if (shown !== undefined && now?.patterns[shown]) {
      turnTo('book');
      choose({ kind: 'pattern', id: shown });
    } else if (named && now?.elements[named]) {
      if (board === 'book') turnTo('sheet');
      if (named !== on) chooseElement(named);
    }
  }, [named, shown, came, there]);
  useEffect(() => {
    document.title = name ? `${name} · Yard Arch` : 'Yard Arch';
  }, [name]);
  return project;
}

export function EditorPage() {
  const project = useAddress();
  const document = useEditor((state) => state.document);
  useMeshes(document);
  const failure = useEditor((state) => state.failure !== null);
  const book = useEditor((state) => state.board === 'book');
  usePageKeys();
  if (failure) return <Failure project={project} />;
  if (!document)
    return (
      <Flex h="100%" align="center" justify="center" gap="3" color="ink2">
        <Spinner size="sm" /> Opening the project…
      </Flex>
    );
  return (
    <div className="editor">
      <TopBar document={document} project={project} />
      <Banner project={project} />
      {book ? (
        <BookPage document={document} />
      ) : (
        <Desk
          register={<Register document={document} />}
          board={<Board document={document} />}
          model={<ModelRoom document={document} />}
          particulars={
            <aside className="particulars" aria-label="Particulars">
              <FirstSteps document={document} />
              <Particulars />
            </aside>
          }
        />
      )}
      <Dialogs document={document} />
    </div>
  );
}

/** The drawings, one at a time: the sheet of the chosen wall, the plan, or the table. */
function Board({ document }: { document: ProjectDocument }) {
  const board = useEditor((state) => state.board);
  const element = useEditor((state) => state.element);
  const wall = element ? document.elements[element] : undefined;
  const face = useFace(element ?? '');
  const many = wall !== undefined && isManyFaced(wall);
  const gone = many && !facesOf(wall).some(({ name }) => name === face);
  useEffect(() => {
    // Its plane is gone: what is there still is the roof from above.
    if (gone) turnOver(wall.id, 'outer');
  }, [gone, wall]);
  const called = wall && many && face !== 'outer' ? faceLabel(wall, face) : wall?.name;
  return (
    <main className="board" aria-label="Board">
      <div className="boards" role="tablist" aria-label="Drawing">
        <button role="tab" aria-selected={board === 'sheet'} onClick={() => turnTo('sheet')}>
          Sheet{wall ? ` of ${called}` : ''}
        </button>
        <button role="tab" aria-selected={board === 'plan'} onClick={() => turnTo('plan')}>
          Plan
        </button>
        <button role="tab" aria-selected={board === 'table'} onClick={() => turnTo('table')}>
          Openings
        </button>
        <button role="tab" aria-selected={false} onClick={() => turnTo('book')}>
          Pattern book
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
        <NoWall document={document} />
      )}
      {board === 'sheet' && <PatternStrip document={document} />}
    </main>
  );
}

/** What stands in place of a sheet where there is no wall. */
function NoWall({ document }: { document: ProjectDocument }) {
  return (
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
  if (chosen.kind === 'edge' && wall && isManyFaced(wall) && edgesOfRoof(wall).some(({ id }) => id === chosen.id))
    return <EdgeParticulars key={`${wall.id} ${chosen.id}`} document={document} roof={wall} id={chosen.id} />;
  return wall ? (
    <ElementParticulars key={wall.id} document={document} element={wall} />
  ) : (
    <p className="why">Nothing is chosen.</p>
  );
}
