'use client';
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/react';
import { Search } from 'lucide-react';
import { useEffect, useState } from 'react';
import { type Command, matching } from './commands';

/** A button and Ctrl K that open a list of all that can be done or gone to by its name. */
export function Palette({ commands }: { commands(): Command[] }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'k') return;
      e.preventDefault();
      setOpen((o) => !o);
    };
    addEventListener('keydown', keys);
    return () => removeEventListener('keydown', keys);
  }, []);
  return (
    <>
      <button type="button" className="btn btn-ghost btn-sm" title="Find (Ctrl K)" onClick={() => setOpen(true)}>
        <Search size={15} aria-hidden /> Find
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} className="relative z-50" aria-label="Find and do">
        <div className="fixed inset-0 bg-black/40" aria-hidden />
        <div className="fixed inset-0 flex justify-center p-4 pt-24">
          <DialogPanel className="panel h-fit w-full max-w-xl p-2 shadow-xl">
            {open && <Found all={commands()} close={() => setOpen(false)} />}
          </DialogPanel>
        </div>
      </Dialog>
    </>
  );
}

/** What is searched, and what is found. */
function Found({ all, close }: { all: Command[]; close(): void }) {
  const [text, setText] = useState('');
  const found = matching(all, text);
  return (
    <Combobox
      immediate
      onChange={(c: Command | null) => {
        if (!c) return;
        close();
        c.run();
      }}
    >
      <ComboboxInput
        autoFocus
        className="input w-full bg-(--paper)"
        aria-label="What is to be found or done"
        placeholder="A station, layer, pass, setting, command or job"
        value={text}
        // The list is always open: one press leaves all of it.
        onKeyDown={(e) => e.key === 'Escape' && close()}
        onChange={(e) => setText(e.target.value)}
      />
      <ComboboxOptions static className="mt-2 max-h-96 overflow-y-auto">
        {found.map((c, i) => (
          <ComboboxOption
            key={c.id}
            value={c}
            className="flex cursor-pointer items-center gap-3 rounded px-3 py-1.5 text-sm data-focus:bg-base-200 data-focus:outline-2 data-focus:outline-primary"
          >
            <span className="soft w-24 shrink-0 text-[13px]">{found[i - 1]?.group === c.group ? '' : c.group}</span>
            <span className="min-w-0 flex-1 truncate">{c.name}</span>
            {c.keys && <kbd className="kbd kbd-sm">{c.keys}</kbd>}
          </ComboboxOption>
        ))}
      </ComboboxOptions>
      {found.length === 0 && <p className="soft px-3 py-2 text-sm">Nothing here has “{text}” in its name.</p>}
    </Combobox>
  );
}
