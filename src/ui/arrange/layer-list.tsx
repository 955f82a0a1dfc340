'use client';
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Eye, EyeOff, Lock, LockOpen } from 'lucide-react';
import { useMemo } from 'react';
import { editLayers } from './actions';
import { type LayerListProps, LayerRow } from './layer-row';
import { commonRange } from './thin-section';

/** The layers in their order, the topmost first: drag to reorder, click to select, with Shift or Ctrl several. */
export function LayerList(props: LayerListProps) {
  const { job, thin, onSelect, change } = props;
  const range = useMemo(() => commonRange(thin), [thin]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const shown = job.layers.slice().reverse();
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    change((j) => {
      const from = j.layers.findIndex((l) => l.id === active.id);
      const to = j.layers.findIndex((l) => l.id === over.id);
      const [l] = j.layers.splice(from, 1);
      j.layers.splice(to, 0, l);
    });
  };
  if (shown.length === 0)
    return (
      <p className="soft px-4 py-3 text-sm leading-snug">
        Nothing on the board yet. Add a shape, words or a file, or drag a pattern from the drawer onto the board.
      </p>
    );
  let group: string | null = null;
  return (
    <DndContext id="layers" sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={shown.map((l) => l.id)} strategy={verticalListSortingStrategy}>
        <ul aria-label="Layers, the topmost first" className="divide-y divide-base-300/60">
          {shown.map((l) => {
            const head = l.group !== null && l.group !== group;
            group = l.group;
            const members = job.layers.filter((m) => l.group !== null && m.group === l.group);
            return [
              head && (
                <li key={`group-${l.group}-${l.id}`} className="flex items-center gap-1 pr-1 pl-3">
                  <button
                    type="button"
                    className="min-h-8 flex-1 cursor-pointer truncate text-left text-[13px] font-semibold"
                    onClick={() => onSelect(members.map((m) => m.id))}
                  >
                    {l.group}
                    <span className="soft font-normal"> · {members.length} together</span>
                  </button>
                  <button
                    type="button"
                    className="btn btn-ghost btn-square btn-sm"
                    aria-label={`${members.every((m) => m.hidden) ? 'Show' : 'Hide'} all of ${l.group}`}
                    onClick={() => {
                      const hidden = !members.every((m) => m.hidden);
                      change((j) =>
                        editLayers(
                          j,
                          members.map((m) => m.id),
                          (m) => (m.hidden = hidden),
                        ),
                      );
                    }}
                  >
                    {members.every((m) => m.hidden) ? <EyeOff size={14} /> : <Eye size={14} />}
                  </button>
                  <button
                    type="button"
                    className="btn btn-ghost btn-square btn-sm"
                    aria-label={`${members.every((m) => m.locked) ? 'Unlock' : 'Lock'} all of ${l.group}`}
                    onClick={() => {
                      const locked = !members.every((m) => m.locked);
                      change((j) =>
                        editLayers(
                          j,
                          members.map((m) => m.id),
                          (m) => (m.locked = locked),
                        ),
                      );
                    }}
                  >
                    {members.every((m) => m.locked) ? (
                      <Lock size={14} />
                    ) : (
                      <LockOpen size={14} className="opacity-45" />
                    )}
                  </button>
                </li>
              ),
              <LayerRow key={l.id} {...props} range={range} layer={l} indent={l.group !== null} />,
            ];
          })}
        </ul>
      </SortableContext>
    </DndContext>
  );
}
