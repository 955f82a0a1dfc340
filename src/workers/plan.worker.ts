import { totalmem } from 'node:os';
import path from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import type { Job } from '../core/doc/job';
import type { GivenProgram } from '../core/plan/given-programs';
import { planJob } from '../core/plan/pipeline';
import { memoryFor } from '../core/plan/plots';
import { AssetStore } from '../server/assets';
import { contentLoader } from '../server/content';
import { KernelPool } from '../server/kernel-pool';
import { planFiles } from '../server/plan-files';
import { reasonOf } from '../server/reasons';
import { storeResult } from '../server/results';
import { StageCache, stageRunner } from '../server/stage-cache';

export interface PlanOrder {
  job: Job;
  /** Programs from files that are judged in the place of those that are planned. */
  given: GivenProgram[] | null;
  /** Folder of the files, each under its hash. */
  assets: string;
  cache: string;
  /** Who plans: part of every stage's key, and of the result. */
  planner: string;
  /** Folder that the result is put into, made in one step at the end, and the one that it is put together in. */
  out: string;
  aside: string;
}

export type PlanNews =
  | { kind: 'progress'; name: string; share: number }
  | { kind: 'done' }
  | { kind: 'failed'; message: string };

/** Share of a machine's memory that planning may take. */
const SHARE = 0.85;

const order = workerData as PlanOrder;
const tell = (news: PlanNews) => parentPort!.postMessage(news);
const host = new KernelPool();

/** @throws when a job takes more memory than there is: the system would end this program in the middle of it */
function refuseTooLarge(job: Job): void {
  const [needed, has] = [memoryFor(job), totalmem()];
  if (needed <= SHARE * has) return;
  const gb = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`;
  throw new Error(
    `planning this takes ${gb(needed)} of memory, and this machine has ${gb(has)}; give the job a coarser cell, a larger finishing bit or a smaller board`,
  );
}

try {
  refuseTooLarge(order.job);
  const seconds: Record<string, number> = {};
  const plan = await planJob(
    order.job,
    contentLoader((hash, file) => new AssetStore(order.assets).read(hash, file)),
    {
      host,
      threads: host,
      progress: (name, share) => tell({ kind: 'progress', name, share }),
      stage: stageRunner(new StageCache(order.cache), order.planner, seconds),
    },
    order.given,
  );
  storeResult(order.out, order.aside, { planner: order.planner, files: planFiles(plan, seconds) });
  tell({ kind: 'done' });
} catch (e) {
  tell({ kind: 'failed', message: reasonOf(e, path.dirname(order.out)) });
} finally {
  await host.close();
}
