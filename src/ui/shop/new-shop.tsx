'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import type { Library, LibraryChange } from '@/core/doc/library';
import { shopOf } from '@/core/plan/new-shop';
import { sayLength, saySize } from '@/core/units/say';
import { CutterMark } from '../cards/cutter-fields';

/** The two questions of a new shop: which machine, and which bits. Both can be skipped; everything can be changed later. */
export function NewShop({ onDone }: { onDone(): void }) {
  const library = useQuery({ queryKey: ['library'], queryFn: () => ask(SHOP.library, {}) });
  if (!library.data || library.data.machines.length === 0) return null;
  return <Questions library={library.data} onDone={onDone} />;
}

function Questions({ library, onDone }: { library: Library; onDone(): void }) {
  const client = useQueryClient();
  const [machine, setMachine] = useState(library.machines[0].id);
  const [bits, setBits] = useState(() => library.cutters.map((c) => c.id));
  const send = useMutation({
    mutationFn: (change: LibraryChange) => ask(SHOP.changeLibrary, {}, change),
    onSuccess: (now) => {
      client.setQueryData<Library>(['library'], now);
      onDone();
    },
  });
  const { change, begins, misfits, cannot } = shopOf(library, machine, bits);
  return (
    <section aria-label="A new shop" className="panel p-5">
      <h2 className="slab text-xl">A new shop: two questions</h2>
      <p className="soft mb-4 text-sm">
        What you answer can be changed under Machines and Bits at any time, where your own can be entered too.
      </p>
      <div className="grid gap-6 lg:grid-cols-2">
        <fieldset>
          <legend className="mb-2 font-semibold">Which machine do you carve on?</legend>
          <div className="grid gap-1.5">
            {library.machines.map((m) => (
              <label
                key={m.id}
                className={`flex cursor-pointer items-start gap-2 rounded-lg border px-3 py-2 text-sm ${m.id === machine ? 'border-primary bg-[color-mix(in_oklab,var(--color-primary)_10%,transparent)]' : 'border-base-300'}`}
              >
                <input
                  type="radio"
                  name="machine"
                  className="radio radio-sm radio-primary mt-0.5"
                  checked={m.id === machine}
                  onChange={() => setMachine(m.id)}
                />
                <span>
                  <b>{m.name}</b>
                  <span className="soft block">
                    {saySize([m.x, m.y])}, collets for {m.collets.map((c) => sayLength(c, 3)).join(', ') || 'any shank'}
                    {m.toolChanger ? ', changes bits by itself' : ''}
                  </span>
                </span>
              </label>
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend className="mb-2 font-semibold">Which of these bits do you have?</legend>
          <div className="grid grid-cols-2 gap-x-3">
            {library.cutters.map((c) => (
              <label key={c.id} className="flex min-h-11 cursor-pointer items-center gap-2 text-sm">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm checkbox-primary"
                  checked={bits.includes(c.id)}
                  onChange={(e) => setBits((b) => (e.target.checked ? [...b, c.id] : b.filter((id) => id !== c.id)))}
                />
                <CutterMark shape={c.shape} high={30} />
                <span>
                  {c.name}
                  {misfits.includes(c) && (
                    <span className="block text-[12.5px] text-accent">
                      its {sayLength(c.shankDiameter, 3)} shank fits no collet
                    </span>
                  )}
                </span>
              </label>
            ))}
          </div>
        </fieldset>
      </div>
      <div className="mt-4 text-sm leading-snug" aria-live="polite">
        {begins ? (
          <p>
            New boards begin with <b>{begins.rough.name}</b> for roughing and <b>{begins.finish.name}</b> for finishing.
          </p>
        ) : (
          <p className="text-accent">
            No new board can begin: it takes an end mill for roughing and a ball nose for finishing that fit the
            machine.
          </p>
        )}
        <p className="mt-1">What this shop cannot do:</p>
        <ul className="soft list-disc pl-5">
          {cannot.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      </div>
      {send.error && (
        <p role="alert" className="mt-2 text-error">
          {send.error.message}
        </p>
      )}
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={send.isPending}
          onClick={() => send.mutate(change)}
        >
          Begin with this shop
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onDone}>
          Skip both
        </button>
      </div>
    </section>
  );
}
