'use client';
import { useDraggable } from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { ASSETS } from '@/contract/assets';
import { addressOf } from '@/contract/endpoint';
import { PATTERNS, type Pattern } from '@/contract/patterns';
import { trueSize } from '@/core/sources/true-size';
import { saidUnit, sayNumber } from '@/core/units/say';
import { DescribePattern } from './describe-pattern';

function Piece({ pattern: p, onPlace, onEdit }: { pattern: Pattern; onPlace(): void; onEdit(): void }) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({
    id: `pattern-${p.id}`,
    data: { pattern: p },
  });
  const size = trueSize(p.info, p);
  return (
    <li className={`relative w-[104px] shrink-0 ${isDragging ? 'opacity-40' : ''}`}>
      <button
        type="button"
        ref={setNodeRef}
        {...attributes}
        {...listeners}
        className="panel flex h-full w-full cursor-grab touch-none flex-col items-center px-1 pt-1 pb-0.5"
        title={`${p.name}, ${p.from}${p.tags.length > 0 ? `: ${p.tags.join(', ')}` : ''}${p.licence ? `. Licence: ${p.licence}` : ''}. Drag it onto the board, or press Enter twice`}
        onDoubleClick={onPlace}
        onKeyDown={(e) => {
          if (e.key === 'Enter') onPlace();
          else listeners?.onKeyDown?.(e);
        }}
      >
        {/* biome-ignore lint/performance/noImgElement: a picture made by our own server, of any size */}
        <img
          src={addressOf(ASSETS.picture, { hash: p.hash })}
          alt=""
          className="h-16 w-full object-contain"
          draggable={false}
          loading="lazy"
        />
        <span className="w-full truncate text-[13px] leading-tight font-semibold">{p.name}</span>
        <span className="soft w-full truncate text-[12.5px] leading-tight">
          {size ? `${sayNumber(size.x, 0)} × ${sayNumber(size.y, 0)} × ${sayNumber(size.z, 1)}` : 'any size'}
        </span>
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-square btn-xs absolute top-0.5 right-0.5"
        aria-label={`Describe ${p.name}`}
        onClick={onEdit}
      >
        <Pencil size={11} />
      </button>
    </li>
  );
}

/** The pattern drawer: reliefs at hand, to be searched and dragged onto the board. */
export function PatternDrawer({ onPlace }: { onPlace(p: Pattern): void }) {
  const list = useQuery({ queryKey: ['patterns'], queryFn: () => ask(PATTERNS.list, {}) });
  const [text, setText] = useState('');
  const [edited, setEdited] = useState<Pattern | null>(null);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const reliefs = (list.data ?? []).filter((p) => p.info.kind !== 'font');
  const shown = reliefs.filter((p) => {
    const about = [p.name, p.file, p.from, ...p.tags].join(' ').toLowerCase();
    return words.every((w) => about.includes(w));
  });
  return (
    <section aria-label="Pattern drawer" className="panel isolate flex h-[122px] items-stretch gap-2 px-2 py-1.5">
      <div className="w-[132px] shrink-0">
        <h2 className="slab text-[15px]">Pattern drawer</h2>
        <input
          type="search"
          className="input input-sm mt-1 w-full bg-(--paper)"
          placeholder="wheat, mill"
          aria-label="Search the pattern drawer"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <p className="soft mt-1 text-[12.5px] leading-tight">
          {shown.length} of {reliefs.length}, in {saidUnit()}; drag one onto the board
        </p>
      </div>
      {edited && <DescribePattern pattern={edited} onDone={() => setEdited(null)} />}
      <ul className="flex min-w-0 flex-1 gap-2 overflow-x-auto pb-1">
        {shown.map((p) => (
          <Piece key={p.id} pattern={p} onPlace={() => onPlace(p)} onEdit={() => setEdited(p)} />
        ))}
        {list.data && shown.length === 0 && (
          <li className="soft self-center text-sm">
            {reliefs.length === 0
              ? 'Nothing in the drawer yet: every file that is added lies here afterwards.'
              : `Nothing here is called "${text}".`}
          </li>
        )}
        {list.error && <li className="self-center text-sm text-accent">{list.error.message}</li>}
      </ul>
    </section>
  );
}
