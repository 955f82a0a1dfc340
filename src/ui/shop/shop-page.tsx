'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import Link from 'next/link';
import { ask } from '@/contract/ask';
import { addressOf } from '@/contract/endpoint';
import { JOBS, type RackEntry } from '@/contract/jobs';
import { formatDuration } from '@/core/units/length';
import { ShopTools } from '../palette/shop-tools';
import { PlaceLinks } from '../places/place-links';
import { DropZone } from './drop-zone';
import { JobPicture } from './job-picture';
import { RemovedJobs } from './removed-jobs';
import { ShopBackup } from './shop-backup';
import { ShopDevices } from './shop-devices';

function nextStep(j: RackEntry): string {
  const { errors = 0, warnings = 0 } = j.summary ?? {};
  if (j.unreadable !== null) return 'cannot be read';
  if (j.problems > 0) return `${j.problems} ${j.problems === 1 ? 'thing' : 'things'} to mend, open it`;
  switch (j.plan?.status) {
    case undefined:
      return 'open it to plan and prove it';
    case 'queued':
    case 'running':
      return 'is being planned';
    case 'done':
      if (j.plan.revision !== j.revision) return 'changed since it was proven';
      if (j.older) return 'proven by an older version: prove again';
      if (errors > 0) return `${errors} ${errors === 1 ? 'error' : 'errors'} to look at`;
      return warnings > 0 ? `proven, ${warnings} ${warnings === 1 ? 'warning' : 'warnings'} to read` : 'ready to run';
    case 'failed':
      return 'planning failed, open it';
    default:
      return 'planning was stopped, open it';
  }
}

/** One job on the rack; one that cannot be read says why, and hands out its document as it is stored. */
function RackPlace({ job: j, onRemove }: { job: RackEntry; onRemove(): void }) {
  const facts = (
    <div className="px-4 py-3">
      <h3 className="slab truncate text-lg leading-tight">{j.name}</h3>
      <p className="soft text-sm">
        {j.order && `${j.order} · `}
        {j.board}
      </p>
      <p className="mt-1 text-sm">
        {j.summary && <b>{formatDuration(j.summary.seconds)} · </b>}
        {nextStep(j)}
      </p>
    </div>
  );
  return (
    <li className="panel relative">
      {j.unreadable !== null ? (
        <div className="pb-10">
          {facts}
          <p role="alert" className="px-4 text-sm break-words text-accent">
            {j.unreadable}
          </p>
          <a className="btn btn-sm mt-2 ml-4" href={addressOf(JOBS.raw, { id: j.id })} download>
            Its document as it is stored
          </a>
        </div>
      ) : (
        <Link href={`/jobs/${j.id}`} className="block rounded-lg">
          <JobPicture job={j} />
          {facts}
        </Link>
      )}
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square absolute right-1 bottom-1"
        aria-label={`Remove ${j.name}`}
        onClick={onRemove}
      >
        <Trash2 size={15} />
      </button>
    </li>
  );
}

/** The shop: jobs as boards on a rack, and the ways to its other places. */
export function ShopPage() {
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: (id: string) => ask(JOBS.remove, { id }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: () => ask(JOBS.rack, {}), refetchInterval: 4000 });
  return (
    <div className="mx-auto max-w-6xl px-5 pb-10">
      <header className="flex items-center gap-4 py-4">
        <h1 className="slab flex-1 text-2xl">
          zealous <span className="text-primary">grain</span>
        </h1>
        <PlaceLinks here={null} />
        <ShopTools />
      </header>
      <main className="space-y-8">
        <DropZone />
        <section aria-label="Jobs">
          <h2 className="slab mb-2 text-xl">On the rack</h2>
          {(jobs.error ?? remove.error) && (
            <p role="alert" className="text-accent">
              {(jobs.error ?? remove.error)?.message}
            </p>
          )}
          {jobs.data?.length === 0 && (
            <p className="soft">No boards yet. Drop a relief above, and the first one stands here.</p>
          )}
          <ul className="grid grid-cols-1 gap-4 border-b-8 border-(--wood-line) pb-3 sm:grid-cols-2 lg:grid-cols-3">
            {jobs.data?.map((j) => (
              <RackPlace key={j.id} job={j} onRemove={() => remove.mutate(j.id)} />
            ))}
          </ul>
          <RemovedJobs />
        </section>
        <ShopDevices />
        <ShopBackup jobs={jobs.data?.length ?? 0} />
      </main>
    </div>
  );
}
