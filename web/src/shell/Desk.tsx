/** The desk: register, board, model and particulars, as wide and high as they were left. */
import { useEffect, useRef, type ReactNode } from 'react';
import { Group, Panel, Separator, type GroupImperativeHandle, type Layout } from 'react-resizable-panels';
import { useEditor, type ModelRoom } from '../state/state.ts';

interface DeskProps {
  register: ReactNode;
  board: ReactNode;
  model: ReactNode;
  particulars: ReactNode;
}

type Layouts = { columns: Layout; side: Layout };

const columns = { 'register-pane': 13.4, 'board-pane': 60.2, 'side-pane': 26.4 };
/** As they are until they are drawn otherwise. */
const layouts: Record<ModelRoom, Layouts> = {
  usual: { columns, side: { 'model-pane': 34, 'particulars-pane': 66 } },
  large: {
    columns: { 'register-pane': 13.4, 'board-pane': 42, 'side-pane': 44.6 },
    side: { 'model-pane': 62, 'particulars-pane': 38 },
  },
  // The model's least is its most then.
  folded: { columns, side: { 'model-pane': 4, 'particulars-pane': 96 } },
};

/** How high what is left of a model that is folded away is. */
const bar = '32px';

function remembered(room: ModelRoom): Layouts {
  const otherwise = layouts[room];
  try {
    return {
      ...otherwise,
      ...(JSON.parse(localStorage.getItem(`yard-arch-desk-${room}`) ?? '{}') as Partial<Layouts>),
    };
  } catch {
    return otherwise;
  }
}

export function Desk({ register, board, model, particulars }: DeskProps) {
  const room = useEditor((state) => state.modelRoom);
  const folded = room === 'folded';
  const columns = useRef<GroupImperativeHandle | null>(null);
  const side = useRef<GroupImperativeHandle | null>(null);
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    const layouts = remembered(room);
    columns.current?.setLayout(layouts.columns);
    side.current?.setLayout(layouts.side);
  }, [room]);
  const keep =
    (which: keyof Layouts) =>
    (layout: Layout, { isUserInteraction }: { isUserInteraction: boolean }) => {
      if (isUserInteraction)
        localStorage.setItem(`yard-arch-desk-${room}`, JSON.stringify({ ...remembered(room), [which]: layout }));
    };
  const now = remembered(room);
  return (
    <Group className="desk" groupRef={columns} defaultLayout={now.columns} onLayoutChanged={keep('columns')}>
      <Panel id="register-pane" minSize="120px" maxSize="30%">
        {register}
      </Panel>
      <Separator className="divider upright" aria-label="Width of the register" />
      <Panel id="board-pane" minSize="320px">
        {board}
      </Panel>
      <Separator className="divider upright" aria-label="Width of the model and the particulars" />
      <Panel id="side-pane" minSize="240px">
        <Group orientation="vertical" groupRef={side} defaultLayout={now.side} onLayoutChanged={keep('side')}>
          <Panel id="model-pane" minSize={folded ? bar : '110px'} maxSize={folded ? bar : '100%'}>
            {model}
          </Panel>
          <Separator className="divider level" aria-label="Height of the model" disabled={folded} />
          <Panel id="particulars-pane" minSize="150px">
            {particulars}
          </Panel>
        </Group>
      </Panel>
    </Group>
  );
}
