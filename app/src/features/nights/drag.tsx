import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  pointerWithin,
  useDndContext,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type CollisionDetection,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import type { ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';

/** Where a closure is dropped: a crew's night. */
export interface DropPlace {
  readonly nightId: string;
  readonly crewId: string;
}

const placeKey = ({ nightId, crewId }: DropPlace) => `${nightId} ${crewId}`;

/** By a pointer what lies under it; by keys the nearest. */
const underOrNearest: CollisionDetection = (given) => {
  const under = pointerWithin(given);
  return under.length > 0 ? under : closestCenter(given);
};

/** An arrow leads to the next place, whatever its distance. */
const fromPlaceToPlace: KeyboardCoordinateGetter = (event, { context }) => {
  const steps: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 };
  const step = steps[event.code];
  const { collisionRect, droppableContainers, droppableRects, over } = context;
  if (!step || !collisionRect) return undefined;
  event.preventDefault();
  const places = droppableContainers.getEnabled().flatMap(({ id }) => {
    const rect = droppableRects.get(id);
    return rect ? [{ id, rect }] : [];
  });
  places.sort((a, b) => a.rect.top - b.rect.top || a.rect.left - b.rect.left);
  const at = places.findIndex(({ id }) => id === over?.id);
  const next = places[Math.min(places.length - 1, Math.max(0, at + step))];
  if (!next) return undefined;
  return {
    x: next.rect.left + (next.rect.width - collisionRect.width) / 2,
    y: next.rect.top + (next.rect.height - collisionRect.height) / 2,
  };
};

/** Everything between which closures are dragged, by pointer, finger or keys. */
export function DragBoard({
  places,
  closureName,
  placeName,
  onDrop,
  children,
}: {
  places: readonly DropPlace[];
  closureName: (closureId: string) => string;
  placeName: (place: DropPlace) => string;
  onDrop: (closureId: string, place: DropPlace) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: fromPlaceToPlace }),
  );
  const placeOf = (id: unknown) => places.find((place) => placeKey(place) === id);
  const at = (id: unknown) => {
    const place = placeOf(id);
    return place ? placeName(place) : 'no night';
  };
  const closureOf = (id: unknown) => String(id).split(' ')[0]!;
  const announcements: Announcements = {
    onDragStart: ({ active }) =>
      `${closureName(closureOf(active.id))} is picked up. Arrows move it from night to night.`,
    onDragOver: ({ active, over }) => `${closureName(closureOf(active.id))} is over ${at(over?.id)}.`,
    onDragEnd: ({ active, over }) =>
      over ? `${closureName(closureOf(active.id))} is pinned to ${at(over.id)}.` : 'It stays where it was.',
    onDragCancel: () => 'It stays where it was.',
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={underOrNearest}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable:
            'Press Enter to pick it up, arrows to move it to another crew or night, Enter to pin it there, Escape to leave it.',
        },
      }}
      onDragEnd={({ active, over }) => {
        const place = placeOf(over?.id);
        if (place) onDrop(closureOf(active.id), place);
      }}
    >
      {children}
      <Carried closureName={(id) => closureName(closureOf(id))} />
    </DndContext>
  );
}

/** What is under the finger while a closure is moved, above all else. */
function Carried({ closureName }: { closureName: (id: unknown) => string }) {
  const { palette } = useCordelTheme();
  const { active } = useDndContext();
  // In the body: what scrolls is a frame of its own, in which a fixed place is not one of the window.
  return createPortal(
    <DragOverlay dropAnimation={null}>
      {active ? (
        <View style={[styles.carried, { backgroundColor: palette.sheet, borderColor: palette.accent }]}>
          <Type look="strong" numberOfLines={1}>
            {closureName(active.id)}
          </Type>
          <Grip />
        </View>
      ) : null}
    </DragOverlay>,
    document.body,
  );
}

function Grip() {
  const { palette } = useCordelTheme();
  return (
    <svg width="16" height="20" viewBox="0 0 16 20" aria-hidden="true">
      {[4, 10, 16].map((y) => (
        <g key={y} fill={palette.ink}>
          <rect x="2" y={y - 2} width="4" height="3" />
          <rect x="10" y={y - 2} width="4" height="3" />
        </g>
      ))}
    </svg>
  );
}

/** A crew's night, onto which a closure can be dropped. */
export function DropZone({ place, children }: { place: DropPlace; children: ReactNode }) {
  const { palette } = useCordelTheme();
  const { setNodeRef, isOver } = useDroppable({ id: placeKey(place) });
  return (
    <View
      ref={setNodeRef as never}
      style={[styles.zone, { borderColor: isOver ? palette.accent : 'transparent' }]}
    >
      {children}
    </View>
  );
}

/** What a closure is picked up by. */
export function DragHandle({ id, label }: { id: string; label: string }) {
  const { palette } = useCordelTheme();
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id });
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={label}
      style={{
        width: touch.normal,
        minHeight: touch.normal,
        flexShrink: 0,
        border: `${stroke.rule}px solid ${isDragging ? palette.accent : palette.hairline}`,
        borderRadius: 0,
        background: palette.sheet,
        color: palette.ink,
        cursor: 'grab',
        touchAction: 'none',
      }}
    >
      <Grip />
    </button>
  );
}

// Two beside each other where there is room, one above the other on a phone.
const styles = StyleSheet.create({
  // Its grip is where it was picked up, its name to the left of that.
  carried: {
    position: 'absolute',
    right: 0,
    top: 0,
    bottom: 0,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.medium,
    paddingHorizontal: space.medium,
    borderWidth: stroke.rule,
  },
  zone: { borderWidth: stroke.rule, flexGrow: 1, flexShrink: 1, flexBasis: 320, maxWidth: '100%' },
});
