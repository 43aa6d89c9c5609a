import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  rectSwappingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { useId, type ReactNode } from 'react';
import { Button } from './Button';
import styles from './Sortable.module.css';

interface SortableProps {
  /** In the order they stand, each its own. */
  ids: readonly string[];
  /** What stands there, as it is said: “step 2”. */
  nameOf: (id: string) => string;
  /** Put between the others, or exchanged with the one it is put on. */
  way: 'order' | 'exchange';
  onMoved: (from: string, to: string) => void;
  children: ReactNode;
}

const instructions =
  'Space picks it up, the arrows choose where, Space puts it there, Escape leaves it where it was.';

/** Things whose order or place is chosen by hand: by pointer, touch or keyboard, each by its handle. */
export function Sortable({ ids, nameOf, way, onMoved, children }: SortableProps) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, scrollBehavior: 'auto' }),
  );
  const said = (id: UniqueIdentifier) => nameOf(String(id));
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onMoved(String(active.id), String(over.id));
      }}
      accessibility={{
        screenReaderInstructions: { draggable: instructions },
        announcements: {
          onDragStart: ({ active }) => `Picked up ${said(active.id)}.`,
          onDragOver: ({ active, over }) =>
            `Picked up ${said(active.id)}, over ${!over || over.id === active.id ? 'its own place' : said(over.id)}.`,
          onDragEnd: ({ active, over }) =>
            over ? `${said(active.id)} is put at ${said(over.id)}.` : `${said(active.id)} is not moved.`,
          onDragCancel: ({ active }) => `${said(active.id)} is left where it was.`,
        },
      }}
    >
      <SortableContext
        items={[...ids]}
        strategy={way === 'order' ? verticalListSortingStrategy : rectSwappingStrategy}
      >
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** One of them. `children` get its handle, to put it where it belongs. */
export function SortableItem({
  id,
  name,
  as: Element,
  className,
  children,
}: {
  id: string;
  name: string;
  as: 'li' | 'fieldset';
  className?: string | undefined;
  children: (handle: ReactNode) => ReactNode;
}) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id });
  const handle = (
    <Button
      {...attributes}
      {...listeners}
      ref={setActivatorNodeRef}
      weight="quiet"
      className={styles.handle}
      aria-label={`Move ${name}`}
    >
      <GripVertical aria-hidden="true" />
    </Button>
  );
  return (
    <Element
      ref={setNodeRef}
      className={[className, isDragging && styles.dragged].filter(Boolean).join(' ')}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      {children(handle)}
    </Element>
  );
}
