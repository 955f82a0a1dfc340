import path from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import type { Job } from '../core/doc/job';
import type { GivenProgram } from '../core/plan/given-programs';
import { planJob } from '../core/plan/pipeline';
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

const order = workerData as PlanOrder;
const tell = (news: PlanNews) => parentPort!.postMessage(news);
const host = new KernelPool();

try {
  const seconds: Record<string, number> = {};
  const plan = await planJob(
    order.job,
    contentLoader((hash, file) => new AssetStore(order.assets).read(hash, file)),
    {
      host,
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
