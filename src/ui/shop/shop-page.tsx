'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Search } from 'lucide-react';
import { useEffect, useState } from 'react';
import { ask } from '@/contract/ask';
import { JOBS } from '@/contract/jobs';
import { notices } from '../controls/notices';
import { useSaidUnit } from '../controls/unit';
import { ShopTools } from '../palette/shop-tools';
import { PlaceLinks } from '../places/place-links';
import { DropAnywhere } from '../uploads/drop-anywhere';
import { DropZone } from './drop-zone';
import { useNewJobs } from './new-jobs';
import { NewShop } from './new-shop';
import { foldersOf, ORDERS, onRack, type RackOrder, type RackState, STATES } from './rack-order';
import { RackPlace } from './rack-place';
import { RemovedJobs } from './removed-jobs';
import { ShopBackup } from './shop-backup';
import { ShopDevices } from './shop-devices';

/** One of a few, beside others of its kind. */
function Pick({
  label,
  value,
  of,
  onChange,
}: {
  label: string;
  value: string;
  of: Record<string, string>;
  onChange(v: string): void;
}) {
  return (
    <select
      className="select select-sm w-44 bg-(--paper)"
      aria-label={label}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {Object.entries(of).map(([v, said]) => (
        <option key={v} value={v}>
          {said}
        </option>
      ))}
    </select>
  );
}

/** Where this browser notes that the questions of a new shop were answered or skipped. */
const ASKED = 'zg-new-shop';

/** Whether they were, null while that is not known, and what notes it. */
function useAsked(): [boolean | null, () => void] {
  const [asked, setAsked] = useState<boolean | null>(null);
  useEffect(() => setAsked(localStorage.getItem(ASKED) !== null), []);
  return [
    asked,
    () => {
      localStorage.setItem(ASKED, 'asked');
      setAsked(true);
    },
  ];
}

/** The shop: jobs as boards on a rack, and the ways to its other places. */
export function ShopPage() {
  useSaidUnit();
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: ({ id }: { id: string; name: string }) => ask(JOBS.remove, { id }),
    onSuccess: (_, { id, name }) => notices.say(`${name} removed`, () => back.mutate(id)),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const back = useMutation({
    mutationFn: (id: string) => ask(JOBS.bringBack, { id }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const copy = useMutation({
    mutationFn: (id: string) => ask(JOBS.copy, { id }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const lay = useMutation({
    mutationFn: ({ id, folder }: { id: string; folder: string }) => ask(JOBS.folder, { id }, { folder }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const [text, setText] = useState('');
  const [state, setState] = useState<RackState>('all');
  const [folder, setFolder] = useState('');
  const [order, setOrder] = useState<RackOrder>('changed');
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: () => ask(JOBS.rack, {}), refetchInterval: 4000 });
  const failed = jobs.error ?? remove.error ?? back.error ?? copy.error ?? lay.error;
  const [asked, answered] = useAsked();
  const folders = foldersOf(jobs.data ?? []);
  // A folder that its last job has left is shown no more.
  const here = folders.includes(folder) ? folder : '';
  const shown = onRack(jobs.data ?? [], { text, state, folder: here, order });
  const fresh = useNewJobs();
  return (
    <DropAnywhere says="Let go: each file becomes a job" onFiles={fresh.take}>
      <div className="mx-auto max-w-[110rem] px-5 pb-10 max-sm:px-3">
        <header className="flex flex-wrap items-center gap-x-4 gap-y-1 py-4">
          <h1 className="slab flex-1 text-2xl whitespace-nowrap">
            zealous <span className="text-primary">grain</span>
          </h1>
          <PlaceLinks here={null} />
          <ShopTools />
        </header>
        <main className="space-y-8">
          {jobs.data?.length === 0 && asked === false && <NewShop onDone={answered} />}
          <DropZone uploads={fresh.uploads} onFiles={fresh.take} />
          <section aria-label="Jobs">
            <div className="mb-2 flex flex-wrap items-center gap-2">
              <h2 className="slab flex-1 text-xl">On the rack</h2>
              <label className="input input-sm w-56 bg-(--paper)">
                <Search size={14} aria-hidden />
                <input
                  type="search"
                  value={text}
                  placeholder="Name, order, board"
                  aria-label="Search jobs"
                  onChange={(e) => setText(e.target.value)}
                />
              </label>
              {folders.length > 0 && (
                <Pick
                  label="Folder of the jobs shown"
                  value={here}
                  of={Object.fromEntries([['', 'all folders'], ...folders.map((f) => [f, f])])}
                  onChange={setFolder}
                />
              )}
              <Pick
                label="State of the jobs shown"
                value={state}
                of={STATES}
                onChange={(v) => setState(v as RackState)}
              />
              <Pick label="Order of the jobs" value={order} of={ORDERS} onChange={(v) => setOrder(v as RackOrder)} />
            </div>
            {failed && (
              <p role="alert" className="text-accent">
                {failed.message}
              </p>
            )}
            {jobs.data?.length === 0 && (
              <p className="soft">No boards yet. Drop a relief above, and the first one stands here.</p>
            )}
            {shown.length === 0 && !!jobs.data?.length && (
              <p className="soft mb-2">
                None of the {jobs.data.length} jobs matches; search for less, or show all of them.
              </p>
            )}
            <ul className="grid grid-cols-1 gap-4 border-b-8 border-(--wood-line) pb-3 sm:grid-cols-2 lg:grid-cols-3 2xl:grid-cols-5">
              {shown.map((j) => (
                <RackPlace
                  key={j.id}
                  job={j}
                  folders={folders}
                  onFolder={(to) => lay.mutate({ id: j.id, folder: to })}
                  onRemove={() => remove.mutate({ id: j.id, name: j.name })}
                  onCopy={() => copy.mutate(j.id)}
                />
              ))}
            </ul>
            <RemovedJobs />
          </section>
          <ShopDevices />
          <ShopBackup jobs={jobs.data?.length ?? 0} />
        </main>
      </div>
    </DropAnywhere>
  );
}
