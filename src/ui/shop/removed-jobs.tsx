'use client';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { ask } from '@/contract/ask';
import { JOBS } from '@/contract/jobs';

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });

/** Jobs that were removed lately, each with the way back and the day until which there is one. */
export function RemovedJobs() {
  const client = useQueryClient();
  const removed = useQuery({ queryKey: ['jobs', 'removed'], queryFn: () => ask(JOBS.removed, {}) });
  const back = useMutation({
    mutationFn: (id: string) => ask(JOBS.bringBack, { id }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  if (!removed.data?.length) return null;
  return (
    <section aria-label="Removed jobs" className="mt-3">
      <h3 className="slab text-base">Removed</h3>
      {back.error && (
        <p role="alert" className="text-sm text-accent">
          {back.error.message}
        </p>
      )}
      <ul className="text-sm">
        {removed.data.map((j) => (
          <li key={j.id} className="flex flex-wrap items-center gap-x-3">
            <span className="font-semibold">{j.name}</span>
            <span className="soft">
              {j.order && `${j.order} · `}
              {j.board} · kept until {day.format(new Date(j.until))}
            </span>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              disabled={back.isPending}
              onClick={() => back.mutate(j.id)}
            >
              <Undo2 size={14} aria-hidden /> Bring back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
