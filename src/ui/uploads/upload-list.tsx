'use client';
import { X } from 'lucide-react';
import Link from 'next/link';
import { useSyncExternalStore } from 'react';
import type { Uploads } from './uploads';

/** Files on their way with how far they are, those that have arrived, and those that were refused with why. */
export function UploadList({ uploads }: { uploads: Uploads }) {
  const { files } = useSyncExternalStore(uploads.subscribe, uploads.get, uploads.get);
  if (files.length === 0) return null;
  return (
    <ul aria-label="Files" className="mt-2 space-y-1.5 text-sm">
      {files.map(({ id, name, share, error, href }) => (
        <li key={id} className="flex items-center gap-2">
          {error !== null ? (
            <span role="alert" className="min-w-0 flex-1 text-accent">
              {error}
            </span>
          ) : href !== null ? (
            <span role="status" className="min-w-0 flex-1 truncate">
              <Link href={href} className="link">
                {name}: open its job
              </Link>
            </span>
          ) : (
            <span className="flex min-w-0 flex-1 items-center gap-2" role="status">
              <progress
                className="progress progress-primary w-24 shrink-0"
                value={share !== null && share < 1 ? share : undefined}
                max={1}
                aria-label={`${name}, upload`}
              />
              <span className="truncate">
                {share === null
                  ? `${name} waits`
                  : share < 1
                    ? `${name}, ${Math.round(share * 100)} %`
                    : `reading ${name}`}
              </span>
            </span>
          )}
          {error === null && href === null ? (
            <button
              type="button"
              className="btn btn-xs"
              aria-label={`Cancel ${name}`}
              onClick={() => uploads.leave(id)}
            >
              Cancel
            </button>
          ) : (
            <button
              type="button"
              className="btn btn-ghost btn-square btn-xs"
              aria-label={`Take away what is said of ${name}`}
              onClick={() => uploads.leave(id)}
            >
              <X size={12} aria-hidden />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
