'use client';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { CircleHelp } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { allowSingleKeys, useSingleKeys } from '../controls/single-keys';

/** What keys do, by where they do it. */
export type KeyHelp = [where: string, keys: [keys: string, does: string][]][];

/** A button and ? that open the list of keys. */
export function KeysHelp({ help }: { help: KeyHelp }) {
  const [open, setOpen] = useState(false);
  const single = useSingleKeys();
  useHotkeys('?', () => setOpen(true), { useKey: true, ignoreModifiers: true, enabled: single });
  return (
    <>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label="Keys"
        title="Keys (?)"
        onClick={() => setOpen(true)}
      >
        <CircleHelp size={16} aria-hidden />
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} className="relative z-50">
        <div className="fixed inset-0 bg-black/40" aria-hidden />
        <div className="fixed inset-0 flex items-center justify-center p-4">
          <DialogPanel className="panel max-h-full w-full max-w-2xl overflow-y-auto p-5 shadow-xl">
            <DialogTitle className="slab mb-2 text-xl">Keys</DialogTitle>
            <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
              {help.map(([where, keys]) => (
                <section key={where}>
                  <h3 className="slab mb-1 text-base">{where}</h3>
                  <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-1 text-sm">
                    {keys.map(([k, does]) => (
                      <div key={k} className="contents">
                        <dt>
                          <kbd className="kbd kbd-sm">{k}</kbd>
                        </dt>
                        <dd>{does}</dd>
                      </div>
                    ))}
                  </dl>
                </section>
              ))}
            </div>
            <label className="mt-4 flex cursor-pointer items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={single}
                onChange={(e) => allowSingleKeys(e.target.checked)}
              />
              Single characters work as keys, too: 1 to 5, [ and ], +, -, 0 and ?
            </label>
            <div className="mt-4 flex gap-2">
              <button type="button" className="btn btn-sm" onClick={() => setOpen(false)}>
                Close
              </button>
              <Link href="/guide" className="btn btn-ghost btn-sm">
                Guide: from a relief to a finished board
              </Link>
            </div>
          </DialogPanel>
        </div>
      </Dialog>
    </>
  );
}
