'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Plus } from 'lucide-react';
import { EntryPicture } from './entry-picture';
import { type Entry, FORMS, SHAPES } from './shape-entries';

/** Things that can be added, under a title. */
function Entries({ title, list, onPick }: { title: string; list: Entry[]; onPick(e: Entry): void }) {
  return (
    <>
      <p className="soft px-2 pt-1 text-[13px]">{title}</p>
      <div className="grid grid-cols-2 gap-x-1">
        {list.map((e) => (
          <button
            key={e[0]}
            type="button"
            className="btn btn-ghost btn-sm h-auto justify-start gap-2 px-1.5 py-1 text-left leading-tight font-normal"
            onClick={() => onPick(e)}
          >
            <EntryPicture entry={e} />
            {e[0]}
          </button>
        ))}
      </div>
    </>
  );
}

/** A button that opens the shapes and textures that can be put on the board, each as a picture. */
export function ShapesMenu({ onPick }: { onPick(e: Entry): void }) {
  return (
    <Popover className="relative flex-1">
      <PopoverButton className="btn btn-sm w-full">
        <Plus size={14} aria-hidden /> Add
      </PopoverButton>
      <PopoverPanel className="panel absolute z-30 mt-1 max-h-[60vh] w-[280px] overflow-y-auto p-2 shadow-lg">
        {({ close }) => {
          const pick = (e: Entry) => {
            close();
            onPick(e);
          };
          return (
            <>
              <Entries title="Outlines" list={SHAPES} onPick={pick} />
              <Entries title="Forms and textures" list={FORMS} onPick={pick} />
            </>
          );
        }}
      </PopoverPanel>
    </Popover>
  );
}
