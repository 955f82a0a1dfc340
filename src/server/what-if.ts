import { createHash } from 'node:crypto';
import type { WhatIf } from '../contract/jobs';
import type { Job } from '../core/doc/job';
import { problems } from '../core/plan/problems';
import type { PlanQueue } from './plan-queue';
import type { PlanBrief, ResultStore } from './results';

/** The hash of a document, under which its result lies. */
export const inputOf = (document: Job) => createHash('sha256').update(JSON.stringify(document)).digest('hex');

/** Variants of jobs, worked out when nothing else is to be done. */
export class Variants {
  private readonly failed = new Set<string>();

  constructor(
    private readonly results: ResultStore,
    private readonly queue: PlanQueue,
  ) {}

  /** What another document of a job comes to, or that it is being worked out from now on. */
  tryOut(job: string, document: Job): WhatIf {
    const short = (status: WhatIf['status']) => ({ status, seconds: null, errors: 0 });
    if (problems(document).some((f) => f.stops)) return short('stopped');
    const input = inputOf(document);
    const known: PlanBrief | null = this.results.isFresh(input) ? this.results.brief(input) : null;
    if (known) return { status: 'known', seconds: known.seconds, errors: known.errors };
    const key = `variant ${input}`;
    if (this.failed.has(key)) return short('failed');
    const ended = ({ status }: { status: string }) => {
      if (status === 'failed') this.failed.add(key);
    };
    this.queue.add({ key, job, document, input, rank: 'variant', ended });
    return short('planning');
  }
}
