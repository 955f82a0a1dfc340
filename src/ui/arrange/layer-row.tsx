import { useSortable } from '@dnd-kit/sortable';
import { Eye, EyeOff, GripVertical, Link2, Lock, LockOpen } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { oneWith } from '@/core/arrange/shared';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import type { Act } from '../controls/act';
import { ActsMenu } from '../controls/acts-menu';
import { NameWhereItStands } from '../controls/name-where-it-stands';
import { editLayers } from './actions';
import type { ThinSection as Heights } from './looks';
import { type commonRange, ThinSection } from './thin-section';
import { JOIN_NAMES } from './words-for';

/** What the list of layers and its rows work with. */
export interface LayerListProps {
  job: SetupView;
  selected: string[];
  problems: Record<string, string>;
  /** Each layer by itself in a section, by id, as far as they are worked out. */
  thin: Record<string, Heights>;
  onSelect(ids: string[]): void;
  change(edit: (j: SetupView) => void): void;
  /** What can be done with layers. */
  acts(ids: readonly string[]): Act[];
  /** The layer whose name is being written where it stands. */
  renaming: string | null;
  setRenaming(id: string | null): void;
}

interface RowProps extends LayerListProps {
  layer: Layer;
  indent: boolean;
  range: ReturnType<typeof commonRange>;
}

/** A layer in the list: as a thin section, with its name. */
export function LayerRow(props: RowProps) {
  const { layer, job, selected, problems, thin, range, onSelect, change, indent, renaming, setRenaming } = props;
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
    <ActsMenu
      label={`What can be done with ${layer.name}`}
      acts={() => props.acts(on ? selected : [layer.id])}
      onOpen={() => !on && onSelect([layer.id])}
    >
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
        {renaming === layer.id ? (
          <NameWhereItStands
            name={layer.name}
            onDone={(name) => {
              setRenaming(null);
              if (name) set((l) => (l.name = name));
            }}
          />
        ) : (
          <button
            type="button"
            aria-pressed={on}
            className="min-h-9 min-w-0 flex-1 cursor-pointer py-1 text-left leading-tight"
            onDoubleClick={() => setRenaming(layer.id)}
            onClick={(e) => {
              if (e.shiftKey || e.ctrlKey || e.metaKey)
                onSelect(on ? selected.filter((s) => s !== layer.id) : [...selected, layer.id]);
              else onSelect([layer.id]);
            }}
          >
            {thin[layer.id] && <ThinSection heights={thin[layer.id]} range={range} />}
            <span className="flex items-baseline gap-1.5">
              <span className={`min-w-0 flex-1 truncate text-[13px] ${on ? 'font-semibold' : ''}`}>{layer.name}</span>
              {oneWith(job.board, layer).length > 0 && (
                <Link2 size={12} className="soft shrink-0 self-center" aria-label="one with a layer of another setup" />
              )}
              {!problems[layer.id] && (
                <span className="soft shrink-0 text-[12px]">
                  {first ? 'lowest' : join}, {sayLength(layer.rise, 1)}
                </span>
              )}
            </span>
            {problems[layer.id] && <span className="block text-[12.5px] text-accent">{problems[layer.id]}</span>}
          </button>
        )}
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
    </ActsMenu>
  );
}
