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
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { Eye, EyeOff, GripVertical, Lock, LockOpen } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { sourceKind } from '@/core/arrange/kinds/registry';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { formatLength } from '@/core/units/length';
import { editLayers } from './actions';
import { JOIN_NAMES } from './words-for';

interface Props {
  job: SetupView;
  selected: string[];
  problems: Record<string, string>;
  onSelect(ids: string[]): void;
  change(edit: (j: SetupView) => void): void;
}

function Row({ layer, job, selected, problems, onSelect, change, indent }: Props & { layer: Layer; indent: boolean }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: layer.id,
  });
  const on = selected.includes(layer.id);
  const row = useRef<HTMLLIElement | null>(null);
  useEffect(() => {
    if (on) row.current?.scrollIntoView({ block: 'nearest' });
  }, [on]);
  const set = (edit: (l: Layer) => void) => change((j) => editLayers(j, [layer.id], edit));
  const first = job.layers[0]?.id === layer.id;
  const join = JOIN_NAMES.find(([k]) => k === layer.join)?.[1];
  return (
    <li
      ref={(el) => {
        setNodeRef(el);
        row.current = el;
      }}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      className={`flex items-center gap-0.5 pr-1 ${indent ? 'pl-5' : 'pl-1'} ${on ? 'bg-[color-mix(in_oklab,var(--color-primary)_13%,transparent)]' : ''} ${isDragging ? 'z-10 bg-base-100 shadow' : ''} ${layer.hidden ? 'opacity-55' : ''}`}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        className="flex h-9 w-5 cursor-grab items-center justify-center"
        aria-label={`Move ${layer.name} in the order`}
      >
        <GripVertical size={13} aria-hidden />
      </button>
      <button
        type="button"
        aria-pressed={on}
        className="min-h-9 min-w-0 flex-1 cursor-pointer py-1 text-left leading-tight"
        onClick={(e) => {
          if (e.shiftKey || e.ctrlKey || e.metaKey)
            onSelect(on ? selected.filter((s) => s !== layer.id) : [...selected, layer.id]);
          else onSelect([layer.id]);
        }}
      >
        <span className={`block truncate text-sm ${on ? 'font-semibold' : ''}`}>{layer.name}</span>
        <span className={`block truncate text-[12.5px] ${problems[layer.id] ? 'text-accent' : 'soft'}`}>
          {problems[layer.id] ??
            `${sourceKind(layer).name}, ${first ? 'lowest' : join}, ${formatLength(layer.rise, 'mm', 1)}`}
        </span>
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-square btn-sm"
        aria-label={`${layer.hidden ? 'Show' : 'Hide'} ${layer.name}`}
        onClick={() => set((l) => (l.hidden = !l.hidden))}
      >
        {layer.hidden ? <EyeOff size={14} /> : <Eye size={14} />}
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-square btn-sm"
        aria-label={`${layer.locked ? 'Unlock' : 'Lock'} ${layer.name}`}
        onClick={() => set((l) => (l.locked = !l.locked))}
      >
        {layer.locked ? <Lock size={14} /> : <LockOpen size={14} className="opacity-45" />}
      </button>
    </li>
  );
}

/** The layers in their order, the topmost first: drag to reorder, click to select, with Shift or Ctrl several. */
export function LayerList(props: Props) {
  const { job, selected, onSelect, change } = props;
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
              <Row key={l.id} {...props} selected={selected} layer={l} indent={l.group !== null} />,
            ];
          })}
        </ul>
      </SortableContext>
    </DndContext>
  );
}
