import { useState } from 'react';
import { addressOf } from '@/contract/endpoint';
import { JOBS, type RackEntry } from '@/contract/jobs';
import { PLANS } from '@/contract/plans';

/** A job from above, small: the cut board of its finished plan, else its layers joined. */
export function JobPicture({ job: { id, name, revision, setup, plan } }: { job: RackEntry }) {
  /** A plan whose result is damaged has none; it is planned again. */
  const [broken, setBroken] = useState<string | null>(null);
  const proven = plan?.status === 'done' && setup !== null && plan.id !== broken ? plan.id : null;
  const [src, alt] =
    proven !== null && setup !== null
      ? [addressOf(PLANS.picture, { id: proven, setup }), `${name}, the proven cut from above`]
      : [addressOf(JOBS.revisionPicture, { id, revision }), `${name}, its layers joined, not proven yet`];
  return (
    <div className="flex h-36 items-center justify-center overflow-hidden rounded-t-lg bg-base-300/50">
      {/* biome-ignore lint/performance/noImgElement: a picture made by our own server */}
      <img
        key={src}
        src={src}
        alt={alt}
        className={`max-h-full max-w-full ${proven === null ? 'opacity-80' : 'bg-[var(--paper)]'}`}
        loading="lazy"
        onError={() => setBroken(proven)}
      />
    </div>
  );
}
