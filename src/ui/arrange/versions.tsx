'use client';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { addressOf } from '@/contract/endpoint';
import { JOBS } from '@/contract/jobs';
import type { SetupView } from '@/core/setup/view';

/** Named versions of the job, each with its picture: the same plaque with another emblem. */
export function Versions({
  id,
  revision,
  change,
}: {
  id: string;
  revision: string | null;
  change(edit: (j: SetupView) => void): void;
}) {
  const client = useQueryClient();
  const list = useQuery({ queryKey: ['versions', id], queryFn: () => ask(JOBS.versions, { id }) });
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);
  const act = async (work: Promise<unknown>) => {
    try {
      setError(null);
      client.setQueryData(['versions', id], await work);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const open = async (of: string) => {
    try {
      const doc = await ask(JOBS.revision, { id, revision: of });
      change((j) => Object.assign(j.document, doc));
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const given = name.trim();
          if (given !== '' && revision !== null)
            void act(ask(JOBS.nameVersion, { id }, { revision, name: given })).then(() => setName(''));
        }}
      >
        <label className="flex items-center gap-2 py-1 text-sm">
          <span className="w-24 shrink-0">Name it</span>
          <input
            type="text"
            className="input input-sm min-w-0 flex-1 bg-(--paper)"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-sm my-1 w-full" disabled={name.trim() === '' || revision === null}>
          Keep the board as it is as "{name.trim() || 'a version'}"
        </button>
      </form>
      {error && (
        <p role="alert" className="text-[13px] text-accent">
          {error}
        </p>
      )}
      <ul className="grid grid-cols-2 gap-2 py-1" aria-label="Versions">
        {list.data?.map((v) => (
          <li key={v.id} className="relative rounded-lg border border-base-300">
            <button
              type="button"
              className="w-full cursor-pointer text-left"
              onClick={() => void open(v.revision)}
              title="Go on from this version"
            >
              {/* biome-ignore lint/performance/noImgElement: a picture made by our own server */}
              <img
                src={addressOf(JOBS.revisionPicture, { id, revision: v.revision })}
                alt={`${v.name}, its layers joined`}
                className="aspect-3/2 w-full rounded-t-lg object-contain"
                loading="lazy"
              />
              <span className="block truncate px-2 py-1 text-[13px] font-semibold">{v.name}</span>
              <span className="soft block px-2 pb-1 text-[12.5px]">
                {v.revision === revision ? 'as it is now' : v.created.slice(0, 16).replace('T', ' ')}
              </span>
            </button>
            <button
              type="button"
              className="btn btn-square btn-xs absolute top-1 right-1"
              aria-label={`Forget the version ${v.name}`}
              onClick={() => void act(ask(JOBS.removeVersion, { id, version: v.id }))}
            >
              <X size={12} />
            </button>
          </li>
        ))}
      </ul>
      {list.data?.length === 0 && (
        <p className="soft text-[13px] leading-snug">
          None yet. Keep one, change the board, keep another, and compare.
        </p>
      )}
    </>
  );
}
