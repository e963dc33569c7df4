/** The desk: register, board, model and particulars, as wide and high as they were left. */
import { useEffect, useRef, type ReactNode } from 'react';
import { Group, Panel, Separator, type GroupImperativeHandle, type Layout } from 'react-resizable-panels';

interface DeskProps {
  /** Whether the model has half the desk. */
  large: boolean;
  register: ReactNode;
  board: ReactNode;
  model: ReactNode;
  particulars: ReactNode;
}

const usual = {
  columns: { 'register-pane': 13.4, 'board-pane': 60.2, 'side-pane': 26.4 },
  side: { 'model-pane': 34, 'particulars-pane': 66 },
};
const enlarged = {
  columns: { 'register-pane': 13.4, 'board-pane': 42, 'side-pane': 44.6 },
  side: { 'model-pane': 62, 'particulars-pane': 38 },
};

type Layouts = { columns: Layout; side: Layout };

function remembered(large: boolean): Layouts {
  const otherwise = large ? enlarged : usual;
  try {
    return {
      ...otherwise,
      ...(JSON.parse(localStorage.getItem(`yard-arch-desk-${large ? 'large' : 'usual'}`) ?? '{}') as Partial<Layouts>),
    };
  } catch {
    return otherwise;
  }
}

export function Desk({ large, register, board, model, particulars }: DeskProps) {
  const columns = useRef<GroupImperativeHandle | null>(null);
  const side = useRef<GroupImperativeHandle | null>(null);
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    const layouts = remembered(large);
    columns.current?.setLayout(layouts.columns);
    side.current?.setLayout(layouts.side);
  }, [large]);
  const keep =
    (which: keyof Layouts) =>
    (layout: Layout, { isUserInteraction }: { isUserInteraction: boolean }) => {
      if (!isUserInteraction) return;
      localStorage.setItem(
        `yard-arch-desk-${large ? 'large' : 'usual'}`,
        JSON.stringify({ ...remembered(large), [which]: layout }),
      );
    };
  const layouts = remembered(large);
  return (
    <Group className="desk" groupRef={columns} defaultLayout={layouts.columns} onLayoutChanged={keep('columns')}>
      <Panel id="register-pane" minSize="120px" maxSize="30%">
        {register}
      </Panel>
      <Separator className="divider upright" aria-label="Width of the register" />
      <Panel id="board-pane" minSize="320px">
        {board}
      </Panel>
      <Separator className="divider upright" aria-label="Width of the model and the particulars" />
      <Panel id="side-pane" minSize="240px">
        <Group orientation="vertical" groupRef={side} defaultLayout={layouts.side} onLayoutChanged={keep('side')}>
          <Panel id="model-pane" minSize="110px">
            {model}
          </Panel>
          <Separator className="divider level" aria-label="Height of the model" />
          <Panel id="particulars-pane" minSize="150px">
            {particulars}
          </Panel>
        </Group>
      </Panel>
    </Group>
  );
}
