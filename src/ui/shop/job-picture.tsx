'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { ask } from '@/contract/ask';
import { addressOf } from '@/contract/endpoint';
import { JOBS, type RackEntry } from '@/contract/jobs';
import { PLANS } from '@/contract/plans';
import { shade } from '@/core/arrange/picture';
import { themeColour } from '../board-view/theme-colour';
import { useDark } from '../theme-switch';

/** The cut board of a finished plan as a small picture. */
export function JobPicture({ job }: { job: RackEntry }) {
  const { name, setup } = job;
  const plan = job.plan?.status === 'done' ? job.plan.id : null;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [dark] = useDark();
  const view = useQuery({
    queryKey: ['view', plan, job.plan?.revision, setup],
    queryFn: () => ask(PLANS.view, { id: plan!, setup: setup! }),
    enabled: plan !== null && setup !== null,
    staleTime: Infinity,
    retry: 0,
  });
  useEffect(() => {
    void dark;
    const c = canvas.current;
    if (!c || !view.data) return;
    const { grid, cut, mask } = view.data;
    const image = shade({ grid, heights: cut, mask, paper: themeColour('--paper'), hatch: themeColour('--hatch') });
    c.width = image.width;
    c.height = image.height;
    c.getContext('2d')?.putImageData(new ImageData(image.data, image.width, image.height), 0, 0);
  }, [view.data, dark]);
  return (
    <div className="flex h-36 items-center justify-center overflow-hidden rounded-t-lg bg-base-300/50">
      {view.data ? (
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${name}, the proven cut from above`}
          className="max-h-full max-w-full"
        />
      ) : (
        // biome-ignore lint/performance/noImgElement: a picture made by our own server
        <img
          src={addressOf(JOBS.revisionPicture, { id: job.id, revision: job.revision })}
          alt={`${name}, its layers joined, not proven yet`}
          className="max-h-full max-w-full opacity-80"
          loading="lazy"
        />
      )}
    </div>
  );
}
