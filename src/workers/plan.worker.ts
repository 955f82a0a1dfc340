import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import type { Job } from '../core/plan/job';
import { packStage } from '../core/plan/pack';
import { planJob } from '../core/plan/pipeline';
import { transferableView } from '../core/plan/view';
import { AssetStore } from '../server/assets';
import { contentLoader } from '../server/content';
import { KernelPool } from '../server/kernel-pool';
import { StageCache, stageRunner } from '../server/stage-cache';

export interface PlanOrder {
  job: Job;
  /** Folder of the files, each under its hash. */
  assets: string;
  cache: string;
  /** Folder that the result is put into, made in one step at the end. */
  out: string;
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
    contentLoader((hash) => new AssetStore(order.assets).read(hash)),
    {
      host,
      progress: (name, share) => tell({ kind: 'progress', name, share }),
      stage: stageRunner(new StageCache(order.cache), seconds),
    },
  );
  // Under a name of its own until it is whole: a crash or a second run never leaves half a result in its place.
  const aside = `${order.out}.${randomUUID()}.part`;
  mkdirSync(aside, { recursive: true });
  const { programs, ...rest } = plan.summary;
  programs.forEach((p, i) => {
    writeFileSync(path.join(aside, `program-${i}.nc`), p.text);
  });
  const summary = {
    ...rest,
    stageSeconds: seconds,
    programs: programs.map(({ text, ...p }) => ({ ...p, bytes: text.length })),
  };
  writeFileSync(path.join(aside, 'summary.json'), JSON.stringify(summary));
  const { packed, full } = transferableView(plan);
  for (const [name, result] of [
    ['view.bin', packed],
    ['full.bin', full],
  ] as const) {
    writeFileSync(path.join(aside, name), '');
    for (const b of packStage(result)) writeFileSync(path.join(aside, name), b, { flag: 'a' });
  }
  if (existsSync(order.out)) rmSync(aside, { recursive: true });
  else renameSync(aside, order.out);
  tell({ kind: 'done' });
} catch (e) {
  tell({ kind: 'failed', message: (e as Error).message });
} finally {
  await host.close();
}
