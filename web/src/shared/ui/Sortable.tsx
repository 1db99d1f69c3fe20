import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { t } from '../texts';

interface Props {
  /** What can be moved, in order. */
  ids: readonly string[];
  /** As a person reads it. */
  name: (id: string) => string;
  /** Drawn from its place to that of another. */
  onMove: (id: string, to: string) => void;
  children: ReactNode;
}

const KEYS = t('Space takes it up, the arrows move it, space puts it down, Escape leaves it where it was.');

/** A list whose entries are drawn to another place: by mouse, by a finger that rests first, or by keys. */
export function Sortable({ ids, name, onMove, children }: Props) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const placed = (id: UniqueIdentifier) =>
    t('place {place} of {whole}', { place: ids.indexOf(String(id)) + 1, whole: ids.length });
  const announcements: Announcements = {
    onDragStart: ({ active }) =>
      t('{name} is taken up, at {placed}.', { name: name(String(active.id)), placed: placed(active.id) }),
    onDragOver: ({ active, over }) =>
      over ? t('{name} is over {placed}.', { name: name(String(active.id)), placed: placed(over.id) }) : undefined,
    onDragEnd: ({ active, over }) =>
      over
        ? t('{name} is put down at {placed}.', { name: name(String(active.id)), placed: placed(over.id) })
        : t('{name} is put down where it was.', { name: name(String(active.id)) }),
    onDragCancel: ({ active }) => t('{name} stays where it was.', { name: name(String(active.id)) }),
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onMove(String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements, screenReaderInstructions: { draggable: KEYS } }}>
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** What an entry of a Sortable needs: where it is drawn to, and its handle. */
export function useSortableEntry(id: string) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  return {
    setNode: setNodeRef,
    dragged: isDragging,
    style: {
      transform: transform ? `translate3d(${transform.x}px, ${transform.y}px, 0)` : undefined,
      transition,
      zIndex: isDragging ? 2 : undefined,
    },
    handle: { setNode: setActivatorNodeRef, listens: { ...attributes, ...listeners } },
  };
}

/** The handle of an entry, which shows its place. */
export function Handle({
  label,
  place,
  handle: { setNode, listens },
}: {
  label: string;
  place: number;
  handle: ReturnType<typeof useSortableEntry>['handle'];
}) {
  return (
    <Box
      component="button"
      type="button"
      ref={setNode}
      {...listens}
      aria-label={label}
      title={label}
      sx={{
        font: 'inherit',
        fontSize: '1.1rem',
        lineHeight: 1.2,
        minWidth: 26,
        p: 0.2,
        border: 0,
        borderRadius: 1,
        color: 'inherit',
        bgcolor: 'transparent',
        cursor: 'grab',
        // A finger that rests on it draws it; one that moves scrolls the page elsewhere.
        touchAction: 'none',
        '&:hover': { bgcolor: 'action.hover' },
      }}>
      <span className="serif">{place}</span>
    </Box>
  );
}
