/** A list whose items are dragged into another order, by the pointer or by keys: Space takes hold, arrows move, Space lets go. */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

const instructions = 'Space takes hold, the arrow keys move, Space puts down, Escape gives up.';

interface SortableProps<Item> {
  items: readonly Item[];
  /** What an item is called, for those who hear it. */
  nameOf: (item: Item, i: number) => string;
  onOrder: (items: Item[]) => void;
  children: (item: Item, i: number) => ReactNode;
}

export function Sortable<Item>({ items, nameOf, onOrder, children }: SortableProps<Item>) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = items.map((_, i) => `${i + 1}`);
  const end = ({ active, over }: DragEndEvent): void => {
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
    if (to >= 0 && from !== to) onOrder(arrayMove([...items], from, to));
  };
  const called = (id: UniqueIdentifier): string => {
    const i = ids.indexOf(String(id));
    return i < 0 ? '' : nameOf(items[i]!, i);
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${called(active.id)} is taken hold of, at place ${active.id}.`,
    onDragOver: ({ active, over }) => (over ? `${called(active.id)} is at place ${over.id} now.` : undefined),
    onDragEnd: ({ active, over }) => (over ? `${called(active.id)} is put down at place ${over.id}.` : undefined),
    onDragCancel: ({ active }) => `${called(active.id)} is back at place ${active.id}.`,
  };
  return (
    <DndContext
      accessibility={{ announcements, screenReaderInstructions: { draggable: instructions } }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      autoScroll={false}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {items.map((item, i) => (
          <Held key={ids[i]} id={ids[i]!} name={nameOf(item, i)}>
            {children(item, i)}
          </Held>
        ))}
      </SortableContext>
    </DndContext>
  );
}

function Held({ id, name, children }: { id: string; name: string; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  return (
    <div
      ref={setNodeRef}
      className={`sortable${isDragging ? ' dragged' : ''}`}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className="handle"
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        title="Drag into another place; by keys: Space, arrows, Space"
      >
        <GripVertical size={13} />
      </button>
      <div>{children}</div>
    </div>
  );
}
