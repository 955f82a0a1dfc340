'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Plus } from 'lucide-react';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import { EntryPicture } from './entry-picture';
import { type Entry, FORMS, SHAPES, TURNED } from './shape-entries';

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

interface Props {
  onPick(e: Entry): void;
  /** Adds a turned form; null on a board that lies flat. */
  onTurned: ((name: string, kind: TurnedForm['kind']) => void) | null;
}

/** A button that opens what can be put on the board: on a drum turned forms, then shapes and textures, each as a picture. */
export function ShapesMenu({ onPick, onTurned }: Props) {
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
              {onTurned && (
                <fieldset>
                  <legend className="soft px-2 pt-1 text-[13px]">Turned forms</legend>
                  <div className="grid grid-cols-3 gap-1 pb-1">
                    {TURNED.map(([name, kind]) => (
                      <button
                        key={kind}
                        type="button"
                        className="btn btn-sm px-1 font-normal"
                        onClick={() => {
                          close();
                          onTurned(name, kind);
                        }}
                      >
                        {name}
                      </button>
                    ))}
                  </div>
                </fieldset>
              )}
              <Entries title="Outlines" list={SHAPES} onPick={pick} />
              <Entries title="Forms and textures" list={FORMS} onPick={pick} />
            </>
          );
        }}
      </PopoverPanel>
    </Popover>
  );
}
