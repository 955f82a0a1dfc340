'use client';
import { DndContext, type DragEndEvent, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { type ReactNode, type RefObject, useState } from 'react';
import { ASSETS } from '@/contract/assets';
import { addressOf } from '@/contract/endpoint';
import type { Pattern } from '@/contract/patterns';

/** A place on the screen, pixels of the window. */
export interface OnWindow {
  clientX: number;
  clientY: number;
}

/** What takes a pattern that is let go somewhere. */
export type TakePattern = (pattern: Pattern, at: OnWindow) => void;

/**
 * A screen over which patterns are carried from the drawer. It stands over all that moves on the screen, and not in it, so that a layer that is
 * dragged costs nothing here.
 */
export function Carrying({ take, children }: { take: RefObject<TakePattern>; children: ReactNode }) {
  const [carried, setCarried] = useState<Pattern | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const dropped = (e: DragEndEvent) => {
    setCarried(null);
    const pattern = e.active.data.current?.pattern as Pattern | undefined;
    const start = e.activatorEvent as PointerEvent;
    if (pattern) take.current(pattern, { clientX: start.clientX + e.delta.x, clientY: start.clientY + e.delta.y });
  };
  return (
    <DndContext
      id="drawer"
      sensors={sensors}
      onDragStart={(e) => setCarried((e.active.data.current?.pattern as Pattern | undefined) ?? null)}
      onDragEnd={dropped}
      onDragCancel={() => setCarried(null)}
    >
      {children}
      <DragOverlay dropAnimation={null}>
        {carried && (
          // biome-ignore lint/performance/noImgElement: a picture made by our own server
          <img
            src={addressOf(ASSETS.picture, { hash: carried.hash })}
            alt={carried.name}
            className="h-20 rounded opacity-80 shadow-lg"
          />
        )}
      </DragOverlay>
    </DndContext>
  );
}
