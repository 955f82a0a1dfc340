'use client';
import { useQuery } from '@tanstack/react-query';
import { ask } from '@/contract/ask';
import { addressOf } from '@/contract/endpoint';
import { JOBS } from '@/contract/jobs';
import { differences } from './differences';
import type { Editing } from './use-editor';

/** Lines of differences that are shown. */
const MOST = 6;
const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });
const said = (at: string | undefined) => (at === undefined ? '' : `saved at ${time.format(new Date(at))}`);

/** One of the two versions, as a picture with its time, and what takes it. */
function Version({
  name,
  picture,
  at,
  take,
  primary,
}: {
  name: string;
  picture: string;
  at: string;
  take(): void;
  primary: boolean;
}) {
  return (
    <figure className="flex items-center gap-3">
      {/* biome-ignore lint/performance/noImgElement: a picture made by our own server */}
      <img
        src={picture}
        alt={`The board as ${name.toLowerCase()} has it`}
        className="h-16 rounded border border-base-300"
      />
      <figcaption>
        <button type="button" className={`btn btn-sm ${primary ? 'btn-primary' : ''}`} onClick={take}>
          {name}
        </button>
        <span className="soft block text-[12.5px]">{at}</span>
      </figcaption>
    </figure>
  );
}

/** Two saves on top of the same version: both are kept, and shown, until one is chosen or both are. */
export function Conflict({ id, state }: { id: string; state: Editing }) {
  const { editor, conflict, document } = state;
  const stored = useQuery({
    queryKey: ['conflict', id, conflict],
    queryFn: () => ask(JOBS.read, { id }),
    enabled: conflict !== null,
  });
  if (!conflict) return null;
  const picture = (revision: string) => addressOf(JOBS.revisionPicture, { id, revision });
  const kept = stored.data?.kept.find((k) => k.id === conflict.kept)?.created;
  const differ = document && stored.data ? differences(document, stored.data.document) : [];
  const more = differ.length - MOST;
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-accent bg-base-100 px-4 py-2 text-sm"
    >
      <div className="min-w-60 flex-1">
        <p>This job was changed elsewhere, in another tab perhaps. Both versions are kept; which one goes on?</p>
        {differ.length > 0 && (
          <ul className="soft mt-1 list-disc pl-5 text-[12.5px] leading-snug">
            {differ.slice(0, MOST).map((d) => (
              <li key={d}>{d}</li>
            ))}
            {more > 0 && <li>and {more} more</li>}
          </ul>
        )}
      </div>
      <Version
        name="The other one"
        picture={picture(conflict.head)}
        at={said(stored.data?.updated)}
        take={() => void editor.settle('other')}
        primary={false}
      />
      <Version
        name="Mine"
        picture={picture(conflict.kept)}
        at={said(kept)}
        take={() => void editor.settle('mine')}
        primary
      />
      <button
        type="button"
        className="btn btn-sm"
        title="The other one goes on; mine is kept under Versions side by side"
        onClick={() => void editor.settle('both', `Mine, ${time.format(new Date())}`)}
      >
        Both
      </button>
    </div>
  );
}
