import { Copy, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { addressOf } from '@/contract/endpoint';
import { JOBS, type RackEntry } from '@/contract/jobs';
import { formatDuration } from '@/core/units/length';
import { JobPicture } from './job-picture';
import { RackFolder } from './rack-folder';

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });

function nextStep(j: RackEntry): string {
  const { errors = 0, warnings = 0 } = j.summary ?? {};
  if (j.unreadable !== null) return 'cannot be read';
  if (j.problems > 0) return `${j.problems} ${j.problems === 1 ? 'thing' : 'things'} to mend, open it`;
  switch (j.plan?.status) {
    case undefined:
      return 'open it to plan and prove it';
    case 'queued':
    case 'running':
      return `${j.plan.status === 'queued' ? 'waits to be planned' : 'planning'}${j.about === null ? '' : `, about ${formatDuration(Math.max(1, j.about))}`}`;
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
export function RackPlace({
  job: j,
  folders,
  onFolder,
  onRemove,
  onCopy,
}: {
  job: RackEntry;
  /** Folders that there are already. */
  folders: string[];
  onFolder(to: string): void;
  onRemove(): void;
  onCopy(): void;
}) {
  const facts = (
    <div className="px-4 py-3">
      <h3 className="slab truncate text-lg leading-tight">{j.name}</h3>
      <p className="soft text-sm">
        {j.folder && `${j.folder} · `}
        {j.order && `${j.order} · `}
        {j.board}
      </p>
      <p className="mt-1 text-sm">
        {j.summary && <b>{formatDuration(j.summary.seconds)} · </b>}
        {nextStep(j)}
      </p>
      <p className="soft text-[13px]">changed on {day.format(new Date(j.updated))}</p>
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
      <RackFolder job={j} folders={folders} onFolder={onFolder} />
      {j.unreadable === null && (
        <button
          type="button"
          className="btn btn-ghost btn-sm btn-square absolute right-9 bottom-1"
          aria-label={`Duplicate ${j.name}`}
          title="Duplicate"
          onClick={onCopy}
        >
          <Copy size={15} />
        </button>
      )}
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square absolute right-1 bottom-1"
        title="Remove"
        aria-label={`Remove ${j.name}`}
        onClick={onRemove}
      >
        <Trash2 size={15} />
      </button>
    </li>
  );
}
