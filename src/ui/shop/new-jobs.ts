import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { ask, send } from '@/contract/ask';
import { ASSETS } from '@/contract/assets';
import { JOBS } from '@/contract/jobs';
import { Uploads, type Way } from '../uploads/uploads';

/** Sends a relief or an exported job, and makes a job of it. */
function jobFrom(file: File, progress: (share: number) => void): { done: Promise<string>; cancel(): void } {
  if (/\.zip$/i.test(file.name)) {
    const up = send(JOBS.import, { name: file.name }, file, progress);
    return { done: up.done.then(({ id }) => id), cancel: up.cancel };
  }
  const up = send(ASSETS.put, { name: file.name }, file, progress);
  const made = up.done.then((a) => ask(JOBS.create, {}, { asset: a.hash }));
  return { done: made.then(({ id }) => id), cancel: up.cancel };
}

/** Files that come into the shop: each becomes a job. One alone is opened; of several each can be. */
export function useNewJobs(): { uploads: Uploads; take(files: readonly File[]): void } {
  const router = useRouter();
  const client = useQueryClient();
  const alone = useRef(false);
  const [uploads] = useState(
    () =>
      new Uploads((file, progress): Way => {
        const { done, cancel } = jobFrom(file, progress);
        const arrived = done.then((id) => {
          void client.invalidateQueries({ queryKey: ['jobs'] });
          // What a carver measures first is the board: the rest is proposed.
          const opened = `/jobs/${id}?station=board`;
          if (alone.current) router.push(opened);
          return opened;
        });
        return { done: arrived, cancel };
      }),
  );
  // Whoever has left the shop is not called back to it.
  useEffect(
    () => () => {
      alone.current = false;
    },
    [],
  );
  return {
    uploads,
    take: (files) => {
      alone.current = files.length === 1 && uploads.get().files.every((f) => f.error !== null || f.href !== null);
      uploads.take(files);
    },
  };
}
