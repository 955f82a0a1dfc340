import Link from 'next/link';

/** Most jobs that are named. */
const NAMED = 4;

/** Which jobs have a copy of something. Theirs stays as it is when the shop's own changes or goes. */
export function UsedBy({ jobs }: { jobs: { id: string; name: string }[] | undefined }) {
  if (!jobs?.length) return <p className="soft mb-2 text-sm">No job on the rack uses it.</p>;
  return (
    <p className="soft mb-2 text-sm">
      Used by{' '}
      {jobs.slice(0, NAMED).map((j, i) => (
        <span key={j.id}>
          {i > 0 && ', '}
          <Link className="link" href={`/jobs/${j.id}`}>
            {j.name}
          </Link>
        </span>
      ))}
      {jobs.length > NAMED && ` and ${jobs.length - NAMED} more`}. A job keeps its own copy: what changes here is
      offered to it, never forced on it.
    </p>
  );
}
