'use client';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { ask, send } from '@/contract/ask';
import { ASSETS, type AssetInfo } from '@/contract/assets';
import { PATTERNS, type Pattern } from '@/contract/patterns';
import { trimNumber } from '@/core/units/length';
import { parseNumber } from '@/core/units/number';
import { notices } from '../controls/notices';
import { PatternVersion } from './pattern-version';

/** Name, tags, source, price and licence of a pattern, to be kept, left as they are, or taken away with it. */
function SaidOf({
  pattern,
  error,
  onKeep,
  onLeave,
  onRemove,
}: {
  pattern: Pattern;
  error: string | null;
  onKeep(e: FormEvent<HTMLFormElement>): void;
  onLeave(): void;
  onRemove(): void;
}) {
  return (
    <form className="mt-4 grid grid-cols-2 gap-x-4 gap-y-2" onSubmit={onKeep}>
      {(
        [
          ['name', 'Name', pattern.name, 80],
          ['tags', 'Tags, with commas', pattern.tags.join(', '), 400],
          ['from', 'Where from', pattern.from, 200],
          ['price', 'Price', pattern.price === null ? '' : trimNumber(pattern.price, 2), 12],
          ['licence', 'Licence', pattern.licence, 300],
        ] as const
      ).map(([key, label, value, most]) => (
        <label key={key} className={`soft text-sm ${key === 'licence' ? 'col-span-2' : ''}`}>
          {label}
          <input
            name={key}
            defaultValue={value}
            className="input input-sm w-full bg-(--paper) text-base-content"
            maxLength={most}
            autoComplete="off"
          />
        </label>
      ))}
      {error && (
        <p role="alert" className="col-span-2 text-sm text-accent">
          {error}
        </p>
      )}
      <div className="col-span-2 mt-2 flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm">
          Keep
        </button>
        <button type="button" className="btn btn-sm" onClick={onLeave}>
          Leave it
        </button>
        <button type="button" className="btn btn-ghost btn-sm ml-auto text-accent" onClick={onRemove}>
          Take it out of the drawer
        </button>
      </div>
    </form>
  );
}

/** What is said of a pattern: name, tags, source, price, licence; and another version of its file, shown beside the one that is there. */
export function DescribePattern({ pattern, onDone }: { pattern: Pattern; onDone(): void }) {
  const client = useQueryClient();
  const [error, setError] = useState<string | null>(null);
  const [other, setOther] = useState<AssetInfo | null>(null);
  const act = async (work: () => Promise<Pattern[]>): Promise<boolean> => {
    setError(null);
    try {
      client.setQueryData(['patterns'], await work());
      onDone();
      return true;
    } catch (e) {
      setError((e as Error).message);
      return false;
    }
  };
  const keep = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    const text = (key: string) => String(data.get(key)).trim();
    void act(async () =>
      ask(
        PATTERNS.describe,
        { id: pattern.id },
        {
          name: text('name'),
          tags: text('tags')
            .split(',')
            .map((t) => t.trim())
            .filter(Boolean),
          from: text('from'),
          price: text('price') === '' ? null : parseNumber(text('price'), false),
          licence: text('licence'),
        },
      ),
    );
  };
  /** Its file stays in the shop, so that it can be kept again with all that is said of it. */
  const remove = async () => {
    if (!(await act(() => ask(PATTERNS.remove, { id: pattern.id })))) return;
    const { id: _, file: __, info: ___, ...kept } = pattern;
    notices.say(`${pattern.name} removed from the drawer`, () => {
      ask(PATTERNS.keep, {}, kept).then(
        (all) => client.setQueryData(['patterns'], all),
        (e: Error) => notices.say(`${pattern.name} could not be brought back: ${e.message}`),
      );
    });
  };
  const look = async (file: File | undefined) => {
    if (!file) return;
    setError(null);
    try {
      const a: AssetInfo = await send(ASSETS.put, { name: file.name }, file, () => {}).done;
      if (a.info.kind === 'font' || a.info.kind === 'drawing')
        setError(`${a.file} is no relief; choose a model or an image`);
      else setOther(a);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <Dialog open onClose={onDone} className="relative z-50">
      <div className="fixed inset-0 bg-black/40" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel className="panel max-h-full w-full max-w-2xl overflow-y-auto p-5 shadow-xl">
          <DialogTitle className="slab mb-3 text-xl">{pattern.name}</DialogTitle>
          <div className="flex gap-4">
            <PatternVersion of={{ ...pattern, title: 'In the drawer' }} />
            {other && <PatternVersion of={{ ...other, title: 'The other version', size: null, rise: null }} />}
          </div>
          <div className="mt-2 flex gap-2">
            <label className="btn btn-sm has-[:focus-visible]:outline-2">
              {other ? 'Choose another file' : 'Put another version in its place'}
              <input
                type="file"
                className="sr-only"
                accept=".stl,.obj,.ply,.3mf,.png,.tif,.tiff,.jpg,.jpeg,.webp,.gif"
                onChange={(e) => {
                  void look(e.target.files?.[0]);
                  e.target.value = '';
                }}
              />
            </label>
            {other && (
              <button
                type="button"
                className="btn btn-primary btn-sm"
                onClick={() =>
                  void act(() =>
                    ask(PATTERNS.replace, { id: pattern.id }, { hash: other.hash, size: null, rise: null }),
                  )
                }
              >
                Take the other version
              </button>
            )}
          </div>
          {other && (
            <p className="soft mt-1 text-sm leading-snug">
              Jobs that hold this pattern keep the file that they were made with.
            </p>
          )}
          <SaidOf pattern={pattern} error={error} onKeep={keep} onLeave={onDone} onRemove={() => void remove()} />
        </DialogPanel>
      </div>
    </Dialog>
  );
}
