'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Folder } from 'lucide-react';
import { useId } from 'react';
import type { RackEntry } from '@/contract/jobs';

/** A button that lays a job in the folder of a customer or a series. */
export function RackFolder({
  job,
  folders,
  onFolder,
}: {
  job: RackEntry;
  folders: string[];
  onFolder(to: string): void;
}) {
  const list = useId();
  return (
    <Popover className="absolute right-17 bottom-1">
      <PopoverButton className="btn btn-ghost btn-sm btn-square" aria-label={`Folder of ${job.name}`} title="Folder">
        <Folder size={15} aria-hidden />
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className="panel z-30 w-64 p-3 text-sm shadow-xl">
        {({ close }) => (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              onFolder(String(new FormData(e.currentTarget).get('folder')).trim());
              close();
            }}
          >
            <label className="soft">
              Customer or series
              <input
                name="folder"
                list={list}
                defaultValue={job.folder}
                maxLength={60}
                autoComplete="off"
                className="input input-sm mt-1 w-full bg-(--paper) text-base-content"
              />
            </label>
            <datalist id={list}>
              {folders.map((f) => (
                <option key={f} value={f} />
              ))}
            </datalist>
            <button type="submit" className="btn btn-primary btn-sm mt-2 w-full">
              Move it there
            </button>
          </form>
        )}
      </PopoverPanel>
    </Popover>
  );
}
