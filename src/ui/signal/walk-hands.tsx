'use client';
import {
  DndContext,
  type DragEndEvent,
  type DragOverEvent,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useLayoutEffect } from 'react';
import type { WalkGeometry } from '../../core/draw/walk-geometry';
import { sure } from '../../core/outcome';
import type { Hands } from './hands';
import type { Moving } from './walk-looks';

/** A pointer drags a strip once it went so far, in pixels. */
const BY_POINTER = { activationConstraint: { distance: 6 } };

interface Props {
  geometry: WalkGeometry;
  hands: Hands;
  canMove: (device: string) => boolean;
  moving: Moving | null;
  onMoving: (m: Moving | null) => void;
  onDrop: (device: string, lead: string) => void;
}

/**
 * Drags the strips of a walk into its leads. It stands beside them and is told of presses by
 * {@link Hands}, so that a walk is there before what drags it.
 */
export function WalkHands({ geometry, hands, canMove, moving, onMoving, onDrop }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER));
  const deviceOf = (e: Pick<DragOverEvent, 'active'>) => String(sure(e.active.data.current).device);
  const over = (e: DragOverEvent) =>
    onMoving({ device: deviceOf(e), lead: e.over ? String(e.over.id) : null });
  const end = (e: DragEndEvent) => {
    if (e.over) onDrop(deviceOf(e), String(e.over.id));
    onMoving(null);
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={(e) => onMoving({ device: deviceOf(e), lead: null })}
      onDragOver={over}
      onDragEnd={end}
      onDragCancel={() => onMoving(null)}
    >
      {geometry.stations
        .filter((p) => !p.station.folded && canMove(p.station.device))
        .map((p) => (
          <Strip
            key={p.station.id}
            station={p.station.id}
            device={p.station.device}
            isNarrow={p.narrow}
            hands={hands}
          />
        ))}
      {geometry.leads.map(({ lead }) => (
        <Target
          key={lead.id}
          lead={lead.id}
          takes={
            moving !== null &&
            lead.from.device !== moving.device &&
            lead.to.device !== moving.device
          }
        />
      ))}
    </DndContext>
  );
}

/** What is drawn on the walk under a name. */
const drawn = (kind: 'station' | 'lead', id: string): HTMLElement | null =>
  document.querySelector(`.walk [data-${kind}="${CSS.escape(id)}"]`);

/** A strip that can be dragged: it follows the pointer while it is. */
function Strip({
  station,
  device,
  isNarrow,
  hands,
}: {
  station: string;
  device: string;
  isNarrow: boolean;
  hands: Hands;
}) {
  const { setNodeRef, listeners, isDragging, transform } = useDraggable({
    id: `station ${station}`,
    data: { device },
  });
  const down = listeners?.onPointerDown;
  useLayoutEffect(() => {
    setNodeRef(drawn('station', station));
    return () => setNodeRef(null);
  }, [setNodeRef, station]);
  useLayoutEffect(() => hands.take(station, (e) => void down?.(e)), [hands, station, down]);
  const { x, y } = (!isNarrow && transform) || { x: 0, y: 0 };
  useLayoutEffect(() => {
    const strip = isDragging && drawn('station', station);
    if (!strip) return;
    strip.style.transform = `translate(${x}px, ${y}px)`;
    strip.dataset.dragged = 'true';
    return () => {
      strip.style.transform = '';
      delete strip.dataset.dragged;
    };
  }, [isDragging, station, x, y]);
  return null;
}

/** A lead that a strip can be dropped on. */
function Target({ lead, takes }: { lead: string; takes: boolean }) {
  const { setNodeRef } = useDroppable({ id: lead, disabled: !takes });
  useLayoutEffect(() => {
    setNodeRef(drawn('lead', lead));
    return () => setNodeRef(null);
  }, [setNodeRef, lead]);
  return null;
}
